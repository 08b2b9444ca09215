<script setup lang="ts">
/* eslint-disable max-lines -- one screen: plan, start and log */
/** Anneal: ramp, soak through, hold, cool; which oven can, both schools, and a timer. */
import type { AnnealLine } from '#shared/answers/prepare'
import { computed, reactive, ref, watch } from 'vue'
import {
  annealDoes,
  annealNow,
  annealPlan,
  annealRefusal,
  annealSchools,
  usuallyInSand,
  type AnnealPlan,
} from '#core/anneal'
import { cautionsFor } from '#core/cautions'
import CautionList from '~/components/equip/CautionList.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import EndSheet, { type ToEnd } from '~/components/prepare/EndSheet.vue'
import PrepareTabs from '~/components/prepare/PrepareTabs.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useEntryForm } from '~/composables/entry-form'
import { usePrepare } from '~/composables/prepare'
import { useAnswer } from '~/composables/answer'
import { untilWords, when } from '#shared/time'
import { hours, leftWords } from '#core/words'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'Anneal · Iron Nozzle' })
const shop = useShop()
const ui = useUi()
const { data, failure, now } = usePrepare()
const { data: equip } = useAnswer('/api/equip')
const form = useEntryForm('/api/anneals')
const v = reactive({
  name: '',
  materialId: null as number | null,
  dryerId: null as number | null,
  atC: null as number | null,
  holdH: null as number | null,
  rampCPerH: null as number | null,
  thicknessMm: 10 as number | null,
  inSand: false,
  sandMm: 30 as number | null,
  note: '',
})

