<script setup lang="ts">
/**
 * Probability plot of a type's lives: use to the right, the share that is past its limit upwards, scaled so that a
 * Weibull is a straight line. A nozzle that was found past its limit is a stroke between its two gauges, one that never
 * was an arrow at the foot; each leads to its page. The fitted line, and what the wear model expects.
 */
import { computed } from 'vue'
import { lifeKgAt, plotPoints, type Life, type LifeRecord } from '#core/life'
import { kg, percent } from '#core/words'
import type { TypeLife } from '#shared/answers/lives'

const props = defineProps<{ life: TypeLife; model: Life | null; label: string }>()
const W = 620
const H = 320
const LEFT = 46
const RIGHT = 12
const TOP = 12
const BOTTOM = 36
const told = computed(() => props.life.nozzles.flatMap(n => (n.record ? [{ ...n, record: n.record }] : [])))
const records = computed<LifeRecord[]>(() => told.value.map(n => n.record))
const points = computed(() => plotPoints(records.value))
const survivors = computed(() => told.value.filter(n => n.record.kind === 'survived'))
const untilOf = (r: LifeRecord) => (r.kind === 'survived' ? r.until : 0)

const SHARES = [0.02, 0.05, 0.1, 0.2, 0.5, 0.8, 0.95]
const scaled = (share: number) => Math.log(-Math.log1p(-share))
const lowest = scaled(0.015)
const highest = scaled(0.975)
const y = (share: number) => TOP + ((highest - scaled(share)) / (highest - lowest)) * (H - TOP - BOTTOM)
const ends = computed(() => {
  const uses = [
    ...points.value.flatMap(p => [p.from ?? p.at, p.at]),
    ...survivors.value.map(n => untilOf(n.record)),
    ...[props.life.fit, props.model].flatMap(l => (l ? [lifeKgAt(l, 0.03), lifeKgAt(l, 0.95)] : [])),
  ].filter(v => v > 0)
  return { low: Math.min(...uses, 1) / 1.25, high: Math.max(...uses, 1e-3) * 1.25 }
})
const x = (v: number) => {
  const { low, high } = ends.value
  const share = Math.log(Math.max(v, low) / low) / Math.log(high / low)
  return LEFT + Math.min(1, share) * (W - LEFT - RIGHT)
}
const ticks = computed(() => {
  const { low, high } = ends.value
  const out: number[] = []
  for (let e = Math.floor(Math.log10(low)); e <= Math.ceil(Math.log10(high)); e++)
    for (const d of [1, 2, 5]) out.push(d * 10 ** e)
  return out.filter(t => t >= low && t <= high)
})
const curve = (l: Life) =>
  Array.from({ length: 60 }, (_, i) => 0.016 + (0.958 * i) / 59)
    .map(p => ({ p, v: lifeKgAt(l, p) }))
    .filter(({ v }) => v >= ends.value.low && v <= ends.value.high)
    .map(({ p, v }, i) => `${i ? 'L' : 'M'}${x(v).toFixed(1)} ${y(p).toFixed(1)}`)
    .join('')
const says = (n: (typeof told.value)[0]) =>
  n.record.kind === 'between'
    ? `${n.tag}: found past its limit between ${kg(n.record.from)} and ${kg(n.record.to)}`
    : `${n.tag}: ${n.end}, within its limit at ${kg(untilOf(n.record))}`
/** Marks at the foot that would lie over each other are set in rows. */
const feet = computed(() => {
  const rows: number[] = []
  return [...survivors.value]
    .sort((a, b) => untilOf(a.record) - untilOf(b.record))
    .map(n => {
      const at = x(untilOf(n.record))
      let row = rows.findIndex(end => at - end > 44)
      if (row < 0) row = rows.push(0) - 1
      rows[row] = at
      return { n, at, row: Math.min(row, 1) }
    })
})
</script>

