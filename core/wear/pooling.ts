/**
 * What a new nozzle's κ is likely to be, from its sisters: other nozzles of the same material in this shop.
 * ln κ_i ~ N(μ, τ²) with proper priors on both (μ about the start value, τ half-normal), on a small grid of (μ, τ).
 * Each sister enters by its own likelihood of ln κ (d0 integrated out), not by a posterior, so no prior counts twice.
 * The predictive for a left-out nozzle has mean E[μ] and variance E[τ²] + Var[μ].
 * Source: Gelman et al., Bayesian Data Analysis, ch. 5 (hierarchical normal model), on a grid.
 */
import { logLikelihood } from './likelihood'
import { checkHistory } from './posterior'
import { START_BORE_RATE, START_SIGMA, type NozzleMaterial } from './start-values'
import type { BoreHistory, Law, LogNormalPrior } from './types'

const X_PLACES = 81
const X_REACH = 4.5
const MU_PLACES = 15
/** Steps between two μ places when the sum is read out. */
const FINER = 8
const TAUS = [0.1, 0.2, 0.3, 0.45, 0.65, 0.9, 1.3]
const TAU_WIDTHS = TAUS.map((t, i) => ((TAUS[i + 1] ?? t + 0.4) - (TAUS[i - 1] ?? 0.05)) / 2)
const TAU_SCALE = 0.5
/** Nodes and weights of nine-point Gauss-Hermite quadrature for a standard normal (A&S table 25.10, rescaled). */
const HERMITE: [number, number][] = [
  [0, 0.4063492063492064], [1.023255663789133, 0.2440975028949394], [2.076847978677830, 0.0499164067652180],
  [3.205429002856470, 0.0027891413212318], [4.512745863399783, 0.0000223458440077],
]
export const FEWEST_SISTERS = 3

/** A sister's contribution: log ∫ L(ln κ)·N(ln κ; μ, τ) for each (μ, τ); add them up. Null when its gauges tell nothing of wear. */
export type SisterTerm = Float64Array

const muOf = (m: number) => START_SIGMA * 3 * (2 * m / (MU_PLACES - 1) - 1)

/** Log of the proper priors on μ and τ at every place read out. */
const HYPERPRIOR = Float64Array.from({ length: ((MU_PLACES - 1) * FINER + 1) * TAUS.length }, (_, k) => {
  const mu = muOf(Math.floor(k / TAUS.length) / FINER), t = k % TAUS.length
  return -0.5 * (mu / START_SIGMA) ** 2 - 0.5 * (TAUS[t]! / TAU_SCALE) ** 2 + Math.log(TAU_WIDTHS[t]!)
})

/** Kernel of the normal densities on the x grid, the same for every material because x is counted from its start value. */
const KERNEL = (() => {
  const k = new Float64Array(MU_PLACES * TAUS.length * X_PLACES)
  let at = 0
  for (let m = 0; m < MU_PLACES; m++) for (const tau of TAUS) for (let j = 0; j < X_PLACES; j++) {
    const x = X_REACH * (2 * j / (X_PLACES - 1) - 1)
    k[at++] = Math.exp(-0.5 * ((x - muOf(m)) / tau) ** 2) / tau
  }
  return k
})()

export function sisterTerm(history: BoreHistory, material: NozzleMaterial, law: Law = 'sliding'): SisterTerm | null {
  if (!history.observations.some(o => o.wearKg > 0)) return null
  checkHistory(history)
  const centre = Math.log(START_BORE_RATE[material])
  const x = Float64Array.from({ length: X_PLACES }, (_, j) => centre + X_REACH * (2 * j / (X_PLACES - 1) - 1))
  const nodes = HERMITE.flatMap(([z, w]) => z === 0 ? [[0, w] as const] : [[-z, w] as const, [z, w] as const]).sort((a, b) => a[0] - b[0])
  const d0 = Float64Array.from(nodes, ([z]) => Math.max(0.02, history.d0.meanMm + z * history.d0.uMm))
  const log = logLikelihood(history, law, d0, x)
  const best = log.reduce((a, b) => Math.max(a, b), -Infinity)
  const likelihood = new Float64Array(X_PLACES)
  nodes.forEach(([, w], i) => { for (let j = 0; j < X_PLACES; j++) likelihood[j]! += w * Math.exp(log[i * X_PLACES + j]! - best) })
  const term = new Float64Array(MU_PLACES * TAUS.length)
  for (let k = 0, at = 0; k < term.length; k++) {
    let sum = 0
    for (let j = 0; j < X_PLACES; j++) sum += likelihood[j]! * KERNEL[at++]!
    term[k] = Math.log(Math.max(sum, 1e-300))
  }
  return term
}

/**
 * Prior of ln κ for one nozzle from the sum of its sisters' terms. With fewer than three sisters that tell anything:
 * the start value and its wide spread.
 */
export function pooledPrior(material: NozzleMaterial, sum: Float64Array | null, sisters: number): LogNormalPrior {
  const centre = Math.log(START_BORE_RATE[material])
  if (sum === null || sisters < FEWEST_SISTERS) return { meanLn: centre, sd: START_SIGMA }
  // The sum is close to a parabola in μ for each τ, so cubic interpolation between its places is safe however sharp it is.
  const count = (MU_PLACES - 1) * FINER + 1
  const log = new Float64Array(count * TAUS.length)
  let best = -Infinity
  for (let m = 0; m < count; m++) for (let t = 0; t < TAUS.length; t++) {
    const v = cubicAt(sum, t, m / FINER) + HYPERPRIOR[m * TAUS.length + t]!
    log[m * TAUS.length + t] = v
    if (v > best) best = v
  }
  let w = 0, m1 = 0, m2 = 0, t2 = 0
  for (let k = 0; k < log.length; k++) {
    if (log[k]! < best - 30) continue
    const p = Math.exp(log[k]! - best), mu = muOf(Math.floor(k / TAUS.length) / FINER), tau = TAUS[k % TAUS.length]!
    w += p
    m1 += p * mu
    m2 += p * mu * mu
    t2 += p * tau * tau
  }
  const mean = m1 / w
  return { meanLn: centre + mean, sd: Math.sqrt(t2 / w + Math.max(0, m2 / w - mean * mean)) }
}

/** Cubic through the four nearest μ places of one τ (Lagrange). */
function cubicAt(sum: Float64Array, t: number, m: number): number {
  const first = Math.min(MU_PLACES - 4, Math.max(0, Math.floor(m) - 1))
  const u = m - first
  const k = first * TAUS.length + t, n = TAUS.length
  return -sum[k]! * (u - 1) * (u - 2) * (u - 3) / 6 + sum[k + n]! * u * (u - 2) * (u - 3) / 2
    - sum[k + 2 * n]! * u * (u - 1) * (u - 3) / 2 + sum[k + 3 * n]! * u * (u - 1) * (u - 2) / 6
}

/** Sum of several terms; null for none. */
export function sumTerms(terms: Iterable<SisterTerm>): Float64Array | null {
  let sum: Float64Array | null = null
  for (const t of terms) {
    if (sum === null) sum = Float64Array.from(t)
    else for (let k = 0; k < sum.length; k++) sum[k]! += t[k]!
  }
  return sum
}
