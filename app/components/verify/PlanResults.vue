<script setup lang="ts">
/** What a plan comes to, beside what is there: air, time, outside to the touch, stuck heater, and what matters most. */
import { computed } from 'vue'
import { HOLD_S, type Outcome, type Span } from '#core/chamber'
import { listed } from '#core/words'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { basisWords, minutesWords, spanWords, stuckWords, touchMark, touchWords } from '~/words/plan'
import { VERDICT_TEXT } from '~/words/verdict'

const props = defineProps<{
  outcome: Outcome
  cutOutC: number | null
  power: Span | null
  targetC: number | null
  mapFrom: string
  recordFrom: string | null
}>()
const rows = computed(() => {
  const { now, then } = props.outcome
  const hottest = (of: Outcome['now']) => of.touch.reduce((a, t) => (t.outsideC.high > a.outsideC.high ? t : a))
  return [
    ['near bed and head', spanWords(now.places.low, '°C'), spanWords(then.places.low, '°C')],
    ['near the top', spanWords(now.places.high, '°C'), spanWords(then.places.high, '°C')],
    ['warms up with a time constant of', minutesWords(now.tauS), minutesWords(then.tauS)],
    [
      'hottest outside',
      `${spanWords(hottest(now).outsideC, '°C')}, ${hottest(now).name}`,
      `${spanWords(hottest(then).outsideC, '°C')}, ${hottest(then).name}`,
    ],
  ]
})
const stuck = computed(() => stuckWords(props.outcome.stuck, props.cutOutC))
const matters = computed(() => {
  const most = Math.max(...props.outcome.matters.map(m => m.w.high), 1)
  return props.outcome.matters.map(m => ({
    ...m,
    width: (m.w.mid / most) * 100,
    gain: m.kind === 'wall' ? 'with 20 mm of mineral wool' : 'with it shut',
  }))
})
const fuel = computed(() => [...new Set(props.outcome.fireLoad.flatMap(f => f.materials))])
const open = (p: Outcome['then']['parts'][number]) => {
  if (p.spareC.low >= 0) return 'fine'
  return p.spareC.high < 0 ? 'stop' : 'look'
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
    <div class="overflow-x-auto" tabindex="0" role="group" aria-label="As it is, and as planned">
      <table class="record w-full">
        <thead>
          <tr>
            <th scope="col">air</th>
            <th scope="col">as it is</th>
            <th scope="col">as planned</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[what, was, is] in rows" :key="what">
            <th scope="row" class="text-left font-normal">{{ what }}</th>
            <td>{{ was }}</td>
            <td>
              <b>{{ is }}</b>
            </td>
          </tr>
          <tr v-if="power && targetC !== null">
            <th scope="row" class="text-left font-normal">heater for {{ targetC }} °C near bed and head</th>
            <td></td>
            <td>
              <b>{{ spanWords(power, 'W') }}</b>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="text-xs text-ink2">
      {{ basisWords(outcome.fits) }} {{ recordFrom ? `Fitted to ${recordFrom}.` : '' }} Places by {{ mapFrom }}.
    </p>
    <section aria-label="Heater stuck on">
      <p class="flex items-start gap-2 font-[650]" :class="VERDICT_TEXT[stuck.mark]">
        <VerdictMark :verdict="stuck.mark" class="mt-[2px]" />{{ stuck.text }}
      </p>
    </section>
    <section v-if="outcome.then.parts.length > 0" aria-label="Parts in its air">
      <h2>Parts in its air</h2>
      <ul class="text-sm">
        <li
          v-for="p in outcome.then.parts.slice(0, 6)"
          :key="p.name"
          class="flex items-start gap-2 border-t border-rule py-1"
        >
          <VerdictMark :verdict="open(p)" :size="15" class="mt-[2px]" /><span
            >{{ p.name }}: {{ spanWords(p.airC, '°C') }}, it may be <b>{{ p.allowedC.toFixed(0) }} °C</b></span
          >
        </li>
      </ul>
    </section>
    <section aria-label="What matters most">
      <h2>What matters most</h2>
      <ul class="text-sm">
        <li
          v-for="m in matters"
          :key="`${m.kind} ${m.name}`"
          class="grid grid-cols-[90px_minmax(0,1fr)] items-center gap-x-3 border-t border-rule py-1 sm:grid-cols-[90px_120px_minmax(0,1fr)]"
        >
          <span class="font-[650]">{{ m.name }}</span>
          <span class="hidden sm:block"
            ><span class="block h-[10px] border border-ink bg-slate" :style="{ width: `${Math.max(2, m.width)}%` }"
          /></span>
          <span>{{ spanWords(m.w, 'W') }}; {{ m.gain }} the air is {{ spanWords(m.gainC, '°C', 1) }} warmer</span>
        </li>
      </ul>
    </section>
    <section aria-label="To the touch">
      <h2>Outside, to the touch</h2>
      <ul class="text-sm">
        <li v-for="t in outcome.then.touch" :key="t.name" class="flex items-start gap-2 border-t border-rule py-1">
          <VerdictMark :verdict="touchMark(t)" :size="15" class="mt-[2px]" /><span
            ><b>{{ t.name }}</b> ({{ t.touched }}) {{ touchWords(t) }}; {{ HOLD_S }} s of touch burn from
            {{ t.burnsFromC }} °C</span
          >
        </li>
      </ul>
      <p class="text-xs text-ink2">
        Burn thresholds after ISO 13732-1; the standard and local rules come first. A sheet is as hot as the hottest the
        range says.
      </p>
    </section>
    <p v-if="fuel.length > 0" class="flex items-start gap-2 font-[650] text-look">
      <VerdictMark verdict="look" class="mt-[2px]" />{{
        `Fire load: ${listed(fuel, 'and')} feed a fire. A smoke detector, a cut-out of its own, and somebody with it.`
      }}
    </p>
  </div>
</template>
