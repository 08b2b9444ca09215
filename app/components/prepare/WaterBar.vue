<script setup lang="ts">
/**
 * A spool's water on one bar: filled to the wound-spool estimate, a tick for the single strand, hatched beyond what
 * prints cleanly.
 */
import { computed } from 'vue'
import { water } from '#core/words'

const props = defineProps<{ strand: number; wound: number; printable: number; soaked: number; label: string }>()
const top = computed(() => Math.max(props.soaked, props.printable * 1.3, props.wound, props.strand) * 1.02)
const x = (v: number) => Math.max(0, Math.min(100, (v / top.value) * 100))
const wet = computed(() => props.wound > props.printable)
const words = computed(
  () =>
    `${props.label}: wound spool ${water(props.wound)}, single strand ${water(props.strand)}, ` +
    `prints cleanly up to ${water(props.printable)}`,
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
    <rect :x="x(printable)" y="4" :width="100 - x(printable)" height="12" fill="url(#wet-hatch)" />
    <rect x="0" y="6" :width="x(wound)" height="8" :fill="wet ? 'var(--color-stop)' : 'var(--color-blue)'" />
    <path :d="`M${x(printable)} 1V19`" stroke="var(--color-ink)" stroke-width="2" vector-effect="non-scaling-stroke" />
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
