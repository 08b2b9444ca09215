<script setup lang="ts">
/** What keeps a printer from being ready for work, where somebody asks about it. */
import { computed } from 'vue'
import { notReady, type Standing } from '#core/schedule'
import VerdictMark from '~/components/ui/VerdictMark.vue'

const props = defineProps<{ printer: string; standing: Standing | null }>()
const lines = computed(() => (props.standing ? notReady(props.printer, props.standing) : []))
</script>

<template>
  <ul v-if="lines.length > 0" class="mb-2 grid gap-1" :aria-label="`${printer}: not ready`">
    <li
      v-for="l in lines"
      :key="l.reason"
      class="flex flex-wrap items-center gap-x-3 text-[15px] font-[650]"
      :class="l.mark === 'stop' ? 'text-stop' : 'text-look'"
    >
      <span class="flex items-start gap-2"><VerdictMark :verdict="l.mark" class="mt-[2px]" />{{ l.reason }}</span>
      <NuxtLink :to="l.open" class="act no-print text-ink">{{ l.action }}</NuxtLink>
    </li>
  </ul>
</template>
