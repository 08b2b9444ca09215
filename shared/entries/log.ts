/** Entries about entries: striking one out, and the end of what was started. */
import { z } from 'zod'
import { ENDING_TARGETS, STRIKE_TARGETS } from '../logs'
import { AIR_C } from '#core/drying'
import { id, text, confirmed, between, gross, note, strikeReason, when } from './fields'

export const strikeSchema = z.object({
  target: z.enum(STRIKE_TARGETS),
  targetId: id,
  reason: strikeReason,
  confirmed,
})
/** How something that had to be proved was proved. */
const proof = z.object({ what: text(300).min(1), how: text(300).min(3, 'Say how it was proved') })
export type Proof = z.output<typeof proof>
/** The end of what was started: a drying, soak, anneal or procedure; a printer back in service; a note read. */
export const endingSchema = z
  .object({
    target: z.enum(ENDING_TARGETS),
    targetId: id,
    outcome: z.enum(['done', 'stopped early']).default('done'),
    actualC: between(0, 300, '°C').nullable().default(null),
    grossG: gross,
    /** For a printer that goes back into service. */
    proved: z.array(proof).max(30).nullable().default(null),
    note,
    occurredAt: when,
    confirmed,
  })
  .refine(e => e.target === 'drying' || e.grossG === null, { path: ['grossG'], error: 'Only a spool is weighed' })
  .refine(e => e.target !== 'procedure' || e.outcome === 'done' || e.note.trim().length >= 3, {
    path: ['note'],
    error: 'Say why it stops here',
  })
  .refine(e => e.target === 'out of service' || e.proved === null, {
    path: ['proved'],
    error: 'Only a printer that was out of service is proved',
  })
  .refine(e => e.target !== 'drying' || e.actualC === null || e.actualC <= AIR_C[1], {
    path: ['actualC'],
    error: `At most ${AIR_C[1]} °C in a dryer`,
  })
export type StrikeEntry = z.input<typeof strikeSchema>
