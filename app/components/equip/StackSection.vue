<script setup lang="ts">
/* eslint-disable max-lines -- one drawing with its scale, parts and leaders */
/**
 * A printer as a labelled section: chamber parts on its wall, the hotend of one head, the bed. Each part with its limit
 * as rated and as usable; the weakest part of each zone drawn heavy; the guard band hatched; what is asked as
 * arrowheads. Schematic: positions show the zone, not the millimetre.
 */
import { computed } from 'vue'
import {
  ceilings,
  furthest,
  guardOf,
  usableLimits,
  nozzlePart,
  zoneOf,
  type Line,
  type Part,
  type Printer,
  type Rules,
} from '#core/limits'

const props = withDefaults(
  defineProps<{
    printer: Printer
    headId: number
    rules: Rules
    lines?: readonly Line[]
    changed?: readonly (number | string)[]
  }>(),
  { lines: () => [], changed: () => [] },
)

const ROW = 20,
  LEFT = 228,
  SCALE = 414,
  SCALE_WIDTH = 84,
  WIDTH = 596
/** The hotend is drawn about its own axis; everything on the drawing is this much left of where it was sketched. */
const AXIS = 98,
  WALL = 196
const ORDER = [
  'feed tube',
  'gears',
  'liner',
  'heat break',
  'heater',
  'sensor',
  'block',
  'sock',
  'firmware',
  'nozzle',
  'other hotend part',
]
const BED_ORDER = [
  'sheet',
  'glue line',
  'magnets',
  'bed heater',
  'bed sensor',
  'bed wiring',
  'bed insulation',
  'other bed part',
]
const rank = (order: string[], p: Part) => {
  const i = order.indexOf(p.role)
  return i < 0 ? 99 : i
}
const head = computed(() => props.printer.heads.find(h => h.id === props.headId))
const here = computed(() => props.printer.parts.filter(p => p.headId === null || p.headId === props.headId))
const chamber = computed(() => here.value.filter(p => zoneOf(p.role) === 'chamber'))
const hotend = computed(() =>
  [
    ...here.value.filter(p => zoneOf(p.role) === 'hotend' || p.role === 'gears' || p.role === 'feed tube'),
    ...(head.value?.nozzle ? [nozzlePart(head.value.nozzle)] : []),
  ].sort((a, b) => rank(ORDER, a) - rank(ORDER, b)),
)
const bed = computed(() =>
  here.value.filter(p => zoneOf(p.role) === 'bed').sort((a, b) => rank(BED_ORDER, a) - rank(BED_ORDER, b)),
)
const enclosed = computed(() => here.value.some(p => p.role === 'enclosure'))
const lid = computed(() => here.value.some(p => p.role === 'lid'))
const beside = computed(() => {
  const dryer = furthest(props.printer.dryers)
  return [
    ...here.value.filter(p => ['chamber heater', 'ventilation', 'enclosure'].includes(p.role)),
    ...(dryer ? [dryer] : []),
  ]
})

const chamberTop = 38
const hotTop = computed(() => chamberTop + Math.max(1, chamber.value.length) * ROW + 26)
const hotHeight = computed(() => Math.max(hotend.value.length * ROW, 196))
const bedTop = computed(() => hotTop.value + hotHeight.value + 26)
const height = computed(() => bedTop.value + Math.max(bed.value.length, 4) * ROW + 18)

const hasRole = (role: string) => hotend.value.some(p => p.role === role)
/** The same parts that decide the lanes of the Floor. */
const weakest = computed(
  () =>
    new Set<unknown>(
      ceilings(props.printer, props.rules)
        .filter(c => c.part !== null && (c.headId === null || c.headId === props.headId))
        .map(c => key(c.part!)),
    ),
)
const usable = computed(
  () => new Map(usableLimits(props.printer, props.rules).map(u => [key(u.part), u.usableC] as const)),
)
function key(p: Part): string {
  return `${p.role} ${p.id}`
}
const lineOf = (p: Part) =>
  props.lines.find(l => l.part !== null && key(l.part) === key(p) && l.unit === '°C' && l.asked !== null)

