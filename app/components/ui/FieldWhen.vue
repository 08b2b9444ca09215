<script setup lang="ts">
/** Date and time in the browser's own zone; the value is ISO, or empty when it is none. */
import { fromLocalField, toLocalField } from '~/words/numbers'

defineProps<{ id: string; label: string; modelValue: string; error?: string }>()
defineEmits<{ 'update:modelValue': [iso: string] }>()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <input
      :id="id"
      class="input"
      type="datetime-local"
      :value="modelValue ? toLocalField(new Date(modelValue)) : ''"
      :aria-invalid="!!error"
      :aria-describedby="error ? `${id}-say` : undefined"
      @change="$emit('update:modelValue', fromLocalField(($event.target as HTMLInputElement).value) ?? '')"
    />
    <span v-if="error" :id="`${id}-say`" class="error">{{ error }}</span>
  </div>
</template>
