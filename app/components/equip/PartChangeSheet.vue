<script setup lang="ts">
/** Fit or replace a part, or take one off: one change of the stack with its date. */
import { computed } from 'vue'
import type { StackPrinter, StoredPart } from '#shared/answers/printers'
import { cautionsFor } from '#core/cautions'
import { HEAD_ROLES, isKind, kindOf, type Role } from '#core/limits'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import { KIND_OPTIONS } from '~/components/equip/part-fields'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{
  /** What comes off, and whether something goes on; null while nothing is changed. */
  change: { off: StoredPart | null; add: boolean } | null
  printer: StackPrinter
  /** The head that is looked at. */
  headId: number | null
  shelf: readonly StoredPart[]
}>()
const emit = defineEmits<{ close: [] }>()

const onHead = (role: Role | null) => role !== null && (HEAD_ROLES as readonly string[]).includes(role)
const sheet = useEntrySheet('/api/changes', {
  on: () => props.change,
  name: c => `${props.printer.id} ${c.off?.id ?? 'new'} ${c.add}`,
  start: c => ({
    kind: '',
    headId: c.off?.headId ?? props.headId,
    text: c.off ? `${c.off.name} ${c.add ? 'replaced' : 'taken off'}` : '',
    occurredAt: new Date().toISOString(),
  }),
  body: (v, c): Record<string, unknown> => {
    const headId = onHead(role.value) ? v.headId : null
    return {
      printerId: props.printer.id,
      text: v.text || `${chosen.value} fitted`,
      occurredAt: v.occurredAt,
      remove: c.off ? [c.off.id] : [],
      fit: c.add && spare.value ? [{ partId: spare.value.id, headId }] : [],
      add: c.add && !spare.value ? [{ kind: v.kind, headId }] : [],
    }
  },
  says: () => `Change on ${props.printer.name}`,
  saved: (done, v) => `${done.printer}: ${v.text || chosen.value}. What came off is on the shelf.`,
  close: () => emit('close'),
})
const spare = computed((): StoredPart | null => props.shelf.find(s => `shelf ${s.id}` === sheet.v.kind) ?? null)
const chosen = computed((): string => spare.value?.name ?? sheet.v.kind)
const role = computed((): Role | null => {
  if (spare.value) return spare.value.role as Role
  return isKind(sheet.v.kind) ? kindOf(sheet.v.kind).role : null
})
const options = computed(() => {
  const off = props.change?.off ?? null
  return [
    { value: '', text: 'Choose a part' },
    ...props.shelf
      .filter(s => off === null || s.role === off.role)
      .map(s => ({
        value: `shelf ${s.id}`,
        text: `${s.name}${s.note ? `, ${s.note}` : ''}`,
        group: 'on the shelf',
      })),
    ...KIND_OPTIONS.filter(k => off === null || k.group === off.role),
  ]
})
const about = computed(() => {
  if (!isKind(sheet.v.kind)) return undefined
  const { limitC, note, after } = kindOf(sheet.v.kind)
  const limit = limitC === null ? '' : `start limit ${limitC} °C; `
  return `${limit}${note}. ${after ? `${after} ` : ''}Enter the data sheet's value afterwards.`
})
const kindError = computed(() =>
  Object.keys(sheet.errors).some(k => /^add\.\d+\.kind$/.test(k)) ? 'Choose the part' : undefined,
)
const cautions = computed(() => {
  const off = props.change?.off ?? null
  const wired = (isKind(sheet.v.kind) && kindOf(sheet.v.kind).who === 'electrician') || off?.details.mains
  return [
    ...cautionsFor({ action: 'fit a part', roles: [off?.role ?? '', role.value ?? ''] }),
    ...(wired ? cautionsFor({ action: 'wire' }) : []),
  ]
})
const title = computed(() => {
  if (!props.change?.off) return `Fit a part to ${props.printer.name}`
  return `${props.change.add ? 'Replace' : 'Take off'} ${props.change.off.name}`
})
</script>

<template>
  <EntrySheet :sheet="sheet" :title="title" action="Save" :shown="['text', 'occurredAt', 'add.0.kind']">
    <template v-if="change?.add">
      <FieldSelect
        id="change-kind"
        v-model="sheet.v.kind"
        :label="change.off ? 'By' : 'Part'"
        :options="options"
        :hint="about"
        :error="kindError"
      />
      <FieldSelect
        v-if="onHead(role) && printer.heads.length > 1"
        id="change-head"
        v-model="sheet.v.headId"
        label="Head"
        :options="printer.heads.map(h => ({ value: h.id as number | null, text: h.name }))"
      />
    </template>
    <FieldText
      id="change-text"
      v-model="sheet.v.text"
      label="What was done"
      :placeholder="chosen ? `${chosen} fitted` : ''"
      :error="sheet.errors.text"
    />
    <FieldWhen id="change-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
    <CautionList :cautions="cautions" title="While you do it" />
  </EntrySheet>
</template>
