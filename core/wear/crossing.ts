/**
 * A distribution given by its cumulative share, which is dear to ask for: quantiles by interpolation kept safe by
 * halving (Illinois method: Dowell & Jarratt 1971, BIT 11, 168). A rough distribution of the same quantity says where
 * to look first, and every share asked for is kept for the next quantile.
 */
import { need } from '../numeric'
import type { Range, Spread } from './types'

/** Close enough: in the share, relative to what lies beyond it, and relative to the place. */
const NEAR = 4e-4
const NARROW = 1e-8

/** Places with weights, which need only be roughly right. */
export interface Rough {
  at: number[]
  weight: number[]
}

export class Crossings implements Spread {
  /** Places whose share is known, rising. */
  private readonly at: number[]
  private readonly known: number[] = [0, 1]
  private readonly place: number[] = []
  private readonly upTo: number[] = []

  constructor(
    readonly share: (v: number) => number,
    low: number,
    high: number,
    rough: Rough,
  ) {
    this.at = [low, high]
    const order = rough.at
      .map((_, i) => i)
      .filter(i => rough.at[i]! > low && rough.at[i]! < high && rough.weight[i]! > 0)
    order.sort((i, j) => rough.at[i]! - rough.at[j]!)
    let sum = 0
    for (const i of order) {
      this.place.push(rough.at[i]!)
      this.upTo.push(sum + rough.weight[i]! / 2)
      sum += rough.weight[i]!
    }
    for (let k = 0; k < this.upTo.length; k++) this.upTo[k]! /= sum
  }

  /** Place with a share of p by the rough distribution; NaN where it has none. */
  private guess(p: number): number {
    const { place, upTo } = this
    if (place.length === 0) return NaN
    let k = 0
    while (k < upTo.length && upTo[k]! < p) k++
    if (k === 0) return place[0]!
    if (k === upTo.length) return place[k - 1]!
    return place[k - 1]! + ((place[k]! - place[k - 1]!) * (p - upTo[k - 1]!)) / (upTo[k]! - upTo[k - 1]!)
  }

  /** Smallest v with a share of at least p, above 0 and below 1. */
  quantile(p: number): number {
    need('p', p, 1e-9, 1 - 1e-9)
    let i = 0
    while (i + 2 < this.at.length && this.known[i + 1]! < p) i++
    let a = this.at[i]!
    let b = this.at[i + 1]!
    let fa = this.known[i]! - p
    let fb = this.known[i + 1]! - p
    const slope = (this.guess(p + 0.05 * (1 - p)) - this.guess(0.95 * p)) / 0.05
    let aim = this.guess(p)
    let side = 0
    for (let step = 0; step < 100 && b - a > NARROW * Math.max(1e-6, Math.abs(a) + Math.abs(b)); step++) {
      let x = aim
      if (!(x > a && x < b)) x = step > 8 && step % 3 === 0 ? (a + b) / 2 : (a * fb - b * fa) / (fb - fa)
      if (!(x > a && x < b)) x = (a + b) / 2
      const share = this.share(x)
      const f = share - p
      this.keep(x, share)
      if (Math.abs(f) < NEAR * Math.min(p, 1 - p)) return x
      // the second place lies a little beyond where the rough distribution says, so that the two have p between them
      aim = step === 0 && Math.abs(f) < 0.1 ? x - 1.3 * f * slope : NaN
      if (f >= 0) {
        b = x
        fb = f
        if (side === 1) fa /= 2
        side = 1
      } else {
        a = x
        fa = f
        if (side === -1) fb /= 2
        side = -1
      }
    }
    return b
  }

  private keep(x: number, share: number): void {
    let k = 1
    while (this.at[k]! < x) k++
    this.at.splice(k, 0, x)
    this.known.splice(k, 0, share)
  }
}

/** The quantiles that are shown: median, 80 % and 95 % range, in the unit of the distribution. */
export function rangeOf(s: Spread): Range {
  return {
    median: s.quantile(0.5),
    low80: s.quantile(0.1),
    high80: s.quantile(0.9),
    low95: s.quantile(0.025),
    high95: s.quantile(0.975),
  }
}
