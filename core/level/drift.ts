/**
 * How a printer's Z number, or the offset of its probe, wanders over time: a straight line by least squares with the
 * range of its slope by Student's distribution. mm, days. Source: any text on simple linear regression, such as
 * Draper and Smith, Applied Regression Analysis, chapter 1.
 */
import { Z_MM } from '../changeover'
import { bisect, need, studentCdf } from '../numeric'

/** Fewer readings than this tell no drift. */
export const FEWEST_OF_DRIFT = 4
/** A drift of less than this over the readings is nothing that a first layer shows, mm. */
export const DRIFT_MM = 0.05
/** Days that readings may be apart. */
const DAYS = [0, 36_525] as const

export interface DriftPoint {
  /** Days since any moment. */
  day: number
  mm: number
}
export interface Drift {
  /** mm per 30 days, and its 90 % range. */
  per30: number
  low90: number
  high90: number
  /** The standard error of the slope, mm per day. */
  sePerDay: number
  /** What it makes between the first and the last reading, mm. */
  overMm: number
  days: number
  verdict: 'still' | 'drifts' | 'cannot tell'
}

/**
 * The drift of readings; null for fewer than two days or fewer than four readings. Z −60 to 60 mm. It drifts where the
 * range of the slope leaves out 0 and it makes more than 0.05 mm; it is still where even the ends of the range make
 * less. Throws InputError.
 *
 * @example
 * driftOf([{ day: 0, mm: 0 }]) // null
 */
export function driftOf(points: readonly DriftPoint[]): Drift | null {
  for (const [i, p] of points.entries()) {
    need(`points.${i}.day`, p.day, ...DAYS, 'days')
    need(`points.${i}.mm`, p.mm, ...Z_MM, 'mm')
  }
  const n = points.length
  const all = points.map(p => p.day)
  const days = n === 0 ? 0 : Math.max(...all) - Math.min(...all)
  if (n < FEWEST_OF_DRIFT || days < 2) return null
  const meanX = all.reduce((s, v) => s + v, 0) / n
  const meanY = points.reduce((s, p) => s + p.mm, 0) / n
  const sxx = points.reduce((s, p) => s + (p.day - meanX) ** 2, 0)
  const slope = points.reduce((s, p) => s + (p.day - meanX) * (p.mm - meanY), 0) / sxx
  const rest = points.reduce((s, p) => s + (p.mm - meanY - slope * (p.day - meanX)) ** 2, 0)
  const sePerDay = Math.sqrt(rest / (n - 2) / sxx)
  const half = studentAt(0.95, n - 2) * sePerDay
  const [low, high] = [slope - half, slope + half]
  const most = Math.max(Math.abs(low), Math.abs(high)) * days
  const overMm = slope * days
  const apart = low > 0 || high < 0
  let verdict: Drift['verdict'] = 'cannot tell'
  if (apart && Math.abs(overMm) > DRIFT_MM) verdict = 'drifts'
  else if (most <= DRIFT_MM) verdict = 'still'
  return { per30: slope * 30, low90: low * 30, high90: high * 30, sePerDay, overMm, days, verdict }
}

/** The value below which a share of Student's distribution lies. */
const studentAt = (share: number, degrees: number) => bisect(t => studentCdf(t, degrees) >= share, 0, 1000, 1e-9)

/** The Z number that was set last, and what the printer shows after it was off, mm. */
export interface AfterPowerOff {
  setMm: number
  readMm: number
}
/** Of two Z numbers, nothing that a person sets, mm. */
const SAME_Z_MM = 0.005

/**
 * What is wrong with a Z number that was read after a power-off; null when it was kept. Z −60 to 60 mm; throws
 * InputError. A number that was lost puts the nozzle into the bed, or the first layer into the air.
 *
 * @example
 * lostZ({ setMm: -1.25, readMm: 0 }) // "Z reads 0.000 mm after a power-off; -1.250 was set: it was not kept."
 */
export function lostZ({ setMm, readMm }: AfterPowerOff): string | null {
  need('setMm', setMm, ...Z_MM, 'mm')
  need('readMm', readMm, ...Z_MM, 'mm')
  if (Math.abs(setMm - readMm) <= SAME_Z_MM) return null
  return `Z reads ${readMm.toFixed(3)} mm after a power-off; ${setMm.toFixed(3)} was set: it was not kept.`
}

/** Why a Z number stands in the log: after a change at the hot end, set by feeler, or read after a power-off. */
export const Z_WHYS = ['change', 'feeler', 'power-off'] as const
export type ZWhy = (typeof Z_WHYS)[number]
