<script setup lang="ts">
/**
 * A picture with what was found drawn over it, in the picture's own pixels. A ring or two points can be dragged, moved
 * by arrow keys (with Shift ten times as far), or by the buttons below; plus and minus make the ring larger or smaller.
 */
import { computed, ref } from 'vue'
import type { Bore, Ellipse } from '#core/imaging'

const props = defineProps<{
  url: string
  width: number
  height: number
  says: string
  /** The ring that is being moved; null when there is none to move. */
  ring: Ellipse | null
  points: { x: number; y: number }[] | null
  bore: Bore | null
  umPerPx: number | null
}>()
const emit = defineEmits<{
  ring: [e: Ellipse]
  point: [index: number, at: { x: number; y: number }]
  /** Enter: measure where the ring is. */
  measure: []
}>()
const whole = ref(false)
const svg = ref<SVGSVGElement | null>(null)

/** What is shown: all, or about the mouth. */
const frame = computed(() => {
  const e = props.bore?.ellipse
  if (whole.value || !e || props.points) return { x: 0, y: 0, w: props.width, h: props.height }
  const h = Math.min(props.height, Math.max(40, 3.4 * e.a))
  const w = Math.min(props.width, (h * 4) / 3)
  const x = Math.min(Math.max(0, e.x - w / 2), props.width - w)
  const y = Math.min(Math.max(0, e.y - h / 2), props.height - h)
  return { x, y, w, h }
})
/** A line of the drawing, in pixels of the picture. */
const thin = computed(() => frame.value.w / 420)
/** Where an ellipse lies, as attributes of its element. */
const lying = (e: Ellipse) => ({
  transform: `translate(${e.x} ${e.y}) rotate(${(e.angle * 180) / Math.PI})`,
  rx: e.a,
  ry: e.b,
})
const flare = computed(() => {
  const { bore, umPerPx } = props
  if (!bore?.flareMm || !umPerPx) return null
  const by = (bore.flareMm * 1000) / umPerPx
  return { ...bore.ellipse, a: bore.ellipse.a + by, b: bore.ellipse.b + by }
})
const chips = computed(() =>
  (props.bore?.chips ?? []).map(c => {
    const e = props.bore!.ellipse
    const t = (c.atDeg * Math.PI) / 180
    const deep = props.umPerPx ? (c.deepMm * 1000) / props.umPerPx : 0
    const r = (e.a + e.b + deep) / 2
    return { x: e.x + r * Math.cos(t), y: e.y + r * Math.sin(t), r: Math.max(3 * thin.value, 0.12 * e.a) }
  }),
)

function at(e: PointerEvent): { x: number; y: number } {
  const box = svg.value!.getBoundingClientRect()
  const { x, y, w, h } = frame.value
  return { x: x + ((e.clientX - box.left) / box.width) * w, y: y + ((e.clientY - box.top) / box.height) * h }
}
let dragging: { what: 'middle' | 'size' | number; from: { x: number; y: number }; ring: Ellipse | null } | null = null
function grab(e: PointerEvent, what: 'middle' | 'size' | number): void {
  dragging = { what, from: at(e), ring: props.ring }
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
}
function drag(e: PointerEvent): void {
  if (!dragging) return
  const p = at(e)
  if (typeof dragging.what === 'number') return emit('point', dragging.what, p)
  const { ring, from } = dragging
  if (!ring) return
  if (dragging.what === 'middle') emit('ring', { ...ring, x: ring.x + p.x - from.x, y: ring.y + p.y - from.y })
  else sizedTo(ring, Math.hypot(p.x - ring.x, p.y - ring.y) / Math.max(1, Math.hypot(from.x - ring.x, from.y - ring.y)))
}
const drop = () => {
  dragging = null
}
function sizedTo(ring: Ellipse, by: number): void {
  const a = Math.min(9999, Math.max(4, ring.a * by))
  const b = Math.min(a, Math.max(4, ring.b * by))
  emit('ring', { ...ring, a, b })
}

/** One key, or one press of a button: a step of the ring. */
function step(key: string, far: boolean): boolean {
  const { ring } = props
  if (!ring) return false
  const by = Math.max(0.5, ring.a / 100) * (far ? 10 : 1)
  if (key === 'ArrowLeft') emit('ring', { ...ring, x: ring.x - by })
  else if (key === 'ArrowRight') emit('ring', { ...ring, x: ring.x + by })
  else if (key === 'ArrowUp') emit('ring', { ...ring, y: ring.y - by })
  else if (key === 'ArrowDown') emit('ring', { ...ring, y: ring.y + by })
  else if (key === '+' || key === '=') sizedTo(ring, far ? 1.1 : 1.02)
  else if (key === '-') sizedTo(ring, far ? 1 / 1.1 : 1 / 1.02)
  else if (key === 'Enter') emit('measure')
  else return false
  return true
}
function ringKey(e: KeyboardEvent): void {
  if (step(e.key, e.shiftKey)) e.preventDefault()
}
function pointKey(e: KeyboardEvent, i: number): void {
  const p = props.points![i]!
  const by = e.shiftKey ? 10 : 1
  const move: Record<string, [number, number]> = {
    ArrowLeft: [-by, 0],
    ArrowRight: [by, 0],
    ArrowUp: [0, -by],
    ArrowDown: [0, by],
  }
  const m = move[e.key]
  if (!m) return
  e.preventDefault()
  emit('point', i, { x: p.x + m[0], y: p.y + m[1] })
}
const STEPS = [
  { key: 'ArrowLeft', says: 'Left' },
  { key: 'ArrowRight', says: 'Right' },
  { key: 'ArrowUp', says: 'Up' },
  { key: 'ArrowDown', says: 'Down' },
  { key: '+', says: 'Larger' },
  { key: '-', says: 'Smaller' },
]
</script>

