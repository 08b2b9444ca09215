<script setup lang="ts">
/* eslint-disable max-lines -- one screen: everything of one nozzle */
/** A nozzle: what is left, what it rests on, its section, its wear chart, its record; and gauging it on the chart. */
import { whereIs } from '~/words/nozzle'
import { gaugeDue, PROBABLY_PAST } from '#core/schedule'
import { LIST_WORDS, type ListName } from '#shared/lists'
import type { GaugeEffect, RecordLine } from '#shared/answers/nozzles'
import { computed, defineAsyncComponent, ref, shallowRef, watch } from 'vue'
import {
  boreBands,
  boreLife,
  borePosterior,
  expectedReading,
  fillerKgFor,
  forecast as forecastOf,
  PIN_U_MM,
  UNUSUAL,
  wearAtRisk,
  type BoreObservation,
  type Law,
} from '#core/wear'
import { gaugeFoundWords } from '#shared/gauge-words'
import NozzleSection from '~/components/inspect/NozzleSection.vue'
import FitSheet from '~/components/entry/FitSheet.vue'
import RetireSheet from '~/components/entry/RetireSheet.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import GaugeForm from '~/components/inspect/GaugeForm.vue'
import SavedNote from '~/components/ui/SavedNote.vue'
import PictureRow from '~/components/inspect/PictureRow.vue'
import NozzleRecord from '~/components/inspect/NozzleRecord.vue'
import { nozzleEditFieldsOf } from '~/components/stores/fields'
import type { OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import ListLinks from '~/components/ui/ListLinks.vue'
import NozzleTitleBlock from '~/components/inspect/NozzleTitleBlock.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { againAt, useAgain } from '~/composables/again'
import { useAnswer } from '~/composables/answer'
import { editFailure, useRecordEdit } from '~/composables/record-edit'
import { focusOnceFree } from '~/lib/free-focus'
import { day } from '#shared/time'
import { chance, countBetween, kg, kgBetween, kgEstimate, listed } from '#core/words'
import { um } from '~/words/picture'
import { useShop } from '~/state/shop'
import { gaugeEffectWords } from '~/words/effects'
import { useUi } from '~/state/ui'
import { VERDICT_TEXT } from '~/words/verdict'

const WearChart = defineAsyncComponent(() => import('~/components/inspect/WearChart.vue'))
const route = useRoute()
const shop = useShop()
const ui = useUi()
const tag = computed(() => String(route.params.tag))
useHead({ title: () => `${tag.value} · Iron Nozzle` })
const { data: page, failure } = useAnswer('/api/nozzles/{tag}', { params: () => ({ tag: tag.value }) })
watch(page, p => {
  if (p) ui.lastNozzleTag = p.nozzle.tag
})

const gauging = ref(false)
const { old: gaugeBefore, failure: noGauge } = useAgain('gauge')
watch(gaugeBefore, old => {
  if (old) openGauge()
})
const { old: fitBefore, leave: leaveFitBefore, failure: noFit } = useAgain('fitting')
const draft = computed(() => (route.query.draft ? String(route.query.draft) : null))
watch(
  () => [route.query.gauge, route.query.draft],
  ([g, d]) => {
    if (g !== undefined || d !== undefined) openGauge()
  },
  { immediate: true },
)
const gaugeForm = ref<InstanceType<typeof GaugeForm> | null>(null)
const typed = ref<{ goMm: number | null; noGoMm: number | null; valueMm: number | null; uMm: number | null } | null>(
  null,
)
function openGauge(): void {
  gauging.value = true
  void focusOnceFree('go')
}
/** What was saved last, until it is gauged again. */
const gauged = shallowRef<GaugeEffect | 'queued' | null>(null)
function gaugeSaved(effect: GaugeEffect | 'queued' | null): void {
  gauged.value = effect
  closeGauge()
}
/** Esc put it away; what is typed is there again when it is opened. */
const leftOpen = ref(false)
function leaveGauge(): void {
  if (!gauging.value) return
  gauging.value = false
  leftOpen.value = true
}
function closeGauge(): void {
  gauging.value = false
  leftOpen.value = false
  typed.value = null
  if (Object.keys(route.query).length > 0) void navigateTo({ query: {} }, { replace: true })
}

/** The gauge being typed, if it would already make sense. */
const preview = computed<BoreObservation | null>(() => {
  const t = typed.value,
    p = page.value
  if (!t || !p || !gauging.value) return null
  const ok = (v: number | null) => v !== null && v >= 0.05 && v <= 3
  if (ok(t.valueMm) && t.uMm !== null && t.uMm >= 0.0001 && t.uMm <= 0.2)
    return { kind: 'value', wearKg: p.input.wearKg, valueMm: t.valueMm!, uMm: t.uMm }
  const goMm = ok(t.goMm) ? t.goMm : null,
    noGoMm = ok(t.noGoMm) ? t.noGoMm : null
  if ((goMm === null && noGoMm === null) || (goMm !== null && noGoMm !== null && goMm >= noGoMm)) return null
  return { kind: 'pins', wearKg: p.input.wearKg, goMm, noGoMm, uMm: PIN_U_MM, uRandomMm: p.scatter.pinsMm ?? 0 }
})
/** What was expected instead, when the gauge being typed is not; the server asks the same before it stores it. */
const unexpected = computed(() => {
  const p = page.value
  if (!p || !preview.value) return null
  const e = expectedReading(p.input.bore, preview.value, p.input.prior, p.input.law)
  return e.chance < UNUSUAL ? e.bore : null
})
const input = computed(
  () =>
    page.value && {
      ...page.value.input,
      bore: preview.value
        ? { ...page.value.input.bore, observations: [...page.value.input.bore.observations, preview.value] }
        : page.value.input.bore,
    },
)
const forecast = computed(() => {
  if (!page.value || !input.value) return null
  return preview.value ? forecastOf(input.value) : page.value.forecast
})
const fibre = (kgWear: number) =>
  page.value?.lastFilled ? fillerKgFor(kgWear, page.value.lastFilled.abrasivity) : null
const fibreLeft = (f: { leftKg: { median: number; low80: number; high80: number } }) => ({
  median: fibre(f.leftKg.median)!,
  low80: fibre(f.leftKg.low80)!,
  high80: fibre(f.leftKg.high80)!,
})
const left = computed(() => {
  const f = forecast.value
  if (!f || !page.value?.lastFilled || f.leftKg.median > 1e8) return null
  return { ...fibreLeft(f), next: fibre(f.nextGaugeKg)! }
})
/** What the law that is not in use would say. */
const other = computed(() => {
  if (!input.value || !left.value) return ''
  const law: Law = input.value.law === 'sliding' ? 'linear' : 'sliding'
  const f = forecastOf({ ...input.value, law })
  return `${law === 'linear' ? 'straight line' : 'sliding wear'} would leave ${kgEstimate(fibreLeft(f))}`
})
const limitMm = computed(() => page.value?.input.rules.boreLimitMm ?? null)

const bands = computed(() => {
  if (!input.value) return []
  const p = borePosterior(input.value.bore, input.value.prior, input.value.law)
  const life = limitMm.value === null ? 0 : wearAtRisk([boreLife(p, limitMm.value)], 0.5)
  const far = Math.max(input.value.wearKg * 1.25, Math.min(life * 1.25, input.value.wearKg * 4 + 0.2 * life), 0.02)
  return boreBands(
    p,
    Array.from({ length: 41 }, (_, i) => (far * i) / 40),
  )
})
const marks = computed(() => [
  ...(page.value?.gaugePoints ?? [])
    .filter(g => g.goMm !== null || g.noGoMm !== null || g.valueMm !== null)
    .map(g => ({
      wearKg: g.wearKg,
      low: g.goMm,
      high: g.noGoMm,
      value: g.valueMm,
      uMm: g.uMm,
      preview: false,
      outweighed: g.outweighed,
    })),
  ...(preview.value
    ? [
        {
          wearKg: preview.value.wearKg,
          low: preview.value.kind === 'pins' ? preview.value.goMm : null,
          high: preview.value.kind === 'pins' ? preview.value.noGoMm : null,
          value: preview.value.kind === 'value' ? preview.value.valueMm : null,
          uMm: preview.value.uMm,
          preview: true,
          outweighed: false,
        },
      ]
    : []),
])
/** What gauge studies have found of the methods that this nozzle was gauged by; null where there is none. */
const scatter = computed(() => {
  const p = page.value
  if (!p) return null
  const byPins = p.gaugePoints.some(g => g.goMm !== null || g.noGoMm !== null)
  const mm = [
    ...(byPins && p.scatter.pinsMm !== null ? [p.scatter.pinsMm] : []),
    ...p.scatter.setups
      .filter(s => p.input.bore.observations.some(o => o.kind === 'picture' && o.setup === String(s.setupId)))
      .map(s => s.mm),
  ]
  return mm.length > 0
    ? listed(
        mm.map(v => um(v * 1000)),
        'and',
      )
    : null
})
/** Gauges that the others outweigh, in words. */
const outweighed = computed(() =>
  (page.value?.gaugePoints ?? [])
    .filter(g => g.outweighed)
    .map(g => `${gaugeFoundWords({ ...g, tipMm: null, shape: [] })} on ${day(g.at, shop.zone)}`),
)
const weighted = computed(
  () => !!page.value && Math.abs(page.value.input.wearKg - page.value.fibreG / 1000) > 0.01 * page.value.input.wearKg,
)
const tipMeasured = computed(() => page.value?.gaugePoints.some(g => g.tipMm !== null) ?? false)

const verdict = computed(() => {
  const p = page.value,
    f = forecast.value
  if (!p || !f) return null
  const lastShape = p.gaugePoints[p.gaugePoints.length - 1]?.shape ?? []
  if (p.retired !== null) return { verdict: 'fine' as const, text: `Retired: ${p.retired}.` }
  if (f.needsFirstGauge && !preview.value)
    return {
      verdict: 'look' as const,
      text: p.nozzle.wasUsed
        ? 'Gauge its bore before it is used: it came used, and how worn is not known.'
        : `Gauge its bore at receipt: ${chance(f.pastChance)} chance that it is another bore than recorded.`,
    }
  if (lastShape.length > 0)
    return {
      verdict: 'stop' as const,
      text: `Last gauge found it ${lastShape.join(', ')}: retire it or gauge it again.`,
    }
  const limit = limitMm.value === null ? 'its limit' : `${Number(limitMm.value.toFixed(3))} mm`
  const due = gaugeDue({ pastChance: f.pastChance, nextGaugeKg: null, jobFibreG: null }, p.input.acceptedRisk)
  if (due === 'now')
    return {
      verdict: 'stop' as const,
      text: `Probably past ${limit} (${chance(f.pastChance)}): gauge it before the next job, or retire it.`,
    }
  if (due === 'before a filled job')
    return {
      verdict: 'look' as const,
      text: `Gauge before the next filled job: ${chance(f.pastChance)} chance that it is past ${limit}.`,
    }
  if (!p.lastFilled) return { verdict: 'fine' as const, text: 'No filled job has gone through it yet.' }
  if (p.lastRun && f.nextGaugeKg < p.lastRun.wearKg)
    return {
      verdict: 'look' as const,
      text: `Gauge after the next job: due in ${kg(left.value?.next ?? null)} of fibre.`,
    }
  return { verdict: 'fine' as const, text: `Good for ${kg(left.value?.next ?? null)} of fibre before the next gauge.` }
})
const inJobs = computed(() => {
  const p = page.value,
    l = left.value
  if (!p?.lastRun || !l || p.lastRun.fibreG <= 0) return null
  const left80 = forecast.value?.leftKg
  const jobs = (kg: number | undefined) => (kg ?? 0) / p.lastRun!.wearKg
  return {
    text:
      jobs(left80?.high80) < 0.5
        ? 'not one more like the last'
        : `${countBetween(jobs(left80?.low80), jobs(left80?.high80))} more like the last`,
    each: `80 %; ${p.lastRun.name}, ${kg(p.lastRun.fibreG / 1000)} fibre each`,
  }
})

const striking = ref<{ target: 'run' | 'gauge' | 'fitting'; id: number; says: string; again?: string } | null>(null)
/** What of its record other programs can have. */
const OUT: ListName[] = ['runs', 'gauges', 'fittings']
const strike = (r: RecordLine) => {
  striking.value = {
    target: r.kind,
    id: r.id,
    says: r.kind === 'run' ? `Run “${r.title}”` : `${r.title} ${r.result}`.trim(),
    again: r.again ? againAt(r.kind === 'run' ? '/run' : `/inspect/${tag.value}`, r.kind, r.id) : undefined,
  }
}
const retiring = ref<'retire' | 'remove' | null>(null)
const fitting = ref(false)

const editing = shallowRef<OpenRecord | null>(null)
function edit(): void {
  const p = page.value
  if (!p || !shop.data) return
  const { id, version, tag, wasUsed, note } = p.nozzle
  editing.value = {
    title: `Edit nozzle ${tag}`,
    edit: { kind: 'nozzles', id, version },
    fields: nozzleEditFieldsOf(shop.data),
    start: { tag, typeId: p.type.id, wasUsed, note },
    says: v => `Nozzle ${String(v.tag)}`,
  }
}
/** Under another tag it has another address. */
async function edited(): Promise<void> {
  editing.value = null
  const now = shop.data?.nozzles.find(n => n.id === page.value?.nozzle.id)
  if (now && now.tag !== page.value!.nozzle.tag) await navigateTo(`/inspect/${now.tag}`, { replace: true })
}

const edits = useRecordEdit()
async function setLaw(law: Law): Promise<void> {
  const p = page.value
  if (!p) return
  try {
    await edits.save('nozzles', p.nozzle.id, p.nozzle.version, { law, note: p.nozzle.note })
    ui.say(`Forecasts of ${p.nozzle.tag} now follow ${law === 'sliding' ? 'sliding wear' : 'the straight line'}.`)
  } catch (error) {
    ui.say(editFailure(error), 'stop')
  }
  await shop.refresh()
}
const chartWords = (bore: { median: number; low80: number; high80: number }, wearKg: number) =>
  `Bore against fibre mass: ${bore.median.toFixed(3)} mm now at ${wearKg.toFixed(2)} kg, ` +
  `80 % between ${bore.low80.toFixed(3)} and ${bore.high80.toFixed(3)}; ${marks.value.length} gauges`
</script>

<template>
  <div>
    <p v-if="noGauge || noFit" class="mb-2 font-semibold text-stop" role="alert">{{ noGauge || noFit }}</p>
    <p v-if="failure" class="mb-2 font-semibold text-look" role="status">
      {{ failure }} <NuxtLink class="underline" to="/inspect">All nozzles</NuxtLink>
    </p>
    <template v-if="page && forecast">
      <div class="mb-[10px] flex flex-wrap items-center gap-x-[14px] gap-y-2">
        <h1>{{ page.nozzle.tag }}</h1>
        <span class="text-[15px]"
          >{{ page.type.name }} mm,
          {{
            whereIs({ place: page.place?.printer ?? null, hotend: page.hotend, retired: page.retired !== null })
          }}</span
        >
        <span
          v-if="verdict"
          class="flex items-center gap-2 text-[15px] font-bold"
          :class="VERDICT_TEXT[verdict.verdict]"
          ><VerdictMark :verdict="verdict.verdict" />{{ verdict.text }}</span
        >
        <span v-if="page.stale" class="text-xs text-ink2">being reckoned anew</span>
        <span class="no-print ml-auto flex flex-wrap gap-2">
          <NuxtLink :to="`/run?nozzle=${page.nozzle.tag}`" class="button"
            >Log a run <span class="kbd" aria-hidden="true">R</span></NuxtLink
          >
          <button type="button" class="button first" @click="openGauge">
            Gauge it <span class="kbd" aria-hidden="true">G</span>
          </button>
        </span>
      </div>
      <div class="grid grid-cols-[minmax(0,1fr)] gap-[14px] lg:grid-cols-[minmax(0,400px)_minmax(0,1fr)]">
        <div
          class="grid grid-cols-[minmax(0,1fr)] content-start gap-[10px] lg:order-1"
          :class="gauging ? 'order-1' : 'order-2'"
        >
          <SavedNote
            v-if="gauged && !gauging"
            :of="`gauge of ${page.nozzle.tag}`"
            :text="gauged === 'queued' ? null : `${gaugeEffectWords(gauged)}.`"
            :look="verdict?.verdict !== 'fine'"
          >
            <button
              v-if="gauged !== 'queued' && gauged.pastChance > PROBABLY_PAST && !page.retired"
              type="button"
              class="button first"
              @click="retiring = 'retire'"
            >
              Retire {{ page.nozzle.tag }}
            </button>
            <NuxtLink class="button" to="/">To the Floor</NuxtLink>
            <button type="button" class="button" @click="openGauge">Gauge it again</button>
          </SavedNote>
          <GaugeForm
            v-if="gauging || leftOpen"
            :key="gaugeBefore?.id ?? 'new'"
            v-show="gauging"
            ref="gaugeForm"
            :nozzle-id="page.nozzle.id"
            :tag="page.nozzle.tag"
            :draft="draft"
            :again="gaugeBefore"
            @preview="v => (typed = v)"
            @saved="gaugeSaved"
            @cancel="closeGauge"
            @leave="leaveGauge"
          />
          <div class="sheet">
            <NozzleSection
              :material="page.type.material"
              :nominal-mm="page.type.nominalBoreMm"
              :length-mm="page.type.lengthMm"
              :cone-deg="page.type.coneDeg"
              :tip-flat-mm="page.type.tipFlatMm"
              :land-mm="page.type.landMm"
              :inlet-mm="page.type.inletMm"
              :insert-mm="page.type.insertMm"
              :fitted-mm="bands[0]?.range.median ?? page.type.nominalBoreMm"
              :bore="forecast.bore"
              :tip-loss-mm="tipMeasured ? forecast.tipLoss.median : null"
            />
          </div>
        </div>
        <div class="order-1 grid grid-cols-[minmax(0,1fr)] content-start gap-[10px] lg:order-2">
          <dl class="sheet grid sm:grid-cols-3">
            <div class="px-3 py-2">
              <dt class="label">
                fibre left{{ limitMm === null ? '' : ` before ${Number(limitMm.toFixed(3))}`
                }}{{ page.lastFilled ? `, as ${page.lastFilled.material}` : '' }}
              </dt>
              <dd class="text-[26px] leading-tight font-bold [font-stretch:88%]">
                {{ left ? kg(left.median) : 'not known yet' }}
              </dd>
              <dd class="text-[12.5px] text-ink2">
                {{ left ? kgBetween(left.low80, left.high80) : 'no filled job so far' }}
              </dd>
            </div>
            <div class="border-t border-rule px-3 py-2 sm:border-t-0 sm:border-l">
              <dt class="label">
                already past{{ limitMm === null ? ' its limit' : ` ${Number(limitMm.toFixed(3))}` }}
              </dt>
              <dd class="text-[26px] leading-tight font-bold [font-stretch:88%]">{{ chance(forecast.pastChance) }}</dd>
              <dd class="text-[12.5px] text-ink2">chance, {{ preview ? 'with this gauge' : 'all gauges so far' }}</dd>
            </div>
            <div class="border-t border-rule px-3 py-2 sm:border-t-0 sm:border-l">
              <dt class="label">in jobs</dt>
              <dd class="text-[18px] leading-[1.35] font-bold [font-stretch:88%]">
                {{ inJobs?.text ?? 'not known yet' }}
              </dd>
              <dd class="text-[12.5px] text-ink2">{{ inJobs?.each ?? 'no filled job so far' }}</dd>
            </div>
          </dl>
          <div class="sheet p-1">
            <p v-if="gauging" class="px-2 pt-1 text-sm text-ink2">
              Click the chart at the bore you found: it sets the pins on either side.
            </p>
            <p v-if="unexpected" class="px-2 pt-1 text-sm font-semibold text-look" role="status">
              Not expected: by the other gauges it should be {{ unexpected.median.toFixed(3) }} mm, 95 % between
              {{ unexpected.low95.toFixed(3) }} and {{ unexpected.high95.toFixed(3) }}. You will be asked what it means.
            </p>
            <p v-if="outweighed.length > 0 && !gauging" class="px-2 pt-1 text-sm font-semibold text-look">
              {{
                outweighed.length === 1
                  ? 'A gauge does not fit the others and counts as misread'
                  : `${outweighed.length} gauges do not fit the others and count as misread`
              }}: {{ outweighed.join('; ') }}. Gauge it again, or strike out what was wrong.
            </p>
            <p v-for="w in page.wider" :key="w.setup" class="px-2 pt-1 text-sm">
              <b>Pictures by {{ w.setup }} show it {{ w.meanMm.toFixed(3) }} mm wider</b> (± {{ w.uMm.toFixed(3) }})
              than its other gauges: the mouth is flared, or that set-up reads wide. The limit counts for the narrowest
              place, as a pin finds it.
            </p>
            <WearChart
              :bands="bands"
              :marks="marks"
              :limit-mm="limitMm"
              :now-kg="page.input.wearKg"
              :editing="gauging"
              :weighted="weighted"
              :label="chartWords(forecast.bore, page.input.wearKg)"
              @pick="b => gaugeForm?.pick(b)"
            />
            <p class="flex flex-wrap gap-x-4 px-3 pb-1 text-xs text-ink2">
              <span><b class="text-blue">I</b> gauge, go to no-go</span
              ><span><b class="text-bronze">▮</b> solid edge 80 %, dashed edge 95 %</span><span>— middle</span
              ><span v-if="outweighed.length > 0"><b class="text-look">¦</b> gauge that counts as misread</span
              ><span v-if="page.gaugePoints.some(g => g.setup !== null)"
                >a picture reads the mouth, which may lie above the narrowest place</span
              ><span v-if="scatter !== null"
                >{{ scatter }} of scatter counts besides, by a gauge study (see Study)</span
              >
            </p>
          </div>
        </div>
      </div>
      <PictureRow class="mt-3" :points="page.gaugePoints" :tag="page.nozzle.tag" :zone="shop.zone" />
      <div class="mt-3 grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] lg:grid-cols-[minmax(0,1fr)_330px]">
        <div class="min-w-0">
          <NozzleRecord
            :record="page.record"
            :misread="page.gaugePoints.filter(g => g.outweighed).map(g => g.id)"
            :zone="shop.zone"
            @strike="strike"
          />
          <p class="no-print mt-1 flex flex-wrap items-baseline gap-x-5 text-sm">
            <span v-for="l in OUT" :key="l" class="inline-flex items-baseline gap-x-2"
              >{{ LIST_WORDS[l] }} <ListLinks :list="l" :by="{ nozzle: page.nozzle.tag }"
            /></span>
          </p>
        </div>
        <NozzleTitleBlock
          :page="page"
          :forecast="forecast"
          :other="other"
          :zone="shop.zone"
          @law="setLaw"
          @retire="retiring = 'retire'"
          @remove="retiring = 'remove'"
          @fit="fitting = true"
          @edit="edit"
        />
      </div>
      <StrikeSheet :target="striking" @close="striking = null" />
      <RetireSheet
        :nozzle="retiring ? { id: page.nozzle.id, tag: page.nozzle.tag, place: page.place?.printer ?? null } : null"
        :kind="retiring ?? 'retire'"
        @close="retiring = null"
      />
      <FitSheet :head-id="null" :nozzle-id="fitting ? page.nozzle.id : null" @close="fitting = false" />
      <FitSheet :head-id="null" :again="fitBefore" @close="leaveFitBefore" />
      <RecordSheet :open="editing" @close="edited" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the nozzle"
    />
  </div>
</template>
