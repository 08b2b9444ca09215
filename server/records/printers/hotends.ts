/**
 * Hotends: which sits where, what is in it, and what moves with it. On a head its parts and its nozzle are those that
 * the logs of parts and nozzles put there; on the shelf each says in which hotend it is.
 */
import type { HotendLine, HotendNow } from '#shared/answers/hotends'
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { HOTEND_ROLES, type FittedNozzle } from '#core/limits'
import type { changeSchema } from '#shared/entries/printers'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso } from '../../db/iso'
import { assemblyEvents, fittings, hotends, partEvents } from '../../db/schema'
import { refuseField } from '../entry/refusal'
import { refreshForecast } from '../nozzles/forecasts'
import { headAt, hotendOnHead, PLACE_OF_HEAD, saveFitting } from './fittings'
import { NOZZLE_JSON, PART_COLUMNS, type PartRow } from './stack-read'

/** The roles of what is inside, as SQL lists them. */
export const ROLES_INSIDE = sql.join(
  HOTEND_ROLES.map(r => sql`${r}`),
  sql`, `,
)
/** Entries of its history that a hotend shows. */
const HISTORY = 40

interface Row extends Record<string, unknown> {
  id: number
  tag: string
  note: string
  version: number
  since: string
  printerId: number | null
  headId: number | null
  words: string | null
}
/** Hotend `t` with its place `l`: on head `h` of printer `p`, or on the shelf. */
const hotendRows = (db: Connection, ids?: readonly number[]) =>
  db.execute<Row>(sql`
    select t.id, t.tag, t.note, t.version, coalesce(${iso('l.occurred_at')}, ${iso('t.created_at')}) since,
      p.id "printerId", h.id "headId", case when h.id is not null then ${PLACE_OF_HEAD} end words
    from hotends t left join hotend_places l on l.hotend_id = t.id
    left join heads h on h.id = l.head_id left join printers p on p.id = h.printer_id
    where ${idIn('t.id', ids)} order by length(t.tag), t.tag`)

interface Inside extends Record<string, unknown> {
  onHead: number | null
  inHotend: number | null
}
/** What sits in these hotends: on the head that one is on, or written down as inside one on the shelf. */
const insideRows = (db: Connection, ids: readonly number[], headIds: readonly number[]) =>
  db.execute<PartRow & Inside>(sql`
    select ${PART_COLUMNS}, case w.kind when 'fit' then w.head_id end "onHead", w.hotend_id "inHotend"
    from part_places w join parts a on a.id = w.part_id join people u on u.id = a.entered_by
    where a.role in (${ROLES_INSIDE})
      and (${idIn('w.hotend_id', ids)} or (w.kind = 'fit' and ${idIn('w.head_id', headIds)})) order by a.id`)

const nozzleInside = (db: Connection, ids: readonly number[], headIds: readonly number[]) =>
  db.execute<{ nozzle: FittedNozzle } & Inside>(sql`
    select ${NOZZLE_JSON} nozzle, h.id "onHead", e.hotend_id "inHotend" from nozzle_stands e
    join nozzles n on n.id = e.nozzle_id join nozzle_types y on y.id = n.type_id
    left join heads h on h.id = e.head_id and e.kind = 'fit'
    where ${idIn('e.hotend_id', ids)} or (e.kind = 'fit' and ${idIn('e.head_id', headIds)})`)

/** Where parts were, the latest first. */
const beenRows = (db: Connection, partIds: readonly number[]) =>
  db.execute<{ partId: number; at: string; words: string }>(sql`
    select e.part_id "partId", ${iso('c.occurred_at')} at, case e.kind when 'fit' then 'on ' || p.name
      when 'scrap' then 'scrapped' else 'on the shelf' || coalesce(' in ' || t.tag, '') end words
    from part_events e join standing_stack_changes c on c.id = e.change_id
    left join printers p on p.id = c.printer_id left join hotends t on t.id = e.hotend_id
    where ${idIn('e.part_id', partIds)} order by c.occurred_at desc, c.id desc`)

