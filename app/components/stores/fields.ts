/** The fields of each kind of record in Stores, for one form that serves them all. */
import { HUB_WORDS } from '#core/drying'
import { MOST_ALIKE, tagsFrom } from '#core/intake'
import { VENTILATION } from '#core/limits'
import { FILLERS, NOZZLE_MATERIALS, PIN_U_MM, START_ABRASIVITY } from '#core/wear'
import { ENTERED_BASES as BASES, SPOOL_HAPPENINGS, SPOOL_KINDS } from '#shared/choices'
import type { ShopData } from '~/state/shop'
import type { EditedRecord, FormField } from '~/components/stores/form-field'

export type { FormField }
export function getPath(v: Record<string, unknown>, path: string): unknown {
  return path.split('.').reduce<unknown>((o, k) => (o as Record<string, unknown> | null)?.[k] ?? null, v)
}
export function setPath(v: Record<string, unknown>, path: string, value: unknown): void {
  const keys = path.split('.')
  const last = keys.pop()!
  let o = v
  for (const k of keys) o = o[k] as Record<string, unknown>
  o[last] = value
}

const choices = (values: readonly string[]) => values.map(value => ({ value, text: value }))
const basis: FormField = { key: 'basis', label: 'Basis', kind: 'select', options: choices(BASES) }
const note: FormField = { key: 'note', label: 'Note', kind: 'text' }
const choose = (text: string) => ({ value: null, text })

/** Here no longer: off every screen, while what it did still counts. */
const outOfUse: FormField = { key: 'outOfUse', label: 'Out of use: leaves the screens', kind: 'check' }

/** What a printer is not used for: one line, with semicolons between. */
export const RESTRICTIONS = {
  label: 'Restrictions, where jobs are chosen',
  hint: 'no camera; only for one customer. Several: semicolons between',
  line: (list: readonly string[]): string => list.join('; '),
  listOf: (v: unknown): string[] =>
    (typeof v === 'string' ? v : '')
      .split(';')
      .map(t => t.trim())
      .filter(t => t !== ''),
}

const PRINTER_EDIT_FIELDS: FormField[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  { key: 'kind', label: 'Kind', kind: 'text' },
  { key: 'restrictions', label: RESTRICTIONS.label, kind: 'text', hint: RESTRICTIONS.hint },
  note,
  outOfUse,
]
export function printerRecord(p: ShopData['printers'][number]): EditedRecord {
  const { name, kind, note, outOfUse, restrictions } = p
  return {
    title: `Edit printer ${name}`,
    fields: PRINTER_EDIT_FIELDS,
    start: { name, kind, note, outOfUse, restrictions: RESTRICTIONS.line(restrictions) },
    says: () => `Printer ${name}`,
    body: v => ({ ...v, restrictions: RESTRICTIONS.listOf(v.restrictions) }),
    edit: { kind: 'printers', id: p.id, version: p.version },
  }
}

export const MATERIAL_FIELDS: FormField[] = [
  { key: 'name', label: 'Name', kind: 'text', hint: 'generic, like PA6-CF20' },
  {
    key: 'polymer',
    label: 'Polymer',
    kind: 'text',
    list: ['PLA', 'PETG', 'ABS', 'ASA', 'PC', 'PA6', 'PA12', 'PPA', 'PPS', 'PEEK', 'PEI'],
  },
  {
    key: 'filler',
    label: 'Filler',
    kind: 'select',
    options: choices(FILLERS),
    then: v => {
      v.abrasivity = START_ABRASIVITY[v.filler as keyof typeof START_ABRASIVITY]
      if (v.filler === 'none') v.fillerFraction = 0
    },
  },
  {
    key: 'fillerFraction',
    label: 'Filler',
    kind: 'number',
    when: v => v.filler !== 'none',
  },
  {
    key: 'densityGCm3',
    label: 'Density',
    kind: 'number',
    unit: 'g/cm³',
    hint: 'of the filament as bought; needed for lengths and job files',
  },
  {
    key: 'abrasivity',
    label: 'Abrasivity',
    kind: 'number',
    hint: 'carbon fibre 1; start values: glass 1.2, glow 1.5, metal 0.5, wood 0.1, none 0.002',
  },
  {
    key: 'ventilation',
    label: 'Ventilation it needs',
    kind: 'select',
    options: [{ value: null, text: 'not known' }, ...choices(VENTILATION)],
  },
  basis,
  note,
]

