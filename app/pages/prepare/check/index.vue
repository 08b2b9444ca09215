<script setup lang="ts">
/* eslint-disable max-lines -- one screen: what is asked, lines and answers */
/** May I press start: printer, spool and job file on one page with a verdict. */
import type { CheckLineRow, PrecheckAnswer } from '#shared/answers/prepare'
import { computed, ref, toRef, watch } from 'vue'
import type { FullScan } from '#core/gcode'
import { stillAnswered, verdictOf, type Answer, type CheckPlace } from '#core/precheck'
import { readForAnother } from '#shared/filament'
import CautionList from '~/components/equip/CautionList.vue'
import CheckLineSheet from '~/components/prepare/CheckLineSheet.vue'
import CheckLines from '~/components/prepare/CheckLines.vue'
import PrepareTabs from '~/components/prepare/PrepareTabs.vue'
import FileDrop from '~/components/run/FileDrop.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import PrinterRestrictions from '~/components/ui/PrinterRestrictions.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { ask, ProblemError, read } from '~/lib/api'
import { useEntryForm } from '~/composables/entry-form'
import { usePrepare } from '~/composables/prepare'
import { useAnswer } from '~/composables/answer'
import { when } from '#shared/time'
import { addressOf, saidIn } from '~/lib/check-address'
import { ON_THE_PAGE, placeUrl } from '~/lib/check-places'
import { placeWords } from '~/words/water'
import { useCheck } from '~/state/check'
import { useScans } from '~/state/scans'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { checkConcern } from '#shared/news'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'May I start · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
/** The address follows what is chosen from here on. */
const written = ref(false)
const shop = useShop()
const scans = useScans()
const ui = useUi()
const { data, failure } = usePrepare()
const { data: jobs } = useAnswer('/api/jobs')
const form = useEntryForm('/api/prechecks')
const kept = useCheck()
// a store's ref, so that what is chosen here stays while a line's fact is changed elsewhere
const v = toRef(kept, 'v')
const problem = ref('')
const stored = ref<{ name: string; contentSha256: string; sizeBytes: number; scan: FullScan } | null>(null)

const printer = computed(() => shop.data?.printers.find(p => p.id === v.value.printerId) ?? null)
function pickPrinter(id: number | null): void {
  v.value.printerId = id
  if (id !== null) ui.lastPrinterId = id
  v.value.headId = printer.value?.heads[0]?.id ?? null
  const last = printer.value?.lastSpoolId ?? null
  if (last !== null && shop.data!.spools.some(s => s.id === last && s.inUse)) pickSpool(last)
}
function pickSpool(id: number | null): void {
  v.value.spoolId = id
  const s = shop.data?.spools.find(x => x.id === id)
  if (s) v.value.materialId = s.materialId
  const place = data.value?.spools.find(x => x.id === id)?.place
  v.value.printsFrom = place === 'dry box' || place === 'dryer' ? place : 'room'
}
watch(
  () => shop.data !== null && data.value !== null,
  ready => {
    if (!ready) return
    const { printers } = shop.data!
    const said = saidIn(route.query, shop.data!)
    // what was begun is there again, unless another printer is asked for
    const isBegun = printers.some(p => p.id === v.value.printerId)
    if (!isBegun || (said.printerId !== undefined && said.printerId !== v.value.printerId)) {
      kept.next()
      const last = printers.find(p => p.id === ui.lastPrinterId)
      pickPrinter(said.printerId ?? last?.id ?? printers[0]?.id ?? null)
    }
    if (said.spoolId != null && said.spoolId !== v.value.spoolId) pickSpool(said.spoolId)
    Object.assign(v.value, said)
    written.value = true
  },
  { immediate: true },
)
/** What is chosen stands in the address, once what that asked for is chosen. */
watch(
  () => (written.value && shop.data ? addressOf(v.value, shop.data) : null),
  now => {
    if (now === null || route.path !== '/prepare/check') return
    if (JSON.stringify(now) !== JSON.stringify(route.query)) void router.replace({ query: now })
  },
)
watch(
  () => v.value.jobId,
  async id => {
    stored.value = null
    if (id === null) return
    v.value.fileId = null
    try {
      stored.value = await read('/api/jobs/{id}', { id })
    } catch (e) {
      problem.value = e instanceof ProblemError ? e.problem.title : 'The server does not answer'
    }
  },
  { immediate: true },
)
const file = computed(() => scans.reads.find(r => r.id === v.value.fileId && r.scan) ?? null)
const job = computed(() =>
  file.value
    ? {
        name: file.value.file.name,
        contentSha256: file.value.sha256,
        sizeBytes: file.value.file.size,
        scan: file.value.scan!,
      }
    : stored.value,
)
watch(
  () => v.value.fileId,
  id => {
    if (id !== null) v.value.jobId = null
  },
)
// a spool of another diameter than the file was read for: it is read again
watch(
  () => [file.value?.scan, v.value.spoolId] as const,
  ([scan, id]) => {
    const s = shop.data?.spools.find(x => x.id === id)
    if (scan && s && readForAnother({ tag: s.tag, diameterMm: s.diameterMm }, scan.filamentDiameterMm))
      scans.again(file.value!.id, { diameterMm: s.diameterMm })
  },
)

