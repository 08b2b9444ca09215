/** What a table brings, line by line. */
import { z } from 'zod'
import { TABLE_NAMES } from '#core/intake'
import { id, struckBy, text, time } from './parts'

export const intakeLine = z.object({
  line: id,
  /** Added; there already, and left as it is; to be answered first; to be put right first. */
  state: z.enum(['new', 'here', 'asks', 'wrong']),
  says: text,
  /** What is wrong, by column. */
  errors: z.array(z.object({ field: text, message: text })),
  /** With choices, the code of the one that was chosen goes back. */
  questions: z.array(
    z.object({ code: text, message: text, choices: z.array(z.object({ code: text, label: text })).optional() }),
  ),
})
export type IntakeLine = z.output<typeof intakeLine>
export const intakeLines = z.object({ lines: z.array(intakeLine) })
export const intakeEffect = z.object({ added: id, here: id })
export type IntakeEffect = z.output<typeof intakeEffect>

/** How far a long table has come: lines done; null where nothing is under way by that name. */
export const intakeProgress = z.object({ done: z.number().nullable() })

/** What came in by tables, the latest first. */
export const intakeImports = z.object({
  imports: z.array(
    z.object({
      id,
      kind: z.enum(TABLE_NAMES),
      name: text,
      /** Entries that it brought, and how many of them stand. */
      entries: z.number(),
      standing: z.number(),
      at: time,
      person: text,
      struck: struckBy,
    }),
  ),
})
export type IntakeImports = z.output<typeof intakeImports>
