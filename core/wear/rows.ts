/**
 * One row of the posterior: for a given x = ln κ, the density over a integrated in pieces, each narrow enough that five
 * Gauss-Legendre places describe it (the polynomial through them is integrated for the cumulative distribution).
 * Source: Abramowitz & Stegun, table 25.4, for the places and weights.
 */
import { lnAlong, rateAt, type Density } from './density'
import type { Box } from './search'

/** Places of five-point Gauss-Legendre between 0 and 1. */
export const PLACES = [-0.906179845938664, -0.5384693101056831, 0, 0.5384693101056831, 0.906179845938664].map(
  t => (t + 1) / 2,
)
export const N = 5
/**
 * INTEGRALS[j]: coefficients of u, u², … u⁵ of the integral from 0 to u of the polynomial that is 1 at place j and 0 at
 * the others.
 */
export const INTEGRALS = PLACES.map((p, j) => {
  let poly = [1]
  for (const [i, q] of PLACES.entries()) {
    if (i === j) continue
    const next = new Array<number>(poly.length + 1).fill(0)
    poly.forEach((c, k) => {
      next[k]! -= (c * q) / (p - q)
      next[k + 1]! += c / (p - q)
    })
    poly = next
  }
  return poly.map((c, k) => c / (k + 1))
})
export const PLACE_WEIGHTS = INTEGRALS.map(c => c.reduce((a, b) => a + b, 0))
const FLAT = Float64Array.from(INTEGRALS.flat())

/** How much more a piece may vary for every step in log weight that it lies below the whole. */
const VARIES_MORE = 0.45
/** Pieces that vary less than this together are one in the next row. */
const VARIES_LITTLE = 0.5
/** A row that weighs next to nothing is no rougher than one that weighs so little, in log weight. */
const MOST_ROUGH = 10
/** How far a peak may stand above the places of its piece, in log density. */
const MOST_HIDDEN = 8
const MOST_PIECES = 400

/**
 * Numbers kept for each piece: its ends, the share before it, five coefficients of its cumulative share, and how much
 * it varies.
 */
const STRIDE = 9
const SHARE = 2
const VARIES = 8

export interface Row {
  x: number
  rate: number
  /** Log of the density integrated over a, the prior of x left out. */
  ln: number
  pieces: number
  data: Float64Array
  /** The log weight of all per step, beside which it was looked at. */
  total: number
}

/** Ends of all its pieces. */
export const rowLow = (r: Row) => r.data[0]!
export const rowHigh = (r: Row) => r.data[(r.pieces - 1) * STRIDE + 1]!
/** Where a piece begins and ends, and the share up to its end. */
export const pieceStart = (r: Row, k: number) => r.data[k * STRIDE]!
export const pieceEnd = (r: Row, k: number) => r.data[k * STRIDE + 1]!
export const shareAtEnd = (r: Row, k: number) => (k + 1 < r.pieces ? r.data[(k + 1) * STRIDE + SHARE]! : 1)

let lastPiece = 0

/** Share of the row's weight up to a. */
export function rowShare(r: Row, a: number): number {
  const data = r.data
  if (a <= data[0]!) return 0
  const last = r.pieces - 1
  if (a >= data[last * STRIDE + 1]!) return 1
  let k = lastPiece < last ? lastPiece : last // rows asked one after the other are alike
  while (data[k * STRIDE]! > a) k--
  while (k < last && data[(k + 1) * STRIDE]! <= a) k++
  lastPiece = k
  const at = k * STRIDE
  const end = data[at + 1]!
  const start = data[at]!
  const u = a >= end ? 1 : (a - start) / (end - start)
  return (
    data[at + 2]! +
    u * (data[at + 3]! + u * (data[at + 4]! + u * (data[at + 5]! + u * (data[at + 6]! + u * data[at + 7]!))))
  )
}

/** Spans of a, in order. */
export interface Spans {
  n: number
  a0: Float64Array
  a1: Float64Array
}

const guide: Spans = { n: 0, a0: new Float64Array(4 * MOST_PIECES), a1: new Float64Array(4 * MOST_PIECES) }

function addSpan(a0: number, a1: number): void {
  if (guide.n === guide.a0.length) return
  guide.a0[guide.n] = a0
  guide.a1[guide.n++] = a1
}

/** Adds the span unless one of the first `known` touches it. */
function addUntouched(a0: number, a1: number, known: number): void {
  for (let k = 0; k < known; k++) if (guide.a0[k]! < a1 && guide.a1[k]! > a0) return
  addSpan(a0, a1)
}

/**
 * Where to look in a row: the pieces of the row beside it, what of the row on the other side those do not touch, and
 * the rest of every box that could hold more than `lnLeast`: a row beside tells nothing of a weight that begins here.
 * The spans are used up by the next call.
 */
