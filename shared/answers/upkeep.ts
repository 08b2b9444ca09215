/** Upkeep: what each printer is kept up by, how far each has come, and what was found. */
import { z } from 'zod'
import { GUARDS } from '#core/chamber'
import { FOUND, STATIONS, UPKEEP_KINDS, type Due } from '#core/schedule'
import { basis, id, mark, maybe, number, struckFor, text, time } from './parts'

/** What is due, as the core says it. */
export const due = z.object({
  mark,
  about: maybe(text),
  reason: text,
  action: text,
  station: z.enum(STATIONS),
  open: text,
  of: text.optional(),
  isOver: z.boolean().optional(),
  weight: number,
}) satisfies z.ZodType<Due>

const upkeepTask = z.object({
  id,
  printerId: id,
  kind: z.enum(UPKEEP_KINDS),
  name: text,
  everyHours: maybe(number),
  everyKg: maybe(number),
  everyDays: maybe(number),
  guard: maybe(z.enum(GUARDS)),
  /** What it takes from the shelf each time. */
  stockItemId: maybe(id),
  stockQuantity: maybe(number),
  basis,
  note: text,
  withdrawn: z.boolean(),
  version: id,
  /** Since it was done last, or planned: hours at work, of which so many runs tell nothing; kg filled; days. */
  hours: number,
  withoutHours: number,
  kg: number,
  days: number,
  /** The last time; null: never. */
  done: maybe(z.object({ at: time, by: text, found: z.enum(FOUND), says: text })),
  /** The share of its interval that has gone; null where a test decides. */
  share: maybe(number),
  due: maybe(due),
  /** In how many days it comes, by the calendar and by what the printer did of late; null where nothing tells. */
  inDays: maybe(number),
})
export type UpkeepTask = z.output<typeof upkeepTask>

const upkeepLine = z.object({
  id,
  taskId: id,
  task: text,
  printer: text,
  printerId: id,
  found: z.enum(FOUND),
  says: text,
  at: time,
  by: text,
  struck: struckFor,
})
export type UpkeepLine = z.output<typeof upkeepLine>

export const upkeep = z.object({
  printers: z.array(
    z.object({
      id,
      name: text,
      /** What its parts say can be tested. */
      guards: z.array(z.enum(GUARDS)),
      /** Those in use first. */
      tasks: z.array(upkeepTask),
    }),
  ),
  /** The latest first. */
  entries: z.array(upkeepLine),
})
export type Upkeep = z.output<typeof upkeep>
export type UpkeepPrinter = Upkeep['printers'][number]
export const planEffect = z.object({ id, added: number })
