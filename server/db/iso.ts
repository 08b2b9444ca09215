/**
 * The forms in which a time leaves the database. As a time: ISO in UTC to the millisecond, `2026-11-24T09:40:00.000Z`.
 */
import { sql, type SQL } from 'drizzle-orm'

/** `column` is a column of the query, written in the source: never what somebody typed. */
export const iso = (column: string): SQL =>
  sql`to_char(${sql.raw(column)} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')`

/** A day as sentences name it, `3 Nov 2026`, in the shop's zone. `column` as in `iso`. */
export const shopDay = (column: string): SQL =>
  sql`to_char(${sql.raw(column)} at time zone (select time_zone from settings), 'FMDD Mon YYYY')`
