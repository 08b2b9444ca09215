<script setup lang="ts">
/** The screens of Prepare, in the order of the work. */
import StationTabs from '~/components/ui/StationTabs.vue'

const TABS = [
  { to: '/prepare', name: 'Dry', also: '/prepare/spool' },
  { to: '/prepare/soak', name: 'Soak' },
  { to: '/prepare/check', name: 'May I start' },
  { to: '/prepare/changeover', name: 'Change filament' },
  { to: '/prepare/anneal', name: 'Anneal' },
] as const
defineProps<{ failure?: string | null }>()
</script>

<template>
  <StationTabs title="Prepare" :tabs="TABS" :failure="failure" />
</template>
