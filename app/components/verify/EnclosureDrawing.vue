<script setup lang="ts">
/**
 * An enclosure from the front, to scale, with its walls as thick as they are built; heat as arrows, each as wide as it
 * carries. In from bed, nozzle and heater; out through walls, gaps and vent.
 */
import { computed } from 'vue'
import { WALL_MATERIALS, type ChamberSize, type EnclosurePlan, type SteadyAir } from '#core/chamber'

const props = defineProps<{ size: ChamberSize; plan: EnclosurePlan; state: SteadyAir; label: string }>()

const [BOX_W, BOX_H, LEFT, TOP] = [250, 250, 190, 96]
const scale = computed(() => Math.min(BOX_W / props.size.widthMm, BOX_H / props.size.heightMm))
const w = computed(() => props.size.widthMm * scale.value)
const h = computed(() => props.size.heightMm * scale.value)
const W = computed(() => LEFT * 2 + w.value)
const H = computed(() => TOP + h.value + 96)
/** The thickest arrow, px, carries the most. */
const MOST_PX = 34
const most = computed(() =>
  Math.max(
    1,
    props.state.bedW,
    props.state.heaterW,
    ...props.state.losses.walls.map(x => x.w),
    props.state.losses.gapsW,
    props.state.losses.ventW,
  ),
)
const px = (watts: number) => Math.max(1, (watts / most.value) * MOST_PX)

const thin = new Set(['acrylic', 'polycarbonate', 'glass', 'steel sheet, painted', 'aluminium sheet, bare'])
/** The layers of one wall from the inside out, px; a sheet is drawn at least as a line. */
function layersOf(index: number | undefined): { from: number; to: number; dense: boolean }[] {
  let at = 0
  return (index === undefined ? [] : props.plan.walls[index]!.layers).map(l => {
    const from = at
    at += Math.max(1.5, l.mm * scale.value)
    return { from, to: at, dense: thin.has(l.material) || WALL_MATERIALS[l.material].conductivityWMK > 1 }
  })
}
const sides = computed(() => props.plan.walls.flatMap((x, i) => (x.face === 'side' ? [i] : [])))
const named = (face: 'top' | 'bottom') => props.plan.walls.findIndex(x => x.face === face)
const drawnSide = (name: string, otherwise: number) => {
  const at = props.plan.walls.findIndex(x => x.name.trim().toLowerCase() === name)
  return at >= 0 ? at : sides.value[otherwise]
}
const bands = computed(() => {
  const [l, r] = [layersOf(drawnSide('left', 0)), layersOf(drawnSide('right', 1))]
  const [t, b] = [
    layersOf(named('top') < 0 ? undefined : named('top')),
    layersOf(named('bottom') < 0 ? undefined : named('bottom')),
  ]
  const [x0, y0, x1, y1] = [LEFT, TOP, LEFT + w.value, TOP + h.value]
  const rect = (x: number, y: number, rw: number, rh: number, dense: boolean) => ({ x, y, w: rw, h: rh, dense })
  return [
    ...l.map(k => rect(x0 - k.to, y0, k.to - k.from, h.value, k.dense)),
    ...r.map(k => rect(x1 + k.from, y0, k.to - k.from, h.value, k.dense)),
    ...t.map(k => rect(x0, y0 - k.to, w.value, k.to - k.from, k.dense)),
    ...b.map(k => rect(x0, y1 + k.from, w.value, k.to - k.from, k.dense)),
  ]
})
const thick = (index: number | undefined) => layersOf(index).at(-1)?.to ?? 0

