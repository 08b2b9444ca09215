/** Cards of what worked, in words and as a form. */
import {
  bondShare,
  CARD_FIELDS,
  CARD_KEYS,
  countWords,
  spreadWords,
  valueWords,
  type CardKey,
  type CardValue,
} from '#core/cards'
import { SURFACES } from '#core/limits'
import { percent } from '#core/words'
import type { Card } from '#shared/answers/cards'
import type { FormField } from '~/components/stores/form-field'

/** How often it was tried here. */
export const triedWords = (c: Card) => (c.good + c.failed === 0 ? 'no run yet' : countWords(c.good, c.failed))
export const bondWords = (h: NonNullable<Card['hand']>) =>
  h.bondAlongN === null || h.bondAcrossN === null
    ? ''
    : `${percent(bondShare(h.bondAlongN, h.bondAcrossN))} of its strength across the layers ` +
      `(${h.bondAcrossN} N, ${h.bondAlongN} N along)`

/** Where a value is from, and what the runs used besides. */
export const howWords = (v: CardValue) => [v.by === 'hand' ? 'by hand' : '', spreadWords(v)].filter(Boolean).join('; ')

/** What decides first, in one line: "nozzle 280 °C, bed 100 °C, part fan 0 %". */
const FIRST: readonly CardKey[] = ['nozzleC', 'bedC', 'chamberC', 'fanPercent']
export const firstValues = (c: Card) =>
  c.values
    .filter(v => FIRST.includes(v.key))
    .map(v => `${CARD_FIELDS[v.key].label.toLowerCase()} ${valueWords(v.key, v.value)}`)
    .join(', ')

export const EMPTY_CARD: Record<string, unknown> = {
  ...Object.fromEntries(CARD_KEYS.map(k => [k, null])),
  bondAlongN: null,
  bondAcrossN: null,
  adhesive: '',
  outcome: '',
  note: '',
}
export const CARD_FORM: FormField[] = [
  ...CARD_KEYS.map((key): FormField => ({
    key,
    label: CARD_FIELDS[key].label,
    kind: 'number',
    unit: CARD_FIELDS[key].unit,
  })),
  {
    key: 'adhesive',
    label: 'Sheet and adhesive',
    kind: 'text',
    list: [...SURFACES],
  },
  {
    key: 'bondAlongN',
    label: 'Bar broken along the layers',
    kind: 'number',
    unit: 'N',
    hint: 'both bars, the same size',
  },
  { key: 'bondAcrossN', label: 'Bar broken across the layers', kind: 'number', unit: 'N' },
  { key: 'outcome', label: 'How it came out', kind: 'text', hint: 'clean, corners down' },
  { key: 'note', label: 'Note', kind: 'text' },
]
