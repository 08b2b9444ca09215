/**
 * The least-squares fit to a table that never rises along a row (with flow) and never falls down a column (with
 * temperature): pool-adjacent violators along rows and columns in turn, by Dykstra's corrections, which converge to the
 * fit under both orders at once.
 * Source: Dykstra & Robertson, An algorithm for isotonic regression for two or more independent variables, Ann.
 * Statist. 10 (1982) 708–716; pool-adjacent violators: Barlow, Bartholomew, Bremner & Brunk, Statistical Inference
 * under Order Restrictions (1972), ch. 1.
 */
import { InputError, need } from '../numeric'

/** Cells along one side of a table. */
export const TABLE_SIDE = [1, 50] as const
/** Any share and any weight: a share's weight is 1/u². */
const ANY_VALUE = [-1e6, 1e6] as const
const WEIGHT = [1e-12, 1e15] as const

/**
 * The nondecreasing sequence nearest to the values by weighted squares.
 *
 * @example
 * poolAdjacent([1, 3, 2], [1, 1, 1]).join(' ') // "1 2.5 2.5"
 */
export function poolAdjacent(values: readonly number[], weights: readonly number[]): number[] {
  if (values.length !== weights.length)
    throw new InputError('weights', weights.length, `one for each of ${values.length}`)
  const blocks: { value: number; weight: number; count: number }[] = []
  for (const [i, value] of values.entries()) {
    need('values', value, ...ANY_VALUE)
    need('weights', weights[i]!, ...WEIGHT)
    let b = { value, weight: weights[i]!, count: 1 }
    for (let last = blocks.at(-1); last && last.value > b.value; last = blocks.at(-1)) {
      blocks.pop()
      const weight = last.weight + b.weight
      b = { value: (last.value * last.weight + b.value * b.weight) / weight, weight, count: last.count + b.count }
    }
    blocks.push(b)
  }
  return blocks.flatMap(b => Array<number>(b.count).fill(b.value))
}

/** A cell of a table; null where nothing was measured. */
export interface Measured {
  value: number
  weight: number
}

/**
 * The fit to a table: `rows` from the coolest to the hottest, cells in each from the slowest to the fastest, null where
 * nothing stands. Same shape, null where nothing stands. Throws InputError.
 */
export function monotoneTable(rows: readonly (readonly (Measured | null)[])[]): (number | null)[][] {
  need('rows', rows.length, ...TABLE_SIDE)
  const columns = rows[0]!.length
  need('columns', columns, ...TABLE_SIDE)
  const cells: { r: number; c: number; value: number; weight: number }[] = []
  for (const [r, row] of rows.entries()) {
    if (row.length !== columns) throw new InputError('rows', row.length, `${columns} cells in every row`)
    for (const [c, m] of row.entries()) if (m) cells.push({ r, c, ...m })
  }
  const fit = project(cells, chainsOf(cells))
  const out = rows.map(row => row.map((): number | null => null))
  cells.forEach((cell, i) => {
    out[cell.r]![cell.c] = fit[i]!
  })
  return out
}

type Place = { r: number; c: number }
/** May not be above the other: cooler, or faster, or both. */
const under = (a: Place, b: Place) => a.r <= b.r && a.c >= b.c && (a.r !== b.r || a.c !== b.c)

/**
 * Sequences of cells that may not fall: each row from fast to slow, each column from cool to hot, and pairs that only a
 * corner where nothing stands would join.
 */
function chainsOf(cells: readonly Place[]): number[][] {
  const index = cells.map((_, i) => i)
  const rows = [...new Set(cells.map(c => c.r))].map(r =>
    index.filter(i => cells[i]!.r === r).sort((a, b) => cells[b]!.c - cells[a]!.c),
  )
  const columns = [...new Set(cells.map(c => c.c))].map(c =>
    index.filter(i => cells[i]!.c === c).sort((a, b) => cells[a]!.r - cells[b]!.r),
  )
  const stands = (r: number, c: number) => cells.some(x => x.r === r && x.c === c)
  const pairs = index.flatMap(i =>
    index
      .filter(j => {
        const [a, b] = [cells[i]!, cells[j]!]
        return under(a, b) && a.r !== b.r && a.c !== b.c && !stands(a.r, b.c) && !stands(b.r, a.c)
      })
      .map(j => [i, j]),
  )
  return [...rows, ...columns, ...pairs].filter(chain => chain.length > 1)
}

/** Rounds at most; a table of a bench settles in a few dozen. */
const MOST_ROUNDS = 20_000
const SETTLED = 1e-13

/** Dykstra's alternating projections: each chain keeps what it moved last and gives it back before it moves again. */
function project(cells: readonly { value: number; weight: number }[], chains: readonly number[][]): number[] {
  const fit = cells.map(c => c.value)
  const moved = chains.map(chain => chain.map(() => 0))
  for (let round = 0; round < MOST_ROUNDS; round++) {
    let change = 0
    for (const [k, chain] of chains.entries()) {
      const from = chain.map((i, p) => fit[i]! - moved[k]![p]!)
      const to = poolAdjacent(
        from,
        chain.map(i => cells[i]!.weight),
      )
      chain.forEach((i, p) => {
        moved[k]![p] = to[p]! - from[p]!
        change = Math.max(change, Math.abs(to[p]! - fit[i]!))
        fit[i] = to[p]!
      })
    }
    if (change < SETTLED) break
  }
  return fit
}
