<script setup lang="ts">
/** What came and went of one thing on the shelf. */
import { computed } from 'vue'
import { quantityWords, STOCK_MOVES, TAGGED_KINDS, type StockMove } from '#core/stock'
import type { StockLine } from '#shared/answers/stock'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { sent } from '~/words/numbers'
import { MOVE_TEXT, thereWords } from '~/words/stock'

const props = defineProps<{ line: StockLine; kind: StockMove }>()
const emit = defineEmits<{ close: [] }>()
const isTagged = computed(() => TAGGED_KINDS.includes(props.line.kind))
const kinds = computed(() => STOCK_MOVES.filter(k => !isTagged.value || k === 'ordered' || k === 'received'))
const sheet = useEntrySheet('/api/stock-moves', {
  on: () => props.line,
  name: l => `stock ${l.id}`,
  start: () => ({ kind: props.kind, quantity: null as number | null, note: '', occurredAt: new Date().toISOString() }),
  body: (v, l) => ({ itemId: l.id, ...v, quantity: sent(v.quantity) }),
  says: (v, l) => `${l.name}: ${MOVE_TEXT[v.kind]}`,
  saved: (done, _, l) => {
    const onWay = done.onOrder > 0 ? `, ${quantityWords(done.onOrder, l.unit)} on the way` : ''
    return isTagged.value
      ? `${l.name}: ${done.onOrder > 0 ? `${quantityWords(done.onOrder, l.unit)} on the way` : 'nothing on the way'}.`
      : `${l.name}: ${quantityWords(done.onHand, l.unit)} there now${onWay}.`
  },
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet :sheet="sheet" :title="line.name" action="Save it" :shown="['kind', 'quantity', 'note', 'occurredAt']">
    <p class="text-sm">
      {{ thereWords(line) }}.
      <template v-if="isTagged">What has come is there once its tag is added on the shelf.</template>
    </p>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldSelect
        id="move-kind"
        v-model="sheet.v.kind"
        label="What happened"
        :options="kinds.map(value => ({ value, text: MOVE_TEXT[value] }))"
        :error="sheet.errors.kind"
      />
      <FieldNumber
        id="move-quantity"
        v-model="sheet.v.quantity"
        :label="sheet.v.kind === 'counted' ? 'There are' : 'How many'"
        :unit="line.unit"
        :error="sheet.errors.quantity"
      />
      <FieldWhen id="move-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
      <FieldText id="move-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
    </div>
  </EntrySheet>
</template>
