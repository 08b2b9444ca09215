<script setup lang="ts">
/** What comes over a screen: what saves say, entries on their way, the keys. It comes once the screen stands. */
import KeysSheet from '~/components/ui/KeysSheet.vue'
import OutboxSheet from '~/components/ui/OutboxSheet.vue'
import TheToasts from '~/components/ui/TheToasts.vue'

defineProps<{ outboxOpen: boolean }>()
defineEmits<{ outboxClosed: [] }>()
</script>

<template>
  <OutboxSheet :open="outboxOpen" @close="$emit('outboxClosed')" />
  <KeysSheet />
  <TheToasts />
</template>
