/** Private addresses under which calendars read what is due: what their secret hashes to, and whether they hold. */
import { createHash } from 'node:crypto'
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { Feed } from '#shared/answers/due'
import type { feedSchema } from '#shared/entries/due'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { calendarFeeds } from '../../db/schema'
import { notFound, Refusal, refuseField } from '../entry/refusal'

export async function listFeeds(db: Connection): Promise<Feed[]> {
  return await db.execute<Feed & Record<string, unknown>>(sql`
    select f.id, f.name, f.revoked, f.version, u.name "by", ${iso('f.created_at')} at
    from calendar_feeds f join people u on u.id = f.created_by order by f.revoked, f.id`)
}

export async function addFeed(
  tx: Connection,
  { confirmed: _, ...f }: z.output<typeof feedSchema>,
  personId: number,
): Promise<{ id: number }> {
  const [there] = await tx.select().from(calendarFeeds).where(eq(calendarFeeds.tokenSha256, f.tokenSha256))
  if (there) refuseField('tokenSha256', 'This address is given already: make another')
  const [row] = await tx
    .insert(calendarFeeds)
    .values({ ...f, createdBy: personId })
    .returning({ id: calendarFeeds.id })
  return row!
}

/** Refuses an address that nobody gave, and says so of one that was taken back. */
export async function needFeed(db: Connection, token: string): Promise<void> {
  const tokenSha256 = createHash('sha256').update(token).digest('hex')
  const [feed] = await db.select().from(calendarFeeds).where(eq(calendarFeeds.tokenSha256, tokenSha256))
  if (!feed) notFound('This calendar')
  if (feed.revoked)
    throw new Refusal({
      type: 'about:blank',
      status: 410,
      title: 'This calendar address was revoked: ask for a new one',
    })
}
