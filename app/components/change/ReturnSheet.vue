<script setup lang="ts">
/** Puts a printer back into service: each thing that had to be proved says how it was. */
import type { TagLine } from '#shared/answers/change'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ of: TagLine }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/endings', {
  on: () => props.of,
  name: t => `return ${t.id}`,
  start: t => ({ how: t.must.map(() => ''), note: '' }),
  body: (v, t) => ({
    target: 'out of service',
    targetId: t.id,
    proved: t.must.map((what, i) => ({ what, how: v.how[i] ?? '' })),
    note: v.note,
    occurredAt: new Date().toISOString(),
  }),
  says: (_, t) => `${t.printer} back in service`,
  saved: (_, __, t) => `${t.printer} is back in service. Take the tag off it.`,
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`${of.printer} back into service`"
    action="Back into service"
    :shown="['note', ...of.must.map((_, i) => `proved.${i}.how`)]"
  >
    <p>
      Out of service since {{ of.by }} tagged it: <b>{{ of.why }}</b>
    </p>
    <FieldText
      v-for="(what, i) in of.must"
      :id="`proved-${i}`"
      :key="what"
      v-model="sheet.v.how[i]!"
      :label="what"
      placeholder="how it was proved, and what it showed"
      :error="sheet.errors[`proved.${i}.how`]"
    />
    <FieldText
      id="return-note"
      v-model="sheet.v.note"
      :label="of.must.length > 0 ? 'Note (if you like)' : 'Why it may run again'"
      :error="sheet.errors.note"
    />
  </EntrySheet>
</template>
