/**
 * Questions over the whole floor: matrix, what no swap cures, which printer to dedicate, what a change breaks
 * elsewhere.
 */
import { describe, expect, test } from 'vitest'
import {
  bestClass,
  blockersOf,
  byDedication,
  classify,
  compile,
  compileFleet,
  consequencesOf,
  dedicate,
  findChanges,
  matrix,
  NO_OFFERS,
  START_RULES,
  START_WINDOWS,
  STARTING_STACKS,
  type Dedication,
  type Filament,
  type Printer,
  type Swap,
} from '#core/limits'
import { asks, asksAll, nozzle, printer } from './limits-support'

const R = START_RULES
const filament = (polymer: string, filler: 'none' | 'carbon fibre' = 'none'): Filament => ({
  name: polymer,
  demands: asksAll(polymer, filler),
})
const printers: Printer[] = STARTING_STACKS.map((s, i) => ({
  ...printer(s.key, nozzle(i === 2 ? 'tungsten carbide' : 'brass', 0.4)),
  id: i,
  name: s.key,
}))
const fleet = compileFleet(printers, NO_OFFERS, R)

describe('matrix', () => {
  test('a cell is the best class over heads and practices, and points at them', () => {
    const rows = START_WINDOWS.map(w => filament(w.polymer, w.filled ? 'carbon fibre' : 'none'))
    const cells = matrix(rows, fleet)
    expect(cells).toHaveLength(rows.length)
    for (const [i, row] of cells.entries())
      for (const [p, cell] of row.entries()) {
        expect(cell).toEqual(bestClass(fleet[p]!, rows[i]!.demands))
        expect(classify(fleet[p]![cell.head]!, rows[i]!.demands[cell.demand]!)).toBe(cell.class)
      }
  })
  test('two heads: the one that runs it counts', () => {
    const hot = printers[2]!
    const both = {
      ...hot,
      heads: [
        { id: 0, name: 'cold', nozzle: nozzle('brass', 0.4) },
        { id: 1, name: 'hot', nozzle: nozzle('tungsten carbide', 0.4, { headId: 1 }) },
      ],
      parts: [
        ...hot.parts,
        ...hot.parts.filter(p => p.headId === 0).map(p => ({ ...p, id: `x${String(p.id)}`, headId: 1 })),
      ],
    }
    expect(
      bestClass(
        both.heads.map(h => compile(both, h.id, NO_OFFERS, R)),
        [asks('PEEK', 'carbon fibre')],
      ),
    ).toMatchObject({ class: 'just', head: 1 })
  })
})

describe('what no swap cures', () => {
  test('is empty exactly when something can be done, whatever the pair', () => {
    for (const w of START_WINDOWS)
      for (const heads of fleet)
        for (const d of asksAll(w.polymer, w.filled ? 'carbon fibre' : 'none')) {
          expect(blockersOf(heads[0]!, d).length === 0, `${w.polymer} on ${heads[0]!.printer.name}`).toBe(
            findChanges(heads[0]!, [d]) !== null,
          )
        }
  })
  test('names the chamber on an open frame, not the swaps that would be possible', () => {
    expect(blockersOf(fleet[0]![0]!, asks('PEEK')).map(l => l.key)).toEqual(['chamber'])
  })
})

describe('dedication', () => {
  const part = (f: Filament, kg: number) => ({ filament: f, kg })
  test('an empty mix leaves nothing out and asks for nothing', () => {
    for (const d of dedicate([], fleet)) expect(d).toMatchObject({ left: 0, leftOut: [], found: null })
  })
  test('by share left out, then changes, then cost; shares by mass', () => {
    const ranked = dedicate(
      [part(filament('PA6', 'carbon fibre'), 3), part(filament('PEEK', 'carbon fibre'), 1)],
      fleet,
    )
    expect(ranked[0]!.printer.name).toBe('hot machine')
    expect(ranked[0]!.left).toBe(0)
    // a box could be rebuilt for PEEK, an open frame never
    expect(ranked.map(d => [d.printer.name, d.left])).toEqual([
      ['hot machine', 0],
      ['bed-heated enclosure', 0],
      ['open frame', 0.25],
    ])
    expect(ranked[1]!.found!.swaps.length).toBeGreaterThan(8)
    expect([...ranked].sort(byDedication)).toEqual(ranked)
    const fake = (left: number, swaps: number, cost: number) =>
      ({ left, found: { swaps: Array.from({ length: swaps }), cost } }) as unknown as Dedication
    expect(
      [fake(0, 3, 1), fake(0, 2, 9), fake(0.5, 0, 0), fake(0, 2, 5)].sort(byDedication).map(d => d.found!.cost),
    ).toEqual([5, 9, 1, 0])
  })
  test('what is fitted for all of the mix lets each part of it run', () => {
    const mix = [part(filament('PA6', 'carbon fibre'), 1), part(filament('PETG', 'carbon fibre'), 1)]
    const best = dedicate(mix, [fleet[0]!])[0]!
    const swaps = best.found!.swaps
    expect(
      consequencesOf(
        printers[0]!,
        0,
        swaps,
        asks('PLA'),
        mix.map(m => m.filament),
        R,
      ).worse,
    ).toEqual([])
  })
})

describe('what a change breaks elsewhere', () => {
  test('an enclosure around an open frame warms it, and what hates warmth is told', () => {
    const kit = compile(printers[0]!, 0, NO_OFFERS, R).air.find(a => a.swap)!.swap!
    const c = consequencesOf(printers[0]!, 0, [kit], asks('ABS'), [filament('ABS')], R)
    expect(c.airLow[0]).toBe(R.roomC)
    expect(c.airLow[1]!).toBeCloseTo(23 + 0.5 * 77, 9)
    expect(c.airHigh[1]!).toBeLessThan(c.airLow[1]!)
    expect(c.worse).toEqual([])
    // with nothing described inside, what could be cured before cannot be told any more
    const bare = {
      ...printers[0]!,
      parts: printers[0]!.parts.filter(
        p => !['printed parts', 'belts', 'motors', 'fans', 'bearings', 'electronics'].includes(p.role),
      ),
    }
    expect(findChanges(compile(bare, 0, NO_OFFERS, R), [asks('PC')])!.unknown).toBe(true)
    // its liner is a known no, whatever else is missing
    expect(classify(compile(bare, 0, NO_OFFERS, R), asks('PC'))).toBe('changes')
  })
  test('no swap, no consequence', () => {
    expect(
      consequencesOf(printers[1]!, 0, [] as Swap[], asks('PLA'), [filament('PLA'), filament('PC')], R),
    ).toMatchObject({ worse: [] })
  })
})
