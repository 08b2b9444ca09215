/**
 * What the clearing of a clog is worked out from: the nozzle on a head, what stands in it, and what melts all of that.
 * The same facts for the offer and for the procedure that begins.
 */
import { coldPullC, type ClogFacts } from '#core/procedures'
import type { ClogOffer } from '#shared/answers/change'
import type { Connection } from '../../db/client'
import { factOf } from '../materials/materials'
import { headFacts, headFor, offeredOn, turningOn, type HeadFor } from './head'
import { swapNozzle } from './shelf'
import { refusalOf } from './swap'

type Refusal = NonNullable<ClogOffer['refusal']>
/** What it is worked out from; where it cannot be, why not. */
type Worked = { facts: ClogFacts; refusal: null } | { facts: null; refusal: Refusal }

function workedOn(h: HeadFor, headId: number): Worked {
  const { ceilingC, t } = turningOn(h, headId, null)
  const refuse = (refusal: Refusal): Worked => ({ facts: null, refusal })
  const refusal = refusalOf(h, headId, t)
  if (refusal !== null) return refuse(refusal)
  const n = h.old
  if (n === null)
    return refuse({ says: 'No nozzle is on it.', where: `/change/swap?head=${headId}`, action: 'Put one in' })
  // nothing is refused, so both are known
  const softC = t.setC!
  const { place, head, sock, liner, materials, holds } = headFacts(h, headId, n, {
    ceilingC: ceilingC!,
    turnC: softC,
    holds: h.holds,
  })
  const known = h.holds && { glassC: factOf(h.holds, 'glassC'), meltC: factOf(h.holds, 'meltC') }
  const facts = {
    ...{ place, head, sock, liner, materials, holds, softC },
    nozzle: swapNozzle(n),
    material: n.material,
    boreMm: n.boreMm,
    pullC: known && coldPullC(known),
  }
  return { facts, refusal: null }
}

export const clogFacts = async (db: Connection, headId: number): Promise<Worked> =>
  workedOn(await headFor(db, headId), headId)

export async function clogOffer(db: Connection, headId: number): Promise<ClogOffer> {
  const h = await headFor(db, headId)
  return { ...(await offeredOn(db, h, headId)), ...workedOn(h, headId) }
}
