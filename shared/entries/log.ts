/** Entries about entries: striking one out, and the end of what was started. */
import { z } from 'zod'
import { ENDING_TARGETS, STRIKE_TARGETS } from '../logs'
import { AIR_C } from '#core/drying'
import { id, text, confirmed, between, gross, note, when } from './fields'

export const strikeSchema = z.object({
  target: z.enum(STRIKE_TARGETS),
  targetId: id,
  reason: text(300).min(3, 'Say why it is struck out'),
  confirmed,
})
/** The end of a drying, soak or anneal. */
export const endingSchema = z
  .object({
    target: z.enum(ENDING_TARGETS),
    targetId: id,
    outcome: z.enum(['done', 'stopped early']).default('done'),
    actualC: between(0, 300, '°C').nullable().default(null),
    grossG: gross,
    note,
    occurredAt: when,
    confirmed,
  })
  .refine(e => e.target === 'drying' || e.grossG === null, { path: ['grossG'], error: 'Only a spool is weighed' })
  .refine(e => e.target !== 'drying' || e.actualC === null || e.actualC <= AIR_C[1], {
    path: ['actualC'],
    error: `At most ${AIR_C[1]} °C in a dryer`,
  })
export type StrikeEntry = z.input<typeof strikeSchema>
