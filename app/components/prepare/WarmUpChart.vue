<script setup lang="ts">
/** A warm-up as recorded: readings, the fitted curve, door openings left out, and where it settles. */
import { stepFor } from '~/lib/steps'
import { computed } from 'vue'
import { warmUpAt, type Reading, type WarmUp } from '#core/chamber'

const props = defineProps<{
  readings: readonly Reading[]
  fit: WarmUp & { dips: readonly { fromS: number; toS: number }[] }
  label: string
}>()
const W = 560,
  H = 210,
  LEFT = 44,
  RIGHT = 84,
  TOP = 14,
  BOTTOM = 34
const end = computed(() => Math.max(60, props.readings[props.readings.length - 1]?.s ?? 0))
const low = computed(() => Math.floor((Math.min(...props.readings.map(r => r.c), props.fit.startC) - 2) / 10) * 10)
const high = computed(() => Math.ceil((Math.max(...props.readings.map(r => r.c), props.fit.finalC) + 2) / 10) * 10)
const x = (s: number) => LEFT + (s / end.value) * (W - LEFT - RIGHT)
const y = (c: number) => TOP + ((high.value - c) / (high.value - low.value)) * (H - TOP - BOTTOM)
const curve = computed(() =>
  Array.from({ length: 81 }, (_, i) => (end.value * i) / 80)
    .map((s, i) => `${i ? 'L' : 'M'}${x(s).toFixed(1)} ${y(warmUpAt(props.fit, s)).toFixed(1)}`)
    .join(''),
)
const ticks = computed(() => {
  const step = high.value - low.value > 60 ? 20 : 10
  return Array.from({ length: Math.floor((high.value - low.value) / step) + 1 }, (_, i) => low.value + i * step)
})
const minutes = computed(() => {
  const m = end.value / 60
  const step = stepFor(
    m,
    [
      [90, 30],
      [30, 15],
    ],
    5,
  )
  return Array.from({ length: Math.floor(m / step) + 1 }, (_, i) => i * step)
})
</script>

<template>
  <div class="relative overflow-x-auto" tabindex="0" role="group" :aria-label="`${label}, drawn`">
    <svg :viewBox="`0 0 ${W} ${H}`" class="w-full min-w-[540px]" role="img" :aria-label="label">
      <g v-for="t in ticks" :key="t">
        <path :d="`M${LEFT} ${y(t)}H${W - RIGHT}`" stroke="var(--color-faint)" />
        <text :x="LEFT - 5" :y="y(t) + 4" text-anchor="end" class="t">{{ t }}</text>
      </g>
      <text v-for="m in minutes" :key="m" :x="x(m * 60)" :y="H - 16" text-anchor="middle" class="t">{{ m }}</text>
      <text :x="(LEFT + W - RIGHT) / 2" :y="H - 2" text-anchor="middle" class="t">minutes</text>
      <text :x="4" :y="11" class="t">°C</text>
      <g v-for="d in fit.dips" :key="d.fromS">
        <rect
          :x="x(d.fromS)"
          :y="TOP"
          :width="Math.max(2, x(d.toS) - x(d.fromS))"
          :height="H - TOP - BOTTOM"
          fill="var(--color-faint)"
        />
        <text :x="x(d.fromS) + 2" :y="H - BOTTOM - 5" class="t">door</text>
      </g>
      <path :d="`M${LEFT} ${y(fit.finalC)}H${W - RIGHT}`" stroke="var(--color-ink2)" stroke-dasharray="5 4" />
      <text :x="W - RIGHT + 4" :y="y(fit.finalC) + 4" class="t b">to {{ fit.finalC.toFixed(0) }} °C</text>
      <circle v-for="(r, i) in readings" :key="i" :cx="x(r.s)" :cy="y(r.c)" r="1.7" fill="var(--color-bronze)" />
      <path :d="curve" fill="none" stroke="var(--color-blue)" stroke-width="2.2" />
      <path
        :d="`M${LEFT} ${TOP}V${H - BOTTOM}H${W - RIGHT}`"
        fill="none"
        stroke="var(--color-ink)"
        stroke-width="1.3"
      />
    </svg>
  </div>
</template>

<style scoped>
.t {
  font-size: 12px;
  fill: var(--color-ink2);
}
.b {
  font-weight: 700;
  fill: var(--color-ink);
}
</style>
