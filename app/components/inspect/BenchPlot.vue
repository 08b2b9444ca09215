<script setup lang="ts">
/**
 * What a bench delivered: flow to the right, share upwards, a line for each temperature as the fit has it, each cell
 * with its range; what is accepted as a line across, and the flow that is sustained dimensioned at the foot.
 */
import { computed } from 'vue'
import { sustainedWords } from '#core/flow'
import { celsius } from '#core/words'
import type { BenchPage } from '#shared/answers/flow'
import { temper } from '~/words/numbers'

const props = defineProps<{ bench: BenchPage & { result: NonNullable<BenchPage['result']> } }>()
const W = 640
const H = 350
const LEFT = 52
const RIGHT = 70
const TOP = 14
const BOTTOM = 30
const ROW = 22
const r = computed(() => props.bench.result)
const temperatures = computed(() => r.value.sustained.map(s => s.temperatureC))
const foot = computed(() => H - BOTTOM - 22 - temperatures.value.length * ROW)
/** Against what `relative` is counted, so that the accepted share is one line. */
const by = computed(() => (r.value.against === 'slowest' ? r.value.level.share : 1))
const ends = computed(() => {
  const flows = r.value.cells.map(c => c.flowMm3S)
  const shares = r.value.cells.flatMap(c => [c.share - 2 * c.u, c.share + 2 * c.u])
  const [low, high] = [Math.min(...flows), Math.max(...flows)]
  const pad = (high - low) * 0.06
  return {
    flow: [low - pad, high + pad] as const,
    share: [
      Math.floor(Math.min(...shares, props.bench.accepted * by.value - 0.02) * 20) / 20,
      Math.ceil(Math.max(...shares, 1.01) * 50) / 50,
    ] as const,
  }
})
const x = (f: number) =>
  LEFT + ((f - ends.value.flow[0]) / (ends.value.flow[1] - ends.value.flow[0])) * (W - LEFT - RIGHT)
const y = (s: number) =>
  TOP + ((ends.value.share[1] - s) / (ends.value.share[1] - ends.value.share[0])) * (foot.value - TOP)
const ticksX = computed(() => [...new Set(r.value.cells.map(c => c.flowMm3S))].sort((a, b) => a - b))
const ticksY = computed(() => {
  const [low, high] = ends.value.share
  const step = [0.02, 0.05, 0.1, 0.2].find(s => (high - low) / s <= 7) ?? 0.2
  return Array.from({ length: Math.floor(high / step) - Math.ceil(low / step) + 1 }, (_, i) =>
    Number(((Math.ceil(low / step) + i) * step).toFixed(3)),
  )
})
/** Cells of one flow stand side by side, and each temperature has a mark of its own. */
const MARKS = ['circle', 'square', 'triangle', 'cross'] as const
const lines = computed(() =>
  temperatures.value.map((t, i) => {
    const cells = r.value.cells.filter(c => c.temperatureC === t)
    const shift = (i - (temperatures.value.length - 1) / 2) * 7
    return {
      t,
      mark: MARKS[i % MARKS.length]!,
      colour: temper(t),
      fit: cells.map((c, k) => `${k ? 'L' : 'M'}${(x(c.flowMm3S) + shift).toFixed(1)} ${y(c.fit).toFixed(1)}`).join(''),
      cells: cells.map(c => ({ ...c, at: x(c.flowMm3S) + shift })),
      end: { x: x(cells.at(-1)!.flowMm3S) + shift, y: y(cells.at(-1)!.fit) },
      sustained: r.value.sustained[i]!,
      row: foot.value + 34 + i * ROW,
      dash: i % 2 === 0 ? undefined : '6 3',
    }
  }),
)
/** Where the lines are named: beside their ends, no closer to each other than a line of text. */
const names = computed(() => {
  const right = Math.max(...lines.value.map(l => l.end.x)) + 10
  let free = -Infinity
  return [...lines.value]
    .sort((a, b) => a.end.y - b.end.y)
    .map(l => {
      free = Math.max(l.end.y, free + 15)
      return { t: l.t, x: right, y: free }
    })
})
function markPath(mark: (typeof MARKS)[number], cx: number, cy: number): string {
  if (mark === 'square') return `M${cx - 4} ${cy - 4}h8v8h-8Z`
  if (mark === 'triangle') return `M${cx} ${cy - 5}l5 9h-10Z`
  if (mark === 'cross') return `M${cx - 4} ${cy - 4}l8 8M${cx - 4} ${cy + 4}l8 -8`
  return `M${cx - 4} ${cy}a4 4 0 1 0 8 0a4 4 0 1 0 -8 0Z`
}
/** The 80 % range at the foot, open where nothing bounds it. */
function bar(s: (typeof lines.value)[number]['sustained'], row: number): string {
  const [low, high] = ends.value.flow
  const from = x(s.low80 ?? low)
  const to = x(s.high80 ?? high)
  const left =
    s.low80 === null ? `M${from + 6} ${row - 4}L${from} ${row}L${from + 6} ${row + 4}` : `M${from} ${row - 5}v10`
  const right = s.high80 === null ? `M${to - 6} ${row - 4}L${to} ${row}L${to - 6} ${row + 4}` : `M${to} ${row - 5}v10`
  return `M${from} ${row}H${to}${left}${right}`
}
const label = computed(
  () =>
    `Delivered share by flow: ${r.value.cells
      .map(c => `${celsius(c.temperatureC)}, ${c.flowMm3S} mm³/s ${(c.share * 100).toFixed(1)} %`)
      .join('; ')}. Sustained: ${r.value.sustained.map(sustainedWords).join('; ')}.`,
)
</script>

