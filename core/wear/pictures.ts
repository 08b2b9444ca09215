/**
 * Bores read from pictures. A pin finds the narrowest section; a picture shows the mouth, which a worn nozzle may have
 * wider there. And all pictures of one set-up share the error of its scale and of how it shows an edge. So a picture
 * reads d + b + noise, with one b for all pictures of a nozzle by one set-up:
 *   b = shared error + flare,   shared error ~ N(0, uS),   flare = |N(0, τ)|.
 * Twenty pictures make the noise small, never b; growth between pictures of one set-up does not depend on b at all.
 *
 * The density of b is skew normal, 2/ω φ(b/ω) Φ(α b/ω) with ω² = uS² + τ² and α = τ/uS (Azzalini 1985, Scandinavian
 * Journal of Statistics 12, 171). For readings r_i = v_i − d_i with weights w_i = 1/u_i², S0 = Σw, S1 = Σwr, S2 = Σwr²,
 * P = S0 + 1/ω² and m = S1/P the integral over b is
 *   G = Π (w_i/2π)^½ · exp(−½(S2 − S1²/P)) · 2Φ(α m/ω / √(1 + α²/(Pω²))) / (ω√P).
 * One of them may be a misreading as any gauge may (chance ε, likelihood B as in `readings.ts`): the sum over all good,
 * each one bad, and all bad. Two bad ones of many pull, but no more than their weight.
 */
import { fastNormalCdf, need } from '../numeric'
import { BORE_U_MM, checkReading, MOST_PICTURES, NOMINAL_MM } from './check'
import { misreadChance } from './readings'
import type { BoreObservation, Law } from './types'

/** Spread of the flare of a mouth beyond its narrowest section, as a share of the nominal bore (a choice). */
export const FLARE_SHARE = 0.015

export type PictureReading = Extract<BoreObservation, { kind: 'picture' }>

/** The random part is never taken for smaller, mm: the camera is pointed anew for every picture (a choice). */
export const LEAST_RANDOM_MM = 0.0003

/**
 * A bore from a picture (mm, with its combined standard uncertainty) as a reading: what repeats make smaller, and what
 * all pictures of the set-up share.
 */
export function pictureReading(
  wearKg: number,
  valueMm: number,
  uMm: number,
  uSharedMm: number,
  setup: string,
): PictureReading {
  need('uMm', uMm, ...BORE_U_MM, 'mm')
  need('uSharedMm', uSharedMm, 0, uMm, 'mm')
  const random = Math.sqrt(uMm ** 2 - uSharedMm ** 2)
  const o = { kind: 'picture' as const, wearKg, valueMm, setup }
  const reading = { ...o, uMm: Math.max(LEAST_RANDOM_MM, random), uSharedMm: Math.max(BORE_U_MM[0], uSharedMm) }
  checkReading(reading)
  return reading
}

/** All pictures of one nozzle by one set-up. */
export interface PictureGroup {
  law: Law
  n: number
  /** Wear mass of each from the pivot, kg; its value, mm; 1/u², 1/mm². */
  fromPivot: Float64Array
  valueMm: Float64Array
  weight: Float64Array
  /** ln of √(w/2π), and of ε·B for each. */
  lnTop: Float64Array
  lnBad: Float64Array
  lnGood: number
  omega: number
  alpha: number
}

const HALF_LN_2PI = 0.5 * Math.log(2 * Math.PI)

/** How much wider than its narrowest section a mouth is on average, before anything is known of it, mm. */
export function usualFlareMm(nominalMm: number): number {
  need('nominalMm', nominalMm, ...NOMINAL_MM, 'mm')
  return FLARE_SHARE * nominalMm * Math.sqrt(2 / Math.PI)
}

/** Spread of b and how one-sided it is, mm. */
export function offsetPrior(nominalMm: number, uSharedMm: number): { omega: number; alpha: number; meanMm: number } {
  const tau = FLARE_SHARE * nominalMm
  return { omega: Math.hypot(uSharedMm, tau), alpha: tau / uSharedMm, meanMm: usualFlareMm(nominalMm) }
}

/** The pictures of a history by their set-ups. */
export function pictureGroups(
  observations: readonly BoreObservation[],
  law: Law,
  nominalMm: number,
  misread: number,
  pivotKg: number,
): PictureGroup[] {
  const bySetup = new Map<string, PictureReading[]>()
  for (const o of observations) if (o.kind === 'picture') bySetup.set(o.setup, [...(bySetup.get(o.setup) ?? []), o])
  return [...bySetup.values()].map(list => ({
    law,
    n: list.length,
    fromPivot: Float64Array.from(list, o => o.wearKg - pivotKg),
    valueMm: Float64Array.from(list, o => o.valueMm),
    weight: Float64Array.from(list, o => o.uMm ** -2),
    lnTop: Float64Array.from(list, o => -Math.log(o.uMm) - HALF_LN_2PI),
    lnBad: Float64Array.from(list, o => Math.log(Math.max(1e-300, misread * misreadChance(o, nominalMm)))),
    lnGood: Math.log1p(-misread),
    // the least sure scale of those that were used counts for all
    ...offsetPrior(nominalMm, Math.max(...list.map(o => o.uSharedMm))),
  }))
}

/** ln Φ, also far out where Φ is nothing. */
function lnCdf(z: number): number {
  if (z > -7) return Math.log(fastNormalCdf(z) + 1e-16)
  return -0.5 * z * z - HALF_LN_2PI - Math.log(-z) + Math.log1p(-1 / (z * z))
}

