/**
 * Rows laid across the weight of one nozzle: between the boxes that branch and bound found, then wherever the row
 * between two is not what they let expect, and outwards until under a millionth of the weight lies at the edge.
 */
import { checkHistory } from './check'
import { densityOf, type Density } from './density'
import { lnPrior } from './prior'
import { guideAt, pieceEnd, rowAt, rowShare, shareAtEnd, type Row } from './rows'
import { boxesOfWeight, type Box } from './search'
import type { BoreHistory, Law, LogNormalPrior } from './types'

/** Half the width of the box looked through, in standard deviations of the prior of ln κ. */
const REACH = 9
/** Weight of the outermost step, as a share of all, from which rows go on further out. */
const EDGE = 1e-6
/** What the log weight may change from row to row: between rows with all the weight, and more the less there is. */
const STEEP_TOP = 1.5
const STEEP_MORE = 0.5
/** A gap whose middle stands so far above both rows is looked at in any case. */
const BULGE = 0.3
const FEWEST_ROWS = 6
const MOST_ROWS = 1000

/** A row with its log weight, prior included. */
export interface Node {
  row: Row
  ln: number
}

type Lay = (x: number, beside: Row | null, other: Row | null) => Node | null

/**
 * The rows of one nozzle under one law, kept so that what its sisters learn of it and its own posterior look only once.
 */
export class RowStore {
  readonly density: Density
  private readonly rows = new Map<number, Row | null>()
  private boxes: Box[] = []
  /** The prior under which the boxes were found, and the log weight of all under it. */
  private found: { prior: LogNormalPrior; ln: number } | null = null

  /** Throws InputError for an impossible history. */
  constructor(
    readonly history: BoreHistory,
    readonly law: Law,
  ) {
    checkHistory(history)
    this.density = densityOf(history, law)
  }

  /** Rows that hold all weight under a prior, in order of x, looked for so many standard deviations about its mean. */
  lay(prior: LogNormalPrior, reach = REACH): Node[] {
    const { found } = this
    if (found && prior.sd <= found.prior.sd && Math.abs(prior.meanLn - found.prior.meanLn) <= 2 * found.prior.sd) {
      const nodes = this.layIn(
        this.boxes.filter(b => b.lnMost + lnPriorIn(b, prior) - lnPriorIn(b, found.prior) > found.ln - 16),
        prior,
        reach,
      )
      // a prior that agrees with the readings no worse than the wider one did needs no search of its own
      if (lnSum(nodes) > found.ln - 2) return nodes
    }
    this.rows.clear()
    this.boxes = boxesOfWeight(this.density, prior, prior.meanLn - reach * prior.sd, prior.meanLn + reach * prior.sd)
    const nodes = this.layIn(this.boxes, prior, reach)
    this.found = { prior, ln: lnSum(nodes) }
    return nodes
  }

  private layIn(boxes: Box[], prior: LogNormalPrior, reach: number): Node[] {
    if (boxes.length === 0) return []
    const low = prior.meanLn - reach * prior.sd
    const high = prior.meanLn + reach * prior.sd
    const nodes: Node[] = []
    const lay: Lay = (x, beside, other) => {
      // what all weighs beside this row, so that a light one need only be known roughly
      const step = beside && beside.x !== x ? Math.abs(x - beside.x) : 1
      const all = nodes.length > 1 ? lnSum(nodes) : -Infinity
      const row = this.at(x, beside, other, all - lnPrior(prior, x) - Math.log(step), all - this.density.care.depth)
      return row && { row, ln: row.ln + lnPrior(prior, x) }
    }
    layBetweenBoxes(nodes, boxes, prior, lay)
    layOutwards(nodes, low, high, lay)
    refine(nodes, lay, this.density.care.tolerance)
    return nodes
  }

  private at(x: number, beside: Row | null, other: Row | null, total: number, lnLeast: number): Row | null {
    const known = this.rows.get(x)
    if (known === null || (known && known.total <= total + 3)) return known
    const row = rowAt(this.density, x, guideAt(x, this.boxes, beside, other, lnLeast), total)
    this.rows.set(x, row)
    return row
  }
}

/**
 * Sides of the boxes; every second one where they show a single peak, since with many readings boxes are finer than the
 * weight is.
 */
