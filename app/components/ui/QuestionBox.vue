<script setup lang="ts">
/** Something unusual that a person may confirm, or choose an answer to; or a refusal that belongs to no field. */
import { computed, nextTick, ref, watch } from 'vue'
import type { Problem } from '#shared/problem'

const props = defineProps<{ problem: Problem | null; busy?: boolean }>()
/** `codes` answer every question; `local` are chosen answers that change the entry instead, for the form to do. */
const emit = defineEmits<{ confirm: [codes: string[]]; local: [code: string] }>()

const questions = computed(() => props.problem?.questions ?? [])
const chosen = ref<Record<string, string>>({})
const box = ref<HTMLElement | null>(null)
watch(
  () => props.problem,
  () => {
    chosen.value = {}
    // at the foot of a long sheet it would be out of sight
    void nextTick(() => box.value?.scrollIntoView({ block: 'nearest' }))
  },
)
const choiceOf = (code: string) =>
  questions.value.find(q => q.code === code)?.choices?.find(c => c.code === chosen.value[code])
const complete = computed(() => questions.value.every(q => !q.choices || choiceOf(q.code)))
const local = computed(() => questions.value.map(q => choiceOf(q.code)).find(c => c?.local) ?? null)

const goWords = computed(() => {
  if (!questions.value.some(q => q.choices)) return 'Yes, save it'
  return local.value ? 'Go on' : 'Do that and save'
})
function go(): void {
  if (local.value) emit('local', local.value.code)
  else
    emit(
      'confirm',
      questions.value.map(q => (q.choices ? chosen.value[q.code]! : q.code)),
    )
}
</script>

<template>
  <div
    v-if="problem && (problem.questions || !problem.errors)"
    ref="box"
    role="alert"
    class="border-2 p-3"
    :class="problem.questions ? 'border-look' : 'border-stop'"
  >
    <template v-if="problem.questions">
      <div v-for="q in questions" :key="q.code" class="mb-2">
        <p class="font-semibold text-look">{{ q.message }}</p>
        <ul v-if="q.items" class="ml-5 list-disc text-sm">
          <li v-for="i in q.items" :key="i">{{ i }}</li>
        </ul>
        <fieldset v-if="q.choices" class="mt-1">
          <legend class="sr-only">What does it mean?</legend>
          <label
            v-for="c in q.choices"
            :key="c.code"
            class="flex min-h-[40px] cursor-pointer items-start gap-2 py-[6px]"
          >
            <input v-model="chosen[q.code]" type="radio" class="mt-[3px]" :name="`answer-${q.code}`" :value="c.code" />
            <span
              >{{ c.label }}<span v-if="c.hint" class="block text-sm text-ink2">{{ c.hint }}</span></span
            >
          </label>
        </fieldset>
      </div>
      <button type="button" class="button" :disabled="busy || !complete" @click="go">
        {{ goWords }}
      </button>
      <span v-if="!complete" class="ml-2 text-sm text-ink2">Choose what it means first.</span>
    </template>
    <p v-else class="font-semibold text-stop">{{ problem.title }}{{ problem.detail ? `: ${problem.detail}` : '' }}</p>
  </div>
</template>
