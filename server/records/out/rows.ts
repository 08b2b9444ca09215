/** Rows of a long answer, some at a time: however many there are, few are in the memory at once. */
import { sql, type SQL } from 'drizzle-orm'
import type { Connection } from '../../db/client'

const AT_ONCE = 1000
export type Row = Record<string, unknown>
let opened = 0

/** All rows of a question, within a transaction. */
export async function* rowsOf(tx: Connection, query: SQL): AsyncGenerator<Row[]> {
  const cursor = sql.identifier(`out_${++opened}`)
  await tx.execute(sql`declare ${cursor} no scroll cursor for ${query}`)
  for (;;) {
    const rows = await tx.execute<Row>(sql`fetch ${sql.raw(String(AT_ONCE))} from ${cursor}`)
    if (rows.length > 0) yield [...rows]
    if (rows.length < AT_ONCE) break
  }
  await tx.execute(sql`close ${cursor}`)
}
