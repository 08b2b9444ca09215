/** Tables that a shop brings along: lines as they were read, by the columns of their table. */
import { MOST_LINES, mostLines, PIECE_LINES } from '../choices'
import { z } from 'zod'
import { TABLE_NAMES } from '#core/intake'
import { confirmed } from './fields'

const MOST_COLUMNS = 20

const line = z.object({
  /** Its number in the table, as the person sees it. */
  line: z.number().int().min(1).max(1e6),
  values: z
    .record(
      z.string().max(20),
      z.union([z.string().max(2000, 'At most 2000 characters'), z.number(), z.boolean(), z.null()]),
    )
    .refine(v => Object.keys(v).length <= MOST_COLUMNS, { error: `At most ${MOST_COLUMNS} columns` }),
  confirmed,
})
const lines = z.array(line).max(PIECE_LINES, `At most ${PIECE_LINES} lines at once`)
export type IntakeLineIn = z.output<typeof line>

/** What a table on its way in is called between the browser and the server. */
const stage = z.string().regex(/^[\w-]{8,60}$/, 'A stage is 8 to 60 letters, digits and dashes')

/** One piece of a long table; one that comes again takes the place of the one before. */
export const pieceSchema = z.object({
  stage,
  nr: z
    .number()
    .int()
    .min(0)
    .max(MOST_LINES / PIECE_LINES - 1),
  lines,
})
export const stageQuery = z.object({ stage: stage.nullable().default(null) })
export const dropSchema = z.object({ stage })

export const intakeSchema = z
  .object({
    table: z.enum(TABLE_NAMES, { error: 'Choose what the lines are' }),
    /** What the person would know it by: its file, or that it was pasted. */
    name: z.string().trim().max(255).default(''),
    /** Where the lines were sent ahead: so many pieces of this stage. */
    staged: z
      .object({
        stage,
        pieces: z
          .number()
          .int()
          .min(1)
          .max(MOST_LINES / PIECE_LINES),
      })
      .nullable()
      .default(null),
    lines: lines.default([]),
  })
  .refine(i => i.lines.length > 0 || i.staged !== null, { path: ['lines'], error: 'At least one line' })
  .refine(i => i.staged === null || mostLines(i.table) > PIECE_LINES, {
    path: ['staged'],
    error: `At most ${PIECE_LINES} lines at once`,
  })
