/**
 * The shop's own wound-spool factor, from spools weighed before and after drying. One unknown, ln factor, on a grid:
 * prior from the start value, normal errors of the balance and of what the model leaves out. The factor so found also
 * takes up what the diffusion constants are off by, so it replaces the start value for plans and warnings alike.
 */
import { inverseNormal, need } from '../numeric'
import { checkWound, START_WOUND, type Wound } from './history'

export interface Weighing {
  /** Water lost as weighed, g, and its standard uncertainty. */
  lostG: number
  uG: number
  /** Loss in g that the model gives for a factor. */
  expectedG: (factor: number) => number
}

/**
 * Model error as a share of the expected loss: what the spool held before is never well known; common practice, no
 * source.
 */
const MODEL_SHARE = 0.2
const STEPS = 160
/**
 * The model's loss changes smoothly with ln factor: it is worked out at every tenth place and taken straight between.
 */
const EVERY = 10

export interface FittedFactor extends Wound {
  low80: number
  high80: number
}

/**
 * The wound-spool factor of a full spool (no unit) that fits weighings in g before and after drying, with the spread of
 * its logarithm; the start value where there are none.
 */
export function fitFactor(weighings: readonly Weighing[], start: Wound = START_WOUND): FittedFactor {
  checkWound(start)
  need('lnSd', start.lnSd, 1e-6, 5)
  for (const w of weighings) {
    need('lostG', w.lostG, -1e5, 1e5, 'g')
    need('uG', w.uG, 1e-6, 1e5, 'g')
  }
  const low = Math.log(0.5),
    high = Math.log(60)
  const grid = Array.from({ length: STEPS + 1 }, (_, i) => low + ((high - low) * i) / STEPS)
  const nodes = grid.filter((_, i) => i % EVERY === 0).map(g => weighings.map(w => w.expectedG(Math.exp(g))))
  const expected = grid.map((_, i) => {
    const at = Math.floor(i / EVERY),
      share = (i % EVERY) / EVERY
    return nodes[at]!.map((e, k) => (share === 0 ? e : e + share * (nodes[at + 1]![k]! - e)))
  })
  const ln = grid.map((g, i) => {
    let l = -0.5 * ((g - Math.log(start.factor)) / start.lnSd) ** 2
    weighings.forEach((w, k) => {
      const e = expected[i]![k]!,
        u = Math.hypot(w.uG, MODEL_SHARE * e)
      l -= 0.5 * ((w.lostG - e) / u) ** 2 + Math.log(u)
    })
    return l
  })
  const top = Math.max(...ln)
  const p = ln.map(l => Math.exp(l - top))
  const sum = p.reduce((a, b) => a + b, 0)
  const mean = grid.reduce((a, g, i) => a + g * p[i]!, 0) / sum
  const sd = Math.sqrt(grid.reduce((a, g, i) => a + (g - mean) ** 2 * p[i]!, 0) / sum)
  const z = inverseNormal(0.9)
  return {
    factor: Math.exp(mean),
    lnSd: sd,
    heatUpH: start.heatUpH,
    low80: Math.exp(mean - z * sd),
    high80: Math.exp(mean + z * sd),
    weighings: weighings.length,
  }
}
