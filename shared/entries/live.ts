/** The stand-ins' own panels. */
import { z } from 'zod'
import { SENSED } from '#core/thermometry'
import { between, id, name } from './fields'

/** The stand-in's own panel: what a hand at the machine would do. Real printers have no such door. */
export const standInSchema = z.discriminatedUnion('what', [
  z.object({
    what: z.literal('set'),
    printer: name(40),
    heater: z.enum(['nozzle', 'bed', 'chamber']),
    /** Which head, from 0, of a printer with several. */
    head: z.number().int().min(0).max(15).default(0),
    celsius: between(0, 500, '°C'),
  }),
  z.object({ what: z.literal('door'), printer: name(40), open: z.boolean() }),
  /** A probe of the stand-in thermometer is held to a sensor. */
  z.object({
    what: z.literal('probe'),
    channel: z.number().int().min(1).max(4),
    printerId: id,
    zone: z.enum(SENSED),
    headId: id.nullable().default(null),
  }),
  /** Its probes are hung in a chamber, mm; those that are not named hang in the room. */
  z.object({
    what: z.literal('probes'),
    printerId: id,
    at: z
      .array(z.object({ channel: z.number().int().min(1).max(4), mm: z.array(between(-9999, 9999, 'mm')).length(3) }))
      .max(4),
  }),
])
