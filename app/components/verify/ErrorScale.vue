<script setup lang="ts">
/**
 * The error of one sensor on a scale: 0 in the middle, left reads low, right reads high. Hatched: more than it may be
 * off by. A bar is the range of a point, its middle the error; the point that decides is drawn heavy.
 */
import { computed } from 'vue'
import { ONE_SIDED_90 } from '#core/numeric'
import type { CheckResult } from '#core/thermometry'
import { outcomeWords } from '~/words/sensor'

const props = defineProps<{ result: CheckResult; reachC: number }>()
const W = 400
const H = 32
const x = (errorC: number) => W / 2 + (Math.max(-props.reachC, Math.min(props.reachC, errorC)) / props.reachC) * (W / 2)
const allowed = computed(() => props.result.worst.allowedC)
const marks = computed(() =>
  props.result.points.map((p, i, all) => ({
    heavy: p === props.result.worst,
    y: H / 2 + (i - (all.length - 1) / 2) * Math.min(7, 22 / all.length),
    at: x(-p.cC),
    from: p.uC === null ? null : x(-p.cC - ONE_SIDED_90 * p.uC),
    to: p.uC === null ? null : x(-p.cC + ONE_SIDED_90 * p.uC),
  })),
)
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" class="block w-full max-w-[560px]" role="img" :aria-label="outcomeWords(result)">
    <template v-if="allowed !== null">
      <rect x="0" y="0" :width="x(-allowed)" :height="H" fill="url(#too-far)" />
      <rect :x="x(allowed)" y="0" :width="W - x(allowed)" :height="H" fill="url(#too-far)" />
      <path :d="`M${x(-allowed)} 0V${H}M${x(allowed)} 0V${H}`" stroke="var(--color-ink)" />
    </template>
    <path :d="`M0 ${H}H${W}`" stroke="var(--color-rule)" />
    <path :d="`M${W / 2} 0V${H}`" stroke="var(--color-ink2)" stroke-dasharray="3 3" />
    <g v-for="(m, i) in marks" :key="i" :stroke="m.heavy ? 'var(--color-ink)' : 'var(--color-slate)'">
      <path v-if="m.from !== null" :d="`M${m.from} ${m.y}H${m.to}`" :stroke-width="m.heavy ? 4 : 2" />
      <path :d="`M${m.at} ${m.y - 5}V${m.y + 5}`" :stroke-width="m.heavy ? 3 : 2" />
    </g>
  </svg>
</template>
