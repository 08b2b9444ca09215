<script setup lang="ts" generic="T extends string | number | boolean | null">
/** The system's own list: works with keyboard, touch and gloves everywhere. Options of one group stand together. */
import { computed } from 'vue'

const props = defineProps<{
  id: string
  label: string
  modelValue: T
  options: readonly { value: T; text: string; group?: string }[]
  error?: string
  hint?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: T] }>()
/** Runs of options with the same group, in their order. */
const groups = computed(() => {
  const out: { name: string | undefined; options: (typeof props.options)[number][] }[] = []
  for (const o of props.options) {
    const last = out[out.length - 1]
    if (last && last.name === o.group) last.options.push(o)
    else out.push({ name: o.group, options: [o] })
  }
  return out
})
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
      <template v-for="(g, i) in groups" :key="i">
        <optgroup v-if="g.name" :label="g.name">
          <option v-for="o in g.options" :key="String(o.value)" :selected="o.value === modelValue">{{ o.text }}</option>
        </optgroup>
        <template v-else>
          <option v-for="o in g.options" :key="String(o.value)" :selected="o.value === modelValue">{{ o.text }}</option>
        </template>
      </template>
    </select>
    <span v-if="error" :id="`${id}-say`" class="error">{{ error }}</span>
    <span v-else-if="hint" :id="`${id}-say`" class="text-xs text-ink2">{{ hint }}</span>
  </div>
</template>
