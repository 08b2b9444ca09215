/** What printers are kept up by: planned one by one, or as is usual. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { guardsOf } from '#core/procedures'
import { usualUpkeep } from '#core/schedule'
import { upkeepTaskFields, type upkeepPlanSchema } from '#shared/entries/upkeep'
import type { Connection } from '../../db/client'
import { upkeepTasks } from '../../db/schema'
import { refuseField } from '../entry/refusal'
import { needItem } from '../stock/items'
import { listStacks } from '../printers/stack-read'

type Task = z.output<typeof upkeepTaskFields>

export async function addUpkeepTask(tx: Connection, t: Task, personId: number): Promise<{ id: number }> {
  const [printer] = await tx.execute(sql`select id from printers where id = ${t.printerId} for no key update`)
  if (!printer) refuseField('printerId', 'This printer is not known')
  await refuseTwice(tx, t)
  if (t.stockItemId !== null) await needItem(tx, t.stockItemId, 'stockItemId')
  const [row] = await tx
    .insert(upkeepTasks)
    .values({ ...t, createdBy: personId })
    .returning({ id: upkeepTasks.id })
  return row!
}

/** One test of each cut-out a printer; otherwise it would be due by two intervals. */
export async function refuseTwice(tx: Connection, t: Task, but: number | null = null): Promise<void> {
  if (t.guard === null || t.withdrawn) return
  const [there] = await tx.execute(sql`select id from upkeep_tasks where printer_id = ${t.printerId}
    and guard = ${t.guard} and not withdrawn and id is distinct from ${but}`)
  if (there) refuseField('guard', 'Its test is planned already: edit that')
}

/** Plans what is usual; what is there already, by name, stays as it is. */
export async function planUsual(
  tx: Connection,
  { printerId }: z.output<typeof upkeepPlanSchema>,
  personId: number,
): Promise<{ id: number; added: number }> {
  const [stack] = await listStacks(tx, [printerId])
  if (!stack) refuseField('printerId', 'This printer is not known')
  await tx.execute(sql`select id from printers where id = ${printerId} for no key update`)
  const there = await tx.execute<{ name: string; guard: string | null }>(
    sql`select lower(name) "name", guard from upkeep_tasks where printer_id = ${printerId}`,
  )
  const missing = usualUpkeep(guardsOf(stack)).filter(
    u => !there.some(t => t.name === u.name.toLowerCase() || (u.guard !== null && t.guard === u.guard)),
  )
  for (const { every, ...u } of missing)
    await addUpkeepTask(
      tx,
      upkeepTaskFields.parse({
        ...u,
        printerId,
        everyHours: every.hours,
        everyKg: every.kg,
        everyDays: every.days,
        basis: 'practice',
      }),
      personId,
    )
  return { id: printerId, added: missing.length }
}
