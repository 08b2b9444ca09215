/** Every filament of the starting table on every demo printer: the answer a careful technician gives. */
import { describe, expect, test } from 'vitest'
import { MATERIALS, PRINTERS } from '../../demo/shop'
import { DRYERS } from '../../demo/prepare'
import {
  bestClass,
  ceilingOf,
  blockersOf,
  ceilings,
  checkStack,
  compileFleet,
  dedicate,
  demandOf,
  describedPrinter,
  furthest,
  shopDryer,
  marginOf,
  NO_OFFERS,
  stackProblems,
  startWindow,
  START_RULES,
  type Filament,
  type FittedNozzle,
  recordSource,
  tightest,
  type AirSource,
  type KnownLine,
  type Line,
} from '#core/limits'
import type { Filler } from '#core/wear'
import { COLUMNS, TECHNICIAN } from '../reference/technician'
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
/** The warm-ups of the demo, as `demo/prepare.ts` records them. */
const record = (finalC: number, bedC: number, chamberSetC: number | null): AirSource[] => {
  const r = recordSource({ place: 'high', opening: 'shut', finalC, bedC, roomC: 23, chamberSetC, from: 'a warm-up' })
  return r ? [r] : []
}
const RECORDS: Record<string, AirSource[]> = { Ribble: record(65.3, 100, null), Calder: record(85.1, 150, 85) }
/** One set for every printer, as Prepare has them. */
const DRIES = DRYERS.map((d, i) => shopDryer({ ...d, id: i, basis: 'nameplate' }, START_RULES.roomC))
const printers = PRINTERS.map((p, i) => ({
  ...describedPrinter(p.name, { ...p, kind: p.kind, parts: p.parts as never }, FITTED[p.name]!, DRIES),
  id: i,
  air: RECORDS[p.name] ?? [],
}))
const filaments: Filament[] = MATERIALS.map(m => {
  const w = startWindow(m.polymer, m.filler as Filler)!
  return {
    name: m.name,
    demands: w.sets.map(s =>
      demandOf(
        {
          name: m.name,
          polymer: m.polymer,
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

test('stacks of the demo can be stored', () => {
  for (const p of PRINTERS) expect(stackProblems(p as never, 23)).toEqual([])
})
/** Roles that decide: of those that are not met, of those that are just met, or the tightest. */
function decides(column: number, name: string): { told: string; roles: string[] } {
  const demands = demandsOf(name)
  const best = bestClass(fleet[column]!, demands)
  const { lines } = checkStack(fleet[column]![best.head]!.stack, demands[best.demand]!, START_RULES)
  // an open frame is decided by the enclosure that is not there
  const roleOf = (l: Line) => l.part?.role ?? (l.code === 'open frame' ? 'enclosure' : l.key)
  const roles = (of: readonly Line[]) => [...new Set(of.map(roleOf))]
  if (best.class === 'cannot')
    return { told: best.class, roles: roles(blockersOf(fleet[column]![best.head]!, demands[best.demand]!)) }
  if (best.class === 'changes') return { told: best.class, roles: roles(lines.filter(l => l.status === 'short')) }
  if (best.class === 'just') return { told: best.class, roles: roles(lines.filter(l => l.status === 'just')) }
  if (best.class === 'cannot tell') return { told: best.class, roles: ['none'] }
  const tight = tightest(lines)
  return { told: best.class, roles: tight ? roles(lines.filter(l => marginOf(l) === tight.margin)) : [] }
}
describe.each(Object.entries(TECHNICIAN))('%s', (name, answers) => {
  test.each(COLUMNS.map((printer, i) => [printer, ...answers[i]!] as const))(
    '%s: %s, by %s (%s)',
    (printer, told, by, why) => {
      const said = decides(column(printer), name)
      expect({ told: said.told, why }).toEqual({ told, why })
      const one = by.split(', ').filter(r => said.roles.includes(r))
      expect({ by: one.length > 0 ? by : said.roles.join(', ') }).toEqual({ by })
    },
  )
})
test('the table covers every material of the demo', () => {
  expect(Object.keys(TECHNICIAN).sort()).toEqual(MATERIALS.map(m => m.name).sort())
})

describe('what the demo has to show', () => {
  test('a liner stops nylon-CF on an open frame', () => {
    expect(shortLines('Aire', 'PA6-CF20').map(l => [l.part?.role, l.allowed])).toContainEqual(['liner', 230])
  })
  test('a 300-rated sensor stops PPS', () => {
    for (const p of ['Ribble', 'Wharfe', 'Nidd'])
      expect(shortLines(p, 'PPS').map(l => [l.part?.role, l.allowed])).toContainEqual(['sensor', 290])
  })
  test('printed PETG near the top stops at 65; fans near the head stop when the top has 63', () => {
    const chamber = ceilings(printers[column('Ribble')]!, START_RULES).filter(c => c.zone === 'chamber')
    expect(chamber.map(c => [Math.round(c.limitC), c.part.name])).toContainEqual([63, 'fans'])
    expect(ceilingOf('chamber', printers[column('Ribble')]!.parts, START_RULES)).toMatchObject({ limitC: 55 })
    const bed = ceilings(printers[column('Ribble')]!, START_RULES).filter(c => c.zone === 'bed')
    expect(bed.map(c => [Math.round(c.limitC), c.part.name])).toEqual([
      [95, 'fans'],
      [99, 'printed idler, PETG'],
    ])
  })
  test('a bed short of polycarbonate under one school but not the other', () => {
    expect(shortLines('Wharfe', 'PC', 0)).toEqual([])
    expect(
      shortLines('Wharfe', 'PC', 1)
        .filter(l => l.key === 'bed')
        .map(l => [l.asked! >= 135, l.part!.role]),
    ).toContainEqual([true, 'bed heater'])
  })
  test('a bend too tight for PPA-CF; the oven that Prepare knows dries it for every printer', () => {
    expect(shortLines('Ribble', 'PPA-CF20').map(l => l.key)).toContain('bend')
    for (const p of PRINTERS) expect(shortLines(p.name, 'PPA-CF20').map(l => l.key)).not.toContain('dryer')
  })
  test('a spool on a bed under a cover gets less than the bed', () => {
    const bed = DRIES.find(d => d.name === "Ribble's bed")!
    expect(bed.details.reachC).toBeCloseTo(23 + 0.75 * (105 - 23), 9)
    expect(furthest(DRIES)!.name).toBe('Oven')
    // an oven that gets hotter than anything is dried at
    const kiln = shopDryer({ id: 9, name: 'kiln', kind: 'oven', ceilingC: 300, basis: 'nameplate', note: '' }, 23)
    expect(kiln.details.reachC).toBe(200)
  })
  test('heads of one machine differ', () => {
    expect(shortLines('Swale', 'PEEK-CF10', 0, 0).map(l => l.part?.role)).toContain('firmware')
    expect(bestClass(fleet[column('Swale')]!, demandsOf('PEEK-CF10'))).toMatchObject({ class: 'just', head: 1 })
  })
})

test('the printer to give to filled filament: least left out, then fewest changes', () => {
  const part = (name: string, kg: number) => ({ filament: filaments.find(f => f.name === name)!, kg })
  const nylon = dedicate([part('PA6-CF20', 9), part('PA12-CF15', 5)], fleet)
  expect(nylon[0]).toMatchObject({ left: 0, found: { swaps: [] } })
  const mixed = dedicate([part('PA6-CF20', 9), part('PEEK-CF10', 3)], fleet)
  expect(['Calder', 'Swale']).toContain(mixed[0]!.printer.name)
  const ribble = mixed.find(d => d.printer.name === 'Ribble')!
  // a rebuild: everything in the heat is changed, so it comes after the machines that were made for it
  expect(ribble.left).toBe(0)
  expect(ribble.found!.swaps.length).toBeGreaterThan(10)
  const nidd = mixed.find(d => d.printer.name === 'Nidd')!
  expect(nidd).toMatchObject({ left: 0.25, leftOut: ['PEEK-CF10'] })
  for (const [i, d] of mixed.entries()) if (i > 0) expect(d.left).toBeGreaterThanOrEqual(mixed[i - 1]!.left)
})
