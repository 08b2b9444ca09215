/** The shop's own lines of the check before a run. */
import { asc, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { checkLineSchema } from '#shared/entries/prepare'
import type { Connection } from '../../db/client'
import { checkLines } from '../../db/schema'

export async function addCheckLine(
  tx: Connection,
  l: z.output<typeof checkLineSchema>,
  personId: number,
): Promise<{ id: number }> {
  const [row] = await tx
    .insert(checkLines)
    .values({ ...l, createdBy: personId })
    .returning({ id: checkLines.id })
  return row!
}
export async function listCheckLines(db: Connection) {
  return await db.select().from(checkLines).orderBy(asc(checkLines.id))
}

/** Those that count for this printer and this filament, in words. */
export async function checkLinesFor(db: Connection, printerId: number, materialId: number): Promise<string[]> {
  const rows = await db.execute<{ says: string }>(sql`
    select says from check_lines where not withdrawn and (printer_id is null or printer_id = ${printerId})
    and (material_id is null or material_id = ${materialId}) order by id`)
  return rows.map(r => r.says)
}
