import { sql, type SQL } from 'drizzle-orm'

const listOf = (ids: readonly number[]): SQL => sql`${`{${ids.join()}}`}::bigint[]`

/**
 * `column` is one of some ids, or all where none are named. `column` is written in the source, never typed. The ids are
 * one parameter: the question is the same text however many there are.
 */
export const idIn = (column: string, ids?: readonly number[]): SQL =>
  ids === undefined ? sql`true` : sql`${sql.raw(column)} = any (${listOf(ids)})`

/** `column` is none of some ids. They are sorted out once, where `not any` would go through them for each row. */
export const idNotIn = (column: string, ids: readonly number[]): SQL =>
  sql`not exists (select from unnest(${listOf(ids)}) x(id) where x.id = ${sql.raw(column)})`
