<script setup lang="ts">
/** Tick, triangle or octagon: the shape says it, the colour only helps. Always beside its word. */
withDefaults(defineProps<{ verdict: 'fine' | 'look' | 'stop'; size?: number; inverse?: boolean }>(), {
  size: 18,
  inverse: false,
})
</script>

<template>
  <svg :width="size" :height="size" viewBox="0 0 16 16" role="img" :aria-label="verdict" class="shrink-0">
    <template v-if="verdict === 'stop'">
      <path d="M5 1h6l4 4v6l-4 4H5l-4-4V5z" :fill="inverse ? '#ffffff' : 'var(--color-stop)'" />
      <path d="M4.5 8h7" :stroke="inverse ? 'var(--color-stop)' : '#ffffff'" stroke-width="2.2" />
    </template>
    <template v-else-if="verdict === 'look'">
      <path d="M8 1.2l7 13.1H1z" fill="none" stroke="var(--color-look)" stroke-width="1.8" />
      <path d="M8 6v4M8 11.4v1.5" stroke="var(--color-look)" stroke-width="1.8" />
    </template>
    <path v-else d="M2 8.5l4 4 8-9" fill="none" stroke="var(--color-ink)" stroke-width="2" />
  </svg>
</template>
