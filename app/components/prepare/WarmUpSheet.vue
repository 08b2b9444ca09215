<script setup lang="ts">
/** Record a warm-up from a probe's file: read, previewed with every line that cannot be read, and only then saved. */
import { counted, percent } from '#core/words'
import type { SoakLine } from '#shared/answers/prepare'
import { computed, ref } from 'vue'
import { fitWarmUp, readTable, type FittedWarmUp, type ReadTable } from '#core/chamber'
import { AIR_PLACES, OPENINGS, PLACE_WORDS, type AirPlace, type Opening } from '#core/limits'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import WarmUpChart from '~/components/prepare/WarmUpChart.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import ProbeFile from '~/components/ui/ProbeFile.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useShop } from '~/state/shop'
import { OPENING_WORDS } from '~/words/chamber'

const props = defineProps<{ printer: { id: number; name: string }; soak: SoakLine | null }>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
const table = ref<ReadTable | null>(null)
const fileName = ref('')

const preview = computed<{ fit: FittedWarmUp | null; problem: string }>(() => {
  const t = table.value
  if (!t || t.asksClock || t.problems.length > 0) return { fit: null, problem: '' }
  try {
    return { fit: fitWarmUp(t.readings), problem: '' }
  } catch (e) {
    return { fit: null, problem: e instanceof Error ? e.message : String(e) }
  }
})
const ready = computed(() => props.soak !== null || preview.value.fit !== null)
const sheet = useEntrySheet('/api/warm-ups', {
  on: () => props,
  name: p => `${p.printer.id} ${p.soak?.id ?? 'file'}`,
  start: p => ({
    place: 'high' as AirPlace,
    opening: 'shut' as Opening,
    bedC: p.soak?.bedC ?? null,
    chamberSetC: null as number | null,
    roomC: shop.data?.settings.roomC ?? null,
    note: '',
    occurredAt: p.soak?.from ?? new Date().toISOString(),
  }),
  body: (v, p) => ({
    printerId: p.printer.id,
    ...v,
    soakId: p.soak?.id ?? null,
    readings: p.soak ? null : (table.value?.readings ?? null),
  }),
  says: (_, p) => `Warm-up of ${p.printer.name}`,
  saved: (done, _, p) =>
    `Warm-up of ${p.printer.name}: settles at ${done.fit.finalC.toFixed(0)} °C, time constant ` +
    `${(done.fit.tauS / 60).toFixed(0)} min; seen to ${percent(done.fit.reachedShare)} of the way, scatter ` +
    `${done.fit.rmsC.toFixed(1)} °C.`,
  close: () => emit('close'),
})
const title = computed(() =>
  props.soak
    ? `Record the warm-up of ${props.printer.name} from its soak`
    : `Warm-up of ${props.printer.name} from a probe's file`,
)
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    wide
    :title="title"
    action="Save the warm-up"
    :blocked="!ready"
    :shown="['bedC', 'chamberSetC', 'roomC', 'place', 'opening', 'occurredAt', 'note']"
  >
    <template v-if="!soak">
      <ProbeFile
        v-model="table"
        v-model:name="fileName"
        says="A table (CSV) with a column of time (seconds, minutes or clock) and one of temperature in °C."
        :read="readTable"
      />
      <p v-if="preview.problem" class="font-semibold text-stop" role="alert">{{ fileName }}: {{ preview.problem }}</p>
      <template v-else-if="preview.fit && table">
        <p role="status">
          <b>{{ fileName }}</b>: {{ table.readings.length }} readings ({{ table.timeColumn }},
          {{ table.temperatureColumn }}). It settles at {{ preview.fit.finalC.toFixed(1) }} °C with a time constant of
          {{ (preview.fit.tauS / 60).toFixed(1) }} min; scatter {{ preview.fit.rmsC.toFixed(2) }} °C{{
            preview.fit.dips.length ? `; ${counted(preview.fit.dips.length, 'door opening')} left out` : ''
          }}.
        </p>
        <WarmUpChart
          :readings="table.readings.filter((_, i) => i % Math.ceil(table!.readings.length / 300) === 0)"
          :fit="preview.fit"
          label="Readings and fitted curve"
        />
      </template>
    </template>
    <p v-else>{{ soak.readings }} readings were kept during the soak.</p>
    <div class="grid gap-3 sm:grid-cols-3">
      <FieldNumber id="warm-bed" v-model="sheet.v.bedC" label="Bed was at" unit="°C" :error="sheet.errors.bedC" />
      <FieldNumber
        id="warm-set"
        v-model="sheet.v.chamberSetC"
        label="Chamber heater set to"
        unit="°C"
        hint="empty: heated by the bed"
        :error="sheet.errors.chamberSetC"
      />
      <FieldNumber id="warm-room" v-model="sheet.v.roomC" label="Room" unit="°C" :error="sheet.errors.roomC" />
      <FieldSelect
        id="warm-place"
        v-model="sheet.v.place"
        label="Where the probe was"
        :options="AIR_PLACES.map(value => ({ value, text: PLACE_WORDS[value] }))"
        :error="sheet.errors.place"
      />
      <FieldSelect
        id="warm-opening"
        v-model="sheet.v.opening"
        label="The lid was"
        :options="OPENINGS.map(value => ({ value, text: OPENING_WORDS[value] }))"
        :error="sheet.errors.opening"
      />
      <FieldWhen id="warm-when" v-model="sheet.v.occurredAt" label="Began" :error="sheet.errors.occurredAt" />
      <FieldText id="warm-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
    </div>
  </EntrySheet>
</template>
