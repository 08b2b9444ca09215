/** Records that prove a step of a procedure, since it began; an older one proves nothing of what was rebuilt since. */
import { sql } from 'drizzle-orm'
import type { Proof } from '#core/procedures'
import type { Connection } from '../../db/client'
import { shopDay } from '../../db/iso'

/** The latest that counts, in words; null while there is none. */
export async function proofOf(
  db: Connection,
  p: { printerId: number; occurredAt: Date },
  proof: Proof,
  ticks: readonly { step: string; at: string }[],
): Promise<string | null> {
  const begun = proof.since === undefined ? p.occurredAt.toISOString() : ticks.find(t => t.step === proof.since)?.at
  // what it counts since has not been done yet
  if (begun === undefined) return null
  const since = sql`x.printer_id = ${p.printerId} and x.occurred_at >= ${begun}`
  const day = shopDay('x.occurred_at')
  const rows = {
    'cut-out test': sql`select ${day} "on", u.name "by", case when x.tripped then 'tripped' end says
      from standing_cut_out_tests x join people u on u.id = x.person_id
      where ${since} and x.guard = ${proof.guard} order by x.occurred_at desc, x.id desc limit 1`,
    'sensor check': sql`select ${day} "on", u.name "by", 'checked' says
      from standing_sensor_checks x join people u on u.id = x.person_id
      where ${since} and x.head_id = ${proof.headId} order by x.occurred_at desc, x.id desc limit 1`,
    'chamber': sql`select x."on", x."by", x.says from (
      select ${day} "on", u.name "by", 'warm-up recorded' says, x.occurred_at
      from standing_warm_ups x join people u on u.id = x.person_id where ${since}
      union all select ${day}, u.name, 'surveyed', x.occurred_at
      from standing_surveys x join people u on u.id = x.person_id where ${since}
    ) x order by x.occurred_at desc limit 1`,
    // in it now: a nozzle that was logged and came out again is none
    'nozzle': sql`select ${day} "on", u.name "by", n.tag || ' is in it' says
      from nozzle_stands s join nozzles n on n.id = s.nozzle_id
      join standing_fittings x on x.nozzle_id = s.nozzle_id and x.head_id = s.head_id and x.occurred_at = s.since
      join people u on u.id = x.person_id where s.head_id = ${proof.headId} order by x.id desc limit 1`,
    'level': sql`select ${day} "on", u.name "by", 'measured at ' || round(x.bed_c) || ' °C' says
      from standing_levels x join people u on u.id = x.person_id
      where ${since} order by x.occurred_at desc, x.id desc limit 1`,
  }
  const [row] = await db.execute<{ on: string; by: string; says: string | null }>(rows[proof.of])
  return row?.says ? `${row.says}, ${row.on}, ${row.by}` : null
}
