/** Striking out: the entry stays readable, and every total leaves it out. */
import { sql, type SQL } from 'drizzle-orm'
import type { z } from 'zod'
import type { StudyMethod } from '#core/study'
import { LOGS, logOf, type StrikeTarget } from '#shared/logs'
import type { strikeSchema } from '#shared/entries/log'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { strikes } from '../../db/schema'
import { refuseProcedureWithTicks, refuseTickThatOthersRestOn } from '../change/ticks'
import { refreshCeilings } from '../printers/ceilings'
import { ROLES_INSIDE } from '../printers/hotends'
import { markMethod, refreshForecast } from '../nozzles/forecasts'
import { markOfCertificate, markPins } from '../pins/pins'
import { ask, notFound, refuseField } from './refusal'

export async function saveStrike(
  tx: Connection,
  s: z.output<typeof strikeSchema>,
  personId: number,
): Promise<{ id: number; nozzles: string[] }> {
  const [entry] = await tx.execute(sql`select id from ${sql.identifier(LOGS[s.target].table)} where id = ${s.targetId}`)
  if (!entry) notFound(`This ${s.target}`)
  const [before] = await tx.execute(
    sql`select id from strikes where target = ${s.target} and target_id = ${s.targetId}`,
  )
  if (before) refuseField('targetId', 'This entry is struck out already')
  if (s.target === 'fitting') {
    await refuseFittingOfAHotend(tx, s.targetId)
    await askAboutRuns(tx, s, sql`f.id = ${s.targetId}`)
  }
  if (s.target === 'procedure tick') await refuseTickThatOthersRestOn(tx, s.targetId)
  if (s.target === 'procedure') await refuseProcedureWithTicks(tx, s.targetId)
  if (s.target === 'stack change') {
    await refuseWhatLaterChangesRest(tx, s.targetId)
    await askAboutRuns(tx, s, sql`f.change_id = ${s.targetId}`)
  }
  const [saved] = await tx
    .insert(strikes)
    .values({ target: s.target, targetId: s.targetId, reason: s.reason.trim(), personId })
    .returning({ id: strikes.id })
  const moved = await strikeWith(tx, s, personId)
  const touched = !logOf(s.target).ofNozzle
    ? moved
    : await tx.execute<{ id: number; tag: string }>(
        s.target === 'run'
          ? sql`select distinct n.id, n.tag from run_tools t join nozzles n on n.id = t.nozzle_id
            where t.run_id = ${s.targetId} order by n.id`
          : sql`select n.id, n.tag from ${sql.identifier(LOGS[s.target].table)} e
            join nozzles n on n.id = e.nozzle_id where e.id = ${s.targetId}`,
      )
  for (const n of touched) await refreshForecast(tx, n.id)
  if (s.target === 'pin certificate') await markPins(tx, [await markOfCertificate(tx, s.targetId)])
  const method = METHOD_RESTS_ON[s.target]
  if (method) {
    const [of] = await tx.execute<{ method: StudyMethod; setup_id: number | null }>(method(s.targetId))
    await markMethod(tx, { method: of!.method, setupId: of!.setup_id })
  }
  const limits = LIMITS_REST_ON[s.target]
  if (limits)
    await refreshCeilings(
      tx,
      (await tx.execute<{ id: number }>(limits(s.targetId))).map(r => r.id),
    )
  return { id: saved!.id, nozzles: touched.map(n => n.tag) }
}

/** Entries that a printer's limits rest on, and whose. */
const LIMITS_REST_ON: Partial<Record<StrikeTarget, (id: number) => SQL>> = {
  'stack change': id => sql`select printer_id id from stack_changes where id = ${id} and printer_id is not null`,
  'fitting': id => sql`select h.printer_id id from fittings f join heads h on h.id = f.head_id where f.id = ${id}`,
  'warm-up': id => sql`select printer_id id from warm_ups where id = ${id}`,
  'sensor check': id => sql`select printer_id id from sensor_checks where id = ${id}`,
  'survey': id => sql`select printer_id id from surveys where id = ${id}`,
}

