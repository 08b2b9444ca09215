<script setup lang="ts">
/** A line of the shop's own in the check before a run: what is looked at, on which printer, with which filament. */
import { computed } from 'vue'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import type { FormField, OpenRecord } from '~/components/stores/form-field'
import type { CheckLineRow } from '#shared/answers/prepare'
import { useShop } from '~/state/shop'

const props = defineProps<{
  open: boolean
  line: CheckLineRow | null
  printerId: number | null
  materialId: number | null
}>()
defineEmits<{ close: [] }>()
const shop = useShop()
const every = (text: string, of: readonly { id: number; name: string }[]) => [
  { value: null as unknown as string, text },
  ...of.map(x => ({ value: x.id as unknown as string, text: x.name })),
]
const fields = computed<FormField[]>(() => [
  { key: 'says', label: 'What is looked at', kind: 'text', hint: 'a short sentence, as it is read at the printer' },
  { key: 'printerId', label: 'On', kind: 'select', options: every('every printer', shop.data?.printers ?? []) },
  { key: 'materialId', label: 'With', kind: 'select', options: every('every filament', shop.data?.materials ?? []) },
  ...(props.line ? [{ key: 'withdrawn', label: 'No longer asked', kind: 'check' as const }] : []),
])
const record = computed<OpenRecord | null>(() => {
  if (!props.open) return null
  const l = props.line
  return {
    title: l ? 'A line of the check' : 'Add a line to the check',
    fields: fields.value,
    start: l ? { ...l } : { says: '', printerId: props.printerId, materialId: props.materialId, withdrawn: false },
    says: v => `Line “${String(v.says)}”`,
    ...(l ? { edit: { kind: 'check-lines', id: l.id, version: l.version } } : { route: '/api/check-lines' }),
  }
})
</script>

<template>
  <RecordSheet :open="record" @close="$emit('close')" />
</template>
