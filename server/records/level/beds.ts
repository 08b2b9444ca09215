/** Beds as they are screwed down, one a printer. */
import { eq } from 'drizzle-orm'
import type { z } from 'zod'
import type { BedRow } from '#shared/answers/level'
import type { bedSchema } from '#shared/entries/level'
import type { Connection } from '../../db/client'
import { beds } from '../../db/schema'
import { refuseField } from '../entry/refusal'
import { nameOfPrinter } from '../printers/printers'

export async function addBed(tx: Connection, b: z.output<typeof bedSchema>, personId: number): Promise<{ id: number }> {
  if ((await nameOfPrinter(tx, b.printerId)) === null) refuseField('printerId', 'This printer is not known')
  if (await bedOf(tx, b.printerId)) refuseField('printerId', 'Its bed is described already: edit it')
  const [row] = await tx
    .insert(beds)
    .values({ ...b, createdBy: personId })
    .returning({ id: beds.id })
  return row!
}

export async function bedOf(db: Connection, printerId: number): Promise<BedRow | null> {
  const [bed] = await db.select().from(beds).where(eq(beds.printerId, printerId))
  if (!bed) return null
  const { createdBy: _by, createdAt: _at, ...row } = bed
  return row
}