/** Where the leader of a part starts on the drawing. */
function anchor(p: Part): [number, number] {
  const y = hotTop.value
  const at = (dx: number, dy: number): [number, number] => [AXIS + dx, y + dy]
  switch (p.role) {
    case 'feed tube':
      return at(5, 12)
    case 'gears':
      return at(22, 42)
    case 'liner':
      return at(2, 84)
    case 'heat break':
      return at(9, 74)
    case 'heater':
      return at(-15, 128)
    case 'sensor':
      return at(31, 128)
    case 'block':
      return at(43, 112)
    case 'sock':
      return at(49, 148)
    case 'firmware':
      return at(-54, 128)
    case 'nozzle':
      return at(10, 164)
    default:
      return at(43, 122)
  }
}
/** Each zone has its own scale, named above it: margins of a chamber cannot be seen on a hotend's. */
const TOP_C = { hotend: 600, bed: 250, chamber: 150 }
const X = (t: number, zone: keyof typeof TOP_C) => SCALE + Math.min(1, t / TOP_C[zone]) * SCALE_WIDTH
interface Row {
  zone: keyof typeof TOP_C
  part: Part
  y: number
  from: [number, number]
  heavy: boolean
  usable: number | null
  asked: number | null
  tone: string
  fresh: boolean
}
/** What is short is red, what is just met in the colour of a look; the numbers say it too. */
const TONE: Record<Line['status'], string> = {
  ok: 'var(--color-ink)',
  look: 'var(--color-ink)',
  unknown: 'var(--color-ink)',
  just: 'var(--color-look)',
  short: 'var(--color-stop)',
}
function rowOf(p: Part, y: number, from: [number, number]): Row {
  const zone = zoneOf(p.role) ?? 'chamber'
  const l = lineOf(p)
  return {
    zone,
    part: p,
    y,
    from,
    heavy: weakest.value.has(key(p)),
    usable: usable.value.get(key(p)) ?? (p.limitC === null ? null : p.limitC - guardOf(zone, props.rules)),
    asked: l?.asked ?? null,
    tone: TONE[l?.status ?? 'ok'],
    fresh: props.changed.includes(p.id),
  }
}
const spread = (n: number, top: number, all: number, i: number) =>
  top + (n * ROW >= all ? i * ROW : (i * all) / n) + ROW / 2
const BED_FILL: Record<string, string> = {
  'bed insulation': 'url(#stack-cross)',
  'bed heater': 'url(#stack-hatch)',
}
const room = computed(() => {
  if (!enclosed.value) return 'open frame'
  return lid.value ? 'chamber' : 'chamber, lid off'
})
/** Where a row's leader leaves its part: the chamber's square at its side, others at their point. */
const leaderFrom = (r: Row) =>
  zoneOf(r.part.role) === 'chamber' ? `${r.from[0] + 12} ${r.y - 1}` : `${r.from[0]} ${r.from[1]}`
const rows = computed<Row[]>(() => [
  ...chamber.value.map((p, i) =>
    rowOf(p, chamberTop + i * ROW + 14, [p.place === 'outside' ? WALL + 3 : WALL - 14, chamberTop + i * ROW + 14]),
  ),
  ...hotend.value.map((p, i) => rowOf(p, spread(hotend.value.length, hotTop.value, hotHeight.value, i), anchor(p))),
  ...bed.value.map((p, i) => rowOf(p, bedTop.value + i * ROW + 12, [176, bedTop.value + i * 15 + 12])),
])
const name = (p: Part) => (p.name.length > 30 ? `${p.name.slice(0, 29)}…` : p.name)
const number = (v: number) => String(Number(v.toFixed(1)))
const sentence = computed(() =>
  rows.value
    .filter(r => r.heavy)
    .map(r => `${r.part.name} stops at ${r.usable} °C`)
    .join('; '),
)
</script>