export function guideAt(
  x: number,
  boxes: readonly Box[],
  beside: Row | null,
  other: Row | null,
  lnLeast: number,
): Spans {
  guide.n = 0
  if (beside) {
    let together = Infinity
    let lastEnd = NaN
    for (let k = 0; k < beside.pieces; k++) {
      const at = k * STRIDE
      const a0 = beside.data[at]!
      const varies = beside.data[at + VARIES]!
      together += varies
      if (lastEnd === a0 && together < VARIES_LITTLE) guide.a1[guide.n - 1] = beside.data[at + 1]!
      else {
        addSpan(a0, beside.data[at + 1]!)
        together = varies
      }
      lastEnd = beside.data[at + 1]!
    }
  }
  const near = guide.n
  if (other)
    for (let k = 0; k < other.pieces; k++) addUntouched(other.data[k * STRIDE]!, other.data[k * STRIDE + 1]!, near)
  if (guide.n > near) sortSpans()
  const rows = guide.n
  for (const b of boxes) {
    if (b.x0 > x || b.x1 < x || b.lnMost <= lnLeast) continue
    cutAt(b.a0, b.a1, rows)
    addRest(b.a0, b.a1, rows)
  }
  if (guide.n > rows) sortSpans()
  return guide
}

/** Cuts spans much wider than a box at its ends: they were wide where nothing was, and it says that something is. */
function cutAt(a0: number, a1: number, known: number): void {
  for (let k = 0; k < known; k++) {
    const from = guide.a0[k]!
    const to = guide.a1[k]!
    if (from >= a1) return
    if (to <= a0 || to - from < 1.5 * (a1 - a0)) continue
    // the span keeps its first part; the others are added behind the known ones
    const inner = Math.max(from, a0)
    if (inner > from) guide.a1[k] = inner
    if (a1 < to) {
      if (inner > from) addSpan(inner, a1)
      else guide.a1[k] = a1
      addSpan(a1, to)
    } else if (inner > from) addSpan(inner, to)
  }
}

/** Adds what of the span the first `known`, in order, leave open. */
function addRest(a0: number, a1: number, known: number): void {
  let from = a0
  for (let k = 0; k < known && from < a1; k++) {
    if (guide.a1[k]! <= from) continue
    if (guide.a0[k]! >= a1) break
    if (guide.a0[k]! > from) addSpan(from, guide.a0[k]!)
    from = guide.a1[k]!
  }
  if (from < a1) addSpan(from, a1)
}

/** In order, and none over another. */
function sortSpans(): void {
  const { a0, a1, n } = guide
  for (let k = 1; k < n; k++) {
    const from = a0[k]!
    const to = a1[k]!
    let i = k - 1
    for (; i >= 0 && a0[i]! > from; i--) {
      a0[i + 1] = a0[i]!
      a1[i + 1] = a1[i]!
    }
    a0[i + 1] = from
    a1[i + 1] = to
  }
  guide.n = 0
  let end = -Infinity
  for (let k = 0; k < n; k++) {
    const to = a1[k]!
    if (to > end) addSpan(Math.max(a0[k]!, end), to)
    end = Math.max(end, to)
  }
}

/** Pieces being worked on, side by side: ends, log densities at their places, how much they vary, log weight. */
class Pieces {
  n = 0
  readonly a0 = new Float64Array(8 * MOST_PIECES)
  readonly a1 = new Float64Array(8 * MOST_PIECES)
  readonly ln = new Float64Array(8 * MOST_PIECES * N)
  readonly varies = new Float64Array(8 * MOST_PIECES)
  readonly weight = new Float64Array(8 * MOST_PIECES)
  /** Not evaluated yet. */
  readonly fresh = new Uint8Array(8 * MOST_PIECES)

  /** A piece still to be evaluated, clipped to where the last one ends; false when nothing of it is left. */
  add(from: number, a1: number): boolean {
    const a0 = this.n > 0 && this.a1[this.n - 1]! > from ? this.a1[this.n - 1]! : from
    if (!(a1 - a0 > 1e-12) || this.n === this.a0.length) return false
    this.a0[this.n] = a0
    this.a1[this.n] = a1
    this.fresh[this.n++] = 1
    return true
  }

  keep(from: Pieces, k: number): void {
    if (this.n === this.a0.length) return
    this.a0[this.n] = from.a0[k]!
    this.a1[this.n] = from.a1[k]!
    this.varies[this.n] = from.varies[k]!
    this.weight[this.n] = from.weight[k]!
    for (let j = 0; j < N; j++) this.ln[this.n * N + j] = from.ln[k * N + j]!
    this.fresh[this.n++] = 0
  }
}
let now = new Pieces()
let next = new Pieces()
const places = new Float64Array(8 * MOST_PIECES * N)
const values = new Float64Array(8 * MOST_PIECES * N)

