/** Stacks, nozzles and filaments for the tests of the limits. */
import {
  demandOf,
  describedPrinter,
  partOf,
  startWindow,
  STARTING_STACKS,
  type Demand,
  type DescribedPart,
  type FittedNozzle,
  type Printer,
} from '#core/limits'
import type { Filler, NozzleMaterial } from '#core/wear'

export const nozzle = (material: NozzleMaterial, boreMm = 0.6, more: Partial<FittedNozzle> = {}): FittedNozzle => ({
  id: 900,
  tag: 'N-900',
  material,
  boreMm,
  insert: false,
  lengthMm: 12.5,
  headId: 0,
  price: 0,
  ...more,
})

/** A starting stack with some kinds changed for others, and values of some parts. */
export function printer(
  key: string,
  n: FittedNozzle | null = nozzle('hardened steel'),
  swap: Record<string, string | null> = {},
  set: Record<string, Partial<DescribedPart>> = {},
): Printer {
  const s = STARTING_STACKS.find(x => x.key === key)!
  // what the tests take for the shop's dryer beside each
  const dryer = { 'open frame': 'filament dryer, 55', 'hot machine': 'drying oven, 160' }[key] ?? 'filament dryer, 70'
  const kind = swap[dryer] === null ? null : (swap[dryer] ?? dryer)
  const parts = s.parts
    .filter(p => swap[p.kind] !== null)
    .map(p => ({ ...p, kind: swap[p.kind] ?? p.kind }))
    .map(p => ({ ...p, ...set[p.kind] }))
  return describedPrinter('P', { ...s, parts }, [n], kind === null ? [] : [partOf(kind, 'dryer')])
}

/** Demand of a starting window under one of its practice sets. */
export function asks(polymer: string, filler: Filler = 'none', set = 0, more: Partial<Demand> = {}): Demand {
  const w = startWindow(polymer, filler)!
  const facts = Object.fromEntries(Object.entries(w.facts).map(([k, f]) => [k, f!.value]))
  return { ...demandOf({ name: polymer, polymer, filler, ventilation: w.ventilation, facts }, w.sets[set]!), ...more }
}
export const asksAll = (polymer: string, filler: Filler = 'none') =>
  startWindow(polymer, filler)!.sets.map((_, i) => asks(polymer, filler, i))
