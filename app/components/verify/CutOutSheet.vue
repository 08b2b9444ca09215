<script setup lang="ts">
/** A test of what stops a heater: which, whether it tripped, and where. */
import { cautionsFor } from '#core/cautions'
import type { Guard } from '#core/chamber'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { options } from '~/components/verify/check-form'
import { useEntrySheet } from '~/composables/entry-sheet'
import { sent } from '~/words/numbers'

const props = defineProps<{ printer: { id: number; name: string }; guards: readonly Guard[] }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/cut-out-tests', {
  on: () => props.printer,
  name: p => `cut-out ${p.id} ${props.guards.length === 1 ? props.guards[0] : ''}`,
  start: () => ({
    // asked for one, it is that one
    guard: (props.guards.length === 1 ? props.guards[0]! : null) as Guard | null,
    tripped: null as boolean | null,
    atC: null as number | null,
    note: '',
    occurredAt: new Date().toISOString(),
  }),
  body: (v, p) => ({ printerId: p.id, ...v, atC: sent(v.atC) }),
  says: (v, p) => `Test of the ${v.guard} of ${p.name}`,
  saved: (_, v, p) =>
    v.tripped
      ? `${p.name}: the ${v.guard} tripped.`
      : `${p.name}: the ${v.guard} did not trip. Do not run it unattended.`,
  close: () => emit('close'),
})
const TRIPPED = [
  { value: null, text: 'choose' },
  { value: true, text: 'it tripped' },
  { value: false, text: 'it did not' },
]
const cautions = cautionsFor({ action: 'prove a cut-out', nozzleC: 250, bedC: 100, heated: true })
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`Test a cut-out of ${printer.name}`"
    action="Save the test"
    :shown="['guard', 'tripped', 'atC', 'note', 'occurredAt']"
  >
    <CautionList :cautions="cautions" />
    <FieldSelect
      id="cut-guard"
      v-model="sheet.v.guard"
      label="What was tested"
      :options="[{ value: null, text: 'choose' }, ...options<Guard>(guards)]"
      :error="sheet.errors.guard"
    />
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldSelect
        id="cut-tripped"
        v-model="sheet.v.tripped"
        label="Outcome"
        :options="TRIPPED"
        :error="sheet.errors.tripped"
      />
      <FieldNumber
        id="cut-at"
        v-model="sheet.v.atC"
        label="It tripped at"
        unit="°C"
        hint="as shown, if it was read"
        :error="sheet.errors.atC"
      />
      <FieldWhen id="cut-when" v-model="sheet.v.occurredAt" label="Tested" :error="sheet.errors.occurredAt" />
      <FieldText id="cut-note" v-model="sheet.v.note" label="Note" hint="how it was done" :error="sheet.errors.note" />
    </div>
  </EntrySheet>
</template>
