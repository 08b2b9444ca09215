<script setup lang="ts">
/** Check a sensor: a reference in its place, what the printer shows against what it reads, and what it comes to. */
import { computed, ref } from 'vue'
import { cautionsFor } from '#core/cautions'
import { ceilings } from '#core/limits'
import { InputError } from '#core/numeric'
import { placementOf, placementsOf, sensorCheck, type Allowed, type CheckResult } from '#core/thermometry'
import type { EnteredOf } from '#shared/answers/again'
import type { ReferenceLine, SensorLine } from '#shared/answers/sensors'
import { countingChecks } from '#shared/sensor-state'
import AgainBox from '~/components/entry/AgainBox.vue'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import AllowedFields from '~/components/verify/AllowedFields.vue'
import {
  allowedOf,
  emptyPoint,
  isEmpty,
  options,
  toPoint,
  typedCheck,
  wholePoints,
  type CheckForm,
} from '~/components/verify/check-form'
import CheckPoints from '~/components/verify/CheckPoints.vue'
import { inPlaceOf } from '~/composables/again'
import { useAnswer } from '~/composables/answer'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useNow } from '~/composables/prepare'
import { ask, ProblemError, read } from '~/lib/api'
import { useLive } from '~/state/live'
import { useShop } from '~/state/shop'
import {
  ceilingsWith,
  ceilingWords,
  correctionWith,
  outcomeWords,
  referenceWords,
  sensorKey,
  sensorName,
  VERDICT_OF,
} from '~/words/sensor'
import { VERDICT_TEXT } from '~/words/verdict'

const props = defineProps<{
  sensor: SensorLine
  references: readonly ReferenceLine[]
  /** The check that this one takes the place of. */
  again?: EnteredOf<'sensor check'> | null
}>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
const live = useLive()
const now = useNow(1000)
const { data: equip } = useAnswer('/api/equip')

const usable = computed(() => props.references.filter(r => !r.withdrawn || r.id === props.again?.body.referenceId))
const sheet = useEntrySheet('/api/sensor-checks', {
  on: () => props.sensor,
  name: s => (props.again ? `again ${props.again.id}` : sensorKey(s)),
  start: (s): CheckForm => ({
    referenceId: usable.value[0]?.id ?? null,
    placement: placementsOf(s.zone)[0]!,
    points: [emptyPoint(), emptyPoint()],
    by: 'guard band',
    plusMinusC: null,
    platinumClass: 'B',
    build: 'film',
    type: 'K',
    coupleClass: 2,
    note: '',
    occurredAt: new Date().toISOString(),
    reason: '',
    ...(props.again && typedCheck(props.again.body)),
  }),
  body: (v, s) => ({
    printerId: s.printerId,
    zone: s.zone,
    headId: s.headId,
    referenceId: v.referenceId,
    placement: v.placement,
    points: v.points.filter(p => !isEmpty(p)).map(toPoint),
    allowed: allowedOf(v, s.guardPartC),
    note: v.note,
    occurredAt: v.occurredAt,
    replaces: inPlaceOf(props.again?.id, v.reason),
  }),
  says: (_, s) => `Check of ${sensorName(s)}`,
  saved: (done, _, s) =>
    `${sensorName(s)}: ${done.verdict}. ${ceilingWords(done.before, done.after, s.zone, s.headId)}`.trim(),
  close: () => emit('close'),
})

