<script setup lang="ts">
/** What a gauge study tells: its sentence, the parts of the scatter with their ranges, the readings drawn. */
import { computed } from 'vue'
import type { Part } from '#core/study'
import type { StudyLine } from '#shared/answers/studies'
import { partWords, resultOf, setsWords, studyNotes, toldWords } from '~/words/study'
import { um } from '~/words/picture'

const props = defineProps<{ study: StudyLine }>()
const result = computed(() => resultOf(props.study))
const parts = computed(() => {
  const c = result.value.components
  if (!c) return []
  const list: { name: string; says: string; part: Part | null }[] = [
    { name: 'Repeatability', says: 'the same person, the same nozzle', part: c.repeatability },
    { name: 'Reproducibility', says: 'from person to person', part: c.reproducibility },
    { name: 'One reading', says: 'both together, by anybody', part: c.reading },
    { name: 'Nozzles', says: 'how far their bores differ', part: c.nozzles },
  ]
  return list
})
const most = computed(() => Math.max(...parts.value.map(p => p.part?.high80 ?? 0), 1e-6))
const notes = computed(() => studyNotes(props.study, result.value))

/** Readings less the mean of their nozzle, µm: in columns by nozzle, a mark's shape by person. */
const W = 560
const H = 180
const LEFT = 50
const BOTTOM = 26
const read = computed(() =>
  props.study.lines.flatMap((l, i) => {
    const r = l.reading
    if (!r) return []
    const low = r.valueMm ?? r.goMm!
    const high = r.valueMm ?? r.noGoMm!
    return { key: i, person: props.study.people.findIndex(p => p.id === l.personId), nozzleId: l.nozzleId, low, high }
  }),
)
const dots = computed(() =>
  props.study.nozzles.flatMap((n, column) => {
    const own = read.value.filter(r => r.nozzleId === n.id)
    const mean = own.reduce((s, r) => s + (r.low + r.high) / 2, 0) / Math.max(1, own.length)
    return own.map((r, k) => ({
      ...r,
      low: 1000 * (r.low - mean),
      high: 1000 * (r.high - mean),
      x: LEFT + ((column + 0.12 + (0.76 * (k + 0.5)) / own.length) * (W - LEFT)) / props.study.nozzles.length,
    }))
  }),
)
const reach = computed(() => Math.max(2, ...dots.value.map(d => Math.max(Math.abs(d.low), Math.abs(d.high)))) * 1.1)
const y = (v: number) => ((reach.value - v) / (2 * reach.value)) * (H - BOTTOM - 8) + 8
const ticks = computed(() => {
  const step = [1, 2, 5, 10, 20, 50, 100, 200].find(s => reach.value / s <= 3) ?? 500
  return [-2, -1, 0, 1, 2].map(k => k * step).filter(t => Math.abs(t) < reach.value)
})
/** One shape per person, told apart without colour. */
const SHAPES = [
  'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0-8 0',
  'M0-5L5 0L0 5L-5 0Z',
  'M-4-4H4V4H-4Z',
  'M0-5L5 4H-5Z',
  'M-5-1H5V1H-5Z',
  'M0 5L5-4H-5Z',
]
const filled = (person: number) => person % 2 === 0
</script>

