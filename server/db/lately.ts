/** What goes on a day of late, of things that may not have been here all of that time. */
import { sql, type SQL } from 'drizzle-orm'

/** Of fewer days than these nobody tells what usually goes on a day. */
const FEWEST_DAYS = 7

/**
 * The days that something done within the last `most` of them is spread over: all of them, or as many as there have
 * been `since`, a moment; a week at least.
 */
export const daysOf = (since: SQL, most: number): SQL =>
  sql`greatest(${FEWEST_DAYS}, least(${most}, extract(epoch from now() - (${since})) / 86400))::float8`