const reference = computed(() => usable.value.find(r => r.id === sheet.v.referenceId)?.is ?? null)
const place = computed(() => placementOf(sheet.v.placement))
const cautions = computed(() => {
  const hot = props.sensor.zone === 'hotend'
  return cautionsFor({ action: 'check a sensor', nozzleC: hot ? 300 : null, bedC: hot ? null : 100 })
})
/** What it comes to as it stands, once every row is whole; what the core refuses is said while it is typed. */
const found = computed<{ result: CheckResult | null; error: InputError | null }>(() => {
  const is = reference.value
  const points = is && wholePoints(sheet.v.points, is.readsIn === 'mV')
  if (!is || !points) return { result: null, error: null }
  try {
    const allowed = allowedOf(sheet.v, props.sensor.guardPartC) as Allowed
    return { result: sensorCheck(points, is, sheet.v.placement, allowed), error: null }
  } catch (e) {
    if (e instanceof InputError) return { result: null, error: e }
    throw e
  }
})
const errors = computed(() => {
  const e = found.value.error
  return e ? { [e.field]: `Enter ${e.allowed}`, ...sheet.errors } : sheet.errors
})
/** What the printer may be set to then, and before. */
const changes = computed(() => {
  const [s, r, e] = [props.sensor, found.value.result, equip.value]
  const p = e?.printers.find(x => x.id === s.printerId)
  if (!r || !e || !p) return ''
  const then = ceilingsWith(p, s, correctionWith(countingChecks(s), r, shop.zone), e.rules)
  return ceilingWords(ceilings(p, e.rules), then, s.zone, s.headId)
})
const nowC = computed(() => {
  const s = props.sensor
  const report = live.of(s.printer, now.value)
  if (!report) return null
  if (s.zone !== 'hotend') return report[s.zone]?.nowC ?? null
  const heads = equip.value?.printers.find(p => p.id === s.printerId)?.heads ?? []
  return report.heads[heads.findIndex(h => h.id === s.headId)]?.nowC ?? null
})
/** The channel of the thermometer that the reference hangs on. */
const channel = ref(1)
const silent = ref('')
async function readThermometer(point: number): Promise<void> {
  const s = props.sensor
  silent.value = ''
  try {
    const { printerId, zone, headId } = s
    // the stand-in's probe is held to the sensor; a real one is held there
    if (live.links.standIns)
      await ask('/api/stand-in', { what: 'probe', channel: channel.value, printerId, zone, headId })
    const { channels } = await read('/api/thermometer')
    const c = channels[channel.value - 1] ?? null
    if (c === null) silent.value = `No probe is on channel ${channel.value}`
    else sheet.v.points[point]!.reading = c
  } catch (e) {
    silent.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer; type what it reads'
  }
}
const FIELDS = ['replaces.reason', 'referenceId', 'placement', 'points', 'note', 'occurredAt', 'allowed.plusMinusC']
const shown = computed(() => [...FIELDS, ...Object.keys(sheet.errors).filter(f => f.startsWith('points.'))])
</script>

<template>
  <EntrySheet :sheet="sheet" :title="`Check ${sensorName(sensor)}`" action="Save the check" :shown="shown" wide>
    <AgainBox
      v-if="again"
      kind="sensor check"
      v-model="sheet.v.reason"
      :old="again"
      :error="sheet.errors['replaces.reason']"
    />
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldSelect
        id="check-reference"
        v-model="sheet.v.referenceId"
        label="Reference"
        :options="usable.map(r => ({ value: r.id as number | null, text: r.name }))"
        :hint="reference ? referenceWords(reference) : undefined"
        :error="sheet.errors.referenceId"
      />
      <FieldSelect
        id="check-placement"
        v-model="sheet.v.placement"
        label="Where the probe sits"
        :options="placementsOf(sensor.zone).map(p => ({ value: p, text: p }))"
        :error="sheet.errors.placement"
      />
    </div>
    <p class="text-sm">
      {{ place.how }}
      <b v-if="place.lowC">
        There it reads {{ place.lowC[0] }} to {{ place.lowC[1] }} °C low by itself, so it can only tighten a limit.</b
      >
    </p>
    <CautionList :cautions="cautions" />
    <CheckPoints
      v-model="sheet.v.points"
      :reference="reference"
      :errors="errors"
      :result="found.result"
      :now-c="nowC"
      :channel="live.links.thermometer && reference?.readsIn === '°C' ? channel : null"
      @read="readThermometer"
    />
    <div v-if="live.links.thermometer && reference?.readsIn === '°C'" class="grid gap-3 sm:grid-cols-3">
      <FieldSelect
        id="check-channel"
        v-model="channel"
        label="Read from the thermometer’s channel"
        :options="options([1, 2, 3, 4])"
        :error="silent"
        :hint="live.links.standIns ? 'a stand-in: its probe is put at this sensor, and lags some seconds' : undefined"
      />
    </div>
    <AllowedFields v-model="sheet.v" :guard-part-c="sensor.guardPartC" :error="errors['allowed.plusMinusC']" />
    <div v-if="found.result" class="border-2 border-ink px-3 py-2" role="status">
      <p
        class="flex items-start gap-2 text-[15px] font-[680]"
        :class="VERDICT_TEXT[VERDICT_OF[found.result.verdict].verdict]"
      >
        <VerdictMark :verdict="VERDICT_OF[found.result.verdict].verdict" class="mt-[2px]" />{{
          outcomeWords(found.result)
        }}
      </p>
      <p v-if="changes" class="text-sm">{{ changes }}</p>
      <details class="text-sm">
        <summary class="min-h-[40px] content-center">What its range is made of</summary>
        <ul>
          <li v-for="b in found.result.worst.budget" :key="b.what">{{ b.what }}: u {{ b.uC.toFixed(2) }} °C</li>
        </ul>
      </details>
    </div>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldWhen id="check-when" v-model="sheet.v.occurredAt" label="Checked" :error="sheet.errors.occurredAt" />
      <FieldText id="check-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
    </div>
  </EntrySheet>
</template>