<template>
  <section class="grid grid-cols-[minmax(0,1fr)] gap-3" :aria-label="`What ${study.name} tells`">
    <p class="text-[17px] font-[680] leading-snug">{{ toldWords(study, result) }}</p>
    <p class="font-semibold">{{ setsWords(study, result) }}</p>
    <div
      v-if="parts.length > 0"
      class="relative overflow-x-auto"
      tabindex="0"
      role="group"
      aria-label="Parts of the scatter, pan sideways"
    >
      <table class="record sheet min-w-[520px]">
        <thead>
          <tr>
            <th scope="col">part</th>
            <th scope="col" class="num">standard deviation</th>
            <th scope="col">80 % range</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="p in parts" :key="p.name">
            <th scope="row" class="text-left font-semibold">
              {{ p.name }}<span class="block text-xs font-normal text-ink2">{{ p.says }}</span>
            </th>
            <td class="num">
              <b>{{ p.part ? um(p.part.sd * 1000) : 'not known' }}</b>
            </td>
            <td>
              <template v-if="p.part"
                ><svg
                  viewBox="0 0 200 14"
                  class="block h-[14px] w-full max-w-[240px]"
                  role="img"
                  :aria-label="partWords(p.part)"
                >
                  <path d="M0 7H200" stroke="var(--color-rule)" />
                  <rect
                    :x="(200 * p.part.low80) / most"
                    y="3"
                    :width="Math.max(1.5, (200 * (p.part.high80 - p.part.low80)) / most)"
                    height="8"
                    fill="var(--color-straw)"
                    fill-opacity="0.5"
                    stroke="var(--color-bronze)"
                  />
                  <path :d="`M${(200 * p.part.sd) / most} 0V14`" stroke="var(--color-ink)" stroke-width="2" /></svg
                ><span class="text-xs text-ink2"
                  >{{ um(p.part.low80 * 1000) }} to {{ um(p.part.high80 * 1000) }}</span
                ></template
              ><span v-else class="text-sm text-ink2">one person alone</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <ul v-if="notes.length > 0" class="grid list-disc gap-1 pl-5 text-sm">
      <li v-for="n in notes" :key="n">{{ n }}</li>
    </ul>
    <figure v-if="dots.length > 0" class="sheet p-3">
      <figcaption class="flex flex-wrap items-center gap-x-4 text-sm">
        <b>Readings less the mean of their nozzle, µm</b>
        <span v-for="(p, i) in study.people" :key="p.id" class="flex items-center gap-1"
          ><svg viewBox="-6 -6 12 12" width="12" height="12" aria-hidden="true">
            <path
              :d="SHAPES[i]"
              :fill="filled(i) ? 'var(--color-ink)' : 'none'"
              stroke="var(--color-ink)"
              stroke-width="1.3"
            /></svg
          >{{ p.name }}</span
        >
        <span v-if="study.method === 'pins'" class="text-ink2"
          >strokes: from the pin that goes to the one that does not</span
        >
      </figcaption>
      <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Readings, drawn">
        <svg
          :viewBox="`0 0 ${W} ${H}`"
          class="w-full min-w-[480px]"
          role="img"
          :aria-label="`${dots.length} readings of ${study.nozzles.length} nozzles, each by its person`"
        >
          <g v-for="t in ticks" :key="t">
            <path :d="`M${LEFT} ${y(t)}H${W}`" :stroke="t === 0 ? 'var(--color-ink2)' : 'var(--color-faint)'" />
            <text :x="LEFT - 5" :y="y(t) + 4" text-anchor="end" class="t">{{ t > 0 ? `+${t}` : t }}</text>
          </g>
          <g v-for="(n, i) in study.nozzles" :key="n.id">
            <path
              v-if="i > 0"
              :d="`M${LEFT + (i * (W - LEFT)) / study.nozzles.length} 8V${H - BOTTOM}`"
              stroke="var(--color-rule)"
            />
            <text :x="LEFT + ((i + 0.5) * (W - LEFT)) / study.nozzles.length" :y="H - 8" text-anchor="middle" class="t">
              {{ n.tag }}
            </text>
          </g>
          <g v-for="d in dots" :key="d.key">
            <path
              v-if="d.high > d.low"
              :d="`M${d.x} ${y(d.low)}V${y(d.high)}`"
              stroke="var(--color-bronze)"
              stroke-width="1.3"
            />
            <path
              :d="SHAPES[d.person]"
              :transform="`translate(${d.x} ${y((d.low + d.high) / 2)})`"
              :fill="filled(d.person) ? 'var(--color-ink)' : 'var(--color-sheet)'"
              stroke="var(--color-ink)"
              stroke-width="1.3"
            />
          </g>
        </svg>
      </div>
    </figure>
  </section>
</template>

<style scoped>
.t {
  font-size: 12px;
  fill: var(--color-ink2);
}
</style>
