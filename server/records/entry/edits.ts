/** The editing of every record that may be edited. */
import { and, eq, inArray, sql } from 'drizzle-orm'
import type { EditLine } from '#shared/answers/edits'
import type { EditableKind } from '#shared/entries/edits'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import {
  beds,
  calendarFeeds,
  cards,
  checkLines,
  dryers,
  edits,
  hotends,
  materials,
  materialValues,
  nozzles,
  nozzleTypes,
  parts,
  people,
  pins,
  practiceSets,
  printers,
  referenceProbes,
  settings,
  setups,
  spools,
  stockItems,
  upkeepTasks,
} from '../../db/schema'
import { refreshCeilings } from '../printers/ceilings'
import { leaveSisters, leaveSistersOfType, refreshForecast } from '../nozzles/forecasts'
import { checkFacts } from '../materials/materials'
import type { Part } from '#core/limits'
import type { NozzleMaterial } from '#core/wear'
import { correct, correctionsOf, isToCorrect, questionOf } from '../runs/corrections'
import { ask, notFound, Refusal, refuseField } from './refusal'
import { unused } from './unused'
import { canonical } from './answers'
import { markPins } from '../pins/pins'
import { needItem, refuseStockItem } from '../stock/items'
import { refuseTwice } from '../upkeep/tasks'

const EDITABLE = {
  printers,
  people,
  setups,
  'references': referenceProbes,
  parts,
  hotends,
  dryers,
  'check-lines': checkLines,
  beds,
  'calendar-feeds': calendarFeeds,
  'upkeep-tasks': upkeepTasks,
  pins,
  'stock-items': stockItems,
  materials,
  'material-values': materialValues,
  cards,
  'practice-sets': practiceSets,
  'nozzle-types': nozzleTypes,
  nozzles,
  spools,
  settings,
  'rules': settings,
  'prices': settings,
} as const satisfies Record<EditableKind, unknown>

/** What stood there before, of the fields that the edit changes. */
function formerOf(current: Record<string, unknown>, values: Record<string, unknown>): Record<string, unknown> {
  const changed = Object.keys(values).filter(k => canonical(current[k] ?? null) !== canonical(values[k] ?? null))
  return Object.fromEntries(changed.map(k => [k, current[k] ?? null]))
}

/** The edits of one record, the latest first. */
export async function listEdits(db: Connection, kind: EditableKind, id: number): Promise<EditLine[]> {
  return await db.execute<EditLine & Record<string, unknown>>(sql`
    select e.version, e.before, ${iso('e.recorded_at')} at, w.name person from edits e
    join people w on w.id = e.person_id where e.kind = ${kind}
    and e.record_id = ${id} order by e.version desc limit 100`)
}

/** Somebody must be left who can act. */
async function refuseLastPerson(tx: Connection, id: number): Promise<void> {
  const [other] = await tx.execute(sql`select id from people where not out_of_use and id <> ${id} limit 1`)
  if (!other) refuseField('outOfUse', 'Nobody would be left who could act: add a person first')
}

/** A tag is one thing's, and what a thing is of is known. */
async function refuseOfThings(
  tx: Connection,
  kind: EditableKind,
  current: Record<string, unknown>,
  values: Record<string, unknown>,
): Promise<void> {
  if (kind !== 'nozzles' && kind !== 'spools') return
  const { tag, typeId, materialId } = values as { tag?: string; typeId?: number; materialId?: number }
  if (tag !== undefined && tag.toLowerCase() !== String(current.tag).toLowerCase())
    await unused(tx, EDITABLE[kind], 'tag', tag, kind === 'nozzles' ? 'a nozzle' : 'a spool')
  const known = async (table: 'nozzle_types' | 'materials', id: number) =>
    (await tx.execute(sql`select id from ${sql.identifier(table)} where id = ${id}`)).length > 0
  if (typeId !== undefined && !(await known('nozzle_types', typeId))) refuseField('typeId', 'This type is not known')
  if (materialId !== undefined && !(await known('materials', materialId)))
    refuseField('materialId', 'This material is not known')
}

