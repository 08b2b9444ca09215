import { sql } from 'drizzle-orm'
import type { PgTable } from 'drizzle-orm/pg-core'
import type { Connection } from '../../db/client'
import { refuseField } from './refusal'

/** A name or tag that is taken is said at its field, before the database's own index says it less kindly. */
export async function unused(
  tx: Connection,
  table: PgTable,
  column: 'name' | 'tag' | 'mark',
  value: string,
  what: string,
): Promise<void> {
  const [row] = await tx.execute(sql`select id from ${table} where lower(${sql.identifier(column)}) = lower(${value})`)
  if (row) refuseField(column, `There is already ${what} ${value}`)
}
