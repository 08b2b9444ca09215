<script setup lang="ts">
/** Close a case: what it was, and how that is known. A test or a repair proves it; what is assumed counts a quarter. */
import { computed } from 'vue'
import { causeWords, KNOWN_BY, testsThatSpeakFor, type Cause, type KnownBy } from '#core/diagnosis'
import { capital } from '#core/words'
import type { CasePage } from '#shared/answers/diagnosis'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { evidenceOfCase } from '~/lib/case'
import { testWords } from '~/words/case'

const props = defineProps<{ on: CasePage | null; order: readonly Cause[] }>()
const emit = defineEmits<{ close: [] }>()
/** A sheet gives the focus back first, and the page is read anew. */
const CLOSED_MS = 600
const speakFor = (c: CasePage, cause: Cause) => testsThatSpeakFor(cause, evidenceOfCase(c).tests, c.start)
const sheet = useEntrySheet('/api/closings', {
  on: () => props.on,
  name: c => String(c.id),
  start: c => {
    const cause = props.order[0] ?? ('something else' as Cause)
    const tests = speakFor(c, cause)
    return {
      cause: cause as Cause,
      known: (tests.length > 0 ? 'by a test' : null) as KnownBy | null,
      how: tests.length > 0 ? testWords(tests[0]!) : '',
    }
  },
  body: (v, c) => ({ caseId: c.id, ...v, occurredAt: new Date().toISOString() }),
  says: v => `Close the case: ${v.cause}`,
  saved: (_, v) =>
    `Closed: ${v.cause}, ${v.known}. From now on it counts ${v.known === 'assumed' ? 'a quarter' : 'in full'}.`,
  close: () => {
    emit('close')
    // what opened the sheet is gone once the case is closed
    setTimeout(() => {
      if (document.activeElement === document.body) document.getElementById('case-verdict')?.focus()
    }, CLOSED_MS)
  },
})
const causes = computed(() => props.order.map(value => ({ value, text: causeWords(value) })))
const HINT: Record<KnownBy, string> = {
  'by a test': 'a test of this case speaks for it',
  'by a repair': 'it was put right, and it printed well',
  'assumed': 'nobody proved it; it counts a quarter',
}
const tests = computed(() => (props.on && sheet.v.cause ? speakFor(props.on, sheet.v.cause) : []))
</script>

<template>
  <EntrySheet :sheet="sheet" title="What was it?" action="Close the case" :shown="['cause', 'known', 'how']">
    <FieldSelect id="close-cause" v-model="sheet.v.cause" label="Cause" :options="causes" :error="sheet.errors.cause" />
    <fieldset class="grid gap-0">
      <legend class="label">That is known</legend>
      <label v-for="k in KNOWN_BY" :key="k" class="check"
        ><input v-model="sheet.v.known" type="radio" name="close-known" :value="k" />
        <span
          ><b>{{ k }}</b
          >: {{ HINT[k] }}</span
        ></label
      >
      <p v-if="tests.length > 0" class="text-sm text-ink2">
        For it speaks: {{ tests.map(t => capital(testWords(t))).join('; ') }}.
      </p>
      <p v-if="sheet.errors.known" class="text-sm font-semibold text-stop" role="alert">{{ sheet.errors.known }}</p>
    </fieldset>
    <FieldText
      id="close-how"
      v-model="sheet.v.how"
      label="How it is known"
      placeholder="cold pull brought a charred piece; prints well since"
      :error="sheet.errors.how"
    />
  </EntrySheet>
</template>
