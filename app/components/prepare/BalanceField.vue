<script setup lang="ts">
/** A weight, typed or read from the balance. */
import { ref } from 'vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import { ProblemError, read } from '~/lib/api'
import { useLive } from '~/state/live'

const props = defineProps<{
  id: string
  label: string
  modelValue: number | null
  spoolId: number | null
  error?: string
  hint?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [v: number | null] }>()
const live = useLive()
live.listen()
const busy = ref(false)
const failure = ref('')

async function weigh(): Promise<void> {
  busy.value = true
  failure.value = ''
  try {
    emit(
      'update:modelValue',
      (await read('/api/balance', {}, props.spoolId === null ? {} : { spool: String(props.spoolId) })).grossG,
    )
  } catch (e) {
    failure.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer; type the weight'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="flex items-end gap-2">
    <FieldNumber
      :id="id"
      class="flex-1"
      :model-value="modelValue"
      :label="label"
      unit="g"
      :hint="hint"
      :error="failure || error"
      @update:model-value="x => emit('update:modelValue', x)"
    />
    <button v-if="live.links.balance" type="button" class="button mb-[22px]" :disabled="busy" @click="weigh">
      Read the balance
    </button>
  </div>
</template>
