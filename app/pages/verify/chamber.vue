<script setup lang="ts">
/** Chamber survey: what the air is at each place at another setting, state beside state, and the part that decides. */
import { computed, ref, watch } from 'vue'
import { openingOf, PLACE_WORDS, type AirPlace } from '#core/limits'
import { SURVEY_BED_C, SURVEY_CHAMBER_C } from '#core/chamber'
import type { ChamberLine, SurveyLine } from '#shared/answers/chambers'
import { foundOf } from '#shared/survey-reading'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import AirParts from '~/components/verify/AirParts.vue'
import ChamberDrawing from '~/components/verify/ChamberDrawing.vue'
import SurveyRecord from '~/components/verify/SurveyRecord.vue'
import VerifyTabs from '~/components/verify/VerifyTabs.vue'
import { useAnswer } from '~/composables/answer'
import { usePrinterChoice } from '~/composables/printer-choice'
import { later } from '~/lib/later'
import { bedsIn, inState, stackIn } from '~/lib/survey'
import { useShop } from '~/state/shop'
import { airLineWords, evennessWords, LINE_MARK, stateWords } from '~/words/chamber'
import { VERDICT_TEXT } from '~/words/verdict'

const SurveySheet = later(() => import('~/components/verify/SurveySheet.vue'))

useHead({ title: 'Chamber survey · Iron Nozzle' })
const shop = useShop()
const { data, failure } = useAnswer('/api/chambers')
const { data: equip } = useAnswer('/api/equip')

