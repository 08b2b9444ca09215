/**
 * Posterior of (d0, ln κ) of one nozzle, deterministic. Model and sources: docs/wear.md.
 *
 * Everything told of a nozzle is one kind of question: with what chance does the bore after M kg stay below c? For each
 * row (one κ, see `rows.ts`) v ≤ c is a ≤ c − rate·(M − pivot); the rows' answers are integrated over ln κ. Where the
 * answer jumps between two rows they are mixed in finer steps.
 */
import { need } from '../numeric'
import { Crossings, type Rough } from './crossing'
import type { Life } from './life'
import { firstOfFour, lagrange, lnBetween, RowStore, type Node } from './layout'
import { WEAR_KG, BORE_MM } from './check'
import { checkPrior } from './prior'
import {
  INTEGRALS,
  N,
  PLACES,
  PLACE_WEIGHTS,
  pieceEnd,
  pieceStart,
  rowHigh,
  rowLow,
  rowShare,
  shareAtEnd,
  type Row,
} from './rows'
import type { BoreHistory, Law, LogNormalPrior, Spread } from './types'

/**
 * Weight, as a share of all, that an answer between two rows may be off by before it is mixed in finer steps: as little
 * as the first for a wide spread of ln κ, up to the second for a narrow one, where the same share is a smaller bore.
 */
const FINE = [1e-5, 1e-4] as const

/** Between two neighbouring rows. */
interface Gap {
  a: Row
  b: Row
  middleRate: number
  /** First of the four rows about it, their weights in the integral over the gap, and in its middle. */
  first: number
  weight: Float64Array
  middle: Float64Array
  /** Weight in it, and how it is spread: a polynomial in the share of the way. */
  mass: number
  density: Float64Array
}

export interface BorePosterior {
  law: Law
  nominalMm: number
  pivotKg: number
  nodes: Node[]
  gaps: Gap[]
  /** Weight of each row, adding up to 1. */
  weight: Float64Array
  /** Log of the marginal likelihood. */
  logEvidence: number
  /** Between the two of FINE. */
  fine: number
  /** Room for the shares of every row while one question is answered. */
  shares: Float64Array
}

/**
 * Posterior of one nozzle's bore and wear rate from its readings and a prior of ln κ (κ in mm per kg at a 0.4 mm bore).
 * Ranges as in `check.ts`; throws InputError for impossible input. `store` may hold rows laid before.
 *
 * @example
 * const nozzle = { nominalMm: 0.4, observations: [{ kind: 'value', wearKg: 0, valueMm: 0.4, uMm: 0.002 }] }
 * const worn = borePosterior(nozzle, { meanLn: Math.log(0.01), sd: 0.5 })
 * rangeOf(boreAt(worn, 1)).median // 0.41 (mm)
 */
export function borePosterior(
  history: BoreHistory,
  prior: LogNormalPrior,
  law: Law = 'sliding',
  store = new RowStore(history, law),
): BorePosterior {
  checkPrior(prior)
  const nodes = store.lay(prior)
  const lnTop = nodes.reduce((m, n) => Math.max(m, n.ln), -Infinity)
  const gaps = nodes.slice(1).map((_, j) => gapAfter(nodes, j, lnTop))
  const sum = gaps.reduce((s, g) => s + g.mass, 0)
  const weight = new Float64Array(nodes.length)
  for (const g of gaps) {
    g.mass /= sum
    for (let k = 0; k < 4; k++) weight[g.first + k]! += g.weight[k]! /= sum
    for (let k = 0; k < N; k++) g.density[k]! /= sum
  }
  return {
    law,
    nominalMm: history.nominalMm,
    pivotKg: store.density.pivotKg,
    nodes,
    gaps,
    weight,
    logEvidence: lnTop + Math.log(sum),
    fine: fineness(gaps),
    shares: new Float64Array(nodes.length),
  }
}

function fineness(gaps: Gap[]): number {
  let mean = 0
  let square = 0
  for (const g of gaps) {
    const x = (g.a.x + g.b.x) / 2
    mean += g.mass * x
    square += g.mass * x * x
  }
  const variance = Math.max(1e-6, square - mean * mean)
  return Math.min(FINE[1], Math.max(FINE[0], (FINE[0] * 0.25) / variance))
}

