<script setup lang="ts" generic="T extends string | number | null">
/** The system's own list: works with keyboard, touch and gloves everywhere. */
const props = defineProps<{
  id: string
  label: string
  modelValue: T
  options: readonly { value: T; text: string }[]
  error?: string
  hint?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
function pick(e: Event): void {
  const option = props.options[(e.target as HTMLSelectElement).selectedIndex]
  if (option) emit('update:modelValue', option.value)
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <select
      :id="id"
      class="input"
      :aria-invalid="!!error"
      :aria-describedby="error || hint ? `${id}-say` : undefined"
      @change="pick"
    >
      <option v-for="o in options" :key="String(o.value)" :selected="o.value === modelValue">{{ o.text }}</option>
    </select>
    <span v-if="error" :id="`${id}-say`" class="error">{{ error }}</span>
    <span v-else-if="hint" :id="`${id}-say`" class="text-xs text-ink2">{{ hint }}</span>
  </div>
</template>
