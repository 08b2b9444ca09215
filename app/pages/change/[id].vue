<script setup lang="ts">
/** One procedure: the step that is next, large; the list with who did what; and its end. */
import { computed, nextTick, ref, watch } from 'vue'
import { progress, type Values } from '#core/procedures'
import type { ProcedurePage, Tick } from '#shared/answers/change'
import { when } from '#shared/time'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import StepCard from '~/components/change/StepCard.vue'
import StepList from '~/components/change/StepList.vue'
import StopSheet from '~/components/change/StopSheet.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import LivePanel from '~/components/prepare/LivePanel.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useEntryForm } from '~/composables/entry-form'
import { useNow } from '~/composables/prepare'
import { useOutbox } from '~/state/outbox'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const route = useRoute()
const shop = useShop()
const ui = useUi()
const outbox = useOutbox()
const now = useNow(1000)
const id = computed(() => Number(route.params.id))
const { data, failure } = useAnswer('/api/procedures/{id}', {
  params: () => (Number.isInteger(id.value) && id.value > 0 ? { id: id.value } : null),
  everyMs: 15_000,
})
useHead({ title: () => `${data.value?.title ?? 'Procedure'} · Iron Nozzle` })

/** Ticked on this device and not sent yet: they count here, so that the work goes on without the server. */
const waiting = computed(() =>
  outbox.entries
    // one that is on its way may still be refused
    .filter(e => e.route === '/api/ticks' && e.body.procedureId === id.value && e.problem === null && !e.held)
    .map(e => ({ step: e.body.step as string, values: e.body.values as Values })),
)
/** Its end is kept on this device and not sent yet. */
const endWaits = computed(() =>
  outbox.entries.some(
    e =>
      e.route === '/api/endings' &&
      e.body.target === 'procedure' &&
      e.body.targetId === id.value &&
      !e.problem &&
      !e.held,
  ),
)
/** Saved just now: each counts until it is read. An answer that was asked for before does not hold it yet. */
const saved = ref<{ step: string; values: Values; id: number }[]>([])
watch(data, d => {
  saved.value = saved.value.filter(s => !d?.ticks.some(t => t.id === s.id))
})
watch(id, () => {
  saved.value = []
})
function ticked(s: string, values: Values, entry: number | null): void {
  if (entry !== null) saved.value.push({ step: s, values, id: entry })
}
const standing = computed(() => {
  const read = (data.value?.ticks ?? []).filter(t => t.struck === null)
  const here = [...saved.value, ...waiting.value]
  return [...read, ...here.filter(w => !read.some(t => t.step === w.step))]
})
const far = computed(() => progress(data.value?.steps ?? [], standing.value))
const entered = computed(() => Object.assign({}, ...standing.value.map(t => t.values)) as Values)
const chosen = ref<string | null>(null)
watch(
  () => far.value.open.map(s => s.key).join(),
  () => {
    if (!far.value.open.some(s => s.key === chosen.value)) chosen.value = far.value.open[0]?.key ?? null
  },
  { immediate: true },
)
const card = ref<{ focus: () => void } | null>(null)
async function choose(key: string): Promise<void> {
  chosen.value = key
  await nextTick()
  card.value?.focus()
}
const step = computed(() => far.value.open.find(s => s.key === chosen.value) ?? null)
const place = computed(() => (data.value?.steps.findIndex(s => s.key === step.value?.key) ?? 0) + 1)
const over = computed(() => data.value !== null && (data.value.ended !== null || data.value.struck !== null))
const mark = computed(() => {
  if (!over.value) return 'stop'
  return data.value?.ended?.outcome === 'done' ? 'fine' : 'look'
})
/** In words of what the record says: who, when, why. */
const overSays = computed(() => {
  const p = data.value!
  if (p.struck !== null) return `Struck out: ${p.struck}`
  const { outcome, by, at, note } = p.ended!
  return `${outcome === 'done' ? 'Ready' : 'Stopped'}: ${by}, ${when(at, shop.zone)}${note ? `. ${note}` : ''}`
})

