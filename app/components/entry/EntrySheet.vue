<script setup lang="ts">
/**
 * The frame of every sheet that saves something: its fields, what has no field of its own, questions, and the buttons.
 * Esc, Back and a click outside close it and keep what was typed; the second button forgets it.
 */
import { computed } from 'vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import type { Sheet } from '~/composables/sheet'

const props = withDefaults(
  defineProps<{
    sheet: Sheet<object>
    title: string
    /** What the first button does, in its own word. */
    action: string
    giveUp?: string
    danger?: boolean
    wide?: boolean
    /** Something is missing without which it cannot be saved. */
    blocked?: boolean
    /** Fields that show their error themselves; those of all others are listed here. */
    shown: readonly string[]
  }>(),
  { giveUp: 'Cancel', danger: false, wide: false, blocked: false },
)
/** The first button was pressed, and no other. */
const emit = defineEmits<{ first: [] }>()
function submit(): void {
  emit('first')
  void props.sheet.save()
}
const elsewhere = computed(() => [
  ...new Set(
    Object.entries(props.sheet.errors)
      .filter(([field]) => !props.shown.includes(field))
      .map(([, message]) => message),
  ),
])
</script>

<template>
  <ModalSheet :open="sheet.open" :title="title" :wide="wide" @close="sheet.close()">
    <form class="grid grid-cols-[minmax(0,1fr)] gap-3" @submit.prevent="submit">
      <p v-if="sheet.kept" role="status" class="flex flex-wrap items-center gap-x-3 text-sm">
        What you typed before is still here.
        <button type="button" class="button plain" @click="sheet.again()">Start again</button>
      </p>
      <slot />
      <p v-for="e in elsewhere" :key="e" class="font-semibold text-stop" role="alert">{{ e }}</p>
      <QuestionBox :problem="sheet.problem" :busy="sheet.busy" @confirm="sheet.save" @local="sheet.dismiss()" />
      <div class="flex flex-wrap gap-2">
        <button type="submit" class="button" :class="danger ? 'danger' : 'first'" :disabled="sheet.busy || blocked">
          {{ action }}</button><slot name="more" /><button type="button" class="button" @click="sheet.giveUp()">
          {{ giveUp }}
        </button>
      </div>
      <slot name="after" />
    </form>
  </ModalSheet>
</template>
