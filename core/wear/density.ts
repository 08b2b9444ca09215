/**
 * The density of (x, a) given everything known of one nozzle: x = ln κ, and a = v at a pivot wear mass near the middle
 * of the readings (v = d³ or d, see `laws.ts`), where readings pin the bore best, so that the weight lies along x and
 * not across it. All readings are functions of v(M) = a + rate·(M − pivot), rate = growth·e^x: a straight line.
 */
import { lnGroup, lnGroupAtMost, offsetPrior, pictureGroups, type PictureGroup } from './pictures'
import { lnPin, readingsOf, type Look } from './readings'
import { DOUBT, growthPerKg, startDensity, startOf, type Start } from './start'
import type { BoreHistory, Law } from './types'

/** Tables side by side, each with its wear mass from the pivot on: what the loops below run through. */
interface Looks {
  n: number
  fromPivot: Float64Array
  low: Float64Array
  perUnit: Float64Array
  last: Int32Array
  peak: Int32Array
  table: Float64Array[]
  /** Sum of the highest values of this table and all after it. */
  mostFrom: Float64Array
  /** Of many tables, the width of the widest, in v: a larger box need not be looked at. Infinite for few. */
  width: number
}

/**
 * How closely rows are looked at: the log weight below the whole from which nothing counts, how much a piece of a row
 * may vary in log density when it holds all the weight, and the share of all weight a row may be off by.
 */
export interface Care {
  depth: number
  varies: number
  tolerance: number
}
/** Few readings leave a wide answer, whose ends must be known to a small share of it; many a narrow one. */
const CARE: { below: number; care: Care }[] = [
  { below: 6, care: { depth: 12, varies: 1.3, tolerance: 4e-4 } },
  { below: 12, care: { depth: 11, varies: 2.2, tolerance: 6e-4 } },
  { below: Infinity, care: { depth: 10.5, varies: 2.6, tolerance: 1.5e-3 } },
]

export interface Density {
  law: Law
  nominalMm: number
  pivotKg: number
  /** Growth of v per kg at κ = 1. */
  growth: number
  start: Start
  looks: Looks
  /** Marked pins: a constant and the tables of its uses. */
  pins: { whole: number; uses: Looks }[]
  /** Marked pins with soft uses: ln weights of their errors and the tables of the uses. */
  softPins: { lnWeight: number; uses: Looks }[][]
  /** Pictures, by their set-ups. */
  pictures: PictureGroup[]
  care: Care
  /** Readings and uses of pins, and the furthest of them from the pivot, kg. */
  uses: number
  reachKg: number
}

export function densityOf(h: BoreHistory, law: Law): Density {
  const pivotKg = pivotOf(h)
  const readings = readingsOf(h.observations, law, h.nominalMm, (h.doubt ?? DOUBT).misread)
  const pictures = pictureGroups(h.observations, law, h.nominalMm, (h.doubt ?? DOUBT).misread, pivotKg)
  const everything = [
    ...readings.looks,
    ...readings.pins.flatMap(p => p.uses),
    ...readings.softPins.flatMap(p => p[0]!.uses),
    ...h.observations.filter(o => o.kind === 'picture'),
  ]
  return {
    law,
    nominalMm: h.nominalMm,
    pivotKg,
    growth: growthPerKg(law, h.nominalMm),
    start: startDensity(h, law),
    looks: sideBySide(spreadOut(readings.looks), pivotKg),
    pins: readings.pins.map(p => ({ whole: p.whole, uses: sideBySide(p.uses, pivotKg) })),
    softPins: readings.softPins.map(p => p.map(e => ({ lnWeight: e.lnWeight, uses: sideBySide(e.uses, pivotKg) }))),
    pictures,
    care: CARE.find(c => everything.length < c.below)!.care,
    uses: everything.length,
    reachKg: everything.reduce((m, l) => Math.max(m, Math.abs(l.wearKg - pivotKg)), pivotKg),
  }
}

const MANY = 6

/** In an order in which neighbours are far apart, so that a place that fits few readings is soon known for it. */
function spreadOut(looks: Look[]): Look[] {
  const step = Math.max(1, Math.floor(Math.sqrt(looks.length)))
  const out: Look[] = []
  for (let from = step - 1; from >= 0; from--)
    for (let j = looks.length - 1 - from; j >= 0; j -= step) out.push(looks[j]!)
  return out
}

function sideBySide(looks: Look[], pivotKg: number): Looks {
  const mostFrom = new Float64Array(looks.length + 1)
  for (let j = looks.length - 1; j >= 0; j--) mostFrom[j] = mostFrom[j + 1]! + looks[j]!.at[looks[j]!.peak]!
  return {
    n: looks.length,
    fromPivot: Float64Array.from(looks, l => l.wearKg - pivotKg),
    low: Float64Array.from(looks, l => l.low),
    perUnit: Float64Array.from(looks, l => l.perUnit),
    last: Int32Array.from(looks, l => l.last),
    peak: Int32Array.from(looks, l => l.peak),
    table: looks.map(l => l.at),
    mostFrom,
    width: looks.length < MANY ? Infinity : Math.max(...looks.map(l => l.last / l.perUnit)),
  }
}

