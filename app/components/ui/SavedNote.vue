<script setup lang="ts">
/** What was saved, where the form stood that saved it, with the next thing to do beside it. */
import { computed, onMounted, ref } from 'vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { VERDICT_TEXT } from '~/words/verdict'

const props = defineProps<{
  /** What was entered: "run cable guide". */
  of: string
  /** What it did; null while it is only kept, to be sent later. */
  text: string | null
  /** Something about it wants a look. */
  look: boolean
}>()
const title = computed(() => `${props.text === null ? 'Kept' : 'Saved'}: ${props.of}`)
const kind = computed(() => (props.look || props.text === null ? 'look' : 'fine'))
const box = ref<HTMLElement | null>(null)
// the eye is where the button was: nobody has to look for whether it was saved
onMounted(() => {
  box.value?.focus({ preventScroll: true })
  box.value?.scrollIntoView({ block: 'center' })
})
</script>

<template>
  <section ref="box" class="sheet grid gap-2 border-2 border-ink p-3" tabindex="-1" :aria-label="title">
    <h2 class="flex items-center gap-2" :class="VERDICT_TEXT[kind]">
      <VerdictMark :verdict="kind" :size="18" />{{ title }}
    </h2>
    <p role="status" class="text-[15px] font-[650]">
      {{ text ?? 'It is kept here and sent when the server answers; it counts once. Do not enter it again.' }}
    </p>
    <div class="flex flex-wrap gap-2"><slot /></div>
  </section>
</template>
