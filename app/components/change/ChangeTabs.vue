<script setup lang="ts">
/** The screens of Change. */
import StationTabs from '~/components/ui/StationTabs.vue'

const TABS = [
  { to: '/change', name: 'Under way' },
  { to: '/change/swap', name: 'Swap a nozzle' },
  { to: '/change/hotend', name: 'Change a hotend' },
  { to: '/change/clog', name: 'Clear a clog' },
  { to: '/change/level', name: 'Level and Z' },
  { to: '/change/upkeep', name: 'Upkeep' },
  { to: '/change/cool', name: 'After the print' },
  { to: '/change/commission', name: 'New or rebuilt' },
] as const
defineProps<{ failure?: string | null }>()
</script>

<template>
  <StationTabs title="Change" :tabs="TABS" :failure="failure" />
</template>
