<script setup lang="ts">
/** A number with its unit; takes comma or point, keeps what was typed, shows its error underneath. */
import { computed, ref, watch } from 'vue'
import { typedNumber } from '~/words/numbers'

const props = defineProps<{
  id: string
  label: string
  unit?: string
  modelValue: number | null
  error?: string
  hint?: string
  placeholder?: string
  /** In a table, whose headings say what it is: the label is for those who cannot see them. */
  bare?: boolean
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number | null]; 'blur': [] }>()
const text = ref(props.modelValue === null || Number.isNaN(props.modelValue) ? '' : String(props.modelValue))
const bad = computed(() => (Number.isNaN(typedNumber(text.value)) ? 'Not a number; for example 0.43 or 0,43' : ''))
watch(
  () => props.modelValue,
  v => {
    const typed = typedNumber(text.value)
    if (v !== typed && !(Number.isNaN(v ?? 0) && Number.isNaN(typed ?? 0))) text.value = v === null ? '' : String(v)
  },
)
function input(value: string): void {
  text.value = value
  emit('update:modelValue', typedNumber(value))
}
const shown = computed(() => bad.value || props.error || '')
</script>

<template>
  <div class="field">
    <label :for="id" :class="bare ? 'sr-only' : ''">{{ label }}{{ unit ? `, ${unit}` : '' }}</label>
    <input
      :id="id"
      class="input"
      inputmode="decimal"
      autocomplete="off"
      :value="text"
      :placeholder="placeholder"
      :aria-invalid="shown !== ''"
      :aria-describedby="shown || hint ? `${id}-say` : undefined"
      @input="input(($event.target as HTMLInputElement).value)"
      @blur="$emit('blur')"
    />
    <span v-if="shown" :id="`${id}-say`" class="error">{{ shown }}</span>
    <span v-else-if="hint" :id="`${id}-say`" class="text-xs text-ink2">{{ hint }}</span>
  </div>
</template>
