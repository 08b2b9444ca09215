/** Hotends put together at the bench, and what is changed inside one on the shelf. */
import { z } from 'zod'
import { HOTEND_ROLES, isHotendRole, kindOf } from '#core/limits'
import { id, note, tag, text, when } from './fields'
import { describedPart, knownKind } from './printers'

const ofHotend = knownKind.refine(k => isHotendRole(kindOf(k).role), {
  error: `A hotend has: ${HOTEND_ROLES.join(', ')}`,
})
/** Parts that the shop had not recorded. */
const add = z
  .array(describedPart.omit({ head: true, place: true }).extend({ kind: ofHotend }))
  .max(40)
  .default([])
/** Parts from the shelf. */
const into = z.array(id).max(40).default([])

export const hotendSchema = z.object({
  /** Null: the next that is free. */
  tag: tag.nullable().default(null),
  note,
  add,
  into,
  nozzleId: id.nullable().default(null),
  occurredAt: when,
})
export type HotendEntry = z.input<typeof hotendSchema>

/** What comes out goes to the shelf. */
export const assemblySchema = z
  .object({
    hotendId: id,
    text: text(2000).min(3, 'Say what was done'),
    add,
    into,
    out: z.array(id).max(40).default([]),
    /** The nozzle that goes in; the one before comes out. */
    nozzleId: id.nullable().default(null),
    nozzleOut: z.boolean().default(false),
    occurredAt: when,
  })
  .refine(a => a.add.length + a.into.length + a.out.length > 0 || a.nozzleId !== null || a.nozzleOut, {
    path: ['text'],
    error: 'Nothing is changed',
  })

export const hotendFields = z.object({ note })
