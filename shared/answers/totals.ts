/** What the shop did by week or month, by printer, material, nozzle or person. */
import { z } from 'zod'
import { id, maybe, number, text } from './parts'

export const TOTALS_BY = ['printer', 'material', 'nozzle', 'person'] as const
export const TOTALS_PER = ['week', 'month'] as const
/** Most weeks or months that are told at once. */
export const MOST_BACK = 60

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

export const totals = z.object({
  by: z.enum(TOTALS_BY),
  per: z.enum(TOTALS_PER),
  /** Every week or month there is, the oldest first, with what was retired and what that and the shelf cost. */
  periods: z.array(
    sums.extend({
      retired: number,
      /** What retired nozzles and their swaps cost, and what was taken from the shelf, at the prices entered. */
      cost: number,
      /** Nozzles and things of which no price is entered. */
      unpriced: number,
    }),
  ),
  /** The same by group, those with the most first; periods in which nothing happened are left out. */
  groups: z.array(
    z.object({
      id,
      name: text,
      cells: z.array(sums),
      /** Nozzles that printed in any of these periods. */
      nozzles: number,
      /** Nozzles retired, and what they and their swaps cost; null of materials, which share their nozzles. */
      retired: maybe(z.object({ count: number, cost: number, unpriced: number })),
    }),
  ),
  /** How often it came out well, by material, printer and what holds it on the bed, over all of these periods. */
  success: z.array(z.object({ material: text, printer: text, adhesive: maybe(text), good: number, failed: number })),
  currency: text,
})
export type Totals = z.output<typeof totals>
