<script setup lang="ts">
/** Fit a nozzle to a head: from the printer's column on the Floor, or from Stores. */
import { computed } from 'vue'
import { cautionsFor } from '#core/cautions'
import type { EnteredOf } from '#shared/answers/again'
import AgainBox from '~/components/entry/AgainBox.vue'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { inPlaceOf } from '~/composables/again'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useShop, type ShopData } from '~/state/shop'
import { leftOn, shelfOf } from '~/words/nozzle'

const props = defineProps<{
  headId: number | null
  nozzleId?: number | null
  /** The fitting that this one takes the place of. */
  again?: EnteredOf<'fitting'> | null
}>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
/** A nozzle is turned hot: 220 °C at the least. */
const CAUTIONS = cautionsFor({ action: 'swap a nozzle', nozzleC: 220 })

const heads = computed(() =>
  (shop.data?.printers ?? []).flatMap(p =>
    p.heads.map(h => ({
      value: h.id as number | null,
      text: `${p.name}${p.heads.length > 1 ? ` · ${h.name}` : ''}${h.nozzle ? `, now ${h.nozzle}` : ''}`,
    })),
  ),
)
const nozzleWords = (n: ShopData['nozzles'][number]) =>
  `${n.tag}, ${n.typeName}, ${n.place ? `on ${n.place}` : shelfOf(n)}${leftOn(n)}`
const nozzles = computed(() => [
  { value: null as number | null, text: 'Choose a nozzle' },
  ...(shop.data?.nozzles ?? [])
    .filter(n => !n.retired)
    .sort((a, b) => Number(!!(a.place ?? a.hotend)) - Number(!!(b.place ?? b.hotend)) || a.tag.localeCompare(b.tag))
    .map(n => ({
      value: n.id as number | null,
      text: nozzleWords(n),
    })),
])
const headName = (id: number | null) => heads.value.find(h => h.value === id)?.text.split(',')[0] ?? ''

const sheet = useEntrySheet('/api/fittings', {
  on: () => (props.headId === null && (props.nozzleId ?? null) === null && !props.again ? null : props),
  name: p => (p.again ? `again ${p.again.id}` : `fit ${p.headId ?? ''} ${p.nozzleId ?? ''}`),
  start: p => ({
    headId: p.again ? p.again.body.headId : p.headId,
    nozzleId: p.again?.body.nozzleId ?? p.nozzleId ?? null,
    occurredAt: p.again?.at ?? new Date().toISOString(),
    reason: '',
  }),
  body: ({ reason, ...v }) => ({ kind: 'fit', ...v, replaces: inPlaceOf(props.again?.id, reason) }),
  says: v => `Fit ${shop.data?.nozzles.find(n => n.id === v.nozzleId)?.tag ?? 'nozzle'} to ${headName(v.headId)}`,
  saved: (done, v) => {
    const off = done.removed ? `; ${done.removed} came off` : ''
    return `${done.tag} is fitted to ${headName(v.headId)}${off}. Re-set Z before the next job.`
  },
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    title="Fit a nozzle"
    action="Fit"
    :shown="['headId', 'nozzleId', 'occurredAt', 'replaces.reason']"
  >
    <AgainBox
      v-if="again"
      kind="fitting"
      v-model="sheet.v.reason"
      :old="again"
      :error="sheet.errors['replaces.reason']"
    />
    <CautionList v-if="!again" :cautions="CAUTIONS" title="While you do it" />
    <p class="text-sm">A longer nozzle can hit the bed: raise Z before homing.</p>
    <FieldSelect
      id="fit-head"
      v-model="sheet.v.headId"
      label="Head"
      :options="[{ value: null, text: 'Choose a head' }, ...heads]"
      :error="sheet.errors.headId"
    />
    <FieldSelect
      id="fit-nozzle"
      v-model="sheet.v.nozzleId"
      label="Nozzle"
      :options="nozzles"
      :error="sheet.errors.nozzleId"
    />
    <FieldWhen id="fit-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
  </EntrySheet>
</template>
