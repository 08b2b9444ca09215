<script setup lang="ts">
/** The screens of Stores. */
import StationTabs from '~/components/ui/StationTabs.vue'

const TABS = [
  { to: '/stores', name: 'Shelves' },
  { to: '/stores/stock', name: 'Stock and orders' },
  { to: '/stores/pins', name: 'Pin gauges' },
  { to: '/stores/labels', name: 'Labels' },
  { to: '/stores/totals', name: 'Totals' },
] as const
defineProps<{ failure?: string | null }>()
</script>

<template>
  <StationTabs title="Stores" :tabs="TABS" :failure="failure" />
</template>
