<script setup lang="ts">
/** The step that is next: what to do, what can hurt, what is waited for, what is written down. Made for gloves. */
import { computed, nextTick, reactive, ref, watch } from 'vue'
import {
  swapZ,
  typedState,
  unproved,
  valueFaults,
  waitState,
  waitWords,
  type Step,
  type Values,
  type WaitState,
} from '#core/procedures'
import type { ProcedurePage } from '#shared/answers/change'
import { JOINT_STEPS } from '~/components/change/joint-steps'
import JointDrawing from '~/components/change/JointDrawing.vue'
import WaitFor from '~/components/change/WaitFor.vue'
import CautionList from '~/components/equip/CautionList.vue'
import type { FormField } from '~/components/stores/form-field'
import RecordFields from '~/components/stores/RecordFields.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useDraft } from '~/composables/draft'
import { useEntryForm } from '~/composables/entry-form'
import { leadToWrong } from '~/lib/first-wrong'
import { useLive } from '~/state/live'
import { useUi } from '~/state/ui'
import { sent } from '~/words/numbers'

const props = defineProps<{
  procedure: ProcedurePage
  step: Step
  /** Its place in the list, from 1. */
  place: number
  /** What was entered at the steps before. */
  entered: Values
  now: number
}>()
/** Done: the page goes on before the list is read anew. `id`: its entry; null for one that waits to be sent. */
const emit = defineEmits<{ ticked: [step: string, values: Values, id: number | null] }>()
const form = useEntryForm('/api/ticks')
const ui = useUi()
const live = useLive()
const v = reactive<Record<string, string | number | null>>({})
const draft = useDraft(v)
const heading = ref<HTMLElement | null>(null)
/** Chosen from the list: who works by keys or by ear is at it. */
defineExpose({ focus: () => heading.value?.focus() })
/** What the server would refuse is said here: without it a tick that is kept would be refused an hour later. */
const faults = ref<Record<string, string>>({})
const name = computed(() => `tick ${props.procedure.id} ${props.step.key}`)
watch(
  name,
  () => {
    form.reset()
    faults.value = {}
    draft.begin(name.value, {
      typedC: null,
      ...Object.fromEntries(props.step.fields.map(f => [f.key, null])),
    })
  },
  { immediate: true },
)

const values = () =>
  Object.fromEntries(
    props.step.fields.map(f => {
      const typed = v[f.key] ?? null
      // the picture goes by itself, and its place in the record is filled by the server
      if (f.kind === 'photo') return [f.key, null]
      if (f.kind === 'number') return [f.key, sent(typed as number | null)]
      return [f.key, typed === '' ? null : typed]
    }),
  )
const photos = () =>
  Object.fromEntries(
    props.step.fields.flatMap(f => (f.kind === 'photo' && v[f.key] ? [[f.key, v[f.key] as string]] : [])),
  )
/** The heater that it waits for, as the printer tells it. */
const state = computed<WaitState>(() => {
  const { wait } = props.step
  if (wait === null) return { kind: 'not known' }
  return waitState(wait, live.reading(props.procedure.printer, wait), props.now)
})
/** The same, or what a person reads there while it is not heard. */
const read = computed<WaitState>(() => {
  const { wait } = props.step
  return wait !== null && state.value.kind === 'not known' ? typedState(wait, v.typedC) : state.value
})
/** Whether what is told or read would do; the button is dark only then. */
const there = computed(() => {
  if (props.step.wait !== null) return read.value.kind === 'there'
  return proof.value === null || proof.value.found !== null
})
/** What a person read counts where the printer is not heard. */
function reading() {
  const { wait } = props.step
  if (wait === null) return null
  const heard = live.reading(props.procedure.printer, wait)
  if (heard !== null) return { c: heard.c, at: new Date(heard.atMs).toISOString() }
  const typed = sent(v.typedC as number | null)
  return typed === null ? null : { c: typed, at: null }
}
function faultsHere(entered: Values): Record<string, string> {
  const { step } = props
  // a picture that is taken is no fault, though its place in the record is still empty
  const taken = Object.keys(photos())
  const missing = valueFaults(step, entered).filter(f => !taken.includes(f.field))
  const out = Object.fromEntries(missing.map(f => [`values.${f.field}`, f.message]))
  if (step.proof !== null && !there.value) out.step = `${unproved(step.proof)}: a tick alone is no proof`
  if (step.wait !== null && !there.value) out.reading = waitWords(step.wait, read.value)
  return out
}
async function tick(confirmed: string[] = []): Promise<void> {
  faults.value = faultsHere(values())
  if (Object.keys(faults.value).length > 0) {
    leadToWrong()
    return
  }
  const body = {
    procedureId: props.procedure.id,
    step: props.step.key,
    values: values(),
    photos: photos(),
    reading: reading(),
    occurredAt: new Date().toISOString(),
  }
  const done = await form.send(body, `${props.procedure.printer}: ${props.step.title}`, confirmed)
  if (done === null) return
  draft.drop()
  if (done !== 'queued' && done.already) ui.say(`${done.already.by} had done it already: ${done.title}.`)
  emit('ticked', body.step, body.values, done === 'queued' ? null : done.id)
  await nextTick()
  // who works by keys or by ear is at the step that is next now
  heading.value?.focus()
}
const errors = computed<Record<string, string>>(() => ({ ...form.errors.value, ...faults.value }))
const fieldErrors = computed(() =>
  Object.fromEntries(props.step.fields.map(f => [f.key, errors.value[`values.${f.key}`] ?? ''])),
)
/** What is asked at the step, as every form asks. */
const asked = computed<FormField[]>(() =>
  props.step.fields.map(f => {
    const label = f.required || f.kind === 'choice' ? f.label : `${f.label} (if you like)`
    const field = { key: f.key, label, hint: f.help }
    if (f.kind === 'number') return { ...field, kind: 'number', unit: f.unit }
    if (f.kind === 'text' || f.kind === 'photo') return { ...field, kind: f.kind }
    return { ...field, kind: 'select', options: [{ value: null, text: 'choose' }, ...f.choices] }
  }),
)
const OWN = ['reading', 'reading.c']
const elsewhere = computed(() =>
  Object.entries(errors.value)
    .filter(([k]) => !k.startsWith('values.') && !OWN.includes(k))
    .map(([, message]) => message),
)
const z = computed(() => {
  const { swap } = props.procedure
  if (props.step.key !== 'z' || swap === null) return []
  const number = (x: unknown) => (typeof x === 'number' && !Number.isNaN(x) && Math.abs(x) <= 60 ? x : null)
  const typed = { zWay: v.zWay ?? null, zBeforeMm: number(v.zBeforeMm), zAfterMm: number(v.zAfterMm) }
  return swapZ(swap, { ...props.entered, ...typed }).says
})
/** What was written down at steps before, where this one needs it again. */
const recalled = computed(() => {
  const fields = props.procedure.steps.flatMap(s => s.fields)
  return (props.step.recalls ?? []).flatMap(key => {
    const f = fields.find(x => x.key === key)
    const value = props.entered[key] ?? null
    return f && value !== null ? [{ key, kind: f.kind, label: f.label, value: String(value) }] : []
  })
})
/** Where the record is made that proves it, and what is there so far; a bed levelled cold needs none. */
const proof = computed(() => {
  const asked = props.step.proof
  const printer = encodeURIComponent(props.procedure.printer)
  const level = { url: `/change/level?printer=${printer}`, says: 'Measure it in Level and Z' }
  if (asked === null) return props.step.key === 'level' ? { ...level, found: undefined } : null
  const to = {
    'nozzle': { url: `/stores?fit=${asked.headId}`, says: 'Fit one from Stores' },
    'level': level,
    'cut-out test': {
      url: `/verify/certificate?printer=${printer}&test=${encodeURIComponent(asked.guard ?? '')}`,
      says: 'Test it in Verify',
    },
    'sensor check': { url: `/verify?printer=${printer}`, says: 'Check it in Verify' },
    'chamber': { url: `/verify/chamber?printer=${printer}`, says: 'Survey it in Verify' },
  }[asked.of]
  return { ...to, found: props.procedure.proofs[props.step.key] ?? null }
})
const doneWords = computed(() => {
  if (props.step.wait) return 'It is there'
  return props.step.proof ? 'It is recorded' : 'Done'
})
const hazards = computed(() => props.step.hazards.map(h => ({ key: h.hazard, ...h })))
</script>

