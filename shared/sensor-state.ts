/** How a sensor stands by its stored checks: one reading of them for the server's counts and the screens. */
import { sensorCheck, sensorState, type CheckResult, type SensorState } from '#core/thermometry'
import type { SensorCheckLine, SensorLine } from './answers/sensors'

/** What the core makes of a stored check; null where its numbers do not read any more: no bad row takes a list down. */
export function resultOf(c: Pick<SensorCheckLine, 'points' | 'referenceIs' | 'placement' | 'allowed'>) {
  try {
    return sensorCheck(c.points, c.referenceIs, c.placement, c.allowed)
  } catch {
    return null
  }
}
export type ReadCheck = SensorCheckLine & { result: CheckResult }
/** Checks that count for the sensor that sits there now, the latest first. */
export const countingChecks = (s: Pick<SensorLine, 'checks'>): ReadCheck[] =>
  s.checks.flatMap(c => {
    const result = c.struck === null && c.ofThisSensor ? resultOf(c) : null
    return result ? [{ ...c, result }] : []
  })
export const stateOf = (s: Pick<SensorLine, 'checks'>): SensorState<ReadCheck> => sensorState(countingChecks(s))
