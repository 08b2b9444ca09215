/**
 * How far a decision with a pin scatters. A pair of pins says that the bore lies between two sizes; agreement within
 * one step says that the scatter is small beside the step, not that it is zero. With the decision normal about the
 * bore, sd r, a reading [go, no-go) has the chance Φ((no-go − d)/r) − Φ((go − d)/r), and with the bores unknown (flat)
 *   L(r) = Π over nozzles ∫ Π over readings [Φ((no-go − d)/r) − Φ((go − d)/r)] dd.
 * All people together: r holds what differs between them too. Range where L is at least L_max·exp(−1.642/2), 80 % of χ²
 * with one degree of freedom. Source: likelihood of grouped data, common practice, no source.
 */
import { fastNormalCdf, InputError, minimise, need } from '../numeric'
import { BORE_MM } from '../wear'

/** A pair of pins, mm: this goes, that does not. */
export interface PinPair {
  goMm: number
  noGoMm: number
}

export interface PinScatter {
  /** The likeliest sd of a decision, mm; 0 when the readings agree as well without any. */
  sdMm: number
  /** 80 % range; with sd 0 nine in ten lie below the upper end. */
  lowMm: number
  highMm: number
}

/** Smaller scatter than this is none, mm; larger than this is no gauging. */
const LEAST_MM = 0.0002
const MOST_MM = 0.3
/** Half of the χ² with one degree of freedom that 80 % lie under. */
const HALF_CHI2_80 = 1.642374 / 2

/** Scatter of the decisions from the readings of each nozzle, at least two readings of one. */
export function pinScatter(nozzles: readonly (readonly PinPair[])[]): PinScatter {
  if (!nozzles.some(n => n.length > 1)) throw new InputError('nozzles', nozzles.length, 'one with two readings')
  for (const p of nozzles.flat()) {
    need('goMm', p.goMm, ...BORE_MM, 'mm')
    need('noGoMm', p.noGoMm, ...BORE_MM, 'mm')
    if (p.goMm >= p.noGoMm) throw new InputError('goMm', p.goMm, `smaller than the no-go of ${p.noGoMm}`)
  }
  const cost = (ln: number) => -lnLikelihood(nozzles, Math.exp(ln))
  const steps = 48
  const low = Math.log(LEAST_MM)
  const width = (Math.log(MOST_MM) - low) / steps
  const costs = Array.from({ length: steps + 1 }, (_, i) => cost(low + i * width))
  const best = costs.indexOf(Math.min(...costs))
  const ln = best === 0 ? low : minimise(cost, low + (best - 1) * width, low + Math.min(steps, best + 1) * width, 1e-5)
  const most = cost(ln) + HALF_CHI2_80
  // the likelihood of no scatter at all is within a hair of the likeliest: none
  const isNone = costs[0]! < cost(ln) + 1e-3
  return {
    sdMm: isNone ? 0 : Math.exp(ln),
    lowMm: isNone || costs[0]! < most ? 0 : Math.exp(crossing(cost, most, low, ln)),
    highMm: cost(Math.log(MOST_MM)) < most ? MOST_MM : Math.exp(crossing(cost, most, Math.log(MOST_MM), ln)),
  }
}

/** Where the cost comes down to `most` on the way from `outside` to `inside`. */
function crossing(cost: (ln: number) => number, most: number, outside: number, inside: number): number {
  let [a, b] = [outside, inside]
  for (let i = 0; i < 40; i++) {
    const middle = (a + b) / 2
    if (cost(middle) > most) a = middle
    else b = middle
  }
  return (a + b) / 2
}

function lnLikelihood(nozzles: readonly (readonly PinPair[])[], r: number): number {
  let sum = 0
  for (const pairs of nozzles) {
    if (pairs.length === 0) continue
    const from = Math.min(...pairs.map(p => p.goMm)) - 5 * r
    const to = Math.max(...pairs.map(p => p.noGoMm)) + 5 * r
    const places = Math.ceil((to - from) / (r / 3))
    const step = (to - from) / places
    let area = 0
    for (let i = 0; i < places; i++) {
      const d = from + (i + 0.5) * step
      let chance = 1
      for (const p of pairs) {
        chance *= fastNormalCdf((p.noGoMm - d) / r) - fastNormalCdf((p.goMm - d) / r)
        if (chance < 1e-250) break
      }
      area += chance * step
    }
    sum += Math.log(Math.max(area, 1e-280))
  }
  return sum
}
