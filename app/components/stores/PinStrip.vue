<script setup lang="ts">
/** How far a pin is off its nominal by each certificate, µm: the latest heavy, with twice its standard uncertainty. */
import { computed } from 'vue'
import type { PinLine } from '#shared/answers/pins'
import { certificateWords, holding, offUm } from '~/words/pin'

const props = defineProps<{ pin: PinLine }>()
const W = 260
const H = 46
/** As far as the furthest certificate asks, and no less than 5 µm to either side. */
const reach = computed(() => {
  const ends = props.pin.certificates
    .filter(c => c.struck === null)
    .map(c => Math.abs(offUm(props.pin, c)) + c.uMm * 2000)
  return Math.max(5, Math.ceil(Math.max(0, ...ends) / 5) * 5)
})
const x = (um: number) => W / 2 + (um / reach.value) * (W / 2 - 22)
const now = computed(() => holding(props.pin))
const earlier = computed(() => props.pin.certificates.filter(c => c.struck === null && c !== now.value))
const label = computed(() => (now.value ? `${props.pin.mark}: ${certificateWords(props.pin, now.value)}` : ''))
</script>

<template>
  <svg
    v-if="now"
    :width="W"
    :height="H"
    :viewBox="`0 0 ${W} ${H}`"
    role="img"
    :aria-label="label"
    class="block max-w-full"
  >
    <path :d="`M${x(-reach)} 18H${x(reach)}`" stroke="var(--color-ink2)" />
    <g v-for="um in [-reach, 0, reach]" :key="um">
      <path :d="`M${x(um)} ${um === 0 ? 6 : 13}V${um === 0 ? 30 : 23}`" stroke="var(--color-ink)" />
      <text :x="x(um)" :y="H - 3" text-anchor="middle" font-size="12" fill="var(--color-ink2)">
        {{ um === 0 ? 'as marked' : `${um > 0 ? '+' : '−'}${Math.abs(um)} µm` }}
      </text>
    </g>
    <circle
      v-for="c in earlier"
      :key="c.id"
      :cx="x(offUm(pin, c))"
      cy="18"
      r="4"
      fill="var(--color-sheet)"
      stroke="var(--color-ink2)"
      stroke-width="1.5"
    />
    <path
      :d="`M${x(offUm(pin, now) - now.uMm * 2000)} 18H${x(offUm(pin, now) + now.uMm * 2000)}`"
      stroke="var(--color-bronze)"
      stroke-width="6"
    />
    <circle :cx="x(offUm(pin, now))" cy="18" r="5" fill="var(--color-ink)" />
  </svg>
</template>
