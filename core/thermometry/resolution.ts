/**
 * How fine a reading is: °C per count of the converter, 1 / |dN/dT|. A divider of pull-up R_p and sensor R gives
 * N = 2ⁿ·R/(R + R_p), so dN/dR = 2ⁿ·R_p/(R + R_p)². Source: voltage divider and converter arithmetic; beta equation of
 * an NTC.
 */
import { need } from '../numeric'
import { checkDivider, ntcOhm, type Divider } from './ntc'
import { platinumOhm, platinumSlope } from './platinum'
import { thermocoupleSlope } from './thermocouple'

const KELVIN = 273.15

/** °C per count of an NTC in a divider. */
export function ntcResolution(tC: number, ntc: { r25Ohm: number; betaK: number }, d: Divider): number {
  const r = ntcOhm(tC, ntc.r25Ohm, ntc.betaK)
  return 1 / ((countsPerOhm(r, d) * r * ntc.betaK) / (tC + KELVIN) ** 2)
}

/** °C per count of a platinum sensor in a divider, t from 0 to 850 °C. */
export function platinumResolution(tC: number, r0Ohm: number, d: Divider): number {
  return 1 / (countsPerOhm(platinumOhm(tC, r0Ohm), d) * platinumSlope(tC, r0Ohm))
}

/** °C per count of a type K thermocouple on a converter with `countMicrovolt` µV per count. */
export function typeKResolution(tC: number, countMicrovolt: number): number {
  need('countMicrovolt', countMicrovolt, 0.01, 1000, 'µV')
  return countMicrovolt / (1000 * thermocoupleSlope('K', tC))
}

function countsPerOhm(r: number, d: Divider): number {
  checkDivider(d)
  return (2 ** d.bits * d.pullUpOhm) / (r + d.pullUpOhm) ** 2
}
