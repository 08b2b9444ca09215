/**
 * What a nozzle's κ is likely to be, from its sisters: other nozzles of the same material in this shop.
 * ln κ_i ~ N(μ, τ²), μ ~ N(ln start value, 2), τ half-normal(0.5): the start values are invented, so eight sisters that
 * tell something win over them, thirty times slower or twenty times faster. Each sister enters by its own likelihood of
 * ln κ (start and misreadings integrated out), not by a posterior, so no prior counts twice, and the nozzle asked about
 * is left out. Its prior has mean E[μ] and variance E[τ²] + Var[μ].
 * Source: Gelman et al., Bayesian Data Analysis, ch. 5 (hierarchical normal model), on a grid.
 */
import { InputError, need, needOne, normalCdf, once } from '../numeric'
import { lnBetween, RowStore } from './layout'
import { NOZZLE_MATERIALS, START_BORE_RATE, START_SIGMA, type NozzleMaterial } from './start-values'
import type { BoreHistory, LogNormalPrior } from './types'

/** Spread of μ about the start value, and scale of τ, in ln κ. */
export const MU_SD = 2
/** Scale of the prior of how much sisters differ, in ln κ; see docs/wear.md. */
export const TAU_SCALE = 0.5
/** With fewer sisters that tell anything, the start value stands. */
export const FEWEST_SISTERS = 3

/** x = ln κ less the start value's, where a sister's likelihood is counted; beyond the ends it is taken as at them. */
const X_END = 9
const X_STEP = 0.06
const X_PLACES = Math.round((2 * X_END) / X_STEP) + 1
const MU_END = 6
const MU_PLACES = 41
const TAU_FIRST = 0.06
const TAU_RATIO = 1.46
const TAU_PLACES = 10
/** Steps between two places when the sum is read out. */
const FINER_MU = 5
const FINER_TAU = 2

const muAt = (m: number) => MU_END * ((2 * m) / (MU_PLACES - 1) - 1)
const tauAt = (t: number) => TAU_FIRST * TAU_RATIO ** t

/** A sister's contribution: log ∫ L(x)·N(x; μ, τ) dx for each (μ, τ), up to a constant; add them up. */
export type SisterTerm = Float64Array
/** Numbers in a sister's term: one for each (μ, τ) place. */
export const TERM_LENGTH = MU_PLACES * TAU_PLACES

/** Normal weights of every x place for each (μ, τ); the end places stand for all beyond them too. */
const kernelOf = once(() => {
  const k = new Float64Array(TERM_LENGTH * X_PLACES)
  for (let m = 0; m < MU_PLACES; m++) {
    for (let t = 0; t < TAU_PLACES; t++) {
      const tau = tauAt(t)
      const z = (x: number) => (x - muAt(m)) / tau
      const from = (m * TAU_PLACES + t) * X_PLACES
      for (let j = 0; j < X_PLACES; j++) {
        const x = -X_END + j * X_STEP
        if (j === 0) k[from] = normalCdf(z(x + X_STEP / 2))
        else if (j === X_PLACES - 1) k[from + j] = normalCdf(-z(x - X_STEP / 2))
        else k[from + j] = (X_STEP / tau / Math.sqrt(2 * Math.PI)) * Math.exp(-0.5 * z(x) ** 2)
      }
    }
  }
  return k
})

/** Prior under which a sister's rows are laid: wide enough for every place above. */
const wide = (material: NozzleMaterial): LogNormalPrior => ({ meanLn: Math.log(START_BORE_RATE[material]), sd: 2.2 })

/**
 * Terms are whole multiples of this: thousands of them, each above −700, then add up without rounding, so that a sum
 * from which one is taken and to which another is added is that of all of them afresh, in whatever order.
 */
const TERM_STEP = 2 ** -30

/**
 * What a nozzle tells its sisters, by sliding wear. Null when its gauges tell nothing of wear. `store` may hold rows
 * laid before, and keeps those laid now.
 */
