<script setup lang="ts">
/** Adds a record: an entry like any other, queued when the server is away, counted once. */
import EntrySheet from '~/components/entry/EntrySheet.vue'
import { fieldNames, type NewRecord } from '~/components/stores/form-field'
import RecordFields from '~/components/stores/RecordFields.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ record: NewRecord; wide?: boolean }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet(props.record.route, {
  on: () => props.record,
  name: r => r.title,
  start: r => r.start,
  body: (v, r) => (r.body ?? (x => x))(v),
  says: (v, r) => r.says(v),
  saved: (_, v, r) => `${r.says(v)}: saved`,
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet :sheet="sheet" :title="record.title" action="Save" :wide="wide" :shown="fieldNames(record.fields)">
    <RecordFields :fields="record.fields" :v="sheet.v" :errors="sheet.errors" />
  </EntrySheet>
</template>
