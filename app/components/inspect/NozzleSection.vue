<script setup lang="ts">
/**
 * Half-section to scale from the type's stored geometry: left as fitted, right worn, wear enlarged by a stated factor.
 * Only bore and tip are data; the profile between is schematic, and says so.
 */
import { computed } from 'vue'
import type { NozzleMaterial, Range } from '#core/wear'
import { HATCH } from '~/components/ui/hatch'

const props = defineProps<{
  material: NozzleMaterial
  nominalMm: number
  lengthMm: number
  coneDeg: number
  tipFlatMm: number
  landMm: number
  inletMm: number
  insertMm: number | null
  fittedMm: number
  bore: Range
  tipLossMm: number | null
}>()

const W = 416,
  H = 440,
  CX = 200,
  TIP = 332,
  TOPY = 34
const BODY_R = 3 // mm; the thread above is drawn plain
const scale = computed(() => Math.min(46, 112 / (BODY_R * 0.82)))
const s = (mm: number) => mm * scale.value
const growth = computed(() => Math.max(0, props.bore.median - props.fittedMm))
/** The largest round factor that keeps the drawing honest to look at. */
const factor = computed(
  () =>
    [20, 10, 8, 5, 4, 2, 1].find(
      f => (growth.value / 2) * f < (0.4 * (props.tipFlatMm - props.fittedMm)) / 2 && (props.tipLossMm ?? 0) * f < 0.3,
    ) ?? 1,
)

function profile(side: 1 | -1, boreMm: number, tipLoss: number): string {
  const r = boreMm / 2
  const tan = Math.tan(((props.coneDeg / 2) * Math.PI) / 180)
  const flat = props.tipFlatMm / 2
  const x = (mm: number) => CX + side * s(mm)
  const y = (mm: number) => TIP - s(mm)
  const shoulder = Math.min((BODY_R - flat) / tan, (TIP - TOPY) / scale.value - 0.6)
  const inlet = props.inletMm / 2
  const coneTop = props.landMm + (inlet - r)
  const top = TOPY
  const round = tipLoss > 0 ? Math.min(0.25, tipLoss) : 0
  const worn = tipLoss
  return [
    `M${x(BODY_R)} ${top}`,
    `H${x(inlet)}`,
    `V${y(coneTop)}`,
    `L${x(r)} ${y(props.landMm)}`,
    round > 0 ? `V${y(worn + round)}Q${x(r)} ${y(worn)} ${x(r + round)} ${y(worn)}` : `V${y(0)}`,
    round > 0
      ? `H${x(flat + worn * tan - round)}Q${x(flat + worn * tan)} ${y(worn)} ` +
        `${x(flat + worn * tan + round * 0.4)} ${y(worn + round)}`
      : `H${x(flat)}`,
    `L${x(Math.min(BODY_R, flat + shoulder * tan))} ${y(shoulder)}`,
    `V${top}`,
    'Z',
  ].join('')
}
const fitted = computed(() => profile(-1, props.fittedMm, 0))
const now = computed(() =>
  profile(1, props.fittedMm + growth.value * factor.value, (props.tipLossMm ?? 0) * factor.value),
)
const ghost = computed(() => profile(1, props.fittedMm, 0))
const insert = computed(() =>
  props.insertMm === null ? null : { half: s(props.insertMm / 2), height: s(props.landMm + 0.5) },
)
const hatch = computed(() => HATCH[props.insertMm === null ? props.material : 'brass'])
const insertHatch = computed(() => HATCH[props.material])
const u = computed(() => (props.bore.high80 - props.bore.low80) / 2)
const boreX = computed(() => s(props.fittedMm / 2))
const words = computed(() => {
  const tip = props.tipLossMm === null ? '' : `, tip loss ${props.tipLossMm.toFixed(2)} mm`
  return `Half-section: bore ${props.bore.median.toFixed(3)} mm now, ${props.fittedMm.toFixed(3)} as fitted${tip}`
})
/** Extension and dimension lines of the bore as fitted. */
const boreLines = computed(() => {
  const [left, right] = [CX - boreX.value, CX + boreX.value]
  const down = `${TIP + 6}V${TIP + 36}`
  return `M${left} ${down}M${right} ${down}M${left - 26} ${TIP + 30}H${left}M${right} ${TIP + 30}H${right + 26}`
})
/** The same of the tip's loss. */
const tipLines = computed(() => {
  const worn = TIP - s((props.tipLossMm ?? 0) * factor.value)
  const [flat, side] = [CX + s(props.tipFlatMm / 2), CX + s(BODY_R)]
  return (
    `M${flat + 6} ${TIP}H${side + 42}M${flat + 12} ${worn}H${side + 42}` +
    `M${side + 34} ${worn - 22}V${worn}M${side + 34} ${TIP}V${TIP + 20}`
  )
})
</script>

