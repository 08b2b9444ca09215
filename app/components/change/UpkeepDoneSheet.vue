<script setup lang="ts">
/** Upkeep done: what was found, with the hazards of doing it. */
import { computed } from 'vue'
import { FOUND, upkeepHazards, type Found } from '#core/schedule'
import type { UpkeepTask } from '#shared/answers/upkeep'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ printer: string; task: UpkeepTask }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/upkeep-entries', {
  on: () => props.task,
  name: t => `upkeep ${t.id}`,
  start: () => ({ found: null as Found | null, says: '', note: '', occurredAt: new Date().toISOString() }),
  body: (v, t) => ({ taskId: t.id, ...v }),
  says: (_, t) => `${props.printer}: ${t.name}`,
  saved: (_, v, t) =>
    v.found === 'needs work'
      ? `${props.printer}: ${t.name} stays due until it is put right.`
      : `${props.printer}: ${t.name} is done; it counts anew from here.`,
  close: () => emit('close'),
})
const cautions = computed(() => upkeepHazards(props.task.kind))
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`${printer}: ${task.name}`"
    action="Save it"
    :shown="['found', 'says', 'note', 'occurredAt']"
  >
    <CautionList :cautions="cautions" />
    <p v-if="task.note" class="text-sm">{{ task.note }}</p>
    <FieldSelect
      id="upkeep-found"
      v-model="sheet.v.found"
      label="What was found"
      :options="[{ value: null, text: 'choose' }, ...FOUND.map(value => ({ value, text: value }))]"
      :error="sheet.errors.found"
    />
    <FieldText
      id="upkeep-says"
      v-model="sheet.v.says"
      :label="sheet.v.found === 'needs work' ? 'What needs work' : 'In words, if you like'"
      :error="sheet.errors.says"
    />
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldWhen id="upkeep-when" v-model="sheet.v.occurredAt" label="Done" :error="sheet.errors.occurredAt" />
      <FieldText id="upkeep-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
    </div>
  </EntrySheet>
</template>
