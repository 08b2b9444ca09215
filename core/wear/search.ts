/**
 * Where the weight lies: boxes of (x, a) that hold it, found by branch and bound. The box with the most weight that
 * could be in it is halved, until what could be outside the boxes cannot matter. Nothing is missed, however narrow,
 * because a box is only left out on a bound. The boxes are coarse: they say where to look, `rows.ts` looks.
 * Source: Land & Doig (1960), Econometrica 28, 497, for branch and bound.
 */
import { lnAlong, lnAtMost, rateAt, type Density } from './density'
import { lnPrior } from './prior'
import type { LogNormalPrior } from './types'

/** x = ln κ; a as in `density.ts`. */
export interface Box {
  x0: number
  x1: number
  a0: number
  a1: number
  /** Log of the most weight it can hold, and of what it would hold if it were as heavy all over as in its middle. */
  lnMost: number
  lnMiddle: number
}

/** A box is fine enough when its bound is at most this far above its middle, plus so much for each reading. */
const LOOSE = 4
const LOOSE_EACH = 0.5
/** Boxes that could hold more than this share of the weight are looked into, */
const LN_LOOKED_INTO = Math.log(1e-4)
/** and those that could hold less than this are left out. */
const LN_LEFT_OUT = Math.log(1e-7)
const MOST_BOXES = 6000

export function boxesOfWeight(d: Density, prior: LogNormalPrior, x0: number, x1: number): Box[] {
  const heap = new Heap()
  const taken: Box[] = []
  let lnTaken = firstGuess(d, prior, x0, x1)
  const loose = LOOSE + LOOSE_EACH * d.uses
  const push = (x0: number, x1: number, a0: number, a1: number) => {
    const lnElse = lnPrior(prior, nearest(prior.meanLn, x0, x1)) + Math.log((x1 - x0) * (a1 - a0))
    const least = lnTaken + LN_LEFT_OUT - lnElse
    const lnMost = lnAtMost(d, rateAt(d, x0), rateAt(d, x1), a0, a1, least) + lnElse
    if (lnMost > lnTaken + LN_LEFT_OUT) heap.push({ x0, x1, a0, a1, lnMost, lnMiddle: lnMost })
  }
  push(x0, x1, d.start.lowV + rateAt(d, x0) * d.pivotKg, d.start.highV + rateAt(d, x1) * d.pivotKg)
  for (let i = 0; i < MOST_BOXES && heap.size > 0; i++) {
    if (heap.most + Math.log(heap.size) < lnTaken + LN_LOOKED_INTO) break
    const b = heap.pop()
    const x = (b.x0 + b.x1) / 2
    const a = (b.a0 + b.a1) / 2
    const widthX = (rateAt(d, b.x1) - rateAt(d, b.x0)) * d.reachKg
    const widthA = b.a1 - b.a0
    const lnArea = Math.log((b.x1 - b.x0) * widthA)
    const fewSd = b.x1 - b.x0 <= 2 * prior.sd
    const small = fewSd && widthX < d.looks.width && widthA < d.looks.width
    if (small) b.lnMiddle = lnAt(d, x, a) + lnPrior(prior, x) + lnArea
    let alongX = !fewSd || widthX > widthA
    if (small && b.lnMost - b.lnMiddle < loose) {
      // the middle may be a lone peak: look to either side of it too
      const offX =
        Math.min(...SIDES.map(t => lnAt(d, b.x0 + (b.x1 - b.x0) * t, a) + lnPrior(prior, b.x0 + (b.x1 - b.x0) * t))) +
        lnArea
      const offA = Math.min(...SIDES.map(t => lnAt(d, x, b.a0 + widthA * t))) + lnPrior(prior, x) + lnArea
      if (b.lnMost - Math.min(offX, offA) < loose + LOOSE) {
        taken.push(b)
        lnTaken = lnOfBoth(lnTaken, b.lnMiddle)
        continue
      }
      alongX = offX < offA
    }
    if (alongX) {
      push(b.x0, x, b.a0, b.a1)
      push(x, b.x1, b.a0, b.a1)
    } else {
      push(b.x0, b.x1, b.a0, a)
      push(b.x0, b.x1, a, b.a1)
    }
  }
  return [...taken, ...heap.rest()].filter(b => b.lnMost > lnTaken + LN_LEFT_OUT)
}

/**
 * Less than the log weight about the straight line through the readings (weighted least squares in v): a first measure
 * of what cannot matter. Where readings contradict each other it is low, and then it leaves nothing out.
 */
function firstGuess(d: Density, prior: LogNormalPrior, x0: number, x1: number): number {
  const l = d.looks
  if (l.n < 3) return -Infinity
  let w = 0
  let ws = 0
  let wss = 0
  let wv = 0
  let wsv = 0
  for (let j = 0; j < l.n; j++) {
    const v = l.low[j]! + (0.5 * l.last[j]!) / l.perUnit[j]!
    const s = l.fromPivot[j]!
    const weight = (l.perUnit[j]! / l.last[j]!) ** 2
    w += weight
    ws += weight * s
    wss += weight * s * s
    wv += weight * v
    wsv += weight * s * v
  }
  const det = w * wss - ws * ws
  const rate = (w * wsv - ws * wv) / det
  if (!(rate > 0) || !(det > 1e-9 * w * wss)) return -Infinity
  const x = Math.log(rate / d.growth)
  if (!(x > x0 && x < x1)) return -Infinity
  const a = (wv - rate * ws) / w
  // a table is some 16 standard uncertainties wide
  const widthA = 0.06 / Math.sqrt(w)
  const widthX = Math.min(prior.sd, (0.06 * Math.sqrt(w / det)) / rate)
  return lnAt(d, x, a) + lnPrior(prior, x) + Math.log(widthA * widthX)
}

/** Where, between its ends, a box is looked at beside its middle. */
const SIDES = [0.15, 0.85]

const place = new Float64Array(1)
const value = new Float64Array(1)
function lnAt(d: Density, x: number, a: number): number {
  place[0] = a
  lnAlong(d, rateAt(d, x), place, value, 0, 1)
  return value[0]!
}

const nearest = (v: number, low: number, high: number) => Math.min(high, Math.max(low, v))

/** Log of the sum of two weights given by their logs. */
function lnOfBoth(a: number, b: number): number {
  const more = Math.max(a, b)
  return more === -Infinity ? more : more + Math.log1p(Math.exp(Math.min(a, b) - more))
}

/** Boxes by the most weight they can hold, the most first. */
class Heap {
  private readonly boxes: Box[] = []
  get size(): number {
    return this.boxes.length
  }

  /** Of the first one. */
  get most(): number {
    return this.boxes[0]!.lnMost
  }

  rest(): Box[] {
    return this.boxes
  }

  push(b: Box): void {
    const h = this.boxes
    let i = h.length
    h.push(b)
    while (i > 0) {
      const up = (i - 1) >> 1
      if (h[up]!.lnMost >= b.lnMost) break
      h[i] = h[up]!
      i = up
    }
    h[i] = b
  }

  pop(): Box {
    const h = this.boxes
    const top = h[0]!
    const last = h.pop()!
    if (h.length === 0) return top
    let i = 0
    for (;;) {
      let child = 2 * i + 1
      if (child >= h.length) break
      if (child + 1 < h.length && h[child + 1]!.lnMost > h[child]!.lnMost) child++
      if (h[child]!.lnMost <= last.lnMost) break
      h[i] = h[child]!
      i = child
    }
    h[i] = last
    return top
  }
}
