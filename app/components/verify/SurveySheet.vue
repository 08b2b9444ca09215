<script setup lang="ts">
/** Survey a chamber: probes placed, read with the room until they are steady, and what the limits take of it. */
import { computed, onScopeDispose, ref } from 'vue'
import { cautionsFor } from '#core/cautions'
import {
  placesOf,
  readSurveyTable,
  surveyFound,
  surveySources,
  type ReadSurveyTable,
  type Surveyed,
  type SurveyFound,
} from '#core/chamber'
import { ceilings, OPENINGS } from '#core/limits'
import { InputError, ONE_SIDED_90 } from '#core/numeric'
import { counted } from '#core/words'
import type { ChamberLine, SurveyLine } from '#shared/answers/chambers'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import ProbeFile from '~/components/ui/ProbeFile.vue'
import SurveyProbes from '~/components/verify/SurveyProbes.vue'
import SurveyReadings from '~/components/verify/SurveyReadings.vue'
import { options } from '~/components/verify/check-form'
import { bodyOf, isEmpty, startForm, surveyOf, takeTable, wholeRows } from '~/components/verify/survey-form'
import { useAnswer } from '~/composables/answer'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useNow } from '~/composables/prepare'
import { ask, ProblemError, read } from '~/lib/api'
import { useLive } from '~/state/live'
import { OPENING_WORDS, placeOf, shareWords } from '~/words/chamber'
import { ceilingWords } from '~/words/sensor'

const props = defineProps<{
  chamber: ChamberLine
  last: SurveyLine | null
  /** Surveys of it that hold, the latest first: the new one counts beside them. */
  holding: readonly Surveyed[]
}>()
const emit = defineEmits<{ close: [] }>()
const live = useLive()
const now = useNow(1000)
const { data: equip } = useAnswer('/api/equip')

const sheet = useEntrySheet('/api/surveys', {
  on: () => props.chamber,
  name: c => String(c.printerId),
  start: c =>
    startForm(props.last?.size ?? null, props.last?.bedC ?? null, c.heated ? (props.last?.chamberSetC ?? null) : null),
  body: (v, c) => ({ printerId: c.printerId, ...bodyOf(v) }),
  says: (_, c) => `Survey of ${c.printer}`,
  saved: (done, _, c) => {
    const of = done.places.map(p => `${placeOf(p.place)} ${shareWords(done.by, p.value, ONE_SIDED_90 * p.u)}`)
    const limit = ceilingWords(done.before, done.after, done.by === 'bed' ? 'bed' : 'chamber', null)
    return `${c.printer} surveyed: ${of.join('; ') || 'no probe counts'}. ${limit}`.trim()
  },
  close: () => emit('close'),
})
const chosen = ref(0)
const found = computed<{ found: SurveyFound | null; error: InputError | null }>(() => {
  const s = surveyOf(sheet.v, props.chamber.tauS)
  if (!s) return { found: null, error: null }
  try {
    return { found: surveyFound(s), error: null }
  } catch (e) {
    if (e instanceof InputError) return { found: null, error: e }
    throw e
  }
})
const errors = computed(() => {
  const e = found.value.error
  return e ? { [e.field]: `Enter ${e.allowed}`, ...sheet.errors } : sheet.errors
})
const places = computed(() => (found.value.found ? placesOf(found.value.found) : []))
/** What the printer may be set to then, and before. */
const changes = computed(() => {
  const f = found.value.found
  const p = equip.value?.printers.find(x => x.id === props.chamber.printerId)
  if (!f || !equip.value || !p || places.value.length === 0) return ''
  const state = { opening: sheet.v.opening, fan: sheet.v.fan, gapMm: sheet.v.gapMm ?? 0 }
  const sources = surveySources([{ found: f, state, from: 'this survey' }, ...props.holding])
  if (state.gapMm > 0) return 'A door ajar is an experiment: the limits take nothing from it.'
  const then = ceilings({ ...p, air: [...sources, ...p.air.filter(a => a.trust !== 'survey')] }, equip.value.rules)
  return ceilingWords(ceilings(p, equip.value.rules), then, f.by === 'bed' ? 'bed' : 'chamber', null)
})
const report = computed(() => live.of(props.chamber.printer, now.value))

