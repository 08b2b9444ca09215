/** Hotends as things: where each is, what is inside, and where it was. */
import { z } from 'zod'
import type { Hotend } from '#core/limits'
import { id, maybe, struckBy, text, time } from './parts'
import { fittedNozzle, storedPart } from './printers'

/** One hotend; what the core needs of it, and what a person asks. */
export const hotendLine = z.object({
  id,
  tag: text,
  note: text,
  version: id,
  /** The head that it sits on; null on the shelf. */
  place: maybe(z.object({ printerId: id, headId: id, words: text })),
  /** On its head since then; on the shelf, last changed then. */
  since: time,
  /** What is inside, each with where it was, the latest first. */
  parts: z.array(storedPart.extend({ been: z.array(z.object({ at: time, words: text })) })),
  nozzle: maybe(fittedNozzle),
  /** The procedure under way that is to put it on a printer. */
  taken: maybe(z.object({ id, title: text })),
  /** Latest first. */
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
/** What limits are worked out from. */
export const hotendOf = ({ id, tag, parts, nozzle }: HotendLine): Hotend => ({ id, tag, parts, nozzle })
