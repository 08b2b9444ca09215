/**
 * A sensor against a reference at several points: its error with its range, and whether it is within what it is allowed
 * to be off by. Pass: the error and its U (1.28 u, one-sided 90 %) are within; fail: beyond even without U; else it
 * cannot be told. A reference that reads low (at the tip, on the sheet) can only find that the sensor reads low too:
 * it fails a sensor or tells nothing. °C, u standard (k = 1). Decision by guard band: JCGM 106.
 */
import { InputError, need, ONE_SIDED_90 } from '../numeric'
import { placementOf, type Placement } from './placement'
import { referenceSays, type Reference, type Share } from './reference'
import { allowedAt, type Allowed } from './tolerance'

/** One point: what the printer showed, what the reference read (its unit), its cold junction. */
export interface Point {
  shownC: number
  reading: number
  coldC: number | null
  /** How much what is shown swung either way meanwhile, °C. */
  swingC: number
}

/** What a printer can show, °C. */
export const SHOWN_C = [-40, 600] as const
/** How much a shown temperature may swing, ± °C. */
export const SWING_C = [0, 30] as const
/** As many points as anybody takes. */
export const MOST_POINTS = 30
/** Points of one check whose shown values lie so near are the same point taken again, °C. */
export const SAME_POINT_C = 3
/** So far off it is more likely the wrong type, unit or wire than the sensor, °C. */
export const FAR_OFF_C = 40

/** How a check ends. */
export const CHECK_VERDICTS = ['pass', 'fail', 'cannot tell'] as const
export type CheckVerdict = (typeof CHECK_VERDICTS)[number]

export interface PointResult {
  shownC: number
  trueC: number
  /** What is added to what is shown: positive where the sensor reads low. */
  cC: number
  /** Null where nobody vouches for the reference there. */
  uC: number | null
  budget: Share[]
  allowedC: number | null
  verdict: CheckVerdict
  /** How many readings it is the mean of. */
  times: number
}

/** A correction at one shown temperature, °C. */
export interface CorrectionPoint {
  shownC: number
  cC: number
  uC: number
}

export interface CheckResult {
  points: PointResult[]
  verdict: CheckVerdict
  /** Whether the reference saw what the sensor sees. */
  own: boolean
  /** The point that decides: the most likely to be off. */
  worst: PointResult
  /** What counts in the limits: points of which the uncertainty is known. */
  correction: CorrectionPoint[]
}

/** Pass, fail or cannot tell by an error, its U and what is allowed (null: nobody vouches for it). °C. */
export function verdictOn(cC: number, u90C: number | null, allowedC: number | null, own: boolean): CheckVerdict {
  need('cC', cC, -2000, 2000, '°C')
  if (u90C === null || allowedC === null) return 'cannot tell'
  need('u90C', u90C, 0, 1000, '°C')
  need('allowedC', allowedC, 0, 1000, '°C')
  // a place that reads low tells how much too low the sensor reads at least, and nothing else
  const off = own ? Math.abs(cC) : cC
  if (off - u90C > allowedC) return 'fail'
  return own && off + u90C <= allowedC ? 'pass' : 'cannot tell'
}

/**
 * The whole check. Points that were taken again count as one, with what they differ by. Throws InputError that names
 * the point: a reading that its reference cannot have read, or hotter by the printer and colder by the reference.
 */
export function sensorCheck(
  points: readonly Point[],
  reference: Reference,
  placement: Placement,
  allowed: Allowed,
): CheckResult {
  if (points.length === 0 || points.length > MOST_POINTS)
    throw new InputError('points', points.length, `1 to ${MOST_POINTS} points`)
  const place = placementOf(placement)
  const read = points.map((p, i) => {
    need(`points.${i}.shownC`, p.shownC, ...SHOWN_C, '°C')
    need(`points.${i}.swingC`, p.swingC, ...SWING_C, '°C')
    try {
      return { at: i, shownC: p.shownC, swingC: p.swingC, ...referenceSays(reference, p.reading, p.coldC) }
    } catch (e) {
      throw e instanceof InputError && ['reading', 'coldC'].includes(e.field)
        ? new InputError(`points.${i}.${e.field}`, e.given, e.allowed)
        : e
    }
  })
  const sorted = [...read].sort((a, b) => a.shownC - b.shownC)
  const groups: (typeof read)[] = []
  for (const r of sorted) {
    const last = groups.at(-1)
    if (last && r.shownC - last[0]!.shownC <= SAME_POINT_C) last.push(r)
    else groups.push([r])
  }
  const mean = (of: readonly number[]) => of.reduce((a, b) => a + b, 0) / of.length
  const results = groups.map((g): PointResult => {
    const shownC = mean(g.map(r => r.shownC))
    const cs = g.map(r => r.trueC - r.shownC)
    const cC = mean(cs)
    const spread = (Math.max(...cs) - Math.min(...cs)) / 2 / Math.sqrt(3)
    const swing = Math.max(...g.map(r => r.swingC)) / Math.sqrt(3)
    const own = g.find(r => r.uC === null) ?? g.reduce((a, b) => (b.uC! > a.uC! ? b : a))
    const budget = [
      ...own.budget,
      { what: 'where it sits', uC: place.uC },
      { what: 'what is shown swung', uC: swing },
      { what: 'taken again', uC: spread },
    ].filter(s => s.uC > 0)
    const uC = own.uC === null ? null : Math.hypot(own.uC, place.uC, swing, spread)
    const allowedC = allowedAt(allowed, shownC + cC)
    const verdict = verdictOn(cC, uC === null ? null : ONE_SIDED_90 * uC, allowedC, place.own)
    return { shownC, trueC: shownC + cC, cC, uC, budget, allowedC, verdict, times: g.length }
  })
  for (const [i, r] of results.entries()) {
    const before = results[i - 1]
    if (before && r.trueC <= before.trueC)
      throw new InputError(
        `points.${groups[i]![0]!.at}.reading`,
        points[groups[i]![0]!.at]!.reading,
        `more than at ${before.shownC.toFixed(0)} °C: here the printer shows ` +
          `${(r.shownC - before.shownC).toFixed(0)} °C more, the reference ` +
          `${Math.abs(r.trueC - before.trueC).toFixed(1)} °C less`,
      )
  }
  const order: readonly CheckVerdict[] = ['fail', 'cannot tell', 'pass']
  const verdict = order.find(v => results.some(r => r.verdict === v))!
  const used = (r: PointResult) => Math.abs(r.cC) / (r.allowedC ?? 1)
  const worst = results.filter(r => r.verdict === verdict).reduce((a, b) => (used(b) > used(a) ? b : a))
  const correction = results.flatMap(({ shownC, cC, uC }) => (uC === null ? [] : [{ shownC, cC, uC }]))
  return { points: results, verdict, own: place.own, worst, correction }
}
