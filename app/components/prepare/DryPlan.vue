<script setup lang="ts">
/**
 * Drying plan: hours to the target in each dryer the shop has, what a cooler one leaves, and the schools beside the
 * model.
 */
import type { SetRow } from '#shared/answers/materials'
import type { DryerRow } from '#shared/answers/prepare'
import type { SpoolPage } from '#shared/answers/spools'
import { computed, ref, watch } from 'vue'
import { cautionsFor } from '#core/cautions'
import {
  dryingPlan,
  isPolyamide,
  leftAfter,
  safeCap,
  type DryingPlan,
  type Filament,
  type HoursTo,
  type SpoolWater,
} from '#core/drying'
import CautionList from '~/components/equip/CautionList.vue'
import StartDrying from '~/components/prepare/StartDrying.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { hours, water } from '#core/words'
import { shortestDryH } from '#shared/asking'
import { VERDICT_TEXT } from '~/words/verdict'

const props = defineProps<{
  page: SpoolPage
  filament: Filament
  state: SpoolWater
  dryers: readonly DryerRow[]
  sets: readonly SetRow[]
}>()
const target = ref<number | null>(null)
watch(
  () => props.filament.usual,
  p => {
    target.value ??= Number(p.toPrecision(2))
  },
  { immediate: true },
)
const limits = computed(() => ({ ...props.page.limits, hub: props.page.state.hub }))
const cap = computed(() => safeCap(limits.value))
const room = computed(() => ({ airC: props.page.air.roomC, rh: props.page.air.roomRh }))
const brittle = computed(() => props.page.filled && isPolyamide(props.page.polymer))
const goal = computed(() => (target.value !== null && target.value >= 0 && target.value <= 100 ? target.value : null))

/** No plan is shorter than the shortest that a practice gives. */
const practiceH = computed(() => shortestDryH(props.sets))

interface Row {
  dryer: DryerRow
  plan: DryingPlan | null
}
const rows = computed<Row[]>(() =>
  props.dryers
    .filter(d => !d.withdrawn)
    .map(dryer => ({
      dryer,
      plan:
        goal.value === null
          ? null
          : dryingPlan(props.state, props.filament, dryer, room.value, limits.value, props.page.wound, {
              targetWt: goal.value,
              practiceH: practiceH.value,
              brittle: brittle.value,
            }),
    }))
    .sort((a, b) => (a.plan?.to.planH ?? Infinity) - (b.plan?.to.planH ?? Infinity)),
)
const best = computed(() => rows.value.find(r => r.plan && Number.isFinite(r.plan.to.planH)) ?? null)
const sentence = computed(() => {
  if (cap.value === null)
    return {
      verdict: 'look' as const,
      text:
        'No highest safe drying temperature is entered for this filament, and no glass transition tells ' +
        'one. Enter it under Equip, Materials.',
    }
  if (goal.value === null) return { verdict: 'look' as const, text: 'Enter the water you want to come down to.' }
  if (rows.value.length === 0)
    return { verdict: 'look' as const, text: 'No dryer is described yet; add one on the page before.' }
  if (best.value === null)
    return {
      verdict: 'stop' as const,
      text:
        `No dryer here gets it down to ${water(goal.value)}: the air in each holds more. A desiccant dryer, ` +
        `or a hotter one, would.`,
    }
  if (best.value.plan!.to.planH === 0)
    return { verdict: 'fine' as const, text: `It is at ${water(goal.value)} or below already.` }
  const p = best.value.plan!
  return {
    verdict: p.reason === 'unknown hub' ? ('look' as const) : ('fine' as const),
    text:
      `${best.value.dryer.name} at ${p.atC} °C gets it to ${water(goal.value)} in about ${hours(p.to.planH)} ` +
      `(${rangeWords(p.to)}). ${cleanWords(p)}` +
      (p.reason === 'unknown hub' ? ' What is its hub made of? Enter it in Stores, and it may be dried hotter.' : ''),
  }
})
function rangeWords(h: HoursTo): string {
  const range = `80 % between ${hours(h.lowH)} and ${hours(h.highH)}`
  return h.planH > h.modelH ? `the shortest that practice gives; by the model ${hours(h.modelH)}, ${range}` : range
}
/** The second mark, or that this dryer's air cannot give it. */
function cleanWords(p: DryingPlan): string {
  if (p.clean.planH === 0) return 'It is clean already.'
  return Number.isFinite(p.clean.planH)
    ? `Clean (${water(p.clean.targetWt)}) takes ${hours(p.clean.planH)}.`
    : `Its air leaves ${water(p.leavesAtBestWt)}: clean (${water(p.clean.targetWt)}) it cannot give.`
}
const REASON: Record<string, string> = {
  'dryer': 'the dryer stops there',
  'filament': 'the filament stands no more',
  'glass transition': 'near its glass transition',
  'hub': 'the hub sags above',
  'unknown hub': 'hub not known',
}
/** Each practice set's gentlest and strongest rule, by the model. */
const schools = computed(() => {
  const seen = new Set<string>()
  return props.sets
    .filter(s => !s.withdrawn && s.dry && s.dryMinC !== null)
    .flatMap(s =>
      [
        [s.dryMinC!, s.dryHoursMin],
        [s.dryMaxC ?? s.dryMinC!, s.dryHoursMax ?? s.dryHoursMin],
      ].flatMap(([c, h]) => {
        if (h == null || seen.has(`${c}/${h}`)) return []
        seen.add(`${c}/${h}`)
        const over = cap.value !== null && c! > cap.value.atC
        return [
          {
            name: s.name,
            atC: c!,
            h,
            note: s.note,
            left: over ? null : leftAfter(props.state, props.filament, 'vented', c!, h, room.value, props.page.wound),
            why: over ? REASON[cap.value!.reason] : '',
          },
        ]
      }),
    )
})
const cautions = computed(() => cautionsFor({ action: 'dry', polymers: [props.page.polymer] }))