<template>
  <figure class="grid gap-2">
    <svg
      ref="svg"
      class="sheet block w-full touch-none bg-ink"
      :viewBox="`${frame.x} ${frame.y} ${frame.w} ${frame.h}`"
      role="group"
      :aria-label="says"
      @pointermove="drag"
      @pointerup="drop"
      @pointercancel="drop"
    >
      <image :href="url" :width="width" :height="height" x="-0.5" y="-0.5" preserveAspectRatio="none" />
      <g v-if="bore" fill="none" pointer-events="none">
        <ellipse
          v-if="bore.flat"
          v-bind="lying(bore.flat)"
          stroke="var(--color-sheet)"
          :stroke-width="thin"
          :stroke-dasharray="`${6 * thin} ${5 * thin}`"
          opacity="0.8"
        />
        <ellipse
          v-if="flare"
          v-bind="lying(flare)"
          stroke="var(--color-photo-focus)"
          :stroke-width="1.2 * thin"
          :stroke-dasharray="`${2 * thin} ${3 * thin}`"
        />
        <circle
          v-for="(p, i) in bore.points"
          :key="i"
          :cx="p.x"
          :cy="p.y"
          :r="1.1 * thin"
          :fill="p.isOn ? 'var(--color-photo-edge)' : 'var(--color-photo-out)'"
        />
        <circle
          v-for="(c, i) in chips"
          :key="`c${i}`"
          :cx="c.x"
          :cy="c.y"
          :r="c.r"
          stroke="var(--color-photo-out)"
          :stroke-width="1.6 * thin"
        />
      </g>
      <g
        v-if="ring"
        class="ring-mover"
        tabindex="0"
        role="button"
        aria-label="Ring on the mouth. Arrow keys move it, plus and minus change its size, Enter measures"
        @keydown="ringKey"
      >
        <ellipse
          v-bind="lying(ring)"
          fill="none"
          stroke="var(--color-ink)"
          :stroke-width="4 * thin"
          opacity="0.6"
          class="casing"
        />
        <ellipse
          v-bind="lying(ring)"
          fill="var(--color-white)"
          fill-opacity="0.02"
          stroke="var(--color-photo-edge)"
          :stroke-width="1.8 * thin"
          class="cursor-move"
          @pointerdown.prevent="grab($event, 'middle')"
        />
        <circle
          :cx="ring.x + ring.a * Math.cos(ring.angle)"
          :cy="ring.y + ring.a * Math.sin(ring.angle)"
          :r="7 * thin"
          fill="var(--color-ink)"
          stroke="var(--color-photo-edge)"
          :stroke-width="1.8 * thin"
          class="cursor-nwse-resize"
          @pointerdown.prevent="grab($event, 'size')"
        />
      </g>
      <g v-if="points">
        <line
          v-if="points.length === 2"
          :x1="points[0]!.x"
          :y1="points[0]!.y"
          :x2="points[1]!.x"
          :y2="points[1]!.y"
          stroke="var(--color-photo-edge)"
          :stroke-width="1.4 * thin"
          :stroke-dasharray="`${4 * thin} ${3 * thin}`"
        />
        <g
          v-for="(p, i) in points"
          :key="i"
          tabindex="0"
          role="button"
          class="ring-mover cursor-move"
          :aria-label="`Point ${i + 1} at ${Math.round(p.x)}, ${Math.round(p.y)} pixels. Arrow keys move it`"
          @keydown="pointKey($event, i)"
          @pointerdown.prevent="grab($event, i)"
        >
          <circle
            :cx="p.x"
            :cy="p.y"
            :r="12 * thin"
            fill="var(--color-white)"
            fill-opacity="0.05"
            stroke="var(--color-photo-edge)"
            :stroke-width="1.4 * thin"
          />
          <path
            :d="`M${p.x - 12 * thin} ${p.y}H${p.x + 12 * thin}M${p.x} ${p.y - 12 * thin}V${p.y + 12 * thin}`"
            stroke="var(--color-photo-edge)"
            :stroke-width="thin"
          />
        </g>
      </g>
    </svg>
    <figcaption class="flex flex-wrap items-center gap-2">
      <template v-if="ring">
        <button v-for="s in STEPS" :key="s.key" type="button" class="button" @click="step(s.key, false)">
          {{ s.says }}
        </button>
      </template>
      <button v-if="bore && !points" type="button" class="button plain" :aria-pressed="whole" @click="whole = !whole">
        {{ whole ? 'Show the mouth' : 'Show the whole picture' }}
      </button>
      <span v-if="bore" class="text-xs text-ink2"
        >Blue dots: edge on the ellipse. Red: left out.{{ flare ? ' Dotted yellow: outer end of the worn edge.' : ''
        }}{{ bore.flat ? ' Dashed: outer edge of the flat.' : '' }}</span
      >
    </figcaption>
  </figure>
</template>

<style scoped>
.ring-mover:focus-visible {
  outline: none;
}
.ring-mover:focus-visible ellipse:not(.casing),
.ring-mover:focus-visible circle {
  stroke: var(--color-photo-focus);
  stroke-width: 1%;
}
</style>
