<script setup lang="ts">
/* eslint-disable max-lines -- what is typed, offered and worked out beside it changes together; tools are RunTool */
/** Log a run: from a job file that was read, or by hand. Remembers printer and spool; offers the fitted nozzle. */
import type { EnteredOf } from '#shared/answers/again'
import type { StoredCheck } from '#shared/answers/prepare'
import type { RunEffect } from '#shared/answers/runs'
import { SYMPTOMS } from '#shared/choices'
import { computed, reactive, ref, watch } from 'vue'
import { stoppedAt, type FullScan } from '#core/gcode'
import { checkStack, demandOfJob, inOrder, onSheet, readSurface, reason, stackOf, SURFACES } from '#core/limits'
import { fibreMassG, massG } from '#core/materials'
import { filamentOfSpool, readForAnother } from '#shared/filament'
import type { RunEntry } from '#shared/entries/runs'
import AgainBox from '~/components/entry/AgainBox.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import FieldText from '~/components/ui/FieldText.vue'
import FieldWhen from '~/components/ui/FieldWhen.vue'
import PrinterRestrictions from '~/components/ui/PrinterRestrictions.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import RunTool from '~/components/run/RunTool.vue'
import { amountOf, newTool, typedAmount, type ToolForm } from '~/components/run/tool-form'
import { inPlaceOf } from '~/composables/again'
import { useEntryForm } from '~/composables/entry-form'
import { useAnswer } from '~/composables/answer'
import { grams, kgEstimate } from '#core/words'
import { useOutbox } from '~/state/outbox'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

const props = defineProps<{
  scan: FullScan | null
  fileName: string
  sha256: string
  sizeBytes: number
  nozzleTag: string | null
  draft: string | null
  check?: StoredCheck | null
  /** The run that this one takes the place of. */
  again?: EnteredOf<'run'> | null
}>()
const emit = defineEmits<{ saved: [effect: RunEffect | 'queued', name: string]; reread: [diameterMm: number] }>()
const shop = useShop()
const ui = useUi()
const outbox = useOutbox()
const form = useEntryForm('/api/runs')
const { data: equip } = useAnswer('/api/equip')

const v = reactive({
  printerId: null as number | null,
  name: '',
  endedAt: new Date().toISOString(),
  hours: null as number | null,
  outcome: 'finished' as 'finished' | 'failed',
  stoppedKind: 'percent' as 'percent' | 'height' | 'weighed',
  stoppedValue: null as number | null,
  symptoms: [] as (typeof SYMPTOMS)[number][],
  /** Sheet and adhesive; null until somebody types there: then it is what the card says. */
  surface: null as string | null,
  note: '',
  tools: [newTool(0)],
})
const keptJob = ref<RunEntry['job']>(null)
/** What goes with a run that is entered again, or that waits to be sent, and has no field here. */
const besides = ref<Pick<RunEntry, 'jobId' | 'bedSetC' | 'chamberSetC' | 'precheckId'>>({})
/** The run that this one takes the place of, and why that is struck out. */
const replaced = ref<number | null>(null)
const struckFor = ref('')

const printer = computed(() => shop.data?.printers.find(p => p.id === v.printerId) ?? null)
const printers = computed(() => [
  { value: null as number | null, text: 'Choose a printer' },
  ...(shop.data?.printers ?? []).map(p => ({ value: p.id as number | null, text: p.name })),
])
const heads = computed(() =>
  (printer.value?.heads ?? []).map(h => ({
    value: h.id as number | null,
    text: h.nozzle ? `${h.name}, ${h.nozzle}` : `${h.name}, no nozzle`,
  })),
)
/** What a run that is entered again was of and no list has any more: retired or used up long since. */
const notListed = (ids: (number | null)[], list: readonly { id: number }[]) =>
  ids.filter(id => id !== null && !list.some(x => x.id === id)).map(value => ({ value, text: 'as it was entered' }))
