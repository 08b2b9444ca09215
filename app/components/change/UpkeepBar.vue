<script setup lang="ts">
/** How much of an interval has gone: a rule with its end marked; past it the bar is hatched. */
import { computed } from 'vue'

const props = defineProps<{ share: number; label: string }>()
const W = 180
/** Of twice the interval. */
const x = (share: number) => 1 + (W - 2) * Math.min(1, share / 2)
const past = computed(() => props.share > 1)
</script>

<template>
  <svg :width="W" :viewBox="`0 0 ${W} 18`" height="18" role="img" :aria-label="label" class="block max-w-full">
    <pattern id="upkeep-past" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
      <path d="M0 0V5" stroke="var(--color-look)" stroke-width="2" />
    </pattern>
    <rect x="1" y="5" :width="W - 2" height="9" fill="var(--color-sheet)" stroke="var(--color-rule)" />
    <rect x="1" y="5" :width="x(Math.min(1, share)) - 1" height="9" fill="var(--color-slate)" />
    <rect v-if="past" :x="x(1)" y="5" :width="x(share) - x(1)" height="9" fill="url(#upkeep-past)" />
    <path :d="`M${x(1)} 1v16`" stroke="var(--color-ink)" stroke-width="2" />
  </svg>
</template>
