/** What is set for a true temperature, as a heater is set. °C. Source: common practice, no source. */
import { setFor, type Correction } from '../thermometry'

/**
 * In whole degrees; where that were more than the hotend's ceiling (a setpoint, null: not known), to the tenth below.
 * Where nobody has checked the sensor, what is wanted is what is set.
 */
export function setWhole(sensor: Correction | null, wantedC: number, ceilingSetC: number | null): number {
  if (sensor === null) return wantedC
  const exact = setFor(sensor, wantedC)
  const whole = Math.round(exact)
  return ceilingSetC !== null && whole > ceilingSetC ? Math.floor(exact * 10) / 10 : whole
}
