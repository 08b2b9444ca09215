/** What a table brings, line by line. */
import { z } from 'zod'
import { id, text } from './parts'

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
