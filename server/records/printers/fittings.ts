/** Which nozzle and which hotend sit on which head; nozzles fitted, removed, retired. */
import { eq, inArray, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { wornOut } from '#core/schedule'
import type { fittingSchema } from '#shared/entries/printers'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { fittings, forecasts, heads, nozzles, nozzleTypes } from '../../db/schema'
import { refreshCeilings } from './ceilings'
import { boreLimitMm } from '../nozzles/history'
import { refreshForecast } from '../nozzles/forecasts'
import { ask, notInFuture, refuseField } from '../entry/refusal'

interface Fitted extends Record<string, unknown> {
  nozzleId: number
  tag: string
  /** When it was fitted. */
  at: string
}

/** The nozzle that sat on a head at a time; null when none did. */
export async function headAt(db: Connection, headId: number, at: Date): Promise<Fitted | null> {
  const [row] = await db.execute<Fitted & { kind: string }>(sql`
    select f.kind, f.nozzle_id "nozzleId", n.tag, ${iso('f.occurred_at')} at
    from standing_fittings f join nozzles n on n.id = f.nozzle_id
    where f.head_id = ${headId} and f.occurred_at <= ${at.toISOString()} order by f.occurred_at desc, f.id desc
    limit 1`)
  return row?.kind === 'fit' ? row : null
}

/** The hotend that sits on a head now. */
export async function hotendOnHead(db: Connection, headId: number): Promise<{ id: number; tag: string } | null> {
  const [row] = await db.execute<{ id: number; tag: string }>(sql`
    select t.id, t.tag from hotend_places l join hotends t on t.id = l.hotend_id
    where l.kind = 'fit' and l.head_id = ${headId}`)
  return row ?? null
}

interface NozzleAt {
  headId: number | null
  retired: boolean
  /** The hotend on the shelf that it is in. */
  hotend: string | null
}
/** The head a nozzle sat on at a time, and whether it had been retired by then. */
export async function nozzleAt(db: Connection, nozzleId: number, at: Date): Promise<NozzleAt> {
  const [row] = await db.execute<{ kind: string; head_id: number | null; hotend: string | null }>(sql`
    select f.kind, f.head_id, t.tag hotend from standing_fittings f left join hotends t on t.id = f.hotend_id
    where f.nozzle_id = ${nozzleId} and f.occurred_at <= ${at.toISOString()}
    order by f.occurred_at desc, f.id desc limit 1`)
  return {
    headId: row?.kind === 'fit' ? row.head_id : null,
    retired: row?.kind === 'retire',
    hotend: row?.hotend ?? null,
  }
}

/** Stores the event and the removals it implies; answers what it displaced. `changeId`: the change that brought it. */
export async function saveFitting(
  tx: Connection,
  f: Omit<z.output<typeof fittingSchema>, 'replaces'>,
  personId: number,
  changeId: number | null = null,
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
  if (f.kind === 'fit') ask(await doubtsOfFitting(tx, nozzle, now, f.headId!, occurredAt), f.confirmed)
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
    if ((await hotendOnHead(tx, f.headId!)) === null) refuseField('headId', 'No hotend is on this head: fit one first')
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
    .values({ kind: f.kind, nozzleId: f.nozzleId, headId, reason: f.reason, occurredAt, personId, changeId })
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

/** What would be asked if it were fitted there then. */
export const askAboutFitting = async (
  tx: Connection,
  nozzle: typeof nozzles.$inferSelect,
  headId: number,
  at: Date,
): Promise<Question[]> => doubtsOfFitting(tx, nozzle, await nozzleAt(tx, nozzle.id, at), headId, at)

/** What is asked before a nozzle is fitted: it is retired, worn out or broken, or sits on another head. */
async function doubtsOfFitting(
  tx: Connection,
  nozzle: typeof nozzles.$inferSelect,
  now: NozzleAt,
  headId: number,
  at: Date,
): Promise<Question[]> {
  const questions: Question[] = []
  const { tag } = nozzle
  if (now.retired)
    questions.push({ code: 'retired', field: 'nozzleId', message: `${tag} is retired. Fit it all the same?` })
  const [type] = await tx.select().from(nozzleTypes).where(eq(nozzleTypes.id, nozzle.typeId))
  const [known] = await tx.select().from(forecasts).where(eq(forecasts.nozzleId, nozzle.id))
  const [gauge] = await tx.execute<{ shape: string[] }>(sql`select shape from standing_gauges
    where nozzle_id = ${nozzle.id} order by occurred_at desc, id desc limit 1`)
  const worn = wornOut({
    limitMm: boreLimitMm(type!),
    pastChance: known?.pastChance ?? 0,
    shape: gauge?.shape ?? [],
  })
  if (worn && !(await ranAfter(tx, nozzle.id, at)))
    questions.push({ code: 'worn-out', field: 'nozzleId', message: `${tag}: ${worn}. Fit it all the same?` })
  if (now.hotend !== null)
    questions.push({
      code: 'in-hotend',
      field: 'nozzleId',
      message: `${tag} is in ${now.hotend} on the shelf, which is left without a nozzle. Take it out there?`,
    })
  if (now.headId !== null && now.headId !== headId) {
    const [head] = await tx.execute<{ place: string }>(sql`select ${PLACE_OF_HEAD} place
      from heads h join printers p on p.id = h.printer_id where h.id = ${now.headId}`)
    questions.push({
      code: 'elsewhere',
      field: 'nozzleId',
      message: `${tag} sits on ${head!.place}, which is left without a nozzle. Take it off there?`,
    })
  }
  return questions
}
/** What is known of a nozzle today says nothing of a fitting before its last runs. */
async function ranAfter(tx: Connection, nozzleId: number, at: Date): Promise<boolean> {
  const [later] = await tx.execute(sql`select run_id from standing_run_tools
    where nozzle_id = ${nozzleId} and ended_at > ${at.toISOString()} limit 1`)
  return later !== undefined
}
/**
 * The last that stands of head `h`, whichever nozzle it is of: fitted, or taken off. A removal that was struck out can
 * leave two nozzles that each say they are on it; the head has one.
 */
export const LAST_ON_HEAD = sql`(select l.kind, l.nozzle_id from standing_fittings l where l.head_id = h.id
  order by l.occurred_at desc, l.id desc limit 1)`
/** Head `h` of printer `p` as people name it: its printer, and its own name where there are several. */
export const PLACE_OF_HEAD = sql`p.name || case when (select count(*) from heads o where o.printer_id = p.id) > 1
  then ' · ' || h.name else '' end`

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
