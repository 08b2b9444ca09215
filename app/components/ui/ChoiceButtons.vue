<script setup lang="ts" generic="T extends string | number | null">
/** One of a few things, each a button; the one that is chosen is dark. */
defineProps<{ label: string; options: readonly { value: T; text: string }[] }>()
const chosen = defineModel<T>({ required: true })
</script>

<template>
  <div class="no-print flex flex-wrap gap-1" role="group" :aria-label="label">
    <button
      v-for="o in options"
      :key="o.value ?? ''"
      type="button"
      class="button"
      :class="o.value === chosen ? 'first' : ''"
      :aria-pressed="o.value === chosen"
      @click="chosen = o.value"
    >
      {{ o.text }}
    </button>
  </div>
</template>
