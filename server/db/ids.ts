import { sql, type SQL } from 'drizzle-orm'

/** `column in (…)` of some ids, or all where none are named. `column` is written in the source, never typed. */
export const idIn = (column: string, ids?: readonly number[]): SQL =>
  ids === undefined
    ? sql`true`
    : sql`${sql.raw(column)} in (${sql.join(
        [...ids, 0].map(i => sql`${i}`),
        sql`, `,
      )})`
