/** Everything that is worked out from the log of a shop, worked out afresh: equal where the logs are. */
import { sql } from 'drizzle-orm'
import type { Database } from '../../server/db/client'
import { refreshMissing, refreshStale } from '../../server/records/nozzles/forecasts'

/** Every forecast, worked out afresh from what is stored. */
export async function afresh(of: Database) {
  // what each tells its sisters first, so that all of them rest on all of it
  while ((await refreshMissing(of)) > 0);
  await of.execute(sql`update forecasts set stale = true, moved = null`)
  while ((await refreshStale(of)) > 0);
  return [
    ...(await of.execute(sql`
      select nozzle_id, basis, wear_kg::text, left_kg::text, left_low_kg::text, left_high_kg::text, next_gauge_kg::text,
      past_chance::text, detail, life, sister_term::text from forecasts order by nozzle_id`)),
    ...(await of.execute(sql`select material, sisters, sum::text from sister_sums order by material`)),
  ]
}
