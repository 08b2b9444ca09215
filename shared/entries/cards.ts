/** Cards of what worked, as a person writes them. */
import { z } from 'zod'
import { BOND_N, CARD_FIELDS, CARD_KEYS, type CardKey } from '#core/cards'
import { id, maybe, note, text } from './fields'

const numbers = Object.fromEntries(
  CARD_KEYS.map(k => [k, maybe(...CARD_FIELDS[k].range, CARD_FIELDS[k].unit).default(null)]),
) as Record<CardKey, ReturnType<ReturnType<typeof maybe>['default']>>
const bond = maybe(...BOND_N, 'N').default(null)
export const cardFields = z
  .object({
    ...numbers,
    /** Bars printed for the purpose and broken: pulled along the layers, and across them. */
    bondAlongN: bond,
    bondAcrossN: bond,
    adhesive: text(80).default(''),
    outcome: text(300).default(''),
    note,
  })
  .refine(c => (c.bondAlongN === null) === (c.bondAcrossN === null), {
    path: ['bondAcrossN'],
    error: 'One alone tells nothing: break a bar along and a bar across',
  })
export const cardSchema = z.object({ materialId: id, typeId: id, printerId: id, card: cardFields })
export type CardEntry = z.input<typeof cardSchema>
