/** A line of a table: what it says, and what was found of it in the shop. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { TableName } from '#core/intake'
import { listed } from '#core/words'
import type { IntakeLineIn } from '#shared/entries/intake'
import type { StrikeTarget } from '#shared/logs'
import { fromField, toField } from '#shared/time'
import type { Connection } from '../../db/client'
import { refuseField, refuseFields } from '../entry/refusal'

export type Line = IntakeLineIn
export interface Saved {
  /** There already: nothing was added. */
  isHere: boolean
  says: string
  /** The entry of a log that it became. */
  entry?: Entry
}
export interface Entry {
  target: StrikeTarget
  id: number
  /** The nozzle whose forecast rests on it. */
  nozzleId: number | null
}
export interface By {
  personId: number
  zone: string
  now: Date
}
export type SaveLine = (tx: Connection, line: Line, by: By) => Promise<Saved>

export const added = (says: string): Saved => ({ isHere: false, says })
export const here = (says: string): Saved => ({ isHere: true, says: `${says}: here already, left as it is` })

export const textOf = ({ values }: Line, key: string) => String(values[key] ?? '').trim()
export const numberOf = ({ values }: Line, key: string) => (typeof values[key] === 'number' ? values[key] : null)
/** A field that nothing is said of is left to its default. */
export const orDefault = <T>(value: T) => (value === null || value === '' ? undefined : value)

/** Day and time on the shop's clock; of a day alone its noon, of today the present. */
export function momentOf(line: Line, key: string, { zone, now }: By): string | null {
  const said = textOf(line, key)
  if (said === '') return null
  const iso = fromField(said.includes('T') ? said : `${said}T12:00`, zone)
  if (iso === null) refuseField(key, `Not a date: “${said}”`)
  // this morning its noon is still to come
  const isToday = said === toField(now.toISOString(), zone).slice(0, 10)
  return isToday && Date.parse(iso) > now.getTime() ? now.toISOString() : iso
}

/** A line of a list that was written out, of an entry that was struck out there. */
export const struckThere = (line: Line): Saved | null =>
  textOf(line, 'struck') === '' ? null : { isHere: true, says: `struck out where it comes from: left out` }
/** Whether a line says the day alone. */
export const isDayAlone = (line: Line, key: string) => !textOf(line, key).includes('T')
/**
 * When an entry of a log happened. Of a day alone its noon; today's may be still to come, and another time would make
 * the same line another entry tomorrow.
 */
export function momentIn(line: Line, key: string, by: By): string {
  const at = momentOf(line, key, by) ?? refuseField(key, 'Enter the day')
  if (isDayAlone(line, key) && at === by.now.toISOString())
    refuseField(key, 'Today’s noon is still to come: write the time too')
  return at
}

export function checked<S extends z.ZodType>(schema: S, body: z.input<S>): z.output<S> {
  const read = schema.safeParse(body)
  if (read.success) return read.data
  return refuseFields(read.error.issues.map(i => ({ field: i.path.join('.'), message: i.message })))
}

/** A record by its name or tag, whatever the case. */
export async function found(
  tx: Connection,
  table: string,
  column: 'name' | 'tag',
  value: string,
): Promise<Found | null> {
  const rows = await tx.execute<Found>(sql`
    select * from ${sql.raw(table)} where lower(${sql.raw(column)}) = lower(${value}) limit 1`)
  return rows[0] ?? null
}
/** A row as the database has it; which columns it has depends on its table. */
interface Found extends Record<string, unknown> {
  id: number
  name: string
  type_id?: number
  material_id?: number
  tag?: string
}
export const need = (line: Line, key: string, what: string): string =>
  textOf(line, key) || refuseField(key, `Enter ${what}`)

/** The head of a printer that a line names; where there is one only, the printer is enough. */
export function headNamed<H extends { name: string }>(line: Line, printer: { name: string; heads: readonly H[] }): H {
  const said = textOf(line, 'head')
  const wanted = printer.heads.filter(h => said === '' || h.name.toLowerCase() === said.toLowerCase())
  const names = printer.heads.map(h => h.name)
  if (wanted.length !== 1)
    refuseField(
      'head',
      said === '' ? `Which head: ${listed(names, 'or')}?` : `${printer.name} has ${listed(names, 'and')}`,
    )
  return wanted[0]!
}

/** The column that a field of an entry is typed in. */
const COLUMN_OF: Readonly<Record<string, string>> = {
  'typeId': 'type',
  'materialId': 'material',
  'nozzleId': 'nozzle',
  'spoolId': 'spool',
  'receivedAt': 'received',
  'endedAt': 'ended',
  'receipt.valueMm': 'bore',
  'receipt.uMm': 'boreU',
  'valueMm': 'bore',
  'uMm': 'boreU',
  'goMm': 'go',
  'noGoMm': 'noGo',
  'tipMm': 'tip',
  'headId': 'printer',
  'printerId': 'printer',
  'nominalBoreMm': 'bore',
  'boreMm': 'bore',
  'lengthMm': 'length',
  'tipFlatMm': 'tipFlat',
  'landMm': 'land',
  'inletMm': 'inlet',
  'torqueNm': 'torque',
  'fillerFraction': 'wt',
  'densityGCm3': 'density',
  'diameterMm': 'diameter',
  'netG': 'net',
  'tareG': 'tare',
  'grossG': 'gross',
  'kind': 'stack',
  'setC': 'nozzleC',
  'bedSetC': 'bedC',
  'chamberSetC': 'chamberC',
  'amount': 'grams',
  'amount.grams': 'grams',
  'amount.metres': 'metres',
  'amount.beforeG': 'before',
  'amount.afterG': 'after',
}
/** When it happened is a column of its own in each table. */
const OCCURRED: Partial<Record<TableName, string>> = {
  nozzles: 'fitted',
  spools: 'opened',
  gauges: 'gauged',
  weighings: 'weighed',
}
export function columnOf(table: TableName, field: string): string {
  const own = field.replace(/^tools\.0\./, '')
  if (own === 'occurredAt') return OCCURRED[table] ?? own
  return Object.hasOwn(COLUMN_OF, own) ? COLUMN_OF[own]! : own
}
