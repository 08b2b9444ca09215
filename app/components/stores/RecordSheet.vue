<script setup lang="ts">
/** A record added or edited on a sheet of its own; closed when it is saved or given up. */
import type { OpenRecord } from '~/components/stores/form-field'
import RecordForm from '~/components/stores/RecordForm.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'

defineProps<{ open: OpenRecord | null; wide?: boolean }>()
const emit = defineEmits<{ close: [] }>()
</script>

<template>
  <ModalSheet :open="open !== null" :title="open?.title ?? ''" :wide="wide" @close="emit('close')">
    <RecordForm v-if="open" :key="open.title" :record="open" @saved="emit('close')" @cancel="emit('close')" />
  </ModalSheet>
</template>
