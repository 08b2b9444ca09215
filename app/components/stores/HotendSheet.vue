<script setup lang="ts">
/** A hotend put together at the bench, with its parts and, best, a nozzle in it. */
import type { HOTEND_ROLES } from '#core/limits'
import { capital } from '#core/words'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import { intoEntry, nozzleOptions, partOptions } from '~/components/stores/hotend-choices'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEquip } from '~/composables/equip'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const { data } = useEquip()
/** In the order in which one is built; a sock goes on last. */
const ROLES = [
  'block',
  'heat break',
  'liner',
  'heater',
  'sensor',
  'sock',
] as const satisfies readonly (typeof HOTEND_ROLES)[number][]
const NONE: Partial<Record<(typeof ROLES)[number], string>> = { liner: 'None', sock: 'None' }
const sheet = useEntrySheet('/api/hotends', {
  on: () => (props.open ? true : null),
  name: () => 'hotend',
  start: () => ({
    'tag': '',
    'note': '',
    'block': '',
    'heat break': '',
    'liner': '',
    'heater': '',
    'sensor': '',
    'sock': '',
    'nozzleId': null as number | null,
    'occurredAt': new Date().toISOString(),
  }),
  body: v => ({
    tag: v.tag.trim() || null,
    note: v.note,
    ...intoEntry(ROLES.map(r => v[r])),
    nozzleId: v.nozzleId,
    occurredAt: v.occurredAt,
  }),
  says: v => `Hotend ${v.tag || 'put together'}`,
  saved: done => `${done.tag} is on the shelf. Enter what its parts are rated for under “What is inside”.`,
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    title="Put a hotend together"
    wide
    action="Put it on the shelf"
    :shown="['tag', 'note', 'nozzleId', 'occurredAt', 'add']"
  >
    <p class="text-sm">
      Cold, at the bench. The nozzle is tightened hot once it is on a printer; a step of the change sees to it.
    </p>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldText
        id="hotend-tag"
        v-model="sheet.v.tag"
        label="Tag"
        placeholder="the next that is free"
        :error="sheet.errors.tag"
      />
      <FieldSelect
        id="hotend-nozzle"
        v-model="sheet.v.nozzleId"
        label="Nozzle in it"
        :options="[{ value: null, text: 'None yet' }, ...nozzleOptions(data)]"
        :error="sheet.errors.nozzleId"
      />
      <FieldSelect
        v-for="r in ROLES"
        :id="`hotend-${r.replace(' ', '-')}`"
        :key="r"
        v-model="sheet.v[r]"
        :label="capital(r)"
        :options="[{ value: '', text: NONE[r] ?? 'Not described' }, ...partOptions(data, r)]"
      />
      <FieldText
        id="hotend-note"
        v-model="sheet.v.note"
        label="Note"
        placeholder="wired for Aire"
        :error="sheet.errors.note"
      />
      <FieldWhen id="hotend-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
    </div>
    <p v-if="sheet.errors.add" class="font-semibold text-stop" role="alert">{{ sheet.errors.add }}</p>
  </EntrySheet>
</template>