/** Entries that say how far a method's gauges scatter, and which method. */
const METHOD_RESTS_ON: Partial<Record<StrikeTarget, (id: number) => SQL>> = {
  'study': id => sql`select method, setup_id from studies where id = ${id}`,
  'study reading': id => sql`select s.method, s.setup_id from study_readings r join studies s on s.id = r.study_id
    where r.id = ${id}`,
}

/** The nozzle in a hotend moved with it: it goes back with it, and not by itself. */
async function refuseFittingOfAHotend(tx: Connection, fittingId: number): Promise<void> {
  const [change] = await tx.execute<{ text: string }>(sql`
    select c.text from fittings f join stack_changes c on c.id = f.change_id where f.id = ${fittingId}`)
  if (change) refuseField('targetId', `It moved with its hotend (“${change.text}”): strike that out`)
}

/** What goes with an entry; answers the nozzles that it moved. */
async function strikeWith(
  tx: Connection,
  s: z.output<typeof strikeSchema>,
  personId: number,
): Promise<{ id: number; tag: string }[]> {
  if (s.target === 'stack change') return await strikeFittingsOf(tx, s, personId)
  if (s.target === 'upkeep') await strikeMovesOf(tx, s, personId)
  return s.target === 'import' ? await strikeEntriesOf(tx, s, personId) : []
}

/** What a piece of upkeep took from the shelf is there again. */
async function strikeMovesOf(tx: Connection, s: z.output<typeof strikeSchema>, personId: number): Promise<void> {
  await tx.execute(sql`
    insert into strikes (target, target_id, reason, person_id)
    select 'stock move', m.id, ${s.reason.trim()}, ${personId} from standing_stock_moves m
    where m.upkeep_id = ${s.targetId} order by m.id`)
}

/** All that came in by a table and still stands; what was struck out already keeps its reason. */
async function strikeEntriesOf(
  tx: Connection,
  s: z.output<typeof strikeSchema>,
  personId: number,
): Promise<{ id: number; tag: string }[]> {
  await tx.execute(sql`
    insert into strikes (target, target_id, reason, person_id)
    select r.target, r.target_id, ${s.reason.trim()}, ${personId} from import_rows r
    where r.import_id = ${s.targetId} and not exists (select from strikes k
      where k.target = r.target and k.target_id = r.target_id) order by r.target_id`)
  return await tx.execute<{ id: number; tag: string }>(sql`
    select n.id, n.tag from nozzles n where n.id in (
      select t.nozzle_id from import_rows r join run_tools t on t.run_id = r.target_id
        where r.import_id = ${s.targetId} and r.target = 'run'
      union select g.nozzle_id from import_rows r join gauges g on g.id = r.target_id
        where r.import_id = ${s.targetId} and r.target = 'gauge') order by n.id`)
}

/** With a change of a hotend its nozzle goes back too. */
async function strikeFittingsOf(
  tx: Connection,
  s: z.output<typeof strikeSchema>,
  personId: number,
): Promise<{ id: number; tag: string }[]> {
  const moved = await tx.execute<{ fittingId: number; id: number; tag: string }>(sql`
    select f.id::int "fittingId", n.id, n.tag from standing_fittings f join nozzles n on n.id = f.nozzle_id
    where f.change_id = ${s.targetId} order by f.id`)
  for (const { fittingId } of moved)
    await tx.insert(strikes).values({ target: 'fitting', targetId: fittingId, reason: s.reason.trim(), personId })
  return moved
}

