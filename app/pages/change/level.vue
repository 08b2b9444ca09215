<script setup lang="ts">
/** Level and Z: how level a bed is, which screw by how much, and whether Z and the probe stay where they were set. */
import { computed, ref, watch } from 'vue'
import { turnWords } from '#core/level'
import { mm } from '#core/words'
import type { LevelLine } from '#shared/answers/level'
import { when } from '#shared/time'
import { seeLevel } from '#shared/level'
import BedDrawing from '~/components/change/BedDrawing.vue'
import BedSheet from '~/components/change/BedSheet.vue'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import FeelerSheet from '~/components/change/FeelerSheet.vue'
import MeshSheet from '~/components/change/MeshSheet.vue'
import ZSheet from '~/components/change/ZSheet.vue'
import EntryLine from '~/components/entry/EntryLine.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import LeadSentence from '~/components/ui/LeadSentence.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { usePrinterChoice } from '~/composables/printer-choice'
import { driftWords, zSeries } from '~/lib/z-series'
import { useShop } from '~/state/shop'

const ZChart = defineAsyncComponent(() => import('~/components/change/ZChart.vue'))

useHead({ title: 'Level and Z · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
const shop = useShop()
const printerId = usePrinterChoice(() => shop.data?.printers ?? [])
/** The printer stands in the address: the page is the same after a reload. */
watch(printerId, id => {
  const name = shop.data?.printers.find(p => p.id === id)?.name
  if (name !== undefined && route.query.printer !== name)
    void router.replace({ query: { ...route.query, printer: name } })
})
const { data, failure } = useAnswer('/api/levels/{id}', {
  params: () => (printerId.value === null ? null : { id: printerId.value }),
})
const page = computed(() => (data.value?.printerId === printerId.value ? data.value : null))
const seen = computed(() => {
  const p = page.value
  if (!p?.bed || !p.latest) return null
  return seeLevel(p.latest.measured, p.bed, { bedC: p.latest.bedC, jobC: p.jobC })
})
const lost = computed(() => page.value?.heads.find(h => h.lost !== null) ?? null)
const lead = computed(() => {
  const p = page.value
  if (!p) return null
  if (lost.value) return { mark: 'look' as const, text: `${lost.value.place}: ${lost.value.lost}` }
  if (!p.bed)
    return { mark: 'look' as const, text: `How the bed of ${p.printer} is screwed down is not described yet.` }
  if (!seen.value) return { mark: 'look' as const, text: `The bed of ${p.printer} was not measured yet.` }
  const { mark, says, action } = seen.value.verdict
  return { mark, text: action ? `${says} ${action}.` : says }
})
const known = computed(() => {
  const s = seen.value
  const p = page.value
  if (!s || !p?.latest || !p.bed) return []
  const latest = p.levels.find(l => l.id === p.latest!.id)!
  const across = (v: number) => mm(v, 2)
  const pitch = `${p.bed.pitchMm} mm a turn (${p.bed.basis})`
  const turns = s.found.screws.some(t => t.parts > 0)
    ? s.found.screws.map(t => ({ what: `Screw ${t.name}`, says: turnWords(t) }))
    : []
  const hot = p.latest.soakedMin === null ? '' : `, soaked ${p.latest.soakedMin} min`
  return [
    { what: 'Measured', says: `${when(latest.at, shop.zone)}, ${latest.by}, bed at ${p.latest.bedC} °C${hot}` },
    { what: 'Highest to lowest', says: across(s.found.rangeMm) },
    { what: 'Tilt over the bed', says: `${across(s.found.tiltMm)}, ${s.found.highCorner} high` },
    { what: 'Warp', says: s.found.warpMm === null ? 'three points cannot tell' : across(s.found.warpMm) },
    ...(turns.length === 0 ? [{ what: 'Screws', says: p.bed.screws.length === 0 ? 'none' : 'leave them' }] : turns),
    ...(turns.length > 0 ? [{ what: 'Left after that', says: across(s.found.leftMm) }] : []),
    ...(p.bed.screws.length === 0 ? [] : [{ what: 'Pitch of the screws', says: pitch }]),
  ]
})
const heads = computed(() =>
  (page.value?.heads ?? []).map(h => {
    const series = zSeries(h)
    const nozzle = h.records.find(r => r.struck === null && r.why !== 'power-off')?.nozzle ?? ''
    return { ...h, series, says: series.map(s => driftWords(s, nozzle)) }
  }),
)
const WHY = {
  'change': 'set after a change',
  'feeler': 'set by feeler',
  'power-off': 'read after a power-off',
} as const
/** "mesh, 22 Nov, 10:00, Night technician; the probe gave nothing over the clip". */
const measuredWords = (l: LevelLine) =>
  [l.how === 'mesh' ? 'mesh' : 'by feeler', when(l.at, shop.zone), l.by].join(', ') + (l.note ? `; ${l.note}` : '')
const open = ref<'bed' | 'feeler' | 'mesh' | null>(null)
const zOf = ref<number | null>(null)
const zHead = computed(() => page.value?.heads.find(h => h.id === zOf.value) ?? null)
const striking = ref<{ target: 'level' | 'Z record'; id: number; says: string } | null>(null)
</script>

<template>
  <div>
    <ChangeTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else>
      <FieldSelect
        id="level-printer"
        v-model="printerId"
        class="mb-3 max-w-[420px]"
        label="Which printer"
        :options="(shop.data?.printers ?? []).map(p => ({ value: p.id, text: p.name }))"
      />
      <template v-if="page && lead">
        <LeadSentence :lead="lead" />
        <div class="mb-4 flex flex-wrap gap-2">
          <template v-if="page.bed">
            <button type="button" class="button" :class="lost ? '' : 'first'" @click="open = 'feeler'">
              Measure by feeler
            </button>
            <button type="button" class="button" @click="open = 'mesh'">Paste a mesh</button>
          </template>
          <button
            v-for="h in page.heads"
            :key="h.id"
            type="button"
            class="button"
            :class="h.lost ? 'first' : ''"
            @click="zOf = h.id"
          >
            Log Z{{ page.heads.length > 1 ? ` of ${h.name}` : '' }}
          </button>
          <button type="button" class="button" :class="page.bed ? 'plain' : 'first'" @click="open = 'bed'">
            {{ page.bed ? 'Edit the bed' : 'Describe the bed' }}
          </button>
        </div>
        <div
          v-if="page.bed"
          class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-[minmax(0,1fr)_430px]"
        >
          <BedDrawing :bed="page.bed" :found="seen?.found ?? null" :label="`The bed of ${page.printer} from above`" />
          <dl v-if="known.length > 0" class="title-block grid-cols-1 sm:grid-cols-2 xl:grid-cols-1">
            <div v-for="(k, i) in known" :key="k.what" :class="i === 0 ? '!border-t-0' : ''">
              <dt>{{ k.what }}</dt>
              <dd>{{ k.says }}</dd>
            </div>
          </dl>
        </div>
        <section v-for="h in heads" :key="h.id" class="mt-5" :aria-labelledby="`z-${h.id}`">
          <h2 :id="`z-${h.id}`" class="border-b-2 border-ink pb-1">Z of {{ h.place }}</h2>
          <p v-if="h.records.length === 0" class="mt-2 text-ink2">
            No number is logged yet: a swap logs one, or log it here.
          </p>
          <template v-else>
            <p v-for="s in h.says" :key="s" class="mt-2">{{ s }}</p>
            <ZChart
              v-if="(h.series[0]?.points.length ?? 0) >= 3"
              class="mt-2"
              :series="h.series"
              :label="`Z${h.series.length > 1 ? ' (discs) and probe (squares)' : ''} of ${h.place} over time, mm`"
            />
            <p v-if="(h.series[0]?.points.length ?? 0) >= 3" class="text-sm text-ink2">
              Disc: Z{{ h.series.length > 1 ? '; square: offset of the probe' : '' }}. Solid line: it drifts; broken: it
              may stand still.
            </p>
            <ul class="mt-2">
              <EntryLine
                v-for="r in h.records.slice(0, 12)"
                :key="r.id"
                :struck="r.struck"
                :entered="`${when(r.at, shop.zone)}, ${r.by}`"
                :name="`Z ${mm(r.zMm)}`"
                @strike="striking = { target: 'Z record', id: r.id, says: `Z ${mm(r.zMm)} of ${h.place}` }"
              >
                <span class="tabular w-[90px] font-semibold">{{ mm(r.zMm) }}</span>
                <span>{{ WHY[r.why] }}, {{ r.nozzle }}{{ r.probeMm === null ? '' : `; probe ${mm(r.probeMm)}` }}</span>
              </EntryLine>
            </ul>
          </template>
        </section>
        <section v-if="page.levels.length > 0" class="mt-5" aria-labelledby="levels-title">
          <h2 id="levels-title" class="border-b-2 border-ink pb-1">Measured before</h2>
          <ul>
            <EntryLine
              v-for="l in page.levels"
              :key="l.id"
              :struck="l.struck"
              :entered="measuredWords(l)"
              :name="when(l.at, shop.zone)"
              @strike="
                striking = { target: 'level', id: l.id, says: `The bed of ${page.printer} of ${when(l.at, shop.zone)}` }
              "
            >
              <VerdictMark :verdict="l.mark" :size="16" />
              <span class="min-w-0">{{ l.says }}</span>
            </EntryLine>
          </ul>
        </section>
        <BedSheet
          :open="open === 'bed'"
          :printer="{ id: page.printerId, name: page.printer }"
          :bed="page.bed"
          @close="open = null"
        />
        <FeelerSheet v-if="open === 'feeler'" :page="page" @close="open = null" />
        <MeshSheet v-if="open === 'mesh'" :page="page" @close="open = null" />
        <ZSheet v-if="zHead" :head="zHead" @close="zOf = null" />
        <StrikeSheet :target="striking" @close="striking = null" />
      </template>
      <div
        v-else-if="!failure"
        class="sheet h-[560px] animate-pulse opacity-60"
        role="status"
        aria-label="Reading the bed"
      />
    </template>
  </div>
</template>
