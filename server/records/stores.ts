/** Nozzle types, nozzles, spools, people: adding; and the editing of every record. */
import { and, asc, eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { EditableKind, nozzleSchema, nozzleTypeSchema, personSchema, spoolSchema } from '#shared/entries'
import type { Connection } from '../db/client'
import {
  dryers,
  materials,
  materialValues,
  nozzles,
  nozzleTypes,
  parts,
  people,
  practiceSets,
  printers,
  settings,
  spools,
} from '../db/schema'
import { refreshCeilings } from './ceilings'
import { refreshForecast } from './forecasts'
import { saveGauge } from './gauges'
import { checkFacts } from './materials'
import { notFound, notInFuture, Refusal, refuseField } from './refusal'
import { unused } from './unused'

export async function addNozzleType(
  tx: Connection,
  t: z.output<typeof nozzleTypeSchema>,
  personId: number,
): Promise<{ id: number }> {
  await unused(tx, nozzleTypes, 'name', t.name, 'a nozzle type')
  const [row] = await tx
    .insert(nozzleTypes)
    .values({ ...t, createdBy: personId })
    .returning({ id: nozzleTypes.id })
  return row!
}

/** A nozzle with its receipt gauge, if there is one, in the same breath. */
export async function addNozzle(
  tx: Connection,
  n: z.output<typeof nozzleSchema>,
  personId: number,
): Promise<{ id: number; tag: string }> {
  notInFuture('receivedAt', n.receivedAt)
  await unused(tx, nozzles, 'tag', n.tag, 'a nozzle')
  const [type] = await tx.select().from(nozzleTypes).where(eq(nozzleTypes.id, n.typeId))
  if (!type) refuseField('typeId', 'This nozzle type is not known')
  const [row] = await tx
    .insert(nozzles)
    .values({ tag: n.tag, typeId: n.typeId, wasUsed: n.wasUsed, note: n.note, createdBy: personId })
    .returning({ id: nozzles.id, tag: nozzles.tag })
  const r = n.receipt
  if (r && (r.goMm !== null || r.noGoMm !== null || r.valueMm !== null || r.tipMm !== null)) {
    await saveGauge(
      tx,
      {
        nozzleId: row!.id,
        occurredAt: n.receivedAt,
        ...r,
        goPin: null,
        noGoPin: null,
        tipUMm: null,
        shape: [],
        note: 'receipt gauge',
        confirmed: n.confirmed,
      },
      personId,
      'receipt',
    )
  } else await refreshForecast(tx, row!.id)
  return row!
}

export async function addSpool(
  tx: Connection,
  s: z.output<typeof spoolSchema>,
  personId: number,
): Promise<{ id: number; tag: string }> {
  await unused(tx, spools, 'tag', s.tag, 'a spool')
  const [material] = await tx.select().from(materials).where(eq(materials.id, s.materialId))
  if (!material) refuseField('materialId', 'This material is not known')
  const [row] = await tx
    .insert(spools)
    .values({ ...s, createdBy: personId })
    .returning({ id: spools.id, tag: spools.tag })
  return row!
}

export async function addPerson(tx: Connection, p: z.output<typeof personSchema>): Promise<{ id: number }> {
  await unused(tx, people, 'name', p.name, 'a person called')
  const [row] = await tx.insert(people).values(p).returning({ id: people.id })
  return row!
}

/** The three roles a shop starts with, so that the first entry has a person. */
export async function firstPeople(tx: Connection): Promise<void> {
  const [some] = await tx.select({ id: people.id }).from(people).limit(1)
  if (some) return
  await tx.insert(people).values([
    { name: 'Day technician', role: 'technician' },
    { name: 'Night technician', role: 'technician' },
    { name: 'Shop lead', role: 'lead' },
  ])
}

const EDITABLE = {
  printers,
  parts,
  dryers,
  materials,
  'material-values': materialValues,
  'practice-sets': practiceSets,
  'nozzle-types': nozzleTypes,
  nozzles,
  spools,
  settings,
  'rules': settings,
  'prices': settings,
} as const satisfies Record<EditableKind, unknown>

/** Changes a record if nobody changed it since `version`; otherwise refuses and shows both. */
export async function editRecord(
  tx: Connection,
  kind: EditableKind,
  id: number,
  version: number,
  values: Record<string, unknown>,
  personId: number,
): Promise<{ version: number }> {
  const table = EDITABLE[kind] as typeof materials
  const [current] = await tx.select().from(table).where(eq(table.id, id)).for('no key update')
  if (!current) notFound('This record')
  if (current.version !== version)
    throw new Refusal({
      type: 'urn:iron-nozzle:stale',
      status: 409,
      title: 'Someone changed this meanwhile; compare and save again',
      current,
      yours: values,
    })
  if (kind === 'material-values' && (current as unknown as { key: string }).key !== values.key)
    refuseField('key', 'A value stays what it is a value of')
  const extra = kind === 'parts' || kind === 'material-values' ? { enteredBy: personId, enteredAt: new Date() } : {}
  await tx
    .update(table)
    .set({ ...values, ...extra, version: version + 1 })
    .where(and(eq(table.id, id), eq(table.version, version)))
  if (kind === 'parts' || kind === 'rules' || kind === 'nozzle-types') await refreshCeilings(tx)
  if (kind === 'material-values') await checkFacts(tx, (current as unknown as { materialId: number }).materialId)
  if (kind === 'nozzles') await refreshForecast(tx, id)
  if (kind === 'nozzle-types' || kind === 'settings')
    await tx.execute(sql`
    update forecasts set stale = true where
    ${kind === 'settings' ? sql`true` : sql`nozzle_id in (select id from nozzles where type_id = ${id})`}`)
  return { version: version + 1 }
}

export async function listNozzleTypes(db: Connection) {
  return await db.select().from(nozzleTypes).orderBy(asc(nozzleTypes.name))
}
export async function listPeople(db: Connection) {
  return await db.select().from(people).orderBy(asc(people.id))
}
export async function shopSettings(db: Connection) {
  return (await db.select().from(settings))[0]!
}
