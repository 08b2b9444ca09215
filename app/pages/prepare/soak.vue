<script setup lang="ts">
/* eslint-disable max-lines -- one screen: plan, live readings and warm-ups */
/** Soak: how long until the chamber really holds, by this printer's own warm-up when there is one. */
import { counted, leftWords } from '#core/words'
import type { SoakLine, WarmUpLine } from '#shared/answers/prepare'
import { computed, reactive, ref, watch } from 'vue'
import { cautionsFor, printing } from '#core/cautions'
import { PART_SIZES, soakPlan, timeToHold, type PartSize, type Soak } from '#core/chamber'
import {
  heatAt,
  heatFor,
  heatLines,
  hottestBed,
  inOrder,
  makesSays,
  PLACE_WORDS,
  reason,
  settlesAt,
  soakDemand,
  soakRefusal,
  stackOf,
} from '#core/limits'
import CautionList from '~/components/equip/CautionList.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import EndSheet, { type ToEnd } from '~/components/prepare/EndSheet.vue'
import LivePanel from '~/components/prepare/LivePanel.vue'
import PrepareTabs from '~/components/prepare/PrepareTabs.vue'
import WarmUpPlace from '~/components/prepare/WarmUpPlace.vue'
import WarmUpChart from '~/components/prepare/WarmUpChart.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useEntryForm } from '~/composables/entry-form'
import { usePrepare } from '~/composables/prepare'
import { useAnswer } from '~/composables/answer'
import { later } from '~/lib/later'
import { day, untilWords, when } from '#shared/time'
import { minutesLeft } from '#core/schedule'
import { useLive } from '~/state/live'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { VERDICT_TEXT } from '~/words/verdict'

const WarmUpSheet = later(() => import('~/components/prepare/WarmUpSheet.vue'))

