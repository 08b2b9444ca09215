/** The shop's own settings: name, zone, accepted risk, guard bands, prices. */
import type { Settings } from '#shared/answers/shop'
import type { Connection } from '../../db/client'
import { settings } from '../../db/schema'

export async function shopSettings(db: Connection): Promise<Settings> {
  const [s] = await db.select().from(settings)
  const dryBoxReadAt = s!.dryBoxReadAt === null ? null : new Date(s!.dryBoxReadAt).toISOString()
  return { ...s!, demoAnchor: s!.demoAnchor?.toISOString() ?? null, dryBoxReadAt }
}
