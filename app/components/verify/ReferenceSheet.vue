<script setup lang="ts">
/** Add what sensors are checked against, or edit it. */
import { computed } from 'vue'
import {
  PLATINUM_BUILDS,
  PLATINUM_CLASSES,
  THERMOCOUPLE_CLASSES,
  THERMOCOUPLES,
  WIRINGS,
  type Reference,
} from '#core/thermometry'
import type { ReferenceLine } from '#shared/answers/sensors'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import type { FormField, OpenRecord } from '~/components/stores/form-field'
import { options } from '~/components/verify/check-form'
import { BUILD_WORDS } from '~/words/sensor'

const props = defineProps<{ open: boolean; reference: ReferenceLine | null }>()
defineEmits<{ close: [] }>()
type Typed = Record<string, unknown> & { is: Reference }
const is = (v: Record<string, unknown>) => (v as Typed).is
const kind = (k: Reference['kind']) => (v: Record<string, unknown>) => is(v).kind === k
const NONE = { value: null, text: 'not known' }
/** What a kind has not is taken away, and what it needs is begun with. */
function begin(v: Record<string, unknown>): void {
  const r = is(v)
  const of: Record<Reference['kind'], Partial<Reference>> = {
    thermocouple: { readsIn: 'mV', type: 'K', coupleClass: 1 },
    platinum: { readsIn: 'Ω', r0Ohm: 100, build: 'wire', platinumClass: 'A', wires: 4 },
    probe: { readsIn: '°C' },
  }
  Object.assign(r, EMPTY, { kind: r.kind, meter: r.meter }, of[r.kind])
}
const EMPTY: Omit<Reference, 'meter'> = {
  kind: 'thermocouple',
  readsIn: 'mV',
  type: null,
  coupleClass: null,
  r0Ohm: null,
  build: null,
  platinumClass: null,
  wires: null,
  leadOhm: null,
  uLeadOhm: null,
  certificateUC: null,
}
const FIELDS: FormField[] = [
  { key: 'name', label: 'Name', kind: 'text', hint: 'as it stands on its tag' },
  {
    key: 'is.kind',
    label: 'What it is',
    kind: 'select',
    options: [
      { value: 'thermocouple', text: 'thermocouple with a meter' },
      { value: 'platinum', text: 'platinum sensor with a meter' },
      { value: 'probe', text: 'calibrated probe that shows °C' },
    ],
    then: begin,
  },
  { key: 'is.type', label: 'Type', kind: 'select', options: options(THERMOCOUPLES), when: kind('thermocouple') },
  {
    key: 'is.readsIn',
    label: 'Read in',
    kind: 'select',
    options: [
      { value: 'mV', text: 'mV, with its cold junction' },
      { value: '°C', text: '°C, by a meter for this type' },
    ],
    when: kind('thermocouple'),
  },
  {
    key: 'is.coupleClass',
    label: 'Class, IEC 60584-1',
    kind: 'select',
    options: [NONE, ...options(THERMOCOUPLE_CLASSES, c => `class ${c}`)],
    when: kind('thermocouple'),
  },
  {
    key: 'is.r0Ohm',
    label: 'Element',
    kind: 'select',
    options: [
      { value: 100, text: 'Pt100' },
      { value: 1000, text: 'Pt1000' },
    ],
    when: kind('platinum'),
  },
  {
    key: 'is.readsIn',
    label: 'Read in',
    kind: 'select',
    options: [
      { value: 'Ω', text: 'Ω' },
      { value: '°C', text: '°C, by a meter for this element' },
    ],
    when: kind('platinum'),
  },
  {
    key: 'is.build',
    label: 'Made as',
    kind: 'select',
    options: [NONE, ...options(PLATINUM_BUILDS, b => BUILD_WORDS[b])],
    when: kind('platinum'),
  },
  {
    key: 'is.platinumClass',
    label: 'Class, IEC 60751',
    kind: 'select',
    options: [NONE, ...options(PLATINUM_CLASSES, c => `class ${c}`)],
    when: kind('platinum'),
  },
  {
    key: 'is.wires',
    label: 'Wires',
    kind: 'select',
    options: options(WIRINGS, w => `${w} wires`),
    when: kind('platinum'),
  },
  {
    key: 'is.leadOhm',
    label: 'Both leads, ends shorted',
    kind: 'number',
    unit: 'Ω',
    hint: '1 Ω reads as 2.6 °C on a Pt100',
    when: v => kind('platinum')(v) && is(v).wires !== 4,
  },
  {
    key: 'is.uLeadOhm',
    label: 'Known to ± (u)',
    kind: 'number',
    unit: 'Ω',
    when: v => kind('platinum')(v) && is(v).wires === 2,
  },
  {
    key: 'is.certificateUC',
    label: 'By its certificate, u (k = 1)',
    kind: 'number',
    unit: '°C',
    hint: 'half of U where k = 2 is stated; takes the place of its class',
  },
  { key: 'dueOn', label: 'Certificate holds until', kind: 'text', hint: 'year-month-day, as 2027-03-31; or empty' },
  { key: 'is.meter', label: 'Its meter may be off by ±', kind: 'number', hint: 'in what it reads: mV, Ω or °C' },
  { key: 'note', label: 'Note', kind: 'text' },
]
const record = computed<OpenRecord | null>(() => {
  if (!props.open) return null
  const r = props.reference
  const fields = r ? [...FIELDS, { key: 'withdrawn', label: 'No longer in use', kind: 'check' as const }] : FIELDS
  return {
    title: r ? `Reference ${r.name}` : 'Add a reference',
    fields,
    start: r
      ? { name: r.name, is: { ...r.is }, dueOn: r.dueOn ?? '', note: r.note, withdrawn: r.withdrawn }
      : {
          name: '',
          is: { ...EMPTY, type: 'K', coupleClass: 1, meter: null },
          dueOn: '',
          note: '',
          withdrawn: false,
        },
    body: v => ({ ...v, dueOn: v.dueOn === '' ? null : v.dueOn }),
    says: v => `Reference ${String(v.name)}`,
    ...(r ? { edit: { kind: 'references', id: r.id, version: r.version } } : { route: '/api/references' }),
  }
})
</script>

<template>
  <RecordSheet :open="record" wide @close="$emit('close')" />
</template>
