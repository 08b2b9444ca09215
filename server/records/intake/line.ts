/** A line of a table: what it says, and what was found of it in the shop. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { intakeSchema } from '#shared/entries/intake'
import { fromField, toField } from '#shared/time'
import type { Connection } from '../../db/client'
import { refuseField, refuseFields } from '../entry/refusal'

export type Line = z.output<typeof intakeSchema>['lines'][number]
export interface Saved {
  /** There already: nothing was added. */
  isHere: boolean
  says: string
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
}
export const need = (line: Line, key: string, what: string): string =>
  textOf(line, key) || refuseField(key, `Enter ${what}`)

/** The column that a field of an entry is typed in. */
const COLUMN_OF: Readonly<Record<string, string>> = {
  'typeId': 'type',
  'materialId': 'material',
  'receivedAt': 'received',
  'occurredAt': 'fitted',
  'receipt.valueMm': 'bore',
  'receipt.uMm': 'boreU',
  'valueMm': 'bore',
  'uMm': 'boreU',
  'headId': 'printer',
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
}
export const columnOf = (field: string): string => COLUMN_OF[field] ?? field
