<script setup lang="ts">
/** A part or a nozzle out of a hotend on the shelf, another one in. */
import { computed } from 'vue'
import type { HotendLine } from '#shared/answers/hotends'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import { intoEntry, nozzleOptions, partOptions } from '~/components/stores/hotend-choices'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEquip } from '~/composables/equip'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ hotend: HotendLine | null }>()
const emit = defineEmits<{ close: [] }>()
const { data } = useEquip()
const STAYS = 'stays'
const OUT = 'out'
const sheet = useEntrySheet('/api/assemblies', {
  on: () => props.hotend,
  name: h => `assembly ${h.id}`,
  start: () => ({
    outId: null as number | null,
    into: '',
    nozzle: STAYS as string,
    text: '',
    occurredAt: new Date().toISOString(),
  }),
  body: (v, h) => ({
    hotendId: h.id,
    text: v.text || said.value,
    out: v.outId === null ? [] : [v.outId],
    ...intoEntry([v.into]),
    nozzleOut: v.nozzle === OUT,
    nozzleId: [STAYS, OUT].includes(v.nozzle) ? null : Number(v.nozzle),
    occurredAt: v.occurredAt,
  }),
  says: (_, h) => `${h.tag}: what is inside`,
  saved: done => `${done.tag} is changed. What came out is on the shelf.`,
  close: () => emit('close'),
})
const nozzles = computed(() => [
  { value: STAYS, text: props.hotend?.nozzle ? `${props.hotend.nozzle.tag} stays` : 'None, as now' },
  ...(props.hotend?.nozzle ? [{ value: OUT, text: `${props.hotend.nozzle.tag} out, none in` }] : []),
  ...nozzleOptions(data.value).map(n => ({ value: String(n.value), text: `${n.text} in` })),
])
const ins = computed(() => [{ value: '', text: 'Nothing' }, ...partOptions(data.value)])
/** What was done, as the choices tell it. */
const said = computed((): string => {
  const out = props.hotend?.parts.find(p => p.id === sheet.v.outId)
  const nozzle = sheet.v.nozzle === STAYS ? undefined : nozzles.value.find(n => n.value === sheet.v.nozzle)?.text
  return [
    ...(out ? [`${out.name} out`] : []),
    ...(sheet.v.into ? [`${ins.value.find(o => o.value === sheet.v.into)?.text ?? ''} in`] : []),
    ...(nozzle ? [nozzle] : []),
  ].join(', ')
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`What is inside ${hotend?.tag ?? ''}`"
    action="Save"
    :shown="['text', 'occurredAt', 'nozzleId', 'nozzleOut', 'add', 'out.0', 'into.0']"
  >
    <FieldSelect
      id="assembly-out"
      v-model="sheet.v.outId"
      label="Take out"
      :options="[
        { value: null, text: 'Nothing' },
        ...(hotend?.parts ?? []).map(p => ({ value: p.id as number | null, text: `${p.name} (${p.role})` })),
      ]"
      :error="sheet.errors['out.0']"
    />
    <FieldSelect
      id="assembly-in"
      v-model="sheet.v.into"
      label="Put in"
      :options="ins"
      :error="sheet.errors.add ?? sheet.errors['into.0']"
    />
    <FieldSelect
      id="assembly-nozzle"
      v-model="sheet.v.nozzle"
      label="Nozzle"
      :options="nozzles"
      :error="sheet.errors.nozzleId ?? sheet.errors.nozzleOut"
    />
    <FieldText
      id="assembly-text"
      v-model="sheet.v.text"
      label="What was done"
      :placeholder="said || 'thermocouple replaced'"
      :error="sheet.errors.text"
    />
    <FieldWhen id="assembly-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
  </EntrySheet>
</template>
