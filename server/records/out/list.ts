/** A list of the shop as a text for other programs, as it stands at one moment. */
import { sql, type SQL } from 'drizzle-orm'
import { LIST_FILTERS, type ListFilter, type ListName } from '#shared/lists'
import type { Connection, Database } from '../../db/client'
import { LISTS } from './lists'
import { rowsOf } from './rows'
import { listText, type ListType } from './text'

/** What everything is read with: nothing changes meanwhile, and nothing is written. */
export const AT_ONE_MOMENT = { isolationLevel: 'repeatable read', accessMode: 'read only' } as const

/** The headings of a list: the names of its columns. */
export async function headingsOf(tx: Connection, name: ListName): Promise<string[]> {
  const found = await tx.execute(sql`select * from (${LISTS[name]}) l limit 0`)
  return (found as unknown as { columns: { name: string }[] }).columns.map(c => c.name)
}

/** The question of a list, narrowed to one nozzle, spool or printer where it has such a column. */
function narrowed(name: ListName, headings: readonly string[], by: Partial<Record<ListFilter, string>>): SQL {
  const of = LIST_FILTERS.filter(f => by[f] !== undefined && headings.includes(f))
  if (of.length === 0) return LISTS[name]
  const conditions = of.map(f => sql`lower(l.${sql.identifier(f)}) = lower(${by[f]!})`)
  return sql`select * from (${LISTS[name]}) l where ${sql.join(conditions, sql` and `)}`
}

/** Writes a list out piece by piece. */
export async function writeList(
  db: Database,
  { name, type, by }: { name: ListName; type: ListType; by: Partial<Record<ListFilter, string>> },
  write: (text: string) => Promise<void>,
): Promise<void> {
  await db.transaction(async tx => {
    const headings = await headingsOf(tx, name)
    for await (const text of listText(rowsOf(tx, narrowed(name, headings, by)), headings, type)) await write(text)
  }, AT_ONE_MOMENT)
}