const printerId = usePrinterChoice(
  () => data.value?.chambers.map(c => ({ id: c.printerId, name: c.printer })) ?? [],
  id => data.value!.surveys.some(s => s.printerId === id && !s.struck),
)
const chamber = computed<ChamberLine | null>(
  () => data.value?.chambers.find(c => c.printerId === printerId.value) ?? null,
)
const printer = computed(() => equip.value?.printers.find(p => p.id === printerId.value) ?? null)
const surveys = computed(() =>
  (data.value?.surveys ?? [])
    .filter(s => s.printerId === printerId.value)
    .map(s => ({ s, found: foundOf(s), holds: s.struck === null && s.changed.length === 0 })),
)
/** The latest of each state, those that hold first. */
const states = computed(() => {
  const seen = new Set<string>()
  const latest = surveys.value.flatMap(({ s, found, holds }) => {
    const key = `${s.chamberSetC === null} ${stateWords(s.state)}`
    if (s.struck || !found || seen.has(key)) return []
    seen.add(key)
    return [{ s, found, holds }]
  })
  // as its lid sits now, and what holds, before the others
  const sits = openingOf(printer.value?.parts.find(p => p.role === 'lid'))
  const last = (x: (typeof latest)[number]) => (x.holds ? 0 : 2) + (x.s.state.opening === sits ? 0 : 1)
  return [...latest].sort((a, b) => last(a) - last(b)).slice(0, 6)
})
const chosenId = ref<number | null>(null)
const chosen = computed(() => states.value.find(x => x.s.id === chosenId.value) ?? states.value[0] ?? null)
/** What the bed, or the chamber heater, would be set to; null: as it was surveyed. */
const askedC = ref<number | null>(null)
watch(printerId, () => (askedC.value = null))
const byBed = (s: SurveyLine) => s.chamberSetC === null
const rangeOf = (s: SurveyLine) => (byBed(s) ? SURVEY_BED_C : SURVEY_CHAMBER_C)
/** Asked of the chosen survey, and of those that were warmed in the same way. */
function setOf(s: SurveyLine): { bedC: number; chamberC: number | null } {
  const [least, most] = rangeOf(s)
  const c = askedC.value
  const asked = c !== null && c >= least && c <= most && chosen.value !== null && byBed(chosen.value.s) === byBed(s)
  if (byBed(s)) return { bedC: asked ? c : s.bedC, chamberC: null }
  return { bedC: s.bedC, chamberC: asked ? c : s.chamberSetC! }
}
/** What of a state does not hang on the setting that is asked. */
const surveyed = computed(() =>
  states.value.map(x => {
    const stack = printer.value && stackIn(printer.value, x.s, x.found)
    return { ...x, stack, beds: stack && bedsIn(stack, x.found, equip.value!.rules) }
  }),
)
const views = computed(() =>
  surveyed.value.map(x => ({
    ...x,
    set: setOf(x.s),
    is: x.stack && inState(x.stack, x.found, setOf(x.s), equip.value!.rules),
  })),
)
const view = computed(() => views.value.find(x => x.s.id === chosen.value?.s.id) ?? null)
const outside = computed(() => {
  if (!chosen.value || askedC.value === null) return undefined
  const [least, most] = rangeOf(chosen.value.s)
  return askedC.value >= least && askedC.value <= most ? undefined : `Enter ${least} to ${most} °C`
})
const degreesAt = (place: AirPlace, is: NonNullable<(typeof views.value)[number]['is']>) => {
  const air = is.air[place]
  return air ? `${air.c.toFixed(0)} ± ${Math.max(1, Math.round(air.u90))} °C` : 'not known'
}
const drawn = computed(() =>
  (view.value?.found.probes ?? []).map((p, i) => {
    const air = view.value!.is?.probes[i]
    return { ...p.probe, says: air ? `${air.c.toFixed(0)} °C` : 'does not count' }
  }),
)
const setWords = computed(() => {
  const v = view.value
  if (!v) return ''
  return v.set.chamberC === null ? `the bed at ${v.set.bedC} °C` : `the chamber set to ${v.set.chamberC} °C`
})
const sentence = computed(() => {
  const [c, v] = [chamber.value, view.value]
  if (!c) return null
  if (!v)
    return { mark: 'look' as const, text: `Nobody has surveyed ${c.printer}’s chamber: the limits go by practice.` }
  if (v.s.changed.length > 0)
    return {
      mark: 'look' as const,
      text: `${c.printer}’s survey does not hold any more: changed since, ${v.s.changed.join('; ')}. Survey it again.`,
    }
  const worst = v.is?.parts[0]
  if (!worst) return { mark: 'look' as const, text: `Nothing is known of the parts in ${c.printer}’s heat.` }
  const mark = LINE_MARK[worst.line.status]
  const part = airLineWords(worst.line, PLACE_WORDS[worst.place])
  return {
    mark: v.is!.unknown.length > 0 && mark === 'fine' ? ('look' as const) : mark,
    text: `${c.printer}, ${setWords.value}, ${stateWords(v.s.state)}: ${part}.`,
  }
})
const bedWords = computed(() => {
  const v = view.value
  if (!v?.beds || v.found.by === 'heater') return ''
  const { sureC: sure, perhapsC: perhaps } = v.beds
  if (perhaps === null) return v.holds ? 'No bed would do.' : 'As it was then no bed would have done.'
  const upTo = sure === perhaps ? '' : `, up to ${perhaps} °C perhaps`
  const [state, stands] = v.holds ? ['In this state', 'stands'] : ['As it was then', 'stood']
  if (sure === null) return `${state} a bed of ${perhaps} °C ${stands} perhaps.`
  return `${state} a bed of up to ${sure} °C ${stands}${upTo}, with everything that is in the heat or on the bed.`
})
const surveying = ref<ChamberLine | null>(null)
const striking = ref<{ target: 'survey'; id: number; says: string } | null>(null)
const holding = computed(() =>
  surveys.value.flatMap(({ s, found, holds }) => (holds && found ? [{ found, state: s.state, from: '' }] : [])),
)
const last = computed(() => surveys.value.find(x => !x.s.struck)?.s ?? null)
</script>

