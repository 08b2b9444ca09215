<script setup lang="ts">
/** Open a case: where, which run, what the print shows, what was looked for in vain, with a photo. */
import { computed, watch } from 'vue'
import type { Sign } from '#core/diagnosis'
import { capital } from '#core/words'
import type { CaseHead } from '#shared/answers/diagnosis'
import { when } from '#shared/time'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldPhoto from '~/components/ui/FieldPhoto.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { SIGN_GROUPS, signsOfSymptoms } from '~/lib/case'
import { useShop } from '~/state/shop'

/** What a case is opened on; `afterId` is the one whose cause was put right. */
export interface CaseFrom {
  headId: number | null
  runId: number | null
  afterId: number | null
  /** Signs that it showed before. */
  seen: readonly string[]
}
const props = defineProps<{ on: CaseFrom | null; heads: readonly CaseHead[] }>()
const emit = defineEmits<{ close: [opened: number | null] }>()
const shop = useShop()
let opened: number | null = null
type Found = 'there' | 'not there' | null
const headOf = (id: number | null) => props.heads.find(h => h.headId === id) ?? null
/** The head that is asked for, or the one whose latest run went wrong, or the first. */
const firstHead = () => (props.heads.find(h => h.runs[0] && !h.runs[0].finished) ?? props.heads[0])?.headId ?? null
const headOfRun = (runId: number | null) => props.heads.find(h => h.runs.some(r => r.id === runId)) ?? null
/** It came from a run that is not among the last ones of its printer. */
const isOld = computed(() => props.on !== null && props.on.runId !== null && headOfRun(props.on.runId) === null)
const lastRun = (headId: number | null) => headOf(headId)?.runs[0]?.id ?? null
const sheet = useEntrySheet('/api/cases', {
  on: () => props.on,
  name: o => `${o.headId ?? ''} ${o.runId ?? ''} ${o.afterId ?? ''}`,
  start: o => {
    const ofRun = headOfRun(o.runId)
    const headId = o.headId ?? ofRun?.headId ?? firstHead()
    return {
      headId,
      runId: ofRun && ofRun.headId === headId ? o.runId : lastRun(headId),
      found: Object.fromEntries(o.seen.map(s => [s, 'there'])) as Record<string, Found>,
      picture: null as string | null,
      note: '',
    }
  },
  body: (v, o) => ({
    headId: v.headId,
    runId: v.runId,
    seen: signs(v.found, 'there'),
    not: signs(v.found, 'not there'),
    picture: v.picture,
    afterId: o.afterId,
    note: v.note,
    occurredAt: new Date().toISOString(),
  }),
  says: v => `Open a case on ${headOf(v.headId)?.place ?? 'a printer'}`,
  saved: (done, v) => {
    opened = done.id
    return `The case on ${headOf(v.headId)!.place} is open.`
  },
  close: () => {
    emit('close', opened)
    opened = null
  },
})
const signs = (found: Record<string, Found>, state: Found) =>
  Object.entries(found).flatMap(([s, f]) => (f === state ? [s] : []))

const heads = computed(() => props.heads.map(h => ({ value: h.headId, text: h.place })))
const runs = computed(() => [
  ...(headOf(sheet.v.headId ?? null)?.runs ?? []).map(r => ({
    value: r.id as number | null,
    text: `${r.name}, ${r.material}, ${r.finished ? 'finished' : 'failed'} ${when(r.at, shop.zone)}`,
  })),
  { value: null, text: 'one that is not logged' },
])
const run = computed(() => headOf(sheet.v.headId ?? null)?.runs.find(r => r.id === sheet.v.runId) ?? null)
// another printer has other runs
watch(
  () => sheet.v.headId,
  (now, before) => {
    if (before !== undefined && now !== before) sheet.v.runId = lastRun(now ?? null)
  },
)
const logged = computed(() => signsOfSymptoms(run.value?.symptoms ?? []).filter(s => !sheet.v.found?.[s]))
function set(sign: Sign, state: Found): void {
  sheet.v.found = { ...sheet.v.found, [sign]: sheet.v.found[sign] === state ? null : state }
}
function takeLogged(): void {
  for (const s of logged.value) set(s, 'there')
}
const SHOWN = ['headId', 'runId', 'seen', 'picture', 'note']
</script>

<template>
  <EntrySheet :sheet="sheet" title="What does the print show?" action="Open the case" :shown="SHOWN" wide>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldSelect
        id="case-head"
        v-model="sheet.v.headId"
        label="Printer"
        :options="heads"
        :error="sheet.errors.headId"
      />
      <FieldSelect id="case-run" v-model="sheet.v.runId" label="Run" :options="runs" :error="sheet.errors.runId" />
    </div>
    <p v-if="isOld" class="text-sm font-semibold text-look" role="status">
      That run is not among the last ones of its printer. Choose one that shows it.
    </p>
    <p v-if="logged.length > 0" class="flex flex-wrap items-center gap-2 text-sm">
      This run was logged with {{ logged.join(', ') }}.
      <button type="button" class="button plain" @click="takeLogged">Take that over</button>
    </p>
    <p v-if="sheet.errors.seen" id="case-seen" class="font-semibold text-stop" role="alert">{{ sheet.errors.seen }}</p>
    <fieldset v-for="g in SIGN_GROUPS" :key="g.title" class="grid gap-0">
      <legend class="label">{{ g.title }}</legend>
      <div class="grid gap-x-6 sm:grid-cols-2">
        <div
          v-for="s in g.signs"
          :key="s"
          class="flex items-center gap-2 border-b border-faint py-[3px]"
          role="group"
          :aria-label="s"
        >
          <span class="min-w-0 flex-1" :class="sheet.v.found?.[s] === 'there' ? 'font-[680]' : ''">{{
            capital(s)
          }}</span>
          <button
            type="button"
            class="button !px-3"
            :class="sheet.v.found?.[s] === 'there' ? 'first' : ''"
            :aria-pressed="sheet.v.found?.[s] === 'there'"
            @click="set(s, 'there')"
          >
            There<span class="sr-only"> {{ s }}</span></button
          ><button
            type="button"
            class="button !px-3"
            :class="sheet.v.found?.[s] === 'not there' ? 'first' : ''"
            :aria-pressed="sheet.v.found?.[s] === 'not there'"
            @click="set(s, 'not there')"
          >
            Not<span class="sr-only"> there {{ s }}</span>
          </button>
        </div>
      </div>
    </fieldset>
    <p class="text-sm text-ink2">
      “Not” is for what was looked for and is not there. Leave alone what nobody looked for: it counts neither way.
    </p>
    <FieldPhoto id="case-photo" v-model="sheet.v.picture" label="Photo (if you like)" :error="sheet.errors.picture" />
    <FieldText
      id="case-note"
      v-model="sheet.v.note"
      label="Note"
      placeholder="where on the part, at which height"
      :error="sheet.errors.note"
    />
  </EntrySheet>
</template>
