import { sql } from 'drizzle-orm'
import { dryerSchema, editOf, materialEditSchema, materialValueFields, nozzleFields, nozzleTypeSchema, partFields, practiceSetFields, pricesFields, printerFields, rulesFields, settingsFields, spoolFields } from '#shared/entries'
import { Refusal } from '../../../records/refusal'
import { editRecord, EDITABLE_KINDS, type EditableKind } from '../../../records/stores'

const FIELDS = {
  'printers': editOf(printerFields), 'parts': editOf(partFields), 'dryers': editOf(dryerSchema), 'materials': editOf(materialEditSchema), 'material-values': editOf(materialValueFields), 'practice-sets': editOf(practiceSetFields), 'nozzle-types': editOf(nozzleTypeSchema),
  'nozzles': editOf(nozzleFields), 'spools': editOf(spoolFields), 'settings': editOf(settingsFields), 'rules': editOf(rulesFields), 'prices': editOf(pricesFields),
} as const

export default answering(async (db, event) => {
  const kind = getRouterParam(event, 'kind') as EditableKind
  const id = Number(getRouterParam(event, 'id'))
  if (!EDITABLE_KINDS.includes(kind) || !Number.isInteger(id)) throw new Refusal({ type: 'about:blank', status: 404, title: 'There is no such record to edit' })
  const { body } = await parsed(event, FIELDS[kind])
  const person = await actor(event, db)
  return await db.transaction(async tx => {
    await tx.execute(sql`select pg_notify('iron_nozzle', ${`edit ${kind}`})`)
    return await editRecord(tx, kind, id, body.version, body.values, person.id)
  })
})