export function sisterTerm(history: BoreHistory, material: NozzleMaterial, store?: RowStore): SisterTerm | null {
  needOne('material', material, NOZZLE_MATERIALS)
  if (!history.observations.some(o => o.wearKg > 0)) return null
  const likelihood = countedLikelihood(store ?? new RowStore(history, 'sliding'), material)
  let first = 0
  let last = X_PLACES - 1
  while (likelihood[first] === 0) first++
  while (likelihood[last] === 0) last--
  const term = new Float64Array(TERM_LENGTH)
  const kernel = kernelOf()
  for (let k = 0; k < TERM_LENGTH; k++) {
    let sum = 0
    const from = k * X_PLACES
    for (let j = first; j <= last; j++) sum += likelihood[j]! * kernel[from + j]!
    term[k] = Math.round(Math.log(Math.max(sum, 1e-300)) / TERM_STEP) * TERM_STEP
  }
  return term
}

/** The likelihood of x counted at the places: mean over a step about each, the largest about 1. */
function countedLikelihood(store: RowStore, material: NozzleMaterial): Float64Array {
  const centre = Math.log(START_BORE_RATE[material])
  const rows = store.lay(wide(material), 4.5).map(n => ({ row: n.row, ln: n.row.ln }))
  const top = rows.reduce((m, n) => Math.max(m, n.ln), -Infinity)
  const out = new Float64Array(X_PLACES)
  for (let j = 0; j + 1 < rows.length; j++) {
    const from = rows[j]!.row.x
    const to = rows[j + 1]!.row.x
    const steps = Math.max(2, Math.ceil((2 * (to - from)) / X_STEP))
    for (let i = 0; i < steps; i++) {
      const x = from + ((to - from) * (i + 0.5)) / steps
      count(out, (x - centre + X_END) / X_STEP, (Math.exp(lnBetween(rows, j, x) - top) * (to - from)) / steps / X_STEP)
    }
  }
  // where the rows reach the ends, the likelihood goes on as it is there
  if (rows[0]!.row.x <= centre - X_END) out[0] = Math.exp(rows[0]!.ln - top)
  if (rows[rows.length - 1]!.row.x >= centre + X_END) out[X_PLACES - 1] = Math.exp(rows[rows.length - 1]!.ln - top)
  for (let j = 0; j < X_PLACES; j++) if (out[j]! < 1e-14) out[j] = 0
  return out
}

/** Shares a weight at place t among the four places about it, so that mean and spread are kept. */
function count(out: Float64Array, t: number, weight: number): void {
  const i = Math.floor(t)
  if (i < 1 || i > X_PLACES - 3) return
  const u = t - i
  out[i - 1]! += (-weight * u * (u - 1) * (u - 2)) / 6
  out[i]! += (weight * (u + 1) * (u - 1) * (u - 2)) / 2
  out[i + 1]! += (-weight * (u + 1) * u * (u - 2)) / 2
  out[i + 2]! += (weight * (u + 1) * u * (u - 1)) / 6
}

/**
 * Prior of ln κ for one nozzle from the sum of its sisters' terms. With fewer than three sisters that tell anything:
 * the start value and its spread.
 */