interface Arrow {
  name: string
  w: number
  from: [number, number]
  way: [number, number]
  text: [number, number]
  anchor: 'start' | 'middle' | 'end'
}
const LONG = 46
/** Out of the sides, one under the other, left and right in turn; top, floor, gaps and vent where they are. */
const arrows = computed<Arrow[]>(() => {
  const { losses } = props.state
  const out: Arrow[] = []
  const [x0, y0, x1, y1] = [LEFT, TOP, LEFT + w.value, TOP + h.value]
  const left = sides.value.filter((_, i) => i % 2 === 0)
  const right = sides.value.filter((_, i) => i % 2 === 1)
  const spread = (of: readonly number[], toRight: boolean) => {
    of.forEach((index, k) => {
      const y = y0 + ((k + 0.7) / (of.length + 0.4)) * h.value
      const edge = thick(drawnSide(toRight ? 'right' : 'left', toRight ? 1 : 0)) + 3
      const x = toRight ? x1 + edge : x0 - edge
      const dx = toRight ? LONG : -LONG
      const wall = losses.walls[index]!
      out.push({
        name: wall.name,
        w: wall.w,
        from: [x, y],
        way: [dx, 0],
        text: [x + dx + (toRight ? 16 : -16), y + 4],
        anchor: toRight ? 'start' : 'end',
      })
    })
  }
  spread(left, false)
  spread(right, true)
  for (const [face, y, dy] of [
    ['top', y0 - thick(named('top')) - 3, -LONG],
    ['bottom', y1 + thick(named('bottom')) + 3, LONG],
  ] as const) {
    const wall = losses.walls[named(face)]
    if (wall)
      out.push({
        name: wall.name,
        w: wall.w,
        from: [x0 + w.value * 0.4, y],
        way: [0, dy],
        text: [x0 + w.value * 0.4 + MOST_PX / 2 + 8, y + dy],
        anchor: 'start',
      })
  }
  const roof = y0 - thick(named('top')) - 3
  if (losses.gapsW > 0)
    out.push({
      name: 'gaps',
      w: losses.gapsW,
      from: [x0 + 10, roof],
      way: [-LONG * 0.6, -LONG * 0.8],
      text: [x0 - LONG * 0.6 - 8, roof - LONG * 0.8],
      anchor: 'end',
    })
  if (losses.ventW > 0)
    out.push({
      name: 'vent',
      w: losses.ventW,
      from: [x1 - 10, roof],
      way: [LONG * 0.6, -LONG * 0.8],
      text: [x1 + LONG * 0.6 + 14, roof - LONG * 0.8],
      anchor: 'start',
    })
  const floor = y1 - 10
  const inside: [string, number, number][] = [
    ['bed', props.state.bedW, 0.3],
    ['nozzle', props.state.nozzleW, 0.55],
    ['heater', props.state.heaterW, 0.8],
  ]
  for (const [name, watts, at] of inside)
    if (watts > 0)
      out.push({
        name,
        w: watts,
        from: [x0 + w.value * at, name === 'bed' ? floor : y0 + h.value * 0.62],
        way: [0, -LONG],
        text: [x0 + w.value * at, (name === 'bed' ? floor : y0 + h.value * 0.62) - LONG - 18],
        anchor: 'middle',
      })
  return out
})
/** A shaft as wide as it carries, and a head a little wider. */
function shape({ from: [x, y], way: [dx, dy], w: watts }: Arrow): string {
  const half = px(watts) / 2
  const long = Math.hypot(dx, dy)
  const [ux, uy] = [dx / long, dy / long]
  const at = (along: number, across: number) => `${x + ux * along - uy * across} ${y + uy * along + ux * across}`
  const head = half + 5
  const point = [at(long, -head), at(long + 10, 0), at(long, head)]
  return `M${[at(0, -half), at(long, -half), ...point, at(long, half), at(0, half)].join('L')}Z`
}
const watts = (v: number) => `${v >= 10 ? v.toFixed(0) : v.toFixed(1)} W`
const incoming = new Set(['bed', 'nozzle', 'heater'])
</script>

<template>
  <div class="overflow-x-auto" tabindex="0" role="group" :aria-label="label">
    <svg :viewBox="`0 0 ${W} ${H}`" class="block w-full max-w-[640px] min-w-[520px]" role="img" :aria-label="label">
      <pattern id="lining" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V6" stroke="var(--color-ink2)" stroke-width="1" />
      </pattern>
      <rect :x="LEFT" :y="TOP" :width="w" :height="h" fill="var(--color-sheet)" stroke="var(--color-ink)" />
      <rect
        v-for="(b, i) in bands"
        :key="i"
        :x="b.x"
        :y="b.y"
        :width="b.w"
        :height="b.h"
        :fill="b.dense ? 'var(--color-ink2)' : 'url(#lining)'"
        stroke="var(--color-ink)"
        stroke-width="0.8"
      />
      <path :d="`M${LEFT + w * 0.1} ${TOP + h - 6}H${LEFT + w * 0.9}`" stroke="var(--color-ink)" stroke-width="6" />
      <text
        :x="LEFT + w / 2"
        :y="TOP + 26"
        text-anchor="middle"
        font-size="18"
        font-weight="720"
        fill="var(--color-ink)"
      >
        {{ state.airC.toFixed(0) }} °C
      </text>
      <text :x="LEFT + w / 2" :y="TOP + 42" text-anchor="middle" font-size="12.5" fill="var(--color-ink2)">
        mean air
      </text>
      <g v-for="a in arrows" :key="a.name">
        <path
          :d="shape(a)"
          :fill="incoming.has(a.name) ? 'var(--color-bronze)' : 'var(--color-slate)'"
          stroke="var(--color-ink)"
          stroke-width="0.8"
        />
        <text :x="a.text[0]" :y="a.text[1]" :text-anchor="a.anchor" font-size="13" fill="var(--color-ink)">
          {{ a.name }}
          <tspan font-weight="700">{{ watts(a.w) }}</tspan>
        </text>
      </g>
    </svg>
  </div>
</template>
