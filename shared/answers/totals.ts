/** What the shop did by week or month, by printer, material, nozzle or person. */
import { TOTALS_BY, TOTALS_PER } from '../choices'
import { z } from 'zod'
import { id, maybe, number, text } from './parts'

const sums = z.object({
  /** The day its week or month begins, on the shop's clock. */
  from: text,
  runs: number,
  failed: number,
  extrudedG: number,
  filledG: number,
  fibreG: number,
  /** Of runs whose time is known; so many others tell nothing. */
  hours: number,
  withoutHours: number,
  /** Nozzles that printed. */
  nozzles: number,
})
export type TotalsSums = z.output<typeof sums>

/** What was used up: retired nozzles with their swaps, and what was taken from the shelf, at the prices entered. */
const spent = z.object({
  /** Nozzles retired. */
  retired: number,
  cost: number,
  /** Nozzles and things of which no price is entered. */
  unpriced: number,
})
export type TotalsSpent = z.output<typeof spent>

export const totals = z.object({
  by: z.enum(TOTALS_BY),
  per: z.enum(TOTALS_PER),
  /** Every week or month there is, the oldest first. */
  periods: z.array(sums.extend({ spent })),
  /** The same by group, those with the most first; periods in which nothing happened are left out. */
  groups: z.array(
    z.object({
      id,
      name: text,
      /** What was spent is null of materials, which share their nozzles. */
      cells: z.array(sums.extend({ spent: maybe(spent) })),
      /** Nozzles that printed in any of these periods. */
      nozzles: number,
    }),
  ),
  /** What was spent for none of them: taken by hand, scrapped, retired from the shelf; null where all of it is. */
  spentBeside: maybe(spent),
  /** How often it came out well, by material, printer and what holds it on the bed, over all of these periods. */
  success: z.array(
    z.object({
      material: text,
      printer: text,
      /** Sheet and adhesive, as the run says, or else as its card says now. */
      surface: maybe(text),
      saidBy: z.enum(['run', 'card']).nullable(),
      good: number,
      failed: number,
    }),
  ),
  currency: text,
})
export type Totals = z.output<typeof totals>
