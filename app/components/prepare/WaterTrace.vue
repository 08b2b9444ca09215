<script setup lang="ts">
/**
 * Water of a spool through its history: the wound spool as a line with the band of what nobody knows, the single strand
 * dashed, both marks across, places below.
 */
import { stepFor } from '~/lib/steps'
import { computed } from 'vue'
import type { TracePoint } from '#core/drying'
import { day, when } from '#shared/time'
import { water } from '#core/words'

const props = defineProps<{
  points: readonly TracePoint[]
  clean: number
  usual: number
  zone: string
  tag: string
}>()
const W = 560,
  H = 250,
  LEFT = 40,
  RIGHT = 84,
  TOP = 16,
  BOTTOM = 54
/** The last fortnight at most: what lies further back no longer decides. */
const shown = computed(() => {
  const end = props.points[props.points.length - 1]?.at ?? 0
  return props.points.filter(p => p.at >= end - 14 * 86_400_000)
})
const from = computed(() => shown.value[0]?.at ?? 0),
  to = computed(() => Math.max(from.value + 3_600_000, shown.value[shown.value.length - 1]?.at ?? 0))
const top = computed(() => Math.max(props.usual * 1.4, ...shown.value.map(p => Math.max(p.strand, p.wound))) * 1.08)
const x = (at: number) => LEFT + ((at - from.value) / (to.value - from.value)) * (W - LEFT - RIGHT)
const y = (v: number) => TOP + (1 - v / top.value) * (H - TOP - BOTTOM)
const path = (key: 'strand' | 'wound') =>
  shown.value.map((p, i) => `${i ? 'L' : 'M'}${x(p.at).toFixed(1)} ${y(p[key]).toFixed(1)}`).join('')
/** What nobody knows: between a spool that came dry and one that came as wet as the room. */
const between = computed(() => {
  const at = (p: TracePoint, key: 'low' | 'wound') => `${x(p.at).toFixed(1)} ${y(p[key]).toFixed(1)}`
  const up = shown.value.map(p => at(p, 'wound'))
  const down = shown.value.map(p => at(p, 'low')).reverse()
  return `M${[...up, ...down].join('L')}Z`
})
const step = computed(() => [0.01, 0.02, 0.05, 0.1, 0.2, 0.5, 1].find(s => top.value / s <= 6) ?? 2)
const ticks = computed(() =>
  Array.from({ length: Math.floor(top.value / step.value) + 1 }, (_, i) => Number((i * step.value).toFixed(3))),
)
const days = computed(() => {
  const span = (to.value - from.value) / 86_400_000
  const every = stepFor(
    span,
    [
      [10, 3],
      [5, 2],
      [2, 1],
    ],
    0.5,
  )
  const out: number[] = []
  for (let t = Math.ceil(from.value / (every * 86_400_000)) * every * 86_400_000; t < to.value; t += every * 86_400_000)
    out.push(t)
  return out
})
/** One bar for each stretch in one place. */
const places = computed(() => {
  const out: { place: string; from: number; to: number }[] = []
  for (const p of shown.value) {
    const last = out[out.length - 1]
    if (last && last.place === p.place) last.to = p.at
    else out.push({ place: p.place, from: last?.to ?? p.at, to: p.at })
  }
  return out
})
const FILL: Record<string, string> = {
  'room': 'var(--color-faint)',
  'dry box': 'var(--color-blue)',
  'dryer': 'var(--color-bronze)',
  'sealed': 'var(--color-white)',
}
const last = computed(() => shown.value[shown.value.length - 1] ?? null)
/** The two end labels, kept apart. */
const labelY = computed(() => {
  if (!last.value) return { wound: 0, strand: 0 }
  const w = y(last.value.wound),
    s = y(last.value.strand)
  if (Math.abs(w - s) >= 16) return { wound: w, strand: s }
  return w <= s
    ? { wound: (w + s) / 2 - 8, strand: (w + s) / 2 + 8 }
    : { wound: (w + s) / 2 + 8, strand: (w + s) / 2 - 8 }
})
</script>

