<script setup lang="ts">
/** The air that spools stand in: room and dry box. */
import { computed } from 'vue'
import RecordForm from '~/components/stores/RecordForm.vue'
import type { FormField } from '~/components/stores/form-field'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import { useShop } from '~/state/shop'

defineProps<{ open: boolean }>()
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
]
const start = computed(() => ({ ...shop.data!.settings }))
</script>

<template>
  <ModalSheet :open="open" title="Room and dry box" @close="$emit('close')">
    <RecordForm
      v-if="open && shop.data"
      :fields="FIELDS"
      :start="start"
      :says="() => 'Room and dry box'"
      :edit="{ kind: 'rules', id: shop.data.settings.id, version: shop.data.settings.version }"
      @saved="$emit('close')"
      @cancel="$emit('close')"
    />
  </ModalSheet>
</template>
