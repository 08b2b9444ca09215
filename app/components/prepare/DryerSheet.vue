<script setup lang="ts">
/** Add a dryer, or edit one. */
import type { DryerRow } from '#shared/answers/prepare'
import { ENTERED_BASES as BASES } from '#shared/choices'
import { DRYER_KINDS } from '#core/drying'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import type { FormField, OpenRecord } from '~/components/stores/form-field'
import { computed } from 'vue'
import { useShop } from '~/state/shop'

const props = defineProps<{ open: boolean; dryer: DryerRow | null }>()
defineEmits<{ close: [] }>()
const shop = useShop()
const fields = computed<FormField[]>(() => [
  { key: 'name', label: 'Name', kind: 'text', hint: 'as the shop calls it' },
  {
    key: 'kind',
    label: 'Kind',
    kind: 'select',
    options: DRYER_KINDS.map(k => ({
      value: k,
      text: {
        'vented': 'vented: heats room air',
        'desiccant': 'sealed, with desiccant',
        'vacuum': 'vacuum: heats in thinned air',
        'bed under a cover': "a printer's bed under a cover",
        'oven': 'oven (never for food again)',
      }[k],
    })),
  },
  {
    key: 'printerId',
    label: 'Whose bed',
    kind: 'select',
    options: [
      { value: null as unknown as string, text: 'Choose the printer' },
      ...(shop.data?.printers ?? []).map(p => ({ value: p.id as unknown as string, text: p.name })),
    ],
    when: v => v.kind === 'bed under a cover',
  },
  { key: 'ceilingC', label: 'Hottest setting', kind: 'number', unit: '°C' },
  { key: 'timeOutH', label: 'Switches itself off after', kind: 'number', unit: 'h', hint: 'empty: it does not' },
  { key: 'basis', label: 'Basis', kind: 'select', options: BASES.map(value => ({ value, text: value })) },
  { key: 'note', label: 'Note', kind: 'text' },
  ...(props.dryer ? [{ key: 'withdrawn', label: 'No longer in use', kind: 'check' as const }] : []),
])
const start = computed(() =>
  props.dryer
    ? { ...props.dryer }
    : {
        name: '',
        kind: 'vented',
        printerId: null,
        ceilingC: null,
        timeOutH: null,
        basis: 'nameplate',
        note: '',
        withdrawn: false,
      },
)
const record = computed<OpenRecord | null>(() => {
  if (!props.open) return null
  const d = props.dryer
  return {
    title: d ? `Dryer ${d.name}` : 'Add a dryer',
    fields: fields.value,
    start: start.value,
    says: v => `Dryer ${String(v.name)}`,
    ...(d ? { edit: { kind: 'dryers', id: d.id, version: d.version } } : { route: '/api/dryers' }),
  }
})
</script>

<template>
  <RecordSheet :open="record" @close="$emit('close')" />
</template>