const nozzlesFor = (headId: number | null) => [
  { value: null as number | null, text: 'Choose a nozzle' },
  ...notListed(
    v.tools.map(t => t.nozzleId),
    shop.data?.nozzles ?? [],
  ),
  ...(shop.data?.nozzles ?? [])
    .filter(n => !n.retired || v.tools.some(t => t.nozzleId === n.id))
    .sort((a, b) => Number(b.headId === headId) - Number(a.headId === headId) || a.tag.localeCompare(b.tag))
    .map(n => ({
      value: n.id as number | null,
      text: `${n.tag}, ${n.typeName}${n.headId === headId && headId !== null ? ' (fitted)' : ''}`,
    })),
]
const spools = computed(() => [
  { value: null as number | null, text: 'No spool: choose the material' },
  ...notListed(
    v.tools.map(t => t.spoolId),
    shop.data?.spools ?? [],
  ),
  ...(shop.data?.spools ?? [])
    .filter(s => s.inUse || v.tools.some(t => t.spoolId === s.id))
    .map(s => ({ value: s.id as number | null, text: `${s.tag}, ${s.material}, ${s.leftG.toFixed(0)} g left` })),
])
const materials = computed(() => [
  { value: null as number | null, text: 'Choose the material' },
  ...(shop.data?.materials ?? []).map(m => ({ value: m.id as number | null, text: m.name })),
])

function offerFitted(): void {
  for (const t of v.tools) {
    if (!printer.value?.heads.some(h => h.id === t.headId))
      t.headId =
        printer.value?.heads.length === 1 || v.tools.length > 1
          ? (printer.value?.heads[Math.min(t.tool, printer.value.heads.length - 1)]?.id ?? null)
          : (printer.value?.heads[0]?.id ?? null)
    t.nozzleId = printer.value?.heads.find(h => h.id === t.headId)?.nozzleId ?? null
    if (
      t.spoolId === null &&
      t.materialId === null &&
      printer.value?.lastSpoolId &&
      spools.value.some(s => s.value === printer.value!.lastSpoolId)
    )
      pickSpool(t, printer.value.lastSpoolId)
  }
}
function pickPrinter(id: number | null): void {
  v.printerId = id
  ui.lastPrinterId = id
  for (const t of v.tools) {
    t.spoolId = null
    t.materialId = null
  }
  offerFitted()
}
function pickHead(t: ToolForm, id: number | null): void {
  t.headId = id
  t.nozzleId = printer.value?.heads.find(h => h.id === id)?.nozzleId ?? null
}
/** A spool of another diameter than the file was read for: the file is read again. */
function pickSpool(t: ToolForm, id: number | null): void {
  t.spoolId = id
  if (id !== null) t.materialId = null
  const s = shop.data?.spools.find(x => x.id === id)
  const d = s ? { tag: s.tag, diameterMm: s.diameterMm } : null
  if (props.scan && readForAnother(d, props.scan.filamentDiameterMm)) emit('reread', d!.diameterMm)
}

let started = false
watch(
  () => [shop.data !== null, props.draft, outbox.entries.length] as const,
  ([ready]) => {
    if (!ready || started) return
    const kept = outbox.entries.find(e => e.key === props.draft)?.body as RunEntry | undefined
    if (props.draft && !kept && outbox.entries.length === 0) return
    started = true
    const filled = kept ?? props.again?.body
    if (filled) {
      fillFrom(filled)
      return
    }
    if (props.check) {
      fromCheck(props.check)
      return
    }
    const head = props.nozzleTag ? shop.data!.nozzles.find(n => n.tag === props.nozzleTag) : null
    if (head?.printerId) {
      v.printerId = head.printerId
      v.tools[0]!.headId = head.headId
    } else v.printerId = shop.data!.printers.find(p => p.id === ui.lastPrinterId)?.id ?? null
    offerFitted()
  },
  { immediate: true },
)
watch(
  () => props.scan,
  scan => {
    if (!scan) return
    const used = scan.tools.filter(t => t.extrudedMm > 0)
    const before = v.tools
    // of a file with one tool, whatever its number, what was chosen before stays
    const was = (index: number) =>
      before.find(b => b.tool === index) ?? (used.length === 1 ? before[0] : undefined) ?? newTool(index)
    v.tools = used.map(({ index }) => {
      const kept = was(index)
      return { ...kept, tool: index, setC: scan.maxSetpointC.tools[String(index)] ?? kept.setC }
    })
    if (v.name === '') v.name = props.fileName.replace(/\.(gcode|gco|g|nc|txt)$/i, '').slice(0, 255)
    offerFitted()
  },
  { immediate: true },
)

