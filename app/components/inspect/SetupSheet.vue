<script setup lang="ts">
/** Add a set-up that takes pictures, or edit one. */
import { computed } from 'vue'
import { SCALE_DAYS } from '#core/imaging'
import type { SetupLine } from '#shared/answers/pictures'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import type { FormField, OpenRecord } from '~/components/stores/form-field'

const props = defineProps<{ open: boolean; setup: SetupLine | null }>()
defineEmits<{ close: [] }>()
const fields = computed<FormField[]>(() => [
  { key: 'name', label: 'Name', kind: 'text', hint: 'the microscope and its magnification, as the shop calls them' },
  { key: 'focusesItself', label: 'It focuses by itself: its scale does not last (a phone)', kind: 'check' },
  {
    key: 'tone',
    label: 'How its files store brightness',
    kind: 'select',
    options: [
      { value: null as unknown as string, text: 'not stated: half the difference counts' },
      { value: 'srgb', text: 'with a camera’s tone curve (sRGB)' },
      { value: 'linear', text: 'in proportion (linear)' },
    ],
  },
  { key: 'dueDays', label: 'Read its scale again after', kind: 'number', unit: 'days' },
  { key: 'note', label: 'Note', kind: 'text' },
  ...(props.setup ? [{ key: 'withdrawn', label: 'No longer in use', kind: 'check' as const }] : []),
])
const record = computed<OpenRecord | null>(() => {
  if (!props.open) return null
  const s = props.setup
  const fresh = { name: '', focusesItself: false, tone: null, dueDays: SCALE_DAYS, note: '', withdrawn: false }
  return {
    title: s ? `Set-up ${s.name}` : 'Add a set-up',
    fields: fields.value,
    start: s
      ? {
          name: s.name,
          focusesItself: s.focusesItself,
          tone: s.tone,
          dueDays: s.dueDays,
          note: s.note,
          withdrawn: s.withdrawn,
        }
      : fresh,
    says: v => `Set-up ${String(v.name)}`,
    ...(s ? { edit: { kind: 'setups', id: s.id, version: s.version } } : { route: '/api/setups' }),
  }
})
</script>

<template>
  <RecordSheet :open="record" @close="$emit('close')" />
</template>