const value = (key: string) => material.value?.values.find(x => x.key === key)?.value ?? null
const material = computed(() => equip.value?.materials.find(m => m.id === v.materialId) ?? null)
const able = computed(() => (equip.value?.materials ?? []).filter(m => m.values.some(x => x.key === 'annealMinC')))
watch(
  able,
  a => {
    v.materialId ??= a.find(m => m.name === 'PA6-CF20')?.id ?? a[0]?.id ?? null
  },
  { immediate: true },
)
const schools = computed(() => {
  const low = value('annealMinC'),
    high = value('annealMaxC') ?? low,
    lowH = value('annealMinH'),
    highH = value('annealMaxH') ?? lowH
  return low === null || high === null || lowH === null || highH === null
    ? []
    : annealSchools({ lowC: low, highC: high, lowH, highH })
})
const turns = computed(() => ({ glassC: value('glassC'), meltC: value('meltC') }))
const does = computed(() => annealDoes(turns.value))
function take(s: { atC: number; holdH: number }): void {
  v.atC = s.atC
  v.holdH = s.holdH
}
// by what the schools say, not by each reading: news of a save elsewhere leaves what is typed
watch(
  () => `${v.materialId} ${schools.value.map(s => `${s.atC}/${s.holdH}`).join()}`,
  () => {
    const s = schools.value[0]
    if (s) {
      take(s)
      v.rampCPerH = value('annealRamp') ?? 40
      v.inSand = usuallyInSand(material.value!.polymer)
    }
  },
  { immediate: true },
)
const ovens = computed(() => (data.value?.dryers ?? []).filter(d => !d.withdrawn && d.kind !== 'bed under a cover'))
watch(
  ovens,
  o => {
    v.dryerId ??= [...o].sort((a, b) => b.ceilingC - a.ceilingC)[0]?.id ?? null
  },
  { immediate: true },
)
const oven = computed(() => ovens.value.find(d => d.id === v.dryerId) ?? null)
const roomC = computed(() => data.value?.air.roomC ?? 23)
const plan = computed<AnnealPlan | null>(() => {
  const { atC, holdH, rampCPerH, thicknessMm } = v
  const sandMm = v.inSand ? v.sandMm : null
  if (!oven.value || atC === null || holdH === null || rampCPerH === null || thicknessMm === null) return null
  if (v.inSand && sandMm === null) return null
  try {
    return annealPlan({ atC, holdH, rampCPerH, thicknessMm, sandMm }, oven.value, roomC.value)
  } catch {
    return null
  }
})
const refused = computed(() =>
  plan.value === null ? null : annealRefusal(material.value!.name, v.atC!, turns.value, v.inSand),
)
const sentence = computed(() => {
  if (able.value.length === 0)
    return {
      verdict: 'look' as const,
      text: 'No filament here has an anneal entered; enter it under Equip, Materials.',
    }
  if (ovens.value.length === 0)
    return { verdict: 'look' as const, text: 'No oven or dryer is described; add one under Dry.' }
  const p = plan.value
  if (!p || !oven.value)
    return {
      verdict: 'look' as const,
      text: `Enter temperature, hold, ramp${v.inSand ? ', thickness and sand' : ' and thickness'}.`,
    }
  if (refused.value !== null) return { verdict: 'stop' as const, text: `${refused.value}.` }
  if (p.shortC > 0)
    return {
      verdict: 'stop' as const,
      text: `${oven.value.name} stops at ${oven.value.ceilingC} °C, ${p.shortC} short of what this anneal asks.`,
    }
  const text =
    `${hours(p.totalH)} in ${oven.value.name}: up at ${v.rampCPerH} °C an hour, ` +
    `${hours(p.phases[1]!.hours)} until the middle is as hot, ${hours(v.holdH!)} at ${v.atC} °C, and down as ` +
    `slowly.${p.restarts ? ` It switches itself off ${p.restarts} × before the end; start it again.` : ''}`
  return does.value === 'not known'
    ? {
        verdict: 'look' as const,
        text: `${text} ${material.value!.name} has neither melting point nor glass transition: try one part first.`,
      }
    : { verdict: 'fine' as const, text }
})
const ok = computed(() => plan.value !== null && plan.value.shortC === 0 && refused.value === null)
/** What each school does, by what the polymer is. */
const SCHOOL_SAYS = {
  'crystallises': {
    gentle: 'Holds its shape; relieves stress, crystallises less.',
    hot: 'Crystallises more and stands more heat; thin parts warp unless held in sand or a jig.',
  },
  'relaxes': {
    gentle: 'Relaxes slowly and holds its shape. It grows no crystals and stands no more heat than before.',
    hot: 'Relaxes further and sooner, close to where it softens: support it, or pack it in sand.',
  },
  'not known': { gentle: 'The lower end, longest.', hot: 'The upper end, shortest; try one part first.' },
} as const
const cautions = computed(() =>
  cautionsFor({ action: 'anneal', polymers: [material.value?.polymer ?? ''], inSand: v.inSand }),
)
async function start(confirmed: string[] = []): Promise<void> {
  const done = await form.send(
    {
      ...v,
      sandMm: v.inSand ? v.sandMm : null,
      name: v.name || `${material.value!.name} part`,
      occurredAt: new Date().toISOString(),
    },
    `Anneal ${v.name || 'a part'}`,
    confirmed,
  )
  if (done !== null && done !== 'queued')
    ui.say(
      untilWords(
        { is: 'Annealing', then: 'The timer goes on when this page is closed.' },
        { was: 'It had its time', now: 'end it when it has cooled.' },
        done.until,
        shop.zone,
      ),
    )
}
const running = computed(() => (data.value?.anneals ?? []).filter(a => a.to === null && a.struck === null))
const before = computed(() => (data.value?.anneals ?? []).filter(a => a.to !== null || a.struck !== null))
function nowOf(a: AnnealLine): string {
  const p = annealPlan(a, { name: a.dryer, ceilingC: 600, timeOutH: null }, roomC.value)
  const n = annealNow(p, (now.value - Date.parse(a.from)) / 3_600_000)
  return n.phase === null
    ? 'done: let it cool before you touch it'
    : `${n.phase.name}, the oven should show ${n.setC.toFixed(0)} °C; ${leftWords(n.leftH * 60)}`
}
const ending = ref<ToEnd | null>(null)
const striking = ref<{ target: 'anneal'; id: number; says: string } | null>(null)

