/** Between the stored records and the limits: what a material asks, and what was tried as an entry. */
import { after, demandOf, VALUE_KEYS, type Asking, type Demand, type PracticeSet, type Printer, type Swap } from '#core/limits'
import type { ChangeEntry } from '#shared/entries'
import type { MaterialRow } from '../server/records/materials'

/** Stands in for a material of which no practice is known: everything it asks is a missing fact. */
export const NO_SET: PracticeSet = {
  name: 'no practice entered', conditions: '', enclosed: false, bedMinC: null, bedMaxC: null, chamber: 'indifferent', chamberMinC: null, chamberMaxC: null,
  dry: true, dryMinC: null, dryMaxC: null, dryHoursMin: null, dryHoursMax: null, surfaces: [], basis: 'practice', note: '',
}

export function askingOf(m: MaterialRow): Asking {
  const facts: Asking['facts'] = {}
  for (const v of m.values) if (VALUE_KEYS.includes(v.key)) facts[v.key] = v.value
  return { name: m.name, filler: m.filler, ventilation: m.ventilation, facts }
}
export const setsOf = (m: MaterialRow): PracticeSet[] => { const s = m.sets.filter(x => !x.withdrawn); return s.length > 0 ? s : [NO_SET] }
export const demandsOf = (m: MaterialRow, diameterMm = 1.75): Demand[] => setsOf(m).map(s => demandOf(askingOf(m), s, diameterMm))

export function money(v: number, currency: string): string { return `${v >= 100 ? Math.round(v) : Number(v.toFixed(v < 10 ? 1 : 0))}${currency ? ` ${currency}` : ''}` }

/**
 * Swaps as an entry for the server: parts off, parts on, nozzles fitted. A nozzle that is still to be bought cannot be
 * fitted; its words come back so that the person can receive it first.
 */
export function changeOf(printer: Printer, headId: number, swaps: readonly Swap[]): { entry: Pick<ChangeEntry, 'remove' | 'fit' | 'add' | 'nozzles'>, toReceive: string[] } {
  const then = after(printer, headId, swaps)
  const kept = new Set<unknown>(then.parts)
  const remove = printer.parts.filter(p => !kept.has(p)).map(p => p.id as number)
  const here = new Set<unknown>(printer.parts)
  const fit: ChangeEntry['fit'] = [], add: ChangeEntry['add'] = []
  for (const p of then.parts) {
    if (here.has(p)) continue
    if (typeof p.id === 'number' && !remove.includes(p.id)) fit.push({ partId: p.id, headId: p.headId })
    else add.push({ kind: p.kind, headId: p.headId, name: p.name, place: p.place, limitC: p.limitC, shortC: p.shortC, basis: p.basis, note: p.note, details: p.details })
  }
  const wanted = swaps.find(s => s.role === 'nozzle')?.add[0]
  const toReceive = wanted && typeof wanted.id === 'string' ? [wanted.id] : []
  return { entry: { remove, fit, add, nozzles: wanted && typeof wanted.id === 'number' ? [{ nozzleId: wanted.id, headId }] : [] }, toReceive }
}
