<script setup lang="ts">
/** A change of the hotend that is done already: which came off, which is on. */
import { computed } from 'vue'
import type { HotendNow } from '#shared/answers/hotends'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{
  on: { printerId: number; headId: number; place: string; tag: string | null } | null
  /** On the shelf, and taken by nobody. */
  shelf: readonly HotendNow[]
}>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/changes', {
  on: () => props.on,
  name: o => `hotend of ${o.headId}`,
  start: () => ({ hotendId: '' as number | null | '', text: '', occurredAt: new Date().toISOString() }),
  body: (v, o) => ({
    printerId: o.printerId,
    text: v.text || said.value,
    hotends: [{ headId: o.headId, hotendId: v.hotendId }],
    occurredAt: v.occurredAt,
  }),
  says: (_, o) => `Hotend of ${o.place}`,
  saved: done => `${done.printer}: ${said.value}. Its sensor is unchecked there; prove runaway protection and cut-out.`,
  close: () => emit('close'),
})
const fresh = computed((): HotendNow | null => props.shelf.find(h => h.id === sheet.v.hotendId) ?? null)
const said = computed((): string =>
  [...(props.on?.tag ? [`${props.on.tag} off`] : []), ...(fresh.value ? [`${fresh.value.tag} on`] : [])].join(', '),
)
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`Hotend of ${on?.place ?? ''}`"
    action="Log it"
    :shown="['text', 'occurredAt', 'hotends.0.hotendId', 'remove']"
  >
    <p class="border-l-4 border-look pl-3 text-sm">
      For one that is on already. Step by step it also asks for plugs, sensor type, ceiling, loop and the proofs.
    </p>
    <FieldSelect
      id="log-hotend"
      v-model="sheet.v.hotendId"
      label="On it now"
      :options="[
        { value: '', text: 'Choose' },
        ...shelf.map(h => ({
          value: h.id as number | null | '',
          text: `${h.tag}, ${h.nozzle ? `with ${h.nozzle.tag}` : 'no nozzle'}`,
        })),
        { value: null, text: 'None: the head is empty' },
      ]"
      :error="sheet.errors['hotends.0.hotendId'] ?? sheet.errors.remove"
    />
    <FieldText
      id="log-hotend-text"
      v-model="sheet.v.text"
      label="What was done"
      :placeholder="said"
      :error="sheet.errors.text"
    />
    <FieldWhen id="log-hotend-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
  </EntrySheet>
</template>
