<script setup lang="ts">
/** A new certificate of a pin: what it measured, how sure, until when. */
import { computed } from 'vue'
import { counted, listed } from '#core/words'
import type { PinLine } from '#shared/answers/pins'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { sent } from '~/words/numbers'
import { offWords } from '~/words/pin'

const props = defineProps<{ pin: PinLine }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/pin-certificates', {
  on: () => props.pin,
  name: p => `pin ${p.id}`,
  start: () => ({
    sizeMm: null as number | null,
    expandedUm: null as number | null,
    dueOn: '',
    note: '',
    occurredAt: new Date().toISOString(),
  }),
  body: (v, p) => ({
    pinId: p.id,
    ...v,
    sizeMm: sent(v.sizeMm),
    expandedUm: sent(v.expandedUm),
    dueOn: v.dueOn === '' ? null : v.dueOn,
  }),
  says: (_, p) => `Certificate of pin ${p.mark}`,
  saved: done =>
    done.gauges === 0
      ? `Pin ${done.mark}: no gauge was made with it yet.`
      : `Pin ${done.mark}: ${counted(done.gauges, 'gauge')} of ${listed(done.nozzles, 'and')} ` +
        'count by it; their forecasts are worked out anew.',
  close: () => emit('close'),
})
const off = computed(() => {
  const { sizeMm } = sheet.v
  return sizeMm === null || !Number.isFinite(sizeMm) ? undefined : offWords(props.pin, { sizeMm })
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`Certificate of pin ${pin.mark}`"
    action="Save the certificate"
    :shown="['sizeMm', 'expandedUm', 'dueOn', 'note', 'occurredAt']"
  >
    <p class="text-sm">
      It counts for every gauge made with this pin: before the first certificate as that found it, between two in the
      middle of both, ± what lies between them.
    </p>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldNumber
        id="certificate-size"
        v-model="sheet.v.sizeMm"
        label="It measures"
        unit="mm"
        :placeholder="pin.nominalMm.toFixed(4)"
        :error="sheet.errors.sizeMm"
      />
      <FieldNumber
        id="certificate-u"
        v-model="sheet.v.expandedUm"
        label="± expanded, k = 2"
        unit="µm"
        placeholder="1.0"
        :error="sheet.errors.expandedUm"
      />
      <FieldWhen id="certificate-when" v-model="sheet.v.occurredAt" label="Measured" :error="sheet.errors.occurredAt" />
      <FieldText
        id="certificate-due"
        v-model="sheet.v.dueOn"
        label="Holds until"
        hint="year-month-day, as 2027-11-30; or empty"
        :error="sheet.errors.dueOn"
      />
    </div>
    <p v-if="off" class="text-sm font-[650]" role="status">By that it is {{ off }}.</p>
    <FieldText id="certificate-note" v-model="sheet.v.note" label="Number, laboratory" :error="sheet.errors.note" />
  </EntrySheet>
</template>
