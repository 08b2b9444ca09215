<script setup lang="ts">
/** The sentence that a screen leads with: its mark, what is so and why. */
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { VERDICT_TEXT } from '~/words/verdict'

defineProps<{ lead: { mark: 'fine' | 'look' | 'stop'; text: string } }>()
</script>

<template>
  <p
    class="mb-3 flex items-start gap-2 text-[17px] leading-snug font-[680]"
    :class="VERDICT_TEXT[lead.mark]"
    role="status"
  >
    <VerdictMark :verdict="lead.mark" :size="20" class="mt-[2px]" />{{ lead.text }}
  </p>
</template>
