<script setup lang="ts">
/** Something that happened to a spool, with its own time, air or weight. */
import { computed } from 'vue'
import type { EnteredOf } from '#shared/answers/again'
import type { SpoolState } from '#shared/answers/spools'
import { SPOOL_HAPPENINGS, type SpoolKind } from '#shared/choices'
import AgainBox from '~/components/entry/AgainBox.vue'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import BalanceField from '~/components/prepare/BalanceField.vue'
import { SPOOL_CHOICES } from '~/components/stores/fields'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { inPlaceOf } from '~/composables/again'
import { useEntrySheet } from '~/composables/entry-sheet'
import { useShop } from '~/state/shop'

const props = defineProps<{
  spool: SpoolState | null
  /** The entry that this one takes the place of. */
  again?: EnteredOf<'spool event'> | null
}>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()
const heads = computed(() => [
  { value: null as number | null, text: 'Which printer' },
  ...(shop.data?.printers ?? []).flatMap(p =>
    p.heads.map(h => ({ value: h.id as number | null, text: p.heads.length > 1 ? `${p.name}, ${h.name}` : p.name })),
  ),
])
/** Where it goes into air of which something may be known. */
const intoAir = (kind: SpoolKind) => kind === 'out' || kind === 'in' || kind === 'loaded'

function entered() {
  if (!props.again) return {}
  const { kind, headId, roomC, rh, atC, hours, grossG, note, occurredAt } = props.again.body
  return { kind, headId, roomC, rh, atC, hours, grossG, note, occurredAt }
}
const sheet = useEntrySheet('/api/spool-events', {
  on: () => props.spool,
  name: s => (props.again ? `again ${props.again.id}` : String(s.id)),
  start: s => ({
    kind: (s.place === 'sealed' ? 'opened' : 'out') as SpoolKind,
    headId: null as number | null,
    roomC: null as number | null,
    rh: null as number | null,
    atC: null as number | null,
    hours: null as number | null,
    grossG: null as number | null,
    note: '',
    occurredAt: new Date().toISOString(),
    ...entered(),
    reason: '',
  }),
  body: (v, s) => ({
    spoolId: s.id,
    kind: v.kind,
    headId: v.kind === 'loaded' ? v.headId : null,
    roomC: intoAir(v.kind) ? v.roomC : null,
    rh: intoAir(v.kind) ? v.rh : null,
    atC: v.kind === 'dried' ? v.atC : null,
    hours: v.kind === 'dried' ? v.hours : null,
    grossG: v.kind === 'weighed' ? v.grossG : null,
    note: v.note,
    occurredAt: v.occurredAt,
    replaces: inPlaceOf(props.again?.id, v.reason),
  }),
  says: (v, s) => `Spool ${s.tag} ${SPOOL_HAPPENINGS[v.kind].text}`,
  saved: (done, v, s) => {
    const left = v.kind === 'weighed' ? `; ${done.leftG.toFixed(0)} g left` : ''
    return `${s.tag}: ${SPOOL_HAPPENINGS[v.kind].text}${left}.`
  },
  close: () => emit('close'),
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`Spool ${spool?.tag ?? ''}`"
    action="Save"
    :shown="['occurredAt', 'headId', 'roomC', 'rh', 'atC', 'hours', 'grossG', 'note', 'replaces.reason']"
  >
    <AgainBox
      v-if="again"
      kind="spool event"
      v-model="sheet.v.reason"
      :old="again"
      :error="sheet.errors['replaces.reason']"
    />
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldSelect id="event-kind" v-model="sheet.v.kind" label="What happened" :options="SPOOL_CHOICES" />
      <FieldWhen id="event-when" v-model="sheet.v.occurredAt" label="When" :error="sheet.errors.occurredAt" />
      <FieldSelect
        v-if="sheet.v.kind === 'loaded'"
        id="event-head"
        v-model="sheet.v.headId"
        label="On which head"
        :options="heads"
        :error="sheet.errors.headId"
      />
      <template v-if="intoAir(sheet.v.kind)">
        <FieldNumber
          id="event-c"
          v-model="sheet.v.roomC"
          label="Air there"
          unit="°C"
          hint="empty: as usual"
          :error="sheet.errors.roomC"
        />
        <FieldNumber
          id="event-rh"
          v-model="sheet.v.rh"
          label="Humidity there"
          unit="%"
          hint="empty: as usual"
          :error="sheet.errors.rh"
        />
      </template>
      <template v-if="sheet.v.kind === 'dried'">
        <FieldNumber id="event-at" v-model="sheet.v.atC" label="Temperature" unit="°C" :error="sheet.errors.atC" />
        <FieldNumber
          id="event-hours"
          v-model="sheet.v.hours"
          label="Duration"
          unit="h"
          hint="it ended at the time above"
          :error="sheet.errors.hours"
        />
      </template>
      <BalanceField
        v-if="sheet.v.kind === 'weighed'"
        id="event-gross"
        v-model="sheet.v.grossG"
        class="sm:col-span-2"
        label="Weighs, with its spool"
        :spool-id="spool?.id ?? null"
        :error="sheet.errors.grossG"
      />
    </div>
    <FieldText id="event-note" v-model="sheet.v.note" label="Note" :error="sheet.errors.note" />
  </EntrySheet>
</template>
