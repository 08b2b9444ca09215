<script setup lang="ts">
/** Strike out an entry with a reason; it stays readable. */
import { ref, watch } from 'vue'
import type { StrikeEntry } from '#shared/entries/log'
import FieldText from '~/components/ui/FieldText.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useUi } from '~/state/ui'

const props = defineProps<{ target: { target: StrikeEntry['target']; id: number; says: string } | null }>()
const emit = defineEmits<{ close: [] }>()
const ui = useUi()
const form = useEntryForm('/api/strikes')
const reason = ref('')
watch(
  () => props.target,
  () => {
    reason.value = ''
    form.reset()
  },
)

async function save(confirmed: string[] = []): Promise<void> {
  if (!props.target) return
  const done = await form.send(
    { target: props.target.target, targetId: props.target.id, reason: reason.value },
    `Strike out ${props.target.says}`,
    confirmed,
  )
  if (done === null) return
  if (done !== 'queued')
    ui.say(
      `${props.target.says} is struck out and stays readable` +
        `${done.nozzles.length ? `; ${done.nozzles.join(', ')} reckoned anew` : ''}.`,
    )
  emit('close')
}
</script>

<template>
  <ModalSheet :open="target !== null" title="Strike out" @close="emit('close')">
    <form v-if="target" class="grid gap-3" @submit.prevent="save()">
      <p>
        {{ target.says }} will stay readable, crossed out, and count no more. To correct it, strike it out and enter it
        again.
      </p>
      <FieldText
        id="strike-reason"
        v-model="reason"
        label="Reason"
        placeholder="logged twice"
        :error="form.errors.value.reason ?? form.errors.value.targetId"
      />
      <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
      <div class="flex gap-2">
        <button type="submit" class="button danger" :disabled="form.busy.value">Strike out</button
        ><button type="button" class="button" @click="emit('close')">Keep it</button>
      </div>
    </form>
  </ModalSheet>
</template>
