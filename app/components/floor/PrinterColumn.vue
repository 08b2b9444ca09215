<script setup lang="ts">
/* eslint-disable max-lines -- one drawing, wide and compact */
/**
 * One printer on the heat wall: lanes for each nozzle, the bed and the chamber on the shared axis. Hatched = not
 * allowed, heavy bar = the part that decides, arrowheads = what the last job asked, fill = what the printer reports
 * now.
 */
import type { ZoneLimit } from '#shared/answers/printers'
import { askedAgainst } from '#core/schedule'
import { celsiusDown, zoneWord, kg, kgBetween } from '#core/words'
import type { FloorPrinter } from '#shared/answers/bench'
import type { Live } from '#shared/answers/live'
import { computed } from 'vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import LifeBar from '~/components/ui/LifeBar.vue'
import { when } from '#shared/time'
import { limitNote } from '~/words/limits'
import { temper } from '~/words/numbers'
import {
  columnWidth,
  hasChamber,
  lanesIn,
  laneX,
  NARROW,
  TOP,
  WALL_HEIGHT,
  y,
  type Lanes,
} from '~/components/floor/axis'

const props = defineProps<{
  printer: FloorPrinter
  zone: string
  lanes: Lanes
  /** How much wider it is than it must be. */
  spread: number
  /** What it reports now; and since when it has been silent. */
  live: Live | null
  lost: string | null
  /** Its soak and its spool, one line each. */
  notes: readonly { text: string; look: boolean; to: string }[]
}>()
defineEmits<{ fit: [headId: number] }>()

const drawn = computed(() => {
  const p = props.printer
  const of = (
    z: ZoneLimit['zone'],
    headId: number | null,
    label: string,
    asked: number | null,
    nowC: number | null,
  ) => {
    const limit = p.limits.find(l => l.zone === z && l.headId === headId && !l.heaterOff)
    const grade = askedAgainst(p, z, headId, asked)?.grade ?? 'ok'
    return {
      label,
      asked,
      limit: limit ? Math.floor(limit.limitC + 1e-9) : null,
      part: limit?.part ?? 'not entered',
      over: grade === 'short',
      just: grade === 'just',
      nowC,
    }
  }
  return [
    ...p.heads.map((h, i) =>
      of(
        'hotend',
        h.id,
        p.heads.length > 1 ? h.name : zoneWord('hotend'),
        h.askedC,
        props.live?.heads[i]?.nowC ?? null,
      ),
    ),
    of('bed', null, 'bed', p.last?.bedC ?? null, props.live?.bed?.nowC ?? null),
    ...(hasChamber(p)
      ? [of('chamber', null, 'chamber', p.last?.chamberC ?? null, props.live?.chamber?.nowC ?? null)]
      : []),
  ]
})
const compact = computed(() => props.lanes === NARROW)
const width = computed(() => columnWidth(props.printer, props.lanes, props.spread))
const size = computed(() => lanesIn(props.printer, props.lanes, width.value))
/** Left edge, middle and width of a lane's bar. */
const x = (i: number) => laneX(i, size.value)
const mid = (i: number) => x(i) + size.value.bar / 2
const bar = computed(() => size.value.bar)
const words = computed(() => {
  if (props.printer.verdict === 'stop') return 'Stopped'
  return props.printer.verdict === 'look' ? 'Look' : 'Fine'
})
function gaugeIn(leftKg: number | null): string {
  if (leftKg === null) return 'gauge: after the first filled job'
  return leftKg < 0.0005 ? 'gauge: due now' : `gauge in ${kg(leftKg)}`
}
/** A part's name on two short lines. */
function split(part: string): string[] {
  const w = part.split(' ')
  const lines = w.length === 1 ? w : [w[0]!, w.slice(1).join(' ')]
  const most = Math.floor(size.value.step / 4.4)
  return lines.map(l => (l.length > most ? `${l.slice(0, most - 1)}…` : l))
}
const sentence = computed(() =>
  drawn.value
    .map(l => {
      const limit = l.limit === null ? 'no limit entered' : `limit ${l.limit} °C, ${l.part}`
      const asked =
        l.asked === null
          ? ''
          : `; last job asked ${l.asked} °C${l.over ? ', too much' : ''}${l.just ? ', no room to spare' : ''}`
      return `${l.label}: ${limit}${asked}${l.nowC === null ? '' : `; now ${Math.round(l.nowC)} °C`}`
    })
    .join('. '),
)
</script>