export const TYPE_FIELDS: FormField[] = [
  { key: 'name', label: 'Name', kind: 'text', hint: 'like hardened steel 0.4' },
  { key: 'material', label: 'Material at the bore', kind: 'select', options: choices(NOZZLE_MATERIALS) },
  { key: 'nominalBoreMm', label: 'Nominal bore', kind: 'number', unit: 'mm' },
  { key: 'lengthMm', label: 'Length over all', kind: 'number', unit: 'mm' },
  { key: 'coneDeg', label: 'Cone, whole angle', kind: 'number', unit: '°' },
  { key: 'tipFlatMm', label: 'Tip flat', kind: 'number', unit: 'mm' },
  { key: 'landMm', label: 'Land', kind: 'number', unit: 'mm', hint: 'the straight part of the bore' },
  { key: 'inletMm', label: 'Inlet', kind: 'number', unit: 'mm' },
  { key: 'insertMm', label: 'Insert diameter', kind: 'number', unit: 'mm', hint: 'empty for a solid nozzle' },
  {
    key: 'boreGrowthLimit',
    label: 'Retire at bore growth',
    kind: 'number',
    hint: 'of the nominal bore; empty: no such rule',
  },
  {
    key: 'tipLossLimitMm',
    label: 'Retire at tip loss',
    kind: 'number',
    unit: 'mm',
    hint: 'half the first layer; empty: no such rule',
  },
  { key: 'massLimitKg', label: 'Retire at fibre mass', kind: 'number', unit: 'kg', hint: 'empty: no such rule' },
  { key: 'torqueNm', label: "Maker's torque", kind: 'number', unit: 'N·m', hint: 'empty: its sheet gives none' },
  basis,
  note,
]

const nozzleItself = (shop: ShopData): FormField[] => [
  { key: 'tag', label: 'Tag', kind: 'text', hint: 'as on the label' },
  {
    key: 'typeId',
    label: 'Type',
    kind: 'select',
    options: [choose('Choose a type'), ...shop.types.map(t => ({ value: t.id, text: t.name }))],
  },
  { key: 'wasUsed', label: 'It comes used', kind: 'check' },
]
export const nozzleEditFieldsOf = (shop: ShopData): FormField[] => [...nozzleItself(shop), note]
/** Of what is added, not of what is there already; and where nothing was measured, as a gauge is of one. */
const HOW_MANY: FormField = {
  key: 'howMany',
  label: 'How many alike',
  kind: 'number',
  when: v => Object.hasOwn(v, 'howMany'),
  hint: v => {
    const [tag, n] = [String(v.tag), Number(v.howMany)]
    const tags = Number.isInteger(n) && n > 1 && n <= MOST_ALIKE ? tagsFrom(tag, n) : undefined
    if (tags === null) return 'several need a tag that ends in a number'
    return tags && `${tags[0]} to ${tags.at(-1)}`
  },
}
export const nozzleFieldsOf = (shop: ShopData): FormField[] => [
  ...nozzleItself(shop),
  HOW_MANY,
  { key: 'receivedAt', label: 'Received', kind: 'when' },
  {
    key: 'receipt.valueMm',
    label: 'Bore at receipt',
    kind: 'number',
    unit: 'mm',
    hint: 'a measured value; or pins below',
  },
  { key: 'receipt.uMm', label: 'Bore at receipt, ±', kind: 'number', unit: 'mm', hint: `${PIN_U_MM} when empty` },
  { key: 'receipt.goMm', label: 'Goes', kind: 'number', unit: 'mm' },
  { key: 'receipt.noGoMm', label: 'Does not go', kind: 'number', unit: 'mm' },
  { key: 'receipt.tipMm', label: 'Tip length at receipt', kind: 'number', unit: 'mm' },
  note,
]

