<script setup lang="ts">
/** Edits a record over the version that was seen; when someone else was faster, both versions are shown. */
import { computed } from 'vue'
import { EARLIER_RUNS } from '#shared/choices'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import EditHistory from '~/components/stores/EditHistory.vue'
import { fieldNames, type EditedRecord } from '~/components/stores/form-field'
import RecordFields from '~/components/stores/RecordFields.vue'
import StaleBox from '~/components/stores/StaleBox.vue'
import { useEditSheet } from '~/composables/edit-sheet'

const props = defineProps<{ record: EditedRecord; wide?: boolean }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEditSheet({
  on: () => props.record,
  of: r => r.edit,
  start: r => r.start,
  values: (v, r) => (r.body ?? (x => x))(v),
  saved: (v, r, confirmed) =>
    confirmed.includes(EARLIER_RUNS.correct)
      ? `${r.says(v)}: changed, and its earlier runs entered again.`
      : `${r.says(v)}: changed. Runs logged before keep what they were logged with.`,
  close: () => emit('close'),
})
const rows = computed(() =>
  props.record.fields
    .filter(f => sheet.theirs && f.key in sheet.theirs)
    .map(f => ({ key: f.key, label: f.label, theirs: sheet.theirs![f.key], mine: sheet.v[f.key] })),
)
function takeTheirs(): void {
  for (const r of rows.value) sheet.v[r.key] = r.theirs
  sheet.keepMine()
}
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="record.title"
    action="Save"
    :wide="wide"
    :blocked="sheet.theirs !== null"
    :shown="fieldNames(record.fields)"
  >
    <RecordFields :fields="record.fields" :v="sheet.v" :errors="sheet.errors" />
    <StaleBox v-if="sheet.theirs" :rows="rows" @keep="sheet.keepMine()" @take="takeTheirs" />
    <template #after><EditHistory :id="record.edit.id" :kind="record.edit.kind" :fields="record.fields" /></template>
  </EntrySheet>
</template>
