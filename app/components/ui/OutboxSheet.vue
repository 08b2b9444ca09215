<script setup lang="ts">
/** Entries on their way: what waits for the server, and what was refused and waits for a person. */
import ModalSheet from '~/components/ui/ModalSheet.vue'
import OutboxEntry from '~/components/ui/OutboxEntry.vue'
import { useOutbox } from '~/state/outbox'
import { useShop } from '~/state/shop'

defineProps<{ open: boolean }>()
defineEmits<{ close: [] }>()
const outbox = useOutbox()
const shop = useShop()
</script>

<template>
  <ModalSheet :open="open" title="Entries on their way" @close="$emit('close')">
    <p v-if="outbox.entries.length === 0">All entries are saved on the server.</p>
    <p v-else-if="!shop.reachable" class="mb-2 text-look">
      The server does not answer. These entries are kept in this browser and sent once when it is back.
    </p>
    <ul class="grid gap-3">
      <OutboxEntry v-for="e in outbox.entries" :key="e.key" :entry="e" @leave="$emit('close')" />
    </ul>
    <button v-if="outbox.waiting" type="button" class="button mt-4" @click="outbox.replay(true)">Try now</button>
  </ModalSheet>
</template>
