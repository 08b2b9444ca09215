/** The shop's own settings: name, zone, accepted risk, guard bands, prices. */
import type { Connection } from '../../db/client'
import { settings } from '../../db/schema'

export async function shopSettings(db: Connection) {
  return (await db.select().from(settings))[0]!
}
