<script setup lang="ts">
/**
 * A bed from above, front at the bottom: what was measured at each point, full discs high and rings low, and the screws
 * with the way each is turned.
 */
import { computed } from 'vue'
import { turnWords, type Bed, type LevelFound } from '#core/level'

const props = defineProps<{ bed: Bed; found: LevelFound | null; label: string }>()
const W = 640
const LEFT = 58
const TOP = 46
/** Above this many points beside each other there is no room for numbers. */
const MOST_NUMBERS = 9

const scale = computed(() => Math.min((W - 2 * LEFT) / props.bed.widthMm, 460 / props.bed.depthMm))
const w = computed(() => props.bed.widthMm * scale.value)
const d = computed(() => props.bed.depthMm * scale.value)
const left = computed(() => (W - w.value) / 2)
const H = computed(() => TOP + d.value + 74)
const x = (mm: number) => left.value + mm * scale.value
const y = (mm: number) => TOP + d.value - mm * scale.value
/** No number is less than nothing. */
function signed(mm: number): string {
  const says = mm.toFixed(2)
  if (Number(says) === 0) return '0.00'
  return mm > 0 ? `+${says}` : says
}
/** Heights against their own middle, so that which is high shows at once. */
const points = computed(() => {
  const f = props.found
  if (!f) return []
  const middle = f.points.reduce((s, p) => s + p.zMm, 0) / f.points.length
  const most = Math.max(0.02, ...f.points.map(p => Math.abs(p.zMm - middle)))
  const across = new Set(f.points.map(p => p.xMm.toFixed(1))).size
  return f.points.map((p, i) => {
    const off = p.zMm - middle
    return {
      i,
      x: x(p.xMm),
      y: y(p.yMm),
      r: 3 + (9 * Math.abs(off)) / most,
      high: off > 0,
      says: across > MOST_NUMBERS ? '' : signed(p.zMm),
    }
  })
})
/** Names and turns stand outside the bed, over the end where their screw is. */
const screws = computed(() =>
  props.bed.screws.map((s, i) => {
    const turn = props.found?.screws[i] ?? null
    const third = Math.min(2, Math.max(0, Math.floor((s.xMm / props.bed.widthMm) * 3)))
    const front = s.yMm < props.bed.depthMm / 2
    return {
      name: s.name,
      cx: x(s.xMm),
      cy: y(s.yMm),
      turns: turn !== null && turn.parts > 0,
      says: turn ? turnWords(turn) : '',
      anchor: (['start', 'middle', 'end'] as const)[third]!,
      x: left.value + (w.value * third) / 2,
      y: front ? TOP + d.value + 18 : TOP - 24,
    }
  }),
)
</script>

<template>
  <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="label">
    <svg :viewBox="`0 0 ${W} ${H}`" class="block w-full max-w-[720px] min-w-[600px]" role="img" :aria-label="label">
      <rect
        :x="left"
        :y="TOP"
        :width="w"
        :height="d"
        fill="var(--color-sheet)"
        stroke="var(--color-ink)"
        stroke-width="2"
      />
      <g v-for="s in screws" :key="s.name">
        <circle
          :cx="s.cx"
          :cy="s.cy"
          r="8"
          fill="var(--color-paper)"
          stroke="var(--color-ink)"
          :stroke-width="s.turns ? 2.5 : 1.2"
        />
        <path :d="`M${s.cx - 5} ${s.cy}h10`" stroke="var(--color-ink)" stroke-width="1.5" />
        <text :x="s.x" :y="s.y" :text-anchor="s.anchor" font-size="13" fill="var(--color-ink)">
          {{ s.name }}
          <tspan v-if="s.says" :x="s.x" dy="15" font-weight="700">{{ s.says }}</tspan>
        </text>
      </g>
      <g v-for="p in points" :key="p.i">
        <circle
          :cx="p.x"
          :cy="p.y"
          :r="p.r"
          :fill="p.high ? 'var(--color-bronze)' : 'none'"
          :stroke="p.high ? 'var(--color-bronze)' : 'var(--color-slate)'"
          stroke-width="2"
        />
        <text
          v-if="p.says"
          :x="p.x"
          :y="p.y + p.r + 14"
          text-anchor="middle"
          font-size="13"
          class="tabular"
          fill="var(--color-ink)"
          stroke="var(--color-sheet)"
          stroke-width="4"
          paint-order="stroke"
        >
          {{ p.says }}
        </text>
      </g>
      <text :x="W / 2" :y="H - 14" text-anchor="middle" font-size="12.5" fill="var(--color-ink2)">
        front · {{ bed.widthMm }} × {{ bed.depthMm }} mm{{ found ? ' · heights in mm: disc high, ring low' : '' }}
      </text>
    </svg>
  </div>
</template>
