/**
 * How a sensor drifts from check to check, and when the next one is due: before what it drifts by uses up what it is
 * allowed to be off by. Hours at heat, °C. Common practice, no source; the first interval is an invented start value.
 */
import { need, ONE_SIDED_90 } from '../numeric'
import type { CheckResult, CorrectionPoint } from './sensor-check'

/** First interval between checks, hours at heat; an invented start value. */
export const START_CHECK_H = 300
/** No sensor is checked oftener, nor left longer, hours at heat; common practice, no source. */
export const CHECK_BOUNDS_H = [50, 1000] as const
/** Checks closer together than this say nothing of drift, hours at heat. */
const LEAST_H = 20

/** °C per 100 hours at heat, the way `c` moves, with its U; from how many hours. */
export interface Drift {
  per100H: number
  u90: number
  hours: number
}

const near = (points: readonly CorrectionPoint[], shownC: number) =>
  points.reduce<CorrectionPoint | null>((best, p) => {
    const off = Math.abs(p.shownC - shownC)
    return off <= 10 && (best === null || off < Math.abs(best.shownC - shownC)) ? p : best
  }, null)

/**
 * Drift between two checks of one sensor, `hours` at heat apart (0 to 1e5): the mean over the points that both took
 * (within 10 °C). Null where they share none, or lie under 20 hours apart. U counts both checks as if they shared
 * nothing, which is more than the same reference twice has.
 */
export function driftBetween(
  before: readonly CorrectionPoint[],
  after: readonly CorrectionPoint[],
  hours: number,
): Drift | null {
  need('hours', hours, 0, 1e5, 'h')
  if (hours < LEAST_H) return null
  const pairs = after.flatMap(b => {
    const a = near(before, b.shownC)
    return a ? [{ moved: b.cC - a.cC, u: Math.hypot(a.uC, b.uC) }] : []
  })
  if (pairs.length === 0) return null
  const per = 100 / hours
  const moved = pairs.reduce((s, p) => s + p.moved, 0) / pairs.length
  return { per100H: moved * per, u90: ONE_SIDED_90 * Math.max(...pairs.map(p => p.u)) * per, hours }
}

/**
 * Hours at heat until the next check: 0 where this one failed; where the drift is known, until it (with its U) has used
 * what is left of the allowed error, 50 to 1000 h; else the start interval.
 */
export function nextCheckHours(check: Pick<CheckResult, 'verdict' | 'worst'>, drift: Drift | null): number {
  if (check.verdict === 'fail') return 0
  const { cC, allowedC } = check.worst
  if (drift === null || allowedC === null) return START_CHECK_H
  need('per100H', drift.per100H, -1e5, 1e5, '°C')
  need('u90', drift.u90, 0, 1e5, '°C')
  const left = Math.max(0, allowedC - Math.abs(cC))
  const rate = (Math.abs(drift.per100H) + drift.u90) / 100
  return Math.min(CHECK_BOUNDS_H[1], Math.max(CHECK_BOUNDS_H[0], rate === 0 ? CHECK_BOUNDS_H[1] : left / rate))
}

/** How a sensor stands by its checks: the one that counts, its drift, and when the next is due. */
export interface SensorState<C> {
  /** The latest in the sensor's own place; null where it was never checked there. */
  check: C | null
  drift: Drift | null
  /** Hours at heat until the next check, below 0 when it is past; null without a check. */
  nextInH: number | null
  /** It failed, or its hours are over. */
  isDue: boolean
}

/**
 * The state of a sensor by its standing checks, the latest first; `hoursSince` are hours at heat since each (0 to 1e6).
 */
export function sensorState<C extends { hoursSince: number; result: CheckResult }>(
  checks: readonly C[],
): SensorState<C> {
  for (const c of checks) need('hoursSince', c.hoursSince, 0, 1e6, 'h')
  const own = checks.filter(c => c.result.own)
  const [check, before] = own
  if (!check) return { check: null, drift: null, nextInH: null, isDue: false }
  const apart = before ? Math.min(1e5, Math.max(0, before.hoursSince - check.hoursSince)) : 0
  const drift = before ? driftBetween(before.result.correction, check.result.correction, apart) : null
  const nextInH = nextCheckHours(check.result, drift) - check.hoursSince
  return { check, drift, nextInH, isDue: check.result.verdict === 'fail' || nextInH <= 0 }
}
