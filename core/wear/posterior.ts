/**
 * Posterior of (d0, ln κ) of one nozzle on a deterministic grid: a coarse look finds where the weight lies, a finer
 * grid is laid there. No random numbers. Model and sources: docs/wear.md.
 */
import { cdfOf, type Cdf, type Life } from './life'
import { CUBE_GROWTH, linearScale } from './laws'
import { logLikelihood } from './likelihood'
import { need, WearInputError, type BoreHistory, type Law, type LogNormalPrior } from './types'

export interface GridSize { d0: number, x: number }
const COARSE: GridSize = { d0: 11, x: 33 }
export const FINE: GridSize = { d0: 21, x: 73 }
/** Grid places whose log density is this far below the best one are left out of the finer grid. */
const DEPTH = 13
const REACH_D0 = 4.5
const REACH_X = 5

export interface BorePosterior {
  law: Law
  nominalMm: number
  /** mm, ascending. */
  d0: Float64Array
  /** ln κ, ascending. */
  x: Float64Array
  /** Weight at i·x.length + j, sums to 1. */
  weight: Float64Array
  /** Log of the marginal likelihood, up to a constant that both laws share. */
  logEvidence: number
}

export function checkHistory(h: BoreHistory): void {
  need('nominalMm', h.nominalMm, 0.05, 3)
  need('d0.meanMm', h.d0.meanMm, 0.05, 4)
  need('d0.uMm', h.d0.uMm, 1e-5, 1)
  for (const o of h.observations) {
    need('wearKg', o.wearKg, 0, 1e6)
    need('uMm', o.uMm, 1e-5, 1)
    if (o.kind === 'value') { need('valueMm', o.valueMm, 0.01, 5); continue }
    if (o.goMm === null && o.noGoMm === null) throw new WearInputError('goMm', null, 'at least one of go and no-go')
    if (o.goMm !== null) need('goMm', o.goMm, 0.01, 5)
    if (o.noGoMm !== null) need('noGoMm', o.noGoMm, 0.01, 5)
    if (o.goMm !== null && o.noGoMm !== null && o.goMm >= o.noGoMm) throw new WearInputError('goMm', o.goMm, `smaller than the no-go of ${o.noGoMm}`)
  }
}

const line = (low: number, high: number, n: number) => Float64Array.from({ length: n }, (_, i) => low + (high - low) * i / (n - 1))

/** Posterior of one nozzle. Throws WearInputError for impossible input. */
export function borePosterior(history: BoreHistory, prior: LogNormalPrior, law: Law = 'sliding', size: GridSize = FINE): BorePosterior {
  checkHistory(history)
  need('prior.sd', prior.sd, 1e-3, 10)
  const { meanMm, uMm } = history.d0
  let d0 = line(Math.max(0.02, meanMm - REACH_D0 * uMm), meanMm + REACH_D0 * uMm, COARSE.d0)
  let x = line(prior.meanLn - REACH_X * prior.sd, prior.meanLn + REACH_X * prior.sd, COARSE.x)
  for (let round = 0; round < 3; round++) {
    const box = supportOf(logDensity(history, prior, law, d0, x), d0, x)
    d0 = line(Math.max(0.02, box.d0[0]), box.d0[1], COARSE.d0)
    x = line(box.x[0], box.x[1], COARSE.x)
    if (!box.narrow) break
  }
  d0 = line(d0[0]!, d0[d0.length - 1]!, size.d0)
  x = line(x[0]!, x[x.length - 1]!, size.x)
  const log = logDensity(history, prior, law, d0, x)
  const best = log.reduce((a, b) => Math.max(a, b), -Infinity)
  let sum = 0
  const weight = log
  for (let k = 0; k < log.length; k++) sum += weight[k] = Math.exp(log[k]! - best)
  for (let k = 0; k < log.length; k++) weight[k]! /= sum
  const cell = (d0[1]! - d0[0]!) * (x[1]! - x[0]!)
  return { law, nominalMm: history.nominalMm, d0, x, weight, logEvidence: best + Math.log(sum * cell) }
}

