<script setup lang="ts">
/** A weight, typed or read from the balance. */
import FieldNumber from '~/components/ui/FieldNumber.vue'
import { useBalance } from '~/composables/balance'
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
const balance = useBalance()
const { busy, failure } = balance

async function weigh(): Promise<void> {
  const g = await balance.weigh(props.spoolId === null ? {} : { spool: String(props.spoolId) })
  if (g !== null) emit('update:modelValue', g)
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
