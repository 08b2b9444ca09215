/** Between the stored records and the limits: what was tried, as an entry. */
import { after, type Printer, type Swap } from '#core/limits'
import type { ChangeEntry } from '#shared/entries/printers'

export { askingOf, demandsOf, NO_SET, setsOf } from '#shared/asking'

/**
 * Swaps as an entry for the server: parts off, parts on, nozzles fitted. A nozzle that is still to be bought cannot be
 * fitted, and a dryer belongs to the shop; their words come back so that the person can enter them first.
 */
export function changeOf(
  printer: Printer,
  headId: number,
  swaps: readonly Swap[],
): { entry: Pick<ChangeEntry, 'remove' | 'fit' | 'add' | 'nozzles'>; toReceive: string[]; dryers: string[] } {
  const then = after(printer, headId, swaps)
  const kept = new Set<unknown>(then.parts)
  const remove = printer.parts.filter(p => !kept.has(p)).map(p => p.id as number)
  const here = new Set<unknown>(printer.parts)
  const fit: ChangeEntry['fit'] = [],
    add: ChangeEntry['add'] = []
  for (const p of then.parts) {
    if (here.has(p)) continue
    if (typeof p.id === 'number' && !remove.includes(p.id)) fit.push({ partId: p.id, headId: p.headId })
    else
      add.push({
        kind: p.kind,
        headId: p.headId,
        name: p.name,
        place: p.place,
        limitC: p.limitC,
        shortC: p.shortC,
        basis: p.basis,
        note: p.note,
        details: p.details,
      })
  }
  const wanted = swaps.find(s => s.role === 'nozzle')?.add[0]
  const toReceive = wanted && typeof wanted.id === 'string' ? [wanted.id] : []
  return {
    entry: {
      remove,
      fit,
      add,
      nozzles: wanted && typeof wanted.id === 'number' ? [{ nozzleId: wanted.id, headId }] : [],
    },
    toReceive,
    dryers: then.dryers.filter(d => !printer.dryers.includes(d)).map(d => d.kind),
  }
}
