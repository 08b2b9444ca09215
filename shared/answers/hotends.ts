/** Hotends as things: where each is, what is inside, and where it was. */
import { z } from 'zod'
import type { Hotend } from '#core/limits'
import { id, maybe, struckBy, text, time } from './parts'
import { fittedNozzle, storedPart } from './printers'

/** A hotend as it stands: what limits are worked out from, and where it is. */
export const hotendNow = z.object({
  id,
  tag: text,
  note: text,
  version: id,
  /** The head that it sits on; null on the shelf. */
  place: maybe(z.object({ printerId: id, headId: id, words: text })),
  /** On its head since then; on the shelf, last changed then. */
  since: time,
  parts: z.array(storedPart),
  nozzle: maybe(fittedNozzle),
  /** The procedure under way that is to put it on a printer. */
  taken: maybe(z.object({ id, title: text })),
}) satisfies z.ZodType<Hotend>
export type HotendNow = z.output<typeof hotendNow>

/** The same with where it and all inside were, the latest first. */
export const hotendLine = hotendNow.extend({
  parts: z.array(storedPart.extend({ been: z.array(z.object({ at: time, words: text })) })),
  history: z.array(
    z.object({
      changeId: id,
      at: time,
      person: text,
      what: text,
      says: text,
      /** How it was described stays. */
      strikeable: z.boolean(),
      struck: struckBy,
    }),
  ),
})
export type HotendLine = z.output<typeof hotendLine>
