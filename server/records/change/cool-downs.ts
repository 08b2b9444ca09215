/** Parts that cool on their printers: begun with the plan of that moment, ended when they are off. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { coolPlan } from '#core/cooling'
import { stackOf } from '#core/limits'
import { LONGEST_SOAK_H } from '#core/schedule'
import type { CoolDownLine } from '#shared/answers/prepare'
import { coolDownOf } from '#shared/cooling'
import type { coolDownSchema } from '#shared/entries/change'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { coolDowns, printers } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'
import { listAskings } from '../materials/materials'
import { shopRules } from '../printers/ceilings'
import { listStacks } from '../printers/stack-read'

export async function saveCoolDown(
  tx: Connection,
  c: z.output<typeof coolDownSchema>,
  personId: number,
): Promise<{ id: number; until: string }> {
  const occurredAt = notInFuture('occurredAt', c.occurredAt)
  const [known] = await tx.select().from(printers).where(eq(printers.id, c.printerId)).for('no key update')
  if (!known) refuseField('printerId', 'This printer is not known')
  const [under] = await tx.execute<{ name: string }>(sql`
    select name from standing_cool_downs where printer_id = ${c.printerId} and outcome is null
    and occurred_at + (minutes + ${LONGEST_SOAK_H * 60}) * interval '1 minute' > now()`)
  if (under) refuseField('printerId', `${under.name} cools on ${known.name}: log it as taken off first`)
  const [[printer], rules, materials] = await Promise.all([
    listStacks(tx, [c.printerId]),
    shopRules(tx),
    listAskings(tx),
  ])
  const material = materials.find(m => m.id === c.materialId)
  if (!material) refuseField('materialId', 'This material is not known')
  const of = coolDownOf(stackOf(printer!, printer!.heads[0]!.id), material, c, rules.roomC)
  const plan = coolPlan(of)
  const [row] = await tx
    .insert(coolDowns)
    .values({
      ...c,
      surface: of.surface,
      minutes: plan.minutes,
      takeOff: plan.takeOff.how,
      takeOffC: plan.takeOff.atC,
      occurredAt,
      personId,
    })
    .returning({ id: coolDowns.id })
  return { id: row!.id, until: new Date(occurredAt.getTime() + plan.minutes * 60_000).toISOString() }
}

/** Those that cool, and the latest that are off. */
export async function listCoolDowns(db: Connection): Promise<CoolDownLine[]> {
  return await db.execute<CoolDownLine & Record<string, unknown>>(sql`
    select c.id::int, c.printer_id "printerId", p.name printer, m.name material, c.name, c.thickness_mm "thicknessMm",
      c.bed_c "bedC", c.surface, c.minutes, c.take_off "takeOff", c.take_off_c "takeOffC",
      ${iso('c.occurred_at')} "from", ${iso('c.ended_at')} "to", c.outcome, u.name person
    from standing_cool_downs c join printers p on p.id = c.printer_id join materials m on m.id = c.material_id
    join people u on u.id = c.person_id order by c.occurred_at desc, c.id desc limit 30`)
}
