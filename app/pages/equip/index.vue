<script setup lang="ts">
/* eslint-disable max-lines -- one screen: a question, and everything that its answer rests on */
/** Equip, the first question: may this job go on this printer, and what must be fitted first. */
import { CLASS_TEXT } from '~/words/verdict'
import { computed, ref, watch } from 'vue'
import { cautionsFor, printing } from '#core/cautions'
import {
  after,
  blockersOf,
  demandOf,
  demandOfJob,
  judge,
  sentenceOf,
  stackOf,
  type Demand,
  type Swap,
} from '#core/limits'
import ApplySheet from '~/components/equip/ApplySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import ChangePlan from '~/components/equip/ChangePlan.vue'
import EquipTabs from '~/components/equip/EquipTabs.vue'
import RequirementLines from '~/components/equip/RequirementLines.vue'
import WorkedLine from '~/components/equip/WorkedLine.vue'
import WhatElse from '~/components/equip/WhatElse.vue'
import StackSection from '~/components/equip/StackSection.vue'
import FileDrop from '~/components/run/FileDrop.vue'
import ClassMark from '~/components/ui/ClassMark.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import NotReady from '~/components/ui/NotReady.vue'
import PrinterRestrictions from '~/components/ui/PrinterRestrictions.vue'
import { useEquip } from '~/composables/equip'
import { askingOf, setsOf } from '~/lib/changes'
import { useScans } from '~/state/scans'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