const four = new Float64Array(4)

function gapAfter(nodes: Node[], j: number, lnTop: number): Gap {
  const first = firstOfFour(nodes.length, j)
  const a = nodes[j]!.row
  const b = nodes[j + 1]!.row
  const h = b.x - a.x
  const weight = new Float64Array(4)
  const density = new Float64Array(N)
  for (let i = 0; i < N; i++) {
    const x = a.x + h * PLACES[i]!
    const m = h * Math.exp(lnBetween(nodes, j, x) - lnTop)
    lagrange(nodes, first, x, four)
    for (let k = 0; k < 4; k++) weight[k]! += PLACE_WEIGHTS[i]! * m * four[k]!
    for (let c = 0; c < N; c++) density[c]! += m * (c + 1) * INTEGRALS[i]![c]!
  }
  lagrange(nodes, first, a.x + h / 2, four)
  return {
    a,
    b,
    middleRate: Math.sqrt(a.rate * b.rate),
    first,
    weight,
    middle: Float64Array.from(four),
    density,
    mass: weight[0]! + weight[1]! + weight[2]! + weight[3]!,
  }
}

/** Chance that v after the wear is at most `v`. */
function chanceBelow(p: BorePosterior, wearKg: number, v: number): number {
  const s = wearKg - p.pivotKg
  const { nodes, shares } = p
  let sum = 0
  for (let j = 0; j < nodes.length; j++) {
    const row = nodes[j]!.row
    const share = rowShare(row, v - row.rate * s)
    shares[j] = share
    sum += p.weight[j]! * share
  }
  for (let j = 0; j < p.gaps.length; j++) {
    const g = p.gaps[j]!
    const s0 = shares[g.first]!
    const s1 = shares[g.first + 1]!
    const s2 = shares[g.first + 2]!
    const s3 = shares[g.first + 3]!
    // shares rise or fall from row to row, so none is far from the others when these are not
    if ((Math.abs(s0 - s3) + Math.abs(s1 - s2)) * g.mass < p.fine) continue
    const m = g.middle
    const middle = mixAt(p, g, v, s, 0.5)
    if (Math.abs(middle - m[0]! * s0 - m[1]! * s1 - m[2]! * s2 - m[3]! * s3) * g.mass < p.fine) continue
    const w = g.weight
    sum += mixed(p, g, v, s, 0, shares[j]!, middle, 1, shares[j + 1]!, 0)
    sum -= w[0]! * s0 + w[1]! * s1 + w[2]! * s2 + w[3]! * s3
  }
  return Math.min(1, Math.max(0, sum))
}

/** Share up to v part of the way between two rows: a cubic through the four about it, at the same a. */
function mixAt(p: BorePosterior, g: Gap, v: number, s: number, u: number): number {
  const half = u === 0.5
  const rate = half ? g.middleRate : g.a.rate * Math.exp((g.b.x - g.a.x) * u)
  const at = v - rate * s
  if (!half) lagrange(p.nodes, g.first, g.a.x + (g.b.x - g.a.x) * u, four)
  const w = half ? g.middle : four
  let sum = 0
  for (let k = 0; k < 4; k++) sum += w[k]! * rowShare(p.nodes[g.first + k]!.row, at)
  return sum
}

const GAUSS_AT = [0.5 - Math.sqrt(0.15), 0.5, 0.5 + Math.sqrt(0.15)]
const GAUSS_WEIGHT = [5 / 18, 8 / 18, 5 / 18]

/**
 * Integral over part of a gap of its weight times the share, known at both ends and in the middle, in steps as fine as
 * it takes.
 */
