/** Tables that a shop brings along: lines as they were read, by the columns of their table. */
import { z } from 'zod'
import { TABLE_NAMES } from '#core/intake'
import { confirmed } from './fields'

/** More than any shop has of one kind; a longer table comes in parts. */
export const MOST_LINES = 2000
const MOST_COLUMNS = 20

export const intakeSchema = z.object({
  table: z.enum(TABLE_NAMES, { error: 'Choose what the lines are' }),
  lines: z
    .array(
      z.object({
        /** Its number in the table, as the person sees it. */
        line: z.number().int().min(1).max(1e6),
        values: z
          .record(
            z.string().max(20),
            z.union([z.string().max(2000, 'At most 2000 characters'), z.number(), z.boolean(), z.null()]),
          )
          .refine(v => Object.keys(v).length <= MOST_COLUMNS, { error: `At most ${MOST_COLUMNS} columns` }),
        confirmed,
      }),
    )
    .min(1, 'At least one line')
    .max(MOST_LINES, `At most ${MOST_LINES} lines at once`),
})