const starting = ref<Row | null>(null)
</script>

<template>
  <section class="grid grid-cols-[minmax(0,1fr)] gap-3" aria-labelledby="plan">
    <h2 id="plan">Drying plan</h2>
    <div class="flex flex-wrap items-end gap-3">
      <FieldNumber
        id="plan-target"
        v-model="target"
        class="w-[210px]"
        label="Come down to"
        unit="wt%"
        :hint="`usually prints up to ${water(filament.usual)}, clean to ${water(filament.clean)}`"
      />
      <p
        class="flex flex-1 basis-full items-start gap-2 pb-5 text-[15px] font-[650] sm:basis-0"
        role="status"
        :class="VERDICT_TEXT[sentence.verdict]"
      >
        <VerdictMark :verdict="sentence.verdict" class="mt-[2px]" />{{ sentence.text }}
      </p>
    </div>
    <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Dryers">
      <table class="record sm:min-w-[500px]">
        <thead>
          <tr>
            <th>dryer</th>
            <th class="num">set it for</th>
            <th class="num max-sm:hidden">model, 80 %</th>
            <th class="num">clean</th>
            <th class="num max-sm:hidden">one strand</th>
            <th><span class="sr-only">start</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="r in rows" :key="r.dryer.id">
            <th scope="row" class="!whitespace-normal">
              <b class="text-[13px] text-ink">{{ r.dryer.name }}</b><span v-if="r.plan" class="text-[13px] text-ink">
                at {{ r.plan.atC }} °C</span
              ><br /><span class="font-normal"
                >{{ r.dryer.kind }}{{ r.plan ? `; ${REASON[r.plan.reason]}` : ''
                }}{{
                  r.plan && r.plan.spoolC < r.plan.atC
                    ? `; the spool on it about ${r.plan.spoolC.toFixed(0)} °C until a probe says`
                    : ''
                }}</span
              >
            </th>
            <template v-if="r.plan">
              <template v-if="Number.isFinite(r.plan.to.planH)">
                <td class="num font-bold">
                  {{ r.plan.to.planH === 0 ? 'there' : hours(r.plan.to.planH)
                  }}<span v-if="r.plan.to.planH > r.plan.to.modelH" class="block text-xs font-normal">by practice</span>
                </td>
                <td class="num max-sm:hidden">
                  {{ r.plan.to.planH === 0 ? '' : `${hours(r.plan.to.lowH)} to ${hours(r.plan.to.highH)}` }}
                </td>
                <td class="num">
                  <template v-if="Number.isFinite(r.plan.clean.planH)">{{
                    r.plan.clean.planH === 0 ? 'there' : hours(r.plan.clean.planH)
                  }}</template><span v-else class="text-look"
                    >never<br />leaves {{ water(r.plan.leavesAtBestWt) }}</span
                  >
                </td>
                <td class="num max-sm:hidden">{{ r.plan.to.planH === 0 ? '' : hours(r.plan.to.strandH) }}</td>
              </template>
              <td v-else colspan="4" class="text-stop">
                <b>cannot get there</b>: its air leaves {{ water(r.plan.leavesAtBestWt) }}
              </td>
              <td class="text-right">
                <button type="button" class="button" @click="starting = r">
                  Dry it<span class="sr-only"> in {{ r.dryer.name }}</span>
                </button>
                <span v-if="r.plan.restarts" class="block text-xs text-look"
                  >{{
                    r.plan.restarts === 1 ? 'switches itself off once' : `switches itself off ${r.plan.restarts} times`
                  }}
                  before it is done</span
                ><span v-if="r.plan.overDry" class="block text-xs text-look">over 24 h: brittle</span>
              </td>
            </template>
            <td v-else colspan="5" class="text-look">not known how hot it may be</td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="schools.length">
      <h3 class="font-bold">What the schools' rules leave, from where this spool is now</h3>
      <ul class="mt-1 grid gap-x-6 sm:grid-cols-2">
        <li v-for="s in schools" :key="`${s.atC}/${s.h}`" class="border-t border-rule py-1">
          <b>{{ s.h }} h at {{ s.atC }} °C</b> <span class="text-ink2">({{ s.name }})</span>:
          <template v-if="s.left"
            ><span :class="s.left.wound > filament.usual ? 'font-semibold text-stop' : ''"
              >wound spool {{ water(s.left.wound) }}</span
            >, single strand {{ water(s.left.strand) }}</template
          ><span v-else class="text-look">not with this spool: {{ s.why }}</span>
        </li>
      </ul>
      <p class="mt-1 text-xs text-ink2">
        They disagree because they look at different things: a strand by itself is dry long before a wound spool is, and
        spools come more or less wet. In a vented dryer, room air {{ room.airC }} °C and {{ room.rh }} %. Uncertainty is
        that of the diffusion constants and of the wound-spool factor{{
          page.wound.weighings ? `, fitted to ${page.wound.weighings} weighings of this shop` : ''
        }}.
      </p>
    </div>
    <CautionList :cautions="cautions" title="When you dry" />
    <StartDrying
      :row="starting"
      :page="page"
      :filament="filament"
      :state="state"
      :limits="limits"
      :target="goal"
      :cautions="cautions"
      @close="starting = null"
    />
  </section>
</template>
