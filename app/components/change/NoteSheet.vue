<script setup lang="ts">
/** A note that the next shift must read before it works on this printer. */
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ printer: { id: number; name: string } }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/notes', {
  on: () => props.printer,
  name: p => `note ${p.id}`,
  start: () => ({ says: '' }),
  body: (v, p) => ({ printerId: p.id, says: v.says, occurredAt: new Date().toISOString() }),
  says: (_, p) => `Note on ${p.name}`,
  saved: (_, __, p) => `${p.name}: the next shift reads it before it starts anything there.`,
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet :sheet="sheet" :title="`Note on ${printer.name}`" action="Leave the note" :shown="['says']">
    <FieldText
      id="note-says"
      v-model="sheet.v.says"
      label="What the next shift must know"
      placeholder="belt tightened, watch the first hour"
      :error="sheet.errors.says"
    />
  </EntrySheet>
</template>