/** The run that a check was made for: its printer, head, spool and hours, and the tool that it was of. */
function fromCheck(c: StoredCheck): void {
  Object.assign(v, {
    printerId: c.printerId,
    name: c.name.replace(/\.(gcode|gco|g|nc|txt)$/i, ''),
    hours: c.hours === null ? null : Number(c.hours.toFixed(2)),
  })
  const spool = { spoolId: c.spoolId, materialId: c.spoolId === null ? c.materialId : null }
  v.tools = [{ ...newTool(c.tool), ...spool, setC: c.setC?.nozzleC ?? null }]
  pickHead(v.tools[0]!, c.headId)
}
function fillFrom(r: RunEntry): void {
  const { jobId, bedSetC, chamberSetC, precheckId } = r
  besides.value = { jobId, bedSetC, chamberSetC, precheckId }
  keptJob.value = r.job ?? null
  replaced.value = r.replaces?.id ?? props.again?.id ?? null
  struckFor.value = r.replaces?.reason ?? ''
  Object.assign(v, {
    printerId: r.printerId,
    name: r.name,
    endedAt: r.endedAt,
    hours: r.hours ?? null,
    outcome: r.outcome,
    stoppedKind: r.stopped?.kind ?? 'percent',
    stoppedValue: r.stopped?.value ?? null,
    symptoms: r.symptoms ?? [],
    surface: r.surface ?? '',
    note: r.note ?? '',
  })
  v.tools = r.tools.map(t => ({
    ...newTool(t.tool),
    headId: t.headId,
    nozzleId: t.nozzleId,
    spoolId: t.spoolId ?? null,
    materialId: t.materialId ?? null,
    setC: t.setC ?? null,
    ...typedAmount(t.amount),
  }))
}
const scanInUse = computed(() => props.scan ?? (keptJob.value?.scan as unknown as FullScan | undefined) ?? null)

/** The job's file was not what was printed: the amounts are typed. */
function byHand(): void {
  const s = keptJob.value!.scan
  keptJob.value = null
  v.stoppedValue = null
  v.tools = v.tools.map(t => {
    const mm = s.tools.find(x => x.index === t.tool)?.extrudedMm
    return mm === undefined ? t : { ...t, ...typedAmount({ kind: 'metres', metres: Number((mm / 1000).toFixed(2)) }) }
  })
}