type Told = HotendLine['history'][number] & { hotendId: number } & Record<string, unknown>
/** Where hotends went, and what was done to them at the bench. */
const historyRows = (db: Connection, ids: readonly number[]) =>
  db.execute<Told>(sql`
    select x.hotend_id "hotendId", c.id::int "changeId", ${iso('c.occurred_at')} at, v.name person, c.text says,
      c.kind in ('changed', 'bench') strikeable,
      case when c.kind = 'bench' then 'at the bench' when x.kind = 'fit' then 'on ' || ${PLACE_OF_HEAD}
        else 'on the shelf' end what,
      (select json_build_object('reason', k.reason, 'person', kw.name) from strikes k
        join people kw on kw.id = k.person_id where k.target = 'stack change' and k.target_id = c.id) struck
    from assembly_events x join stack_changes c on c.id = x.change_id join people v on v.id = c.person_id
    left join heads h on h.id = x.head_id left join printers p on p.id = h.printer_id
    where ${idIn('x.hotend_id', ids)} order by c.occurred_at desc, c.id desc`)

/** Hotends that a procedure under way is to put on a printer. */
const takenRows = (db: Connection) =>
  db.execute<{ hotendId: number; id: number; title: string }>(sql`
    select (q.facts->'fresh'->>'id')::int "hotendId", q.id::int, q.title from standing_procedures q
    where q.outcome is null and q.kind = 'hotend'`)

/** All hotends, or those asked for, by their tags, as they stand. */
export async function hotendsNow(db: Connection, ids?: readonly number[]): Promise<HotendNow[]> {
  const rows = await hotendRows(db, ids)
  if (rows.length === 0) return []
  const found = rows.map(r => r.id)
  const heads = rows.flatMap(r => r.headId ?? [])
  const [parts, nozzles, taken] = await Promise.all([
    insideRows(db, found, heads),
    nozzleInside(db, found, heads),
    takenRows(db),
  ])
  return rows.map(({ printerId, headId, words, ...row }) => {
    const isIn = (x: Inside) => x.inHotend === row.id || (headId !== null && x.onHead === headId)
    const promised = taken.find(t => t.hotendId === row.id)
    return {
      ...row,
      place: printerId === null || headId === null ? null : { printerId, headId, words: words! },
      parts: parts.filter(isIn).map(({ onHead: _, inHotend: __, ...part }) => part),
      nozzle: nozzles.find(isIn)?.nozzle ?? null,
      taken: promised ? { id: promised.id, title: promised.title } : null,
    }
  })
}

/** The same with where they and all inside them were. */
export async function listHotends(db: Connection, ids?: readonly number[]): Promise<HotendLine[]> {
  const now = await hotendsNow(db, ids)
  const [been, history] = await Promise.all([
    beenRows(
      db,
      now.flatMap(h => h.parts.map(p => p.id)),
    ),
    historyRows(
      db,
      now.map(h => h.id),
    ),
  ])
  return now.map(h => ({
    ...h,
    parts: h.parts.map(part => ({
      ...part,
      been: been.filter(b => b.partId === part.id).map(({ at, words }) => ({ at, words })),
    })),
    history: history
      .filter(x => x.hotendId === h.id)
      .slice(0, HISTORY)
      .map(({ hotendId: _, ...x }) => x),
  }))
}

/** Tags, and the head that each sits on. */
export const hotendTags = (db: Connection) =>
  db.execute<{ id: number; tag: string; headId: number | null }>(sql`
    select t.id, t.tag, l.head_id "headId" from hotends t left join hotend_places l on l.hotend_id = t.id
    order by length(t.tag), t.tag`)

/** A new record under the next free tag. Whoever comes second waits, and gets the one after. */
export async function newHotend(tx: Connection, personId: number, tag: string | null = null, note = '') {
  await tx.execute(sql`lock table hotends in share row exclusive mode`)
  const [free] = await tx.execute<{ tag: string }>(sql`
    select 'H-' || lpad(n::text, greatest(2, length(n::text)), '0') tag from (
      select coalesce(max(substring(tag from '^[Hh]-0*([0-9]{1,6})$')::int), 0) + 1 n from hotends) x`)
  const [row] = await tx
    .insert(hotends)
    .values({ tag: tag ?? free!.tag, note, createdBy: personId })
    .returning({ id: hotends.id, tag: hotends.tag })
  return row!
}

/** Whoever describes a printer describes what sits on its heads: each gets a hotend of its own. */
export async function tagHeads(tx: Connection, changeId: number, headIds: readonly number[], personId: number) {
  for (const headId of headIds) {
    const { id: hotendId } = await newHotend(tx, personId)
    await tx.insert(assemblyEvents).values({ changeId, hotendId, kind: 'fit', headId })
  }
}

interface Move {
  changeId: number
  printerId: number
  occurredAt: Date
  personId: number
  confirmed: string[]
}

