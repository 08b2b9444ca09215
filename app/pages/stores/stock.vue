<script setup lang="ts">
/** Stock: what to order, what is on the shelf, what came and went. */
import Papa from 'papaparse'
import { computed, ref, watch } from 'vue'
import { quantityWords, TAGGED_KINDS, type StockMove } from '#core/stock'
import { counted, sumOfPrices } from '#core/words'
import type { StockLine } from '#shared/answers/stock'
import { when } from '#shared/time'
import EntryLine from '~/components/entry/EntryLine.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import type { OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import { stockRecord } from '~/components/stores/stock-record'
import StockBar from '~/components/stores/StockBar.vue'
import StockMoveSheet from '~/components/stores/StockMoveSheet.vue'
import StoresTabs from '~/components/stores/StoresTabs.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import LeadSentence from '~/components/ui/LeadSentence.vue'
import SortTable, { type SortColumn } from '~/components/ui/SortTable.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useKeptFocus } from '~/composables/kept-focus'
import { useShownLine } from '~/composables/shown-line'
import { saveFile } from '~/lib/files'
import { useShop } from '~/state/shop'
import { moveWords, priceWords, thereWords, wantedWords, whyWords } from '~/words/stock'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'Stock and orders · Stores · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
const shop = useShop()
const DAYS = [30, 60, 90, 180] as const
const days = ref<number>(DAYS.find(d => String(d) === route.query.days) ?? 60)
watch(days, d => void router.replace({ query: { ...route.query, days: d === 60 ? undefined : String(d) } }))
const { data, failure } = useAnswer('/api/stock', { query: () => ({ days: String(days.value) }) })
useKeptFocus()

/** What is short comes first, by mouse and by keys; the rest as it is kept. */
const kept = computed(() =>
  (data.value?.lines ?? [])
    .map((l, i) => ({ key: l.id ?? -1 - i, ...l }))
    .sort((a, b) => (b.due?.weight ?? 0) - (a.due?.weight ?? 0)),
)
const orders = computed(() =>
  kept.value
    .filter(l => l.toOrder > 0)
    .map(l => ({ ...l, id: l.key, line: l as StockLine, cost: l.price === null ? null : l.price.each * l.toOrder })),
)
type Order = (typeof orders.value)[number]
const COLUMNS: SortColumn<Order>[] = [
  { key: 'name', label: 'what', by: o => o.name },
  { key: 'toOrder', label: 'order', num: true, by: o => o.toOrder },
  { key: 'why', label: 'why' },
  { key: 'price', label: 'price of one', num: true, by: o => o.price?.each ?? null },
  { key: 'cost', label: 'together', num: true, by: o => o.cost },
]
const total = computed(() => {
  const priced = orders.value.filter(o => o.cost !== null)
  const missing = orders.value.length - priced.length
  const sum = sumOfPrices(
    priced.reduce((s, o) => s + o.cost!, 0),
    data.value?.currency ?? '',
  )
  return missing === 0 ? sum : `${sum}, and ${counted(missing, 'price')} not entered`
})
const lead = computed(() => {
  const short = kept.value.filter(l => l.due !== null && l.due.mark !== 'fine')
  const [first] = short
  if (first)
    return {
      mark: 'look' as const,
      text:
        `${first.name}: ${first.due!.reason} ${first.due!.action}.` +
        (short.length > 1 ? ` And ${counted(short.length - 1, 'more thing')} short.` : ''),
    }
  if (kept.value.length === 0)
    return { mark: 'look' as const, text: 'Nothing is kept here yet: say what the shop keeps, and its minimum.' }
  const many = orders.value.length
  return many > 0
    ? {
        mark: 'look' as const,
        text: `Nothing is short; ${counted(many, 'thing')} to order for the next ${days.value} days.`,
      }
    : { mark: 'fine' as const, text: `Nothing is short, and nothing to order for the next ${days.value} days.` }
})
function exportCsv(): void {
  const currency = data.value!.currency
  const text = Papa.unparse(
    {
      fields: [
        'what',
        'kind',
        'order',
        'unit',
        `price of one, ${currency}`,
        'price of the day',
        `together, ${currency}`,
        'why',
      ],
      data: orders.value.map(o => [
        o.name,
        o.kind,
        o.toOrder,
        o.unit,
        o.price?.each ?? '',
        o.price?.on ?? '',
        o.cost ?? '',
        whyWords(o.line, data.value!),
      ]),
    },
    { newline: '\n', escapeFormulae: true },
  )
  saveFile(`order-${days.value}-days.csv`, 'text/csv', text)
}
const print = () => window.print()

const editing = ref<OpenRecord | null>(null)
const moving = ref<{ line: StockLine; kind: StockMove } | null>(null)
const striking = ref<{ target: 'stock move'; id: number; says: string } | null>(null)
const edit = (l: StockLine | null) => (editing.value = shop.data ? stockRecord(l, shop.data) : null)
const isTagged = (l: StockLine) => TAGGED_KINDS.includes(l.kind)
useShownLine(
  () => data.value !== null,
  id => `stock-${id}`,
)
</script>

