/** What is due in the whole shop, what comes, and what was put off. */
import { z } from 'zod'
import { STATIONS } from '#core/schedule'
import { id, maybe, number, text, time } from './parts'
import { due } from './upkeep'

export const dueItem = due.extend({
  key: text,
  /** Where it stands; null for what is the shop's. */
  printer: maybe(text),
  /** Who has it in hand; null: anybody. */
  person: maybe(text),
  /** The day on which it comes; null: now. */
  on: maybe(time),
  snoozed: maybe(z.object({ id, until: time, reason: text, by: text })),
})
export type DueItem = z.output<typeof dueItem>

export const feed = z.object({ id, name: text, revoked: z.boolean(), version: id, by: text, at: time })
export type Feed = z.output<typeof feed>

export const dueList = z.object({
  /** The most pressing first; what comes within the fortnight among them, with its day. */
  items: z.array(dueItem),
  /** What is due now and not put off, by station. */
  counts: z.partialRecord(z.enum(STATIONS), number),
  feeds: z.array(feed),
  at: time,
})
export type DueList = z.output<typeof dueList>
