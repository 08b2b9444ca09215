/** Pin gauges and their certificates. */
import { z } from 'zod'
import { GAUGED_MM, PIN_CERTIFICATE_U_MM } from '#core/wear'
import { between, confirmed, id, name, note, when } from './fields'

/** An expanded uncertainty as certificates give it: twice the standard one (k = 2), µm. */
export const PIN_EXPANDED_UM = PIN_CERTIFICATE_U_MM.map(mm => mm * 2000) as [number, number]

export const pinFields = z.object({
  /** As it is written on the pin or its case, and typed in a gauge. */
  mark: name(20),
  nominalMm: between(...GAUGED_MM, 'mm'),
  note,
  withdrawn: z.boolean().default(false),
})

export const pinCertificateSchema = z
  .object({
    pinId: id,
    sizeMm: between(...GAUGED_MM, 'mm'),
    expandedUm: between(...PIN_EXPANDED_UM, 'µm'),
    /** The last day that it holds; null where it names none. */
    dueOn: z.iso.date({ error: 'Enter a date' }).nullable().default(null),
    note,
    /** When the pin was measured. */
    occurredAt: when,
    confirmed,
  })
  .superRefine((c, ctx) => {
    if (c.dueOn !== null && c.dueOn < c.occurredAt.slice(0, 10))
      ctx.addIssue({ code: 'custom', path: ['dueOn'], message: 'It would have run out before the pin was measured' })
  })
