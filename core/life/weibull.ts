/**
 * Life of a nozzle type: two-parameter Weibull by maximum likelihood. Exact failures, right-censored units (in service,
 * or retired before the limit) and interval-censored ones (found past the limit at a gauge).
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, section 8.4.1; ranges by the profile of the likelihood
 * (Meeker & Escobar, Statistical Methods for Reliability Data, section 8.4, from memory).
 */
import { bisect, gamma, InputError, inverseChiSquare, minimise, need } from '../numeric'

/** One unit's life, in any unit of use (kg here). */
export type LifeRecord =
  { kind: 'failed'; at: number } | { kind: 'survived'; until: number } | { kind: 'between'; from: number; to: number }

export interface WeibullFit {
  shape: number
  scale: number
  /** Use by which a tenth has failed. */
  b10: number
  mean: number
  logLikelihood: number
}

/** Why no shape and scale are the likeliest. */
export interface NoWeibull {
  cannotTell: 'all may have failed at the same use' | 'the shape runs away'
}

/** Fewer failures than this tell nothing of a spread of lives. */
export const FEWEST_FAILURES = 3
/** Shapes looked through. */
export const SHAPES = [0.05, 60] as const

/**
 * Shape and scale of the likeliest two-parameter Weibull distribution of lives, in the unit of the records; or why
 * there is none. Throws InputError for fewer than three units that reached the limit and for lives that are not above
 * 0.
 */
export function fitWeibull(records: readonly LifeRecord[]): WeibullFit | NoWeibull {
  const longest = checkRecords(records)
  if (mayAllFailAtOnce(records)) return { cannotTell: 'all may have failed at the same use' }
  const cost = (lnShape: number, lnScale: number) => -logLikelihood(records, Math.exp(lnShape), Math.exp(lnScale))
  const scaleFor = (lnShape: number) => minimise(s => cost(lnShape, s), Math.log(longest) - 12, Math.log(longest) + 12)
  const [low, high] = SHAPES.map(Math.log) as [number, number]
  const lnShape = minimise(b => cost(b, scaleFor(b)), low, high)
  if (lnShape < low + 1e-3 || lnShape > high - 1e-3) return { cannotTell: 'the shape runs away' }
  const shape = Math.exp(lnShape)
  const scale = Math.exp(scaleFor(lnShape))
  return {
    shape,
    scale,
    b10: scale * PER_SCALE.b10(shape),
    mean: scale * PER_SCALE.mean(shape),
    logLikelihood: logLikelihood(records, shape, scale),
  }
}

/** Use by which a share p has failed, and the mean, as multiples of the scale for a shape. */
export const quantilePerScale = (shape: number, p: number) => (-Math.log1p(-p)) ** (1 / shape)
export const meanPerScale = (shape: number) => gamma(1 + 1 / shape)

/** What is asked of a life; null: the shape itself. */
const PER_SCALE = {
  b10: (shape: number) => quantilePerScale(shape, 0.1),
  mean: meanPerScale,
  shape: null,
}

/** An 80 % range; null where the records set no end to it. */
export interface LifeRange {
  low80: number | null
  high80: number | null
}

/**
 * 80 % ranges of the B10 life, the mean (unit of the records) and the shape: all values for which some Weibull is less
 * likely than the likeliest by no more than half of the χ² with one degree of freedom that 80 % lie under. The records
 * as they were fitted; throws InputError as `fitWeibull` does.
 */
export function weibullRanges(
  records: readonly LifeRecord[],
  fit: Pick<WeibullFit, 'shape' | 'scale'>,
): Record<'b10' | 'mean' | 'shape', LifeRange> {
  checkRecords(records)
  need('shape', fit.shape, ...SHAPES)
  need('scale', fit.scale, Number.MIN_VALUE, Number.MAX_VALUE)
  const least = logLikelihood(records, fit.shape, fit.scale) - inverseChiSquare(0.8, 1) / 2
  const [low, high] = SHAPES.map(Math.log) as [number, number]
  const range = (of: keyof typeof PER_SCALE, found: number): LifeRange => {
    const perScale = PER_SCALE[of]
    // the likeliest Weibull that has this value, seen from its shape or from its scale
    const profile = (ln: number) => {
      const value = Math.exp(ln)
      const cost = perScale
        ? (x: number) => -logLikelihood(records, Math.exp(x), value / perScale(Math.exp(x)))
        : (x: number) => -logLikelihood(records, value, Math.exp(x))
      const [from, to] = perScale ? [low, high] : [Math.log(fit.scale) - 12, Math.log(fit.scale) + 12]
      return -cost(minimise(cost, from, to, 1e-7))
    }
    const end = (away: -1 | 1) => {
      const at = (step: number) => Math.log(found) + away * step
      const isOut = (step: number) => profile(at(step)) < least
      let step = 0.05
      while (!isOut(step)) {
        step *= 2
        if (step > FURTHEST_LN || (!perScale && (at(step) < low || at(step) > high))) return null
      }
      return Math.exp(at(bisect(isOut, 0, step, 1e-5)))
    }
    return { low80: end(-1), high80: end(1) }
  }
  const { shape, scale } = fit
  return {
    b10: range('b10', scale * PER_SCALE.b10(shape)),
    mean: range('mean', scale * PER_SCALE.mean(shape)),
    shape: range('shape', shape),
  }
}
/** An end further than this from the estimate, in ln, is none. */
const FURTHEST_LN = 8

/** The latest use at which the unit was looked at. */
function latest(r: LifeRecord): number {
  if (r.kind === 'failed') return r.at
  return r.kind === 'survived' ? r.until : r.to
}

/** The longest life; throws for records that are none. */
function checkRecords(records: readonly LifeRecord[]): number {
  const failures = records.filter(r => r.kind !== 'survived').length
  if (failures < FEWEST_FAILURES)
    throw new InputError('records', failures, 'at least three units that reached the limit')
  let longest = 0
  for (const r of records) {
    const v = latest(r)
    const from = r.kind === 'between' ? r.from : 0
    if (!(v > 0 && Number.isFinite(v) && from >= 0 && from < v))
      throw new InputError('records', v, 'lives above 0, from before to')
    longest = Math.max(longest, v)
  }
  return longest
}

/**
 * One use lies in all intervals, is that of every exact failure and beyond all survivors: an ever sharper shape is ever
 * likelier.
 */
function mayAllFailAtOnce(records: readonly LifeRecord[]): boolean {
  let from = 0
  let to = Infinity
  let survived = 0
  for (const r of records) {
    if (r.kind === 'survived') survived = Math.max(survived, r.until)
    else {
      from = Math.max(from, r.kind === 'failed' ? r.at : r.from)
      to = Math.min(to, r.kind === 'failed' ? r.at : r.to)
    }
  }
  return from <= to && survived < to
}

function logLikelihood(records: readonly LifeRecord[], shape: number, scale: number): number {
  let sum = 0
  for (const r of records) {
    if (r.kind === 'failed') {
      const z = r.at / scale
      sum += Math.log(shape / scale) + (shape - 1) * Math.log(z) - z ** shape
    } else if (r.kind === 'survived') sum -= (r.until / scale) ** shape
    else {
      const a = (r.from / scale) ** shape,
        b = (r.to / scale) ** shape
      sum += -a + Math.log(Math.max(-Math.expm1(a - b), 1e-300))
    }
  }
  return Number.isFinite(sum) ? sum : -1e300
}
