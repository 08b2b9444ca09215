<script setup lang="ts">
/** A picture taken or chosen, made small here; kept in base64 until it is sent. */
import { ref } from 'vue'
import { shrunk } from '~/lib/shrink'

defineProps<{ id: string; label: string; hint?: string; error?: string }>()
/** JPEG bytes in base64; null while there is none. */
const picture = defineModel<string | null>({ required: true })
const fault = ref('')
const busy = ref(false)

async function take(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  busy.value = true
  fault.value = ''
  try {
    picture.value = await shrunk(file)
  } catch (error) {
    fault.value = error instanceof Error ? error.message : String(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <img
      v-if="picture"
      :src="`data:image/jpeg;base64,${picture}`"
      alt="The picture that was taken"
      class="mb-1 max-h-[220px] w-auto max-w-full border border-ink"
    />
    <div class="flex flex-wrap items-center gap-2">
      <input
        :id="id"
        type="file"
        accept="image/*"
        capture="environment"
        class="input !h-auto max-w-full py-2"
        :aria-invalid="!!(error || fault)"
        :aria-describedby="`${id}-say`"
        @change="take"
      />
      <button v-if="picture" type="button" class="button plain" @click="picture = null">Leave it out</button>
    </div>
    <span v-if="error || fault" :id="`${id}-say`" class="error">{{ error || fault }}</span>
    <span v-else :id="`${id}-say`" class="text-xs text-ink2">{{ busy ? 'Making it small…' : hint }}</span>
  </div>
</template>
