<script setup lang="ts">
/** Pictures of one nozzle, receipt, before and latest: side by side at one scale, and their mouths over each other. */
import { computed } from 'vue'
import type { NozzlePage } from '#shared/answers/nozzles'
import { day } from '#shared/time'
import { boreWithU } from '~/words/picture'

const props = defineProps<{ points: NozzlePage['gaugePoints']; tag: string; zone: string; narrow?: boolean }>()
const pictured = computed(() => props.points.filter(g => g.picture !== null && g.blob !== null))
const shown = computed(() => {
  const all = pictured.value
  const now = all[all.length - 1]
  const last = all[all.length - 2]
  const receipt = all.find(g => g.kind === 'receipt') ?? all[0]
  return [
    { title: receipt?.kind === 'receipt' ? 'at receipt' : 'first', g: receipt },
    { title: 'before', g: last },
    { title: 'latest', g: now },
  ].filter((s, i, list) => s.g !== undefined && list.findIndex(o => o.g === s.g) === i)
})
/** Half the side of every drawing, mm: one scale for all. */
const half = computed(() => 1.45 * Math.max(0.05, ...shown.value.map(s => s.g!.picture!.shape.aMm)))
const COLOURS = ['var(--color-blue)', 'var(--color-look)', 'var(--color-stop)']
type Point = NozzlePage['gaugePoints'][number]
const stroke = computed(() => half.value / 60)
/** The mouth of a gauge, as attributes of its element. */
const outline = (g: Point, i: number) => {
  const { aMm: rx, bMm: ry, longDeg } = g.picture!.shape
  return {
    'transform': `rotate(${longDeg})`,
    rx,
    ry,
    'fill': 'none',
    'stroke': COLOURS[i],
    'stroke-width': stroke.value,
  }
}
/** Where its crop lies about the middle of the mouth, mm. */
const placed = (g: Point) => {
  const { x, y, umPerPx } = g.picture!.crop
  const [left, top] = [(x * umPerPx) / 1000, (y * umPerPx) / 1000]
  return { x: -left, y: -top, width: 2 * left, height: 2 * top }
}
</script>

<template>
  <section v-if="shown.length > 0" aria-label="Pictures of the mouth">
    <h2 class="mb-1">Mouth in pictures, all at one scale</h2>
    <ul class="grid grid-cols-2 gap-2" :class="narrow ? '' : 'sm:grid-cols-4'">
      <li v-for="(s, i) in shown" :key="s.g!.id">
        <svg
          class="sheet block aspect-square w-full bg-faint"
          :viewBox="`${-half} ${-half} ${2 * half} ${2 * half}`"
          role="img"
          :aria-label="`${tag} ${s.title}, ${day(s.g!.at, zone)}: bore ${boreWithU(s.g!.valueMm!, s.g!.uMm!)}`"
        >
          <image :href="`/api/pictures/${s.g!.blob}`" v-bind="placed(s.g!)" preserveAspectRatio="none" />
          <ellipse v-bind="outline(s.g!, i)" />
        </svg>
        <p class="text-xs">
          <b>{{ s.title }}</b>, {{ day(s.g!.at, zone)
          }}<span class="block">{{ boreWithU(s.g!.valueMm!, s.g!.uMm!) }}</span
          ><span class="block text-ink2">{{ s.g!.setup }}</span>
        </p>
      </li>
      <li v-if="shown.length > 1">
        <svg
          class="sheet block aspect-square w-full"
          :viewBox="`${-half} ${-half} ${2 * half} ${2 * half}`"
          role="img"
          :aria-label="`Mouths of ${tag} over each other: ${shown.map(s => s.title).join(', ')}`"
        >
          <ellipse v-for="(s, i) in shown" :key="s.g!.id" v-bind="outline(s.g!, i)" />
          <path
            :d="`M${-0.5 * half} ${0.93 * half}h${half}`"
            fill="none"
            stroke="var(--color-ink)"
            :stroke-width="stroke"
          />
        </svg>
        <p class="text-xs">
          <b>over each other</b
          ><span v-for="(s, i) in shown" :key="s.g!.id" class="block" :style="{ color: COLOURS[i] }">{{ s.title }}</span
          ><span class="block text-ink2">bar: {{ half.toFixed(2) }} mm</span>
        </p>
      </li>
    </ul>
  </section>
</template>
