<script setup lang="ts">
/**
 * What is left on one logarithmic bar, 1 g to 100 kg: the 80 % range as a band, the median as a stroke, after the run
 * being entered as a dashed one.
 */
import { computed } from 'vue'

const props = defineProps<{
  left: { median: number; low80: number; high80: number } | null
  label: string
  width: number
  after?: number | null
}>()
const words = computed(() => {
  if (!props.left) return `${props.label}: not known yet`
  const [median, low, high] = [props.left.median, props.left.low80, props.left.high80].map(v => v.toPrecision(2))
  return `${props.label}: ${median} kg, 80 % between ${low} and ${high} kg`
})
// where there is less room all of it gets smaller (viewBox): a mark that is cut off would be none
const inner = computed(() => props.width - 2)
const x = (kg: number) => 1 + inner.value * Math.min(1, Math.max(0, Math.log10(Math.max(kg, 0.001) / 0.001) / 5))
</script>

<template>
  <svg
    :width="width"
    :viewBox="`0 0 ${width} 16`"
    preserveAspectRatio="xMinYMid meet"
    height="16"
    role="img"
    :aria-label="words"
    class="block max-w-full"
  >
    <rect x="1" y="4" :width="inner" height="9" fill="#fff" stroke="var(--color-ink)" stroke-width="0.9" />
    <path v-for="d in 4" :key="d" :d="`M${1 + (inner * d) / 5} 10v3`" stroke="var(--color-ink2)" stroke-width="0.8" />
    <template v-if="left">
      <rect
        :x="x(left.low80)"
        y="5"
        :width="Math.max(2, x(left.high80) - x(left.low80))"
        height="7"
        fill="var(--color-straw)"
        fill-opacity="0.6"
        stroke="var(--color-bronze)"
        stroke-width="0.9"
      />
      <path
        v-if="after != null"
        :d="`M${x(after)} 0v16`"
        stroke="var(--color-bronze)"
        stroke-width="2.2"
        stroke-dasharray="3 2"
      />
      <path :d="`M${x(left.median)} 1v14`" stroke="var(--color-ink)" stroke-width="2.2" />
    </template>
  </svg>
</template>
