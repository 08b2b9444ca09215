<script setup lang="ts">
/** Takes a printer out of service: why, and what must be proved before it goes back. */
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'

const props = defineProps<{ printer: { id: number; name: string } }>()
const emit = defineEmits<{ close: [] }>()
/** What is usually asked; common practice, no source. */
const USUAL = [
  'runaway protection trips',
  'the independent cut-out trips',
  'wiring mended by a licensed electrician',
  'its sensor checked against a reference',
  'a first layer watched',
]
const sheet = useEntrySheet('/api/tags', {
  on: () => props.printer,
  name: p => `tag ${p.id}`,
  start: () => ({ why: '', must: [''] as string[] }),
  body: (v, p) => ({
    printerId: p.id,
    why: v.why,
    must: v.must.map(m => m.trim()).filter(m => m !== ''),
    occurredAt: new Date().toISOString(),
  }),
  says: (_, p) => `${p.name} out of service`,
  saved: (_, v, p) =>
    `${p.name} is out of service${v.must.some(m => m.trim()) ? ' until it is proved' : ''}. Hang the tag on it, too.`,
  close: () => emit('close'),
})
const add = (what: string) => {
  sheet.v.must = [...sheet.v.must.filter(m => m.trim() !== ''), what]
}
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    :title="`Take ${printer.name} out of service`"
    action="Out of service"
    danger
    :shown="['why', ...sheet.v.must.map((_, i) => `must.${i}`)]"
  >
    <FieldText
      id="tag-why"
      v-model="sheet.v.why"
      label="Why it must not run"
      placeholder="frayed wire at the bed"
      :error="sheet.errors.why"
    />
    <fieldset class="grid gap-2">
      <legend class="mb-1 font-[650]">What must be proved before it goes back</legend>
      <FieldText
        v-for="(_, i) in sheet.v.must"
        :id="`tag-must-${i}`"
        :key="i"
        v-model="sheet.v.must[i]!"
        :label="`Proof ${i + 1}`"
        :error="sheet.errors[`must.${i}`]"
      />
      <div class="flex flex-wrap gap-1">
        <button
          v-for="u in USUAL.filter(x => !sheet.v.must.includes(x))"
          :key="u"
          type="button"
          class="button"
          @click="add(u)"
        >
          {{ u }}
        </button>
        <button type="button" class="button plain" @click="sheet.v.must = [...sheet.v.must, '']">Another</button>
      </div>
    </fieldset>
    <p class="text-xs text-ink2">
      The tag here stops nobody's hand: switch the printer off, lock it where it can be, and hang a tag on it.
    </p>
  </EntrySheet>
</template>