<template>
  <form class="sheet grid gap-4 p-4 md:p-5" @submit.prevent="tick()">
    <div>
      <p class="label">Step {{ place }} of {{ procedure.of }}</p>
      <h2 ref="heading" tabindex="-1" class="!text-[24px] leading-tight md:!text-[28px]">{{ step.title }}</h2>
    </div>
    <div
      class="grid items-start gap-4"
      :class="JOINT_STEPS.includes(step.key) ? 'lg:grid-cols-[minmax(0,1fr)_340px]' : ''"
    >
      <ul class="grid gap-2">
        <li v-for="s in step.says" :key="s" class="text-[17px] leading-snug">{{ s }}</li>
        <li v-for="s in z" :key="s" class="border-l-4 border-ink pl-3 text-[19px] leading-snug font-[680]">{{ s }}</li>
      </ul>
      <JointDrawing :step="step.key" />
    </div>
    <dl v-if="recalled.length > 0" class="grid gap-2 border-2 border-ink bg-white p-3">
      <div v-for="r in recalled" :key="r.key">
        <dt class="label">{{ r.label }}</dt>
        <dd class="m-0 text-[19px] font-[680]">
          <img
            v-if="r.kind === 'photo'"
            :src="`/api/pictures/${r.value}`"
            :alt="r.label"
            class="max-h-[320px] w-auto max-w-full border border-ink"
          /><template v-else>{{ r.value }}</template>
        </dd>
      </div>
    </dl>
    <WaitFor
      v-if="step.wait"
      :model-value="(v.typedC as number | null) ?? null"
      :printer="procedure.printer"
      :wait="step.wait"
      :state="state"
      :error="errors.reading ?? errors['reading.c']"
      @update:model-value="c => (v.typedC = c)"
    />
    <div v-if="proof" class="border-2 border-ink bg-white p-3">
      <p v-if="proof.found !== undefined" class="flex items-start gap-2 text-[17px] font-[650]" role="status">
        <VerdictMark :verdict="proof.found ? 'fine' : 'look'" :size="20" class="mt-[2px]" />{{
          proof.found ? `On record: ${proof.found}.` : `${unproved(step.proof!)}: a tick alone is no proof.`
        }}
      </p>
      <NuxtLink :to="proof.url" class="act">{{ proof.says }}</NuxtLink>
    </div>
    <RecordFields v-if="asked.length > 0" :key="step.key" :fields="asked" :v="v" :errors="fieldErrors" />
    <CautionList :cautions="hazards" title="Here it can hurt" />
    <p v-for="e in elsewhere" :key="e" class="text-[16px] font-semibold text-stop" role="alert">{{ e }}</p>
    <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="tick" @local="form.reset()" />
    <button
      type="submit"
      class="button w-full !min-h-[72px] !text-[20px]"
      :class="there ? 'first' : ''"
      :disabled="form.busy.value"
    >
      {{ doneWords }}<span class="sr-only">: {{ step.title }}</span>
    </button>
  </form>
</template>
