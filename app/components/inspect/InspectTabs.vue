<script setup lang="ts">
/** The screens of Inspect. */
import StationTabs from '~/components/ui/StationTabs.vue'

const TABS = [
  { to: '/inspect', name: 'Nozzles' },
  { to: '/inspect/picture', name: 'Picture' },
  { to: '/inspect/wrong', name: 'What is wrong' },
  { to: '/inspect/bench', name: 'Flow bench' },
  { to: '/inspect/study', name: 'Study' },
  { to: '/inspect/types', name: 'Types' },
  { to: '/inspect/scale', name: 'Set-ups and scale' },
] as const
defineProps<{ failure?: string | null }>()
</script>

<template>
  <StationTabs title="Inspect" :tabs="TABS" :failure="failure" />
</template>
