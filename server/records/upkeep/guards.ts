/** How what stops a runaway heater stands at each printer, by its latest test. */
import { sql } from 'drizzle-orm'
import type { Guard, GuardState } from '#core/chamber'
import { guardsOf } from '#core/procedures'
import { guardStands, type LastTest } from '#shared/guard-state'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { WATCHED } from '../chambers/plans'

export interface TestRow extends LastTest, Record<string, unknown> {
  printerId: number
  guard: Guard
  by: string
  note: string
}
/** The latest test of each guard of each printer, or of one, and whether its heater or sensor was changed since. */
export async function lastTests(db: Connection, printerId: number | null = null): Promise<TestRow[]> {
  return await db.execute<TestRow>(sql`
    select t.printer_id "printerId", t.guard, t.tripped, ${iso('t.occurred_at')} at, u.name "by", t.note,
      exists (select from standing_stack_changes c join part_events e on e.change_id = c.id and e.kind = 'fit'
        join parts a on a.id = e.part_id where c.kind = 'changed' and c.printer_id = t.printer_id
        and c.occurred_at > t.occurred_at and (${WATCHED})) changed
    from (select distinct on (printer_id, guard) * from standing_cut_out_tests
      where ${printerId === null ? sql`true` : sql`printer_id = ${printerId}`}
      order by printer_id, guard, occurred_at desc, id desc) t join people u on u.id = t.person_id`)
}

/** How each guard of a printer stands by its latest test: for whoever leaves it alone. */
export async function guardStates(
  db: Connection,
  printer: { id: number; parts: Parameters<typeof guardsOf>[0]['parts'] },
  nowMs: number,
): Promise<{ guard: Guard; state: GuardState }[]> {
  const tests = await lastTests(db, printer.id)
  return guardsOf(printer).map(guard => ({
    guard,
    state: guardStands(tests.find(t => t.guard === guard) ?? null, nowMs),
  }))
}
