<script setup lang="ts">
/** The screens of Verify. */
import StationTabs from '~/components/ui/StationTabs.vue'

const TABS = [
  { to: '/verify', name: 'Sensors' },
  { to: '/verify/chamber', name: 'Chamber survey' },
  { to: '/verify/enclosure', name: 'Enclosure' },
  { to: '/verify/certificate', name: 'Certificate' },
  { to: '/verify/thermistor', name: 'Thermistor table' },
] as const
defineProps<{ failure?: string | null }>()
</script>

<template>
  <StationTabs title="Verify" :tabs="TABS" :failure="failure" />
</template>
