<script setup lang="ts">
/** The screens of Equip, in the order of the questions. */
import StationTabs from '~/components/ui/StationTabs.vue'

const TABS = [
  { to: '/equip', name: 'Ask' },
  { to: '/equip/fleet', name: 'Fleet' },
  { to: '/equip/stack', name: 'Stacks' },
  { to: '/equip/materials', name: 'Materials' },
  { to: '/equip/buy', name: 'Which nozzle to buy' },
] as const
defineProps<{ failure?: string | null }>()
</script>

<template>
  <StationTabs title="Equip" :tabs="TABS" :failure="failure" />
</template>
