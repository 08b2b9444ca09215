/** Dryers, dryings, soaks, warm-ups, changeovers, anneals, and the check before a run. */
import { z } from 'zod'
import { SAND_MM, THICKNESS_MM } from '#core/anneal'
import { PART_SIZES } from '#core/chamber'
import { AIR_PLACES, OPENINGS } from '#core/limits'
import { REASON_CHARS } from '#core/precheck'
import { DRYER_KINDS, DRYING_C, TIME_OUT_H, WATER_WT } from '#core/drying'
import { name, between, maybe, id, basis, note, gross, when, confirmed, text } from './fields'
import { jobSchema, scanFields } from './runs'

export const dryerFields = z.object({
  name: name(40),
  kind: z.enum(DRYER_KINDS),
  ceilingC: between(30, 300, '°C'),
  timeOutH: maybe(...TIME_OUT_H, 'h').default(null),
  printerId: id.nullable().default(null),
  basis,
  note,
  withdrawn: z.boolean().default(false),
})
export const dryerSchema = dryerFields.refine(d => d.kind !== 'bed under a cover' || d.printerId !== null, {
  path: ['printerId'],
  error: 'Choose the printer whose bed it is',
})
/** A line of the shop's own in the check before a run; for every printer or filament where none is chosen. */
export const checkLineSchema = z.object({
  says: text(200).min(3, 'Say what is looked at'),
  printerId: id.nullable().default(null),
  materialId: id.nullable().default(null),
  withdrawn: z.boolean().default(false),
})
/** A drying that begins: where, how hot, for how long. */
export const dryingSchema = z.object({
  spoolId: id,
  dryerId: id,
  setC: between(...DRYING_C, '°C'),
  plannedH: between(0.1, 500, 'h'),
  targetWt: between(...WATER_WT, 'wt%')
    .nullable()
    .default(null),
  grossG: gross,
  note,
  occurredAt: when,
  confirmed,
})
export const soakSchema = z.object({
  printerId: id,
  materialId: id.nullable().default(null),
  targetC: between(20, 250, '°C').nullable().default(null),
  bedC: between(0, 300, '°C'),
  /** Setpoint of a chamber heater while it soaks. */
  chamberSetC: between(20, 250, '°C').nullable().default(null),
  part: z.enum(PART_SIZES),
  minutes: between(0, 1440, 'min'),
  basis: z.enum(['warm-up record', 'practice']),
  note,
  occurredAt: when,
  confirmed,
})
export const warmUpSchema = z
  .object({
    printerId: id,
    /** Where the probe was, and how the lid was. */
    place: z.enum(AIR_PLACES, { error: 'Choose where the probe was' }),
    opening: z.enum(OPENINGS).default('shut'),
    bedC: between(0, 300, '°C'),
    chamberSetC: between(20, 250, '°C').nullable().default(null),
    roomC: between(-20, 60, '°C'),
    note,
    occurredAt: when,
    /** From the readings kept during a soak, or from a probe's file. */
    soakId: id.nullable().default(null),
    readings: z
      .array(z.object({ s: z.number().min(0).max(1e6), c: between(-40, 400, '°C') }))
      .max(20_000)
      .nullable()
      .default(null),
  })
  .refine(w => (w.soakId === null) !== (w.readings === null), {
    path: ['readings'],
    error: 'Either the readings of a soak or those of a file',
  })
/** Where the probe of an older warm-up was, told afterwards. */
export const warmUpPlaceSchema = z.object({
  warmUpId: id,
  place: z.enum(AIR_PLACES, { error: 'Choose where the probe was' }),
  occurredAt: when,
})
export const changeoverSchema = z.object({
  headId: id,
  nozzleId: id,
  fromMaterialId: id.nullable().default(null),
  toMaterialId: id.nullable().default(null),
  atC: between(100, 600, '°C'),
  volumeMm3: between(0, 100_000, 'mm³'),
  clean: z.boolean(),
  note,
  occurredAt: when,
  confirmed,
})
export const annealSchema = z.object({
  name: name(120),
  materialId: id,
  dryerId: id,
  atC: between(30, 300, '°C'),
  holdH: between(0, 200, 'h'),
  rampCPerH: between(1, 600, '°C an hour'),
  thicknessMm: between(...THICKNESS_MM, 'mm'),
  /** Sand on each side of it; null when it lies free. */
  sandMm: between(...SAND_MM, 'mm')
    .nullable()
    .default(null),
  note,
  occurredAt: when,
  confirmed,
})
const answer = z
  .object({ index: z.number().int().min(0).max(100), how: z.enum(['looked', 'waived']), reason: text(300).default('') })
  .refine(a => a.how !== 'waived' || a.reason.length >= REASON_CHARS, {
    path: ['reason'],
    error: 'Say why it is waived',
  })
/** A setpoint that a person enters, °C. */
const SET_BY_HAND_C = [0, 600] as const
const setByHand = between(...SET_BY_HAND_C, '°C')
  .nullable()
  .default(null)
/** What the check is made of; its lines are worked out by the server. */
export const precheckSchema = z.object({
  printerId: id,
  headId: id,
  spoolId: id.nullable().default(null),
  materialId: id,
  printsFrom: z.enum(['room', 'dry box', 'dryer']),
  hours: between(0, 2000, 'h').nullable().default(null),
  name: name(255),
  contentSha256: jobSchema.shape.contentSha256.nullable().default(null),
  /** Of a file that was read here: with it the job is stored along with the check. */
  sizeBytes: jobSchema.shape.sizeBytes.nullable().default(null),
  scan: scanFields.nullable().default(null),
  tool: z.number().int().min(0).default(0),
  /** Setpoints as they will be entered at the printer, where the file sets none. */
  setC: z.object({ nozzleC: setByHand, bedC: setByHand, chamberC: setByHand }).nullable().default(null),
  answers: z.array(answer).max(60).default([]),
  /** The lines that the answers were given to, as key and status; null before there are any. */
  seen: z.array(z.string().max(2000)).max(100).nullable().default(null),
  note,
  occurredAt: when,
})
