/**
 * Whether a probe has come to rest. By a straight line through its last readings: it is steady where the upper 90 %
 * bound of |slope| × τ, the way still to go, is under 1 °C; it moves where the lower bound is over that; between the
 * two nobody can tell yet. What readings usually scatter by counts with their own. s, °C. Least squares and Student's
 * distribution: textbook forms.
 */
import { bisect, InputError, need, studentCdf } from '../numeric'
import { CHAMBER_C } from './warm-up'

/** What a probe read at each time of the survey; null where it gave nothing. */
export type Read = number | null

/** So far from its end a chamber counts as steady, °C. */
export const STEADY_WITHIN_C = 1
/** Time constant where nobody recorded a warm-up of the chamber: common practice, no source. s */
export const PRACTICE_TAU_S = 1800
/** Time constants of any chamber, s. */
export const TAU_S = [10, 1e5] as const
/** Fewer readings tell nothing of a slope. */
export const FEWEST_READINGS = 3
/** What readings usually scatter by, °C, and how many degrees of freedom that is worth: common practice, no source. */
const USUAL = { scatterC: 0.1, degrees: 4 }
const CONFIDENCE = 0.9

/** How a probe stands at the end of its readings. */
export const STEADY_STATES = ['steady', 'rising', 'falling', 'cannot tell', 'died'] as const
export type SteadyState = (typeof STEADY_STATES)[number]

export interface Steady {
  state: SteadyState
  /** Mean of the last readings, °C; null of one that died or never read. */
  c: number | null
  /** °C per hour; null where there are too few readings. */
  slopePerH: number | null
  /** Upper 90 % bound of the way still to go, °C. */
  toGoC: number | null
  /** How many readings that rests on, and over how long. */
  used: number
  overS: number
  /** When it read last, s; null where it never did. */
  lastS: number | null
}

/** Times of a survey in order. Throws InputError. */
export function checkTimes(timesS: readonly number[]): void {
  timesS.forEach((s, i) => {
    need(`timesS.${i}`, s, 0, 1e7, 's')
    if (i > 0 && s <= timesS[i - 1]!) throw new InputError(`timesS.${i}`, s, `a time after ${timesS[i - 1]!} s`)
  })
}
/** As many readings of a probe as times, each of an air that can be. Throws InputError. */
export function checkReads(timesS: readonly number[], reads: readonly Read[], field: string): void {
  if (reads.length !== timesS.length)
    throw new InputError(field, reads.length, `${timesS.length} readings, one for each time`)
  reads.forEach((c, i) => {
    if (c !== null) need(`${field}.${i}`, c, ...CHAMBER_C, '°C')
  })
}

/** The readings that a probe is judged by: those of the last half time constant, at least the last three. */
export function lastOf(timesS: readonly number[], reads: readonly Read[], tauS: number): { s: number; c: number }[] {
  const all = timesS.flatMap((s, i) => (reads[i] === null || reads[i] === undefined ? [] : [{ s, c: reads[i] }]))
  const from = (all[all.length - 1]?.s ?? 0) - tauS / 2
  const some = all.filter(r => r.s >= from)
  return some.length >= FEWEST_READINGS ? some : all.slice(-FEWEST_READINGS)
}

/**
 * How one probe stands at the end of its readings, in a chamber of time constant `tauS` (10 to 1e5 s). Throws
 * InputError for times out of order or a reading outside −40 to 400 °C.
 *
 * @example
 * steadyAt([0, 300, 600, 900], [60, 61, 62, 63], 1200).state // "rising"
 */
export function steadyAt(timesS: readonly number[], reads: readonly Read[], tauS: number): Steady {
  checkTimes(timesS)
  checkReads(timesS, reads, 'reads')
  need('tauS', tauS, ...TAU_S, 's')
  return restOf(timesS, reads, tauS)
}
/** The same of readings that are checked. */
export function restOf(timesS: readonly number[], reads: readonly Read[], tauS: number): Steady {
  const last = lastOf(timesS, reads, tauS)
  const n = last.length
  const lastS = last[n - 1]?.s ?? null
  const overS = n === 0 ? 0 : lastS! - last[0]!.s
  const nothing = { slopePerH: null, toGoC: null, used: n, overS, lastS }
  // it gave nothing at the end while the survey went on
  if (lastS === null || reads[reads.length - 1] === null) return { ...nothing, state: 'died', c: null }
  const mean = last.reduce((a, r) => a + r.c, 0) / n
  if (n < FEWEST_READINGS) return { ...nothing, state: 'cannot tell', c: mean }
  const meanS = last.reduce((a, r) => a + r.s, 0) / n
  const sxx = last.reduce((a, r) => a + (r.s - meanS) ** 2, 0)
  const slope = last.reduce((a, r) => a + (r.s - meanS) * (r.c - mean), 0) / sxx
  const rest = last.reduce((a, r) => a + (r.c - mean - slope * (r.s - meanS)) ** 2, 0)
  // three readings tell little of their own scatter, and four equal ones do not scatter by nothing
  const degrees = n - 2 + USUAL.degrees
  const se = Math.sqrt((rest + USUAL.degrees * USUAL.scatterC ** 2) / degrees / sxx)
  const { upper, lower } = boundsOf(Math.abs(slope), se, degrees)
  const toGoC = upper * tauS
  const moving = lower * tauS >= STEADY_WITHIN_C
  const way = slope > 0 ? 'rising' : 'falling'
  let state: SteadyState = 'cannot tell'
  if (toGoC < STEADY_WITHIN_C) state = 'steady'
  else if (moving) state = way
  return { state, c: mean, slopePerH: slope * 3600, toGoC, used: n, overS, lastS }
}

/** The 90 % bounds of |slope|, each one-sided, by a slope that scatters either way. */
function boundsOf(size: number, se: number, degrees: number): { upper: number; lower: number } {
  const within = (b: number) => studentCdf((b - size) / se, degrees) - studentCdf((-b - size) / se, degrees)
  const most = size + 1000 * se
  return {
    upper: bisect(b => within(b) >= CONFIDENCE, 0, most, 1e-9 * most),
    lower: within(0) > 1 - CONFIDENCE ? 0 : bisect(b => within(b) >= 1 - CONFIDENCE, 0, most, 1e-9 * most),
  }
}
