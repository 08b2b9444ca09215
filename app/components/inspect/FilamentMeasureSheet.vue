<script setup lang="ts">
/** What is measured of the filament of a bench: three places with the callipers, or a length mark that was fed. */
import { CALLIPER_PLACES } from '#core/flow'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { errorUnder } from '~/lib/field-errors'
import { typedNumbers } from '~/words/flow'

const props = defineProps<{ on: { benchId: number; spool: string; kind: 'callipers' | 'mark' } | null }>()
const emit = defineEmits<{ close: [] }>()
const sheet = useEntrySheet('/api/filament-measures', {
  on: () => props.on,
  name: t => `${t.kind} ${t.benchId}`,
  start: () => ({ places: '', toldMm: 100 as number | null, fedMm: null as number | null, note: '' }),
  body: (v, t) => ({
    benchId: t.benchId,
    callipersMm: t.kind === 'callipers' ? typedNumbers(v.places) : null,
    mark: t.kind === 'mark' ? { toldMm: v.toldMm, fedMm: v.fedMm } : null,
    note: v.note,
    occurredAt: new Date().toISOString(),
  }),
  says: (_, t) => `${t.kind === 'callipers' ? 'Callipers' : 'Length mark'} on ${t.spool}`,
  saved: (_, __, t) => `${t.kind === 'callipers' ? 'The diameter' : 'The mark'} counts for this bench from now on.`,
  close: () => emit('close'),
})
const errorOf = (field: string) => errorUnder(sheet.errors, field)
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="on?.kind === 'mark' ? 'Length mark' : 'Callipers'"
    action="Save it"
    :shown="Object.keys(sheet.errors).filter(f => /^(callipersMm|mark|note)/.test(f))"
  >
    <template v-if="on?.kind === 'callipers'">
      <p class="text-sm">
        Measure {{ on.spool }} in {{ CALLIPER_PLACES }} places some hand’s breadths apart, turned a quarter each time.
      </p>
      <FieldText
        id="measure-places"
        v-model="sheet.v.places"
        label="Diameters, mm"
        placeholder="1.74, 1.75, 1.76"
        :error="errorOf('callipersMm')"
      />
    </template>
    <template v-else>
      <p class="text-sm">
        Heat the nozzle, mark the filament a known length above the inlet, tell it to feed 100 mm slowly, and measure
        what went in. With nothing to push against it: slowly, hot, or with the nozzle off.
      </p>
      <div class="grid grid-cols-2 gap-3">
        <FieldNumber
          id="measure-told"
          v-model="sheet.v.toldMm"
          label="Told to feed"
          unit="mm"
          :error="errorOf('mark.toldMm')"
        />
        <FieldNumber
          id="measure-fed"
          v-model="sheet.v.fedMm"
          label="Went in"
          unit="mm"
          :error="errorOf('mark.fedMm')"
        />
      </div>
    </template>
    <FieldText id="measure-note" v-model="sheet.v.note" label="Note" :error="errorOf('note')" />
  </EntrySheet>
</template>
