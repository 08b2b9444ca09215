<script setup lang="ts">
/** What a printer is not used for, where a job is put on it. */
import { computed } from 'vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useShop } from '~/state/shop'

const props = defineProps<{ printerId: number | null }>()
const shop = useShop()
const list = computed(() => shop.data?.printers.find(p => p.id === props.printerId)?.restrictions ?? [])
</script>

<template>
  <p v-if="list.length > 0" class="flex items-start gap-2 text-sm font-[650] text-look">
    <VerdictMark verdict="look" :size="16" class="mt-[2px]" />{{ list.join('; ') }}
  </p>
</template>
