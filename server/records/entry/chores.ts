/**
 * What is done once a day, by whichever process comes first: readings of printers and the words of old answers are let
 * go after 90 days. What a record rests on stays, and so do the keys: an entry that is sent again still counts once.
 */
import { sql } from 'drizzle-orm'
import type { Database } from '../../db/client'

export const KEPT_DAYS = 90

/** Answers what was let go; null when it was done today already. */
export async function dailyChores(db: Database): Promise<{ readings: number; answers: number } | null> {
  return await db.transaction(async tx => {
    const [claim] = await tx.execute<{ mine: boolean }>(sql`select claim_chore('retention', current_date) mine`)
    if (!claim!.mine) return null
    const old = sql`now() - ${KEPT_DAYS} * interval '1 day'`
    // a warm-up was fitted to the readings of its soak: they can be looked at as long as it stands there
    const readings = await tx.execute(sql`
      delete from readings r where r.at < ${old} and not exists (
        select from warm_ups w join soaks k on k.printer_id = w.printer_id
        left join endings e on e.target = 'soak' and e.target_id = k.id
        where w.source = 'live readings' and w.printer_id = r.printer_id
          and w.occurred_at between k.occurred_at and coalesce(e.occurred_at, k.occurred_at) + interval '1 day'
          and r.at between k.occurred_at - interval '1 minute'
            and coalesce(e.occurred_at, k.occurred_at + interval '1 day') + interval '1 minute')`)
    const answers = await tx.execute(
      sql`update answers set answer = null where answer is not null and recorded_at < ${old}`,
    )
    return { readings: readings.count, answers: answers.count }
  })
}
