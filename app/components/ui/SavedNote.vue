<script setup lang="ts">
/** What was saved, where the form stood that saved it, with the next thing to do beside it. */
import { onMounted, ref } from 'vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { VERDICT_TEXT } from '~/words/verdict'

defineProps<{ title: string; text: string; kind?: 'fine' | 'look' }>()
const box = ref<HTMLElement | null>(null)
// the eye is where the button was: nobody has to look for whether it was saved
onMounted(() => {
  box.value?.focus({ preventScroll: true })
  box.value?.scrollIntoView({ block: 'center' })
})
</script>

<template>
  <section ref="box" class="sheet grid gap-2 border-2 border-ink p-3" tabindex="-1" :aria-label="title">
    <h2 class="flex items-center gap-2" :class="VERDICT_TEXT[kind ?? 'fine']">
      <VerdictMark :verdict="kind ?? 'fine'" :size="18" />{{ title }}
    </h2>
    <p role="status" class="text-[15px] font-[650]">{{ text }}</p>
    <div class="flex flex-wrap gap-2"><slot /></div>
  </section>
</template>
