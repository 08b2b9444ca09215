/**
 * Many rows at once, as one JSON that the database takes apart: a query builder takes as long over the parameters of
 * ten thousand rows as the database over storing them, and a question has at most 65 535.
 */
import { getTableColumns, sql, type InferInsertModel, type SQL } from 'drizzle-orm'
import { toSnakeCase } from 'drizzle-orm/casing'
import type { PgTable } from 'drizzle-orm/pg-core'
import type { Connection } from './client'

/** What stores rows that all name the same columns; in the order of the rows. */
function storing<T extends PgTable>(table: T, rows: readonly InferInsertModel<T>[]): SQL {
  const columns = Object.entries(getTableColumns(table))
    .filter(([key]) => Object.hasOwn(rows[0]!, key))
    .map(([key, c]) => ({ key, name: c.keyAsName ? toSnakeCase(c.name) : c.name, type: c.getSQLType() }))
  const named = rows.map(row =>
    Object.fromEntries(columns.map(({ key, name }) => [name, (row as Record<string, unknown>)[key]])),
  )
  const names = columns.map(c => sql.identifier(c.name))
  const typed = columns.map(c => sql`${sql.identifier(c.name)} ${sql.raw(c.type)}`)
  const listed = sql.join(names, sql`, `)
  return sql`insert into ${table} (${listed}) select ${listed}
    from rows from (jsonb_to_recordset(${JSON.stringify(named)}::jsonb) as (${sql.join(typed, sql`, `)}))
      with ordinality as x(${listed}, nr_of_row) order by nr_of_row`
}

export async function insertMany<T extends PgTable>(
  tx: Connection,
  table: T,
  rows: readonly InferInsertModel<T>[],
): Promise<void> {
  if (rows.length > 0) await tx.execute(storing(table, rows))
}

/** The same of a log; answers the ids of the entries, in the order of the rows. */
export async function insertEntries<T extends PgTable>(
  tx: Connection,
  table: T,
  rows: readonly InferInsertModel<T>[],
): Promise<number[]> {
  if (rows.length === 0) return []
  const stored = await tx.execute<{ id: number }>(sql`${storing(table, rows)} returning id::int`)
  return stored.map(r => r.id)
}
