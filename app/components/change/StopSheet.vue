<script setup lang="ts">
/** A procedure that stops here: why, and what that leaves. */
import { computed } from 'vue'
import type { ProcedurePage } from '#shared/answers/change'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ of: ProcedurePage }>()
const emit = defineEmits<{ close: [stopped: boolean] }>()
/** What it moves; null for a procedure that moves nothing. */
const moves = computed(() => props.of.swap ?? props.of.hotend)
const done = (step: string) => props.of.ticks.some(t => t.step === step && t.struck === null)
const sheet = useEntrySheet('/api/endings', {
  on: () => props.of,
  name: p => `stop ${p.id}`,
  start: () => ({ note: '' }),
  body: (v, p) => ({
    target: 'procedure',
    targetId: p.id,
    outcome: 'stopped early',
    note: v.note,
    occurredAt: new Date().toISOString(),
  }),
  says: (_, p) => `Stop: ${p.title}`,
  saved: (_, __, p) => `${p.title}: stopped.`,
  close: logged => emit('close', logged),
})
</script>

<template>
  <EntrySheet :sheet="sheet" title="Stop here" action="Stop it" give-up="Go on" danger :shown="['note']">
    <p v-if="of.kind === 'clog'">
      {{ of.printer }} is tagged out of service until its nozzle runs again, or another is in its place.
    </p>
    <p v-else-if="moves === null">
      {{ of.printer }} is tagged out of service until what is still missing has been proved.
    </p>
    <p v-else-if="done('in')">
      {{ moves.fresh.tag }} is logged as fitted, and {{ of.printer }} is tagged out of service:
      {{ of.hotend ? 'what is still missing has to be proved' : 'Z is not set' }}.
    </p>
    <p v-else-if="done('out')">
      {{ moves.old?.tag }} is logged as taken off, and {{ of.printer }} is tagged out of service: no
      {{ of.hotend ? 'hotend is on' : 'nozzle is in' }}.
    </p>
    <p v-else>Nothing was moved yet: nothing but this is logged.</p>
    <FieldText id="stop-why" v-model="sheet.v.note" label="Why it stops" :error="sheet.errors.note" />
  </EntrySheet>
</template>
