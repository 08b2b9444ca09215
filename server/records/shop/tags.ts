/** Every tag there ever was, for whoever types one that the shop no longer tells of. */
import { sql } from 'drizzle-orm'
import type { KnownTags } from '#shared/answers/shop'
import type { Connection } from '../../db/client'

export async function knownTags(db: Connection): Promise<KnownTags> {
  const [row] = await db.execute<{ nozzles: string[]; spools: string[]; pins: string[] }>(sql`
    select array(select tag from nozzles order by id) nozzles, array(select tag from spools order by id) spools,
      array(select mark from pins order by id) pins`)
  return { nozzles: row!.nozzles, spools: row!.spools, pins: row!.pins }
}
