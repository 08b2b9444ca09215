<script setup lang="ts">
import AppFrame from '~/components/ui/AppFrame.vue'
</script>

<template>
  <AppFrame>
    <NuxtPage />
  </AppFrame>
</template>
