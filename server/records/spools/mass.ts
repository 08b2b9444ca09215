/** What says how much is on a spool, for `spoolMass` of the core, and what a weight is asked about. */
import { sql } from 'drizzle-orm'
import { heaviestSpool, spoolMass, type SpoolMassFacts } from '#core/materials'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { notFound, refuseField } from '../entry/refusal'

/** All that says what is on a spool: its label, empty weight, every weighing, every run. Times in ms. */
export const MASS_OF_SPOOL = sql`json_build_object('netG', s.net_g, 'tareG', s.tare_g,
    'weighings', coalesce((select json_agg(json_build_object('at', extract(epoch from w.at) * 1000, 'grossG', w.g)
      order by w.at) from (
        select e.occurred_at at, e.gross_g g from standing_spool_events e where e.spool_id = s.id and e.kind = 'weighed'
        union all select d.occurred_at, d.gross_g from standing_dryings d
        where d.spool_id = s.id and d.gross_g is not null
        union all select d.ended_at, d.after_g from standing_dryings d
        where d.spool_id = s.id and d.after_g is not null and d.ended_at is not null
        union all select t.ended_at - interval '1 millisecond', t.before_g from standing_run_tools t
        where t.spool_id = s.id and t.before_g is not null
        union all select t.ended_at, t.after_g from standing_run_tools t
        where t.spool_id = s.id and t.after_g is not null) w), '[]'),
    'uses', coalesce((select json_agg(json_build_object('at', extract(epoch from t.ended_at) * 1000,
      'g', t.extruded_g)) from standing_run_tools t where t.spool_id = s.id), '[]'))`

export async function massOfSpool(db: Connection, spoolId: number): Promise<{ tag: string; mass: SpoolMassFacts }> {
  const [row] = await db.execute<{ tag: string; mass: SpoolMassFacts }>(
    sql`select s.tag, ${MASS_OF_SPOOL} mass from spools s where s.id = ${spoolId}`,
  )
  if (!row) notFound('This spool')
  return row
}

/** Refuses a weight below that of the empty spool. */
export function notBelowEmpty({ tareG }: SpoolMassFacts, grossG: number, field: string): void {
  if (tareG !== null && grossG < tareG) refuseField(field, `Less than the empty spool (${tareG} g)`)
}

/** Refuses a weight below that of the empty spool; asks about one that is heavier than the spool can be. */
export function doubtsOfWeight(
  { tag, mass }: { tag: string; mass: SpoolMassFacts },
  grossG: number,
  at: Date,
  field = 'grossG',
): Question[] {
  notBelowEmpty(mass, grossG, field)
  const most = heaviestSpool(mass, at.getTime())
  if (most === null || grossG <= most.grossG) return []
  const used = Math.round(most.usedG)
  const label =
    used > 0 ? `its label, its empty weight and the ${used} g that runs took` : 'its label and its empty weight'
  const rests =
    most.since === null
      ? `By ${label} it weighs ${Math.round(most.grossG)} g at the most`
      : `It weighed ${most.since.grossG} g before${used > 0 ? `, and runs took ${used} g since` : ''}`
  return [
    {
      code: `too-heavy:${tag}`,
      field,
      message: `${rests}: ${grossG} g is more. Is it ${tag} that was weighed?`,
    },
  ]
}

/** `doubtsOfWeight` of a spool that is read for it; none where nobody gave a weight. */
export async function weighed(db: Connection, spoolId: number, grossG: number | null, at: Date): Promise<Question[]> {
  return grossG === null ? [] : doubtsOfWeight(await massOfSpool(db, spoolId), grossG, at)
}

/** How far sums of weights may differ, g. */
const ROUNDING_G = 0.5
/**
 * Why a run can hardly have taken so much, or null. Where the spool was weighed since, it is what was on it then that
 * counts; else all that is logged of it.
 */
export function doubtOfUse(
  { tag, mass }: { tag: string; mass: SpoolMassFacts },
  usedG: number,
  at: Date,
): string | null {
  const isWeighedSince = mass.weighings.some(w => w.at > at.getTime())
  const leftG = isWeighedSince ? spoolMass(mass, at.getTime()).g : spoolMass(mass).g
  if (usedG <= leftG + ROUNDING_G) return null
  const there = `${Math.max(0, leftG).toFixed(0)} g ${isWeighedSince ? 'that was on' : 'left on'} ${tag}`
  return `${usedG.toFixed(0)} g is more than the ${there}. Is that right?`
}
