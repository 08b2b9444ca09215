<script setup lang="ts">
/**
 * A chamber to scale, from the front and from above, with its probes where they hang. The bed is the heavy bar. While
 * `placing`, a press on either view puts the chosen probe there; x, y and z can be typed as well.
 */
import { computed } from 'vue'
import type { ChamberSize } from '#core/chamber'
import { labelPlaces } from '~/lib/labels'

interface Mark {
  name: string
  xMm: number | null
  yMm: number | null
  zMm: number | null
  /** What it says beside the probe in the front view. */
  says?: string
}
const props = defineProps<{
  size: ChamberSize
  probes: readonly Mark[]
  chosen?: number | null
  placing?: boolean
  label: string
}>()
const emit = defineEmits<{ place: [at: { xMm: number; yMm?: number; zMm?: number }] }>()

const [LEFT, TOP, BOX_W, BOX_H, GAP] = [46, 16, 250, 260, 60]
const scale = computed(() =>
  Math.min(BOX_W / props.size.widthMm, BOX_H / props.size.heightMm, BOX_H / props.size.depthMm),
)
const w = computed(() => props.size.widthMm * scale.value)
const h = computed(() => props.size.heightMm * scale.value)
const d = computed(() => props.size.depthMm * scale.value)
const aboveX = computed(() => LEFT + w.value + GAP)
const W = computed(() => aboveX.value + w.value + 24)
const H = computed(() => TOP + Math.max(h.value, d.value) + 52)
const CHAR = 7
const here = computed(() => {
  const marks = props.probes.flatMap((p, i) => {
    const { xMm, yMm, zMm } = p
    if (![xMm, yMm, zMm].every(v => v !== null && !Number.isNaN(v))) return []
    const front = { x: LEFT + xMm! * scale.value, y: TOP + h.value - zMm! * scale.value }
    const above = { x: aboveX.value + xMm! * scale.value, y: TOP + d.value - yMm! * scale.value }
    return [{ ...p, heavy: i === props.chosen, views: [front, above] as const }]
  })
  const labels = ([0, 1] as const).map(view => {
    const left = view === 0 ? LEFT : aboveX.value
    const of = marks.map(m => {
      const says = view === 0 ? (m.says ?? '') : ''
      const width = Math.max(m.name.length, says.length) * CHAR
      return { ...m.views[view], width, lines: says === '' ? 1 : 2 }
    })
    return labelPlaces(of, left, left + w.value)
  })
  return marks.map((m, i) => ({ ...m, labels: [labels[0]![i]!, labels[1]![i]!] as const }))
})
function press(e: MouseEvent, view: 'front' | 'above'): void {
  if (!props.placing) return
  const box = (e.currentTarget as SVGRectElement).getBoundingClientRect()
  const share = (v: number, of: number) => Math.max(0, Math.min(1, v / of))
  const xMm = Math.round((share(e.clientX - box.left, box.width) * props.size.widthMm) / 5) * 5
  const up = 1 - share(e.clientY - box.top, box.height)
  const mm = (whole: number) => Math.round((up * whole) / 5) * 5
  emit('place', view === 'front' ? { xMm, zMm: mm(props.size.heightMm) } : { xMm, yMm: mm(props.size.depthMm) })
}
</script>

<template>
  <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="label">
    <svg :viewBox="`0 0 ${W} ${H}`" class="block w-full max-w-[720px] min-w-[560px]" role="img" :aria-label="label">
      <pattern id="wall" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V6" stroke="var(--color-ink2)" stroke-width="1" />
      </pattern>
      <g v-for="view in ['front', 'above'] as const" :key="view">
        <rect
          :x="(view === 'front' ? LEFT : aboveX) - 7"
          :y="TOP - 7"
          :width="w + 14"
          :height="(view === 'front' ? h : d) + 14"
          fill="url(#wall)"
          stroke="var(--color-ink)"
        />
        <rect
          :x="view === 'front' ? LEFT : aboveX"
          :y="TOP"
          :width="w"
          :height="view === 'front' ? h : d"
          fill="var(--color-sheet)"
          stroke="var(--color-ink)"
          :class="placing ? 'cursor-crosshair' : ''"
          @click="press($event, view)"
        />
        <text
          :x="(view === 'front' ? LEFT : aboveX) + w / 2"
          :y="TOP + (view === 'front' ? h : d) + 24"
          text-anchor="middle"
          font-size="12.5"
          fill="var(--color-ink2)"
        >
          {{ view === 'front' ? `from the front, ${size.widthMm} mm wide` : 'from above, front at the bottom' }}
        </text>
      </g>
      <path
        :d="`M${LEFT + w * 0.08} ${TOP + h - 3}H${LEFT + w * 0.92}`"
        stroke="var(--color-ink)"
        stroke-width="6"
        class="pointer-events-none"
      />
      <rect
        :x="aboveX + w * 0.08"
        :y="TOP + d * 0.08"
        :width="w * 0.84"
        :height="d * 0.84"
        fill="none"
        stroke="var(--color-ink2)"
        stroke-dasharray="5 4"
        class="pointer-events-none"
      />
      <g :transform="`translate(18 ${TOP})`" stroke="var(--color-ink2)" fill="none">
        <path :d="`M0 0H20M0 ${h}H20M10 0V${h}M7 8L10 0L13 8M7 ${h - 8}L10 ${h}L13 ${h - 8}`" />
      </g>
      <text
        :transform="`translate(14 ${TOP + h / 2}) rotate(-90)`"
        text-anchor="middle"
        font-size="12.5"
        fill="var(--color-ink2)"
      >
        {{ size.heightMm }} mm
      </text>
      <g v-for="p in here" :key="p.name" class="pointer-events-none">
        <g v-for="(at, view) in p.views" :key="view">
          <g
            :stroke="p.heavy ? 'var(--color-ink)' : 'var(--color-slate)'"
            :stroke-width="p.heavy ? 3 : 2"
            fill="var(--color-sheet)"
          >
            <circle :cx="at.x" :cy="at.y" r="5.5" />
            <path :d="`M${at.x - 9} ${at.y}H${at.x + 9}M${at.x} ${at.y - 9}V${at.y + 9}`" />
          </g>
          <text
            :x="p.labels[view]!.x"
            :y="p.labels[view]!.y"
            :text-anchor="p.labels[view]!.anchor"
            font-size="13"
            :font-weight="p.heavy ? 700 : 500"
            fill="var(--color-ink)"
          >
            {{ p.name }}
            <tspan v-if="view === 0 && p.says" :x="p.labels[view]!.x" dy="15" font-weight="700">{{ p.says }}</tspan>
          </text>
        </g>
      </g>
    </svg>
  </div>
</template>