function mixed(
  p: BorePosterior,
  g: Gap,
  v: number,
  s: number,
  u0: number,
  f0: number,
  fm: number,
  u1: number,
  f1: number,
  depth: number,
): number {
  const mass = g.mass * (u1 - u0)
  const bend = fm - (f0 + f1) / 2
  const steep = Math.abs(f1 - f0)
  if (depth < 18 && steep * mass > p.fine && (Math.abs(bend) * mass > p.fine || steep > 0.6)) {
    const um = (u0 + u1) / 2
    return (
      mixed(p, g, v, s, u0, f0, mixAt(p, g, v, s, (u0 + um) / 2), um, fm, depth + 1) +
      mixed(p, g, v, s, um, fm, mixAt(p, g, v, s, (um + u1) / 2), u1, f1, depth + 1)
    )
  }
  const c = g.density
  let sum = 0
  for (let k = 0; k < 3; k++) {
    const t = GAUSS_AT[k]!
    const u = u0 + (u1 - u0) * t
    const density = c[0]! + u * (c[1]! + u * (c[2]! + u * (c[3]! + u * c[4]!)))
    sum += GAUSS_WEIGHT[k]! * density * (f0 + (f1 - f0) * t + 4 * bend * t * (1 - t))
  }
  return sum * (u1 - u0)
}

/** A quantity in the pieces of every row that weigh something, as a rough distribution. */
function roughly(p: BorePosterior, of: (row: Row, a: number) => number): Rough {
  const out: Rough = { at: [], weight: [] }
  for (const [j, n] of p.nodes.entries()) {
    if (p.weight[j]! < 2e-3) continue
    let before = 0
    for (let k = 0; k < n.row.pieces; k++) {
      const share = shareAtEnd(n.row, k)
      if (share - before > 0.05) {
        out.at.push(of(n.row, (pieceStart(n.row, k) + pieceEnd(n.row, k)) / 2))
        out.weight.push(p.weight[j]! * (share - before))
      }
      before = share
    }
  }
  return out
}

/** Distribution of the bore in mm once `wearKg` (0 to 1e6) have gone through. */
export function boreAt(p: BorePosterior, wearKg: number): Spread {
  need('wearKg', wearKg, ...WEAR_KG, 'kg')
  const s = wearKg - p.pivotKg
  const sliding = p.law === 'sliding'
  const mm = (v: number) => (sliding ? Math.cbrt(Math.max(0, v)) : Math.max(0, v))
  let low = Infinity
  let high = -Infinity
  for (const [j, { row }] of p.nodes.entries()) {
    if (Math.abs(p.weight[j]!) < 1e-9) continue
    low = Math.min(low, mm(rowLow(row) + row.rate * s))
    high = Math.max(high, mm(rowHigh(row) + row.rate * s))
  }
  const share = (d: number) => (d <= 0 ? 0 : chanceBelow(p, wearKg, sliding ? d ** 3 : d))
  return new Crossings(
    share,
    low,
    high,
    roughly(p, (row, a) => mm(a + row.rate * s)),
  )
}

/** Chance that the bore is past `limitMm` after some wear mass, kg; and roughly where it rises. */
export function pastLimit(p: BorePosterior, limitMm: number): Life {
  need('limitMm', limitMm, ...BORE_MM, 'mm')
  const v = p.law === 'sliding' ? limitMm ** 3 : limitMm
  return {
    chance: kg => 1 - chanceBelow(p, kg, v),
    rough: roughly(p, (row, a) => p.pivotKg + (v - a) / row.rate),
  }
}

/** Distribution of ln κ, κ in mm per kg at a 0.4 mm bore. */
export function lnKappa(p: BorePosterior): Spread {
  const { nodes, gaps } = p
  const upTo = [0]
  for (const g of gaps) upTo.push(upTo[upTo.length - 1]! + g.mass)
  const share = (x: number) => {
    const j = nodes.findIndex(n => n.row.x >= x) - 1
    if (j < 0) return x <= nodes[0]!.row.x ? 0 : 1
    const g = gaps[j]!
    const u = (x - g.a.x) / (g.b.x - g.a.x)
    const c = g.density
    return Math.min(1, upTo[j]! + u * (c[0]! + u * (c[1]! / 2 + u * (c[2]! / 3 + u * (c[3]! / 4 + (u * c[4]!) / 5)))))
  }
  const rough = { at: nodes.map(n => n.row.x), weight: Array.from(p.weight) }
  return new Crossings(share, nodes[0]!.row.x, nodes[nodes.length - 1]!.row.x, rough)
}