/** What a change does to the hotends of a printer: off with all that is in them, on with all that is in them. */
export async function moveHotends(
  tx: Connection,
  asked: z.output<typeof changeSchema>['hotends'],
  m: Move,
): Promise<void> {
  for (const [i, { headId, hotendId }] of asked.entries()) {
    const field = `hotends.${i}.hotendId`
    if (asked.findIndex(o => o.headId === headId) !== i) refuseField(`hotends.${i}.headId`, 'This head is named twice')
    const here = await hotendOnHead(tx, headId)
    if (here === null && hotendId === null) refuseField(field, 'No hotend is on this head')
    const ids = [here?.id, hotendId].filter(id => id != null)
    await tx.execute(sql`select id from hotends where ${idIn('id', ids)} order by id for no key update`)
    const lines = await listHotends(tx, ids)
    const off = lines.find(l => l.id === here?.id)
    const on = lines.find(l => l.id === hotendId)
    if (hotendId !== null && !on) refuseField(field, 'This hotend is not known')
    if (on && on.place !== null)
      refuseField(
        field,
        on.place.headId === headId
          ? `${on.tag} is on it already`
          : `${on.tag} is on ${on.place.words}: take it off there first`,
      )
    await refuseBefore(tx, m.occurredAt, headId, [off, on])
    if (off) await takeOff(tx, off, headId, m)
    if (on) await putOn(tx, on, headId, m)
  }
}

/** Neither it nor anything inside it is moved before it came there. */
export function refuseEarlier(l: HotendLine, at: Date): void {
  const came = [l.since, ...l.parts.flatMap(p => p.been[0]?.at ?? [])].map(t => ({ t, ms: Date.parse(t) }))
  const last = came.reduce((a, b) => (b.ms > a.ms ? b : a))
  if (last.ms > at.getTime()) refuseField('occurredAt', `${l.tag} was changed at ${last.t}; enter a later time`)
}

/** Nothing is moved before it came, nor before what was logged of its head since. */
async function refuseBefore(
  tx: Connection,
  at: Date,
  headId: number,
  lines: (HotendLine | undefined)[],
): Promise<void> {
  for (const l of lines) if (l) refuseEarlier(l, at)
  const [later] = await tx.execute<{ tag: string; at: string }>(sql`
    select n.tag, ${iso('f.occurred_at')} "at" from standing_fittings f join nozzles n on n.id = f.nozzle_id
    where (f.head_id = ${headId} or f.hotend_id in (${lines[1]?.id ?? 0}, ${lines[0]?.id ?? 0}))
      and f.occurred_at > ${at.toISOString()} order by f.occurred_at desc limit 1`)
  if (later) refuseField('occurredAt', `${later.tag} was moved there at ${later.at}; enter a later time`)
}

async function takeOff(tx: Connection, off: HotendLine, headId: number, m: Move): Promise<void> {
  await tx.insert(assemblyEvents).values({ changeId: m.changeId, hotendId: off.id, kind: 'shelve' })
  for (const p of off.parts)
    await tx.insert(partEvents).values({ changeId: m.changeId, partId: p.id, kind: 'shelve', hotendId: off.id })
  const nozzle = await headAt(tx, headId, m.occurredAt)
  if (nozzle === null) return
  await tx.insert(fittings).values({
    kind: 'remove',
    nozzleId: nozzle.nozzleId,
    headId,
    hotendId: off.id,
    changeId: m.changeId,
    reason: `came off in ${off.tag}`,
    occurredAt: m.occurredAt,
    personId: m.personId,
  })
  await refreshForecast(tx, nozzle.nozzleId)
}

async function putOn(tx: Connection, on: HotendLine, headId: number, m: Move): Promise<void> {
  await tx.insert(assemblyEvents).values({ changeId: m.changeId, hotendId: on.id, kind: 'fit', headId })
  for (const p of on.parts)
    await tx.insert(partEvents).values({ changeId: m.changeId, partId: p.id, kind: 'fit', headId })
  if (on.nozzle === null) return
  await saveFitting(
    tx,
    {
      kind: 'fit',
      nozzleId: on.nozzle.id as number,
      headId,
      reason: `came with ${on.tag}`,
      occurredAt: m.occurredAt.toISOString(),
      confirmed: [...m.confirmed, 'in-hotend'],
    },
    m.personId,
    m.changeId,
  )
}

/** A hotend by its id, locked while something inside it is changed. */
export async function lockedHotend(tx: Connection, id: number): Promise<HotendLine | null> {
  const [row] = await tx.select().from(hotends).where(eq(hotends.id, id)).for('no key update')
  return row ? (await listHotends(tx, [id]))[0]! : null
}
