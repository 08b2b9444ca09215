<script setup lang="ts">
/** The effect of a save, or why there was none, laid over the page until it is read. */
import { X } from '@lucide/vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { VERDICT_TEXT } from '~/words/verdict'

defineProps<{ text: string; kind: 'fine' | 'look' | 'stop' }>()
const emit = defineEmits<{ closeToast: [] }>()
</script>

<template>
  <div role="status" class="sheet flex items-start font-sans gap-2 py-1 pl-3 font-[650]" :class="VERDICT_TEXT[kind]">
    <VerdictMark :verdict="kind" class="mt-[9px] shrink-0" />
    <p class="flex-1 py-2 text-[14px]">{{ text }}</p>
    <button type="button" class="button plain" aria-label="Close" @click="emit('closeToast')">
      <X :size="18" aria-hidden="true" />
    </button>
  </div>
</template>
