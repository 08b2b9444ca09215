<script setup lang="ts">
/** The bed of a printer: how large, on which screws, of which pitch. */
import { computed } from 'vue'
import { CLOCKWISE, COARSE_PITCH_MM } from '#core/level'
import type { BedRow } from '#shared/answers/level'
import { ENTERED_BASES as BASES } from '#shared/choices'
import type { FormField, OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import { plain } from '~/lib/plain'

const props = defineProps<{ open: boolean; printer: { id: number; name: string }; bed: BedRow | null }>()
defineEmits<{ close: [] }>()
type Screws = BedRow['screws']

/** Usual places, an inch and a bit from the edges, for a bed of this size. */
const INSET_MM = 30
function usual(count: unknown, widthMm: number, depthMm: number): Screws {
  const [near, right, back] = [INSET_MM, widthMm - INSET_MM, depthMm - INSET_MM]
  if (count === 3)
    return [
      { name: 'front left', xMm: near, yMm: near },
      { name: 'front right', xMm: right, yMm: near },
      { name: 'back', xMm: widthMm / 2, yMm: back },
    ]
  if (count === 4)
    return [
      { name: 'front left', xMm: near, yMm: near },
      { name: 'front right', xMm: right, yMm: near },
      { name: 'back left', xMm: near, yMm: back },
      { name: 'back right', xMm: right, yMm: back },
    ]
  return []
}
const side = (v: unknown) => (typeof v === 'number' && !Number.isNaN(v) ? v : 300)
const screwCount = (v: Record<string, unknown>) => (v.screws as Screws).length
const counts = computed(() => [...new Set([0, 3, 4, props.bed?.screws.length ?? 0])].sort((a, b) => a - b))
const fields = computed<FormField[]>(() => [
  { key: 'widthMm', label: 'Bed, left to right', kind: 'number', unit: 'mm' },
  { key: 'depthMm', label: 'Bed, front to back', kind: 'number', unit: 'mm' },
  {
    key: 'count',
    label: 'Screws that level it',
    kind: 'select',
    options: counts.value.map(n => ({ value: n, text: n === 0 ? 'none: it is fixed' : String(n) })),
    then: v => {
      v.screws = usual(v.count, side(v.widthMm), side(v.depthMm))
    },
  },
  ...Array.from({ length: 9 }, (_, i): FormField[] => {
    const there = { when: (v: Record<string, unknown>) => screwCount(v) > i }
    const at = `screws.${i}`
    return [
      { key: `${at}.name`, label: `Screw ${i + 1}`, kind: 'text', ...there },
      { key: `${at}.xMm`, label: `Screw ${i + 1}, from the left edge`, kind: 'number', unit: 'mm', ...there },
      { key: `${at}.yMm`, label: `Screw ${i + 1}, from the front edge`, kind: 'number', unit: 'mm', ...there },
    ]
  }).flat(),
  {
    key: 'pitchMm',
    label: 'Pitch: one turn moves it by',
    kind: 'number',
    unit: 'mm',
    hint: `coarse threads: ${Object.entries(COARSE_PITCH_MM)
      .map(([thread, mm]) => `${thread} ${mm}`)
      .join(', ')}`,
    when: v => screwCount(v) > 0,
  },
  {
    key: 'clockwise',
    label: 'A clockwise turn, as seen by who turns it,',
    kind: 'select',
    options: CLOCKWISE.map(value => ({ value, text: `${value} the bed there` })),
    when: v => screwCount(v) > 0,
  },
  { key: 'basis', label: 'Basis', kind: 'select', options: BASES.map(value => ({ value, text: value })) },
  { key: 'note', label: 'Note', kind: 'text' },
])
const record = computed<OpenRecord | null>(() => {
  if (!props.open) return null
  const { bed, printer } = props
  const form = {
    title: `Bed of ${printer.name}`,
    fields: fields.value,
    says: () => `Bed of ${printer.name}`,
    body: ({ count: _, ...v }: Record<string, unknown>) => ({ ...v, printerId: printer.id }),
  }
  if (bed) {
    const { id, version, ...values } = bed
    const start = { ...plain(values), count: bed.screws.length }
    return { ...form, start, edit: { kind: 'beds', id, version } }
  }
  const start = {
    widthMm: null,
    depthMm: null,
    count: 3,
    screws: usual(3, 300, 300),
    pitchMm: COARSE_PITCH_MM.M4,
    clockwise: 'lowers',
    basis: 'practice',
    note: '',
  }
  return { ...form, start, route: '/api/beds' }
})
</script>

<template>
  <RecordSheet :open="record" wide @close="$emit('close')" />
</template>
