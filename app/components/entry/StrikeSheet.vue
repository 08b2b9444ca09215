<script setup lang="ts">
/** Strike out an entry with a reason; it stays readable. */
import type { StrikeEntry } from '#shared/entries/log'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{
  /** `again`: where it is entered again with what is right, and struck out with that. */
  target: { target: StrikeEntry['target']; id: number; says: string; again?: string } | null
}>()
const emit = defineEmits<{ close: [struck: boolean] }>()
const sheet = useEntrySheet('/api/strikes', {
  on: () => props.target,
  name: t => `${t.target} ${t.id}`,
  start: () => ({ reason: '' }),
  body: (v, t) => ({ target: t.target, targetId: t.id, reason: v.reason }),
  says: (_, t) => `Strike out ${t.says}`,
  saved: (done, _, t) =>
    `${t.says} is struck out and stays readable` +
    `${done.nozzles.length ? `; ${done.nozzles.join(', ')} reckoned anew` : ''}.`,
  close: logged => emit('close', logged),
})
</script>

<template>
  <EntrySheet :sheet="sheet" title="Strike out" action="Strike out" give-up="Keep it" danger :shown="['reason']">
    <p>
      {{ target?.says }} will stay readable, crossed out, and count no more.
      <template v-if="!target?.again"> To correct it, strike it out and enter it again.</template>
    </p>
    <p v-if="target?.again">
      Only something in it is wrong?
      <NuxtLink :to="target.again" class="act" @click="emit('close', false)"
        >Enter it again with what is right</NuxtLink
      >
    </p>
    <FieldText
      id="strike-reason"
      v-model="sheet.v.reason"
      label="Reason"
      placeholder="logged twice"
      :error="sheet.errors.reason"
    />
  </EntrySheet>
</template>