useHead({ title: 'Equip · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
const shop = useShop()
const ui = useUi()
const scans = useScans()
const { data, failure, offers, filaments, fleet, compiled } = useEquip()

const materialId = ref<number | null>(null)
const setName = ref<string | null>(null)
const printerId = ref<number | null>(null)
const headId = ref<number | null>(null)
const fileId = ref<number | null>(null)
const tried = ref<Swap[]>([])
const applying = ref(false)
const dropping = ref(false)

const printer = computed(() => data.value?.printers.find(p => p.id === printerId.value) ?? null)
const standing = computed(() => data.value?.standing.find(s => s.printerId === printerId.value)?.standing ?? null)
const material = computed(() => data.value?.materials.find(m => m.id === materialId.value) ?? null)
const sets = computed(() => (material.value ? setsOf(material.value) : []))
const file = computed(() => scans.reads.find(r => r.id === fileId.value && r.scan) ?? null)

watch(
  () => [data.value, route.query] as const,
  ([d, q]) => {
    if (!d || d.printers.length === 0) return
    const num = (v: unknown) => (v === undefined ? null : Number(v))
    printerId.value =
      d.printers.find(p => p.id === (num(q.printer) ?? printerId.value))?.id ??
      d.printers.find(p => p.id === ui.lastPrinterId)?.id ??
      d.printers[0]!.id
    const common = d.mix[0]?.materialId
    materialId.value =
      d.materials.find(m => m.id === (num(q.filament) ?? materialId.value))?.id ??
      d.materials.find(m => m.id === common)?.id ??
      d.materials[0]?.id ??
      null
    if (q.set !== undefined) setName.value = String(q.set)
    if (q.head !== undefined) headId.value = Number(q.head)
  },
  { immediate: true },
)
watch(
  sets,
  s => {
    if (!s.some(x => x.name === setName.value))
      setName.value =
        (
          s.find(x => x.enclosed === (printer.value ? printer.value.parts.some(p => p.role === 'enclosure') : false)) ??
          s[0]
        )?.name ?? null
  },
  { immediate: true },
)
watch(
  printer,
  p => {
    if (p && !p.heads.some(h => h.id === headId.value)) headId.value = p.heads[0]?.id ?? null
  },
  { immediate: true },
)
watch([printerId, headId], () => {
  tried.value = []
})
/** The question as the address says it, once it is another than the page began with: Back and a reload keep it. */
const asked = computed(() => ({
  printer: printerId.value,
  head: headId.value,
  filament: materialId.value,
  set: setName.value,
}))
watch(
  asked,
  (now, was) => {
    if (was.printer === null || route.path !== '/equip' || JSON.stringify(now) === JSON.stringify(was)) return
    const said = Object.entries(now).flatMap(([key, v]) => (v === null ? [] : [[key, String(v)] as const]))
    void router.replace({ query: { ...route.query, ...Object.fromEntries(said) } })
  },
  { flush: 'post' },
)

const diameter = computed(
  () => file.value?.diameterMm ?? shop.data?.spools.find(s => s.materialId === materialId.value)?.diameterMm ?? 1.75,
)
const demand = computed<Demand | null>(() => {
  const s = sets.value.find(x => x.name === setName.value)
  const base = material.value && s ? demandOf(askingOf(material.value), s, diameter.value) : null
  if (!file.value) return base
  const scan = file.value.scan!
  const temps = Object.values(scan.maxSetpointC.tools)
  return demandOfJob(
    file.value.file.name,
    {
      nozzleC: temps.length > 0 ? Math.max(...temps) : null,
      bedC: scan.maxSetpointC.bed,
      chamberC: scan.maxSetpointC.chamber,
    },
    base,
  )
})
const now = computed(() =>
  printer.value && headId.value !== null && printer.value.heads.some(h => h.id === headId.value)
    ? after(printer.value, headId.value, tried.value)
    : null,
)
const result = computed(() => {
  if (!now.value || !demand.value || headId.value === null) return null
  const c = compiled(now.value, headId.value)
  const verdict = judge(c, demand.value)
  const nozzle = c.stack.nozzle
  return {
    verdict,
    nozzle,
    sentence: sentenceOf(
      verdict,
      printer.value!.name +
        (printer.value!.heads.length > 1 ? `, ${printer.value!.heads.find(h => h.id === headId.value)!.name}` : ''),
      nozzle,
      verdict.class === 'cannot' ? blockersOf(c, demand.value) : [],
    ),
  }
})
const cautions = computed(() =>
  now.value && demand.value && data.value && headId.value !== null
    ? cautionsFor(printing(stackOf(now.value, headId.value), demand.value, data.value.rules))
    : [],
)
/** Its practices, where this printer does not simply take it: others may, as they are. */
const elsewhere = computed(() => {
  const cls = result.value?.verdict.class
  if (file.value || cls === 'runs' || cls === 'just' || tried.value.length > 0) return null
  return filaments.value[data.value?.materials.findIndex(m => m.id === materialId.value) ?? -1] ?? null
})
const set = computed(() => sets.value.find(x => x.name === setName.value) ?? null)
const through = computed(() => {
  const ids =
    data.value?.through.find(
      t =>
        t.nozzleId === result.value?.nozzle?.id ||
        t.nozzleId === printer.value?.heads.find(h => h.id === headId.value)?.nozzle?.id,
    )?.materialIds ?? []
  return ids
    .map(id => data.value!.materials.find(m => m.id === id)!)
    .filter(Boolean)
    .map(m => ({ name: m.name, swapC: m.values.find(v => v.key === 'swapC')?.value ?? null }))
})
const changedIds = computed(() => tried.value.flatMap(s => s.add.map(a => a.id)))
function drop(id: number): void {
  fileId.value = id
  dropping.value = false
}
function applied(): void {
  applying.value = false
  tried.value = []
}
const materialOptions = computed(() =>
  (data.value?.materials ?? []).map(m => ({ value: m.id as number | null, text: m.name })),
)
const printerOptions = computed(() =>
  (data.value?.printers ?? []).map(p => ({ value: p.id as number | null, text: `${p.name}, ${p.kind}` })),
)
function pickPrinter(id: number | null): void {
  printerId.value = id
  if (id !== null) ui.lastPrinterId = id
}
</script>

<template>
  <div>
    <EquipTabs :failure="failure" />
    <EmptyShop v-if="data && data.printers.length === 0" />
    <div v-else-if="data && data.materials.length === 0" class="sheet max-w-[560px] p-4">
      <p class="mb-2">No filament is described yet, so nothing can be asked of a printer.</p>
      <NuxtLink to="/equip/materials?add=1" class="button first">Describe the first filament</NuxtLink>
    </div>
    <template v-else-if="data">
      <div class="mb-3 grid grid-cols-2 items-end gap-3 lg:grid-cols-[190px_minmax(0,1fr)_minmax(0,1fr)_auto_auto]">
        <FieldSelect id="ask-filament" v-model="materialId" label="Filament" :options="materialOptions" />
        <FieldSelect
          id="ask-set"
          v-model="setName"
          label="Practice"
          :options="sets.map(s => ({ value: s.name as string | null, text: s.name }))"
        />
        <FieldSelect
          id="ask-printer"
          :model-value="printerId"
          label="Printer"
          :options="printerOptions"
          @update:model-value="pickPrinter"
        />
        <FieldSelect
          v-if="printer && printer.heads.length > 1"
          id="ask-head"
          v-model="headId"
          label="Head"
          :options="printer.heads.map(h => ({ value: h.id as number | null, text: h.name }))"
        />
        <button type="button" class="button" :aria-expanded="dropping" @click="dropping = !dropping">
          {{ file ? 'Another job file' : 'Check a job file' }}
        </button>
      </div>
      <div v-if="dropping" class="mb-3 max-w-[420px]"><FileDrop :selected="fileId" @select="drop" /></div>
      <p v-if="file" class="mb-2 flex flex-wrap items-center gap-2 text-sm">
        <b>{{ file.file.name }}</b> is checked with its own setpoints, as they are; hardness, bore and the rest by the
        filament chosen.
        <button type="button" class="button plain" @click="fileId = null">Ask by window instead</button>
      </p>
      <template v-if="result && printer && demand && headId !== null">
        <PrinterRestrictions :printer-id="printer.id" class="mb-2" />
        <NotReady :printer="printer.name" :standing="standing" />
        <p
          class="mb-1 flex items-start gap-2 text-[17px] font-[680] leading-snug"
          role="status"
          :class="result.verdict.class === 'cannot tell' ? '' : CLASS_TEXT[result.verdict.class]"
        >
          <ClassMark :verdict="result.verdict.class" :size="20" class="mt-[2px]" />{{ result.sentence }}
        </p>
        <WhatElse
          v-if="!file && materialId !== null"
          :printer="now!"
          :head-id="headId"
          :demand="demand"
          :rules="data.rules"
          :material-id="materialId"
          :used="data.used.find(u => u.materialId === materialId) ?? null"
          :filament="elsewhere"
          :fleet="fleet"
        />
        <WorkedLine
          v-if="materialId !== null && result.nozzle"
          :material-id="materialId"
          :printer-id="printer.id"
          :nozzle-id="result.nozzle.id"
          :scan="file?.scan ?? null"
        />
        <p v-if="set && !file" class="mb-3 text-sm text-ink2">
          Practice “{{ set.name }}”: {{ set.conditions || 'no conditions entered'
          }}{{ set.note ? ` ${set.note[0]!.toUpperCase()}${set.note.slice(1)}.` : '' }}
        </p>
        <div
          class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] 2xl:grid-cols-[minmax(0,1fr)_minmax(0,1fr)] xl:grid-cols-[minmax(0,600px)_minmax(0,1fr)]"
        >
          <div class="order-2 grid grid-cols-[minmax(0,1fr)] gap-3 xl:order-1">
            <StackSection
              :printer="now!"
              :head-id="headId"
              :rules="data.rules"
              :lines="result.verdict.lines"
              :changed="changedIds"
            />
            <p class="no-print">
              <NuxtLink :to="`/equip/stack/${printer.id}`" class="act"
                >Parts of {{ printer.name }}, their limits and history</NuxtLink
              >
            </p>
          </div>
          <div class="order-1 grid grid-cols-[minmax(0,1fr)] gap-4 xl:order-2">
            <ChangePlan
              :class="['runs', 'just'].includes(result.verdict.class) && tried.length === 0 ? 'order-last' : ''"
              v-model:tried="tried"
              :printer="printer"
              :head-id="headId"
              :demand="demand"
              :offers="offers"
              :rules="data.rules"
              :currency="data.currency"
              :hotends="data.hotends"
              :others="filaments"
              :solved="['runs', 'just'].includes(result.verdict.class)"
              @apply="applying = true"
            />
            <RequirementLines :lines="result.verdict.lines" :demand="demand" :nozzle="result.nozzle" />
            <CautionList :cautions="cautions" title="When it prints" />
          </div>
        </div>
        <ApplySheet
          :open="applying"
          :printer="printer"
          :head-id="headId"
          :swaps="tried"
          :rules="data.rules"
          :through="through"
          @close="applying = false"
          @applied="applied"
        />
      </template>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the stacks"
    />
  </div>
</template>