const spoolOf = (t: ToolForm) => shop.data?.spools.find(x => x.id === t.spoolId)
const materialIdOf = (t: ToolForm) => spoolOf(t)?.materialId ?? t.materialId
/** Fraction, density and material of a tool's filament as chosen. */
function filament(t: ToolForm) {
  const s = spoolOf(t)
  const m = shop.data?.materials.find(x => x.id === materialIdOf(t))
  return m
    ? {
        name: m.name,
        ...filamentOfSpool(
          s ? { diameterMm: s.diameterMm, densityGCm3: s.ownDensityGCm3, fillerFraction: s.ownFillerFraction } : null,
          m,
          scanInUse.value?.filamentDiameterMm ?? null,
        ),
      }
    : null
}
const materialId = computed(() => (v.tools[0] ? materialIdOf(v.tools[0]) : null))
const { data: cards } = useAnswer('/api/cards/{id}', {
  params: () => (materialId.value === null ? null : { id: materialId.value }),
})
/** What the card names for this filament, printer and nozzle, unless another sheet is on. */
const byCard = computed(() => {
  const type = shop.data?.nozzles.find(n => n.id === v.tools[0]?.nozzleId)?.typeName
  const card = cards.value?.find(
    c => c.materialId === materialId.value && c.printerId === v.printerId && c.type === type,
  )
  const named = card?.hand?.adhesive ?? ''
  const on = equip.value?.printers.find(p => p.id === v.printerId)?.parts.find(p => p.role === 'sheet')?.details.surface
  const isOther = on !== undefined && readSurface(named) !== null && onSheet([named], on).length === 0
  return isOther ? '' : named
})
const surface = computed({ get: () => v.surface ?? byCard.value, set: typed => (v.surface = typed) })
const stopped = computed(() =>
  v.outcome === 'failed' && v.stoppedValue !== null && !Number.isNaN(v.stoppedValue)
    ? { kind: v.stoppedKind, value: v.stoppedValue }
    : null,
)
function massOf(t: ToolForm): { g: number | null; fibreG: number | null } {
  const f = filament(t)
  let g: number | null = null
  const s = scanInUse.value
  if (s) {
    const planned = s.tools.find(x => x.index === t.tool)
    if (planned && f?.densityGCm3) {
      let mm = planned.extrudedMm
      if (
        stopped.value &&
        s.profile &&
        stopped.value.kind !== 'weighed' &&
        (stopped.value.kind === 'height' || stopped.value.value <= 100) &&
        stopped.value.value >= 0
      )
        mm = stoppedAt(
          { tools: s.tools, profile: s.profile },
          stopped.value.kind === 'percent' ? { percent: stopped.value.value } : { heightMm: stopped.value.value },
        ).tools.find(x => x.index === t.tool)!.extrudedMm
      g =
        stopped.value?.kind === 'weighed'
          ? (stopped.value.value * planned.extrudedMm) / s.totalExtrudedMm!
          : massG(mm, f.diameterMm, f.densityGCm3)
    }
  } else if (t.way === 'grams') g = t.grams
  else if (t.way === 'weights') g = t.beforeG !== null && t.afterG !== null ? t.beforeG - t.afterG : null
  else if (f?.densityGCm3 && t.metres !== null) g = massG(t.metres * 1000, f.diameterMm, f.densityGCm3)
  if (g === null || Number.isNaN(g) || g < 0) return { g: null, fibreG: null }
  return { g, fibreG: f ? fibreMassG(g, f.fillerFraction) : null }
}
/** What the save will do, before it is done. */
function effectOf(t: ToolForm): string {
  const { g, fibreG } = massOf(t)
  const f = filament(t)
  const n = shop.data?.nozzles.find(x => x.id === t.nozzleId)
  if (f && f.densityGCm3 === null)
    return `${f.name} has no density, so a length has no mass: enter it in Stores, or log grams`
  if (g === null || !n) return ''
  const after = (kg: number | null) => Math.max(0, (kg ?? NaN) - (fibreG ?? 0) / 1000)
  const then = { median: after(n.leftKg), low80: after(n.leftLowKg), high80: after(n.leftHighKg) }
  // what is left now counts the run that this one takes the place of
  const left =
    replaced.value === null && fibreG && n.leftKg !== null && n.lastMaterial === f?.name
      ? `; ${kgEstimate(then)} left after it`
      : ''
  return `${grams(g)} ${f?.name ?? ''}, ${fibreG ? `${grams(fibreG)} fibre` : 'no fibre'} through ${n.tag}${left}`
}
/** The nozzle's remaining life with this run drawn on it. */
function lifeOf(t: ToolForm) {
  const n = shop.data?.nozzles.find(x => x.id === t.nozzleId)
  const { fibreG } = massOf(t)
  if (replaced.value !== null || !n || n.leftKg === null || !fibreG || n.lastMaterial !== filament(t)?.name) return null
  return {
    left: { median: n.leftKg, low80: n.leftLowKg!, high80: n.leftHighKg! },
    after: Math.max(0, n.leftKg - fibreG / 1000),
    label: `fibre left on ${n.tag} before and after this run`,
  }
}
/**
 * A file that asks more than the printer's stack allows says so before it is saved: each part that is short, by tool.
 */
