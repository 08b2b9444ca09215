/** What is put off now, by its key. */
import { sql } from 'drizzle-orm'
import type { DueItem } from '#shared/answers/due'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'

type Snoozed = NonNullable<DueItem['snoozed']>

export async function standingSnoozes(db: Connection): Promise<Map<string, Snoozed>> {
  const rows = await db.execute<Snoozed & { key: string } & Record<string, unknown>>(sql`
    select distinct on (s.key) s.key, s.id::int, ${iso('s.until')} until, s.reason, u.name "by"
    from standing_snoozes s join people u on u.id = s.person_id
    where s.until > now() order by s.key, s.id desc`)
  return new Map(rows.map(({ key, ...s }) => [key, s]))
}