<template>
  <div>
    <StoresTabs :failure="failure" />
    <template v-if="data && shop.data">
      <LeadSentence :lead="lead" />
      <section class="mb-5" aria-labelledby="order-title">
        <header class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
          <h2 id="order-title">To order for the next {{ days }} days</h2>
          <ChoiceButtons
            v-model="days"
            class="no-print"
            label="Days ahead"
            :options="DAYS.map(value => ({ value: value as number, text: `${value} days` }))"
          />
          <div v-if="orders.length > 0" class="no-print ml-auto flex gap-1">
            <button type="button" class="button" @click="print">Print</button>
            <button type="button" class="button" @click="exportCsv">CSV</button>
          </div>
        </header>
        <p v-if="kept.length === 0" class="text-ink2">
          Belts, filters, gears, desiccant: with a minimum, what is short is in the list of what is due.
        </p>
        <p v-else-if="orders.length === 0" class="text-ink2">
          Nothing: what is there, and what is ordered, is enough with {{ Math.round(data.sure * 100) }} % chance.
        </p>
        <template v-else>
          <SortTable :rows="orders" :columns="COLUMNS" label="What to order" :min-width="760">
            <template #cell-name="{ row }"
              ><b>{{ row.name }}</b> <span class="text-ink2">{{ row.kind }}</span></template
            >
            <template #cell-toOrder="{ row }"
              ><b>{{ quantityWords(row.toOrder, row.unit) }}</b></template
            >
            <template #cell-why="{ row }">{{ whyWords(row.line, data) }}</template>
            <template #cell-price="{ row }">{{ priceWords(row.line, data.currency, shop.zone) }}</template>
            <template #cell-cost="{ row }">{{
              row.cost === null ? '–' : sumOfPrices(row.cost, data.currency)
            }}</template>
          </SortTable>
          <p class="mt-1 text-right font-[650]">Together {{ total }}</p>
        </template>
      </section>
      <section class="no-print" aria-labelledby="shelf-title">
        <header class="flex flex-wrap items-center gap-x-4 border-b-2 border-ink pb-1">
          <h2 id="shelf-title">On the shelf</h2>
          <button type="button" class="button first ml-auto" @click="edit(null)">Keep something on the shelf</button>
        </header>
        <ul class="sheet" data-list>
          <li
            v-for="l in kept"
            :id="l.id === null ? undefined : `stock-${l.id}`"
            :key="l.key"
            class="grid items-center gap-x-4 gap-y-1 border-t border-rule px-3 py-2 first:border-t-0 md:grid-cols-[minmax(0,1fr)_250px] md:px-4 lg:grid-cols-[minmax(0,1fr)_170px_minmax(0,1.4fr)_250px]"
            :class="l.withdrawn ? 'text-ink2' : ''"
          >
            <div>
              <p class="flex items-start gap-2 font-[650]" :class="l.due ? VERDICT_TEXT[l.due.mark] : ''">
                <VerdictMark v-if="l.due" :verdict="l.due.mark" :size="16" class="mt-[3px]" />{{ l.name
                }}{{ l.withdrawn ? ' (kept no longer)' : '' }}
              </p>
              <p class="text-sm text-ink2">{{ l.kind }}{{ l.usedBy ? `, one for ${l.usedBy}` : '' }}</p>
            </div>
            <StockBar :line="l" />
            <div class="text-sm">
              <p>{{ thereWords(l) }}</p>
              <p class="text-ink2">{{ wantedWords(l, data) }}</p>
            </div>
            <div class="flex flex-wrap gap-1 md:justify-end">
              <template v-if="l.id !== null && !l.withdrawn">
                <button v-if="!isTagged(l)" type="button" class="button" @click="moving = { line: l, kind: 'used' }">
                  Took or came<span class="sr-only">: {{ l.name }}</span>
                </button>
                <button
                  v-if="!isTagged(l)"
                  type="button"
                  class="button plain"
                  @click="moving = { line: l, kind: 'counted' }"
                >
                  Count<span class="sr-only"> {{ l.name }}</span>
                </button>
                <button v-else type="button" class="button" @click="moving = { line: l, kind: 'ordered' }">
                  Ordered<span class="sr-only">: {{ l.name }}</span>
                </button>
              </template>
              <button type="button" class="button plain" @click="edit(l)">
                {{ l.id === null ? 'Set a minimum' : 'Edit' }}<span class="sr-only"> {{ l.name }}</span>
              </button>
            </div>
          </li>
        </ul>
      </section>
      <section v-if="data.moves.length > 0" class="no-print mt-5" aria-labelledby="moves-title">
        <h2 id="moves-title" class="border-b-2 border-ink pb-1">What came and went</h2>
        <ul>
          <EntryLine
            v-for="m in data.moves"
            :key="m.id"
            :struck="m.struck"
            :entered="`${when(m.at, shop.zone)}, ${m.by}`"
            :name="`${m.name}, ${moveWords(m)}`"
            @strike="striking = { target: 'stock move', id: m.id, says: `${m.name}, ${moveWords(m)}` }"
          >
            <span class="font-semibold">{{ m.name }}</span>
            <span>{{ moveWords(m) }}</span>
          </EntryLine>
        </ul>
      </section>
      <RecordSheet :open="editing" @close="editing = null" />
      <StockMoveSheet v-if="moving" :line="moving.line" :kind="moving.kind" @close="moving = null" />
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the stock"
    />
  </div>
</template>
