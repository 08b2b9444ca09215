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
async function headingsOf(tx: Connection, name: ListName): Promise<string[]> {
  const found = await tx.execute(sql`select * from (${LISTS[name]}) l limit 0`)
  return (found as unknown as { columns: { name: string }[] }).columns.map(c => c.name)
}

/** The question of a list, narrowed to one nozzle, spool or printer where it has such a column. */
function narrowed(name: ListName, headings: readonly string[], by: By): SQL {
  const of = LIST_FILTERS.filter(f => by[f] !== undefined && headings.includes(f))
  if (of.length === 0) return LISTS[name]
  const conditions = of.map(f => sql`lower(l.${sql.identifier(f)}) = lower(${by[f]!})`)
  return sql`select * from (${LISTS[name]}) l where ${sql.join(conditions, sql` and `)}`
}

type By = Partial<Record<ListFilter, string>>
/** The text of a list, in pieces; within a transaction. */
export async function* textOfList(
  tx: Connection,
  { name, type, by = {}, escapeFormulae = true }: { name: ListName; type: ListType; by?: By; escapeFormulae?: boolean },
): AsyncGenerator<string> {
  const headings = await headingsOf(tx, name)
  yield* listText(rowsOf(tx, narrowed(name, headings, by)), headings, type, { escapeFormulae })
}

/** Writes a list out piece by piece. */
export async function writeList(
  db: Database,
  of: { name: ListName; type: ListType; by: By },
  write: (text: string) => Promise<void>,
): Promise<void> {
  await db.transaction(async tx => {
    for await (const text of textOfList(tx, of)) await write(text)
  }, AT_ONE_MOMENT)
}
