/** Striking out: the entry stays readable, and every total leaves it out. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { strikeSchema } from '../../shared/entries'
import type { Connection } from '../db/client'
import { strikes } from '../db/schema'
import { refreshForecast } from './forecasts'
import { ask, notFound, refuseField } from './refusal'

const TABLE = { 'run': 'runs', 'gauge': 'gauges', 'fitting': 'fittings', 'spool event': 'spool_events' } as const

export async function saveStrike(tx: Connection, s: z.output<typeof strikeSchema>, personId: number): Promise<{ id: number, nozzles: string[] }> {
  const [entry] = await tx.execute(sql`select id from ${sql.identifier(TABLE[s.target])} where id = ${s.targetId}`)
  if (!entry) notFound(`This ${s.target}`)
  const [before] = await tx.execute(sql`select id from strikes where target = ${s.target} and target_id = ${s.targetId}`)
  if (before) refuseField('targetId', 'This entry is struck out already')
  if (s.target === 'fitting') await askAboutRuns(tx, s)
  const [saved] = await tx.insert(strikes).values({ target: s.target, targetId: s.targetId, reason: s.reason.trim(), personId }).returning({ id: strikes.id })
  const touched = s.target === 'spool event' ? [] : await tx.execute<{ id: number, tag: string }>(
    s.target === 'run'
      ? sql`select distinct n.id, n.tag from run_tools t join nozzles n on n.id = t.nozzle_id where t.run_id = ${s.targetId} order by n.id`
      : sql`select n.id, n.tag from ${sql.identifier(TABLE[s.target])} e join nozzles n on n.id = e.nozzle_id where e.id = ${s.targetId}`)
  for (const n of touched) await refreshForecast(tx, n.id)
  return { id: saved!.id, nozzles: touched.map(n => n.tag) }
}

/** Runs logged while this fitting held rely on it; they are listed before it goes. */
async function askAboutRuns(tx: Connection, s: z.output<typeof strikeSchema>): Promise<void> {
  const runs = await tx.execute<{ id: number, name: string, day: string }>(sql`
    select r.id, r.name, to_char(r.ended_at, 'YYYY-MM-DD HH24:MI') "day" from fittings f
    join standing_run_tools t on t.nozzle_id = f.nozzle_id and t.head_id = f.head_id and t.ended_at >= f.occurred_at
      and t.ended_at < coalesce((select min(o.occurred_at) from standing_fittings o where o.head_id = f.head_id and o.id <> f.id and o.occurred_at > f.occurred_at), 'infinity')
    join runs r on r.id = t.run_id
    where f.id = ${s.targetId} and f.kind = 'fit' order by r.ended_at limit 50`)
  if (runs.length > 0) ask([{
    code: 'runs-rely', field: 'targetId',
    message: `${runs.length === 50 ? '50 or more' : runs.length} ${runs.length === 1 ? 'run relies' : 'runs rely'} on this fitting and keep their nozzle. Strike it out all the same?`,
    items: runs.map(r => `${r.day} ${r.name}`),
  }], s.confirmed)
}
