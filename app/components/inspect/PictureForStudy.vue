<script setup lang="ts">
/** A measured picture as the next line of a gauge study, instead of a gauge. */
import { computed, watch } from 'vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import { useAnswer } from '~/composables/answer'
import { useStudyTurn } from '~/composables/study-turn'
import { useEntryForm } from '~/composables/entry-form'
import { useUi } from '~/state/ui'
import { readingEffectWords } from '~/words/effects'
import { turnWords } from '~/words/study'

const props = defineProps<{ studyId: number; boreMm: number | null; tag: string | null; setupId: number | null }>()
const emit = defineEmits<{ turn: [turn: { tag: string; setupId: number }]; saved: [] }>()
const ui = useUi()
const { data: studies } = useAnswer('/api/studies')
const form = useEntryForm('/api/study-readings')
const study = computed(() => studies.value?.find(s => s.id === props.studyId && s.method === 'picture') ?? null)
const next = useStudyTurn(study)
const turn = computed(() => {
  const s = study.value
  const line = next.value
  if (!s || line === null) return null
  const l = s.lines[line]!
  const person = s.people.find(p => p.id === l.personId)!.name
  const { tag } = s.nozzles.find(n => n.id === l.nozzleId)!
  return { line, lines: s.lines.length, person, tag, setupId: s.setup!.id }
})
watch(
  () => turn.value?.line,
  () => {
    form.reset()
    if (turn.value) emit('turn', { tag: turn.value.tag, setupId: turn.value.setupId })
  },
  { immediate: true },
)
/** Another nozzle or set-up was chosen meanwhile: then this is no reading of that line. */
const isOfTurn = computed(() => turn.value?.tag === props.tag && turn.value?.setupId === props.setupId)

async function save(confirmed: string[] = []): Promise<void> {
  const t = turn.value
  if (!t || !study.value || props.boreMm === null) return
  const valueMm = Number(props.boreMm.toFixed(5))
  const body = { studyId: props.studyId, line: t.line, valueMm, occurredAt: new Date().toISOString() }
  const done = await form.send(body, `Line ${t.line + 1} of ${study.value.name}, ${t.tag}`, confirmed)
  if (done === null) return
  if (done !== 'queued') ui.say(`Line ${t.line + 1} is read. ${readingEffectWords(done, study.value)}`)
  emit('saved')
}
</script>

<template>
  <section v-if="studies" class="sheet no-print grid gap-3 border-2 border-ink p-3" aria-label="For a gauge study">
    <p class="label">{{ study ? `For the study ${study.name}` : 'This study is not known' }}</p>
    <template v-if="turn">
      <p class="text-[17px] font-bold" role="status">{{ turnWords(turn) }}</p>
      <p v-if="!isOfTurn" class="text-sm font-semibold text-look">
        Choose {{ turn.tag }} and the set-up of the study: a picture of anything else is no reading of this line.
      </p>
      <p v-for="(e, f) in form.errors.value" :key="f" class="text-sm font-semibold text-stop" role="alert">{{ e }}</p>
      <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" @local="form.reset()" />
      <button
        type="button"
        class="button first"
        :disabled="form.busy.value || boreMm === null || !isOfTurn"
        @click="save()"
      >
        {{ boreMm === null ? 'Measure its picture first' : `Save line ${turn.line + 1}: ${boreMm.toFixed(4)} mm` }}
      </button>
    </template>
    <p v-else-if="study" class="font-semibold">Its list is worked off.</p>
    <NuxtLink class="button plain" :to="`/inspect/study?study=${studyId}`">Back to the study</NuxtLink>
  </section>
</template>
