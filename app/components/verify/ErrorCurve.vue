<script setup lang="ts">
/**
 * Errors of one sensor over what it shows: points of the check that counts with their ranges, those before it faint,
 * what it may be off by hatched beyond, and the line that the limits count with: drawn through where the check covers
 * it, broken where only a correction that tightens is kept.
 */
import { computed } from 'vue'
import { ONE_SIDED_90 } from '#core/numeric'
import {
  allowedAt,
  correctionAt,
  REACHES_C,
  type Allowed,
  type CheckResult,
  type Correction,
  type PointResult,
} from '#core/thermometry'
import { farthestC } from '~/words/sensor'

const props = defineProps<{
  result: CheckResult
  before: readonly CheckResult[]
  correction: Correction | null
  allowed: Allowed
  label: string
}>()
const W = 560
const H = 230
const LEFT = 54
const RIGHT = 10
const TOP = 12
const BOTTOM = 40

const span = computed(() => {
  const at = [props.result, ...props.before].flatMap(r => r.points.map(p => p.shownC))
  return { from: Math.min(...at) - 2 * REACHES_C, to: Math.max(...at) + 2 * REACHES_C }
})
const reach = computed(() => Math.max(2, farthestC([props.result, ...props.before])) * 1.2)
const x = (c: number) => LEFT + ((c - span.value.from) / (span.value.to - span.value.from)) * (W - LEFT - RIGHT)
/** Reads high upwards: the error is shown − true. */
const y = (errorC: number) => {
  const share = Math.max(-1, Math.min(1, errorC / reach.value))
  return TOP + ((1 - share) / 2) * (H - TOP - BOTTOM)
}
const STEPS = 90
const along = computed(() =>
  Array.from({ length: STEPS + 1 }, (_, i) => span.value.from + ((span.value.to - span.value.from) * i) / STEPS),
)
const edges = computed(() => {
  const known = along.value.flatMap(c => {
    const a = allowedAt(props.allowed, c)
    return a === null ? [] : [{ c, a }]
  })
  return known.length < 2 ? [] : [edge(known, 1), edge(known, -1)]
})
function edge(known: readonly { c: number; a: number }[], sign: 1 | -1): { line: string; beyond: string } {
  const line = known.map(({ c, a }, i) => `${i ? 'L' : 'M'}${x(c).toFixed(1)} ${y(sign * a).toFixed(1)}`).join('')
  const out = sign > 0 ? TOP : H - BOTTOM
  const back = `L${x(known.at(-1)!.c).toFixed(1)} ${out}L${x(known[0]!.c).toFixed(1)} ${out}Z`
  return { line, beyond: line + back }
}
/** What the limits count with, in runs of covered and not. */
const runs = computed(() => {
  const out: { covered: boolean; d: string }[] = []
  for (const c of along.value) {
    const at = correctionAt(props.correction, c)
    const place = `${x(c).toFixed(1)} ${y(-at.cC).toFixed(1)}`
    const last = out.at(-1)
    if (last?.covered === at.covered) last.d += `L${place}`
    else out.push({ covered: at.covered, d: `M${place}` })
  }
  return out
})
/** The range of a point, with a foot at either end. */
function whisker(p: PointResult): string {
  const [at, low, high] = [x(p.shownC), y(-p.cC - ONE_SIDED_90 * p.uC!), y(-p.cC + ONE_SIDED_90 * p.uC!)]
  return `M${at} ${low}V${high}M${at - 4} ${low}h8M${at - 4} ${high}h8`
}
const ticksX = computed(() => {
  const { from, to } = span.value
  const step = [10, 20, 50, 100].find(s => (to - from) / s <= 8) ?? 200
  return Array.from(
    { length: Math.floor(to / step) - Math.ceil(from / step) + 1 },
    (_, i) => (Math.ceil(from / step) + i) * step,
  )
})
const ticksY = computed(() => {
  const step = [0.5, 1, 2, 5, 10, 20].find(s => reach.value / s <= 3.2) ?? 50
  return [-3, -2, -1, 0, 1, 2, 3].map(k => k * step).filter(t => Math.abs(t) < reach.value)
})
</script>

<template>
  <figure class="sheet p-3">
    <div class="relative overflow-x-auto" tabindex="0" role="group" :aria-label="`${label} Pans sideways`">
      <svg :viewBox="`0 0 ${W} ${H}`" class="w-full min-w-[540px]" role="img" :aria-label="label">
        <path v-for="(e, i) in edges" :key="`b${i}`" :d="e.beyond" fill="url(#too-far)" />
        <path v-for="(e, i) in edges" :key="`l${i}`" :d="e.line" fill="none" stroke="var(--color-ink)" />
        <g v-for="t in ticksY" :key="`y${t}`">
          <path :d="`M${LEFT - 4} ${y(t)}H${LEFT}`" stroke="var(--color-ink2)" />
          <text :x="LEFT - 7" :y="y(t) + 4" text-anchor="end" class="t">
            {{ t > 0 ? '+' : '' }}{{ t < 0 ? `−${-t}` : t }}
          </text>
        </g>
        <g v-for="t in ticksX" :key="`x${t}`">
          <path :d="`M${x(t)} ${H - BOTTOM}v4`" stroke="var(--color-ink2)" />
          <text :x="x(t)" :y="H - BOTTOM + 17" text-anchor="middle" class="t">{{ t }}</text>
        </g>
        <path :d="`M${LEFT} ${TOP}V${H - BOTTOM}H${W - RIGHT}`" fill="none" stroke="var(--color-ink2)" />
        <path :d="`M${LEFT} ${y(0)}H${W - RIGHT}`" stroke="var(--color-ink2)" stroke-dasharray="3 3" />
        <path
          v-for="(r, i) in runs"
          :key="`r${i}`"
          :d="r.d"
          fill="none"
          stroke="var(--color-blue)"
          stroke-width="2.2"
          :stroke-dasharray="r.covered ? undefined : '5 4'"
        />
        <g v-for="(r, k) in before" :key="`o${k}`" stroke="var(--color-slate)">
          <circle
            v-for="p in r.points"
            :key="p.shownC"
            :cx="x(p.shownC)"
            :cy="y(-p.cC)"
            r="3"
            fill="var(--color-sheet)"
          />
        </g>
        <g v-for="p in result.points" :key="p.shownC" stroke="var(--color-ink)" stroke-width="2">
          <path v-if="p.uC !== null" :d="whisker(p)" />
          <circle :cx="x(p.shownC)" :cy="y(-p.cC)" r="4" fill="var(--color-ink)" />
        </g>
        <text :x="LEFT + 8" :y="TOP + 12" class="t">reads high, °C</text>
        <text :x="LEFT + 8" :y="H - BOTTOM - 7" class="t">reads low, °C</text>
        <text :x="(LEFT + W - RIGHT) / 2" :y="H - 6" text-anchor="middle" class="t">shown, °C</text>
      </svg>
    </div>
    <figcaption class="mt-1 flex flex-wrap gap-x-4 gap-y-1 text-xs text-ink2">
      <span>● this check with its range (90 % one-sided)</span><span v-if="before.length">○ checks before</span>
      <span><b class="text-blue">━</b> what the limits count with; broken where nobody has checked</span>
      <span>hatched: more than it may be off by</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.t {
  font-size: 12.5px;
  fill: var(--color-ink2);
  stroke: none;
}
</style>
