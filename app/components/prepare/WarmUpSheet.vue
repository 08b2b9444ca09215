<script setup lang="ts">
/** Record a warm-up from a probe's file: read, previewed with every line that cannot be read, and only then saved. */
import { counted } from '#core/words'
import type { SoakLine } from '#shared/answers/prepare'
import Papa from 'papaparse'
import { computed, reactive, ref } from 'vue'
import { fitWarmUp, readTable, type FittedWarmUp, type ReadTable } from '#core/chamber'
import WarmUpChart from '~/components/prepare/WarmUpChart.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const props = defineProps<{ open: boolean; printer: { id: number; name: string }; soak: SoakLine | null }>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
const ui = useUi()
const form = useEntryForm('/api/warm-ups')
const v = reactive({
  place: 'near the top',
  bedC: props.soak?.bedC ?? (null as number | null),
  chamberSetC: null as number | null,
  roomC: shop.data?.settings.roomC ?? (null as number | null),
  note: '',
  occurredAt: props.soak?.from ?? new Date().toISOString(),
})
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
      timeColumn: null,
      temperatureColumn: null,
    }
    return
  }
  const text = await file.text()
  table.value = readTable(
    Papa.parse<string[]>(text.replace(/^\uFEFF/, '').replace(/\r?\n$/, ''), { skipEmptyLines: false }).data,
  )
}
const preview = computed<{ fit: FittedWarmUp | null; problem: string }>(() => {
  const t = table.value
  if (!t || t.problems.length > 0) return { fit: null, problem: '' }
  try {
    return { fit: fitWarmUp(t.readings), problem: '' }
  } catch (e) {
    return { fit: null, problem: e instanceof Error ? e.message : String(e) }
  }
})
const ready = computed(() => props.soak !== null || preview.value.fit !== null)
async function save(confirmed: string[] = []): Promise<void> {
  const done = await form.send(
    {
      printerId: props.printer.id,
      ...v,
      soakId: props.soak?.id ?? null,
      readings: props.soak ? null : (table.value?.readings ?? null),
    },
    `Warm-up of ${props.printer.name}`,
    confirmed,
  )
  if (done === null) return
  if (done !== 'queued')
    ui.say(
      `Warm-up of ${props.printer.name}: settles at ${done.fit.finalC.toFixed(0)} °C, time constant ` +
        `${(done.fit.tauS / 60).toFixed(0)} min.`,
    )
  emit('close')
}
</script>

<template>
  <ModalSheet
    :open="open"
    wide
    :title="
      soak ? `Record the warm-up of ${printer.name} from its soak` : `Warm-up of ${printer.name} from a probe's file`
    "
    @close="emit('close')"
  >
    <form class="grid grid-cols-[minmax(0,1fr)] gap-3" @submit.prevent="save()">
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
        <FieldNumber id="warm-bed" v-model="v.bedC" label="Bed was at" unit="°C" :error="form.errors.value.bedC" />
        <FieldNumber
          id="warm-set"
          v-model="v.chamberSetC"
          label="Chamber heater set to"
          unit="°C"
          hint="empty: heated by the bed"
          :error="form.errors.value.chamberSetC"
        />
        <FieldNumber id="warm-room" v-model="v.roomC" label="Room" unit="°C" :error="form.errors.value.roomC" />
        <FieldText id="warm-place" v-model="v.place" label="Where the probe was" :error="form.errors.value.place" />
        <FieldWhen id="warm-when" v-model="v.occurredAt" label="Began" :error="form.errors.value.occurredAt" />
        <FieldText id="warm-note" v-model="v.note" label="Note" :error="form.errors.value.note" />
      </div>
      <p v-if="form.errors.value.soakId || form.errors.value.readings" class="font-semibold text-stop" role="alert">
        {{ form.errors.value.soakId ?? form.errors.value.readings }}
      </p>
      <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
      <div class="flex gap-2">
        <button type="submit" class="button first" :disabled="form.busy.value || !ready">Save the warm-up</button
        ><button type="button" class="button" @click="emit('close')">Cancel</button>
      </div>
    </form>
  </ModalSheet>
</template>
