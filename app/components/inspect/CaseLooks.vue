<script setup lang="ts">
/** What costs nothing but a look: signs that nobody asked after, the most telling first. */
import { SIGNS, type Sign } from '#core/diagnosis'
import { capital } from '#core/words'

defineProps<{ looks: readonly { sign: Sign; bits: number }[]; busy: boolean }>()
const emit = defineEmits<{ found: [sign: Sign, state: 'there' | 'not there'] }>()
</script>

<template>
  <section v-if="looks.length > 0" class="no-print grid gap-1" aria-labelledby="case-looks">
    <h3 id="case-looks" class="font-[650]">Look once more</h3>
    <div
      v-for="l in looks"
      :key="l.sign"
      class="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-faint py-1"
    >
      <p class="min-w-[180px] flex-1">
        {{ capital(l.sign) }}? <span class="text-sm text-ink2">{{ SIGNS[l.sign].reason }}</span>
      </p>
      <span class="flex gap-1" role="group" :aria-label="l.sign">
        <button type="button" class="button" :disabled="busy" @click="emit('found', l.sign, 'there')">
          Yes<span class="sr-only"> {{ l.sign }}</span></button
        ><button type="button" class="button" :disabled="busy" @click="emit('found', l.sign, 'not there')">
          No<span class="sr-only"> {{ l.sign }}</span>
        </button>
      </span>
    </div>
  </section>
</template>
