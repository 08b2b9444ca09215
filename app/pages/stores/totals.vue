<script setup lang="ts">
/** Totals: what was printed by week or month, what came out well, what it cost. */
import Papa from 'papaparse'
import { computed } from 'vue'
import { successRate } from '#core/totals'
import { counted, percent, sumOfPrices } from '#core/words'
import type { TotalsSpent } from '#shared/answers/totals'
import { TOTALS_BY, TOTALS_PER } from '#shared/choices'
import StoresTabs from '~/components/stores/StoresTabs.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import SortTable, { type SortColumn } from '~/components/ui/SortTable.vue'
import { useAnswer } from '~/composables/answer'
import { useInAddress } from '~/composables/in-address'
import { saveFile } from '~/lib/files'
import { MEASURES, periodName, seriesOf, together, totalsTable, type Measure } from '~/lib/totals'
import { useShop } from '~/state/shop'

const TotalsChart = defineAsyncComponent(() => import('~/components/stores/TotalsChart.vue'))
useHead({ title: 'Totals · Stores · Iron Nozzle' })
const shop = useShop()
/** A choice out of a list that lives in the address. */
function choice<T extends string>(key: string, all: readonly T[]) {
  const text = useInAddress(key, { none: all[0]! })
  return computed<T>({ get: () => all.find(x => x === text.value) ?? all[0]!, set: x => (text.value = x) })
}
const by = choice('by', TOTALS_BY)
const per = choice('per', TOTALS_PER)
const chosen = choice('of', Object.keys(MEASURES) as Measure[])
/** What can be told of them. */
const measures = computed(() =>
  (Object.keys(MEASURES) as Measure[]).filter(m => m !== 'money' || by.value !== 'material'),
)
const measure = computed({
  get: () => (measures.value.includes(chosen.value) ? chosen.value : measures.value[0]!),
  set: m => (chosen.value = m),
})
const BACK = { week: 13, month: 12 } as const
const { data, failure } = useAnswer('/api/totals', {
  query: () => ({ by: by.value, per: per.value, back: String(BACK[per.value]) }),
})
const BY_TEXT = { printer: 'Printer', material: 'Material', nozzle: 'Nozzle', person: 'Person' } as const
/** What is spent for none of them. */
const BESIDE = {
  printer: 'Taken from the shelf by hand, scrapped there, or retired without ever being fitted.',
  nozzle: 'What was taken from the shelf is of no nozzle.',
  person: '',
  material: '',
} as const
const names = computed(() => (data.value?.periods ?? []).map(p => periodName(p.from, data.value!.per)))
const series = computed(() => (data.value ? seriesOf(data.value, measure.value) : []))
const all = computed(() => together(data.value?.periods ?? []))
const kilos = (g: number) => `${(g / 1000).toFixed(g < 9995 ? 2 : 1)} kg`
/** "120.00 €, 2 prices not entered". */
const spentWords = (c: TotalsSpent) => {
  const missing = c.unpriced > 0 ? `, ${counted(c.unpriced, 'price')} not entered` : ''
  return sumOfPrices(c.cost, data.value?.currency ?? '') + missing
}
const lead = computed(() => {
  const d = data.value
  if (!d) return ''
  const { runs, failed, extrudedG, fibreG } = all.value
  const time = `In ${counted(d.periods.length, d.per)}, this one so far`
  if (runs === 0) return `${time}: nothing was printed.`
  const rate = successRate(runs - failed, failed)!
  return (
    `${time}: ${kilos(extrudedG)} printed, ${kilos(fibreG)} of it fibre; ${counted(runs, 'run')}, ` +
    `${percent(rate.rate)} came out well. Nozzles and shelf: ${spentWords(all.value.spent!)}.`
  )
})
const label = computed(
  () => `${MEASURES[measure.value].name} by ${per.value}: ${names.value.at(0) ?? ''} to ${names.value.at(-1) ?? ''}`,
)
const periods = computed(() =>
  (data.value?.periods ?? []).map((p, id) => ({ id, name: names.value[id]!, ...p })).reverse(),
)
const groups = computed(() => (data.value?.groups ?? []).map(({ cells, ...g }) => ({ ...g, ...together(cells) })))
type Sums = Omit<(typeof groups.value)[number], 'nozzles' | 'spent'>
const hoursWords = (s: Pick<Sums, 'hours' | 'withoutHours'>) =>
  `${s.hours.toFixed(1)} h${s.withoutHours > 0 ? ` and ${counted(s.withoutHours, 'run')} unknown` : ''}`
