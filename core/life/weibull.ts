/**
 * Life of a nozzle type: two-parameter Weibull by maximum likelihood. Exact failures, right-censored units (in service,
 * or retired before the limit) and interval-censored ones (found past the limit at a gauge).
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, section 8.4.1.
 */
import { InputError, minimise } from '../numeric'

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
const SHAPES = [0.05, 60] as const

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
    b10: scale * (-Math.log(0.9)) ** (1 / shape),
    mean: scale * gamma(1 + 1 / shape),
    logLikelihood: logLikelihood(records, shape, scale),
  }
}

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

/**
 * Gamma function, Lanczos approximation with g = 7 and nine terms (Press et al., Numerical Recipes, section 6.1;
 * coefficients from memory).
 */
function gamma(z: number): number {
  const c = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
    12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
  ]
  const x = z - 1
  const t = x + 7.5
  const sum = c.slice(1).reduce((s, v, i) => s + v / (x + i + 1), c[0]!)
  return Math.sqrt(2 * Math.PI) * t ** (x + 0.5) * Math.exp(-t) * sum
}
