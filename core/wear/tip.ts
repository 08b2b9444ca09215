/**
 * Tip loss, a second and separate rate: tip = tip0 − λ·M, with tip0 normal and ln λ on a one-dimensional grid; tip0 is
 * integrated out exactly. Source: Archard (1953) with constant contact area; start values invented.
 */
import { need } from '../numeric'
import { WEAR_KG } from './check'
import type { Life } from './life'
import { checkPrior } from './prior'
import type { LogNormalPrior, Spread, TipHistory } from './types'

const PLACES = 201
const REACH = 5

/** Ranges, mm. The doors take theirs from here. */
export const TIP_MM = [0.1, 100] as const
/** Standard uncertainty of a tip length, mm. */
export const TIP_U_RANGE_MM = [1e-5, 5] as const

export interface TipPosterior {
  /** ln λ at equal steps, and the weight at each, adding up to 1. */
  lnRate: Float64Array
  weight: Float64Array
  /** Share up to the middle between a place and the next. */
  upTo: Float64Array
}

/** Nozzles whose tip was never measured are all alike. */
const unmeasured = new Map<string, TipPosterior>()

/** Posterior of the tip's rate of loss, mm per kg, from tip lengths in mm. Throws InputError for impossible input. */
export function tipPosterior(history: TipHistory, prior: LogNormalPrior): TipPosterior {
  checkPrior(prior)
  need('tip0.meanMm', history.tip0.meanMm, 0.5, 100, 'mm')
  need('tip0.uMm', history.tip0.uMm, ...TIP_U_RANGE_MM, 'mm')
  for (const o of history.observations) {
    need('tipMm', o.tipMm, ...TIP_MM, 'mm')
    need('uMm', o.uMm, ...TIP_U_RANGE_MM, 'mm')
    need('wearKg', o.wearKg, ...WEAR_KG, 'kg')
  }
  const key = `${prior.meanLn} ${prior.sd}`
  const known = history.observations.length === 0 ? unmeasured.get(key) : undefined
  if (known) return known
  const lnRate = Float64Array.from(
    { length: PLACES },
    (_, i) => prior.meanLn + prior.sd * REACH * ((2 * i) / (PLACES - 1) - 1),
  )
  const log = lnRate.map(y => {
    const rate = Math.exp(y)
    // tip0 given the readings is normal: gather precision and weighted residuals about the receipt value
    let precision = history.tip0.uMm ** -2
    let pull = 0
    let square = 0
    for (const o of history.observations) {
      const w = o.uMm ** -2
      const e = o.tipMm + rate * o.wearKg - history.tip0.meanMm
      precision += w
      pull += w * e
      square += w * e * e
    }
    return -0.5 * (square - (pull * pull) / precision) - 0.5 * ((y - prior.meanLn) / prior.sd) ** 2
  })
  const best = log.reduce((a, b) => Math.max(a, b), -Infinity)
  const weight = log.map(v => Math.exp(v - best))
  const sum = weight.reduce((a, b) => a + b, 0)
  const upTo = new Float64Array(PLACES)
  for (let i = 0; i < PLACES; i++) upTo[i] = (i > 0 ? upTo[i - 1]! : 0) + (weight[i]! /= sum)
  const posterior = { lnRate, weight, upTo }
  if (history.observations.length === 0 && unmeasured.size < 100) unmeasured.set(key, posterior)
  return posterior
}

/** Share of the rates up to e^y, the weight of each place spread evenly over its step. */
function rateShare(p: TipPosterior, y: number): number {
  const step = p.lnRate[1]! - p.lnRate[0]!
  const t = (y - p.lnRate[0]!) / step + 0.5
  if (t <= 0) return 0
  const i = Math.floor(t)
  if (i >= PLACES) return 1
  return p.upTo[i]! - (1 - (t - i)) * p.weight[i]!
}

/** ln of the rate that a share p of the rates does not reach. */
function lnRateAt(p: TipPosterior, share: number): number {
  let low = 0
  let high = PLACES - 1
  while (low < high) {
    const mid = (low + high) >> 1
    if (p.upTo[mid]! >= share) high = mid
    else low = mid + 1
  }
  const step = p.lnRate[1]! - p.lnRate[0]!
  return p.lnRate[low]! + step * (0.5 - (p.upTo[low]! - share) / Math.max(p.weight[low]!, 1e-300))
}

/** Life in kg of wear mass under the rule "tip loss at most `limitMm` mm". */
export function tipLife(p: TipPosterior, limitMm: number): Life {
  need('limitMm', limitMm, 1e-4, 100, 'mm')
  const ln = Math.log(limitMm)
  const at = [0.02, 0.1, 0.3, 0.5, 0.7, 0.9, 0.98].map(q => Math.exp(ln - lnRateAt(p, q)))
  return { chance: kg => (kg <= 0 ? 0 : 1 - rateShare(p, ln - Math.log(kg))), rough: { at, weight: at.map(() => 1) } }
}

/** Distribution of the tip loss in mm after `wearKg`; the loss of a nozzle that saw nothing is 0. */
export function tipLossAt(p: TipPosterior, wearKg: number): Spread {
  need('wearKg', wearKg, ...WEAR_KG, 'kg')
  if (wearKg === 0) return { share: mm => (mm >= 0 ? 1 : 0), quantile: () => 0 }
  return {
    share: mm => (mm <= 0 ? 0 : rateShare(p, Math.log(mm / wearKg))),
    quantile: q => {
      need('p', q, 1e-9, 1 - 1e-9)
      return wearKg * Math.exp(lnRateAt(p, q))
    },
  }
}