const rateWords = (good: number, failed: number) => {
  const r = successRate(good, failed)
  return r === null ? '–' : `${percent(r.rate)} (${percent(r.low80)} to ${percent(r.high80)})`
}
const sumColumns = <T extends Sums>(name: string): SortColumn<T>[] => [
  { key: 'name', label: name, by: s => s.name },
  { key: 'extruded', label: 'filament', num: true, by: s => s.extrudedG, text: s => kilos(s.extrudedG) },
  { key: 'filled', label: 'filled', num: true, by: s => s.filledG, text: s => kilos(s.filledG) },
  { key: 'fibre', label: 'fibre', num: true, by: s => s.fibreG, text: s => kilos(s.fibreG) },
  { key: 'hours', label: 'hours', num: true, by: s => s.hours, text: hoursWords },
  { key: 'runs', label: 'runs', num: true, by: s => s.runs },
  { key: 'failed', label: 'failed', num: true, by: s => s.failed },
]
const spentColumns = <T extends { spent: TotalsSpent | null }>(): SortColumn<T>[] => [
  {
    key: 'retired',
    label: 'retired',
    num: true,
    by: s => s.spent?.retired ?? null,
    text: s => String(s.spent?.retired ?? '–'),
  },
  {
    key: 'cost',
    label: 'nozzles and shelf',
    num: true,
    by: s => s.spent?.cost ?? null,
    text: s => (s.spent ? spentWords(s.spent) : '–'),
  },
]
const GROUP_COLUMNS: SortColumn<(typeof groups.value)[number]>[] = [
  ...sumColumns<(typeof groups.value)[number]>('of'),
  { key: 'nozzles', label: 'nozzles at work', num: true, by: g => g.nozzles },
  ...spentColumns<(typeof groups.value)[number]>(),
]
const PERIOD_COLUMNS: SortColumn<(typeof periods.value)[number]>[] = [
  ...sumColumns<(typeof periods.value)[number]>('from'),
  { key: 'nozzles', label: 'nozzles at work', num: true, by: p => p.nozzles },
  ...spentColumns<(typeof periods.value)[number]>(),
]
const success = computed(() =>
  (data.value?.success ?? []).map((s, id) => ({ id, ...s, rate: successRate(s.good, s.failed)!.rate })),
)
const SUCCESS_COLUMNS: SortColumn<(typeof success.value)[number]>[] = [
  { key: 'material', label: 'material', by: s => s.material },
  { key: 'printer', label: 'printer', by: s => s.printer },
  {
    key: 'surface',
    label: 'sheet and adhesive',
    by: s => s.surface,
    text: s => (s.surface === null ? 'not noted' : `${s.surface}${s.saidBy === 'card' ? ', by the card' : ''}`),
  },
  { key: 'good', label: 'good', num: true, by: s => s.good },
  { key: 'failed', label: 'failed', num: true, by: s => s.failed },
  {
    key: 'rate',
    label: 'came out well (80 % range)',
    num: true,
    by: s => s.rate,
    text: s => rateWords(s.good, s.failed),
  },
]
function exportCsv(): void {
  const text = Papa.unparse(totalsTable(data.value!), { newline: '\n', escapeFormulae: true })
  saveFile(`totals-${per.value}-by-${by.value}.csv`, 'text/csv', text)
}
const print = () => window.print()
</script>

<template>
  <div>
    <StoresTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else-if="data">
      <p class="mb-3 text-[17px] leading-snug font-[680]" role="status">{{ lead }}</p>
      <div class="no-print mb-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <ChoiceButtons
          v-model="per"
          label="Per"
          :options="TOTALS_PER.map(value => ({ value: value as typeof per, text: `By ${value}` }))"
        />
        <ChoiceButtons
          v-model="by"
          label="Split by"
          :options="TOTALS_BY.map(value => ({ value: value as typeof by, text: BY_TEXT[value] }))"
        />
        <div class="ml-auto flex gap-1">
          <button type="button" class="button" @click="print">Print</button>
          <button type="button" class="button" @click="exportCsv">CSV</button>
        </div>
      </div>
      <ChoiceButtons
        v-model="measure"
        class="no-print mb-2"
        label="Drawn"
        :options="measures.map(value => ({ value: value as Measure, text: MEASURES[value].name }))"
      />
      <TotalsChart
        v-if="all.runs > 0"
        class="mb-5"
        :names="names"
        :series="series"
        :unit="MEASURES[measure].unit ?? data.currency"
        :label="label"
      />
      <section v-if="groups.length > 0" class="mb-5" aria-labelledby="totals-groups">
        <h2 id="totals-groups" class="mb-1">By {{ data.by }}, all {{ counted(data.periods.length, data.per) }}</h2>
        <SortTable :rows="groups" :columns="GROUP_COLUMNS" :label="`Totals by ${data.by}`" :min-width="820">
          <template #cell-name="{ row }"
            ><b>{{ row.name }}</b></template
          >
        </SortTable>
        <p v-if="data.spentBeside" class="mt-1 text-sm text-ink2">
          For no {{ data.by }}: {{ spentWords(data.spentBeside) }}. {{ BESIDE[data.by] }}
        </p>
      </section>
      <section class="mb-5" aria-labelledby="totals-periods">
        <h2 id="totals-periods" class="mb-1">By {{ data.per }}, the whole shop</h2>
        <SortTable :rows="periods" :columns="PERIOD_COLUMNS" :label="`Totals by ${data.per}`" :min-width="820">
          <template #cell-name="{ row }"
            ><b>{{ row.name }}</b></template
          >
        </SortTable>
      </section>
      <section v-if="success.length > 0" aria-labelledby="totals-success">
        <h2 id="totals-success" class="mb-1">What came out well</h2>
        <SortTable :rows="success" :columns="SUCCESS_COLUMNS" label="What came out well" :min-width="680">
          <template #cell-material="{ row }"
            ><b>{{ row.material }}</b></template
          >
        </SortTable>
        <p class="mt-1 text-sm text-ink2">
          Benches are left out. By the card: nobody said with the run what it was printed on, and that is what the card
          of what worked names today.
        </p>
      </section>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the totals"
    />
  </div>
</template>
