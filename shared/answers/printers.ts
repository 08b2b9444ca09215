/** Printers: their limits as the lanes show them, their stacks, and what was changed on them. */
import { z } from 'zod'
import {
  AIR_PLACES,
  AIR_TRUST,
  OPENINGS,
  PLACES,
  ROLES,
  type AirSource,
  type FittedNozzle,
  type Part,
  type Sensors,
} from '#core/limits'
import type { Correction } from '#core/thermometry'
import { NOZZLE_MATERIALS } from '#core/wear'
import { detailsSchema } from '../entries/printers'
import { id, maybe, number, partBasis, struckBy, text, time } from './parts'

/** A part that can decide a zone, the strictest first; of the hotend for each head. */
export const zoneLimit = z.object({
  id: z.union([id, text]),
  zone: z.enum(['hotend', 'bed', 'chamber']),
  headId: maybe(id),
  limitC: number,
  /** Up to here it is fine, above `shortC` it is short. */
  fineC: number,
  shortC: number,
  of: z.enum(['setpoint', 'air']),
  /** The part stands in the air that the bed or the heater makes. */
  inAir: z.boolean(),
  /** A bed limit that counts while the chamber heater is off. */
  heaterOff: z.boolean(),
  part: text,
  basis: partBasis,
  note: text,
  enteredBy: maybe(text),
  enteredAt: maybe(time),
})
export type ZoneLimit = z.output<typeof zoneLimit>

export const printerLine = z.object({
  id,
  name: text,
  kind: text,
  note: text,
  restrictions: z.array(text),
  outOfUse: z.boolean(),
  version: id,
  heads: z.array(
    z.object({ id, name: text, nozzleId: maybe(id), nozzle: maybe(text), hotendId: maybe(id), hotend: maybe(text) }),
  ),
  limits: z.array(zoneLimit),
  /** Spool of the latest run, offered again. */
  lastSpoolId: maybe(id),
})
export type PrinterLine = z.output<typeof printerLine>

const part = z.object({
  id: z.union([id, text]),
  kind: text,
  role: z.enum([...ROLES, 'nozzle']),
  name: text,
  headId: maybe(id),
  place: z.enum(PLACES),
  limitC: maybe(number),
  shortC: maybe(number),
  basis: partBasis,
  note: text,
  details: detailsSchema,
}) satisfies z.ZodType<Part>
export const storedPart = part.extend({ id, version: id, enteredBy: text, enteredAt: time })
export type StoredPart = z.output<typeof storedPart>

export const fittedNozzle = z.object({
  id: z.union([id, text]),
  tag: text,
  material: z.enum(NOZZLE_MATERIALS),
  boreMm: number,
  insert: z.boolean(),
  lengthMm: number,
  headId: maybe(id),
  price: number,
}) satisfies z.ZodType<FittedNozzle>

const airSource = z.object({
  trust: z.enum(AIR_TRUST),
  by: z.enum(['bed', 'heater']),
  opening: z.enum(OPENINGS),
  fan: z.boolean().nullable(),
  place: z.enum(AIR_PLACES),
  value: number,
  u: number,
  from: text,
}) satisfies z.ZodType<AirSource>
const checkedAt = z.object({
  points: z.array(z.object({ shownC: number, cC: number, uC: number })).readonly(),
  from: text,
})
export const correction = maybe(
  z.object({ own: maybe(checkedAt), atLeast: maybe(checkedAt) }),
) satisfies z.ZodType<Correction | null>
const sensors = z.object({
  heads: z.record(z.coerce.number(), correction),
  bed: correction,
  chamber: correction,
}) satisfies z.ZodType<Sensors>
export const stackPrinter = z.object({
  id,
  name: text,
  kind: text,
  note: text,
  outOfUse: z.boolean(),
  version: id,
  heads: z.array(z.object({ id, name: text, nozzle: maybe(fittedNozzle) })),
  parts: z.array(storedPart),
  /** What was measured of the air in its chamber. */
  air: z.array(airSource),
  /** What the shop dries in; the same for every printer. */
  dryers: z.array(part),
  /** What checks found of its sensors; absent where nobody has checked any. */
  sensors: sensors.optional(),
})
export type StackPrinter = z.output<typeof stackPrinter>

export const changeLine = z.object({
  id,
  printerId: id,
  kind: z.enum(['described', 'changed', 'tagged']),
  text,
  at: time,
  person: text,
  struck: struckBy,
})
export type ChangeLine = z.output<typeof changeLine>

export const changeEffect = z.object({ id, printer: text, limits: z.array(zoneLimit) })
export const fittingEffect = z.object({ id, tag: text, removed: maybe(text) })
