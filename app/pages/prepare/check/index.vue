<script setup lang="ts">
/* eslint-disable max-lines -- one screen: what is asked, lines and answers */
/** May I press start: printer, spool and job file on one page with a verdict. */
import type { PrecheckAnswer } from '#shared/answers/prepare'
import { computed, reactive, ref, watch } from 'vue'
import { cautionsFor } from '#core/cautions'
import type { FullScan } from '#core/gcode'
import { verdictOf, type Answer } from '#core/precheck'
import { readForAnother } from '#shared/filament'
import CautionList from '~/components/equip/CautionList.vue'
import CheckLines from '~/components/prepare/CheckLines.vue'
import PrepareTabs from '~/components/prepare/PrepareTabs.vue'
import FileDrop from '~/components/run/FileDrop.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { ask, ProblemError, read } from '~/lib/api'
import { useEntryForm } from '~/composables/entry-form'
import { usePrepare } from '~/composables/prepare'
import { useAnswer } from '~/composables/answer'
import { when } from '#shared/time'
import { placeWords } from '~/words/water'
import { useScans } from '~/state/scans'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'May I start · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const scans = useScans()
const ui = useUi()
const { data, failure } = usePrepare()
const { data: jobs } = useAnswer('/api/jobs')
const form = useEntryForm('/api/prechecks')
const v = reactive({
  printerId: null as number | null,
  headId: null as number | null,
  spoolId: null as number | null,
  materialId: null as number | null,
  printsFrom: 'room' as 'room' | 'dry box' | 'dryer',
  hours: null as number | null,
  jobId: null as number | null,
  fileId: null as number | null,
  tool: 0,
  note: '',
})
const stored = ref<{ name: string; contentSha256: string; scan: FullScan } | null>(null)

const printer = computed(() => shop.data?.printers.find(p => p.id === v.printerId) ?? null)
function pickPrinter(id: number | null): void {
  v.printerId = id
  if (id !== null) ui.lastPrinterId = id
  v.headId = printer.value?.heads[0]?.id ?? null
  const last = printer.value?.lastSpoolId ?? null
  if (last !== null && shop.data!.spools.some(s => s.id === last && s.inUse)) pickSpool(last)
}
function pickSpool(id: number | null): void {
  v.spoolId = id
  const s = shop.data?.spools.find(x => x.id === id)
  if (s) v.materialId = s.materialId
  const place = data.value?.spools.find(x => x.id === id)?.place
  v.printsFrom = place === 'dry box' || place === 'dryer' ? place : 'room'
}
watch(
  () => shop.data !== null && data.value !== null,
  ready => {
    if (!ready || v.printerId !== null) return
    const asked = shop.data!.printers.find(p => p.name === route.query.printer)
    pickPrinter(
      asked?.id ?? shop.data!.printers.find(p => p.id === ui.lastPrinterId)?.id ?? shop.data!.printers[0]?.id ?? null,
    )
    const spool = shop.data!.spools.find(s => s.tag === route.query.spool)
    if (spool) pickSpool(spool.id)
  },
  { immediate: true },
)
watch(
  () => v.jobId,
  async id => {
    stored.value = null
    if (id === null) return
    v.fileId = null
    try {
      stored.value = await read('/api/jobs/{id}', { id })
    } catch (e) {
      problem.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer'
    }
  },
)
const file = computed(() => scans.reads.find(r => r.id === v.fileId && r.scan) ?? null)
const job = computed(() =>
  file.value ? { name: file.value.file.name, contentSha256: file.value.sha256, scan: file.value.scan! } : stored.value,
)
watch(
  () => v.fileId,
  id => {
    if (id !== null) v.jobId = null
  },
)
// a spool of another diameter than the file was read for: it is read again
watch(
  () => [file.value?.scan, v.spoolId] as const,
  ([scan, id]) => {
    const s = shop.data?.spools.find(x => x.id === id)
    if (scan && s && readForAnother({ tag: s.tag, diameterMm: s.diameterMm }, scan.filamentDiameterMm))
      scans.again(file.value!.id, { diameterMm: s.diameterMm })
  },
)

