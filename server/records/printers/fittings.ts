/** Which nozzle sits on which head: fit, remove, retire. */
import { eq, inArray, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { fittingSchema } from '#shared/entries/printers'
import type { Connection } from '../../db/client'
import { fittings, heads, nozzles } from '../../db/schema'
import { refreshCeilings } from './ceilings'
import { refreshForecast } from '../nozzles/forecasts'
import { ask, notInFuture, refuseField } from '../entry/refusal'

interface Fitted extends Record<string, unknown> {
  nozzleId: number
  tag: string
}

/** The nozzle that sat on a head at a time; null when none did. */
export async function headAt(db: Connection, headId: number, at: Date): Promise<Fitted | null> {
  const [row] = await db.execute<{ kind: string; nozzleId: number; tag: string }>(sql`
    select f.kind, f.nozzle_id "nozzleId", n.tag from standing_fittings f join nozzles n on n.id = f.nozzle_id
    where f.head_id = ${headId} and f.occurred_at <= ${at.toISOString()} order by f.occurred_at desc, f.id desc
    limit 1`)
  return row?.kind === 'fit' ? row : null
}

/** The head a nozzle sat on at a time, and whether it had been retired by then. */
async function nozzleAt(
  db: Connection,
  nozzleId: number,
  at: Date,
): Promise<{ headId: number | null; retired: boolean }> {
  const [row] = await db.execute<{ kind: string; head_id: number | null }>(sql`
    select kind, head_id from standing_fittings
    where nozzle_id = ${nozzleId} and occurred_at <= ${at.toISOString()} order by occurred_at desc, id desc limit 1`)
  return { headId: row?.kind === 'fit' ? row.head_id : null, retired: row?.kind === 'retire' }
}

/** Stores the event and the removals it implies; answers what it displaced. */
export async function saveFitting(
  tx: Connection,
  f: z.output<typeof fittingSchema>,
  personId: number,
): Promise<{ id: number; tag: string; removed: string | null }> {
  const occurredAt = notInFuture('occurredAt', f.occurredAt)
  // printer before nozzle before head, the order in which a change of parts takes them too
  if (f.headId !== null)
    await tx.execute(
      sql`select p.id from printers p join heads h on h.printer_id = p.id
        where h.id = ${f.headId} for no key update of p`,
    )
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, f.nozzleId)).for('no key update')
  if (!nozzle) refuseField('nozzleId', 'This nozzle is not known')
  const now = await nozzleAt(tx, f.nozzleId, occurredAt)
  if (now.retired && f.kind === 'fit')
    ask(
      [{ code: 'retired', field: 'nozzleId', message: `${nozzle.tag} is retired. Fit it all the same?` }],
      f.confirmed,
    )
  if (now.retired && f.kind !== 'fit') refuseField('nozzleId', `${nozzle.tag} is retired already`)
  let removed: string | null = null
  const takeOff = async (nozzleId: number, headId: number) => {
    await tx.insert(fittings).values({
      kind: 'remove',
      nozzleId,
      headId,
      occurredAt,
      personId,
      reason: f.kind === 'fit' ? 'another was fitted' : f.reason,
    })
  }
  if (f.kind === 'fit') {
    const [head] = await tx.select().from(heads).where(eq(heads.id, f.headId!)).for('no key update')
    if (!head) refuseField('headId', 'This head is not known')
    if (now.headId === f.headId) refuseField('nozzleId', `${nozzle.tag} is fitted there already`)
    const other = await headAt(tx, f.headId!, occurredAt)
    if (now.headId !== null) await takeOff(f.nozzleId, now.headId)
    if (other) {
      await takeOff(other.nozzleId, f.headId!)
      removed = other.tag
    }
  } else {
    if (f.kind === 'remove' && now.headId === null) refuseField('nozzleId', `${nozzle.tag} is not fitted`)
    if (f.kind === 'retire' && now.headId !== null) await takeOff(f.nozzleId, now.headId)
  }
  const headId = { fit: f.headId, remove: now.headId, retire: null }[f.kind]
  const [saved] = await tx
    .insert(fittings)
    .values({ kind: f.kind, nozzleId: f.nozzleId, headId, reason: f.reason, occurredAt, personId })
    .returning({ id: fittings.id })
  if (f.kind === 'fit') await makeWayForLater(tx, f.nozzleId, f.headId!, occurredAt, personId)
  await refreshForecast(tx, f.nozzleId)
  const touched = [headId, now.headId].filter(h => h !== null)
  if (touched.length > 0)
    await refreshCeilings(
      tx,
      (await tx.select({ id: heads.printerId }).from(heads).where(inArray(heads.id, touched))).map(h => h.id),
    )
  return { id: saved!.id, tag: nozzle.tag, removed }
}

/**
 * A fitting entered late, before another that is logged already on this head or for this nozzle: it came off when that
 * one happened. The removal is put just before it, because of two events at one instant the one entered last counts.
 */
async function makeWayForLater(
  tx: Connection,
  nozzleId: number,
  headId: number,
  at: Date,
  personId: number,
): Promise<void> {
  const [next] = await tx.execute<{ at: string; nozzle_id: number; head_id: number | null }>(sql`
    select occurred_at at, nozzle_id, head_id from standing_fittings
    where occurred_at > ${at.toISOString()} and (nozzle_id = ${nozzleId} or (head_id = ${headId}
    and kind = 'fit')) order by occurred_at, id limit 1`)
  const ownHere = next && next.nozzle_id === nozzleId && next.head_id === headId
  if (!next || ownHere) return
  const occurredAt = new Date(Math.max(at.getTime(), new Date(next.at).getTime() - 1))
  await tx
    .insert(fittings)
    .values({ kind: 'remove', nozzleId, headId, occurredAt, personId, reason: 'another was fitted' })
}
