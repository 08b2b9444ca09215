/** A blob as the stand-in balance is told of it: what should have come out, how hot, how fast, by which head. */
import { sql } from 'drizzle-orm'
import { massG } from '#core/materials'
import type { Connection } from '../../db/client'
import { notFound } from '../entry/refusal'

export async function blobOnPan(db: Connection, benchId: number, line: number): Promise<string> {
  if (line < 0) return 'B 0'
  const [b] = await db.execute<{
    printer: string
    length_mm: number
    diameter_mm: number
    density: number
    at: [number, number, number] | null
  }>(sql`select p.name printer, b.length_mm, b.diameter_mm, b.density_g_cm3 density, b.lines -> ${line}::int "at"
    from flow_benches b join heads h on h.id = b.head_id join printers p on p.id = h.printer_id
    where b.id = ${benchId}`)
  if (!b?.at) notFound('This blob')
  const [temperatureC, flowMm3S] = b.at
  return `B ${massG(b.length_mm, b.diameter_mm, b.density).toFixed(4)} ${temperatureC} ${flowMm3S} ${b.printer}`
}
