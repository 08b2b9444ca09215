/** Spools and what happens to them. */
import { SPOOL_KINDS } from '../choices'
import { z } from 'zod'
import { MOST_FILLER } from '#core/materials'
import { DRYING_C, HUB_WORDS, RH_PERCENT } from '#core/drying'
import { howMany, id, between, confirmed, note, replaces, share, when, tag } from './fields'

export const spoolEventSchema = z
  .object({
    spoolId: id,
    kind: z.enum(SPOOL_KINDS),
    grossG: between(1, 25_000, 'g').nullable().default(null),
    headId: id.nullable().default(null),
    /** Air it goes into, where it is not the shop's usual. */
    roomC: between(-20, 60, '°C').nullable().default(null),
    rh: between(...RH_PERCENT, '%')
      .nullable()
      .default(null),
    /** How a drying that the app did not time was done. */
    atC: between(...DRYING_C, '°C')
      .nullable()
      .default(null),
    hours: between(0.1, 500, 'h').nullable().default(null),
    note,
    occurredAt: when,
    confirmed,
    replaces,
  })
  .refine(e => e.kind === 'dried' || (e.atC === null && e.hours === null), {
    path: ['hours'],
    error: 'Only a drying has a temperature and hours',
  })
  .refine(e => (e.kind === 'weighed') === (e.grossG !== null), {
    path: ['grossG'],
    error: 'Enter the weight with the spool, in g',
  })

const spoolFields = z.object({
  tareG: between(0, 5000, 'g').nullable().default(null),
  /** Empty while nobody knows: it is asked for where a spool is dried. */
  hub: z.enum(['', ...HUB_WORDS], { error: 'Choose what the hub is made of' }).default(''),
  densityGCm3: between(0.5, 10, 'g/cm³').nullable().default(null),
  fillerFraction: share(0, MOST_FILLER, 'wt%').nullable().default(null),
  note,
})
export const spoolSchema = spoolFields.extend({
  tag,
  howMany,
  materialId: id,
  diameterMm: between(1, 3.5, 'mm'),
  netG: between(10, 20_000, 'g'),
})
/** What an edit may put right; what is not named stays. */
export const spoolEditFields = spoolSchema
  .omit({ howMany: true })
  .partial({ tag: true, materialId: true, diameterMm: true, netG: true })
