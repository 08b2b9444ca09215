/** Edits of records, by the name that each kind has in the address. */
import { z } from 'zod'
import { cardFields } from './cards'
import { confirmed, id } from './fields'
import { feedFields } from './due'
import { hotendFields } from './hotends'
import { bedSchema } from './level'
import { printerFields, partFields } from './printers'
import { checkLineSchema, dryerSchema } from './prepare'
import { materialEditSchema, materialValueFields, practiceSetFields } from './materials'
import { nozzleEditFields, nozzleTypeSchema } from './nozzles'
import { setupFields } from './pictures'
import { referenceFields } from './sensors'
import { spoolEditFields } from './spools'
import { pinFields } from './pins'
import { stockItemFields } from './stock'
import { upkeepTaskFields } from './upkeep'
import { settingsFields, rulesFields, pricesFields, personSchema } from './shop'

/** An edit of a record: the version that was seen, and the new values. */
export interface EditBody {
  version: number
  values: Record<string, unknown>
  /** Answers to what was asked. */
  confirmed: string[]
}
const editOf = <T extends z.ZodType<Record<string, unknown>>>(fields: T) =>
  z.object({ version: id, values: fields, confirmed })
/** What can be edited, by the name it has in the address. */
export const EDITS = {
  'printers': editOf(printerFields),
  'people': editOf(personSchema),
  'setups': editOf(setupFields),
  'references': editOf(referenceFields),
  'parts': editOf(partFields),
  'hotends': editOf(hotendFields),
  'dryers': editOf(dryerSchema),
  'check-lines': editOf(checkLineSchema),
  'beds': editOf(bedSchema),
  'calendar-feeds': editOf(feedFields),
  'upkeep-tasks': editOf(upkeepTaskFields),
  'pins': editOf(pinFields),
  'stock-items': editOf(stockItemFields),
  'materials': editOf(materialEditSchema),
  'material-values': editOf(materialValueFields),
  'cards': editOf(cardFields),
  'practice-sets': editOf(practiceSetFields),
  'nozzle-types': editOf(nozzleTypeSchema),
  'nozzles': editOf(nozzleEditFields),
  'spools': editOf(spoolEditFields),
  'settings': editOf(settingsFields),
  'rules': editOf(rulesFields),
  'prices': editOf(pricesFields),
} as const
export type EditableKind = keyof typeof EDITS
