<script setup lang="ts">
/** The end of a drying, a soak or an anneal: when, how hot it really was, and for a spool its weight after. */
import EntrySheet from '~/components/entry/EntrySheet.vue'
import BalanceField from '~/components/prepare/BalanceField.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

export interface ToEnd {
  target: 'drying' | 'soak' | 'anneal'
  id: number
  says: string
  setC: number | null
  beforeG: number | null
  spoolId: number | null
}
const props = defineProps<{ ending: ToEnd | null }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/endings', {
  on: () => props.ending,
  name: e => `${e.target} ${e.id}`,
  start: e => ({
    outcome: 'done' as 'done' | 'stopped early',
    actualC: e.setC,
    grossG: null as number | null,
    note: '',
    occurredAt: new Date().toISOString(),
  }),
  body: (v, e) => ({ target: e.target, targetId: e.id, ...v }),
  says: (_, e) => `${e.says}: ended`,
  saved: (_done, v, e) => {
    if (e.beforeG === null || v.grossG === null) return `${e.says}: ended.`
    const lost = (e.beforeG - v.grossG).toFixed(1)
    return `${e.says}: ended; it lost ${lost} g, and the shop's wound-spool factor is fitted anew.`
  },
  close: () => emit('close'),
})
const HOW = (['done', 'stopped early'] as const).map(value => ({ value, text: value }))
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="ending ? `End: ${ending.says}` : ''"
    action="Log the end"
    give-up="Not yet"
    :shown="['occurredAt', 'actualC', 'grossG', 'note']"
  >
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldWhen id="end-when" v-model="sheet.v.occurredAt" label="Ended" :error="sheet.errors.occurredAt" />
      <FieldSelect id="end-outcome" v-model="sheet.v.outcome" label="How it ended" :options="HOW" />
      <FieldNumber
        v-if="ending && ending.target !== 'soak'"
        id="end-actual"
        v-model="sheet.v.actualC"
        label="Measured temperature"
        unit="°C"
        hint="by a thermometer beside it, if there is one"
        :error="sheet.errors.actualC"
      />
      <BalanceField
        v-if="ending && ending.spoolId !== null"
        id="end-gross"
        v-model="sheet.v.grossG"
        class="sm:col-span-2"
        label="Weighs now, with its spool"
        :spool-id="ending.spoolId"
        :error="sheet.errors.grossG"
        :hint="ending.beforeG === null ? 'it was not weighed before' : `${ending.beforeG} g before`"
      />
    </div>
    <FieldText id="end-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
  </EntrySheet>
</template>
