/** Procedures with their ticks, the nozzles that may be taken, printers out of service, notes to the next shift. */
import { z } from 'zod'
import { Z_WAYS } from '#core/changeover'
import { GUARDS } from '#core/chamber'
import type {
  ClogFacts,
  Field,
  HeadFacts,
  HotendFacts,
  HotendThing,
  Proof,
  Step,
  SwapFacts,
  SwapNozzle,
  Wait,
} from '#core/procedures'
import type { Standing } from '#core/schedule'
import { NOZZLE_MATERIALS } from '#core/wear'
import { PROCEDURE_KINDS } from '../entries/change'
import { id, maybe, number, struckFor, text, time } from './parts'
import { fittedNozzle } from './printers'

const asked = { key: text, label: text, help: text, required: z.boolean() }
const field = z.union([
  z.object({ ...asked, kind: z.literal('number'), unit: text, low: number, high: number }),
  z.object({ ...asked, kind: z.literal('choice'), choices: z.array(z.object({ value: text, text })).readonly() }),
  z.object({ ...asked, kind: z.literal('text') }),
  z.object({ ...asked, kind: z.literal('photo') }),
]) satisfies z.ZodType<Field>
const wait = z.object({
  heater: z.enum(['nozzle', 'bed', 'chamber']),
  head: z.number(),
  setC: number,
}) satisfies z.ZodType<Wait>
const proof = z.object({
  of: z.enum(['cut-out test', 'sensor check', 'chamber', 'nozzle', 'level']),
  guard: maybe(z.enum(GUARDS)),
  headId: maybe(id),
  since: text.optional(),
}) satisfies z.ZodType<Proof>
const step = z.object({
  key: text,
  title: text,
  says: z.array(text).readonly(),
  hazards: z.array(z.object({ hazard: text, what: text })).readonly(),
  fields: z.array(field).readonly(),
  wait: maybe(wait),
  proof: maybe(proof),
  recalls: z.array(text).readonly().optional(),
  after: maybe(z.array(text).readonly()),
}) satisfies z.ZodType<Step>

const swapNozzle = z.object({
  id,
  tag: text,
  words: text,
  lengthMm: number,
  lengthBy: z.enum(['gauge', 'type']),
  insert: z.boolean(),
  plated: z.boolean(),
  brittle: z.boolean(),
}) satisfies z.ZodType<SwapNozzle>
const headFacts = z.object({
  place: text,
  head: z.number(),
  resnug: maybe(z.object({ setC: number, job: text })),
  torque: z.object({ newtonMetre: number, by: z.enum(['maker', 'nozzle neck', 'block thread']) }),
  sock: z.boolean(),
  liner: z.boolean(),
  materials: z.array(z.object({ id, name: text, purgeC: maybe(number) })).readonly(),
  holds: maybe(text),
  zWay: maybe(z.enum(Z_WAYS)),
  zMm: maybe(number),
}) satisfies z.ZodType<HeadFacts>
const swapFacts = headFacts.extend({
  old: maybe(swapNozzle),
  fresh: swapNozzle,
  turn: z.object({ setC: number, material: maybe(text) }),
}) satisfies z.ZodType<SwapFacts>

const inside = z.object({ id, tag: text, words: text })
const hotendThing = z.object({
  id,
  tag: text,
  nozzle: maybe(inside),
  heater: maybe(text),
  sensor: maybe(text),
}) satisfies z.ZodType<HotendThing>
const hotendFacts = headFacts.extend({
  headId: id,
  old: maybe(hotendThing),
  fresh: hotendThing.extend({ nozzle: inside }),
  sameSensor: maybe(z.boolean()),
  firmware: z.object({ wasC: maybe(number), mostC: number, weakest: text }),
  snug: z.object({ setC: number, material: maybe(text) }),
  tuneC: number,
  roomC: number,
}) satisfies z.ZodType<HotendFacts>

/** What cannot be worked out in this shop yet, or must not be done; `where` leads to what is missing. */
const refusal = maybe(z.object({ says: text, where: maybe(text), action: text }))
/** The procedure that is under way there already. */
const under = maybe(z.object({ id, title: text }))

/** What each offer says of its head. */
const offered = {
  headId: id,
  place: text,
  printer: text,
  printerId: id,
  /** Why it must not be done; null when it may. */
  refusal,
  under,
  coming: z.array(text),
}

/** What may be taken for a head, and how it would go; `refusal`: why its nozzle is not turned at all. */
export const swapOffer = z.object({
  ...offered,
  old: maybe(swapNozzle),
  /** The hotend that is proposed instead; null where the nozzle is better swapped. */
  hotend: maybe(hotendThing.extend({ says: text, minutes: number })),
  choices: z.array(z.object({ nozzle: fittedNozzle, good: z.boolean(), says: z.array(text), facts: maybe(swapFacts) })),
})
export type SwapOffer = z.output<typeof swapOffer>

