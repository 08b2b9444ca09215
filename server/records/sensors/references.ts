/** What the shop holds against its sensors. */
import { asc, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { ReferenceLine } from '#shared/answers/sensors'
import type { referenceFields } from '#shared/entries/sensors'
import type { Connection } from '../../db/client'
import { referenceProbes } from '../../db/schema'
import { unused } from '../entry/unused'

export async function addReference(
  tx: Connection,
  r: z.output<typeof referenceFields>,
  personId: number,
): Promise<{ id: number }> {
  await unused(tx, referenceProbes, 'name', r.name, 'a reference')
  const [row] = await tx
    .insert(referenceProbes)
    .values({ ...r, createdBy: personId })
    .returning({ id: referenceProbes.id })
  return row!
}

/** All of them with how many checks they made, those in use first. */
export async function listReferences(db: Connection): Promise<ReferenceLine[]> {
  const rows = await db.select().from(referenceProbes).orderBy(asc(referenceProbes.withdrawn), asc(referenceProbes.id))
  const counts = await db.execute<{ id: number; n: number }>(
    sql`select reference_id id, count(*)::int n from standing_sensor_checks group by reference_id`,
  )
  return rows.map(({ createdBy: _by, createdAt: _at, ...r }) => ({
    ...r,
    checks: counts.find(c => c.id === r.id)?.n ?? 0,
  }))
}
