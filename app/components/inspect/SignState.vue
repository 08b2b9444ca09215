<script setup lang="ts">
/** How a sign stands, by a person's word: there, looked for in vain, or not asked after all. */
import { SIGN_STATES } from '#core/diagnosis'
import { capital } from '#core/words'
import { STATE_WORDS } from '~/words/case'

const props = defineProps<{ sign: string; state: string; busy: boolean }>()
const emit = defineEmits<{ found: [sign: string, state: string] }>()
const pick = (e: Event) => emit('found', props.sign, (e.target as HTMLSelectElement).value)
</script>

<template>
  <select class="input no-print" :aria-label="capital(sign)" :disabled="busy" @change="pick">
    <option v-for="s in SIGN_STATES" :key="s" :value="s" :selected="s === state">{{ STATE_WORDS[s] }}</option>
  </select>
</template>
