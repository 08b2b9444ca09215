/** The edits of a record: who changed what, when, and what stood there before. */
import { z } from 'zod'
import { id, text, time } from './parts'

export const editLine = z.object({ version: id, before: z.record(text, z.unknown()), at: time, person: text })
export type EditLine = z.output<typeof editLine>