useHead({ title: 'Soak · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const ui = useUi()
const live = useLive()
const { data, failure, now } = usePrepare()
const { data: equip } = useAnswer('/api/equip')
const form = useEntryForm('/api/soaks')
const v = reactive({
  printerId: null as number | null,
  materialId: null as number | null,
  setName: null as string | null,
  part: 'small' as PartSize,
  bedC: null as number | null,
  chamberSetC: null as number | null,
  targetC: null as number | null,
})

const enclosed = computed(() => (equip.value?.printers ?? []).filter(p => p.parts.some(x => x.role === 'enclosure')))
const printer = computed(() => enclosed.value.find(p => p.id === v.printerId) ?? null)
const materials = computed(() => equip.value?.materials ?? [])
const material = computed(() => materials.value.find(m => m.id === v.materialId) ?? null)
const sets = computed(() =>
  (material.value?.sets ?? []).filter(s => !s.withdrawn && s.chamber !== 'indifferent' && s.chamberMinC !== null),
)
const set = computed(() => sets.value.find(s => s.name === v.setName) ?? sets.value[0] ?? null)
const active = computed(() => printer.value?.parts.some(p => p.role === 'chamber heater') ?? false)
watch(
  () => [equip.value, data.value, shop.data] as const,
  ([e, d, all]) => {
    if (!e || !d || !all || v.printerId !== null) return
    const asked = enclosed.value.find(p => p.name === route.query.printer)
    v.printerId = asked?.id ?? enclosed.value.find(p => p.id === ui.lastPrinterId)?.id ?? enclosed.value[0]?.id ?? null
    // what went through last is what is likely to follow
    const nozzles = printer.value?.heads.map(h => h.nozzle?.id) ?? []
    const wanted = materials.value.find(m => m.id === Number(route.query.filament))?.id
    v.materialId = wanted ?? d.through.find(t => nozzles.includes(t.nozzleId))?.lastId ?? materials.value[0]?.id ?? null
  },
  { immediate: true },
)
const stack = computed(() => {
  const head = printer.value?.heads[0]
  return printer.value && head ? stackOf(printer.value, head.id) : null
})
/** What checks found of this printer's bed and chamber. */
const sensors = computed(() => stack.value?.sensors ?? { bed: null, chamber: null })
/** What is set to make a temperature: whole degrees where a check says what that is. */
const setOf = (zone: 'bed' | 'chamber', wantedC: number) =>
  sensors.value[zone] === null ? wantedC : Math.round(heatFor(sensors.value[zone], wantedC).setC)
const bedSensor = computed(() => JSON.stringify(sensors.value.bed))
// by what the practice says, not by each reading: news of a save elsewhere leaves what is typed
watch(
  () => `${v.materialId} ${sets.value.map(s => s.name).join()}`,
  () => {
    v.setName = sets.value[0]?.name ?? null
  },
  { immediate: true },
)
watch(
  () => [v.materialId, set.value?.name, set.value?.chamberMinC, set.value?.bedMinC, bedSensor.value].join(),
  () => {
    v.targetC = set.value?.chamberMinC ?? null
    // what is set makes what the practice wants, by the check of this printer's bed
    const wanted = set.value?.bedMinC ?? null
    if (set.value) v.bedC = wanted === null ? null : setOf('bed', wanted)
  },
  { immediate: true },
)

const report = computed(() => (printer.value ? live.of(printer.value.name, now.value) : null))
const { data: records } = useAnswer('/api/warm-ups/{id}', {
  params: () => (v.printerId === null ? null : { id: v.printerId }),
})
const warmUps = computed(() => (records.value ?? []).filter(w => w.printerId === v.printerId))
const record = computed(
  () => warmUps.value.find(w => w.struck === null && (w.chamberSetC !== null) === active.value) ?? null,
)
const soak = computed<SoakLine | null>(
  () =>
    data.value?.soaks.find(
      s => s.printerId === v.printerId && s.to === null && now.value - Date.parse(s.from) < 12 * 3_600_000,
    ) ?? null,
)
const past = computed(() =>
  (data.value?.soaks ?? []).filter(s => s.printerId === v.printerId && s.to !== null).slice(0, 6),
)
const roomC = computed(() => data.value?.air.roomC ?? 23)
const nowC = computed(() => report.value?.chamber?.nowC ?? roomC.value)
/** What is set: bed, and the heater as the target where nothing else is entered. */
const heat = computed(() => {
  if (v.bedC === null || !(v.bedC >= 0 && v.bedC <= 300)) return null
  const heater = v.chamberSetC ?? (v.targetC === null || Number.isNaN(v.targetC) ? null : setOf('chamber', v.targetC))
  return { bedC: v.bedC, chamberC: active.value && heater !== null && !Number.isNaN(heater) ? heater : null }
})
/** This printer with that set, once everything is there to ask the core. */
const asked = computed(() =>
  stack.value && heat.value && equip.value ? { stack: stack.value, set: heat.value, rules: equip.value.rules } : null,
)
const targetC = computed(() => (v.targetC !== null && Number.isNaN(v.targetC) ? null : v.targetC))
const settles = computed(() => {
  const a = asked.value
  return a && settlesAt(a.stack, a.set, targetC.value, a.rules)
})
/** What a part in the heat says to it: the same lines as a job file gets. */
const refusal = computed(() => {
  const a = asked.value
  return a && soakRefusal(a.stack, a.set, a.rules)
})
const justMet = computed(() => {
  const a = asked.value
  const just = a ? inOrder(heatLines(a.stack, a.set, a.rules).filter(l => l.status === 'just')) : []
  return a && just[0] ? reason(just[0], soakDemand(a.set), null) : null
})
const plan = computed(() => {
  if (heat.value === null) return null
  return soakPlan({
    targetC: targetC.value,
    nowC: nowC.value,
    roomC: roomC.value,
    part: v.part,
    settles: settles.value,
    record: record.value,
  })
})
/** What would bring it to its target. */
function hotterBed(bedC: number | null): string {
  if (bedC === null) return 'Set the chamber heater higher.'
  const most = bedCeiling.value
  const stops = most !== null && bedC > most ? `, but here the bed stops at ${most}` : ''
  return `A bed of ${Math.ceil(bedC)} °C would bring it${stops}.`
}
const sentence = computed(() => {
  if (soak.value) {
    const left = minutesLeft(Date.parse(soak.value.from), soak.value.minutes, now.value)
    return left > 0
      ? {
          verdict: 'look' as const,
          text:
            `${printer.value!.name} is soaking: ` +
            `${leftWords(left)}${soak.value.targetC ? ` to hold ${soak.value.targetC} °C` : ''}.`,
        }
      : {
          verdict: 'fine' as const,
          text:
            `${printer.value!.name} has soaked its ${Math.round(soak.value.minutes)} minutes. Look at the ` +
            `reading, then end the soak.`,
        }
  }
  const p = plan.value
  if (!p) return { verdict: 'look' as const, text: 'Enter the bed temperature.' }
  if (refusal.value) return { verdict: 'stop' as const, text: `Do not soak it so. ${refusal.value.message}.` }
  const s = settles.value
  if (p.minutes === Infinity && s)
    return {
      verdict: 'stop' as const,
      text:
        `It will not hold ${v.targetC} °C: with the bed at ${v.bedC} °C the coolest place settles at ` +
        `${s.settlesC.toFixed(0)} °C, by ${s.from}. ${hotterBed(s.bedForTargetC)}`,
    }
  if (justMet.value)
    return { verdict: 'look' as const, text: `${soakText(p)} Just: ${justMet.value}; stay by it, and measure there.` }
  if (p.reaches === 'just' && s)
    return {
      verdict: 'look' as const,
      text:
        `${soakText(p)} Whether it holds ${v.targetC} °C is not sure: it settles at ` +
        `${s.settlesC.toFixed(0)} °C, known to ${Math.ceil(s.u90)}, by ${s.from}.`,
    }
  return { verdict: record.value ? ('fine' as const) : ('look' as const), text: soakText(p) }
})
function soakText(p: Soak): string {
  const who = printer.value?.name ?? 'this printer'
  if (p.basis === 'practice')
    return (
      `Soak at least ${Math.round(p.minutes)} minutes with air moving: the practice minimum` +
      (record.value ? `; the air holds ${v.targetC} °C before that.` : `, because ${who} has no warm-up record yet.`)
    )
  const rests = settles.value ? ` (the coolest place settles at ${settles.value.settlesC.toFixed(0)} °C)` : ''
  return `Soak ${Math.ceil(p.minutes)} minutes: by its own warm-up ${who} then holds ${v.targetC} °C${rests}.`
}
/** The hottest bed that nothing in it or over it refuses. */
const bedCeiling = computed(() =>
  stack.value && equip.value ? hottestBed(stack.value, heat.value?.chamberC ?? null, equip.value.rules) : null,
)
/** Up to where nothing refuses it, and up to where nothing is even close. */
const bedHint = computed(() => [bedStops.value, bedMakes.value].filter(Boolean).join('; ') || undefined)
/** What the bed comes to, where its sensor was found to be off. */
const bedMakes = computed(() => (heat.value ? makesSays(heatAt(sensors.value.bed, heat.value.bedC)) : ''))
const bedStops = computed(() => {
  if (bedCeiling.value === null || !stack.value || !equip.value) return undefined
  const sure = hottestBed(stack.value, heat.value?.chamberC ?? null, equip.value.rules, true)
  return sure === null || sure === bedCeiling.value
    ? `stops at ${bedCeiling.value}`
    : `fine to ${sure}, stops at ${bedCeiling.value}`
})
const cautions = computed(() => {
  const a = asked.value
  return a ? cautionsFor(printing(a.stack, soakDemand(a.set), a.rules)) : []
})
async function start(confirmed: string[] = []): Promise<void> {
  const p = plan.value
  if (!p || p.minutes === Infinity || refusal.value) return
  const done = await form.send(
    {
      printerId: v.printerId,
      materialId: v.materialId,
      targetC: v.targetC,
      bedC: v.bedC,
      chamberSetC: heat.value?.chamberC ?? null,
      part: v.part,
      minutes: Math.ceil(p.minutes),
      basis: p.basis,
      occurredAt: new Date().toISOString(),
    },
    `Soak ${printer.value!.name}`,
    confirmed,
  )
  if (done !== null && done !== 'queued')
    ui.say(
      untilWords(
        { is: `${printer.value!.name} soaks`, then: 'The Floor shows it; readings are kept meanwhile.' },
        { was: `${printer.value!.name} had its soak`, now: 'it may start.' },
        done.until,
        shop.zone,
      ),
    )
}
const ending = ref<ToEnd | null>(null)
const recording = ref<{ soak: SoakLine | null } | null>(null)
const striking = ref<{ target: 'warm-up' | 'soak'; id: number; says: string } | null>(null)
const hold = (w: WarmUpLine) => {
  const t = timeToHold(w, v.targetC ?? w.finalC - 5)
  return t === Infinity
    ? `never holds ${v.targetC} °C`
    : `holds ${(v.targetC ?? w.finalC - 5).toFixed(0)} °C after ${Math.round(t / 60)} min`
}
</script>

<template>
  <div>
    <PrepareTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <p v-else-if="equip && enclosed.length === 0">No printer here has an enclosure, so there is no chamber to soak.</p>
    <template v-else-if="data && equip">
      <div class="mb-3 grid grid-cols-2 items-start gap-3 md:grid-cols-4 xl:grid-cols-7">
        <FieldSelect
          id="soak-printer"
          :model-value="v.printerId"
          label="Printer"
          :options="enclosed.map(p => ({ value: p.id as number | null, text: p.name }))"
          @update:model-value="
            id => {
              v.printerId = id
              if (id !== null) ui.lastPrinterId = id
            }
          "
        />
        <FieldSelect
          id="soak-material"
          v-model="v.materialId"
          label="Filament"
          :options="materials.map(m => ({ value: m.id as number | null, text: m.name }))"
        />
        <FieldSelect
          v-if="sets.length > 1"
          id="soak-set"
          v-model="v.setName"
          label="Practice"
          :options="sets.map(s => ({ value: s.name as string | null, text: s.name }))"
        />
        <FieldNumber
          id="soak-target"
          v-model="v.targetC"
          label="Chamber"
          unit="°C"
          :hint="
            set
              ? `${set.chamber} ${set.chamberMinC}${set.chamberMaxC ? ` to ${set.chamberMaxC}` : ''}`
              : 'it asks for none'
          "
          :error="form.errors.value.targetC"
        />
        <FieldNumber
          id="soak-bed"
          v-model="v.bedC"
          label="Bed"
          unit="°C"
          :hint="bedHint"
          :error="form.errors.value.bedC"
        />
        <FieldNumber
          v-if="active"
          id="soak-set-c"
          v-model="v.chamberSetC"
          label="Chamber heater"
          unit="°C"
          hint="empty: as the target"
        />
        <FieldSelect
          id="soak-part"
          v-model="v.part"
          label="Part"
          :options="PART_SIZES.map(value => ({ value, text: value }))"
        />
      </div>
      <p
        class="mb-2 flex items-start gap-2 text-[17px] font-[680] leading-snug"
        role="status"
        :class="VERDICT_TEXT[sentence.verdict]"
      >
        <VerdictMark :verdict="sentence.verdict" :size="20" class="mt-[2px]" />{{ sentence.text }}
      </p>
      <div class="mb-4 flex flex-wrap gap-2">
        <button
          v-if="soak"
          type="button"
          class="button first"
          @click="
            ending = {
              target: 'soak',
              id: soak.id,
              says: `soak of ${printer!.name}`,
              setC: null,
              beforeG: null,
              spoolId: null,
            }
          "
        >
          End the soak
        </button>
        <button
          v-else
          type="button"
          class="button first"
          :disabled="!plan || plan.minutes === Infinity || refusal !== null || form.busy.value"
          @click="start()"
        >
          Start the soak
        </button>
        <NuxtLink v-if="printer" :to="`/prepare/check?printer=${printer.name}`" class="act">Then: may I start</NuxtLink>
      </div>
      <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="start" />
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-2">
        <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
          <LivePanel v-if="printer" :printer="printer.name" :now="now" />
          <CautionList :cautions="cautions" title="While it soaks" />
          <section v-if="past.length" aria-labelledby="past">
            <h2 id="past">Soaks before</h2>
            <ul>
              <li v-for="s in past" :key="s.id" class="flex flex-wrap items-center gap-x-3 border-t border-rule py-1">
                <span class="flex-1"
                  >{{ when(s.from, shop.zone) }}: {{ Math.round(s.minutes) }} min planned,
                  {{ Math.round((Date.parse(s.to!) - Date.parse(s.from)) / 60000) }} min soaked, bed {{ s.bedC }} °C{{
                    s.outcome === 'stopped early' ? ', stopped early' : ''
                  }}</span
                ><button v-if="s.readings >= 8" type="button" class="button" @click="recording = { soak: s }">
                  Make a warm-up record of it
                </button>
              </li>
            </ul>
          </section>
        </div>
        <section aria-labelledby="warm-ups" class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <div class="flex flex-wrap items-center gap-3">
            <h2 id="warm-ups" class="flex-1">Warm-up records{{ printer ? ` of ${printer.name}` : '' }}</h2>
            <button v-if="printer" type="button" class="button" @click="recording = { soak: null }">
              From a probe's file</button
            ><button
              v-if="printer && soak && soak.readings >= 8"
              type="button"
              class="button"
              @click="recording = { soak }"
            >
              From this soak
            </button>
          </div>
          <p v-if="warmUps.length === 0">
            None yet. Soak once with the printer connected, or bring a probe's file: then soaks go by this printer's own
            curve.
          </p>
          <figure v-for="(w, i) in warmUps" :key="w.id" class="sheet m-0 p-2" :class="w.struck ? 'opacity-60' : ''">
            <figcaption class="flex flex-wrap items-center gap-x-3 px-1">
              <b :class="w.struck ? 'line-through' : ''"
                >{{ day(w.at, shop.zone) }}, {{ w.place ? PLACE_WORDS[w.place] : w.placeText }}</b
              ><span
                >bed {{ w.bedC }} °C{{ w.chamberSetC ? `, heater ${w.chamberSetC}` : '' }}; settles at
                {{ w.finalC.toFixed(0) }} °C, time constant {{ (w.tauS / 60).toFixed(0) }} min; {{ hold(w) }}</span
              ><span v-if="w.struck" class="text-ink2">struck out: {{ w.struck }}</span
              ><button
                v-else
                type="button"
                class="button plain ml-auto"
                @click="striking = { target: 'warm-up', id: w.id, says: `Warm-up of ${day(w.at, shop.zone)}` }"
              >
                Strike out<span class="sr-only"> warm-up of {{ day(w.at, shop.zone) }}</span>
              </button>
            </figcaption>
            <WarmUpPlace v-if="w.place === null && !w.struck" :warm-up="w" />
            <WarmUpChart
              v-if="i < 2"
              :readings="w.readings"
              :fit="w"
              :label="`Warm-up of ${day(w.at, shop.zone)}: settles at ${w.finalC.toFixed(0)} °C`"
            />
            <p class="px-1 text-xs text-ink2">
              {{ w.used }} readings from {{ w.source }}, scatter {{ w.rmsC.toFixed(2) }} °C{{
                w.dips.length ? `, ${counted(w.dips.length, 'door opening')} left out` : ''
              }}{{ w.note ? `; ${w.note}` : '' }}; {{ w.person }}
            </p>
          </figure>
        </section>
      </div>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the printers"
    />
    <EndSheet :ending="ending" @close="ending = null" />
    <WarmUpSheet v-if="recording && printer" :printer="printer" :soak="recording.soak" @close="recording = null" />
    <StrikeSheet :target="striking" @close="striking = null" />
  </div>
</template>
