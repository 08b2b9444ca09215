<script setup lang="ts">
/** The air that spools stand in: room and dry box. */
import { computed } from 'vue'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import type { FormField, OpenRecord } from '~/components/stores/form-field'
import { useShop } from '~/state/shop'

const props = defineProps<{ open: boolean }>()
defineEmits<{ close: [] }>()
const shop = useShop()
const FIELDS: FormField[] = [
  { key: 'roomC', label: 'Room, usually', kind: 'number', unit: '°C' },
  {
    key: 'roomRh',
    label: 'Room humidity, usually',
    kind: 'number',
    unit: '%',
    hint: 'in the worst week, when in doubt',
  },
  { key: 'dryBoxRh', label: 'Humidity in the dry box', kind: 'number', unit: '%', hint: 'by its hygrometer' },
  { key: 'dryBoxReadAt', label: 'Read on', kind: 'when', hint: 'a desiccant tires: it is asked for every two weeks' },
]
const record = computed<OpenRecord | null>(() => {
  const settings = shop.data?.settings
  if (!props.open || !settings) return null
  return {
    title: 'Room and dry box',
    fields: FIELDS,
    start: { ...settings },
    says: () => 'Room and dry box',
    edit: { kind: 'rules', id: settings.id, version: settings.version },
  }
})
</script>

<template>
  <RecordSheet :open="record" @close="$emit('close')" />
</template>
