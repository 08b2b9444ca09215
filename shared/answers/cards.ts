/** Cards of what worked: counts and setpoints from runs, and what a person wrote. */
import { z } from 'zod'
import { CARD_KEYS, type CardKey, type CardValue } from '#core/cards'
import { id, maybe, number, text, time } from './parts'

const found = z.object({ low: number, middle: number, high: number })
const value = z.object({
  key: z.enum(CARD_KEYS as [CardKey, ...CardKey[]]),
  value: number,
  by: z.enum(['hand', 'runs']),
  found: maybe(found),
}) satisfies z.ZodType<CardValue>

export const card = z.object({
  materialId: id,
  typeId: id,
  type: text,
  printerId: id,
  printer: text,
  good: number,
  failed: number,
  lastAt: maybe(time),
  values: z.array(value),
  /** What a person wrote; null where nobody did. */
  hand: maybe(
    z.object({
      id,
      version: id,
      values: z.record(text, maybe(number)),
      bondAlongN: maybe(number),
      bondAcrossN: maybe(number),
      adhesive: text,
      outcome: text,
      note: text,
      person: text,
    }),
  ),
})
export type Card = z.output<typeof card>
