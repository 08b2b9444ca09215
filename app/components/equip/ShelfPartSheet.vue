<script setup lang="ts">
/** A spare part laid on the shelf. */
import { computed } from 'vue'
import { isKind, kindOf } from '#core/limits'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import { KIND_OPTIONS } from '~/components/equip/part-fields'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/parts', {
  on: () => (props.open ? true : null),
  name: () => 'shelf',
  start: () => ({ kind: '', note: '' }),
  body: v => v,
  says: v => `${v.kind || 'A part'} on the shelf`,
  saved: done => `${done.name} is on the shelf.`,
  close: () => emit('close'),
})
const about = computed(() => {
  if (!isKind(sheet.v.kind)) return undefined
  const { limitC, note } = kindOf(sheet.v.kind)
  return limitC === null ? note : `start limit ${limitC} °C, ${note}`
})
</script>

<template>
  <EntrySheet :sheet="sheet" title="Add a part to the shelf" action="Save" :shown="['kind', 'note']">
    <FieldSelect
      id="shelf-kind"
      v-model="sheet.v.kind"
      label="Kind"
      :options="[{ value: '', text: 'Choose a kind' }, ...KIND_OPTIONS]"
      :hint="about"
      :error="sheet.errors.kind"
    />
    <FieldText
      id="shelf-note"
      v-model="sheet.v.note"
      label="Note"
      placeholder="wired ready, for Aire"
      :error="sheet.errors.note"
    />
  </EntrySheet>
</template>