// the lines, worked out by the server anew whenever something changes
const made = ref<PrecheckAnswer | null>(null)
const problem = ref('')
const answers = ref<Answer[]>([])
const body = () => ({
  printerId: v.printerId,
  headId: v.headId,
  spoolId: v.spoolId,
  materialId: v.materialId,
  printsFrom: v.printsFrom,
  hours: v.hours,
  name: job.value?.name ?? 'no job file',
  contentSha256: job.value?.contentSha256 ?? null,
  scan: job.value?.scan ?? null,
  tool: v.tool,
  note: v.note,
  occurredAt: new Date().toISOString(),
})
let round = 0
async function check(): Promise<void> {
  if (v.printerId === null || v.headId === null || v.materialId === null || !job.value) {
    made.value = null
    return
  }
  const mine = ++round
  try {
    const answer = await ask('/api/prechecks/preview', body())
    if (mine !== round) return
    if (made.value?.seen.join() !== answer.seen.join())
      answers.value = answers.value.filter(a => answer.seen[a.index] === made.value?.seen[a.index])
    made.value = answer
    problem.value = ''
  } catch (e) {
    if (mine === round)
      problem.value =
        e instanceof ProblemError ? e.problem.title : 'The server does not answer; the check cannot be made now.'
  }
}
let timer: ReturnType<typeof setTimeout> | undefined
watch(
  () =>
    [v.printerId, v.headId, v.spoolId, v.materialId, v.printsFrom, v.hours, v.tool, job.value, shop.revision] as const,
  () => {
    clearTimeout(timer)
    timer = setTimeout(() => void check(), 250)
  },
  { immediate: true },
)

function answer(index: number, how: Answer['how'] | null, reason: string): void {
  answers.value = [
    ...answers.value.filter(a => a.index !== index),
    ...(how === null ? [] : [{ index, how, reason }]),
  ].sort((a, b) => a.index - b.index)
}
const verdict = computed(() => (made.value ? verdictOf(made.value.lines, answers.value) : null))
const sentence = computed(() => {
  if (!job.value)
    return {
      verdict: 'look' as const,
      text: 'Drop the job file, or choose one the shop has, and see whether you may press start.',
    }
  if (v.materialId === null) return { verdict: 'look' as const, text: 'Choose the spool, or at least the filament.' }
  if (!made.value || !verdict.value) return { verdict: 'look' as const, text: 'Checking …' }
  const open = verdict.value.open.map(i => made.value!.lines[i]!)
  if (verdict.value.may)
    return {
      verdict: 'fine' as const,
      text: `You may press start${verdict.value.waived ? `, with ${verdict.value.waived} waived` : ''}.`,
    }
  const stops = open.filter(l => l.status === 'stop')
  if (stops.length > 0)
    return {
      verdict: 'stop' as const,
      text: `Do not start: ${stops[0]!.says}${open.length > 1 ? ` And ${open.length - 1} more.` : ''}`,
    }
  return {
    verdict: 'look' as const,
    text: `Not yet: ${open.length} ${open.length === 1 ? 'line is' : 'lines are'} open.`,
  }
})
const material = computed(() => shop.data?.materials.find(m => m.id === v.materialId) ?? null)
const cautions = computed(() =>
  job.value && material.value
    ? cautionsFor({
        action: 'print',
        polymers: [material.value.polymer],
        fillers: [material.value.filler],
        nozzleC: job.value.scan.maxSetpointC?.tools[String(v.tool)] ?? null,
        bedC: job.value.scan.maxSetpointC?.bed ?? null,
        chamberC: job.value.scan.maxSetpointC?.chamber ?? null,
      })
    : [],
)
const tools = computed(() => (job.value?.scan.tools ?? []).filter(t => t.extrudedMm > 0))
watch(tools, t => {
  if (t.length > 0 && !t.some(x => x.index === v.tool)) v.tool = t[0]!.index
})
const spools = computed(() => [
  { value: null as number | null, text: 'No spool: choose the filament' },
  ...(shop.data?.spools ?? [])
    .filter(s => s.inUse)
    .map(s => {
      const state = data.value?.spools.find(x => x.id === s.id)
      return {
        value: s.id as number | null,
        text: `${s.tag}, ${s.material}, ${s.leftG.toFixed(0)} g${state ? `, ${placeWords(state)}` : ''}`,
      }
    }),
])

async function save(confirmed: string[] = []): Promise<void> {
  const done = await form.send(
    { ...body(), answers: answers.value, seen: made.value!.seen },
    `Check of ${job.value!.name} on ${printer.value!.name}`,
    confirmed,
  )
  if (done === null) {
    void check()
    return
  }
  if (done === 'queued') return
  ui.say(
    done.may
      ? 'Checked: you may press start. The check goes with the run.'
      : 'Stored with open lines: this is no permission to start.',
    done.may ? 'fine' : 'look',
  )
  await navigateTo(`/prepare/check/${done.id}`)
}
</script>

