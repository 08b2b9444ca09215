/** The monotone fit of a flow bench against an exhaustive solution, and pool-adjacent violators by hand. */
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { monotoneTable, poolAdjacent, type Measured } from '#core/flow'

/**
 * The fit by the max-min formula over all upper and lower sets, every one of them tried (Robertson, Wright & Dykstra,
 * Order Restricted Statistical Inference, 1988, theorem 1.4.4): exact, and slow.
 */
function exhaustive(rows: readonly (readonly (Measured | null)[])[]): (number | null)[][] {
  const cells = rows.flatMap((row, r) => row.flatMap((m, c) => (m ? [{ r, c, ...m }] : [])))
  const over = (a: { r: number; c: number }, b: { r: number; c: number }) => a.r >= b.r && a.c <= b.c
  const sets: number[][] = []
  for (let bits = 0; bits < 2 ** cells.length; bits++) {
    const has = cells.map((_, i) => (bits & (1 << i)) !== 0)
    if (cells.every((a, i) => !has[i] || cells.every((b, j) => has[j] || !over(b, a))))
      sets.push(cells.flatMap((_, i) => (has[i] ? [i] : [])))
  }
  const mean = (list: number[]) => {
    const w = list.reduce((t, i) => t + cells[i]!.weight, 0)
    return list.reduce((t, i) => t + cells[i]!.weight * cells[i]!.value, 0) / w
  }
  const out = rows.map(row => row.map((): number | null => null))
  cells.forEach((cell, i) => {
    let best = -Infinity
    for (const upper of sets.filter(u => u.includes(i))) {
      let least = Infinity
      // lower sets are complements of upper ones
      for (const not of sets.filter(u => !u.includes(i))) {
        const both = upper.filter(k => !not.includes(k))
        if (both.length > 0) least = Math.min(least, mean(both))
      }
      best = Math.max(best, least)
    }
    out[cell.r]![cell.c] = best
  })
  return out
}

test('the monotone fit is the exhaustive one, holes included', () => {
  const cell = fc.option(
    fc.record({
      value: fc.double({ min: 0.5, max: 1.05, noNaN: true }),
      weight: fc.double({ min: 1, max: 100, noNaN: true }),
    }),
    { freq: 6, nil: null },
  )
  const table = fc
    .tuple(fc.integer({ min: 1, max: 3 }), fc.integer({ min: 2, max: 4 }))
    .chain(([r, c]) => fc.array(fc.array(cell, { minLength: c, maxLength: c }), { minLength: r, maxLength: r }))
    .filter(rows => rows.flat().filter(Boolean).length <= 10)
  fc.assert(
    fc.property(table, rows => {
      const fit = monotoneTable(rows)
      const exact = exhaustive(rows)
      fit.forEach((row, r) =>
        row.forEach((v, c) => {
          if (v === null) expect(exact[r]![c]).toBeNull()
          else expect(v).toBeCloseTo(exact[r]![c]!, 7)
        }),
      )
    }),
    { numRuns: 150, seed: 11 },
  )
})

test('pool-adjacent violators by hand', () => {
  // Barlow et al. 1972, ch. 1: blocks are replaced by their weighted means; worked by hand
  expect(poolAdjacent([1, 2, 6, 2, 2], [1, 1, 1, 1, 2])).toEqual([1, 2, 3, 3, 3])
  expect(poolAdjacent([3, 2, 1], [1, 1, 2])).toEqual([1.75, 1.75, 1.75])
})
