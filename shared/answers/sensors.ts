/** Sensors: what checks found of each, which check counts, and when the next is due. */
import { z } from 'zod'
import { CHECK_VERDICTS, PLACEMENTS, SENSED } from '#core/thermometry'
import { allowedSchema, pointSchema, referenceSchema } from '../entries/sensors'
import { id, maybe, number, struckBy, text, time } from './parts'
import { zoneLimit } from './printers'

export const referenceLine = z.object({
  id,
  name: text,
  is: referenceSchema,
  dueOn: maybe(text),
  note: text,
  withdrawn: z.boolean(),
  version: id,
  checks: id,
})
export type ReferenceLine = z.output<typeof referenceLine>

export const sensorCheckLine = z.object({
  id,
  at: time,
  person: text,
  note: text,
  reference: text,
  referenceIs: referenceSchema,
  placement: z.enum(PLACEMENTS),
  points: z.array(pointSchema),
  allowed: allowedSchema,
  struck: struckBy,
  /** The sensor that sat there then still does, since before the check. */
  ofThisSensor: z.boolean(),
  /** Hours at heat since it was made. */
  hoursSince: number,
})
export type SensorCheckLine = z.output<typeof sensorCheckLine>

/** One sensor on one input of a printer. */
export const sensorLine = z.object({
  printerId: id,
  printer: text,
  zone: z.enum(SENSED),
  headId: maybe(id),
  head: maybe(text),
  /** The part that is described there; null where none is. */
  partId: maybe(id),
  sensor: maybe(text),
  /** What an unknown sensor may be off by: its part of the guard band, ± °C. */
  guardPartC: number,
  /** Its checks, the latest first, those struck out among them. */
  checks: z.array(sensorCheckLine),
})
export type SensorLine = z.output<typeof sensorLine>

export const verify = z.object({ sensors: z.array(sensorLine), references: z.array(referenceLine) })
export type Verify = z.output<typeof verify>

/** What a saved check says, and the limits of its zone before and after. */
export const sensorCheckEffect = z.object({
  id,
  verdict: z.enum(CHECK_VERDICTS),
  before: z.array(zoneLimit),
  after: z.array(zoneLimit),
})
