<script setup lang="ts">
/** Upkeep: what each printer is kept up by, how far each has come, what was found. */
import { computed, ref, watch } from 'vue'
import { byWeight, type Due } from '#core/schedule'
import { counted } from '#core/words'
import type { UpkeepPrinter, UpkeepTask } from '#shared/answers/upkeep'
import { when } from '#shared/time'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import UpkeepBar from '~/components/change/UpkeepBar.vue'
import UpkeepDoneSheet from '~/components/change/UpkeepDoneSheet.vue'
import UpkeepTaskSheet from '~/components/change/UpkeepTaskSheet.vue'
import EntryLine from '~/components/entry/EntryLine.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import { printerRecord } from '~/components/stores/fields'
import type { OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import PrinterRestrictions from '~/components/ui/PrinterRestrictions.vue'
import LeadSentence from '~/components/ui/LeadSentence.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import CutOutSheet from '~/components/verify/CutOutSheet.vue'
import { useAnswer } from '~/composables/answer'
import { useEntryForm } from '~/composables/entry-form'
import { useKeptFocus } from '~/composables/kept-focus'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { everyWords, goneWords, lastWords } from '~/words/upkeep'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'Upkeep · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
const shop = useShop()
const ui = useUi()
const { data, failure } = useAnswer('/api/upkeep', { everyMs: 60_000 })
useKeptFocus()

const chosen = ref<string | null>(typeof route.query.printer === 'string' ? route.query.printer : null)
watch(chosen, name => void router.replace({ query: { ...route.query, printer: name ?? undefined } }))
const dueOf = (t: UpkeepTask) => (t.withdrawn || t.due?.mark === 'fine' ? null : t.due)
const weight = (t: UpkeepTask) => (t.withdrawn ? -1 : (t.due?.weight ?? t.share ?? 0))
const printers = computed(() =>
  (data.value?.printers ?? [])
    .filter(p => chosen.value === null || p.name === chosen.value)
    .map(p => ({ ...p, tasks: [...p.tasks].sort((a, b) => weight(b) - weight(a)) })),
)
const all = computed(() =>
  printers.value.flatMap(p => p.tasks.flatMap(t => (dueOf(t) ? [{ ...(dueOf(t) as Due), printer: p.name }] : []))),
)
const lead = computed(() => {
  const first = [...all.value].sort(byWeight)[0]
  const none = printers.value.filter(p => p.tasks.length === 0).map(p => p.name)
  if (first) {
    const more = all.value.length > 1 ? ` And ${counted(all.value.length - 1, 'more thing')} due.` : ''
    return { mark: first.mark, text: `${first.printer}: ${first.reason} ${first.action}.${more}` }
  }
  if (none.length > 0)
    return { mark: 'look' as const, text: `No upkeep is planned for ${counted(none.length, 'printer')} yet.` }
  return { mark: 'fine' as const, text: 'No upkeep is due.' }
})
const doing = ref<{ printer: string; task: UpkeepTask } | null>(null)
const testing = ref<{ printer: UpkeepPrinter; task: UpkeepTask } | null>(null)
const planning = ref<{ printer: UpkeepPrinter; task: UpkeepTask | null } | null>(null)
const editing = ref<OpenRecord | null>(null)
const striking = ref<{ target: 'upkeep'; id: number; says: string } | null>(null)
const form = useEntryForm('/api/upkeep-plans')
const busyOf = ref<number | null>(null)
async function plan(p: UpkeepPrinter): Promise<void> {
  busyOf.value = p.id
  const done = await form.send({ printerId: p.id }, `Usual upkeep of ${p.name}`)
  if (done !== null && done !== 'queued') ui.say(`${p.name}: ${counted(done.added, 'thing')} planned, by practice.`)
}
function begin(printer: UpkeepPrinter, task: UpkeepTask): void {
  if (task.guard === null) doing.value = { printer: printer.name, task }
  else testing.value = { printer, task }
}
function restrict(id: number): void {
  const p = shop.data?.printers.find(x => x.id === id)
  if (p) editing.value = printerRecord(p)
}
</script>

<template>
  <div>
    <ChangeTabs :failure="failure" />
    <EmptyShop v-if="data && data.printers.length === 0" />
    <template v-else-if="data">
      <LeadSentence :lead="lead" />
      <ChoiceButtons
        v-if="data.printers.length > 1"
        v-model="chosen"
        class="mb-3"
        label="Printer"
        :options="[
          { value: null as string | null, text: 'All' },
          ...data.printers.map(p => ({ value: p.name as string | null, text: p.name })),
        ]"
      />
      <section v-for="p in printers" :key="p.id" class="sheet mb-4" :aria-labelledby="`upkeep-${p.id}`">
        <header class="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-ink px-3 py-2 md:px-4">
          <h2 :id="`upkeep-${p.id}`">{{ p.name }}</h2>
          <PrinterRestrictions :printer-id="p.id" />
          <div class="ml-auto flex flex-wrap gap-1">
            <button
              v-if="p.tasks.length === 0"
              type="button"
              class="button first"
              :disabled="form.busy.value && busyOf === p.id"
              @click="plan(p)"
            >
              Plan what is usual<span class="sr-only"> for {{ p.name }}</span>
            </button>
            <button type="button" class="button" @click="planning = { printer: p, task: null }">
              Plan one thing<span class="sr-only"> for {{ p.name }}</span>
            </button>
            <button type="button" class="button plain" @click="restrict(p.id)">
              Restrictions<span class="sr-only"> of {{ p.name }}</span>
            </button>
          </div>
        </header>
        <p v-if="p.tasks.length === 0" class="px-3 py-3 text-ink2 md:px-4">
          Nothing is planned. What is usual are start values by practice; each interval can be changed.
        </p>
        <ul v-else data-list>
          <li
            v-for="t in p.tasks"
            :key="t.id"
            class="grid items-center gap-x-4 gap-y-1 border-t border-rule px-3 py-2 first:border-t-0 md:grid-cols-[minmax(0,1.2fr)_190px_minmax(0,1fr)_140px] md:px-4"
            :class="t.withdrawn ? 'text-ink2' : ''"
          >
            <div>
              <p class="flex items-start gap-2 font-[650]" :class="dueOf(t) ? VERDICT_TEXT[dueOf(t)!.mark] : ''">
                <VerdictMark v-if="dueOf(t)" :verdict="dueOf(t)!.mark" :size="16" class="mt-[3px]" />{{ t.name
                }}{{ t.withdrawn ? ' (no longer wanted)' : '' }}
              </p>
              <p class="text-sm text-ink2">{{ everyWords(t) }}, {{ t.basis }}</p>
            </div>
            <div>
              <template v-if="t.share !== null">
                <UpkeepBar :share="t.share" :label="`${t.name}: ${Math.round(t.share * 100)} % of its interval gone`" />
                <p class="text-xs text-ink2">{{ goneWords(t) }}</p>
              </template>
            </div>
            <p class="text-sm">{{ lastWords(t, shop.zone) }}</p>
            <div class="flex flex-wrap gap-1 md:justify-end">
              <button v-if="!t.withdrawn" type="button" class="button" @click="begin(p, t)">
                {{ t.guard === null ? 'Done' : 'Tested' }}<span class="sr-only">: {{ t.name }}, {{ p.name }}</span>
              </button>
              <button type="button" class="button plain" @click="planning = { printer: p, task: t }">
                Edit<span class="sr-only"> {{ t.name }}, {{ p.name }}</span>
              </button>
            </div>
          </li>
        </ul>
      </section>
      <section v-if="data.entries.length > 0" class="mt-5" aria-labelledby="found-title">
        <h2 id="found-title" class="border-b-2 border-ink pb-1">What was found</h2>
        <ul>
          <EntryLine
            v-for="e in data.entries.filter(x => chosen === null || x.printer === chosen)"
            :key="e.id"
            :struck="e.struck"
            :entered="`${when(e.at, shop.zone)}, ${e.by}`"
            :name="`${e.printer}, ${e.task}`"
            @strike="striking = { target: 'upkeep', id: e.id, says: `${e.printer}, ${e.task}` }"
          >
            <span class="font-semibold">{{ e.printer }}: {{ e.task }}</span>
            <span>{{ e.found }}{{ e.says ? `: ${e.says}` : '' }}</span>
          </EntryLine>
        </ul>
      </section>
      <UpkeepDoneSheet v-if="doing" :printer="doing.printer" :task="doing.task" @close="doing = null" />
      <CutOutSheet v-if="testing" :printer="testing.printer" :guards="[testing.task.guard!]" @close="testing = null" />
      <UpkeepTaskSheet :of="planning" @close="planning = null" />
      <RecordSheet :open="editing" @close="editing = null" />
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the upkeep"
    />
  </div>
</template>