<template>
  <section
    class="flex shrink-0 flex-col border-r border-rule"
    :class="
      printer.verdict === 'stop'
        ? 'relative z-10 outline-4 -outline-offset-2 outline-stop print:border-2 print:border-stop print:outline-none'
        : ''
    "
    :style="{ width: `${width}px` }"
    :aria-label="printer.name"
  >
    <header class="h-[62px] px-2 pt-2" :class="printer.verdict === 'stop' ? 'bg-stop text-white' : ''">
      <div class="flex items-center gap-1">
        <h2 class="min-w-0 flex-1 truncate text-[17px]! leading-tight" :title="printer.name">{{ printer.name }}</h2>
        <span class="flex items-center gap-1 text-xs font-bold" :class="printer.verdict === 'look' ? 'text-look' : ''"
          ><VerdictMark :verdict="printer.verdict" :inverse="printer.verdict === 'stop'" /><span
            :class="compact ? 'sr-only' : ''"
            >{{ words }}</span
          ></span
        >
      </div>
      <p
        class="truncate text-xs [font-stretch:86%]"
        :class="printer.verdict === 'stop' ? 'text-white' : 'text-ink2'"
        :title="printer.kind"
      >
        {{ printer.kind }}
      </p>
    </header>
    <svg :width="width" :height="WALL_HEIGHT" role="img" :aria-label="sentence" class="block">
      <g v-for="(l, i) in drawn" :key="i">
        <rect :x="x(i)" :y="TOP" :width="bar" :height="y(l.limit ?? 0) - TOP" fill="url(#wall-hatch)" />
        <rect
          v-if="l.limit !== null"
          :x="x(i)"
          :y="y(l.limit)"
          :width="bar"
          :height="y(0) - y(l.limit)"
          fill="#fff"
          stroke="var(--color-ink)"
        />
        <template v-if="l.nowC !== null">
          <rect
            :x="x(i) + 3"
            :y="y(l.nowC)"
            :width="bar - 6"
            :height="y(0) - y(l.nowC)"
            :fill="temper(l.nowC)"
            stroke="var(--color-ink)"
            stroke-width="0.8"
          />
          <text :x="mid(i)" :y="y(0) - 5" text-anchor="middle" class="lane-now">{{ Math.round(l.nowC) }}</text>
        </template>
        <template v-if="l.limit !== null">
          <path :d="`M${x(i) - 4} ${y(l.limit)}h${bar + 8}`" stroke="var(--color-ink)" stroke-width="3" />
          <template v-if="!l.over">
            <rect
              :x="mid(i) - size.step / 2"
              :y="y(l.limit) - 17 - 12 * split(l.part).length"
              :width="size.step"
              :height="14 + 12 * split(l.part).length"
              fill="var(--color-sheet)"
            />
            <text
              v-for="(t, k) in split(l.part)"
              :key="k"
              :x="mid(i)"
              :y="y(l.limit) - 18 - 12 * (split(l.part).length - 1 - k)"
              text-anchor="middle"
              class="lane-part"
            >
              {{ t }}
            </text>
            <text :x="mid(i)" :y="y(l.limit) - 5" text-anchor="middle" class="lane-limit">{{ l.limit }}</text>
          </template>
          <template v-else>
            <text :x="mid(i)" :y="y(l.limit) + 15" text-anchor="middle" class="lane-limit">{{ l.limit }}</text>
            <text
              v-for="(t, k) in split(l.part)"
              :key="k"
              :x="mid(i)"
              :y="y(l.limit) + 28 + 12 * k"
              text-anchor="middle"
              class="lane-part"
            >
              {{ t }}
            </text>
          </template>
        </template>
        <template v-if="l.asked !== null">
          <template v-if="l.over">
            <rect
              :x="x(i)"
              :y="y(l.asked)"
              :width="bar"
              :height="y(l.limit!) - y(l.asked)"
              fill="var(--color-stop)"
              fill-opacity="0.16"
            />
            <path :d="`M${x(i) - 3} ${y(l.asked)}h${bar + 6}`" stroke="var(--color-stop)" stroke-width="3" />
            <path
              :d="`M${x(i) - 8} ${y(l.asked)}l9-7v14zM${x(i) + bar + 8} ${y(l.asked)}l-9-7v14z`"
              fill="var(--color-stop)"
            />
            <rect :x="mid(i) - 14" :y="y(l.asked) - 22" width="28" height="14" fill="var(--color-sheet)" />
            <text :x="mid(i)" :y="y(l.asked) - 10" text-anchor="middle" class="lane-limit" fill="var(--color-stop)">
              {{ l.asked }}
            </text>
          </template>
          <path
            v-else
            :d="`M${x(i) - 6} ${y(l.asked) - 6}l7 6l-7 6zM${x(i) + bar + 6} ${y(l.asked) - 6}l-7 6l7 6z`"
            :fill="temper(l.asked)"
            stroke="var(--color-ink)"
            stroke-width="1"
          />
        </template>
        <text :x="mid(i)" :y="y(0) + 15" text-anchor="middle" class="lane-name">
          {{ compact && l.label === 'chamber' ? 'chamb.' : l.label }}
        </text>
      </g>
    </svg>
    <div class="flex flex-1 flex-col gap-1 px-2 pb-2">
      <div class="min-h-[38px]">
        <template v-if="printer.last">
          <p class="truncate text-[13.5px] font-[650]" :title="`${printer.last.name}, ${printer.last.material}`">
            {{ printer.last.name }}
          </p>
          <p
            class="text-xs [font-stretch:80%]"
            :class="printer.last.outcome === 'failed' ? 'font-bold text-stop' : 'text-ink2'"
          >
            {{ printer.last.outcome === 'failed' ? `failed ${printer.last.stopped ?? ''}` : printer.last.material }} ·
            {{ when(printer.last.endedAt, zone) }}
          </p>
        </template>
        <p v-else class="text-xs text-ink2">no job logged yet</p>
      </div>
      <p v-if="lost" class="flex items-start gap-1 text-xs font-bold text-look">
        <VerdictMark verdict="look" :size="13" />no reading since {{ when(lost, zone) }}
      </p>
      <NuxtLink
        v-for="n in notes"
        :key="n.text"
        :to="n.to"
        class="target flex items-center text-xs underline underline-offset-2"
        :class="n.look ? 'font-bold text-look' : ''"
        >{{ n.text }}</NuxtLink
      >
      <div v-for="h in printer.heads" :key="h.id" class="border-t border-faint pt-1">
        <template v-if="h.nozzle">
          <NuxtLink :to="`/inspect/${h.nozzle.tag}`" class="target flex flex-col justify-center text-xs"
            ><b class="underline underline-offset-2">{{ h.nozzle.tag }}</b
            ><span class="[font-stretch:86%]">{{ h.nozzle.typeName }}</span></NuxtLink
          >
          <LifeBar :left="h.nozzle.leftKg" :label="`fibre left on ${h.nozzle.tag}`" :width="width - 18" />
          <p class="text-xs">
            fibre left <b>{{ h.nozzle.leftKg ? kg(h.nozzle.leftKg.median) : 'not known yet' }}</b>
          </p>
          <p v-if="h.nozzle.leftKg" class="text-xs text-ink2">
            {{
              kgBetween(h.nozzle.leftKg.low80, h.nozzle.leftKg.high80)
                .replace(' between ', ': ')
                .replace(' and ', ' to ')
            }}
          </p>
          <p
            class="text-xs"
            :class="h.nozzle.nextGaugeKg !== null && h.nozzle.nextGaugeKg < 0.0005 ? 'font-bold text-look' : ''"
          >
            {{ gaugeIn(h.nozzle.nextGaugeKg) }}
          </p>
          <p v-if="h.nozzle.stale" class="text-xs text-ink2">being reckoned anew</p>
        </template>
        <p v-else class="flex min-h-[40px] items-center text-xs font-bold text-look">no nozzle fitted</p>
        <button type="button" class="act no-print text-[13px]" @click="$emit('fit', h.id)">
          {{ h.nozzle ? 'Fit another' : 'Fit' }}<span class="sr-only"> to {{ printer.name }} {{ h.name }}</span>
        </button>
      </div>
      <details class="no-print mt-auto text-xs">
        <summary class="flex cursor-pointer items-center font-semibold text-ink2 underline underline-offset-2">
          Limits and their basis
        </summary>
        <ul class="grid gap-1">
          <li v-for="l in printer.limits" :key="l.id">
            <b>{{ zoneWord(l.zone) }} {{ celsiusDown(l.limitC) }}</b
            >, {{ l.part }}{{ limitNote(l) ? ` (${limitNote(l)})` : '' }}:
            {{ [l.basis, l.note].filter(Boolean).join(', ') }}.{{
              l.enteredBy ? ` Entered by ${l.enteredBy}, ${when(l.enteredAt!, zone)}` : ''
            }}
          </li>
          <li>
            <NuxtLink :to="`/equip/stack/${printer.id}`" class="act"
              >The whole stack<span class="sr-only"> of {{ printer.name }}</span></NuxtLink
            >
          </li>
        </ul>
      </details>
    </div>
  </section>
</template>

<style scoped>
.lane-part {
  font-size: 12px;
  font-stretch: 68%;
  fill: var(--color-ink);
}
.lane-limit {
  font-size: 12px;
  font-weight: 700;
}
.lane-now {
  font-size: 12px;
  font-weight: 700;
  fill: var(--color-ink);
  paint-order: stroke;
  stroke: var(--color-white);
  stroke-width: 3px;
}
.lane-name {
  font-size: 12px;
  font-stretch: 80%;
  fill: var(--color-ink2);
}
</style>