<template>
  <div>
    <PrepareTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else-if="shop.data && data">
      <p
        class="mb-3 flex items-start gap-2 text-[17px] font-[680] leading-snug"
        role="status"
        :class="VERDICT_TEXT[sentence.verdict]"
      >
        <VerdictMark :verdict="sentence.verdict" :size="20" class="mt-[2px]" />{{ sentence.text }}
      </p>
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 lg:grid-cols-[320px_minmax(0,1fr)]">
        <div class="grid gap-3">
          <FieldSelect
            id="check-printer"
            :model-value="v.printerId"
            label="Printer"
            :options="shop.data.printers.map(p => ({ value: p.id as number | null, text: p.name }))"
            @update:model-value="pickPrinter"
          />
          <FieldSelect
            v-if="printer && printer.heads.length > 1"
            id="check-head"
            v-model="v.headId"
            label="Head"
            :options="printer.heads.map(h => ({ value: h.id as number | null, text: h.name }))"
          />
          <FieldSelect
            id="check-spool"
            :model-value="v.spoolId"
            label="Spool"
            :options="spools"
            @update:model-value="pickSpool"
          />
          <FieldSelect
            v-if="v.spoolId === null"
            id="check-material"
            v-model="v.materialId"
            label="Filament"
            :options="[
              { value: null as number | null, text: 'Choose the filament' },
              ...shop.data.materials.map(m => ({ value: m.id as number | null, text: m.name })),
            ]"
          />
          <FieldSelect
            id="check-from"
            v-model="v.printsFrom"
            label="It prints"
            :options="[
              { value: 'room', text: 'from the room' },
              { value: 'dry box', text: 'from the dry box' },
              { value: 'dryer', text: 'from the dryer' },
            ]"
          />
          <FieldSelect
            id="check-job"
            v-model="v.jobId"
            label="Job the shop has"
            :options="[
              {
                value: null as number | null,
                text: file ? `${file.file.name}, dropped` : 'Choose one, or drop a file',
              },
              ...(jobs ?? []).map(j => ({ value: j.id as number | null, text: j.name })),
            ]"
          />
          <FieldSelect
            v-if="tools.length > 1"
            id="check-tool"
            v-model="v.tool"
            label="Tool"
            :options="tools.map(t => ({ value: t.index, text: `tool ${t.index}` }))"
          />
          <FieldNumber
            id="check-hours"
            v-model="v.hours"
            label="Job takes"
            unit="h"
            :hint="
              made?.hours != null && v.hours === null
                ? `at least ${made.hours.toFixed(1)} by the file's moves`
                : 'as the slicer says'
            "
          />
          <FileDrop :selected="v.fileId" @select="id => (v.fileId = id)" />
        </div>
        <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <p v-if="problem" class="font-semibold text-stop" role="alert">{{ problem }}</p>
          <template v-if="made && job">
            <CheckLines :lines="made.lines" :answers="answers" :errors="form.errors.value" @answer="answer" />
            <CautionList :cautions="cautions" title="When it prints" />
            <FieldText id="check-note" v-model="v.note" label="Note" :error="form.errors.value.note" />
            <p v-if="form.errors.value.seen" class="font-semibold text-stop" role="alert">
              {{ form.errors.value.seen }}
            </p>
            <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
            <div class="flex flex-wrap gap-2">
              <button type="button" class="button first" :disabled="form.busy.value" @click="save()">
                {{ verdict?.may ? 'Store the check, then start' : 'Store as it is' }}</button><NuxtLink
                v-if="v.spoolId !== null"
                :to="`/prepare/spool/${shop.data.spools.find(s => s.id === v.spoolId)?.tag}`"
                class="act"
                >Dry this spool</NuxtLink
              ><NuxtLink :to="`/prepare/soak?printer=${printer?.name}`" class="act">Soak</NuxtLink>
            </div>
          </template>
          <section v-if="data.checks.length" aria-labelledby="checks">
            <h2 id="checks">Checks before</h2>
            <ul>
              <li
                v-for="c in data.checks.slice(0, 8)"
                :key="c.id"
                class="flex flex-wrap items-center gap-x-3 border-t border-rule"
              >
                <VerdictMark :verdict="c.may ? 'fine' : 'look'" :size="14" /><NuxtLink
                  :to="`/prepare/check/${c.id}`"
                  class="act"
                  >{{ c.name }}</NuxtLink
                ><span class="text-ink2"
                  >{{ c.printer }}{{ c.spool ? `, ${c.spool}` : '' }}, {{ when(c.at, shop.zone) }}, {{ c.person
                  }}{{ c.run ? '; logged' : '' }}</span
                >
              </li>
            </ul>
          </section>
        </div>
      </div>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the shop"
    />
  </div>
</template>
