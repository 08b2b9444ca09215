/** Annealing: what is started, and what was. */
import type { AnnealLine } from '#shared/answers/prepare'
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { annealPlan, annealRefusal } from '#core/anneal'
import type { annealSchema } from '#shared/entries/prepare'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { anneals, materials } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'
import { dryerOf } from './dryers'

export async function saveAnneal(
  tx: Connection,
  a: z.output<typeof annealSchema>,
  personId: number,
): Promise<{ id: number; until: string }> {
  const occurredAt = notInFuture('occurredAt', a.occurredAt)
  const [material] = await tx.select().from(materials).where(eq(materials.id, a.materialId))
  if (!material) refuseField('materialId', 'This material is not known')
  const dryer = await dryerOf(tx, a.dryerId)
  if (a.atC > dryer.ceilingC) refuseField('atC', `${dryer.name} stops at ${dryer.ceilingC} °C`)
  const facts = await tx.execute<{ key: string; value: number }>(
    sql`select key, value from material_values where material_id = ${a.materialId} and key in ('glassC', 'meltC')`,
  )
  const fact = (key: string) => facts.find(f => f.key === key)?.value ?? null
  const refused = annealRefusal(
    material.name,
    a.atC,
    { glassC: fact('glassC'), meltC: fact('meltC') },
    a.sandMm !== null,
  )
  if (refused !== null) refuseField('atC', refused)
  const { room_c } = (await tx.execute<{ room_c: number }>(sql`select room_c from settings`))[0]!
  const plan = annealPlan(a, dryer, room_c)
  const { confirmed: _, ...values } = a
  const [row] = await tx
    .insert(anneals)
    .values({ ...values, totalH: plan.totalH, occurredAt, personId })
    .returning({ id: anneals.id })
  return { id: row!.id, until: new Date(occurredAt.getTime() + plan.totalH * 3_600_000).toISOString() }
}

export async function listAnneals(db: Connection): Promise<AnnealLine[]> {
  return await db.execute<AnnealLine & Record<string, unknown>>(sql`
    select a.id::int, a.name, m.name material, y.name dryer, a.at_c "atC", a.hold_h "holdH",
    a.ramp_c_per_h "rampCPerH", a.thickness_mm "thicknessMm", a.sand_mm "sandMm",
    a.total_h "totalH", ${iso('a.occurred_at')} "from",
    ${iso('e.occurred_at')} "to", e.outcome, u.name person, a.note,
      (select s.reason from strikes s where s.target = 'anneal' and s.target_id = a.id) struck
    from anneals a join materials m on m.id = a.material_id join dryers y on y.id = a.dryer_id
    join people u on u.id = a.person_id left join endings e on e.target = 'anneal' and e.target_id = a.id
    order by a.occurred_at desc, a.id desc limit 60`)
}