const form = useEntryForm('/api/endings')
async function finish(confirmed: string[] = []): Promise<void> {
  const p = data.value!
  const body = { target: 'procedure', targetId: p.id, outcome: 'done', occurredAt: new Date().toISOString() }
  const done = await form.send(body, `${p.printer} ready`, confirmed)
  if (done !== null && done !== 'queued') ui.say(readyWords(p))
}
const endWords = computed(() => {
  if (data.value?.swap) return 'Ready writes the fitting, the new length, Z and what was purged.'
  if (data.value?.kind === 'clog')
    return 'Ready writes what cleared it and what runs from it now. One that is still blocked stays out of service.'
  return data.value?.hotend
    ? 'Ready writes which hotend is on with all that is in it, the firmware’s ceiling, Z and what was purged.'
    : 'Ready says that it is commissioned.'
})
function readyWords(p: ProcedurePage): string {
  if (p.kind === 'clog')
    return entered.value.clearedBy === 'nothing'
      ? `${p.printer} is out of service: nothing cleared it.`
      : `${p.printer} is ready: what cleared it and what runs from it now are written down.`
  const fresh = (p.swap ?? p.hotend)?.fresh.tag
  if (fresh === undefined) return `${p.printer} is commissioned.`
  const unchecked = p.hotend ? ' Its sensor is unchecked there.' : ''
  return `${p.printer} is ready: ${fresh} fitted, Z and what was purged are written down.${unchecked}`
}
const stopping = ref(false)
const back = ref<{ target: 'procedure tick' | 'procedure'; id: number; says: string } | null>(null)
const takeBack = (t: Tick) => {
  const title = data.value!.steps.find(s => s.key === t.step)!.title
  back.value = { target: 'procedure tick', id: t.id, says: `The tick “${title}”` }
}
</script>

<template>
  <div>
    <ChangeTabs :failure="failure" />
    <p v-if="!Number.isInteger(id)" class="font-semibold text-look">There is no such procedure.</p>
    <template v-else-if="data">
      <p
        class="mb-1 flex items-start gap-2 text-[17px] leading-snug font-[680]"
        :class="over ? '' : 'text-stop'"
        role="status"
      >
        <VerdictMark :verdict="mark" :size="20" class="mt-[2px]" />
        <span v-if="over">{{ data.title }}. {{ overSays }}</span>
        <span v-else
          >{{ data.printer }} is not ready. {{ data.title }}: {{ far.done }} of {{ far.of }} steps done.</span
        >
      </p>
      <p class="mb-3 text-sm text-ink2">
        Begun by {{ data.by }}, {{ when(data.begunAt, shop.zone)
        }}<template v-if="data.lastAt !== data.begunAt"
          >; last step by {{ data.lastBy }}, {{ when(data.lastAt, shop.zone) }}</template
        >. Whoever opens it goes on here.
      </p>
      <div v-if="data.changed.length > 0" class="mb-3 border-2 border-look bg-sheet p-3" role="alert">
        <p class="font-[650] text-look">What this was worked out from has changed since it began:</p>
        <ul class="ml-5 list-disc">
          <li v-for="c in data.changed" :key="c">{{ c }}</li>
        </ul>
        <p>Go by the stricter of the two, or stop here and begin it anew.</p>
      </div>
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-[minmax(0,1fr)_400px]">
        <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <StepCard
            ref="card"
            v-if="step && !over"
            :procedure="data"
            :step="step"
            :place="place"
            :entered="entered"
            :now="now"
            @ticked="ticked"
          />
          <div v-else-if="!over" class="sheet grid gap-3 p-5">
            <h2 class="!text-[24px]">All steps are done</h2>
            <p class="text-[17px]">
              {{ endWords }}
              It takes the “not ready” off {{ data.printer }}.
            </p>
            <p v-for="e in Object.values(form.errors.value)" :key="e" class="font-semibold text-stop" role="alert">
              {{ e }}
            </p>
            <QuestionBox
              :problem="form.problem.value"
              :busy="form.busy.value"
              @confirm="finish"
              @local="form.reset()"
            />
            <p v-if="endWaits" class="font-semibold text-look" role="status">It waits to be sent.</p>
            <button
              v-else
              type="button"
              class="button first w-full !min-h-[72px] !text-[20px]"
              :disabled="form.busy.value"
              @click="finish()"
            >
              {{ data.printer }} is ready
            </button>
          </div>
          <LivePanel v-if="!over" :printer="data.printer" :now="now" />
        </div>
        <div class="grid gap-2">
          <StepList
            :steps="data.steps"
            :ticks="data.ticks"
            :waiting="waiting.map(w => w.step)"
            :open="far.open.map(s => s.key)"
            :chosen="over ? null : chosen"
            :ended="over"
            @choose="choose"
            @back="takeBack"
          />
          <div v-if="!over" class="flex flex-wrap gap-2">
            <button v-if="standing.length > 0" type="button" class="button" @click="stopping = true">Stop here</button>
            <button
              v-else
              type="button"
              class="button"
              @click="back = { target: 'procedure', id: data.id, says: data.title }"
            >
              Begun by mistake
            </button>
          </div>
        </div>
      </div>
      <StopSheet v-if="stopping" :of="data" @close="stopping = false" />
      <StrikeSheet :target="back" @close="back = null" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the steps"
    />
  </div>
</template>
