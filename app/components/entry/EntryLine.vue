<script setup lang="ts">
/** A line of a log on a page: what was entered, when and by whom; struck out it stays, with why, else it can be. */
defineProps<{
  struck: string | null
  /** When, by whom. */
  entered: string
  /** What is struck out, for who hears the button. */
  name: string
}>()
defineEmits<{ strike: [] }>()
</script>

<template>
  <li
    class="flex flex-wrap items-center gap-x-4 border-b border-rule py-1"
    :class="struck !== null ? 'text-ink2 line-through' : ''"
  >
    <slot />
    <span class="text-sm text-ink2">{{ entered }}</span>
    <span v-if="struck !== null" class="text-sm">struck out: {{ struck }}</span>
    <button v-else type="button" class="button plain ml-auto" @click="$emit('strike')">
      Strike out<span class="sr-only"> {{ name }}</span>
    </button>
  </li>
</template>
