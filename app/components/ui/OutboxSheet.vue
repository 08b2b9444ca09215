<script setup lang="ts">
/** Entries on their way: what waits for the server, and what was refused and waits for a person. */
import ModalSheet from '~/components/ui/ModalSheet.vue'
import { when } from '~/format'
import { useOutbox, type Queued } from '~/stores/outbox'
import { useShop } from '~/stores/shop'

defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const outbox = useOutbox()
const shop = useShop()

async function edit(e: Queued): Promise<void> {
  const nozzle = shop.data?.nozzles.find(n => n.id === e.body.nozzleId)
  emit('close')
  await navigateTo(e.route === '/api/gauges' && nozzle ? `/inspect/${nozzle.tag}?draft=${e.key}` : `/run?draft=${e.key}`)
}
const editable = (e: Queued) => e.route === '/api/gauges' || e.route === '/api/runs'
</script>

<template>
  <ModalSheet :open="open" title="Entries on their way" @close="$emit('close')">
    <p v-if="outbox.entries.length === 0">All entries are saved on the server.</p>
    <p v-else-if="!shop.reachable" class="mb-2 text-look">The server does not answer. These entries are kept in this browser and sent once when it is back.</p>
    <ul class="grid gap-3">
      <li v-for="e in outbox.entries" :key="e.key" class="border-t border-rule pt-2">
        <p class="font-semibold">{{ e.says }}</p>
        <p class="text-sm text-ink2">{{ when(e.at, shop.zone) }}, {{ e.problem ? '' : 'waiting for the server' }}<strong v-if="e.problem" class="text-stop">{{ e.problem.questions?.map(q => q.message).join(' ') ?? e.problem.title }}</strong></p>
        <p v-if="e.problem" class="mt-1 flex flex-wrap gap-2">
          <button v-if="e.problem.questions" type="button" class="button" @click="outbox.confirm(e)">Confirm and send</button>
          <button v-if="editable(e)" type="button" class="button" @click="edit(e)">Edit</button>
          <button type="button" class="button danger" @click="outbox.drop(e.key)">Withdraw</button>
        </p>
      </li>
    </ul>
    <button v-if="outbox.waiting" type="button" class="button mt-4" @click="outbox.replay()">Try now</button>
  </ModalSheet>
</template>
