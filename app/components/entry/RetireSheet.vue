<script setup lang="ts">
/** Retire a nozzle with a reason, or only take it off its head. */
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{
  nozzle: { id: number; tag: string; place: string | null } | null
  kind: 'retire' | 'remove'
}>()
const emit = defineEmits<{ close: [] }>()
const WORD = { retire: 'Retire', remove: 'Take off' } as const
const sheet = useEntrySheet('/api/fittings', {
  on: () => props.nozzle,
  name: n => `${props.kind} ${n.id}`,
  start: () => ({ reason: '', occurredAt: new Date().toISOString() }),
  body: (v, n) => ({ kind: props.kind, nozzleId: n.id, ...v }),
  says: (_, n) => `${WORD[props.kind]} ${n.tag}`,
  saved: (_done, _, n) => {
    if (props.kind === 'remove') return `${n.tag} is off ${n.place} and on the shelf.`
    return `${n.tag} is retired${n.place ? ` and off ${n.place}` : ''}. Its record stays.`
  },
  close: () => emit('close'),
})
const REASONS = [
  'bore past the limit',
  'worn oval',
  'tip damaged',
  'insert came out',
  'cracked plating',
  'clogged',
  'lost',
]
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`${WORD[kind]} ${nozzle?.tag ?? ''}`"
    :action="WORD[kind]"
    danger
    :shown="['reason', 'occurredAt']"
  >
    <p v-if="kind === 'remove'" class="border-l-4 border-look pl-3 text-sm">
      <b>Hot enough to burn at once.</b> Heat first so that residue melts, hold the block with a second wrench, never by
      bare hand. The maker's manual comes first.
    </p>
    <p v-else-if="nozzle?.place">It is fitted to {{ nozzle.place }} and comes off with this.</p>
    <FieldText
      id="retire-reason"
      v-model="sheet.v.reason"
      label="Reason"
      :list="REASONS"
      :error="sheet.errors.reason"
    />
    <FieldWhen id="retire-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
  </EntrySheet>
</template>