/** In which order the shelf stands. */
export const SPOOL_ORDERS = ['tag', 'material', 'least left'] as const
export type SpoolOrder = (typeof SPOOL_ORDERS)[number]
export const spoolFieldsOf = (shop: ShopData): FormField[] => [
  { key: 'tag', label: 'Tag', kind: 'text' },
  HOW_MANY,
  {
    key: 'materialId',
    label: 'Material',
    kind: 'select',
    options: [choose('Choose a material'), ...shop.materials.map(m => ({ value: m.id, text: m.name }))],
  },
  { key: 'diameterMm', label: 'Filament diameter', kind: 'number', unit: 'mm' },
  { key: 'netG', label: 'Filament when full', kind: 'number', unit: 'g' },
  ...SPOOL_LOT_FIELDS,
]
export const SPOOL_LOT_FIELDS: FormField[] = [
  { key: 'tareG', label: 'Empty spool', kind: 'number', unit: 'g', hint: 'needed to use weighings' },
  {
    key: 'hub',
    label: 'Hub',
    kind: 'select',
    options: [{ value: '', text: 'not known' }, ...choices(HUB_WORDS)],
    hint: 'what its spool is made of; it caps how hot it is dried',
  },
  { key: 'densityGCm3', label: 'Density of this lot', kind: 'number', unit: 'g/cm³', hint: "empty: the material's" },
  { key: 'fillerFraction', label: 'Filler of this lot', kind: 'number', hint: "empty: the material's" },
  note,
]
/** What can be said to have happened to a spool, wherever it is asked. */
export const SPOOL_CHOICES = SPOOL_KINDS.map(value => ({ value, text: SPOOL_HAPPENINGS[value].text as string }))
export const SPOOL_EVENT_FIELDS: FormField[] = [
  {
    key: 'kind',
    label: 'What happened',
    kind: 'select',
    options: [...SPOOL_CHOICES],
    then: v => {
      if (v.kind !== 'weighed') v.grossG = null
    },
  },
  { key: 'grossG', label: 'Weight with its spool', kind: 'number', unit: 'g', when: v => v.kind === 'weighed' },
  { key: 'occurredAt', label: 'When', kind: 'when' },
  note,
]
export const PERSON_FIELDS: FormField[] = [
  { key: 'name', label: 'Name', kind: 'text' },
  {
    key: 'role',
    label: 'Role',
    kind: 'select',
    options: [
      { value: 'technician', text: 'technician' },
      { value: 'lead', text: 'shop lead' },
    ],
  },
]
export const PERSON_EDIT_FIELDS: FormField[] = [...PERSON_FIELDS, outOfUse]
const perHour = (what: string) => `${what}, an hour`
export const RULES_FIELDS: FormField[] = [
  {
    key: 'guardHotendC',
    label: 'Guard band, hotend',
    kind: 'number',
    unit: '°C',
    hint: '10: a 300 rating is used to 290',
  },
  { key: 'guardBedC', label: 'Guard band, bed', kind: 'number', unit: '°C' },
  { key: 'guardChamberC', label: 'Guard band, chamber', kind: 'number', unit: '°C' },
  {
    key: 'guardHotendCheckedC',
    label: 'Guard band, hotend, sensor checked',
    kind: 'number',
    unit: '°C',
    hint: 'a check takes its part out; what overshoots stays: at least 5',
  },
  {
    key: 'guardBedCheckedC',
    label: 'Guard band, bed, sensor checked',
    kind: 'number',
    unit: '°C',
    hint: 'at least 3',
  },
  {
    key: 'guardChamberCheckedC',
    label: 'Guard band, chamber, sensor checked',
    kind: 'number',
    unit: '°C',
    hint: 'at least 3',
  },
  { key: 'roomC', label: 'Room', kind: 'number', unit: '°C' },
  { key: 'bendSafety', label: 'Safety factor on bends', kind: 'number', hint: 'divides the strain at break' },
  { key: 'coarseC', label: 'A reading is coarse above', kind: 'number', unit: '°C per count' },
  {
    key: 'highestFlowMm3S',
    label: 'A run is asked about above',
    kind: 'number',
    unit: 'mm³/s',
    hint: 'more than any nozzle here passes over a whole run',
  },
  { key: 'labourPerHour', label: perHour('Labour'), kind: 'number' },
  { key: 'downtimePerHour', label: perHour('A standing printer'), kind: 'number' },
  { key: 'downtimeHours', label: 'It stands for a nozzle swap', kind: 'number', unit: 'h' },
  { key: 'scrapPerSwap', label: 'Scrap per nozzle swap', kind: 'number' },
  { key: 'currency', label: 'Currency', kind: 'text', hint: 'shown behind amounts; may be empty' },
]
export const SETTINGS_FIELDS: FormField[] = [
  { key: 'shopName', label: 'Name of the shop', kind: 'text' },
  {
    key: 'timeZone',
    label: 'Time zone',
    kind: 'text',
    hint: 'like Europe/London',
    list: ['UTC', 'Europe/London', 'Europe/Berlin', 'America/New_York', 'America/Chicago', 'Asia/Tokyo'],
  },
  {
    key: 'acceptedRisk',
    label: 'Chance of being past the limit that makes a gauge due',
    kind: 'number',
  },
  {
    key: 'labelAddress',
    label: 'Address on labels',
    kind: 'text',
    hint: 'where phones on the shop’s network find this, as http://shop.example:3000; empty: tags alone',
  },
]
