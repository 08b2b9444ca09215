/** Upkeep of the demo: the usual, done now and then; some of it is due, a filter needs work, a cut-out is overdue. */
import { mulberry32 } from '#core/numeric'
import { upkeepPlanSchema, upkeepSchema } from '#shared/entries/upkeep'
import { sql } from 'drizzle-orm'
import type { Connection } from '../server/db/client'
import { planUsual } from '../server/records/upkeep/tasks'
import { saveUpkeep } from '../server/records/upkeep/upkeep'

interface Shop {
  printers: Map<string, number>
  /** A time so many days before the anchor. */
  daysAgo: (days: number, hour: number) => string
  technician: number
  night: number
}
/** How long ago each was done last, days: the least, and up to how much more. */
const AGO: Record<string, readonly [number, number]> = {
  'belts': [20, 120],
  'rods and screws': [10, 60],
  'fans': [15, 90],
  'filters': [10, 50],
  'gears': [30, 80],
  'wiring strain': [20, 120],
  'smoke detector test': [8, 16],
}
/** Those that are over, by printer and kind: days ago. */
const OVER: Record<string, number> = { 'Calder belts': 200, 'Nidd smoke detector test': 41, 'Aire fans': 260 }

export async function addUpkeep(tx: Connection, shop: Shop): Promise<void> {
  const random = mulberry32(1947)
  for (const [printer, printerId] of shop.printers) {
    await planUsual(tx, upkeepPlanSchema.parse({ printerId }), shop.technician)
    const tasks = await tx.execute<{ id: number; kind: string }>(
      sql`select id, kind from upkeep_tasks where printer_id = ${printerId} and guard is null order by id`,
    )
    for (const { id: taskId, kind } of tasks) {
      const [least, more] = AGO[kind]!
      const days = OVER[`${printer} ${kind}`] ?? least + random() * more
      const fine = random() < 0.7 ? 'in order' : 'put right'
      const bad = printer === 'Ribble' && kind === 'filters'
      await saveUpkeep(
        tx,
        upkeepSchema.parse({
          taskId,
          found: bad ? 'needs work' : fine,
          says: bad ? 'the carbon is spent, none on the shelf' : '',
          occurredAt: shop.daysAgo(days, 15),
        }),
        random() < 0.6 ? shop.technician : shop.night,
      )
    }
  }
}
