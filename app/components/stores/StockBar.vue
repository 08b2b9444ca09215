<script setup lang="ts">
/** What is there beside the minimum: filled what stands on the shelf, dashed what is ordered, a rule at the minimum. */
import { computed } from 'vue'
import type { StockLine } from '#shared/answers/stock'
import { thereWords } from '~/words/stock'

const props = defineProps<{ line: StockLine }>()
const W = 170
const most = computed(() => {
  const { onHand, onOrder, minimum, wanted } = props.line
  return Math.max(1, onHand + onOrder, minimum ?? 0, wanted?.enough ?? 0) * 1.08
})
const x = (q: number) => 1 + (W - 2) * Math.min(1, Math.max(0, q) / most.value)
const isShort = computed(() => props.line.due !== null && props.line.due.mark !== 'fine')
</script>

<template>
  <svg
    :width="W"
    :viewBox="`0 0 ${W} 20`"
    height="20"
    role="img"
    :aria-label="thereWords(line)"
    class="block max-w-full"
  >
    <rect x="1" y="6" :width="W - 2" height="8" fill="var(--color-sheet)" stroke="var(--color-rule)" />
    <rect
      x="1"
      y="6"
      :width="x(line.onHand) - 1"
      height="8"
      :fill="isShort ? 'var(--color-look)' : 'var(--color-slate)'"
    />
    <rect
      v-if="line.onOrder > 0"
      :x="x(line.onHand)"
      y="6"
      :width="x(line.onHand + line.onOrder) - x(line.onHand)"
      height="8"
      fill="none"
      stroke="var(--color-ink)"
      stroke-dasharray="3 2"
    />
    <path v-if="line.minimum !== null" :d="`M${x(line.minimum)} 1v18`" stroke="var(--color-ink)" stroke-width="2" />
  </svg>
</template>
