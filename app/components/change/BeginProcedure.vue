<script setup lang="ts">
/** The steps as they will be, and the button that begins them. */
import { watch } from 'vue'
import type { Step } from '#core/procedures'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useEntryForm } from '~/composables/entry-form'

const props = defineProps<{
  steps: readonly Step[]
  printer: string
  /** "Begin the swap". */
  action: string
  /** What is sent, but for the time. */
  body: Record<string, unknown>
  /** The entry in a person's words. */
  says: string
  /** Where one that is done already is logged. */
  already: string
}>()
const router = useRouter()
const form = useEntryForm('/api/procedures')
async function begin(confirmed: string[] = []): Promise<void> {
  const done = await form.send({ ...props.body, occurredAt: new Date().toISOString() }, props.says, confirmed)
  if (done !== null && done !== 'queued') await router.push(`/change/${done.id}`)
}
watch(
  () => JSON.stringify(props.body),
  () => form.reset(),
)
</script>

<template>
  <ol class="mt-2 ml-6 list-decimal text-sm">
    <li v-for="s in steps" :key="s.key">{{ s.title }}</li>
  </ol>
  <p v-for="e in Object.values(form.errors.value)" :key="e" class="mt-2 font-semibold text-stop" role="alert">
    {{ e }}
  </p>
  <QuestionBox
    class="mt-2"
    :problem="form.problem.value"
    :busy="form.busy.value"
    @confirm="begin"
    @local="form.reset()"
  />
  <button
    type="button"
    class="button first mt-3 w-full !min-h-[56px] !text-[17px]"
    :disabled="form.busy.value"
    @click="begin()"
  >
    {{ action }}
  </button>
  <p class="mt-1 text-xs text-ink2">
    From then on {{ printer }} is “not ready” until the last step is done. {{ already }}
  </p>
</template>
