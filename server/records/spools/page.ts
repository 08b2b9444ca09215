/** One spool: its water through its history, and its log. */
import type { SpoolPage } from '#shared/answers/spools'
import { sql } from 'drizzle-orm'
import { spoolMass } from '#core/materials'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { airAndFactor } from './factor'
import { spoolLogs } from './log'
import { spoolHistoryOf, stateOf } from './moisture'
import { notFound } from '../entry/refusal'

export async function spoolPage(db: Connection, tag: string): Promise<SpoolPage> {
  const [[log], { air, wound }] = await Promise.all([
    spoolLogs(db, sql`lower(s.tag) = lower(${tag})`),
    airAndFactor(db),
  ])
  if (!log) notFound('This spool')
  const now = Date.now()
  const events = await db.execute<SpoolPage['events'][number] & Record<string, unknown>>(sql`
    select e.id::int, e.kind, ${iso('e.occurred_at')} at, e.gross_g "grossG", e.room_c "roomC", e.rh, e.at_c "atC",
    e.hours, e.note, u.name person, (select s.reason from strikes s where s.target = 'spool event'
    and s.target_id = e.id) struck
    from spool_events e join people u on u.id = e.person_id
    where e.spool_id = ${log.id} order by e.occurred_at desc, e.id desc limit 200`)
  const struckDryings = await db.execute<SpoolPage['struckDryings'][number] & Record<string, unknown>>(sql`
    select d.id::int, ${iso('d.occurred_at')} "from", y.name dryer, s.reason from dryings d
    join dryers y on y.id = d.dryer_id join strikes s on s.target = 'drying' and s.target_id = d.id
    where d.spool_id = ${log.id}`)
  return {
    state: stateOf(log, air, wound, now),
    history: spoolHistoryOf(log, air, now),
    dryings: log.dryings,
    leftG: spoolMass(log.mass).g,
    tareG: log.mass.tareG,
    polymer: log.polymer,
    filled: log.fillerFraction > 0,
    limits: {
      dryHighestC: log.facts.dryHighestC ?? null,
      glassC: log.facts.glassC ?? null,
      meltC: log.facts.meltC ?? null,
    },
    events,
    struckDryings,
    air,
    wound,
    at: new Date(now).toISOString(),
  }
}
