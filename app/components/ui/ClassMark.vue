<script setup lang="ts">
/**
 * Mark of a verdict's class: tick, triangle, octagon, and an open square for what cannot be told. Always beside its
 * word.
 */
import type { VerdictClass } from '#core/limits'
import VerdictMark from '~/components/ui/VerdictMark.vue'

const MARK = { 'runs': 'fine', 'just': 'look', 'changes': 'look', 'cannot': 'stop', 'cannot tell': 'look' } as const

withDefaults(defineProps<{ verdict: VerdictClass; size?: number }>(), { size: 18 })
</script>

<template>
  <svg
    v-if="verdict === 'cannot tell'"
    :width="size"
    :height="size"
    viewBox="0 0 16 16"
    role="img"
    aria-label="not known"
    class="shrink-0"
  >
    <path d="M1.5 1.5h13v13h-13z" fill="none" stroke="var(--color-ink2)" stroke-width="1.8" stroke-dasharray="3 2" />
    <path d="M8 4v5M8 11v1.8" stroke="var(--color-ink2)" stroke-width="2" />
  </svg>
  <VerdictMark v-else :verdict="MARK[verdict]" :size="size" />
</template>
