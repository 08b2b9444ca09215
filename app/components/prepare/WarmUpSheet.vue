<script setup lang="ts">
/** Record a warm-up from a probe's file: read, previewed with every line that cannot be read, and only then saved. */
import { counted, percent } from '#core/words'
import type { SoakLine } from '#shared/answers/prepare'
import Papa from 'papaparse'
import { computed, ref } from 'vue'
import { fitWarmUp, readTable, type Clock, type FittedWarmUp, type ReadTable } from '#core/chamber'
import { AIR_PLACES, OPENINGS, PLACE_WORDS, type AirPlace, type Opening } from '#core/limits'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import WarmUpChart from '~/components/prepare/WarmUpChart.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useShop } from '~/state/shop'

const OPENING_WORDS: Record<Opening, string> = {
  'shut': 'on, shut',
  'vent open': 'on, vent open',
  'raised': 'raised on a riser',
  'off': 'off',
}
const props = defineProps<{ printer: { id: number; name: string }; soak: SoakLine | null }>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
const table = ref<ReadTable | null>(null)
const fileName = ref('')
const input = ref<HTMLInputElement | null>(null)

async function take(file: File | undefined): Promise<void> {
  if (!file) return
  fileName.value = file.name
  if (file.size > 5_000_000) {
    table.value = {
      readings: [],
      problems: [{ line: 1, message: 'The file is over 5 MB; a warm-up needs a reading each ten seconds at most' }],
      asksClock: false,
      timeColumn: null,
      temperatureColumn: null,
    }
    return
  }
  const text = await file.text()
  lines = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').replace(/\r?\n$/, ''), { skipEmptyLines: false }).data
  table.value = readTable(lines)
}
let lines: string[][] = []
const CLOCKS: { clock: Clock; says: string }[] = [
  { clock: 'h:mm', says: 'hours and minutes' },
  { clock: 'mm:ss', says: 'minutes and seconds' },
]
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
      <p>
        A table (CSV) with a column of time (seconds, minutes or clock) and one of temperature in °C.
        <button type="button" class="button" @click="input?.click()">Choose the file</button
        ><input
          ref="input"
          type="file"
          accept=".csv,.txt,.tsv,text/csv"
          class="sr-only"
          aria-label="Probe file"
          tabindex="-1"
          @change="take(($event.target as HTMLInputElement).files?.[0])"
        />
      </p>
      <div v-if="table && table.problems.length" class="border-2 border-stop p-3" role="alert">
        <p class="font-semibold text-stop">{{ fileName }}: nothing is taken until these lines are right.</p>
        <ul class="text-sm">
          <li v-for="(p, i) in table.problems.slice(0, 20)" :key="i">Line {{ p.line }}: {{ p.message }}</li>
        </ul>
        <p v-if="table.problems.length > 20" class="text-sm">and {{ table.problems.length - 20 }} more.</p>
      </div>
      <div v-else-if="table?.asksClock" class="border-2 border-look p-3" role="alert">
        <p class="mb-2 font-semibold">{{ fileName }}: its times, like 0:30, can be read in two ways. They are</p>
        <div class="flex flex-wrap gap-2">
          <button
            v-for="c in CLOCKS"
            :key="c.clock"
            type="button"
            class="button"
            @click="table = readTable(lines, c.clock)"
          >
            {{ c.says }}
          </button>
        </div>
      </div>
      <p v-else-if="preview.problem" class="font-semibold text-stop" role="alert">
        {{ fileName }}: {{ preview.problem }}
      </p>
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
