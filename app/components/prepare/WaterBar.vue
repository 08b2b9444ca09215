<script setup lang="ts">
/**
 * A spool's water on one bar: filled to what it holds at least, pale to what it may hold, a tick for the single strand,
 * hatched beyond what usually prints; the short mark is clean.
 */
import { computed } from 'vue'
import { water } from '#core/words'
import { heldWords } from '~/words/water'

const props = defineProps<{
  strand: number
  wound: number
  low: number
  clean: number
  usual: number
  soaked: number
  label: string
}>()
const top = computed(() => Math.max(props.soaked, props.usual * 1.3, props.wound, props.strand) * 1.02)
const x = (v: number) => Math.max(0, Math.min(100, (v / top.value) * 100))
const wet = computed(() => props.low > props.usual)
const fill = computed(() => (wet.value ? 'var(--color-stop)' : 'var(--color-blue)'))
const words = computed(
  () =>
    `${props.label}: wound spool ${heldWords(props)}, single strand ${water(props.strand)}, usually prints up to ` +
    `${water(props.usual)}, clean up to ${water(props.clean)}`,
)
</script>

<template>
  <svg
    viewBox="0 0 100 20"
    preserveAspectRatio="none"
    class="h-[22px] w-full overflow-visible"
    role="img"
    :aria-label="words"
  >
    <defs>
      <pattern id="wet-hatch" width="3" height="20" patternUnits="userSpaceOnUse" patternTransform="skewX(-30)">
        <path d="M0 0V20" stroke="var(--color-ink2)" stroke-width="0.5" />
      </pattern>
    </defs>
    <rect x="0" y="4" width="100" height="12" fill="var(--color-white)" />
    <rect :x="x(usual)" y="4" :width="100 - x(usual)" height="12" fill="url(#wet-hatch)" />
    <rect x="0" y="6" :width="x(wound)" height="8" :fill="fill" opacity="0.35" />
    <rect x="0" y="6" :width="x(low)" height="8" :fill="fill" />
    <path :d="`M${x(usual)} 1V19`" stroke="var(--color-ink)" stroke-width="2" vector-effect="non-scaling-stroke" />
    <path :d="`M${x(clean)} 12V19`" stroke="var(--color-ink)" stroke-width="2" vector-effect="non-scaling-stroke" />
    <path :d="`M${x(strand)} 3V17`" stroke="var(--color-bronze)" stroke-width="3" vector-effect="non-scaling-stroke" />
    <rect
      x="0"
      y="4"
      width="100"
      height="12"
      fill="none"
      stroke="var(--color-ink)"
      stroke-width="1.5"
      vector-effect="non-scaling-stroke"
    />
  </svg>
</template>
