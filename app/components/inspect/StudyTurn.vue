<script setup lang="ts">
/** The line of a study whose turn it is: read, saved, and on to the next. What is typed outlasts a reload. */
import { computed, nextTick, reactive, ref, watch } from 'vue'
import type { StudyLine } from '#shared/answers/studies'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useDraft } from '~/composables/draft'
import { useEntryForm } from '~/composables/entry-form'
import { useUi } from '~/state/ui'
import { readingEffectWords } from '~/words/effects'
import { turnWords } from '~/words/study'

const props = defineProps<{ study: StudyLine; line: number }>()
const ui = useUi()
const form = useEntryForm('/api/study-readings')
const empty = { goMm: null as number | null, noGoMm: null as number | null, valueMm: null as number | null }
const v = reactive({ ...empty })
const draft = useDraft(v)
/** The line that is open here: it stays while it is being sent, when it counts as read already. */
const line = ref(props.line)
const sending = ref(false)
watch([() => props.line, sending], () => {
  if (!sending.value) line.value = props.line
})
watch(
  // by its name: the list is read anew after every save anywhere, and what is typed must outlast that
  () => `study ${props.study.id} ${line.value}`,
  name => {
    form.reset()
    draft.begin(name, empty)
  },
  { immediate: true },
)
const turn = computed(() => {
  const l = props.study.lines[line.value]!
  return {
    line: line.value,
    lines: props.study.lines.length,
    round: l.round,
    person: props.study.people.find(p => p.id === l.personId)!.name,
    tag: props.study.nozzles.find(n => n.id === l.nozzleId)!.tag,
  }
})
/** Errors of what has no field here: the study, the line. */
const elsewhere = computed(() => Object.fromEntries(Object.entries(form.errors.value).filter(([f]) => !(f in empty))))
const first = computed(() => (props.study.method === 'pins' ? 'study-go' : 'study-value'))

async function save(confirmed: string[] = []): Promise<void> {
  if (sending.value) return
  const { line: at, tag } = turn.value
  const body = { studyId: props.study.id, line: at, ...v, occurredAt: new Date().toISOString() }
  sending.value = true
  const done = await form.send(body, `Line ${at + 1} of ${props.study.name}, ${tag}`, confirmed)
  if (done !== null) draft.drop()
  sending.value = false
  if (done === null) return
  if (done !== 'queued') ui.say(`Line ${at + 1} is read. ${readingEffectWords(done, props.study)}`)
  // the same field again for the next line, as soon as it stands
  void nextTick(() => document.getElementById(first.value)?.focus())
}
</script>

<template>
  <form class="sheet no-print grid gap-3 p-4" :aria-label="`Line ${line + 1}`" @submit.prevent="save()">
    <p class="text-[22px] font-bold leading-tight [font-stretch:88%]" role="status">{{ turnWords(turn) }}</p>
    <div class="flex items-center gap-3 text-sm text-ink2">
      <progress
        class="h-2 flex-1"
        :max="turn.lines"
        :value="turn.line"
        :aria-label="`${turn.line} of ${turn.lines} read`"
      />
      round {{ turn.round + 1 }} of {{ study.repeats }}
    </div>
    <div v-if="study.method === 'pins'" class="grid max-w-[420px] grid-cols-2 gap-3">
      <FieldNumber id="study-go" v-model="v.goMm" label="Goes" unit="mm" :error="form.errors.value.goMm" />
      <FieldNumber
        id="study-no-go"
        v-model="v.noGoMm"
        label="Does not go"
        unit="mm"
        :error="form.errors.value.noGoMm"
      />
    </div>
    <div v-else class="flex flex-wrap items-end gap-3">
      <FieldNumber
        id="study-value"
        v-model="v.valueMm"
        label="Bore in the picture"
        unit="mm"
        :error="form.errors.value.valueMm"
      />
      <NuxtLink class="button" :to="`/inspect/picture?study=${study.id}`">Measure a picture for this line</NuxtLink>
    </div>
    <p v-for="(e, f) in elsewhere" :key="f" class="text-sm font-semibold text-stop" role="alert">
      {{ e }}
    </p>
    <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" @local="form.reset()" />
    <div>
      <button type="submit" class="button first" :disabled="form.busy.value">Save line {{ line + 1 }}</button>
    </div>
  </form>
</template>
