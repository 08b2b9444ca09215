<script setup lang="ts">
/** One thing that a printer is kept up by: how often, by whichever comes first, and what that rests on. */
import { computed } from 'vue'
import { guardName, UPKEEP_KINDS } from '#core/schedule'
import type { UpkeepPrinter, UpkeepTask } from '#shared/answers/upkeep'
import { ENTERED_BASES as BASES } from '#shared/choices'
import type { FormField, OpenRecord } from '~/components/stores/form-field'
import { TAGGED_KINDS } from '#core/stock'
import { useAnswer } from '~/composables/answer'
import RecordSheet from '~/components/stores/RecordSheet.vue'

const props = defineProps<{ of: { printer: UpkeepPrinter; task: UpkeepTask | null } | null }>()
defineEmits<{ close: [] }>()
const { data: stock } = useAnswer('/api/stock', { params: () => (props.of ? {} : null) })
const isTest = (v: Record<string, unknown>) => v.kind === 'cut-out test'
const fields = computed<FormField[]>(() => [
  {
    key: 'kind',
    label: 'What',
    kind: 'select',
    options: UPKEEP_KINDS.map(value => ({ value, text: value })),
    then: v => {
      if (!isTest(v)) v.guard = null
    },
  },
  {
    key: 'guard',
    label: 'Of which',
    kind: 'select',
    options: [
      { value: null, text: 'choose' },
      ...(props.of?.printer.guards ?? []).map(value => ({ value, text: value })),
    ],
    when: isTest,
    then: v => {
      v.everyHours = null
      v.everyKg = null
      if (v.guard !== null && String(v.name).trim() === '') v.name = guardName(v.guard as never)
    },
  },
  { key: 'name', label: 'Name', kind: 'text', hint: 'what is done' },
  { key: 'everyHours', label: 'Every, at work', kind: 'number', unit: 'h', when: v => !isTest(v) },
  { key: 'everyKg', label: 'Every, filled filament', kind: 'number', unit: 'kg', when: v => !isTest(v) },
  { key: 'everyDays', label: 'Every', kind: 'number', unit: 'days', hint: 'whichever comes first' },
  {
    key: 'stockItemId',
    label: 'Takes from the shelf',
    kind: 'select',
    options: [
      { value: null, text: 'nothing' },
      ...(stock.value?.lines ?? [])
        .filter(l => l.id !== null && !l.withdrawn && !TAGGED_KINDS.includes(l.kind))
        .map(l => ({ value: l.id, text: l.name })),
    ],
    then: v => (v.stockQuantity = v.stockItemId === null ? null : (v.stockQuantity ?? 1)),
  },
  {
    key: 'stockQuantity',
    label: 'So much each time',
    kind: 'number',
    hint: v => stock.value?.lines.find(l => l.id === v.stockItemId)?.unit,
    when: v => v.stockItemId !== null,
  },
  { key: 'basis', label: 'Basis', kind: 'select', options: BASES.map(value => ({ value, text: value })) },
  { key: 'note', label: 'Note', kind: 'text' },
  ...(props.of?.task ? [{ key: 'withdrawn', label: 'No longer wanted', kind: 'check' as const }] : []),
])
const record = computed<OpenRecord | null>(() => {
  if (!props.of) return null
  const { printer, task } = props.of
  const form = {
    fields: fields.value,
    says: (v: Record<string, unknown>) => `${printer.name}: ${String(v.name)}`,
    body: (v: Record<string, unknown>) => ({ ...v, printerId: printer.id }),
  }
  if (task) {
    const { id, version, kind, guard, name, everyHours, everyKg, everyDays, basis, note, withdrawn } = task
    const { stockItemId, stockQuantity } = task
    const every = { everyHours, everyKg, everyDays }
    const start = { kind, guard, name, ...every, stockItemId, stockQuantity, basis, note, withdrawn }
    return { ...form, title: `${printer.name}: ${name}`, start, edit: { kind: 'upkeep-tasks', id, version } }
  }
  const start = {
    kind: 'other',
    guard: null,
    name: '',
    everyHours: null,
    everyKg: null,
    everyDays: null,
    stockItemId: null,
    stockQuantity: null,
    basis: 'practice',
    note: '',
    withdrawn: false,
  }
  return { ...form, title: `Upkeep of ${printer.name}`, start, route: '/api/upkeep-tasks' }
})
</script>

<template>
  <RecordSheet :open="record" @close="$emit('close')" />
</template>