const tooMuch = computed(() => {
  const s = scanInUse.value,
    stack = equip.value?.printers.find(p => p.id === v.printerId)
  if (!s || !stack) return []
  const out = new Set<string>()
  for (const t of v.tools) {
    const head = stack.heads.find(h => h.id === t.headId)
    if (!head) continue
    const demand = demandOfJob(
      v.name || props.fileName,
      {
        nozzleC: s.maxSetpointC.tools[String(t.tool)] ?? null,
        bedC: s.maxSetpointC.bed,
        chamberC: s.maxSetpointC.chamber,
      },
      null,
    )
    for (const l of inOrder(checkStack(stackOf(stack, head.id), demand, equip.value!.rules).lines))
      if (l.status === 'short') out.add(`It asks too much here: ${reason(l, demand, head.nozzle)}.`)
  }
  return [...out]
})

async function save(confirmed: string[] = []): Promise<void> {
  const s = scanInUse.value
  const body = {
    printerId: v.printerId,
    name: v.name || (s ? props.fileName : `${filament(v.tools[0]!)?.name ?? 'run'} by hand`),
    endedAt: v.endedAt,
    hours: v.hours,
    outcome: v.outcome,
    stopped: s ? stopped.value : null,
    symptoms: v.outcome === 'failed' ? v.symptoms : [],
    surface: surface.value.trim() || null,
    note: v.note,
    job: props.scan
      ? {
          name: props.fileName.slice(0, 255),
          contentSha256: props.sha256,
          sizeBytes: props.sizeBytes,
          scan: props.scan,
        }
      : keptJob.value,
    bedSetC: props.check?.setC?.bedC ?? besides.value.bedSetC ?? null,
    chamberSetC: props.check?.setC?.chamberC ?? besides.value.chamberSetC ?? null,
    precheckId: props.check?.id ?? besides.value.precheckId ?? null,
    jobId: props.scan || keptJob.value ? null : (besides.value.jobId ?? null),
    replaces: inPlaceOf(replaced.value, struckFor.value),
    tools: v.tools.map(t => ({
      tool: t.tool,
      headId: t.headId,
      nozzleId: t.nozzleId,
      spoolId: t.spoolId,
      materialId: t.materialId,
      setC: t.setC,
      amount: s ? { kind: 'job' } : amountOf(t),
    })),
  }
  const done = await form.send(body, `Run ${body.name}`, confirmed, props.draft)
  if (done === null) return
  for (const t of v.tools) Object.assign(t, { grams: null, metres: null, beforeG: t.afterG, afterG: null })
  Object.assign(v, {
    name: '',
    hours: null,
    outcome: 'finished',
    stoppedValue: null,
    symptoms: [],
    surface: null,
    note: '',
    endedAt: new Date().toISOString(),
  })
  emit('saved', done, body.name)
}
</script>

