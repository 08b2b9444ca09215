<script setup lang="ts">
/** Upkeep done: what was found, with the hazards of doing it. */
import { computed } from 'vue'
import { quantityWords } from '#core/stock'
import { FOUND, upkeepHazards, type Found } from '#core/schedule'
import type { UpkeepTask } from '#shared/answers/upkeep'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useAnswer } from '~/composables/answer'
import { useEntrySheet } from '~/composables/entry-sheet'
import { sent } from '~/words/numbers'

const props = defineProps<{ printer: string; task: UpkeepTask }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/upkeep-entries', {
  on: () => props.task,
  name: t => `upkeep ${t.id}`,
  start: () => ({
    found: null as Found | null,
    says: '',
    took: null as number | null,
    note: '',
    occurredAt: new Date().toISOString(),
  }),
  body: (v, t) => ({ taskId: t.id, ...v, took: sent(v.took) }),
  says: (_, t) => `${props.printer}: ${t.name}`,
  saved: (_, v, t) =>
    v.found === 'needs work'
      ? `${props.printer}: ${t.name} stays due until it is put right.`
      : `${props.printer}: ${t.name} is done; it counts anew from here.`,
  close: () => emit('close'),
})
const { data: stock } = useAnswer('/api/stock', { params: () => (props.task.stockItemId === null ? null : {}) })
const item = computed(() => stock.value?.lines.find(l => l.id !== null && l.id === props.task.stockItemId) ?? null)
/** What was only looked at took nothing; what was replaced took what it takes, unless another is typed after that. */
function takes(found: Found | null): void {
  sheet.v.took = found === 'replaced' ? props.task.stockQuantity : null
}
const cautions = computed(() => upkeepHazards(props.task.kind))
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`${printer}: ${task.name}`"
    action="Save it"
    :shown="['found', 'says', 'took', 'note', 'occurredAt']"
  >
    <CautionList :cautions="cautions" />
    <p v-if="task.note" class="text-sm">{{ task.note }}</p>
    <FieldSelect
      id="upkeep-found"
      v-model="sheet.v.found"
      label="What was found"
      :options="[{ value: null, text: 'choose' }, ...FOUND.map(value => ({ value, text: value }))]"
      :error="sheet.errors.found"
      @update:model-value="takes"
    />
    <FieldText
      id="upkeep-says"
      v-model="sheet.v.says"
      :label="sheet.v.found === 'needs work' ? 'What needs work' : 'In words, if you like'"
      :error="sheet.errors.says"
    />
    <FieldNumber
      v-if="item"
      id="upkeep-took"
      v-model="sheet.v.took"
      :label="`Taken from the shelf: ${item.name}`"
      :unit="item.unit"
      :hint="`${quantityWords(item.onHand, item.unit)} there; 0 or empty: nothing was taken`"
      :error="sheet.errors.took"
    />
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldWhen id="upkeep-when" v-model="sheet.v.occurredAt" label="Done" :error="sheet.errors.occurredAt" />
      <FieldText id="upkeep-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
    </div>
  </EntrySheet>
</template>