function placesFor(boxes: Box[]): number[] {
  const sides = [...new Set(boxes.flatMap(b => [b.x0, b.x1]))].sort((a, b) => a - b)
  if (boxes.length > 200) return sides
  const weights = boxes.map(b => Math.exp(b.lnMiddle - boxes[0]!.lnMiddle) / (b.x1 - b.x0))
  const heights = sides.slice(1).map((x1, i) => {
    const x = (sides[i]! + x1) / 2
    let sum = 0
    for (let k = 0; k < boxes.length; k++) if (boxes[k]!.x0 < x && boxes[k]!.x1 > x) sum += weights[k]!
    return sum
  })
  const top = heights.indexOf(Math.max(...heights))
  const seen = heights.filter(h => h > 1e-6 * heights[top]!)
  const single =
    seen.length > 6 &&
    heights.every(
      (h, i) =>
        h < 1e-6 * heights[top]! || i === top || (i < top ? h <= heights[i + 1]! * 1.2 : h <= heights[i - 1]! * 1.2),
    )
  return single ? sides.filter((_, i) => (i - top) % 2 === 0 || i === 0 || i === sides.length - 1) : sides
}

/** A row at every side of a box, from the heaviest box outwards, so that each has one beside it to go by. */
function layBetweenBoxes(nodes: Node[], boxes: Box[], prior: LogNormalPrior, lay: Lay): void {
  const top = boxes.reduce((a, b) => (b.lnMost + lnPriorIn(b, prior) > a.lnMost + lnPriorIn(a, prior) ? b : a))
  let places = placesFor(boxes)
  while (places.length < FEWEST_ROWS) places = places.flatMap((x, i) => (i === 0 ? [x] : [(places[i - 1]! + x) / 2, x]))
  const start = places.findIndex(x => x >= (top.x0 + top.x1) / 2)
  for (let i = start; i < places.length; i++) {
    const n = lay(places[i]!, nodes[nodes.length - 1]?.row ?? null, null)
    if (n) nodes.push(n)
  }
  for (let i = start - 1; i >= 0; i--) {
    const n = lay(places[i]!, nodes[0]?.row ?? null, null)
    if (n) nodes.unshift(n)
  }
}

/** Highest log prior within a box. */
const lnPriorIn = (b: Box, prior: LogNormalPrior) => lnPrior(prior, Math.min(b.x1, Math.max(b.x0, prior.meanLn)))

/** Further rows on either side while the last step still weighs something. */
function layOutwards(nodes: Node[], low: number, high: number, lay: Lay): void {
  for (const side of ['low', 'high'] as const) {
    for (let i = 0; i < 60; i++) {
      const [end, inner] =
        side === 'low' ? [nodes[0]!, nodes[1]!] : [nodes[nodes.length - 1]!, nodes[nodes.length - 2]!]
      const step = Math.abs(inner.row.x - end.row.x)
      if (end.ln + Math.log(step) < lnSum(nodes) + Math.log(EDGE)) break
      const x = side === 'low' ? Math.max(low, end.row.x - step) : Math.min(high, end.row.x + step)
      if (Math.abs(x - end.row.x) < 1e-9) break
      const n = lay(x, end.row, null)
      if (!n) break
      if (side === 'low') nodes.unshift(n)
      else nodes.push(n)
    }
  }
}

/** Log of the weight of all rows, by trapezoids. */
function lnSum(nodes: Node[]): number {
  if (nodes.length < 2) return -Infinity
  let best = -Infinity
  for (const n of nodes) if (n.ln > best) best = n.ln
  let sum = 0
  let last = 0
  for (let j = 0; j < nodes.length; j++) {
    const w = nodes[j]!.ln < best - 40 ? 0 : Math.exp(nodes[j]!.ln - best)
    if (j > 0) sum += ((nodes[j]!.row.x - nodes[j - 1]!.row.x) * (w + last)) / 2
    last = w
  }
  return best + Math.log(sum)
}

/**
 * Lays a row between two where the two do not tell it. The boxes see to it that nothing narrow hides there, so every
 * second gap is tried first, and the others beside one that was off.
 */
function refine(nodes: Node[], lay: Lay, tolerance: number): void {
  const lnAll = lnSum(nodes)
  const gaps = nodes
    .slice(0, -1)
    .map((n, j) => ({ x: n.row.x, now: j % 2 === 0 || steep(n, nodes[j + 1]!, lnAll) > 1 || bulge(nodes, j) > BULGE }))
  const untried = new Set(gaps.filter(g => !g.now).map(g => g.x))
  let open = gaps.filter(g => g.now).map(g => g.x)
  for (let round = 0; round < 30 && open.length > 0; round++) {
    const all = lnSum(nodes)
    const made: { after: number; node: Node; off: number }[] = []
    for (const x0 of open) {
      if (nodes.length + made.length > MOST_ROWS) break
      const after = nodes.findIndex(n => n.row.x === x0)
      const tried = layBetween(nodes, after, all + Math.log(tolerance), lay)
      if (tried) made.push({ after, ...tried })
    }
    made.sort((p, q) => q.after - p.after)
    const next = new Set<number>()
    for (const m of made) {
      const left = nodes[m.after]!
      const right = nodes[m.after + 1]!
      if (m.off > 1 || steep(left, m.node, all) > 1 || steep(m.node, right, all) > 1)
        next.add(left.row.x).add(m.node.row.x)
      if (m.off > 1 / 4) {
        for (const beside of [nodes[m.after - 1], nodes[m.after + 1]])
          if (beside && untried.delete(beside.row.x)) next.add(beside.row.x)
      }
      nodes.splice(m.after + 1, 0, m.node)
    }
    open = [...next]
  }
}