/** What the printer shows now, where it is heard; told apart from what is typed where the two are not the same. */
const OTHER_C = 5
const bedSays = computed(() => {
  const nowC = report.value?.bed?.nowC
  if (nowC === undefined) return undefined
  const other = sheet.v.bedC !== null && Math.abs(nowC - sheet.v.bedC) > OTHER_C
  return `now ${nowC.toFixed(1)} °C${other ? `: not ${sheet.v.bedC}, wait or correct it` : ''}`
})

const silent = ref('')
async function readThermometer(): Promise<void> {
  const v = sheet.v
  silent.value = ''
  const at = v.probes.flatMap(p => {
    const mm = [p.xMm, p.yMm, p.zMm].map(n => Math.round(n ?? NaN))
    return p.channel !== null && !mm.some(Number.isNaN) ? [{ channel: p.channel, mm }] : []
  })
  try {
    // the stand-in's probes are hung where the sheet has them; a real one's hang there
    if (live.links.standIns) await ask('/api/stand-in', { what: 'probes', printerId: props.chamber.printerId, at })
    const { channels } = await read('/api/thermometer')
    const of = (channel: number | null) => (channel === null ? null : (channels[channel - 1] ?? null))
    v.since ??= new Date().toISOString()
    const min = Math.round((Date.now() - Date.parse(v.since)) / 600) / 100
    const row = { min, roomC: of(v.roomChannel), readC: v.probes.map(p => of(p.channel)) }
    const free = v.rows.findIndex(isEmpty)
    if (free >= 0) v.rows[free] = row
    else v.rows.push(row)
    v.occurredAt = new Date().toISOString()
  } catch (e) {
    silent.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer; type what it reads'
  }
}
/** Reads by itself while the sheet is open, until it is stopped. */
const EVERY_S = 20
const timer = ref<ReturnType<typeof setInterval> | null>(null)
function readOn(): void {
  if (timer.value !== null) {
    clearInterval(timer.value)
    timer.value = null
    return
  }
  void readThermometer()
  timer.value = setInterval(() => void readThermometer(), EVERY_S * 1000)
}
onScopeDispose(() => timer.value !== null && clearInterval(timer.value))