<template>
  <figure class="mx-auto max-w-[440px] print:max-w-[360px]">
    <svg :viewBox="`0 0 ${W} ${H}`" class="block w-full" role="img" :aria-label="words">
      <defs>
        <pattern
          id="body-hatch"
          :width="hatch.size"
          :height="hatch.size"
          patternUnits="userSpaceOnUse"
          :patternTransform="`rotate(${hatch.angle})`"
        >
          <path :d="hatch.path" stroke="var(--color-ink2)" :stroke-width="hatch.width" />
        </pattern>
        <pattern
          id="insert-hatch"
          :width="insertHatch.size"
          :height="insertHatch.size"
          patternUnits="userSpaceOnUse"
          :patternTransform="`rotate(${insertHatch.angle})`"
        >
          <rect :width="insertHatch.size" :height="insertHatch.size" fill="var(--color-sheet)" />
          <path :d="insertHatch.path" stroke="var(--color-ink)" :stroke-width="insertHatch.width" />
        </pattern>
        <clipPath id="left-clip"><path :d="fitted" /></clipPath>
        <clipPath id="right-clip"><path :d="now" /></clipPath>
      </defs>
      <path :d="fitted" fill="url(#body-hatch)" stroke="var(--color-ink)" stroke-width="2" />
      <path :d="now" fill="url(#body-hatch)" stroke="var(--color-ink)" stroke-width="2" />
      <template v-if="insert">
        <rect
          :x="CX - insert.half"
          :y="TIP - insert.height"
          :width="insert.half"
          :height="insert.height"
          fill="url(#insert-hatch)"
          stroke="var(--color-ink)"
          clip-path="url(#left-clip)"
        />
        <rect
          :x="CX"
          :y="TIP - insert.height"
          :width="insert.half"
          :height="insert.height"
          fill="url(#insert-hatch)"
          stroke="var(--color-ink)"
          clip-path="url(#right-clip)"
        />
      </template>
      <path :d="ghost" fill="none" stroke="var(--color-bronze)" stroke-width="1.3" stroke-dasharray="9 3 2 3" />
      <path
        :d="`M${CX} ${TOPY - 16}V${TIP + 28}`"
        stroke="var(--color-ink)"
        stroke-width="0.8"
        stroke-dasharray="16 4 3 4"
      />
      <path
        :d="`M${CX - s(BODY_R) - 6} ${TOPY}l10 -5 6 10 8 -7`"
        fill="none"
        stroke="var(--color-ink)"
        stroke-width="1"
      />
      <path
        :d="`M${CX + s(BODY_R) + 6} ${TOPY}l-10 -5 -6 10 -8 -7`"
        fill="none"
        stroke="var(--color-ink)"
        stroke-width="1"
      />
      <text :x="CX - s(BODY_R)" y="18" class="small">as fitted</text>
      <text :x="CX + s(BODY_R)" y="18" text-anchor="end" class="small">now, wear ×{{ factor }}</text>
      <!-- bore as fitted -->
      <path :d="boreLines" stroke="var(--color-ink)" fill="none" />
      <path :d="`M${CX - boreX} ${TIP + 30}l-8-3v6zM${CX + boreX} ${TIP + 30}l8-3v6z`" fill="var(--color-ink)" />
      <text :x="CX + boreX + 32" :y="TIP + 34" class="dim">⌀{{ fittedMm.toFixed(3) }} as fitted</text>
      <!-- tip -->
      <template v-if="tipLossMm !== null">
        <path :d="tipLines" stroke="var(--color-ink)" fill="none" />
        <path
          :d="`M${CX + s(BODY_R) + 34} ${TIP - s(tipLossMm * factor)}l-3-8h6zM${CX + s(BODY_R) + 34} ${TIP}l-3 8h6z`"
          fill="var(--color-ink)"
        />
        <text :x="W - 4" :y="TIP - s(tipLossMm * factor) - 28" text-anchor="end" class="dim">
          tip −{{ tipLossMm.toFixed(2) }}
        </text>
      </template>
      <text :x="CX" :y="TIP + 78" text-anchor="middle" class="big">
        ⌀{{ bore.median.toFixed(3) }}
        <tspan class="unit">± {{ u.toFixed(3) }} mm now</tspan>
      </text>
      <text :x="CX" :y="TIP + 100" text-anchor="middle" class="small">
        nominal {{ nominalMm }} mm · bore and tip from gauges, profile schematic
      </text>
    </svg>
  </figure>
</template>

<style scoped>
.small {
  font-size: 12.5px;
  fill: var(--color-ink2);
}
.dim {
  font-size: 13.5px;
  font-weight: 650;
  fill: var(--color-ink);
}
.big {
  font-size: 26px;
  font-weight: 750;
  font-stretch: 88%;
  fill: var(--color-ink);
}
.unit {
  font-size: 15px;
  font-weight: 500;
  fill: var(--color-ink2);
}
</style>