/** Mean wear mass of the readings and the start, each by how sharply it says where the bore is. */
function pivotOf(h: BoreHistory): number {
  let weight = startOf(h)[0]!.uMm ** -2
  let sum = 0
  for (const o of h.observations) {
    let width = 0
    if (o.kind === 'pins') width = o.goMm === null || o.noGoMm === null ? 0.1 : o.noGoMm - o.goMm
    const shared = o.kind === 'picture' ? offsetPrior(h.nominalMm, o.uSharedMm).omega : 0
    const w = 1 / (o.uMm ** 2 + width ** 2 / 12 + shared ** 2)
    weight += w
    sum += w * o.wearKg
  }
  return sum / weight
}

export const rateAt = (d: Density, x: number) => d.growth * Math.exp(x)

/** Adds every table's value at many a for one rate to `out`. */
function addAlong(l: Looks, rate: number, a: Float64Array, out: Float64Array, from: number, to: number): void {
  for (let j = 0; j < l.n; j++) {
    const table = l.table[j]!
    const perUnit = l.perUnit[j]!
    const last = l.last[j]!
    const shift = (rate * l.fromPivot[j]! - l.low[j]!) * perUnit
    for (let k = from; k < to; k++) {
      const t = a[k]! * perUnit + shift
      if (t <= 0) out[k]! += table[0]!
      else if (t >= last) out[k]! += table[last]!
      else {
        const i = t | 0
        const y = table[i]!
        out[k]! += y + (t - i) * (table[i + 1]! - y)
      }
    }
  }
}

/** Log density over a, the prior of x left out, at many a for one rate; into `out`. */
export function lnAlong(d: Density, rate: number, a: Float64Array, out: Float64Array, from: number, to: number): void {
  const toStart = rate * d.pivotKg
  for (let k = from; k < to; k++) out[k] = d.start.logAt(a[k]! - toStart)
  addAlong(d.looks, rate, a, out, from, to)
  for (const g of d.pictures) for (let k = from; k < to; k++) out[k]! += lnGroup(g, a[k]!, rate)
  for (const pin of d.pins) {
    const sum = new Float64Array(to).fill(pin.whole)
    addAlong(pin.uses, rate, a, sum, from, to)
    for (let k = from; k < to; k++) out[k]! += lnPin(sum[k]!)
  }
  for (const pin of d.softPins) {
    const errors = pin.map(e => {
      const sum = new Float64Array(to).fill(e.lnWeight)
      addAlong(e.uses, rate, a, sum, from, to)
      return sum
    })
    for (let k = from; k < to; k++) out[k]! += lnOfSum(errors.map(sum => sum[k]!))
  }
}

/** ln of a sum, from the logarithms of its parts. */
function lnOfSum(parts: readonly number[]): number {
  const top = Math.max(...parts)
  let sum = 0
  for (const p of parts) sum += Math.exp(p - top)
  return top + Math.log(sum)
}

/**
 * Sum of every table's highest value over a box of rates and a; as soon as it is sure to be below `least`, no more than
 * that.
 */
function sumAtMost(l: Looks, r0: number, r1: number, a0: number, a1: number, least: number): number {
  let sum = 0
  for (let j = 0; j < l.n; j++) {
    if (sum + l.mostFrom[j]! < least) return sum + l.mostFrom[j]!
    const table = l.table[j]!
    const perUnit = l.perUnit[j]!
    const low = l.low[j]!
    const peak = l.peak[j]!
    const s = l.fromPivot[j]!
    const up = s > 0
    let t = (a0 + (up ? r0 : r1) * s - low) * perUnit
    if (t < peak) {
      t = (a1 + (up ? r1 : r0) * s - low) * perUnit
      if (t >= peak) {
        sum += table[peak]!
        continue
      }
    }
    const last = l.last[j]!
    if (t <= 0) sum += table[0]!
    else if (t >= last) sum += table[last]!
    else {
      const i = t | 0
      const y = table[i]!
      sum += y + (t - i) * (table[i + 1]! - y)
    }
  }
  return sum
}

/**
 * No log density within a box, the prior of x left out, is above this: every table has one peak, so its bound is exact.
 * Less than `least` is not worked out further.
 */
export function lnAtMost(d: Density, r0: number, r1: number, a0: number, a1: number, least: number): number {
  let sum = d.start.logAtMost(a0 - r1 * d.pivotKg, a1 - r0 * d.pivotKg)
  for (const g of d.pictures) sum += lnGroupAtMost(g, r0, r1, a0, a1)
  for (const pin of d.pins) sum += lnPin(pin.whole + sumAtMost(pin.uses, r0, r1, a0, a1, -Infinity))
  for (const pin of d.softPins) sum += lnOfSum(pin.map(e => e.lnWeight + sumAtMost(e.uses, r0, r1, a0, a1, -Infinity)))
  return sum + sumAtMost(d.looks, r0, r1, a0, a1, least - sum)
}