<template>
  <figure class="sheet m-0 p-2">
    <figcaption class="label px-1">
      Water in {{ tag }}, wt%, by the model. The line is the wound spool if it came as wet as the room, the pale band
      down to where it would be if it came dry; a single strand (dashed) dries and wets faster.
    </figcaption>
    <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Water through time">
      <svg
        v-if="last"
        :viewBox="`0 0 ${W} ${H}`"
        class="min-w-[540px] w-full"
        role="img"
        :aria-label="
          [
            `Wound spool now ${water(last.wound)}`,
            `single strand ${water(last.strand)}`,
            `at least ${water(last.low)} if it came dry`,
            `usually prints up to ${water(usual)}, clean up to ${water(clean)}`,
          ].join(', ')
        "
      >
        <g v-for="t in ticks" :key="t">
          <path :d="`M${LEFT} ${y(t)}H${W - RIGHT}`" stroke="var(--color-faint)" />
          <text :x="LEFT - 6" :y="y(t) + 4" text-anchor="end" class="t">{{ t }}</text>
        </g>
        <g v-for="d in days" :key="d">
          <path :d="`M${x(d)} ${TOP}V${H - BOTTOM + 18}`" stroke="var(--color-faint)" />
          <text :x="x(d)" :y="H - 6" text-anchor="middle" class="t">
            {{
              to - from > 2 * 86_400_000
                ? day(new Date(d).toISOString(), zone).replace(/ \d{4}$/, '')
                : when(new Date(d).toISOString(), zone)
            }}
          </text>
        </g>
        <g v-for="(p, i) in places" :key="i">
          <rect
            :x="x(p.from)"
            :y="H - BOTTOM + 4"
            :width="Math.max(1.5, x(p.to) - x(p.from))"
            height="12"
            :fill="FILL[p.place]"
            stroke="var(--color-ink)"
            stroke-width="0.8"
          />
          <text
            v-if="x(p.to) - x(p.from) > 46"
            :x="(x(p.from) + x(p.to)) / 2"
            :y="H - BOTTOM + 30"
            text-anchor="middle"
            class="t"
          >
            {{ p.place }}
          </text>
        </g>
        <path :d="between" fill="var(--color-blue)" opacity="0.16" />
        <path :d="`M${LEFT} ${y(usual)}H${W - RIGHT}`" stroke="var(--color-stop)" stroke-width="2" />
        <text :x="LEFT + 4" :y="y(usual) - 5" class="t stop">usually prints below {{ water(usual) }}</text>
        <path
          :d="`M${LEFT} ${y(clean)}H${W - RIGHT}`"
          stroke="var(--color-ink2)"
          stroke-width="1.5"
          stroke-dasharray="2 3"
        />
        <text v-if="y(clean) - y(usual) > 22" :x="LEFT + 4" :y="y(clean) - 4" class="t">
          clean below {{ water(clean) }}
        </text>
        <path :d="path('strand')" fill="none" stroke="var(--color-bronze)" stroke-width="1.8" stroke-dasharray="6 3" />
        <path :d="path('wound')" fill="none" stroke="var(--color-blue)" stroke-width="2.6" />
        <text :x="W - RIGHT + 5" :y="labelY.wound + 4" class="t b">spool {{ last.wound.toFixed(2) }}</text>
        <text :x="W - RIGHT + 5" :y="labelY.strand + 4" class="t">strand {{ last.strand.toFixed(2) }}</text>
        <path
          :d="`M${LEFT} ${TOP}V${H - BOTTOM}H${W - RIGHT}`"
          fill="none"
          stroke="var(--color-ink)"
          stroke-width="1.4"
        />
      </svg>
    </div>
  </figure>
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
.stop {
  fill: var(--color-stop);
  font-weight: 650;
}
</style>