<template>
  <figure class="sheet p-3">
    <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Delivered share by flow, pans sideways">
      <svg :viewBox="`0 0 ${W} ${H}`" class="w-full min-w-[520px]" role="img" :aria-label="label">
        <g v-for="t in ticksY" :key="`y${t}`">
          <path :d="`M${LEFT} ${y(t)}H${W - RIGHT}`" stroke="var(--color-faint)" />
          <text :x="LEFT - 6" :y="y(t) + 4" text-anchor="end" class="t">{{ Math.round(t * 100) }} %</text>
        </g>
        <g v-for="f in ticksX" :key="`x${f}`">
          <path :d="`M${x(f)} ${foot}v4`" stroke="var(--color-ink2)" />
          <text :x="x(f)" :y="foot + 17" text-anchor="middle" class="t">{{ f }}</text>
        </g>
        <path :d="`M${LEFT} ${TOP}V${foot}H${W - RIGHT}`" fill="none" stroke="var(--color-ink)" stroke-width="1.3" />
        <path
          :d="`M${LEFT} ${y(bench.accepted * by)}H${W - RIGHT}`"
          stroke="var(--color-stop)"
          stroke-width="1.6"
          stroke-dasharray="7 4"
        />
        <text :x="LEFT + 6" :y="y(bench.accepted * by) + 15" class="t stop">
          delivered enough: {{ Math.round(bench.accepted * 100) }} %{{
            r.against === 'slowest' ? ' of the slowest blobs' : ' of what was told'
          }}
        </text>
        <g v-for="l in lines" :key="l.t" :stroke="l.colour" fill="none">
          <path :d="l.fit" stroke-width="2.2" :stroke-dasharray="l.dash" />
          <g v-for="c in l.cells" :key="c.flowMm3S">
            <path
              :d="`M${c.at} ${y(c.share - 1.28 * c.u)}V${y(c.share + 1.28 * c.u)}`"
              stroke="var(--color-ink)"
              stroke-width="1.3"
            />
            <path
              :d="markPath(l.mark, c.at, y(c.share))"
              :fill="l.mark === 'cross' ? 'none' : 'var(--color-sheet)'"
              stroke="var(--color-ink)"
              stroke-width="1.6"
            />
          </g>
          <path :d="bar(l.sustained, l.row)" stroke="var(--color-ink)" stroke-width="1.4" />
          <path
            v-if="l.sustained.reach === 'between'"
            :d="`M${x(l.sustained.flowMm3S)} ${l.row - 6}l5 6l-5 6l-5 -6Z`"
            fill="var(--color-ink)"
            stroke="none"
          />
          <text :x="W - RIGHT + 9" :y="l.row + 4" class="t ink">{{ celsius(l.t) }}</text>
        </g>
        <text v-for="n in names" :key="`n${n.t}`" :x="n.x" :y="n.y + 4" class="t ink">{{ celsius(n.t) }}</text>
        <text :x="(LEFT + W - RIGHT) / 2" :y="H - 5" text-anchor="middle" class="t">
          flow, mm³/s; at the foot: where it falls under, with its 80 %
        </text>
      </svg>
    </div>
  </figure>
</template>

<style scoped>
.t {
  font-size: 12px;
  fill: var(--color-ink2);
  stroke: none;
}
.ink {
  fill: var(--color-ink);
  font-weight: 650;
}
.stop {
  fill: var(--color-stop);
}
</style>
