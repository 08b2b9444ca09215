/**
 * Tip loss, a second and separate rate: tip = tip0 − λ·M, with tip0 normal and ln λ on a one-dimensional grid; tip0 is
 * integrated out exactly. Source: Archard (1953) with constant contact area; start values invented.
 */
import { cdfOf, type Cdf, type Life } from './life'
import { need, type LogNormalPrior, type TipHistory } from './types'

const PLACES = 201
const REACH = 5

export interface TipPosterior { lnRate: Float64Array, weight: Float64Array }

export function tipPosterior(history: TipHistory, prior: LogNormalPrior): TipPosterior {
  need('tip0.meanMm', history.tip0.meanMm, 0.5, 100)
  need('tip0.uMm', history.tip0.uMm, 1e-5, 5)
  for (const o of history.observations) {
    need('tipMm', o.tipMm, 0.1, 100)
    need('uMm', o.uMm, 1e-5, 5)
    need('wearKg', o.wearKg, 0, 1e6)
  }
  const lnRate = Float64Array.from({ length: PLACES }, (_, i) => prior.meanLn + prior.sd * REACH * (2 * i / (PLACES - 1) - 1))
  const log = lnRate.map(y => {
    const rate = Math.exp(y)
    // tip0 given the readings is normal: gather precision and weighted residuals about the receipt value
    let precision = history.tip0.uMm ** -2, pull = 0, square = 0
    for (const o of history.observations) {
      const w = o.uMm ** -2
      const e = o.tipMm + rate * o.wearKg - history.tip0.meanMm
      precision += w
      pull += w * e
      square += w * e * e
    }
    return -0.5 * (square - pull * pull / precision) - 0.5 * ((y - prior.meanLn) / prior.sd) ** 2
  })
  const best = log.reduce((a, b) => Math.max(a, b), -Infinity)
  const weight = log.map(v => Math.exp(v - best))
  const sum = weight.reduce((a, b) => a + b, 0)
  return { lnRate, weight: weight.map(w => w / sum) }
}

/** Life under the rule "tip loss at most `limitMm`". */
export function tipLife(p: TipPosterior, limitMm: number): Life {
  const step = p.lnRate[1]! - p.lnRate[0]!
  return { kind: 'cdf', lnKg: cdfOf(p.lnRate.map(y => Math.log(limitMm) - y), new Float64Array(p.lnRate.length).fill(step), p.weight) }
}

/** Distribution of the tip loss in mm after `wearKg`; the loss of a nozzle that saw nothing is 0. */
export function tipLossAt(p: TipPosterior, wearKg: number): Cdf {
  const step = p.lnRate[1]! - p.lnRate[0]!
  const value = p.lnRate.map(y => Math.exp(y) * wearKg)
  return cdfOf(value, value.map(v => v * step), p.weight)
}