<template>
  <figure class="sheet">
    <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Section of the stack, pans sideways">
      <svg
        :viewBox="`0 0 ${WIDTH} ${height}`"
        :width="WIDTH"
        :height="height"
        class="block max-w-none"
        role="img"
        :aria-label="`Section of ${printer.name}, ${head?.name ?? ''}. Weakest of each zone: ${sentence}.`"
      >
        <defs>
          <pattern id="stack-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <path d="M0 0V6" stroke="var(--color-ink)" stroke-width="0.9" />
          </pattern>
          <pattern id="stack-cross" width="5" height="5" patternUnits="userSpaceOnUse">
            <path d="M0 5L5 0M0 0L5 5" stroke="var(--color-slate)" stroke-width="0.7" />
          </pattern>
        </defs>
        <!-- scale of the lanes -->
        <g class="small">
          <text :x="LEFT" y="16">part</text>
          <text :x="WIDTH - 6" y="16" text-anchor="end">rated → usable</text>
        </g>
        <path :d="`M${LEFT} 21H${WIDTH - 6}`" stroke="var(--color-ink)" />
        <g
          v-for="z in [
            ['chamber', chamberTop - 2, chamber.length],
            ['hotend', hotTop - 8, hotend.length],
            ['bed', bedTop - 7, bed.length],
          ] as const"
          :key="z[0]"
          class="small"
        >
          <template v-if="z[2] > 0">
            <text :x="SCALE" :y="z[1]">0</text>
            <text :x="SCALE + SCALE_WIDTH" :y="z[1]" text-anchor="end">{{ TOP_C[z[0]] }} °C</text>
          </template>
        </g>
        <!-- enclosure -->
        <rect
          v-if="enclosed"
          x="6"
          y="26"
          :width="WALL - 6"
          :height="height - 38"
          fill="none"
          stroke="var(--color-ink)"
          stroke-width="2"
        />
        <path v-if="enclosed && !lid" :d="`M10 26H${WALL - 4}`" stroke="var(--color-sheet)" stroke-width="5" />
        <rect
          v-if="!enclosed"
          x="6"
          y="26"
          :width="WALL - 6"
          :height="height - 38"
          fill="none"
          stroke="var(--color-ink2)"
          stroke-dasharray="5 5"
        />
        <text x="14" y="43" class="small">{{ room }}</text>
        <!-- hotend, drawn about its axis at 151 -->
        <g :transform="`translate(${AXIS - 151} ${hotTop})`" stroke="var(--color-ink)" fill="var(--color-white)">
          <path v-if="hasRole('feed tube')" d="M146 0V30M156 0V30" stroke-width="1.4" />
          <path :d="head?.nozzle ? 'M151 0V178' : 'M151 0V106'" stroke="var(--color-bronze)" stroke-width="2" />
          <g v-if="hasRole('gears')">
            <circle cx="138" cy="42" r="10" stroke-dasharray="3 1.6" />
            <circle cx="164" cy="42" r="10" stroke-dasharray="3 1.6" />
          </g>
          <rect
            v-if="hasRole('heat break') || hasRole('other hotend part')"
            x="142"
            y="60"
            width="18"
            height="46"
            fill="url(#stack-hatch)"
          />
          <rect x="147" y="58" width="8" height="50" stroke="none" />
          <rect v-if="hasRole('liner')" x="147" y="56" width="8" height="94" fill="url(#stack-cross)" />
          <rect
            v-if="hasRole('sock')"
            x="102"
            y="102"
            width="98"
            height="54"
            fill="none"
            stroke-dasharray="4 2"
            stroke-width="1.4"
          />
          <path
            v-if="hasRole('block') || hasRole('other hotend part')"
            d="M108 106H194V150H108z"
            fill="url(#stack-hatch)"
          />
          <rect
            x="147"
            y="106"
            width="8"
            height="44"
            :fill="hasRole('liner') ? 'url(#stack-cross)' : 'var(--color-white)'"
            stroke-width="0.8"
          />
          <circle v-if="hasRole('heater')" cx="126" cy="128" r="10" />
          <path v-if="hasRole('heater')" d="M119 128h14M126 121v14" stroke-width="1" />
          <circle v-if="hasRole('sensor')" cx="177" cy="128" r="5" />
          <path v-if="head?.nozzle" d="M138 150H164V160L156 176H146L138 160z" fill="url(#stack-hatch)" />
          <rect v-if="head?.nozzle" x="149" y="150" width="4" height="26" stroke="none" />
          <g v-if="hasRole('firmware')">
            <rect x="64" y="117" width="33" height="23" stroke-dasharray="2 2" />
            <path d="M70 125h15M70 132h21" stroke-width="1" />
          </g>
          <text
            v-if="!head?.nozzle"
            x="151"
            y="172"
            text-anchor="middle"
            class="small"
            fill="var(--color-look)"
            stroke="none"
          >
            no nozzle
          </text>
        </g>
        <!-- bed -->
        <g v-for="(p, i) in bed" :key="key(p)">
          <rect
            x="20"
            :y="bedTop + i * 15 + 5"
            width="156"
            height="13"
            :fill="BED_FILL[p.role] ?? 'var(--color-white)'"
            stroke="var(--color-ink)"
          />
        </g>
        <!-- parts with their leaders and lanes -->
        <g v-for="r in rows" :key="key(r.part)">
          <rect
            v-if="zoneOf(r.part.role) === 'chamber'"
            :x="r.from[0]"
            :y="r.y - 7"
            width="12"
            height="12"
            fill="url(#stack-hatch)"
            stroke="var(--color-ink)"
            :stroke-width="r.heavy ? 3 : 1"
          />
          <circle v-else :cx="r.from[0]" :cy="r.from[1]" r="2" fill="var(--color-ink)" />
          <path
            :d="`M${leaderFrom(r)}L${LEFT - 14} ${r.y - 1}H${LEFT - 3}`"
            fill="none"
            stroke="var(--color-ink)"
            :stroke-width="r.heavy ? 2.6 : 0.8"
          />
          <text :x="LEFT" :y="r.y + 3" class="part" :class="{ heavy: r.heavy }">
            {{ name(r.part) }}
            <title>{{ r.part.name }}: {{ r.part.basis }}{{ r.part.note ? `, ${r.part.note}` : '' }}</title>
          </text>
          <path
            v-if="r.fresh"
            :d="`M${LEFT} ${r.y + 7}H${SCALE - 8}`"
            stroke="var(--color-blue)"
            stroke-width="2"
            stroke-dasharray="4 3"
          />
          <template v-if="r.usable !== null">
            <path :d="`M${SCALE} ${r.y + 4}H${SCALE + SCALE_WIDTH}`" stroke="var(--color-rule)" />
            <rect
              :x="SCALE"
              :y="r.y - 5"
              :width="X(r.usable, r.zone) - SCALE"
              height="8"
              fill="var(--color-white)"
              stroke="var(--color-ink)"
              stroke-width="0.8"
            />
            <rect
              :x="X(r.usable, r.zone)"
              :y="r.y - 5"
              :width="Math.max(2, X(r.part.limitC!, r.zone) - X(r.usable, r.zone))"
              height="8"
              fill="url(#stack-hatch)"
              stroke="var(--color-ink)"
              stroke-width="0.8"
            />
            <path
              :d="`M${X(r.usable, r.zone)} ${r.y - 8}v14`"
              stroke="var(--color-ink)"
              :stroke-width="r.heavy ? 3.4 : 1.4"
            />
            <path v-if="r.asked !== null" :d="`M${X(r.asked, r.zone) - 5} ${r.y - 8}h10l-5 7z`" :fill="r.tone" />
            <text :x="WIDTH - 6" :y="r.y + 3" text-anchor="end" class="part" :class="{ heavy: r.heavy }" :fill="r.tone">
              {{ number(r.part.limitC!) }} → {{ number(r.usable) }}
            </text>
          </template>
          <text
            v-else-if="zoneOf(r.part.role) !== null && r.part.kind !== 'no magnets, sheet clipped'"
            :x="WIDTH - 6"
            :y="r.y + 3"
            text-anchor="end"
            class="part"
            fill="var(--color-look)"
          >
            limit not known
          </text>
        </g>
      </svg>
    </div>
    <figcaption class="border-t border-rule px-3 py-1 text-xs text-ink2">
      Heavy: the weakest of its zone.{{ changed.length ? ' Underlined: being tried.' : '' }} Hatched: guard band ({{
        rules.guardHotendC
      }}, {{ rules.guardBedC }}, {{ rules.guardChamberC }} °C for hotend, bed, chamber{{
        printer.sensors ? '; less where a sensor is checked. True temperatures: the Floor shows what is set' : ''
      }}). ▾ asked of this part, with the air at its place. Schematic.
      <span v-if="beside.length">
        Also:
        {{ beside.map(p => p.name + (p.details.reachC ? ` (reaches ${p.details.reachC} °C)` : '')).join('; ') }}.</span
      >
    </figcaption>
  </figure>
</template>

<style scoped>
.small {
  font-size: 12px;
  fill: var(--color-ink2);
  font-stretch: 86%;
}
.part {
  font-size: 13px;
  font-stretch: 82%;
}
.heavy {
  font-weight: 750;
}
</style>
