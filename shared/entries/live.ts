/** The stand-ins' own panels. */
import { z } from 'zod'
import { name, between } from './fields'

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
])
