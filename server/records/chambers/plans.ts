/** Plans of enclosures, and tests of what stops a heater. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { GUARDED } from '#core/chamber'
import type { Chambers, CutOutLine, PlanLine } from '#shared/answers/chambers'
import type { cutOutTestSchema, planSchema } from '#shared/entries/plans'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { cutOutTests, enclosurePlans, printers } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'

async function needPrinter(tx: Connection, printerId: number): Promise<void> {
  const [printer] = await tx.select({ id: printers.id }).from(printers).where(eq(printers.id, printerId))
  if (!printer) refuseField('printerId', 'This printer is not known')
}

export async function savePlan(
  tx: Connection,
  { printerId, name, note, occurredAt: at, confirmed: _, ...spec }: z.output<typeof planSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', at)
  await needPrinter(tx, printerId)
  const [row] = await tx
    .insert(enclosurePlans)
    .values({ printerId, name, spec, note, occurredAt, personId })
    .returning({ id: enclosurePlans.id })
  return row!
}

/** The newest of each name that stands, of every printer. */
export async function listPlans(db: Connection): Promise<PlanLine[]> {
  return await db.execute<PlanLine & Record<string, unknown>>(sql`
    select * from (select distinct on (p.printer_id, lower(p.name)) p.id::int, p.printer_id "printerId", p.name, p.spec,
        p.note, ${iso('p.occurred_at')} at, w.name person from standing_enclosure_plans p
      join people w on w.id = p.person_id order by p.printer_id, lower(p.name), p.id desc) x order by x.id desc`)
}

export async function saveCutOutTest(
  tx: Connection,
  { confirmed: _, ...t }: z.output<typeof cutOutTestSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', t.occurredAt)
  await needPrinter(tx, t.printerId)
  const [row] = await tx
    .insert(cutOutTests)
    .values({ ...t, occurredAt, personId })
    .returning({ id: cutOutTests.id })
  return row!
}

/** Part `a` is heater or sensor of what the guard of test `t` watches. */
export const WATCHED = sql.join(
  Object.entries(GUARDED).map(
    ([guard, [heater, sensor]]) => sql`(t.guard = ${guard} and a.role in (${heater}, ${sensor}))`,
  ),
  sql` or `,
)
const MOST_TESTS = 500
/** The latest first, those struck out among them. */
export async function listCutOutTests(db: Connection): Promise<CutOutLine[]> {
  return await db.execute<CutOutLine & Record<string, unknown>>(sql`
    select t.id::int, t.printer_id "printerId", t.guard, t.tripped, t.at_c "atC", t.note, ${iso('t.occurred_at')} at,
      w.name person, (select json_build_object('reason', k.reason, 'person', kw.name) from strikes k
        join people kw on kw.id = k.person_id where k.target = 'cut-out test' and k.target_id = t.id) struck,
      (select c.text from standing_stack_changes c join part_events e on e.change_id = c.id and e.kind = 'fit'
        join parts a on a.id = e.part_id where c.kind = 'changed' and c.printer_id = t.printer_id
        and c.occurred_at > t.occurred_at and (${WATCHED}) order by c.occurred_at, c.id limit 1) changed
    from cut_out_tests t join people w on w.id = t.person_id
    order by t.occurred_at desc, t.id desc limit ${MOST_TESTS}`)
}

/** How often the shop wants each guard tested, where it says so. */
export const testsWanted = (db: Connection): Promise<Chambers['testEvery']> =>
  db.execute<Chambers['testEvery'][number] & Record<string, unknown>>(sql`
    select printer_id "printerId", guard, every_days "days" from upkeep_tasks
    where guard is not null and not withdrawn`)
