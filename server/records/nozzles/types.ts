/** Nozzle types. */
import { asc } from 'drizzle-orm'
import type { z } from 'zod'
import type { nozzleTypeSchema } from '#shared/entries/nozzles'
import type { Connection } from '../../db/client'
import { nozzleTypes } from '../../db/schema'
import { unused } from '../entry/unused'

export async function addNozzleType(
  tx: Connection,
  t: z.output<typeof nozzleTypeSchema>,
  personId: number,
): Promise<{ id: number }> {
  await unused(tx, nozzleTypes, 'name', t.name, 'a nozzle type')
  const [row] = await tx
    .insert(nozzleTypes)
    .values({ ...t, createdBy: personId })
    .returning({ id: nozzleTypes.id })
  return row!
}

export async function listNozzleTypes(db: Connection) {
  return await db.select().from(nozzleTypes).orderBy(asc(nozzleTypes.name))
}
