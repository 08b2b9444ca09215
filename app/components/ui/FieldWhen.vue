<script setup lang="ts">
/** Date and time on the shop's clock; the value is ISO, or empty when it is none. */
import { fromField, toField } from '#shared/time'
import { useShop } from '~/state/shop'

const shop = useShop()
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
      :value="toField(modelValue, shop.zone)"
      :aria-invalid="!!error"
      :aria-describedby="error ? `${id}-say` : undefined"
      @change="$emit('update:modelValue', fromField(($event.target as HTMLInputElement).value, shop.zone) ?? '')"
    />
    <span v-if="error" :id="`${id}-say`" class="error">{{ error }}</span>
  </div>
</template>
