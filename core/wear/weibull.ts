/**
 * Life of a nozzle type: two-parameter Weibull by maximum likelihood. Exact failures, right-censored units (in service,
 * or retired before the limit) and interval-censored ones (found past the limit at a gauge).
 * Source: NIST/SEMATECH e-Handbook of Statistical Methods, section 8.4.1.
 */
import { minimise } from '../numeric'
import { WearInputError } from './types'

/** One unit's life, in any unit of use (kg here). */
export type LifeRecord = { kind: 'failed', at: number } | { kind: 'survived', until: number } | { kind: 'between', from: number, to: number }

export interface WeibullFit { shape: number, scale: number, b10: number, mean: number, logLikelihood: number }

/** Needs at least two records that failed, or three in all with one failure; throws WearInputError otherwise. */
export function fitWeibull(records: LifeRecord[]): WeibullFit {
  const failures = records.filter(r => r.kind !== 'survived').length
  if (failures < 2) throw new WearInputError('records', failures, 'at least two units that reached the limit')
  let longest = 0
  for (const r of records) {
    const v = r.kind === 'failed' ? r.at : r.kind === 'survived' ? r.until : r.to
    const from = r.kind === 'between' ? r.from : 0
    if (!(v > 0 && Number.isFinite(v) && from >= 0 && from < v)) throw new WearInputError('records', v, 'lives above 0, from before to')
    longest = Math.max(longest, v)
  }
  const cost = (lnShape: number, lnScale: number) => -logLikelihood(records, Math.exp(lnShape), Math.exp(lnScale))
  const scaleFor = (lnShape: number) => minimise(s => cost(lnShape, s), Math.log(longest) - 12, Math.log(longest) + 12)
  const lnShape = minimise(b => cost(b, scaleFor(b)), Math.log(0.05), Math.log(60))
  const shape = Math.exp(lnShape)
  const scale = Math.exp(scaleFor(lnShape))
  return {
    shape, scale,
    b10: scale * (-Math.log(0.9)) ** (1 / shape),
    mean: scale * gamma(1 + 1 / shape),
    logLikelihood: logLikelihood(records, shape, scale),
  }
}

function logLikelihood(records: LifeRecord[], shape: number, scale: number): number {
  let sum = 0
  for (const r of records) {
    if (r.kind === 'failed') {
      const z = r.at / scale
      sum += Math.log(shape / scale) + (shape - 1) * Math.log(z) - z ** shape
    } else if (r.kind === 'survived') sum -= (r.until / scale) ** shape
    else {
      const a = (r.from / scale) ** shape, b = (r.to / scale) ** shape
      sum += -a + Math.log(Math.max(-Math.expm1(a - b), 1e-300))
    }
  }
  return Number.isFinite(sum) ? sum : -1e300
}

/** Gamma function, Lanczos approximation with g = 7 and nine terms (Press et al., Numerical Recipes, section 6.1; coefficients from memory). */
function gamma(z: number): number {
  const c = [0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7]
  const x = z - 1
  const t = x + 7.5
  const sum = c.slice(1).reduce((s, v, i) => s + v / (x + i + 1), c[0]!)
  return Math.sqrt(2 * Math.PI) * t ** (x + 0.5) * Math.exp(-t) * sum
}