/** Evaluates the fresh pieces, all in one go; answers the log of the weight of all. */
function evaluate(d: Density, rate: number, p: Pieces): number {
  let count = 0
  for (let k = 0; k < p.n; k++) {
    if (!p.fresh[k]) continue
    for (let j = 0; j < N; j++) places[count++] = p.a0[k]! + (p.a1[k]! - p.a0[k]!) * PLACES[j]!
  }
  lnAlong(d, rate, places, values, 0, count)
  let best = -Infinity
  count = 0
  for (let k = 0; k < p.n; k++) {
    if (p.fresh[k]) {
      let most = -Infinity
      let least = Infinity
      for (let j = 0; j < N; j++) {
        const v = values[count++]!
        p.ln[k * N + j] = v
        if (v > most) most = v
        if (v < least) least = v
      }
      p.fresh[k] = 0
      p.varies[k] = most - least
      p.weight[k] = most + Math.log(p.a1[k]! - p.a0[k]!) - 0.5 * Math.min(2, most - least)
    }
    if (p.weight[k]! > best) best = p.weight[k]!
  }
  let sum = 0
  for (let k = 0; k < p.n; k++) if (p.weight[k]! > best - 30) sum += Math.exp(p.weight[k]! - best)
  return best + Math.log(sum)
}

/**
 * The row at x, looked for along the spans given and as far beyond them as there is weight, and the more roughly the
 * less it weighs beside `total`, the log weight of all per step of x. Null when there is none.
 */
export function rowAt(d: Density, x: number, spans: Spans, total: number): Row | null {
  const rate = rateAt(d, x)
  const { depth, varies } = d.care
  now.n = 0
  for (let k = 0; k < spans.n; k++) now.add(spans.a0[k]!, spans.a1[k]!)
  let whole = evaluate(d, rate, now)
  for (let round = 0; round < 60; round++) {
    if (!(whole > -600)) return null
    const all = Math.max(whole, Math.min(total, whole + MOST_ROUGH))
    next.n = 0
    let changed = false
    for (let k = 0; k < now.n; k++) {
      const weight = now.weight[k]!
      // a piece that varies much may hold a peak between its places
      if (weight + Math.min(now.varies[k]!, MOST_HIDDEN) < all - depth) {
        next.keep(now, k) // kept until the end, so that nobody looks here again
        continue
      }
      const a0 = now.a0[k]!
      const a1 = now.a1[k]!
      const width = a1 - a0
      const counts = all - depth - Math.log(width)
      // weight at an open end: look beyond it
      const before = k > 0 ? now.a1[k - 1]! : -Infinity
      if (before < a0 - 1e-9 * width && now.ln[k * N]! > counts)
        changed = next.add(Math.max(a0 - width, before), a0) || changed
      if (now.varies[k]! > varies + VARIES_MORE * (all - weight) && now.n < MOST_PIECES) {
        const mid = (a0 + a1) / 2
        next.add(a0, mid)
        next.add(mid, a1)
        changed = true
      } else next.keep(now, k)
      const after = k + 1 < now.n ? now.a0[k + 1]! : Infinity
      if (after > a1 + 1e-9 * width && now.ln[k * N + N - 1]! > counts)
        changed = next.add(a1, Math.min(a1 + width, after)) || changed
    }
    if (!changed) break
    const swap = now
    now = next
    next = swap
    whole = evaluate(d, rate, now)
  }
  return rowOf(x, rate, whole, total, depth)
}

function rowOf(x: number, rate: number, whole: number, total: number, depth: number): Row {
  let pieces = 0
  for (let k = 0; k < now.n; k++) if (now.weight[k]! >= whole - depth) pieces++
  const data = new Float64Array(pieces * STRIDE)
  let sum = 0
  let at = 0
  for (let k = 0; k < now.n; k++) {
    if (now.weight[k]! < whole - depth) continue
    const width = now.a1[k]! - now.a0[k]!
    data[at] = now.a0[k]!
    data[at + 1] = now.a1[k]!
    data[at + SHARE] = sum
    data[at + VARIES] = now.varies[k]!
    for (let j = 0; j < N; j++) {
      const density = width * Math.exp(now.ln[k * N + j]! - whole)
      for (let c = 0; c < N; c++) data[at + 3 + c]! += density * FLAT[j * N + c]!
    }
    for (let c = 0; c < N; c++) sum += data[at + 3 + c]!
    at += STRIDE
  }
  for (let k = 0; k < data.length; k += STRIDE) for (let c = SHARE; c < VARIES; c++) data[k + c]! /= sum
  return { x, rate, ln: whole + Math.log(sum), pieces, data, total }
}
