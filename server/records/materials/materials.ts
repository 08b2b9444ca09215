/** Materials: what they are, their facts each with its basis, and practice sets. */
import type { FactRow, MaterialRow } from '#shared/answers/materials'
import { and, asc, eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { ORDERED_FACTS, VALUES, type ValueKey } from '#core/limits'
import type { materialSchema, materialValueSchema, practiceSetSchema } from '#shared/entries/materials'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { materials, materialValues, practiceSets } from '../../db/schema'
import { refuseField } from '../entry/refusal'
import { unused } from '../entry/unused'

export async function addMaterial(
  tx: Connection,
  m: z.output<typeof materialSchema>,
  personId: number,
): Promise<{ id: number }> {
  const { facts, sets, ...fields } = m
  await unused(tx, materials, 'name', m.name, 'a material')
  const [row] = await tx
    .insert(materials)
    .values({ ...fields, createdBy: personId })
    .returning({ id: materials.id })
  for (const [key, f] of Object.entries(facts))
    await tx.insert(materialValues).values({ materialId: row!.id, key: key as ValueKey, ...f!, enteredBy: personId })
  for (const [i, s] of sets.entries()) {
    if (sets.findIndex(o => o.name.toLowerCase() === s.name.toLowerCase()) !== i)
      refuseField(`sets.${i}.name`, 'Each practice set needs a name of its own')
    await tx.insert(practiceSets).values({ materialId: row!.id, ...s, createdBy: personId })
  }
  return row!
}

/** A fact that contradicts another of the same material is refused. */
export async function checkFacts(tx: Connection, materialId: number): Promise<void> {
  const rows = await tx.select().from(materialValues).where(eq(materialValues.materialId, materialId))
  const of = (key: ValueKey) => rows.find(r => r.key === key)?.value
  for (const [low, high] of ORDERED_FACTS) {
    const a = of(low),
      b = of(high)
    if (a !== undefined && b !== undefined && a > b)
      refuseField(
        'value',
        `${VALUES[low].label} (${a}) and ${VALUES[high].label.toLowerCase()} (${b} ${VALUES[high].unit}) ` +
          `contradict each other`,
      )
  }
}

/** A fact that was not known yet; one that is known is edited. */
export async function addMaterialValue(
  tx: Connection,
  v: z.output<typeof materialValueSchema>,
  personId: number,
): Promise<{ id: number }> {
  const [there] = await tx
    .select({ id: materialValues.id })
    .from(materialValues)
    .where(and(eq(materialValues.materialId, v.materialId), eq(materialValues.key, v.key)))
  if (there) refuseField('key', 'This is entered already; edit it')
  const [row] = await tx
    .insert(materialValues)
    .values({ ...v, enteredBy: personId })
    .returning({ id: materialValues.id })
  await checkFacts(tx, v.materialId)
  return row!
}

export async function addPracticeSet(
  tx: Connection,
  p: z.output<typeof practiceSetSchema>,
  personId: number,
): Promise<{ id: number }> {
  const [there] = await tx.execute(
    sql`select id from practice_sets where material_id = ${p.materialId} and lower(name) = lower(${p.set.name})`,
  )
  if (there) refuseField('set.name', `There is already a practice set ${p.set.name}`)
  const [row] = await tx
    .insert(practiceSets)
    .values({ materialId: p.materialId, ...p.set, createdBy: personId })
    .returning({ id: practiceSets.id })
  return row!
}

export async function listMaterials(db: Connection) {
  return await db.select().from(materials).orderBy(asc(materials.name))
}

/** A fact of a material by its key; null where none is entered. */
export const factOf = (m: MaterialRow, key: ValueKey) => m.values.find(v => v.key === key)?.value ?? null

/** Materials with everything that the limits ask of them. */
export async function listAskings(db: Connection): Promise<MaterialRow[]> {
  const [rows, values, sets] = await Promise.all([
    listMaterials(db),
    db.execute<FactRow & { materialId: number } & Record<string, unknown>>(
      sql`select v.id, v.material_id "materialId", v.key, v.value, v.basis, v.note, v.version,
        u.name "enteredBy", ${iso('v.entered_at')} "enteredAt" from material_values v
        join people u on u.id = v.entered_by order by v.id`,
    ),
    db.select().from(practiceSets).orderBy(asc(practiceSets.id)),
  ])
  return rows.map(m => ({
    ...m,
    values: values.filter(v => v.materialId === m.id),
    sets: sets.filter(s => s.materialId === m.id),
  }))
}
