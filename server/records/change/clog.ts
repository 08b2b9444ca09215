/**
 * What the clearing of a clog is worked out from: the nozzle on a head, what stands in it, and what melts all of that.
 * The same facts for the offer and for the procedure that begins.
 */
import { coldPullC, type ClogFacts } from '#core/procedures'
import type { ClogOffer } from '#shared/answers/change'
import type { Connection } from '../../db/client'
import { factOf } from '../materials/materials'
import { comingWords, headFacts, headFor, placeOf, turningOn, type HeadFor } from './head'
import { swapNozzle } from './shelf'
import { refusalOf } from './swap'
import { underWay } from './under-way'

function factsFor(h: HeadFor, headId: number): ClogFacts | null {
  const { ceilingC, t } = turningOn(h, headId, null)
  const n = h.old
  if (n === null || t.refusal !== null || t.setC === null || ceilingC === null || h.materials.length === 0) return null
  const { place, head, sock, liner, materials, holds } = headFacts(h, headId, n, {
    ceilingC,
    turnC: t.setC,
    holds: h.holds,
  })
  const known = h.holds && { glassC: factOf(h.holds, 'glassC'), meltC: factOf(h.holds, 'meltC') }
  return {
    ...{ place, head, sock, liner, materials, holds },
    nozzle: swapNozzle(n),
    material: n.material,
    boreMm: n.boreMm,
    softC: t.setC,
    pullC: known && coldPullC(known),
  }
}

/** Why it cannot be worked out on this head; null when it can. */
function refusalFor(h: HeadFor, headId: number): ClogOffer['refusal'] {
  const of = refusalOf(h, headId, turningOn(h, headId, null).t)
  if (of !== null || h.old !== null) return of
  return { says: 'No nozzle is on it.', where: `/change/swap?head=${headId}`, action: 'Put one in' }
}

export async function clogFacts(db: Connection, headId: number) {
  const h = await headFor(db, headId)
  return { facts: factsFor(h, headId), refusal: refusalFor(h, headId) }
}

export async function clogOffer(db: Connection, headId: number): Promise<ClogOffer> {
  const h = await headFor(db, headId)
  return {
    headId,
    place: placeOf(h.printer, headId),
    printer: h.printer.name,
    printerId: h.printer.id,
    refusal: refusalFor(h, headId),
    under: (await underWay(db, [h.printer.id]))[0] ?? null,
    coming: comingWords(h),
    facts: factsFor(h, headId),
  }
}
