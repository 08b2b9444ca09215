/** What says how much is on a spool, for `spoolMass` of the core. */
import { sql } from 'drizzle-orm'

/** All that says what is on a spool: its label, empty weight, every weighing, every run. Times in ms. */
export const MASS_OF_SPOOL = sql`json_build_object('netG', s.net_g, 'tareG', s.tare_g,
    'weighings', coalesce((select json_agg(json_build_object('at', extract(epoch from w.at) * 1000, 'grossG', w.g)
      order by w.at) from (
        select e.occurred_at at, e.gross_g g from standing_spool_events e where e.spool_id = s.id and e.kind = 'weighed'
        union all select d.occurred_at, d.gross_g from standing_dryings d
        where d.spool_id = s.id and d.gross_g is not null
        union all select d.ended_at, d.after_g from standing_dryings d
        where d.spool_id = s.id and d.after_g is not null and d.ended_at is not null) w), '[]'),
    'uses', coalesce((select json_agg(json_build_object('at', extract(epoch from t.ended_at) * 1000,
      'g', t.extruded_g)) from standing_run_tools t where t.spool_id = s.id), '[]'))`