<template>
  <div>
    <VerifyTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <p v-else-if="data && data.chambers.length === 0">
      No printer has an enclosure. Describe one with the printer’s parts under
      <NuxtLink to="/equip" class="underline">Equip</NuxtLink>, and its chamber can be surveyed.
    </p>
    <template v-else-if="data && chamber && sentence">
      <p
        class="mb-3 flex items-start gap-2 text-[17px] leading-snug font-[680]"
        :class="VERDICT_TEXT[sentence.mark]"
        role="status"
      >
        <VerdictMark :verdict="sentence.mark" class="mt-[3px]" />{{ sentence.text }}
      </p>
      <div class="no-print mb-3 flex flex-wrap items-center gap-1">
        <ChoiceButtons
          v-model="printerId"
          label="Printer"
          :options="data.chambers.map(c => ({ value: c.printerId as number | null, text: c.printer }))"
        />
        <button type="button" class="button first ml-auto" @click="surveying = chamber">Survey it</button>
      </div>
      <div
        v-if="view && view.is"
        class="grid grid-cols-[minmax(0,1fr)] items-start gap-[18px] xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
      >
        <section class="grid grid-cols-[minmax(0,1fr)] gap-2" aria-label="The air by this survey">
          <ChamberDrawing :size="view.s.size" :probes="drawn" :label="`${chamber.printer} with ${setWords}`" />
          <p class="text-sm">{{ evennessWords(view.found.evenness) }} {{ bedWords }}</p>
          <div class="max-w-[220px]">
            <FieldNumber
              id="survey-asked"
              v-model="askedC"
              :label="byBed(view.s) ? 'With the bed set to' : 'With the chamber set to'"
              unit="°C"
              :placeholder="String(byBed(view.s) ? view.s.bedC : view.s.chamberSetC)"
              hint="empty: as it was surveyed"
              :error="outside"
            />
          </div>
        </section>
        <section class="grid grid-cols-[minmax(0,1fr)] gap-3" aria-label="States and parts">
          <div class="overflow-x-auto" tabindex="0" role="group" aria-label="States side by side">
            <table class="record w-full">
              <thead>
                <tr>
                  <th scope="col">state</th>
                  <th scope="col">near bed and head</th>
                  <th scope="col">near the top</th>
                  <th scope="col">bed up to</th>
                </tr>
              </thead>
              <tbody>
                <tr
                  v-for="x in views"
                  :key="x.s.id"
                  :class="x.s.id === view.s.id ? 'bg-sheet outline-2 outline-ink' : ''"
                >
                  <td>
                    <button
                      type="button"
                      class="min-h-[40px] text-left font-[650] underline"
                      :aria-pressed="x.s.id === view.s.id"
                      @click="chosenId = x.s.id"
                    >
                      {{ stateWords(x.s.state) }}</button><span v-if="!x.holds" class="block text-xs text-look"
                      >stale</span
                    >
                  </td>
                  <td>{{ x.is ? degreesAt('low', x.is) : '' }}</td>
                  <td>{{ x.is ? degreesAt('high', x.is) : '' }}</td>
                  <td>{{ x.beds?.sureC ? `${x.beds.sureC} °C` : '' }}</td>
                </tr>
              </tbody>
            </table>
          </div>
          <AirParts
            v-if="view.is.parts.length > 0"
            :parts="view.is.parts"
            :room-c="equip!.rules.roomC"
            :holds="view.holds"
          />
          <p v-if="view.is.unknown.length > 0" class="text-sm font-semibold text-look">
            What they stand is not known: {{ view.is.unknown.join(', ') }}.
          </p>
        </section>
      </div>
      <SurveyRecord
        :surveys="surveys"
        :printer="chamber.printer"
        @strike="id => (striking = { target: 'survey', id, says: `Survey of ${chamber!.printer}` })"
      />
      <SurveySheet v-if="surveying" :chamber="surveying" :last="last" :holding="holding" @close="surveying = null" />
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
  </div>
</template>
