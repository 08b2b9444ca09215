/** Fields of a part for the one form that serves all records: limits, basis, and what its role needs beside. */
import { BASES, KINDS, PLACE_WORDS, PLACES, PRACTICE_AIR, ROLES, SHEETS, VENTILATION, type Role } from '#core/limits'
import type { StoredPart } from '#shared/answers/printers'
import type { FormField, OpenRecord } from '~/components/stores/form-field'

const choices = (values: readonly string[]) => values.map(value => ({ value, text: value }))
/** Empty: the start value of its kind, or practice. */
const share = (practice: number) => `share of the way from room to bed; empty: start value, about ${practice}`

const DETAILS: Partial<Record<Role, FormField[]>> = {
  'sensor': [
    {
      key: 'details.element',
      label: 'Element',
      kind: 'select',
      options: [{ value: null, text: 'not known' }, ...choices(['ntc', 'platinum', 'type K'])],
    },
    { key: 'details.r25Ohm', label: 'Resistance (at 25 °C; platinum at 0)', kind: 'number', unit: 'Ω' },
    { key: 'details.betaK', label: 'Beta', kind: 'number', unit: 'K' },
    { key: 'details.pullUpOhm', label: 'Pull-up', kind: 'number', unit: 'Ω' },
    { key: 'details.bits', label: 'Converter', kind: 'number', unit: 'bits' },
  ],
  'gears': [{ key: 'details.hardened', label: 'They are hardened', kind: 'check' }],
  'feed tube': [
    { key: 'details.bendMm', label: 'Tightest bend, radius', kind: 'number', unit: 'mm' },
    {
      key: 'details.bendWay',
      label: 'The bend runs',
      kind: 'select',
      options: [
        { value: null, text: 'not known: counted as against' },
        { value: 'with', text: 'with the curl of the spool' },
        { value: 'against', text: 'against it' },
      ],
    },
    {
      key: 'details.freedBendMm',
      label: 'Bend when freed from its chain',
      kind: 'number',
      unit: 'mm',
      hint: 'empty when it cannot be freed',
    },
    { key: 'details.freedNeedsLidOff', label: 'Freed, it needs the lid off', kind: 'check' },
  ],
  'sheet': [
    {
      key: 'details.surface',
      label: 'Surface',
      kind: 'select',
      options: [{ value: '', text: 'not known' }, ...choices(SHEETS)],
    },
  ],
  'dryer': [{ key: 'details.reachC', label: 'It reaches', kind: 'number', unit: '°C' }],
  'chamber heater': [{ key: 'details.reachC', label: 'It reaches', kind: 'number', unit: '°C' }],
  'lid': [
    {
      key: 'details.opening',
      label: 'How it is',
      kind: 'select',
      options: [
        { value: null, text: 'on, shut' },
        { value: 'vent open', text: 'on, its vent open' },
        { value: 'raised', text: 'raised on a riser' },
      ],
    },
  ],
  'ventilation': [{ key: 'details.level', label: 'Ventilation', kind: 'select', options: choices(VENTILATION) }],
  'enclosure': [
    {
      key: 'details.thetaLow',
      label: 'Air near bed and head, lid on',
      kind: 'number',
      hint: share(PRACTICE_AIR.shut.low),
    },
    {
      key: 'details.thetaHigh',
      label: 'Air near the top, lid on',
      kind: 'number',
      hint: share(PRACTICE_AIR.shut.high),
    },
    {
      key: 'details.openThetaLow',
      label: 'Air near bed and head, lid off',
      kind: 'number',
      hint: share(PRACTICE_AIR.off.low),
    },
    {
      key: 'details.openThetaHigh',
      label: 'Air near the top, lid off',
      kind: 'number',
      hint: share(PRACTICE_AIR.off.high),
    },
    {
      key: 'details.thetaBay',
      label: 'Air in the electronics bay',
      kind: 'number',
      hint: share(PRACTICE_AIR.shut.bay),
    },
    {
      key: 'details.thetaU',
      label: 'These shares are known to',
      kind: 'number',
      hint: 'one standard deviation; empty: 0.05',
    },
    { key: 'details.offsetLow', label: 'Heated: near bed and head less setpoint', kind: 'number', unit: '°C' },
    { key: 'details.offsetHigh', label: 'Heated: near the top less setpoint', kind: 'number', unit: '°C' },
    { key: 'details.offsetBay', label: 'Heated: bay less setpoint', kind: 'number', unit: '°C' },
  ],
}
/** Roles whose parts have no limit of their own. */
export const BEARS_NO_LIMIT: readonly Role[] = [
  'gears',
  'enclosure',
  'lid',
  'chamber heater',
  'chamber sensor',
  'dryer',
  'ventilation',
]

export function partFieldsOf(role: Role): FormField[] {
  return [
    { key: 'name', label: 'Name', kind: 'text' },
    ...(BEARS_NO_LIMIT.includes(role)
      ? []
      : [
          {
            key: 'limitC',
            label: 'Limit as rated',
            kind: 'number',
            unit: '°C',
            hint: 'before the guard band; empty when not known',
          } as FormField,
          { key: 'shortC', label: 'Short-time limit', kind: 'number', unit: '°C', hint: 'may be empty' } as FormField,
          {
            key: 'place',
            label: 'Where it sits',
            kind: 'select',
            options: PLACES.map(value => ({ value, text: PLACE_WORDS[value] })),
          } as FormField,
        ]),
    ...(DETAILS[role] ?? []),
    { key: 'basis', label: 'Basis', kind: 'select', options: choices(BASES) },
    { key: 'note', label: 'Note', kind: 'text', hint: 'which sheet, which page' },
  ]
}

/** The form that edits a part, wherever it is; fields left empty are no details, rather than empty ones. */
export const editOf = (p: StoredPart): OpenRecord => ({
  title: `Edit ${p.name}`,
  fields: partFieldsOf(p.role as Role),
  start: {
    name: p.name,
    place: p.place,
    limitC: p.limitC,
    shortC: p.shortC,
    basis: p.basis,
    note: p.note,
    details: { ...p.details },
  },
  says: v => String(v.name),
  body: v => ({
    ...v,
    details: Object.fromEntries(Object.entries(v.details as object).filter(([, x]) => x !== null && x !== '')),
  }),
  edit: { kind: 'parts', id: p.id, version: p.version },
})

/** Kinds by role, in the order of the machine, to choose from; dryers are the shop's, under Prepare. */
export const KIND_GROUPS = ROLES.map(role => ({ role, kinds: KINDS.filter(k => k.role === role) })).filter(
  g => g.kinds.length > 0 && g.role !== 'dryer',
)
/** The same for a select. */
export const KIND_OPTIONS = KIND_GROUPS.flatMap(g =>
  g.kinds.map(k => ({ value: k.key, text: k.key, group: g.role as string })),
)
export { PLACE_WORDS }
