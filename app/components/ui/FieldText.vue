<script setup lang="ts">
defineProps<{
  id: string
  label: string
  modelValue: string
  error?: string
  hint?: string
  placeholder?: string
  list?: string[]
}>()
defineEmits<{ 'update:modelValue': [value: string] }>()
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <input
      :id="id"
      class="input"
      autocomplete="off"
      :value="modelValue"
      :placeholder="placeholder"
      :list="list ? `${id}-list` : undefined"
      :aria-invalid="!!error"
      :aria-describedby="error || hint ? `${id}-say` : undefined"
      @input="$emit('update:modelValue', ($event.target as HTMLInputElement).value)"
    />
    <datalist v-if="list" :id="`${id}-list`"><option v-for="o in list" :key="o" :value="o" /></datalist>
    <span v-if="error" :id="`${id}-say`" class="error">{{ error }}</span>
    <span v-else-if="hint" :id="`${id}-say`" class="text-xs text-ink2">{{ hint }}</span>
  </div>
</template>
