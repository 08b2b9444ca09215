/** Fields of a practice set and of a fact, for the one form that serves all records. */
import { CHAMBER_LEVELS, SURFACES, VALUES, type PracticeSet, type ValueKey } from '#core/limits'
import { ENTERED_BASES as BASES } from '#shared/choices'
import type { FormField } from '~/components/stores/form-field'

const choices = (values: readonly string[]) => values.map(value => ({ value, text: value }))
const number = (key: string, label: string, unit: string): FormField => ({ key, label, kind: 'number', unit })

export const SET_FIELDS: FormField[] = [
  { key: 'name', label: 'Name of the practice', kind: 'text', hint: 'like open frame, or bed at 120' },
  { key: 'conditions', label: 'Works when', kind: 'text', hint: 'the conditions of this school' },
  number('bedMinC', 'Bed, lowest', '°C'),
  number('bedMaxC', 'Bed, highest', '°C'),
  {
    key: 'chamber',
    label: 'A warm chamber',
    kind: 'select',
    options: [
      { value: 'needs', text: 'is needed' },
      { value: 'helps', text: 'helps' },
      { value: 'indifferent', text: 'makes no difference' },
    ],
  },
  { key: 'enclosed', label: 'Only inside an enclosure', kind: 'check' },
  number('chamberMinC', 'Chamber, lowest', '°C'),
  number('chamberMaxC', 'Chamber, highest', '°C'),
  { key: 'dry', label: 'It is dried', kind: 'check' },
  {
    key: 'surfaces',
    label: 'Holds on',
    kind: 'text',
    hint: 'sheet, or sheet + adhesive; several with commas',
    list: [...SURFACES],
  },
  number('dryMinC', 'Drying, lowest', '°C'),
  number('dryMaxC', 'Drying, highest', '°C'),
  number('dryHoursMin', 'Drying, least', 'h'),
  number('dryHoursMax', 'Drying, most', 'h'),
  { key: 'basis', label: 'Basis', kind: 'select', options: choices(BASES) },
  { key: 'note', label: 'Note', kind: 'text' },
  { key: 'withdrawn', label: 'Withdrawn: no longer offered', kind: 'check' },
]
export const emptySet = (): Record<string, unknown> => ({
  name: '',
  conditions: '',
  enclosed: false,
  bedMinC: null,
  bedMaxC: null,
  chamber: CHAMBER_LEVELS[2],
  chamberMinC: null,
  chamberMaxC: null,
  dry: true,
  dryMinC: null,
  dryMaxC: null,
  dryHoursMin: null,
  dryHoursMax: null,
  surfaces: '',
  basis: 'data sheet',
  note: '',
  withdrawn: false,
})
export const setToForm = (s: PracticeSet & { withdrawn?: boolean }): Record<string, unknown> => ({
  ...Object.fromEntries(SET_FIELDS.map(f => [f.key, s[f.key as keyof PracticeSet] ?? null])),
  surfaces: s.surfaces.join(', '),
  withdrawn: s.withdrawn ?? false,
})
/** Surfaces are typed as one line and kept as a list. */
export const setOfForm = (raw: Record<string, unknown>) => ({
  ...raw,
  surfaces: String(raw.surfaces ?? '')
    .split(',')
    .map(t => t.trim())
    .filter(Boolean),
})

export const factFields = (key: ValueKey): FormField[] => [
  { key: 'value', label: VALUES[key].label, kind: 'number', unit: VALUES[key].unit },
  { key: 'basis', label: 'Basis', kind: 'select', options: choices(BASES) },
  { key: 'note', label: 'Note', kind: 'text', hint: 'which sheet, which page' },
]
