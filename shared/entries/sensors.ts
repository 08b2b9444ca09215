/** References, and sensors checked against them. */
import { z } from 'zod'
import { InputError } from '#core/numeric'
import {
  ALLOWED_C,
  CERTIFICATE_UC,
  checkReference,
  COLD_C,
  LEAD_OHM,
  METER,
  MOST_POINTS,
  PLACEMENTS,
  PLATINUM_BUILDS,
  PLATINUM_CLASSES,
  R0_OHM,
  READ_IN,
  REFERENCE_KINDS,
  SENSED,
  SHOWN_C,
  SWING_C,
  THERMOCOUPLE_CLASSES,
  THERMOCOUPLES,
  WIRINGS,
  type Allowed,
  type Reference,
} from '#core/thermometry'
import { between, confirmed, id, maybe, name, note, replaces, when } from './fields'

const oneOf = <T extends number>(words: readonly T[]) =>
  z
    .literal([...words])
    .nullable()
    .default(null)

/** What the reference is; the same rules as the core's, each at its field. */
export const referenceSchema = z
  .object({
    kind: z.enum(REFERENCE_KINDS, { error: 'Choose one' }),
    readsIn: z.enum(READ_IN, { error: 'Choose one' }),
    type: z.enum(THERMOCOUPLES).nullable().default(null),
    coupleClass: oneOf(THERMOCOUPLE_CLASSES),
    r0Ohm: maybe(...R0_OHM, 'Ω').default(null),
    build: z.enum(PLATINUM_BUILDS).nullable().default(null),
    platinumClass: z.enum(PLATINUM_CLASSES).nullable().default(null),
    wires: oneOf(WIRINGS),
    leadOhm: maybe(...LEAD_OHM, 'Ω').default(null),
    uLeadOhm: maybe(...LEAD_OHM, 'Ω').default(null),
    certificateUC: maybe(...CERTIFICATE_UC, '°C').default(null),
    meter: between(...METER, ''),
  })
  .superRefine((r, ctx) => {
    try {
      checkReference(r)
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      ctx.addIssue({ code: 'custom', path: [e.field], message: `Enter ${e.allowed}` })
    }
  }) satisfies z.ZodType<Reference>

export const referenceFields = z.object({
  name: name(60),
  is: referenceSchema,
  /** The last day its certificate holds. */
  dueOn: z.iso.date({ error: 'Enter a date' }).nullable().default(null),
  note,
  withdrawn: z.boolean().default(false),
})

/** A number that may be any that its reference reads; the core says which those are. */
const reading = between(-1e6, 1e6, '')

export const allowedSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('platinum'), class: z.enum(PLATINUM_CLASSES), build: z.enum(PLATINUM_BUILDS) }),
  z.object({
    by: z.literal('thermocouple'),
    type: z.enum(THERMOCOUPLES),
    class: z.literal([...THERMOCOUPLE_CLASSES]),
  }),
  z.object({ by: z.enum(['data sheet', 'guard band']), plusMinusC: between(...ALLOWED_C, '°C') }),
]) satisfies z.ZodType<Allowed>

export const pointSchema = z.object({
  shownC: between(...SHOWN_C, '°C'),
  reading,
  coldC: maybe(...COLD_C, '°C').default(null),
  swingC: between(...SWING_C, '°C').default(0),
})

export const sensorCheckSchema = z.object({
  printerId: id,
  zone: z.enum(SENSED, { error: 'Choose one' }),
  headId: id.nullable().default(null),
  referenceId: id,
  placement: z.enum(PLACEMENTS, { error: 'Say where the reference sits' }),
  points: z.array(pointSchema).min(1, 'Enter at least one point').max(MOST_POINTS, `At most ${MOST_POINTS} points`),
  allowed: allowedSchema,
  note,
  occurredAt: when,
  confirmed,
  replaces,
})
