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
import { markMethod, refreshForecast } from '../nozzles/forecasts'
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
  if (s.target === 'fitting') await askAboutRuns(tx, s)
  if (s.target === 'procedure tick') await refuseTickThatOthersRestOn(tx, s.targetId)
  if (s.target === 'procedure') await refuseProcedureWithTicks(tx, s.targetId)
  if (s.target === 'stack change') await refuseWhatLaterChangesRest(tx, s.targetId)
  const [saved] = await tx
    .insert(strikes)
    .values({ target: s.target, targetId: s.targetId, reason: s.reason.trim(), personId })
    .returning({ id: strikes.id })
  const touched = !logOf(s.target).ofNozzle
    ? []
    : await tx.execute<{ id: number; tag: string }>(
        s.target === 'run'
          ? sql`select distinct n.id, n.tag from run_tools t join nozzles n on n.id = t.nozzle_id
            where t.run_id = ${s.targetId} order by n.id`
          : sql`select n.id, n.tag from ${sql.identifier(LOGS[s.target].table)} e
            join nozzles n on n.id = e.nozzle_id where e.id = ${s.targetId}`,
      )
  for (const n of touched) await refreshForecast(tx, n.id)
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
  'stack change': id => sql`select printer_id id from stack_changes where id = ${id}`,
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

/** Runs logged while this fitting held rely on it; they are listed before it goes. */
async function askAboutRuns(tx: Connection, s: z.output<typeof strikeSchema>): Promise<void> {
  const runs = await tx.execute<{ id: number; name: string; at: string }>(sql`
    select r.id, r.name, ${iso('r.ended_at')} "at" from fittings f
    join standing_run_tools t on t.nozzle_id = f.nozzle_id and t.head_id = f.head_id and t.ended_at >= f.occurred_at
      and t.ended_at < coalesce((select min(o.occurred_at) from standing_fittings o where o.head_id = f.head_id
      and o.id <> f.id and o.occurred_at > f.occurred_at), 'infinity')
    join runs r on r.id = t.run_id
    where f.id = ${s.targetId} and f.kind = 'fit' order by r.ended_at limit 50`)
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
  const [later] = await tx.execute<{ text: string }>(sql`
    select o.text from part_events e join part_events x on x.part_id = e.part_id and x.change_id <> e.change_id
    join standing_stack_changes o on o.id = x.change_id join stack_changes c on c.id = e.change_id
    where e.change_id = ${changeId} and (o.occurred_at, o.id) > (c.occurred_at, c.id) limit 1`)
  if (later) refuseField('targetId', `Its parts were moved again since (“${later.text}”): strike that out first`)
}
