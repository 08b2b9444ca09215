<script setup lang="ts">
/** A Z number: set by feeler, or read after the power was off. */
import type { ZWay } from '#core/changeover'
import type { LevelPage } from '#shared/answers/level'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { sent } from '~/words/numbers'

const props = defineProps<{ head: LevelPage['heads'][number] }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/z-records', {
  on: () => props.head,
  name: h => `z ${h.id}`,
  start: () => ({
    why: 'feeler' as 'feeler' | 'power-off',
    zMm: null as number | null,
    probeMm: null as number | null,
    way: null as ZWay | null,
    note: '',
    occurredAt: new Date().toISOString(),
  }),
  body: (v, h) => ({ ...v, headId: h.id, probeMm: sent(v.probeMm) }),
  says: (_, h) => `Z of ${h.place}`,
  saved: (done, v, h) => {
    if (done.lost !== null) return `${h.place}: ${done.lost}`
    return v.why === 'feeler'
      ? `${h.place}: Z is ${v.zMm!.toFixed(3)} mm.`
      : `${h.place}: Z was kept over the power-off.`
  },
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`Z of ${head.place}`"
    action="Save the number"
    :shown="['why', 'zMm', 'probeMm', 'way', 'occurredAt', 'note']"
  >
    <FieldSelect
      id="z-why"
      v-model="sheet.v.why"
      label="What it is"
      :options="[
        { value: 'feeler', text: 'set by feeler, hot' },
        { value: 'power-off', text: 'read after the power was off' },
      ]"
      :error="sheet.errors.why"
    />
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldNumber
        id="z-mm"
        v-model="sheet.v.zMm"
        label="Z number, as the printer shows it"
        unit="mm"
        :error="sheet.errors.zMm"
      />
      <FieldNumber
        id="z-probe"
        v-model="sheet.v.probeMm"
        label="Offset of the probe, if it has one"
        unit="mm"
        :error="sheet.errors.probeMm"
      />
      <FieldSelect
        v-if="head.way === null"
        id="z-way"
        v-model="sheet.v.way"
        label="Of two Z numbers the larger one leaves"
        :options="[
          { value: null, text: 'choose' },
          { value: 'larger is higher', text: 'more room under the nozzle' },
          { value: 'larger is lower', text: 'less room under the nozzle' },
        ]"
        :error="sheet.errors.way"
      />
      <FieldWhen id="z-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
      <FieldText id="z-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
    </div>
  </EntrySheet>
</template>
