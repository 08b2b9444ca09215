/** Printers: their limits as the lanes show them, their stacks, and what was changed on them. */
import { z } from 'zod'
import { PLACES, ROLES, type FittedNozzle, type Part } from '#core/limits'
import { NOZZLE_MATERIALS } from '#core/wear'
import { detailsSchema } from '../entries/printers'
import { basis, id, maybe, number, struckBy, text, time } from './parts'

/** The deciding part of a zone; of the hotend for each head. */
export const zoneLimit = z.object({
  id: z.union([id, text]),
  zone: z.enum(['hotend', 'bed', 'chamber']),
  headId: maybe(id),
  limitC: number,
  part: text,
  basis,
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
  outOfUse: z.boolean(),
  version: id,
  heads: z.array(z.object({ id, name: text, nozzleId: maybe(id), nozzle: maybe(text) })),
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
  basis,
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

export const stackPrinter = z.object({
  id,
  name: text,
  kind: text,
  note: text,
  outOfUse: z.boolean(),
  version: id,
  heads: z.array(z.object({ id, name: text, nozzle: maybe(fittedNozzle) })),
  parts: z.array(storedPart),
})
export type StackPrinter = z.output<typeof stackPrinter>

export const changeLine = z.object({
  id,
  printerId: id,
  kind: z.enum(['described', 'changed']),
  text,
  at: time,
  person: text,
  struck: struckBy,
})
export type ChangeLine = z.output<typeof changeLine>

export const changeEffect = z.object({ id, printer: text, limits: z.array(zoneLimit) })
export const fittingEffect = z.object({ id, tag: text, removed: maybe(text) })