<template>
  <figure class="sheet p-3">
    <figcaption class="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
      <span class="flex items-center gap-1"
        ><svg width="22" height="10" aria-hidden="true">
          <path d="M0 5H22" stroke="var(--color-bronze)" stroke-width="3" /></svg
        >found past its limit, between two gauges</span
      >
      <span class="flex items-center gap-1"
        ><svg width="14" height="10" aria-hidden="true"><path d="M1 1L13 5L1 9Z" fill="var(--color-ink2)" /></svg>within
        its limit at its last gauge; hollow: retired</span
      >
      <span v-if="life.fit" class="flex items-center gap-1"
        ><svg width="22" height="10" aria-hidden="true">
          <path d="M0 5H22" stroke="var(--color-ink)" stroke-width="2.2" /></svg
        >by what wore out</span
      >
      <span v-if="model" class="flex items-center gap-1"
        ><svg width="22" height="10" aria-hidden="true">
          <path d="M0 5H22" stroke="var(--color-blue)" stroke-width="2" stroke-dasharray="5 3" /></svg
        >the wear model</span
      >
    </figcaption>
    <div class="relative overflow-x-auto" tabindex="0" role="group" :aria-label="`${label}, pans sideways`">
      <svg :viewBox="`0 0 ${W} ${H}`" class="w-full min-w-[520px]" role="group" :aria-label="label">
        <g v-for="s in SHARES" :key="s">
          <path :d="`M${LEFT} ${y(s)}H${W - RIGHT}`" stroke="var(--color-faint)" />
          <text :x="LEFT - 5" :y="y(s) + 4" text-anchor="end" class="t">{{ percent(s) }}</text>
        </g>
        <g v-for="t in ticks" :key="t">
          <path :d="`M${x(t)} ${TOP}V${H - BOTTOM}`" stroke="var(--color-faint)" />
          <text :x="x(t)" :y="H - BOTTOM + 15" text-anchor="middle" class="t">{{ Number(t.toPrecision(1)) }}</text>
        </g>
        <text :x="(LEFT + W - RIGHT) / 2" :y="H - BOTTOM + 30" text-anchor="middle" class="t">
          kg of fibre, weighted by abrasivity; upwards the share past its limit
        </text>
        <path
          v-if="model"
          :d="curve(model)"
          fill="none"
          stroke="var(--color-blue)"
          stroke-width="2"
          stroke-dasharray="5 3"
        />
        <path v-if="life.fit" :d="curve(life.fit)" fill="none" stroke="var(--color-ink)" stroke-width="2.2" />
        <NuxtLink
          v-for="p in points"
          :key="told[p.index]!.tag"
          v-slot="{ href, navigate }"
          :to="`/inspect/${told[p.index]!.tag}`"
          custom
        >
          <a :href="href" class="mark" :aria-label="says(told[p.index]!)" @click="navigate">
            <title>{{ says(told[p.index]!) }}</title>
            <rect
              class="target"
              :x="Math.min(x(p.from ?? p.at), x(2 * p.at - (p.from ?? p.at)) - 24)"
              :y="y(p.share) - 12"
              :width="Math.max(24, x(2 * p.at - (p.from ?? p.at)) - x(p.from ?? p.at))"
              height="24"
              fill="transparent"
            />
            <path
              :d="`M${x(p.from ?? p.at)} ${y(p.share)}H${x(2 * p.at - (p.from ?? p.at))}`"
              stroke="var(--color-bronze)"
              stroke-width="3"
            />
            <circle
              :cx="x(p.at)"
              :cy="y(p.share)"
              r="4"
              fill="var(--color-sheet)"
              stroke="var(--color-bronze)"
              stroke-width="2"
            />
            <text :x="x(2 * p.at - (p.from ?? p.at)) + 6" :y="y(p.share) + 4" class="t tag">
              {{ told[p.index]!.tag }}
            </text>
          </a>
        </NuxtLink>
        <path
          :d="`M${LEFT} ${TOP}V${H - BOTTOM}H${W - RIGHT}`"
          fill="none"
          stroke="var(--color-ink)"
          stroke-width="1.3"
        />
        <NuxtLink v-for="f in feet" :key="f.n.tag" v-slot="{ href, navigate }" :to="`/inspect/${f.n.tag}`" custom>
          <a :href="href" class="mark" :aria-label="says(f.n)" @click="navigate">
            <title>{{ says(f.n) }}</title>
            <rect
              class="target"
              :x="f.at - 6"
              :y="H - BOTTOM - 30 - 18 * f.row"
              width="50"
              height="24"
              fill="transparent"
            />
            <path
              :d="`M${f.at} ${H - BOTTOM - 22 - 18 * f.row}l10 4l-10 4Z`"
              :fill="f.n.end === 'in service' ? 'var(--color-ink2)' : 'var(--color-sheet)'"
              stroke="var(--color-ink2)"
            />
            <text :x="f.at + 12" :y="H - BOTTOM - 14 - 18 * f.row" class="t tag">{{ f.n.tag }}</text>
          </a>
        </NuxtLink>
      </svg>
    </div>
  </figure>
</template>

<style scoped>
.t {
  font-size: 12px;
  fill: var(--color-ink2);
}
.tag {
  fill: var(--color-ink);
}
.mark:hover .tag,
.mark:focus .tag {
  text-decoration: underline;
}
.mark:focus-visible {
  outline: none;
}
.mark:focus-visible .target {
  stroke: var(--color-blue);
  stroke-width: 2.5;
}
</style>
