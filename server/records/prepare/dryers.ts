/** What dries and anneals here: dryers, ovens, a bed under a cover. */
import type { DryerRow } from '#shared/answers/prepare'
import { asc, eq } from 'drizzle-orm'
import type { z } from 'zod'
import type { dryerSchema } from '#shared/entries/prepare'
import type { Connection } from '../../db/client'
import { dryers } from '../../db/schema'
import { refuseField } from '../entry/refusal'
import { unused } from '../entry/unused'

export async function addDryer(
  tx: Connection,
  d: z.output<typeof dryerSchema>,
  personId: number,
): Promise<{ id: number }> {
  await unused(tx, dryers, 'name', d.name, 'a dryer')
  const [row] = await tx
    .insert(dryers)
    .values({ ...d, createdBy: personId })
    .returning({ id: dryers.id })
  return row!
}
export async function listDryers(db: Connection) {
  return await db.select().from(dryers).orderBy(asc(dryers.id))
}

export async function dryerOf(tx: Connection, id: number): Promise<DryerRow> {
  const [dryer] = await tx.select().from(dryers).where(eq(dryers.id, id))
  if (!dryer || dryer.withdrawn) refuseField('dryerId', 'This dryer is not known')
  return dryer
}