function logDensity(history: BoreHistory, prior: LogNormalPrior, law: Law, d0: Float64Array, x: Float64Array): Float64Array {
  const log = logLikelihood(history, law, d0, x)
  const { meanMm, uMm } = history.d0
  const m = x.length
  const priorX = Float64Array.from(x, v => -0.5 * ((v - prior.meanLn) / prior.sd) ** 2 - Math.log(prior.sd))
  for (let i = 0; i < d0.length; i++) {
    const p = -0.5 * ((d0[i]! - meanMm) / uMm) ** 2
    for (let j = 0; j < m; j++) log[i * m + j]! += p + priorX[j]!
  }
  return log
}

function supportOf(log: Float64Array, d0: Float64Array, x: Float64Array) {
  const m = x.length
  const best = log.reduce((a, b) => Math.max(a, b), -Infinity)
  let iLow = d0.length, iHigh = 0, jLow = m, jHigh = 0
  for (let i = 0; i < d0.length; i++) for (let j = 0; j < m; j++) if (log[i * m + j]! > best - DEPTH) {
    if (i < iLow) iLow = i
    if (i > iHigh) iHigh = i
    if (j < jLow) jLow = j
    if (j > jHigh) jHigh = j
  }
  const stepD = d0[1]! - d0[0]!, stepX = x[1]! - x[0]!
  return {
    d0: [d0[iLow]! - stepD, d0[iHigh]! + stepD] as const,
    x: [x[jLow]! - stepX, x[jHigh]! + stepX] as const,
    narrow: iHigh - iLow < 4 || jHigh - jLow < 8,
  }
}

/** Distribution of the bore in mm once `wearKg` have gone through. */
export function boreAt(p: BorePosterior, wearKg: number): Cdf {
  const n = p.d0.length, m = p.x.length
  const value = new Float64Array(n * m)
  const width = new Float64Array(n * m)
  const stepD = p.d0[1]! - p.d0[0]!, stepX = p.x[1]! - p.x[0]!
  const sliding = p.law === 'sliding'
  const factor = (sliding ? CUBE_GROWTH : linearScale(p.nominalMm)) * wearKg
  const grown = Float64Array.from(p.x, v => Math.exp(v) * factor)
  for (let i = 0, k = 0; i < n; i++) {
    const d = p.d0[i]!
    for (let j = 0; j < m; j++, k++) {
      const g = grown[j]!
      const now = sliding ? Math.cbrt(d * d * d + g) : d + g
      value[k] = now
      const byX = (sliding ? g / (3 * now * now) : g) * stepX
      const byD = (sliding ? d * d / (now * now) : 1) * stepD
      width[k] = Math.sqrt(byX * byX + byD * byD)
    }
  }
  return cdfOf(value, width, p.weight)
}

/** Life under the rule "bore at most `limitMm`": ln of the wear mass at which it is reached. */
export function boreLife(p: BorePosterior, limitMm: number): Life {
  const n = p.d0.length, m = p.x.length
  const value = new Float64Array(n * m)
  const width = new Float64Array(n * m)
  const stepD = p.d0[1]! - p.d0[0]!, stepX = p.x[1]! - p.x[0]!
  const sliding = p.law === 'sliding'
  const scale = Math.log(sliding ? CUBE_GROWTH : linearScale(p.nominalMm))
  for (let i = 0, k = 0; i < n; i++) {
    const d = p.d0[i]!
    const room = sliding ? limitMm ** 3 - d ** 3 : limitMm - d
    const lnRoom = room > 0 ? Math.log(room) - scale : -Infinity
    const byD = room > 0 ? Math.min(1, (sliding ? 3 * d * d : 1) / room * stepD) : 0
    const w = Math.sqrt(stepX * stepX + byD * byD)
    for (let j = 0; j < m; j++, k++) {
      value[k] = lnRoom - p.x[j]!
      width[k] = w
    }
  }
  return { kind: 'cdf', lnKg: cdfOf(value, width, p.weight) }
}

/** Distribution of κ, mm per kg at a 0.4 mm bore, as ln κ. */
export function lnKappa(p: BorePosterior): Cdf {
  const n = p.d0.length, m = p.x.length
  const weight = new Float64Array(m)
  for (let i = 0, k = 0; i < n; i++) for (let j = 0; j < m; j++, k++) weight[j]! += p.weight[k]!
  return cdfOf(p.x, new Float64Array(m).fill(p.x[1]! - p.x[0]!), weight)
}