/** ln G of some readings by their sums. */
function lnG(g: PictureGroup, lnTop: number, s0: number, s1: number, s2: number): number {
  const p = s0 + 1 / g.omega ** 2
  const m = s1 / p
  const z = (g.alpha * m) / g.omega / Math.sqrt(1 + g.alpha ** 2 / (p * g.omega ** 2))
  return lnTop - 0.5 * (s2 - (s1 * s1) / p) - Math.log(g.omega * Math.sqrt(p)) + Math.LN2 + lnCdf(z)
}

const parts = new Float64Array(512)
/** ln of the sum of what `parts` holds the logarithms of. */
function lnSumOf(count: number): number {
  let most = -Infinity
  for (let k = 0; k < count; k++) if (parts[k]! > most) most = parts[k]!
  let sum = 0
  for (let k = 0; k < count; k++) if (parts[k]! > most - 40) sum += Math.exp(parts[k]! - most)
  return most + Math.log(sum)
}

/** ln of the sum over all good, each one bad, and all bad; `of(j)` is ln of what is left without j (−1 for none). */
function lnMixed(g: PictureGroup, of: (without: number) => number): number {
  let bad = 0
  let count = 0
  parts[count++] = g.n * g.lnGood + of(-1)
  for (let j = 0; j < g.n; j++) {
    bad += g.lnBad[j]!
    if (g.lnBad[j]! > -600) parts[count++] = (g.n - 1) * g.lnGood + g.lnBad[j]! + (g.n === 1 ? 0 : of(j))
  }
  if (g.n > 1) parts[count++] = bad
  return lnSumOf(count)
}

const boreOf = (g: PictureGroup, v: number) => {
  if (v <= 0) return 0
  return g.law === 'sliding' ? Math.cbrt(v) : v
}

/** Log likelihood of the group for one a and rate (as in `density.ts`). */
export function lnGroup(g: PictureGroup, a: number, rate: number): number {
  let s0 = 0
  let s1 = 0
  let s2 = 0
  let top = 0
  for (let i = 0; i < g.n; i++) {
    const r = g.valueMm[i]! - boreOf(g, a + rate * g.fromPivot[i]!)
    const w = g.weight[i]!
    left[i] = r
    s0 += w
    s1 += w * r
    s2 += w * r * r
    top += g.lnTop[i]!
  }
  return lnMixed(g, j => {
    if (j < 0) return lnG(g, top, s0, s1, s2)
    const w = g.weight[j]!
    const r = left[j]!
    return lnG(g, top - g.lnTop[j]!, s0 - w, s1 - w * r, s2 - w * r * r)
  })
}
const left = new Float64Array(MOST_PICTURES)
const lows = new Float64Array(MOST_PICTURES)
const highs = new Float64Array(MOST_PICTURES)

/**
 * No log likelihood within a box of a and rates is above this. Over the box each r_i lies between two ends; the
 * exponent is at its least min over b of Σ w_i·(distance of b from those ends)² + b²/ω², which is convex in b, and the
 * skew at its highest where b is.
 */
export function lnGroupAtMost(g: PictureGroup, r0: number, r1: number, a0: number, a1: number): number {
  let s0 = 0
  let top = 0
  for (let i = 0; i < g.n; i++) {
    const s = g.fromPivot[i]!
    const up = s > 0
    lows[i] = g.valueMm[i]! - boreOf(g, a1 + (up ? r1 : r0) * s)
    highs[i] = g.valueMm[i]! - boreOf(g, a0 + (up ? r0 : r1) * s)
    s0 += g.weight[i]!
    top += g.lnTop[i]!
  }
  return lnMixed(g, j => {
    const p = s0 - (j < 0 ? 0 : g.weight[j]!) + 1 / g.omega ** 2
    const lnTop = top - (j < 0 ? 0 : g.lnTop[j]!)
    return lnTop - 0.5 * leastExponent(g, j) - Math.log(g.omega * Math.sqrt(p)) + Math.LN2 + lnSkewAtMost(g, j, p)
  })
}

/** Least over b of the exponent, by Newton's steps on its slope, which is made of straight pieces. */
function leastExponent(g: PictureGroup, without: number): number {
  const own = 1 / g.omega ** 2
  let b = 0
  for (let step = 0; step < 30; step++) {
    let slope = own * b
    let bend = own
    for (let i = 0; i < g.n; i++) {
      if (i === without) continue
      const w = g.weight[i]!
      if (b < lows[i]!) slope += w * (b - lows[i]!)
      else if (b > highs[i]!) slope += w * (b - highs[i]!)
      else continue
      bend += w
    }
    const move = slope / bend
    b -= move
    if (Math.abs(move) < 1e-9) break
  }
  let sum = own * b * b
  for (let i = 0; i < g.n; i++) {
    if (i === without) continue
    const off = Math.max(0, lows[i]! - b, b - highs[i]!)
    sum += g.weight[i]! * off * off
  }
  // a step that ends on the other side of a corner is still near the least: a little slack keeps the bound one
  return sum * (1 - 1e-6)
}

function lnSkewAtMost(g: PictureGroup, without: number, p: number): number {
  let s1 = 0
  for (let i = 0; i < g.n; i++) if (i !== without) s1 += g.weight[i]! * highs[i]!
  const z = (g.alpha * s1) / p / g.omega / Math.sqrt(1 + g.alpha ** 2 / (p * g.omega ** 2))
  return lnCdf(z)
}
