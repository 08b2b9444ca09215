<script setup lang="ts">
/** Something unusual that a person may confirm; or a refusal that belongs to no field. */
import type { Problem } from '#shared/problem'

defineProps<{ problem: Problem | null, busy?: boolean }>()
defineEmits<{ confirm: [] }>()
</script>

<template>
  <div v-if="problem && (problem.questions || !problem.errors)" role="alert" class="border-2 p-3" :class="problem.questions ? 'border-look' : 'border-stop'">
    <template v-if="problem.questions">
      <div v-for="q in problem.questions" :key="q.code" class="mb-2">
        <p class="font-semibold text-look">{{ q.message }}</p>
        <ul v-if="q.items" class="ml-5 list-disc text-sm"><li v-for="i in q.items" :key="i">{{ i }}</li></ul>
      </div>
      <button type="button" class="button" :disabled="busy" @click="$emit('confirm')">Yes, save it</button>
    </template>
    <p v-else class="font-semibold text-stop">{{ problem.title }}{{ problem.detail ? `: ${problem.detail}` : '' }}</p>
  </div>
</template>
