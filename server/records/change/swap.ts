/**
 * What a swap is worked out from: the head as it stands, what went through, what comes next, and the nozzles on the
 * shelf. The same facts for the offer, for the procedure that begins, and to see whether they still hold.
 */
import type { turning } from '#core/changeover'
import { rankNozzles, type SwapFacts } from '#core/procedures'
import type { SwapOffer } from '#shared/answers/change'
import type { Connection } from '../../db/client'
import { comingTo, headFacts, headFor, nothingDescribed, offeredOn, turningOn, type HeadFor } from './head'
import { hotendInPlaceOf } from './hotend'
import { candidate, fitted, likeliest, swapNozzle, type NozzleRow } from './shelf'

/** Facts of a swap to this nozzle; null where the old one may not be turned with it. */
function factsFor(h: HeadFor, headId: number, n: NozzleRow): SwapFacts | null {
  const { ceilingC, t } = turningOn(h, headId, fitted(n, headId))
  if (h.hotend === null || t.refusal !== null || t.setC === null || ceilingC === null || h.materials.length === 0)
    return null
  return {
    ...headFacts(h, headId, n, { ceilingC, turnC: t.setC, holds: h.holds }),
    old: h.old && swapNozzle(h.old),
    fresh: swapNozzle(n),
    turn: { setC: t.setC, material: t.material },
  }
}

/** Facts of a swap on a head to a nozzle of the shelf, as they are now; null where it may not be, with why not. */
export async function swapFacts(
  db: Connection,
  headId: number,
  nozzleId: number,
): Promise<{ facts: SwapFacts | null; refusal: SwapOffer['refusal'] }> {
  const h = await headFor(db, headId)
  const n = h.shelf.find(x => x.id === nozzleId)
  return { facts: n ? factsFor(h, headId, n) : null, refusal: refusalOf(h, headId, turningOn(h, headId, null).t) }
}

/** Where what keeps a nozzle from being turned is put right. */
export function refusalOf(h: HeadFor, headId: number, t: ReturnType<typeof turning>): SwapOffer['refusal'] {
  const nothing = nothingDescribed(h)
  if (nothing) return nothing
  if (h.hotend === null)
    return { says: 'No hotend is on it.', where: `/change/hotend?head=${headId}`, action: 'Put one on' }
  if (t.refusal === null) return null
  if (t.setC === null) {
    const of = h.through.find(m => m.name === t.material)
    const where = `/equip/materials${of ? `?m=${of.id}` : ''}`
    return { says: t.refusal, where, action: 'Enter its swap temperature' }
  }
  return { says: t.refusal, where: `/change/hotend?head=${headId}`, action: 'Change the whole hotend' }
}

export async function swapOffer(db: Connection, headId: number): Promise<SwapOffer> {
  const h = await headFor(db, headId)
  const { printer } = h
  const coming = comingTo(h, headId)
  const boreMm = h.old?.boreMm ?? null
  const shelf = likeliest(h.shelf, headId, boreMm)
  const candidates = shelf.map(n => candidate(n, headId))
  const ranked = rankNozzles(printer, headId, boreMm, candidates, coming, h.rules)
  const { t } = turningOn(h, headId, null)
  const refusal = refusalOf(h, headId, t)
  return {
    ...(await offeredOn(db, h, headId)),
    old: h.old && swapNozzle(h.old),
    refusal,
    // an exchange takes longer than a nozzle alone: it is asked for only where that will not do
    hotend: refusal !== null || !ranked.some(c => c.good) ? await hotendInPlaceOf(db, h, headId) : null,
    choices: ranked.map(c => ({
      ...c,
      facts: factsFor(
        h,
        headId,
        shelf.find(n => n.id === c.nozzle.id)!,
      ),
    })),
  }
}