/** How much the log weight changes from one row to the next, as a share of what it may with the weight between them. */
function steep(a: Node, b: Node, lnAll: number): number {
  const lnShare = Math.max(a.ln, b.ln) + Math.log(Math.abs(b.row.x - a.row.x)) - lnAll
  return Math.abs(a.ln - b.ln) / (STEEP_TOP + STEEP_MORE * Math.max(0, -lnShare))
}

/** How far the middle of the gap after row j is expected to stand above both its rows. */
const bulge = (nodes: Node[], j: number) =>
  lnBetween(nodes, j, (nodes[j]!.row.x + nodes[j + 1]!.row.x) / 2) - Math.max(nodes[j]!.ln, nodes[j + 1]!.ln)

/**
 * The row in the middle of a gap, and how far it is from what was expected, in tolerances; null where it cannot matter.
 */
function layBetween(nodes: Node[], after: number, lnTolerated: number, lay: Lay): { node: Node; off: number } | null {
  const a = nodes[after]!
  const b = nodes[after + 1]!
  const x = (a.row.x + b.row.x) / 2
  const lnStep = Math.log(b.row.x - a.row.x)
  const first = firstOfFour(nodes.length, after)
  const expected = lnBetween(nodes, after, x)
  if (Math.max(a.ln, b.ln, expected) + lnStep < lnTolerated - 6) return null
  const node = a.ln > b.ln ? lay(x, a.row, b.row) : lay(x, b.row, a.row)
  if (!node) return null
  const share = Math.exp(Math.max(node.ln, expected) + lnStep - lnTolerated)
  const wrong = Math.min(2, Math.abs(Math.expm1(expected - node.ln))) + differs(nodes, first, node.row)
  return { node, off: share * wrong }
}

/** How far a row is from what the four about it let expect: the largest difference of the cumulative distributions. */
function differs(nodes: Node[], first: number, row: Row): number {
  let most = 0
  lagrange(nodes, first, row.x, four)
  for (let k = 0; k < row.pieces; k++) {
    const end = pieceEnd(row, k)
    let expected = 0
    for (let i = 0; i < 4; i++) expected += four[i]! * rowShare(nodes[first + i]!.row, end)
    most = Math.max(most, Math.abs(expected - shareAtEnd(row, k)))
  }
  return most
}

/** First of the four rows about the gap after row j. */
export const firstOfFour = (n: number, j: number) => Math.max(0, Math.min(n - 4, j - 1))

/** Values at x of the four polynomials that are 1 at one of four rows and 0 at the others. */
export function lagrange(nodes: readonly Node[], first: number, x: number, out: Float64Array): void {
  const x0 = nodes[first]!.row.x
  const x1 = nodes[first + 1]!.row.x
  const x2 = nodes[first + 2]!.row.x
  const x3 = nodes[first + 3]!.row.x
  const a = x - x0
  const b = x - x1
  const c = x - x2
  const e = x - x3
  out[0] = (b * c * e) / ((x0 - x1) * (x0 - x2) * (x0 - x3))
  out[1] = (a * c * e) / ((x1 - x0) * (x1 - x2) * (x1 - x3))
  out[2] = (a * b * e) / ((x2 - x0) * (x2 - x1) * (x2 - x3))
  out[3] = (a * b * c) / ((x3 - x0) * (x3 - x1) * (x3 - x2))
}

const four = new Float64Array(4)

/** Above both its rows by more than this, the cubic of a gap overshoots: the rows are too far apart for it. */
const OVERSHOOT = 2

/** Log weight in the gap after row j: a cubic through the four rows about it. */
export function lnBetween(nodes: readonly Node[], j: number, x: number): number {
  const first = firstOfFour(nodes.length, j)
  lagrange(nodes, first, x, four)
  let sum = 0
  for (let k = 0; k < 4; k++) sum += four[k]! * nodes[first + k]!.ln
  return Math.min(sum, Math.max(nodes[j]!.ln, nodes[j + 1]!.ln) + OVERSHOOT)
}
