/** How a query tells that an entry is struck out, and how that is answered. */
import type { StruckBy } from '#shared/answers/parts'

/** Columns of an entry with its strike, both null while it stands. */
export interface Strike {
  strike_reason: string | null
  struck_by: string | null
}
export const struckOf = (r: Strike): StruckBy =>
  r.strike_reason === null ? null : { reason: r.strike_reason, person: r.struck_by! }