// the lines, worked out by the server anew whenever something changes
const made = ref<PrecheckAnswer | null>(null)
const answers = computed<Answer[]>({
  get: () => v.value.answers,
  set: a => {
    v.value.answers = a
  },
})
const body = () => ({
  printerId: v.value.printerId,
  headId: v.value.headId,
  spoolId: v.value.spoolId,
  materialId: v.value.materialId,
  printsFrom: v.value.printsFrom,
  hours: v.value.hours,
  name: job.value?.name ?? 'no job file',
  contentSha256: job.value?.contentSha256 ?? null,
  sizeBytes: job.value?.sizeBytes ?? null,
  scan: job.value?.scan ?? null,
  tool: v.value.tool,
  setC: silent.value ? { nozzleC: v.value.nozzleC, bedC: v.value.bedC, chamberC: v.value.chamberC } : null,
  note: v.value.note,
  occurredAt: new Date().toISOString(),
})
/** The file says no temperatures: they are entered at the printer, and here. */
const silent = computed(() => {
  const set = job.value?.scan.maxSetpointC
  return set ? set.bed === null && Object.keys(set.tools).length === 0 : false
})
/** The job that a reason is given for: another one has reasons of its own. */
const workOf = (b: ReturnType<typeof body>) => [b.spoolId, b.materialId, b.tool, b.contentSha256 ?? b.name].join()
const wrong = ref<Record<string, string>>({})
let round = 0
async function check(): Promise<void> {
  if (v.value.printerId === null || v.value.headId === null || v.value.materialId === null || !job.value) {
    made.value = null
    return
  }
  const mine = ++round
  const sent = body()
  try {
    const answer = await ask('/api/prechecks/preview', sent)
    if (mine !== round) return
    const answered = { place: [sent.printerId, sent.headId].join(), work: workOf(sent), lines: answer.lines }
    answers.value = stillAnswered(answers.value, v.value.answered, answered)
    v.value.answered = answered
    made.value = answer
    problem.value = ''
    wrong.value = {}
  } catch (e) {
    if (mine !== round) return
    // what is wrong in a field is said there as well
    const errors = e instanceof ProblemError ? (e.problem.errors ?? []) : []
    wrong.value = Object.fromEntries(errors.map(x => [x.field, x.message]))
    problem.value =
      e instanceof ProblemError ? e.problem.title : 'The server does not answer; the check cannot be made now.'
  }
}
let timer: ReturnType<typeof setTimeout> | undefined
function checkSoon(): void {
  clearTimeout(timer)
  timer = setTimeout(() => void check(), 250)
}
watch(
  () =>
    [
      v.value.printerId,
      v.value.headId,
      v.value.spoolId,
      v.value.materialId,
      v.value.printsFrom,
      v.value.hours,
      v.value.tool,
      v.value.nozzleC,
      v.value.bedC,
      v.value.chamberC,
      job.value,
      shop.revision,
    ] as const,
  () => checkSoon(),
  { immediate: true },
)
watch(
  () => shop.news,
  items => {
    const nozzle = printer.value?.heads.find(h => h.id === v.value.headId)?.nozzleId ?? null
    if (checkConcern(items, { printer: v.value.printerId, nozzle, spool: v.value.spoolId })) checkSoon()
  },
)

