/** Every filament of the starting table on every demo printer: the answer a careful technician gives. */
import { describe, expect, test } from 'vitest'
import { MATERIALS, PRINTERS } from '../../demo/shop'
import {
  bestClass,
  ceilings,
  checkStack,
  compileFleet,
  dedicate,
  demandOf,
  describedPrinter,
  matrix,
  NO_OFFERS,
  stackProblems,
  startWindow,
  START_RULES,
  type Filament,
  type FittedNozzle,
  type KnownLine,
} from '#core/limits'
import type { Filler } from '#core/wear'
import { nozzle } from './limits-support'

/** What is fitted today, by printer and head. */
const FITTED: Record<string, FittedNozzle[]> = {
  Calder: [nozzle('tungsten carbide', 0.4, { insert: true })],
  Ribble: [nozzle('hardened steel', 0.4)],
  Wharfe: [nozzle('hardened steel', 0.6)],
  Aire: [nozzle('brass', 0.4)],
  Swale: [nozzle('tungsten carbide', 0.6), nozzle('polycrystalline diamond', 0.4, { insert: true })],
  Nidd: [nozzle('plated copper', 0.6)],
}
const printers = PRINTERS.map((p, i) => ({
  ...describedPrinter(p.name, { ...p, kind: p.kind, parts: p.parts as never }, FITTED[p.name]!),
  id: i,
}))
const filaments: Filament[] = MATERIALS.map(m => {
  const w = startWindow(m.polymer, m.filler as Filler)!
  return {
    name: m.name,
    demands: w.sets.map(s =>
      demandOf(
        {
          name: m.name,
          filler: m.filler as Filler,
          ventilation: w.ventilation,
          facts: Object.fromEntries(Object.entries(w.facts).map(([k, f]) => [k, f!.value])),
        },
        s,
      ),
    ),
  }
})
const fleet = compileFleet(printers, NO_OFFERS, START_RULES)
const column = (name: string) => printers.findIndex(p => p.name === name)
const demandsOf = (name: string) => filaments.find(f => f.name === name)!.demands
const shortLines = (printer: string, filament: string, set = 0, head = 0) =>
  checkStack(fleet[column(printer)]![head]!.stack, demandsOf(filament)[set]!, START_RULES).lines.filter(
    (l): l is KnownLine => l.status === 'short',
  )

// r runs, c after changes, x cannot; Calder, Ribble, Wharfe, Aire, Swale, Nidd
const EXPECTED: Record<string, string> = {
  'PLA': 'rrrrrr',
  'PLA-CF15': 'rcccrc',
  'PLA glow': 'rcccrc',
  'PETG': 'rrrrrr',
  'PETG-GF10': 'rrrcrc',
  'PETG-CF10': 'rrrcrc',
  'ABS': 'rrrcrc',
  'ASA': 'rrrcrc',
  'PC': 'rcrcrc',
  'PC-CF10': 'rcrcrc',
  'PA6-CF20': 'rrrcrc',
  'PA12-CF15': 'rrrcrc',
  'PA6-GF25': 'rrrcrc',
  'PPA-CF20': 'rcxxrx',
  'PPS': 'rcccrc',
  'PPS-CF15': 'rcccrc',
  'PEEK': 'rxxxrx',
  'PEEK-CF10': 'rxxxrx',
  'PEEK-GF20': 'rxxxrx',
  'PEI': 'rxxxrx',
  'PPSU': 'rxxxrx',
  'PSU': 'rxxxrx',
  'LCP': 'rxxxrx',
}
test('stacks of the demo can be stored', () => {
  for (const p of PRINTERS) expect(stackProblems(p as never, 23)).toEqual([])
})
test.each(Object.entries(EXPECTED))('%s: %s', (name, expected) => {
  const [row] = matrix([filaments.find(f => f.name === name)!], fleet)
  expect(row!.map(c => ({ 'runs': 'r', 'changes': 'c', 'cannot': 'x', 'cannot tell': '?' })[c.class]).join('')).toBe(
    expected,
  )
})
test('the table covers every material of the demo', () => {
  expect(Object.keys(EXPECTED).sort()).toEqual(MATERIALS.map(m => m.name).sort())
})

describe('what the demo has to show', () => {
  test('a liner stops nylon-CF on an open frame', () => {
    expect(shortLines('Aire', 'PA6-CF20').map(l => [l.part?.role, l.allowed])).toContainEqual(['liner', 230])
  })
  test('a 300-rated sensor stops PPS', () => {
    for (const p of ['Ribble', 'Wharfe', 'Nidd'])
      expect(shortLines(p, 'PPS').map(l => [l.part?.role, l.allowed])).toContainEqual(['sensor', 290])
  })
  test('printed PETG parts limit a bed-heated enclosure at 65', () => {
    const chamber = ceilings(printers[column('Ribble')]!, START_RULES).find(c => c.zone === 'chamber')!
    expect([chamber.limitC, chamber.part!.name]).toEqual([65, 'printed idler, PETG'])
  })
  test('a bed short of polycarbonate under one school but not the other', () => {
    expect(shortLines('Wharfe', 'PC', 0)).toEqual([])
    expect(
      shortLines('Wharfe', 'PC', 1)
        .filter(l => l.key === 'bed')
        .map(l => [l.asked! >= 135, l.part!.role]),
    ).toContainEqual([true, 'bed heater'])
  })
  test('a bend too tight and a dryer too cool for PPA-CF', () => {
    const keys = shortLines('Ribble', 'PPA-CF20').map(l => l.key)
    expect(keys).toEqual(expect.arrayContaining(['bend', 'dryer']))
    expect(shortLines('Ribble', 'PPA-CF20', 1).map(l => l.key)).not.toContain('dryer')
  })
  test('heads of one machine differ', () => {
    expect(shortLines('Swale', 'PEEK-CF10', 0, 0).map(l => l.part?.role)).toContain('firmware')
    expect(bestClass(fleet[column('Swale')]!, demandsOf('PEEK-CF10'))).toMatchObject({ class: 'runs', head: 1 })
  })
})

test('the printer to give to filled filament: least left out, then fewest changes', () => {
  const part = (name: string, kg: number) => ({ filament: filaments.find(f => f.name === name)!, kg })
  const nylon = dedicate([part('PA6-CF20', 9), part('PA12-CF15', 5)], fleet)
  expect(nylon[0]).toMatchObject({ left: 0, found: { swaps: [] } })
  const mixed = dedicate([part('PA6-CF20', 9), part('PEEK-CF10', 3)], fleet)
  expect(['Calder', 'Swale']).toContain(mixed[0]!.printer.name)
  const ribble = mixed.find(d => d.printer.name === 'Ribble')!
  expect(ribble).toMatchObject({ left: 0.25, leftOut: ['PEEK-CF10'] })
  for (const [i, d] of mixed.entries()) if (i > 0) expect(d.left).toBeGreaterThanOrEqual(mixed[i - 1]!.left)
})
