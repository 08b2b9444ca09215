<script setup lang="ts">
/** Retire a nozzle with a reason, or only take it off its head. */
import { ref, watch } from 'vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useUi } from '~/state/ui'

const props = defineProps<{
  nozzle: { id: number; tag: string; place: string | null } | null
  kind: 'retire' | 'remove'
}>()
const emit = defineEmits<{ close: [] }>()
const ui = useUi()
const form = useEntryForm('/api/fittings')
const reason = ref('')
const at = ref('')
// by its id: the page is read anew after every save anywhere, and what is typed here must outlast that
watch(
  () => props.nozzle?.id,
  () => {
    reason.value = ''
    at.value = new Date().toISOString()
    form.reset()
  },
)

async function save(confirmed: string[] = []): Promise<void> {
  if (!props.nozzle) return
  const done = await form.send(
    { kind: props.kind, nozzleId: props.nozzle.id, reason: reason.value, occurredAt: at.value },
    `${props.kind === 'retire' ? 'Retire' : 'Take off'} ${props.nozzle.tag}`,
    confirmed,
  )
  if (done === null) return
  if (done !== 'queued')
    ui.say(
      props.kind === 'retire'
        ? `${props.nozzle.tag} is retired${props.nozzle.place ? ` and off ${props.nozzle.place}` : ''}. Its ` +
            `record stays.`
        : `${props.nozzle.tag} is off ${props.nozzle.place} and on the shelf.`,
    )
  emit('close')
}
</script>

<template>
  <ModalSheet
    :open="nozzle !== null"
    :title="`${kind === 'retire' ? 'Retire' : 'Take off'} ${nozzle?.tag ?? ''}`"
    @close="emit('close')"
  >
    <form v-if="nozzle" class="grid gap-3" @submit.prevent="save()">
      <p v-if="kind === 'remove'" class="border-l-4 border-look pl-3 text-sm">
        <b>Hot enough to burn at once.</b> Heat first so that residue melts, hold the block with a second wrench, never
        by bare hand. The maker's manual comes first.
      </p>
      <p v-else-if="nozzle.place">It is fitted to {{ nozzle.place }} and comes off with this.</p>
      <FieldText
        id="retire-reason"
        v-model="reason"
        label="Reason"
        :list="[
          'bore past the limit',
          'worn oval',
          'tip damaged',
          'insert came out',
          'cracked plating',
          'clogged',
          'lost',
        ]"
        :error="form.errors.value.reason"
      />
      <FieldWhen id="retire-when" v-model="at" label="When" :error="form.errors.value.occurredAt" />
      <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
      <div class="flex gap-2">
        <button type="submit" class="button danger" :disabled="form.busy.value">
          {{ kind === 'retire' ? 'Retire' : 'Take off' }}</button><button
          type="button"
          class="button"
          @click="emit('close')"
        >
          Cancel
        </button>
      </div>
    </form>
  </ModalSheet>
</template>