function answer(index: number, how: 'looked' | 'waived' | null, reason: string): void {
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
  if (v.value.materialId === null)
    return { verdict: 'look' as const, text: 'Choose the spool, or at least the filament.' }
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
const cautions = computed(() => made.value?.cautions ?? [])
const urlOf = (where: CheckPlace) =>
  placeUrl(where, {
    printerId: v.value.printerId,
    printer: printer.value?.name ?? null,
    materialId: v.value.materialId,
    spool: shop.data?.spools.find(x => x.id === v.value.spoolId)?.tag ?? null,
    nozzle: printer.value?.heads.find(h => h.id === v.value.headId)?.nozzle ?? null,
    headId: v.value.headId,
  })
/** A line whose fact is a field of this page: there. */
function go(where: CheckPlace): void {
  const id = ON_THE_PAGE[where]
  const field = id === undefined ? null : document.getElementById(id)
  field?.focus()
  field?.scrollIntoView({ block: 'center' })
}
const ownOpen = ref<{ line: CheckLineRow | null } | null>(null)
const own = computed(() =>
  (data.value?.checkLines ?? []).filter(
    l =>
      (l.printerId === null || l.printerId === v.value.printerId) &&
      (l.materialId === null || l.materialId === v.value.materialId),
  ),
)
const tools = computed(() => (job.value?.scan.tools ?? []).filter(t => t.extrudedMm > 0))
watch(tools, t => {
  if (t.length > 0 && !t.some(x => x.index === v.value.tool)) v.value.tool = t[0]!.index
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
  // it is left for the stored one, which its own address must not call off
  written.value = done === 'queued'
  // also when it waits to be sent: the form that stays would be stored a second time
  kept.next()
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
          <PrinterRestrictions :printer-id="v.printerId" />
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
            label="Prints from"
            :options="[
              { value: 'room', text: 'the room' },
              { value: 'dry box', text: 'the dry box' },
              { value: 'dryer', text: 'the dryer' },
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
            :error="wrong.hours"
            :hint="
              made?.hours != null && v.hours === null
                ? `at least ${made.hours.toFixed(1)} by the file's moves`
                : 'as the slicer says'
            "
          />
          <template v-if="silent">
            <FieldNumber
              id="check-nozzle-c"
              v-model="v.nozzleC"
              label="Nozzle will be set to"
              unit="°C"
              hint="the file sets none"
              :error="wrong['setC.nozzleC']"
            />
            <FieldNumber
              id="check-bed-c"
              v-model="v.bedC"
              label="Bed will be set to"
              unit="°C"
              :error="wrong['setC.bedC']"
            />
            <FieldNumber
              id="check-chamber-c"
              v-model="v.chamberC"
              label="Chamber heater"
              unit="°C"
              hint="empty: stays off"
              :error="wrong['setC.chamberC']"
            />
          </template>
          <FileDrop :selected="v.fileId" @select="id => (v.fileId = id)" />
        </div>
        <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <p v-if="problem" class="font-semibold text-stop" role="alert">{{ problem }}</p>
          <template v-if="made && job">
            <CheckLines
              :lines="made.lines"
              :answers="answers"
              :errors="form.errors.value"
              :url-of="urlOf"
              @answer="answer"
              @go="go"
            />
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
          <section v-if="made" aria-labelledby="own-lines">
            <h2 id="own-lines">The shop's own lines</h2>
            <ul>
              <li
                v-for="l in own"
                :key="l.id"
                class="flex flex-wrap items-center gap-x-3 border-t border-rule"
                :class="l.withdrawn ? 'text-ink2 line-through' : ''"
              >
                <span class="flex-1">{{ l.says }}</span><button
                  type="button"
                  class="button plain"
                  @click="ownOpen = { line: l }"
                >
                  Edit<span class="sr-only"> {{ l.says }}</span>
                </button>
              </li>
            </ul>
            <p v-if="own.length === 0" class="text-sm">None for this printer and filament.</p>
            <button type="button" class="button mt-1" @click="ownOpen = { line: null }">Add a line of your own</button>
          </section>
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
    <CheckLineSheet
      :open="ownOpen !== null"
      :line="ownOpen?.line ?? null"
      :printer-id="v.printerId"
      :material-id="v.materialId"
      @close="ownOpen = null"
    />
  </div>
</template>