/** A nozzle that turned out to be of another type: its forecast, its sisters, and what its printer may be set to. */
async function nozzleEdited(
  tx: Connection,
  id: number,
  was: { typeId: number },
  { typeId }: { typeId?: number },
): Promise<void> {
  if (typeId !== undefined && typeId !== was.typeId) {
    const types = await tx
      .select({ id: nozzleTypes.id, material: nozzleTypes.material })
      .from(nozzleTypes)
      .where(inArray(nozzleTypes.id, [typeId, was.typeId]))
    const [from, to] = [was.typeId, typeId].map(t => types.find(x => x.id === t)!.material)
    await leaveSisters(tx, [id], from!, to)
    await refreshCeilings(tx)
  }
  await refreshForecast(tx, id)
}

/** What runs rest on, and is not only so from now on. */
const REACHES_BACK = {
  spools: ['materialId', 'diameterMm', 'densityGCm3', 'fillerFraction'],
  materials: ['fillerFraction', 'densityGCm3', 'abrasivity', 'filler'],
} as const
/** Runs that were logged with what is put right: whether they are put right too is asked, and done in one piece. */
async function reachBack(
  tx: Connection,
  kind: 'spools' | 'materials',
  id: number,
  was: Record<string, unknown>,
  values: Record<string, unknown>,
  confirmed: string[],
  personId: number,
): Promise<void> {
  const changed = Object.keys(formerOf(was, values))
  const field = REACHES_BACK[kind].find(f => changed.includes(f))
  if (field === undefined) return
  const corrections = await correctionsOf(tx, kind === 'spools' ? { spoolId: id } : { materialId: id })
  if (corrections.length === 0) return
  ask([questionOf(corrections, field)], confirmed)
  const name = String(kind === 'spools' ? was.tag : was.name)
  if (isToCorrect(confirmed)) await correct(tx, corrections, `${name} was put right; entered again`, personId)
}

/** Changes a record if nobody changed it since `version`; otherwise refuses and shows both. */
export async function editRecord(
  tx: Connection,
  kind: EditableKind,
  id: number,
  version: number,
  values: Record<string, unknown>,
  personId: number,
  confirmed: string[] = [],
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
  if (kind === 'people' && values.outOfUse === true) await refuseLastPerson(tx, id)
  if (kind === 'parts' && values.basis === 'start value' && values.limitC !== (current as unknown as Part).limitC)
    refuseField('basis', 'Say where the limit comes from: it is no start value any more')
  await refuseOfThings(tx, kind, current, values)
  if (kind === 'calendar-feeds' && (current as unknown as { revoked: boolean }).revoked && values.revoked === false)
    refuseField('revoked', 'An address that was revoked stays so: give a new one')
  if (kind === 'upkeep-tasks') {
    await refuseTwice(tx, { ...current, ...values } as never, id)
    if (typeof values.stockItemId === 'number') await needItem(tx, values.stockItemId, 'stockItemId')
  }
  if (kind === 'stock-items') await refuseStockItem(tx, { ...current, ...values } as never, id)
  const markWas = (current as unknown as { mark: string }).mark
  const isNewMark = kind === 'pins' && String(values.mark).toLowerCase() !== markWas.toLowerCase()
  if (isNewMark) await unused(tx, pins, 'mark', String(values.mark), 'a pin')
  const extra = kind === 'parts' || kind === 'material-values' ? { enteredBy: personId, enteredAt: new Date() } : {}
  await tx
    .update(table)
    .set({ ...values, ...extra, version: version + 1 })
    .where(and(eq(table.id, id), eq(table.version, version)))
  await tx
    .insert(edits)
    .values({ kind, recordId: id, version: version + 1, before: formerOf(current, values), personId })
  if (kind === 'parts' || kind === 'rules' || kind === 'nozzle-types') await refreshCeilings(tx)
  if (kind === 'material-values') await checkFacts(tx, (current as unknown as { materialId: number }).materialId)
  if (kind === 'nozzle-types' && values.material !== undefined)
    await leaveSistersOfType(tx, id, (current as unknown as { material: NozzleMaterial }).material, values.material)
  if (kind === 'nozzles') await nozzleEdited(tx, id, current as unknown as { typeId: number }, values)
  if (kind === 'spools' || kind === 'materials') await reachBack(tx, kind, id, current, values, confirmed, personId)
  if (kind === 'pins') await markPins(tx, [markWas, String(values.mark)])
  if (kind === 'nozzle-types' || kind === 'settings')
    await tx.execute(sql`
    update forecasts set stale = true, moved = null where
    ${kind === 'settings' ? sql`true` : sql`nozzle_id in (select id from nozzles where type_id = ${id})`}`)
  return { version: version + 1 }
}