<template>
  <form class="sheet grid gap-4 p-3" aria-label="Log a run" @submit.prevent="save()">
    <AgainBox
      v-if="replaced !== null"
      v-model="struckFor"
      kind="run"
      :old="again ?? null"
      can-be-new
      :error="form.errors.value['replaces.reason'] ?? form.errors.value.replaces"
      @new="replaced = null"
    />
    <div class="grid gap-3 sm:grid-cols-2">
      <div class="grid content-start gap-1">
        <FieldSelect
          id="run-printer"
          :model-value="v.printerId"
          label="Printer"
          :options="printers"
          :error="form.errors.value.printerId"
          @update:model-value="pickPrinter"
        />
        <PrinterRestrictions :printer-id="v.printerId" />
      </div>
      <FieldText
        id="run-name"
        v-model="v.name"
        label="Job"
        placeholder="what was printed"
        :error="form.errors.value.name"
      />
    </div>
    <p v-if="keptJob && !scan" class="flex flex-wrap items-center gap-x-3">
      <span
        >By its job file, <b>{{ keptJob.name }}</b></span
      ><button type="button" class="button" @click="byHand">Enter what was extruded instead</button>
    </p>
    <div v-if="tooMuch.length" class="border-2 border-stop p-3" role="alert">
      <p v-for="w in tooMuch" :key="w" class="flex items-start gap-2 font-semibold text-stop">
        <VerdictMark verdict="stop" />{{ w }}
      </p>
    </div>
    <RunTool
      v-for="(t, i) in v.tools"
      :key="t.tool"
      v-model="v.tools[i]!"
      :index="i"
      :by-file="scanInUse !== null"
      :file-sets="scanInUse?.maxSetpointC.tools[String(t.tool)] !== undefined"
      :heads="heads"
      :nozzles="nozzlesFor(t.headId)"
      :spools="spools"
      :materials="materials"
      :errors="form.errors.value"
      :effect="effectOf(t)"
      :life="lifeOf(t)"
      @head="id => pickHead(t, id)"
      @spool="id => pickSpool(t, id)"
    />
    <div class="grid gap-3 border-t border-rule pt-3 sm:grid-cols-2 xl:grid-cols-3">
      <FieldWhen id="run-ended" v-model="v.endedAt" label="Ended" :error="form.errors.value.endedAt" />
      <FieldNumber
        id="run-hours"
        v-model="v.hours"
        label="Took"
        unit="h"
        placeholder="if known"
        :error="form.errors.value.hours"
      />
      <fieldset class="flex flex-wrap gap-x-3">
        <legend class="label">Outcome</legend>
        <label class="check"><input v-model="v.outcome" type="radio" name="outcome" value="finished" /> finished</label>
        <label class="check"><input v-model="v.outcome" type="radio" name="outcome" value="failed" /> failed</label>
      </fieldset>
    </div>
    <template v-if="v.outcome === 'failed'">
      <div v-if="scanInUse" class="grid gap-3 sm:grid-cols-3">
        <FieldSelect
          id="run-stopped-kind"
          v-model="v.stoppedKind"
          label="It stopped at"
          :options="[
            { value: 'percent', text: 'a percentage of the file' },
            { value: 'height', text: 'a height' },
            { value: 'weighed', text: 'known by weighing the print' },
          ]"
        />
        <FieldNumber
          id="run-stopped"
          v-model="v.stoppedValue"
          :label="{ percent: 'Share printed', height: 'Height reached', weighed: 'The print weighs' }[v.stoppedKind]"
          :unit="{ percent: '%', height: 'mm', weighed: 'g' }[v.stoppedKind]"
          :error="form.errors.value['stopped.value'] ?? form.errors.value.stopped"
          hint="Empty: the whole file counts"
        />
      </div>
      <p v-else class="text-sm text-ink2">A failed job wears the nozzle as well: enter above what was extruded.</p>
      <fieldset class="flex flex-wrap gap-x-3">
        <legend class="label">What went wrong</legend>
        <label v-for="s in SYMPTOMS" :key="s" class="check"
          ><input v-model="v.symptoms" type="checkbox" :value="s" /> {{ s }}</label
        >
      </fieldset>
    </template>
    <div class="grid gap-3 sm:grid-cols-2">
      <FieldText
        id="run-surface"
        v-model="surface"
        label="Sheet and adhesive"
        :placeholder="SURFACES[1]"
        :list="[...SURFACES]"
        :hint="v.surface === null && surface !== '' ? 'As its card says' : ''"
        :error="form.errors.value.surface"
      />
      <FieldText id="run-note" v-model="v.note" label="Note" :error="form.errors.value.note" />
    </div>
    <p v-if="form.errors.value.tools" class="font-semibold text-stop">{{ form.errors.value.tools }}</p>
    <QuestionBox :problem="form.problem.value" :busy="form.busy.value" @confirm="save" />
    <div><button type="submit" class="button first" :disabled="form.busy.value">Save the run</button></div>
  </form>
</template>