const table = ref<ReadSurveyTable | null>(null)
function takeFile(t: ReadSurveyTable | null): void {
  table.value = t
  if (t && t.problems.length === 0 && !t.asksClock) takeTable(sheet.v, t)
}
const FANS = [
  { value: null, text: 'not noted, or none' },
  { value: true, text: 'on' },
  { value: false, text: 'off' },
]
const SHIELDS = [
  { value: true, text: 'yes, each of them' },
  { value: false, text: 'no: they see the bed' },
]
const FIELDS = [
  'state.opening',
  'state.fan',
  'state.gapMm',
  'bedC',
  'chamberSetC',
  'shielded',
  'probeUC',
  'probes',
  'note',
  'occurredAt',
]
const shown = computed(() => [
  ...FIELDS,
  ...Object.keys(sheet.errors).filter(f => /^(size|probes\.\d+\.(name|place|.Mm)|.*\.\d+$)/.test(f)),
])
const cautions = computed(() => cautionsFor({ action: 'survey a chamber', nozzleC: null, bedC: sheet.v.bedC ?? 100 }))
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`Survey ${chamber.printer}’s chamber`"
    action="Save the survey"
    :shown="shown"
    wide
  >
    <CautionList :cautions="cautions" />
    <div class="grid gap-3 sm:grid-cols-3">
      <FieldSelect
        id="survey-opening"
        v-model="sheet.v.opening"
        label="Lid"
        :options="options(OPENINGS, o => OPENING_WORDS[o])"
        :error="errors['state.opening']"
      />
      <FieldSelect
        id="survey-fan"
        v-model="sheet.v.fan"
        label="Fan that moves the air"
        :options="FANS"
        :error="errors['state.fan']"
      />
      <FieldNumber
        id="survey-gap"
        v-model="sheet.v.gapMm"
        label="Door ajar by"
        unit="mm"
        hint="empty: shut"
        :error="errors['state.gapMm']"
      />
      <FieldNumber
        id="survey-bed"
        v-model="sheet.v.bedC"
        label="Bed shows"
        unit="°C"
        :hint="bedSays"
        :error="errors.bedC"
      />
      <FieldNumber
        v-if="chamber.heated"
        id="survey-set"
        v-model="sheet.v.chamberSetC"
        label="Chamber heater set to"
        unit="°C"
        hint="empty: it is off, the bed heats"
        :error="errors.chamberSetC"
      />
      <FieldNumber
        id="survey-u"
        v-model="sheet.v.probeUC"
        label="Standard uncertainty of a probe, ±"
        unit="°C"
        hint="about 1 for a thermocouple and its meter"
        :error="errors.probeUC"
      />
      <FieldSelect
        id="survey-shield"
        v-model="sheet.v.shielded"
        label="Shielded from the sight of the bed"
        :options="SHIELDS"
        :error="errors.shielded"
      />
    </div>
    <SurveyProbes
      v-model="sheet.v"
      v-model:chosen="chosen"
      :errors="errors"
      :found="found.found?.probes ?? []"
      :channels="live.links.thermometer"
    />
    <fieldset class="grid grid-cols-[minmax(0,1fr)] gap-2">
      <legend class="label">Readings: the room with the probes, until nothing moves</legend>
      <div v-if="live.links.thermometer" class="flex flex-wrap items-center gap-3">
        <button type="button" class="button" @click="readThermometer">Read the thermometer</button>
        <button
          type="button"
          class="button"
          :class="timer ? 'first' : ''"
          :aria-pressed="timer !== null"
          @click="readOn"
        >
          {{ timer ? 'Stop reading' : `Read it every ${EVERY_S} s` }}
        </button>
        <span v-if="live.links.standIns" class="text-xs text-ink2">
          a stand-in: its probes are put where you placed them, and lag some seconds
        </span>
      </div>
      <p v-if="silent" class="font-semibold text-look" role="alert">{{ silent }}</p>
      <ProbeFile
        :model-value="table"
        says="Or take a table (CSV): a column of time, one named room, and one for each probe."
        :read="readSurveyTable"
        @update:model-value="takeFile"
      />
      <SurveyReadings v-model="sheet.v" :errors="errors" />
      <p v-if="errors.roomC" class="text-sm font-semibold text-stop" role="alert">Room: {{ errors.roomC }}</p>
      <p v-if="errors.timesS" class="text-sm font-semibold text-stop" role="alert">{{ errors.timesS }}</p>
      <p class="text-xs text-ink2">
        Steady: less than 1 °C still to go, nine times in ten, by a time constant of
        {{ (chamber.tauS / 60).toFixed(0) }} min ({{ chamber.tauFrom }}).
        {{ counted(wholeRows(sheet.v.rows).length, 'reading') }}.
      </p>
    </fieldset>
    <div v-if="found.found" class="border-2 border-ink px-3 py-2" role="status">
      <p class="text-[15px] font-[680]">
        {{
          places.length === 0
            ? 'No probe counts yet.'
            : places
                .map(p => `${placeOf(p.place)} ${shareWords(found.found!.by, p.value, ONE_SIDED_90 * p.u)}`)
                .join('; ')
        }}
      </p>
      <p v-if="changes" class="text-sm">{{ changes }}</p>
    </div>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldWhen id="survey-when" v-model="sheet.v.occurredAt" label="Surveyed" :error="errors.occurredAt" />
      <FieldText id="survey-note" v-model="sheet.v.note" label="Note" :error="errors.note" />
    </div>
  </EntrySheet>
</template>
