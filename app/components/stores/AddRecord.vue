<script setup lang="ts">
/** Adds a record: an entry like any other, queued when the server is away, counted once. */
import { nextTick, ref } from 'vue'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import { fieldNames, type NewRecord } from '~/components/stores/form-field'
import RecordFields from '~/components/stores/RecordFields.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { plain } from '~/lib/plain'

const props = defineProps<{ record: NewRecord; wide?: boolean }>()
/** `another`: it stays open for the next, which starts from what was just saved. */
const emit = defineEmits<{ close: []; another: [v: Record<string, unknown>] }>()
const goesOn = ref(false)
const sheet = useEntrySheet(props.record.route, {
  on: () => props.record,
  name: r => r.title,
  start: r => r.start,
  body: (v, r) => (r.body ?? (x => x))(v),
  says: (v, r) => r.says(v),
  saved: (_, v, r) => `${r.says(v)}: saved`,
  close: saved => {
    if (saved && goesOn.value) void next()
    else emit('close')
  },
})
async function next(): Promise<void> {
  emit('another', plain(sheet.v))
  await nextTick()
  sheet.again()
  document.querySelector<HTMLInputElement>('[role=dialog] input')?.focus()
}
function saveAndGoOn(): void {
  goesOn.value = true
  void sheet.save()
}
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="record.title"
    action="Save"
    :wide="wide"
    :shown="fieldNames(record.fields)"
    @first="goesOn = false"
  >
    <RecordFields :fields="record.fields" :v="sheet.v" :errors="sheet.errors" />
    <template v-if="record.another" #more
      ><button type="button" class="button" :disabled="sheet.busy" @click="saveAndGoOn">
        Save and add another
      </button></template
    >
  </EntrySheet>
</template>