/** Runs logged while these fittings held rely on them; they are listed before they go. */
async function askAboutRuns(tx: Connection, s: z.output<typeof strikeSchema>, which: SQL): Promise<void> {
  const runs = await tx.execute<{ id: number; name: string; at: string }>(sql`
    select r.id, r.name, ${iso('r.ended_at')} "at" from fittings f
    join standing_run_tools t on t.nozzle_id = f.nozzle_id and t.head_id = f.head_id and t.ended_at >= f.occurred_at
      and t.ended_at < coalesce((select min(o.occurred_at) from standing_fittings o where o.head_id = f.head_id
      and o.id <> f.id and o.occurred_at > f.occurred_at), 'infinity')
    join runs r on r.id = t.run_id
    where ${which} and f.kind = 'fit' order by r.ended_at limit 50`)
  if (runs.length > 0)
    ask(
      [
        {
          code: 'runs-rely',
          field: 'targetId',
          message:
            `${runs.length === 50 ? '50 or more' : runs.length} ` +
            `${runs.length === 1 ? 'run relies' : 'runs rely'} on this fitting and keep their nozzle. Strike it ` +
            `out all the same?`,
          items: runs.map(r => `${r.at} ${r.name}`),
        },
      ],
      s.confirmed,
    )
}

/**
 * A printer keeps its first description, and a change whose parts were moved again since is undone from the latest
 * back.
 */
async function refuseWhatLaterChangesRest(tx: Connection, changeId: number): Promise<void> {
  const [change] = await tx.execute<{ kind: string }>(sql`select kind from stack_changes where id = ${changeId}`)
  if (change!.kind === 'described')
    refuseField('targetId', 'This is how the printer was described; correct its parts instead')
  if (change!.kind === 'tagged') refuseField('targetId', 'It tells which hotend is which; nothing was moved')
  await refuseIfHotendMoved(tx, changeId)
  const [later] = await tx.execute<{ text: string }>(sql`
    select o.text from part_events e join part_events x on x.part_id = e.part_id and x.change_id <> e.change_id
    join standing_stack_changes o on o.id = x.change_id join stack_changes c on c.id = e.change_id
    where e.change_id = ${changeId} and (o.occurred_at, o.id) > (c.occurred_at, c.id) limit 1`)
  if (later) refuseField('targetId', `Its parts were moved again since (“${later.text}”): strike that out first`)
}

/**
 * What was changed in a hotend is not undone under another one: neither a move of it, nor a change of parts on a head
 * whose hotend was changed since, nor one whose nozzle was changed since.
 */
async function refuseIfHotendMoved(tx: Connection, changeId: number): Promise<void> {
  const [later] = await tx.execute<{ text: string }>(sql`
    select o.text from stack_changes c join standing_stack_changes o
      on o.kind in ('changed', 'bench') and (o.occurred_at, o.id) > (c.occurred_at, c.id)
    where c.id = ${changeId} and (
      exists (select from assembly_events x join assembly_events y on y.hotend_id = x.hotend_id
        where x.change_id = c.id and y.change_id = o.id)
      or (o.printer_id = c.printer_id and exists (select from assembly_events y where y.change_id = o.id)
        and exists (select from part_events e join parts a on a.id = e.part_id
          where e.change_id = c.id and a.role in (${ROLES_INSIDE})))
      or exists (select from assembly_events x join part_events e on e.head_id = x.head_id
        join parts a on a.id = e.part_id and a.role in (${ROLES_INSIDE})
        where x.change_id = c.id and e.change_id = o.id)
    ) order by o.occurred_at, o.id limit 1`)
  if (later) refuseField('targetId', `Its hotend was changed since (“${later.text}”): strike that out first`)
  const [fitted] = await tx.execute<{ tag: string; at: string }>(sql`
    select n.tag, ${iso('o.occurred_at')} "at" from fittings f join standing_fittings o
      on (o.nozzle_id = f.nozzle_id or o.head_id = f.head_id) and (o.occurred_at, o.id) > (f.occurred_at, f.id)
      and o.change_id is distinct from f.change_id
    join nozzles n on n.id = o.nozzle_id
    where f.change_id = ${changeId} order by o.occurred_at, o.id limit 1`)
  if (fitted)
    refuseField('targetId', `${fitted.tag} was fitted or taken off since (${fitted.at}): strike that out first`)
}
