<script setup lang="ts" generic="T extends { id: number; name: string }">
/** Records by their names, each to be edited. */
defineProps<{ records: readonly T[] }>()
const emit = defineEmits<{ edit: [record: T] }>()
</script>

<template>
  <button v-for="r in records" :key="r.id" type="button" class="button plain" @click="emit('edit', r)">
    {{ r.name }}<span class="sr-only">, edit</span>
  </button>
</template>
