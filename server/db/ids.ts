import { sql, type SQL } from 'drizzle-orm'

/**
 * `column` is one of some ids, or all where none are named. `column` is written in the source, never typed. The ids are
 * one parameter: the question is the same text however many there are.
 */
export const idIn = (column: string, ids?: readonly number[]): SQL =>
  ids === undefined ? sql`true` : sql`${sql.raw(column)} = any (${`{${ids.join()}}`}::bigint[])`
