<script setup lang="ts">
/** A record added or edited on a sheet of its own. Each sheet is made anew for its record. */
import AddRecord from '~/components/stores/AddRecord.vue'
import EditRecord from '~/components/stores/EditRecord.vue'
import { isEdit, type OpenRecord } from '~/components/stores/form-field'

defineProps<{ open: OpenRecord | null; wide?: boolean }>()
const emit = defineEmits<{ close: []; another: [v: Record<string, unknown>] }>()
</script>

<template>
  <template v-if="open">
    <EditRecord v-if="isEdit(open)" :key="open.title" :record="open" :wide="wide" @close="emit('close')" />
    <AddRecord
      v-else
      :key="`add ${open.title}`"
      :record="open"
      :wide="wide"
      @close="emit('close')"
      @another="v => emit('another', v)"
    />
  </template>
</template>