/** The plan drawn: temperature over hours. */
const W = 560,
  H = 190,
  LEFT = 44,
  BOTTOM = 30
const path = computed(() => {
  const p = plan.value
  if (!p) return null
  const x = (h: number) => LEFT + (h / p.totalH) * (W - LEFT - 20),
    y = (c: number) => 14 + (1 - (c - 0) / (p.atC * 1.15)) * (H - 14 - BOTTOM)
  let t = 0
  const points = [`M${x(0)} ${y(p.phases[0]!.fromC)}`]
  const marks: { x: number; y: number; text: string }[] = []
  for (const ph of p.phases) {
    t += ph.hours
    points.push(`L${x(t)} ${y(ph.toC)}`)
    if (x(ph.hours) - x(0) > 48) marks.push({ x: x(t - ph.hours / 2), y: H - 10, text: hours(ph.hours) })
  }
  return { line: points.join(''), marks, top: y(p.atC), atC: p.atC }
})
</script>

<template>
  <div>
    <PrepareTabs :failure="failure" />
    <template v-if="data && equip">
      <ul v-if="running.length" class="mb-3 grid gap-2">
        <li v-for="a in running" :key="a.id" class="sheet flex flex-wrap items-center gap-x-3 px-3 py-1">
          <b>{{ a.name }}</b><span>{{ a.material }} in {{ a.dryer }}: {{ nowOf(a) }}</span
          ><button
            type="button"
            class="button ml-auto"
            @click="ending = { target: 'anneal', id: a.id, says: a.name, setC: a.atC, beforeG: null, spoolId: null }"
          >
            End it<span class="sr-only"> {{ a.name }}</span>
          </button>
        </li>
      </ul>
      <div class="mb-3 grid grid-cols-2 items-start gap-3 md:grid-cols-4">
        <FieldSelect
          id="anneal-material"
          v-model="v.materialId"
          label="Filament"
          :options="able.map(m => ({ value: m.id as number | null, text: m.name }))"
        />
        <FieldNumber id="anneal-c" v-model="v.atC" label="Hold at" unit="°C" :error="form.errors.value.atC" />
        <FieldNumber id="anneal-h" v-model="v.holdH" label="Hold for" unit="h" :error="form.errors.value.holdH" />
        <FieldNumber
          id="anneal-ramp"
          v-model="v.rampCPerH"
          label="Ramp, at most"
          unit="°C an hour"
          :error="form.errors.value.rampCPerH"
        />
        <FieldNumber
          id="anneal-mm"
          v-model="v.thicknessMm"
          label="Thickest place"
          unit="mm"
          :error="form.errors.value.thicknessMm"
        />
        <FieldSelect
          id="anneal-sand"
          v-model="v.inSand"
          label="The part"
          :options="[
            { value: false, text: 'lies free' },
            { value: true, text: 'is packed in sand' },
          ]"
        />
        <FieldNumber
          v-if="v.inSand"
          id="anneal-sand-mm"
          v-model="v.sandMm"
          label="Sand on each side"
          unit="mm"
          :error="form.errors.value.sandMm"
        />
        <FieldSelect
          id="anneal-oven"
          v-model="v.dryerId"
          label="Oven"
          :options="ovens.map(o => ({ value: o.id as number | null, text: `${o.name}, to ${o.ceilingC} °C` }))"
          :error="form.errors.value.dryerId"
        />
        <FieldText
          id="anneal-name"
          v-model="v.name"
          label="Part"
          placeholder="what is annealed"
          :error="form.errors.value.name"
        />
        <FieldText id="anneal-note" v-model="v.note" label="Note" :error="form.errors.value.note" />
      </div>
      <p
        class="mb-3 flex items-start gap-2 text-[17px] font-[680] leading-snug"
        role="status"
        :class="VERDICT_TEXT[sentence.verdict]"
      >
        <VerdictMark :verdict="sentence.verdict" :size="20" class="mt-[2px]" />{{ sentence.text }}
      </p>
      <div class="mb-4 grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-2">
        <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <figure v-if="path" class="sheet m-0 p-2">
            <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="The plan drawn">
              <svg
                :viewBox="`0 0 ${W} ${H}`"
                class="w-full min-w-[540px]"
                role="img"
                :aria-label="`Oven temperature: to ${path.atC} °C and back`"
              >
                <path :d="`M${LEFT} ${path.top}H${W - 20}`" stroke="var(--color-faint)" />
                <text :x="LEFT - 5" :y="path.top + 4" text-anchor="end" class="t">{{ path.atC }}</text>
                <text x="4" y="12" class="t">°C</text>
                <path :d="path.line" fill="none" stroke="var(--color-bronze)" stroke-width="2.6" />
                <path
                  :d="`M${LEFT} 12V${H - BOTTOM}H${W - 20}`"
                  fill="none"
                  stroke="var(--color-ink)"
                  stroke-width="1.3"
                />
                <text v-for="(m, i) in path.marks" :key="i" :x="m.x" :y="m.y" text-anchor="middle" class="t">
                  {{ m.text }}
                </text>
              </svg>
            </div>
          </figure>
          <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="start" />
          <div>
            <button type="button" class="button first" :disabled="!ok || form.busy.value" @click="start()">
              Start the anneal
            </button>
          </div>
        </div>
        <div class="grid gap-3">
          <section v-if="schools.length" aria-labelledby="anneal-schools">
            <h2 id="anneal-schools">Schools</h2>
            <ul>
              <li v-for="s in schools" :key="s.name" class="flex flex-wrap items-center gap-x-3 border-t border-rule">
                <span class="flex-1"
                  ><b>{{ s.name }}</b
                  >: {{ s.atC }} °C for {{ hours(s.holdH) }}. {{ SCHOOL_SAYS[does][s.name] }}</span
                ><button type="button" class="button" @click="take(s)">
                  Take it<span class="sr-only">: {{ s.name }}</span>
                </button>
              </li>
            </ul>
            <p class="mt-1 text-sm text-ink2">
              A part's middle lags its skin: the hold counts from when the middle is as hot.
              {{ turns.glassC === null ? '' : `Above ${turns.glassC} °C it is soft: support it.` }}
              {{ does === 'relaxes' ? `${material!.name} is amorphous: no melting point is entered for it.` : '' }}
            </p>
          </section>
          <CautionList :cautions="cautions" title="When you anneal" />
        </div>
      </div>
      <section v-if="before.length" aria-labelledby="anneals">
        <h2 id="anneals">Anneals before</h2>
        <ul>
          <li
            v-for="a in before.slice(0, 12)"
            :key="a.id"
            class="flex flex-wrap items-center gap-x-3 border-t border-rule"
          >
            <span class="flex-1" :class="a.struck ? 'text-ink2 line-through' : ''"
              >{{ when(a.from, shop.zone) }}: {{ a.name }}, {{ a.material }}, {{ a.atC }} °C for {{ hours(a.holdH)
              }}{{ a.sandMm === null ? '' : ' in sand' }} in {{ a.dryer
              }}{{ a.outcome === 'stopped early' ? ', stopped early' : '' }}
              <span class="text-ink2">{{ a.person }}</span></span
            ><span v-if="a.struck" class="text-ink2">struck out: {{ a.struck }}</span
            ><button
              v-else
              type="button"
              class="button plain"
              @click="striking = { target: 'anneal', id: a.id, says: `Anneal of ${a.name}` }"
            >
              Strike out<span class="sr-only"> {{ a.name }}</span>
            </button>
          </li>
        </ul>
      </section>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the ovens"
    />
    <EndSheet :ending="ending" @close="ending = null" />
    <StrikeSheet :target="striking" @close="striking = null" />
  </div>
</template>

<style scoped>
.t {
  font-size: 12px;
  fill: var(--color-ink2);
}
</style>