export function pooledPrior(material: NozzleMaterial, sum: Float64Array | null, sisters: number): LogNormalPrior {
  needOne('material', material, NOZZLE_MATERIALS)
  need('sisters', sisters, 0, 1e6)
  const centre = Math.log(START_BORE_RATE[material])
  if (sum === null || sisters < FEWEST_SISTERS) return { meanLn: centre, sd: START_SIGMA }
  if (sum.length !== TERM_LENGTH) throw new InputError('sum', sum.length, `${TERM_LENGTH} places`)
  // For each τ the sum is close to a parabola in μ, and smooth in ln τ: cubic interpolation between its places is safe.
  const column = new Float64Array(MU_PLACES)
  const moments = { best: -Infinity, w: 0, mu: 0, mu2: 0, tau2: 0 }
  for (let t = 0; t <= (TAU_PLACES - 1) * FINER_TAU; t++) {
    const tau = tauAt(t / FINER_TAU)
    // half-normal density times the step in τ; the first place stands for all smaller ones
    const step = t === 0 ? tau : tau * (TAU_RATIO ** (0.5 / FINER_TAU) - TAU_RATIO ** (-0.5 / FINER_TAU))
    const lnTau = Math.log(step) - 0.5 * (tau / TAU_SCALE) ** 2
    let top = 0
    for (let m = 0; m < MU_PLACES; m++) {
      column[m] = cubicAt(sum, m * TAU_PLACES, TAU_PLACES, t / FINER_TAU) - 0.5 * (muAt(m) / MU_SD) ** 2 + lnTau
      if (column[m]! > column[top]!) top = m
    }
    for (let m = 0; m + 1 < MU_PLACES; m++) {
      // the top may lie between places: look beside the highest one, and wherever it is not far below
      const near = m >= top - 2 && m <= top + 1
      if (near || Math.max(column[m]!, column[m + 1]!) > column[top]! - FAR)
        addStep(moments, column, m, t === 0 ? tau ** 2 / 3 : tau ** 2)
    }
  }
  const mean = moments.mu / moments.w
  return {
    meanLn: centre + mean,
    sd: Math.sqrt(moments.tau2 / moments.w + Math.max(0, moments.mu2 / moments.w - mean * mean)),
  }
}

/** Log weight below the top from which nothing counts. */
const FAR = 30

/** Adds the weight between two μ places of one τ to the moments, in finer steps. */
function addStep(
  to: { best: number; w: number; mu: number; mu2: number; tau2: number },
  column: Float64Array,
  m: number,
  tauSquare: number,
): void {
  for (let i = 0; i < FINER_MU; i++) {
    const at = m + (i + 0.5) / FINER_MU
    const ln = cubicAt(column, 0, MU_PLACES, at)
    if (ln < to.best - FAR) continue
    if (ln > to.best) {
      const scale = Math.exp(to.best - ln)
      to.w *= scale
      to.mu *= scale
      to.mu2 *= scale
      to.tau2 *= scale
      to.best = ln
    }
    const p = Math.exp(ln - to.best)
    const mu = muAt(at)
    to.w += p
    to.mu += p * mu
    to.mu2 += p * mu * mu
    to.tau2 += p * tauSquare
  }
}

/** Cubic through the four places about t of the `n` numbers from `from` on (Lagrange). */
function cubicAt(v: Float64Array, from: number, n: number, t: number): number {
  const first = Math.min(n - 4, Math.max(0, Math.floor(t) - 1))
  const u = t - first
  const k = from + first
  return (
    (-v[k]! * (u - 1) * (u - 2) * (u - 3)) / 6 +
    (v[k + 1]! * u * (u - 2) * (u - 3)) / 2 -
    (v[k + 2]! * u * (u - 1) * (u - 3)) / 2 +
    (v[k + 3]! * u * (u - 1) * (u - 2)) / 6
  )
}

/** A sum of terms with one more; `sum` null for none yet. Lengths as `TERM_LENGTH`. */
export function withTerm(sum: Float64Array | null, term: SisterTerm): Float64Array {
  return sumTerms(sum === null ? [term] : [sum, term])!
}

/** A sum of terms without one of them: exactly that of the others. Lengths as `TERM_LENGTH`. */
export function withoutTerm(sum: Float64Array, term: SisterTerm): Float64Array {
  return sum.map((v, k) => v - term[k]!)
}

/** Middle of a prior of ln κ. */
const LN = [-100, 100] as const
/**
 * By how many of its own standard deviations a prior has moved (ln κ): its middle or its spread, whichever more.
 *
 * @example
 * priorMoved({ meanLn: -3, sd: 0.5 }, { meanLn: -2.9, sd: 0.5 }) // 0.2
 */
export function priorMoved(from: LogNormalPrior, to: LogNormalPrior): number {
  need('from.meanLn', from.meanLn, ...LN)
  need('from.sd', from.sd, 1e-9, 100)
  need('to.meanLn', to.meanLn, ...LN)
  need('to.sd', to.sd, 0, 100)
  return Math.max(Math.abs(to.meanLn - from.meanLn), Math.abs(to.sd - from.sd)) / from.sd
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
