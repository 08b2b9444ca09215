/** Distributions on a fine grid of bins: the bore now, and the wear mass at which a rule is broken ("life"). */
import type { Range } from './types'

const BINS = 512

/** A cumulative distribution, linear within bins; `below` is the share left of the first bin. */
export class Cdf {
  constructor(readonly low: number, readonly high: number, readonly at: Float64Array, readonly below = 0) {}

  /** Share of the distribution up to v. */
  share(v: number): number {
    if (v <= this.low) return this.below
    if (v >= this.high) return 1
    const t = (v - this.low) / (this.high - this.low) * (this.at.length - 1)
    const i = t | 0
    return this.at[i]! + (t - i) * (this.at[i + 1]! - this.at[i]!)
  }

  /** Smallest v with a share of at least p; -Infinity when more than p lies below the first bin. */
  quantile(p: number): number {
    if (p <= this.below) return -Infinity
    let a = 0, b = this.at.length - 1
    while (b - a > 1) {
      const c = (a + b) >> 1
      if (this.at[c]! >= p) b = c
      else a = c
    }
    const step = (this.high - this.low) / (this.at.length - 1)
    const rise = this.at[b]! - this.at[a]!
    return this.low + step * (a + (rise > 0 ? Math.min(1, (p - this.at[a]!) / rise) : 1))
  }

  range(): Range {
    const [median, low80, high80, low95, high95] = [0.5, 0.1, 0.9, 0.025, 0.975].map(p => this.quantile(p)) as [number, number, number, number, number]
    return { median, low80, high80, low95, high95 }
  }
}

/**
 * Distribution of weighted values, each spread evenly over its own width (the value's change across its grid cell).
 * Values of -Infinity count as below everything. Weights need not add up to 1.
 */
export function cdfOf(value: Float64Array, width: Float64Array, weight: Float64Array): Cdf {
  let low = Infinity, high = -Infinity, total = 0, below = 0, heaviest = 0
  for (let k = 0; k < weight.length; k++) if (weight[k]! > heaviest) heaviest = weight[k]!
  const least = heaviest * 1e-9
  for (let k = 0; k < value.length; k++) {
    const w = weight[k]!
    if (w < least) continue
    total += w
    if (value[k] === -Infinity) { below += w; continue }
    const h = width[k]! / 2
    if (value[k]! - h < low) low = value[k]! - h
    if (value[k]! + h > high) high = value[k]! + h
  }
  if (low === Infinity) return new Cdf(0, 1, Float64Array.of(1, 1), 1)
  if (high - low < 1e-12) { low -= 1e-9; high += 1e-9 }
  const perUnit = BINS / (high - low)
  // The density is a sum of boxes: keep how it changes at each bin (slope) and what falls inside the edge bins (part).
  const slope = new Float64Array(BINS + 2)
  const part = new Float64Array(BINS + 2)
  for (let k = 0; k < value.length; k++) {
    const w = weight[k]!
    if (w < least || value[k] === -Infinity) continue
    const half = Math.max(width[k]! / 2 * perUnit, 1e-9)
    const middle = (value[k]! - low) * perUnit
    const a = Math.max(0, middle - half), b = Math.min(BINS, middle + half)
    const d = w / Math.max(b - a, 1e-9)
    const i = Math.min(BINS - 1, a | 0), j = Math.min(BINS - 1, b | 0)
    if (i === j) part[i]! += w
    else {
      part[i]! += d * (i + 1 - a)
      part[j]! += d * (b - j)
      slope[i + 1]! += d
      slope[j]! -= d
    }
  }
  const at = new Float64Array(BINS + 1)
  let sum = below, density = 0
  at[0] = sum / total
  for (let i = 0; i < BINS; i++) {
    density += slope[i]!
    sum += density + part[i]!
    at[i + 1] = Math.min(1, Math.max(at[i]!, sum / total))
  }
  at[BINS] = 1
  return new Cdf(low, high, at, below / total)
}

/** When a rule is broken, as a distribution of ln(wear kg). A fixed mass is a step. */
export type Life = { kind: 'cdf', lnKg: Cdf } | { kind: 'mass', kg: number }

/** Chance that a rule is broken by the time `kg` have gone through. */
export function brokenBy(lives: Life[], kg: number): number {
  let whole = 1
  for (const l of lives) whole *= 1 - (l.kind === 'mass' ? (kg >= l.kg ? 1 : 0) : l.lnKg.share(kg > 0 ? Math.log(kg) : -Infinity))
  return 1 - whole
}

/** Wear mass at which the chance that any rule is broken first reaches p, kg; 0 when it is so from the start, Infinity when it never is. */
export function wearAtRisk(lives: Life[], p: number): number {
  if (lives.length === 0) return Infinity
  if (brokenBy(lives, 0) >= p) return 0
  let low = Infinity, high = -Infinity
  for (const l of lives) {
    low = Math.min(low, l.kind === 'mass' ? Math.log(Math.max(l.kg, 1e-12)) : l.lnKg.low)
    high = Math.max(high, l.kind === 'mass' ? Math.log(Math.max(l.kg, 1e-12)) : l.lnKg.high)
  }
  low -= 1e-6
  high += 1e-6
  for (let i = 0; i < 60 && high - low > 1e-10; i++) {
    const mid = (low + high) / 2
    if (brokenBy(lives, Math.exp(mid)) >= p) high = mid
    else low = mid
  }
  return Math.exp(high)
}