/** Which hotend may be taken for a head, and how it would go. */
export const hotendOffer = z.object({
  ...offered,
  old: maybe(hotendThing),
  /** Why its nozzle may not be turned; null when it may. */
  nozzle: maybe(text),
  choices: z.array(
    hotendThing.extend({
      good: z.boolean(),
      says: z.array(text),
      minutes: number,
      /** Why it may not go on this head at all. */
      refusal: maybe(text),
      facts: maybe(hotendFacts),
    }),
  ),
})
export type HotendOffer = z.output<typeof hotendOffer>

const clogFacts = headFacts
  .pick({ place: true, head: true, sock: true, liner: true, materials: true, holds: true })
  .extend({
    nozzle: swapNozzle,
    material: z.enum(NOZZLE_MATERIALS),
    boreMm: number,
    softC: number,
    pullC: maybe(number),
  }) satisfies z.ZodType<ClogFacts>
/** How a clog on a head would be cleared. */
export const clogOffer = z.object({
  ...offered,
  facts: maybe(clogFacts),
})
export type ClogOffer = z.output<typeof clogOffer>

const tick = z.object({
  id,
  step: text,
  at: time,
  by: text,
  values: z.record(text, z.union([text, number, z.null()])),
  readC: maybe(number),
  readBy: maybe(z.enum(['printer', 'person'])),
  /** Struck out: it stays readable, and the step is open again. */
  struck: struckFor,
})
export type Tick = z.output<typeof tick>
const ended = z.object({ outcome: z.enum(['done', 'stopped early']), at: time, by: text, note: text })

export const procedureLine = z.object({
  id,
  kind: z.enum(PROCEDURE_KINDS),
  title: text,
  printer: text,
  printerId: id,
  headId: maybe(id),
  done: z.number(),
  of: z.number(),
  /** The step that comes next, and who did the last. */
  next: maybe(text),
  begunAt: time,
  by: text,
  lastAt: time,
  lastBy: text,
  ended: maybe(ended),
  struck: struckFor,
})
export type ProcedureLine = z.output<typeof procedureLine>

export const procedurePage = procedureLine.extend({
  /** What a swap was worked out from; null for another kind. */
  swap: maybe(swapFacts),
  /** And what a change of a hotend was. */
  hotend: maybe(hotendFacts),
  /** Of steps that a record proves: which one, in words; null while there is none. */
  proofs: z.record(text, maybe(text)),
  steps: z.array(step),
  ticks: z.array(tick),
  /** What it was worked out from and is so no longer, in words; empty while it holds. */
  changed: z.array(text),
  note: text,
})
export type ProcedurePage = z.output<typeof procedurePage>

export const standing = z.object({
  procedures: z.array(z.object({ id, title: text, done: z.number(), of: z.number(), by: text })).readonly(),
  tags: z.array(z.object({ id, why: text, by: text })).readonly(),
  notes: z.array(z.object({ id, says: text, by: text })).readonly(),
  toCommission: z.boolean(),
}) satisfies z.ZodType<Standing>

const tagLine = z.object({
  id,
  printerId: id,
  printer: text,
  why: text,
  must: z.array(text),
  procedureId: maybe(id),
  at: time,
  by: text,
  back: maybe(z.object({ at: time, by: text, proved: z.array(z.object({ what: text, how: text })), note: text })),
  struck: struckFor,
})
export type TagLine = z.output<typeof tagLine>
const noteLine = z.object({
  id,
  printerId: id,
  printer: text,
  says: text,
  at: time,
  by: text,
  read: maybe(z.object({ at: time, by: text })),
  struck: struckFor,
})
export type NoteLine = z.output<typeof noteLine>

/** Change at one look. */
export const change = z.object({
  printers: z.array(
    z.object({
      id,
      name: text,
      standing,
      heads: z.array(
        z.object({
          id,
          name: text,
          place: text,
          nozzle: maybe(text),
          hotend: maybe(text),
          /** Why its nozzle is due to be changed; null while it is not. */
          due: maybe(text),
        }),
      ),
    }),
  ),
  procedures: z.array(procedureLine),
  tags: z.array(tagLine),
  notes: z.array(noteLine),
})
export type Change = z.output<typeof change>

/** What a tick did: `already` when somebody had done the step before. */
export const tickEffect = z.object({
  id,
  title: text,
  already: maybe(z.object({ by: text, at: time })),
  done: z.number(),
  of: z.number(),
})
