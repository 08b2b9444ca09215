<script setup lang="ts">
/* eslint-disable max-lines -- one screen: figures, chart and comparison of the same choice */
/**
 * Which nozzle to buy: cost per kg of filled filament by the shop's own wear and rates, and from how much on the dear
 * one pays.
 */
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { NOZZLE_MINUTES, NOZZLE_PRICE } from '#core/limits'
import { boreLifeSpread, lifeKgAt, medianLifeKg, type Life } from '#core/life'
import {
  breakEvenLifeRatio,
  chanceCheaper,
  costInYear,
  costPerKg,
  crossingKg,
  swapCost,
  type NozzleCost,
} from '#core/money'
import { NOZZLE_MATERIALS, START_SIGMA, type NozzleMaterial } from '#core/wear'
import type { Buying } from '#shared/answers/bench'
import type { NozzleTypeRow } from '#shared/answers/nozzles'
import SortTable, { type SortColumn } from '~/components/ui/SortTable.vue'
import EquipTabs from '~/components/equip/EquipTabs.vue'
import PriceSheet from '~/components/equip/PriceSheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import { chance, kg, kgBetween, listed, money } from '#core/words'
import { useAnswer } from '~/composables/answer'
import { useShop } from '~/state/shop'

const CostChart = defineAsyncComponent(() => import('~/components/equip/CostChart.vue'))
useHead({ title: 'Which nozzle to buy · Equip · Iron Nozzle' })
const shop = useShop()
const { data, failure } = useAnswer('/api/buying')
const chosen = ref<number[]>([])
const perMonth = ref<number | null>(null)
const bore = ref<number | null>(null)

const types = computed(() => shop.data?.types ?? [])
const bores = computed(() => [...new Set(types.value.map(t => t.nominalBoreMm))].sort((a, b) => a - b))
watch(
  () => [types.value, data.value] as const,
  ([t, d]) => {
    if (!d || t.length === 0 || chosen.value.length > 0) return
    const pick = (m: string) =>
      t.find(x => x.material === m && x.nominalBoreMm === 0.4)?.id ?? t.find(x => x.material === m)?.id
    chosen.value = ['hardened steel', 'tungsten carbide', 'polycrystalline diamond']
      .map(pick)
      .filter(x => x !== undefined)
    if (chosen.value.length < 2) chosen.value = t.slice(0, 2).map(x => x.id)
    const own = d.mix.reduce((s, m) => s + m.kg, 0) / (d.mixDays / 30.4)
    perMonth.value = own > 0 ? Number(own.toPrecision(2)) : 1
  },
  { immediate: true },
)

/** Wear mass per kg of the shop's mix; without one, a filament with 20 wt% of carbon fibre. */
const wearPerKg = computed(() => {
  const mix = data.value?.mix ?? [],
    total = mix.reduce((s, m) => s + m.kg, 0)
  return total > 0 ? mix.reduce((s, m) => s + m.kg * m.fillerFraction * m.abrasivity, 0) / total : 0.2
})
const settings = computed(() => shop.data?.settings ?? null)
/** What it costs here; null when nobody has entered it: then it is asked for, not guessed. */
const priceOf = (m: NozzleMaterial) => settings.value?.prices[`nozzle ${m}`] ?? null
interface Line {
  id: number
  name: string
  material: NozzleMaterial
  cost: NozzleCost
  life: Life | null
  sisters: number
  /** Nozzles of the type that wore out, when its life is told by them. */
  failures: number | null
}
/** Lives by what wore out, where enough did; by the wear model otherwise, or when that is asked for. */
const byWornOut = ref(true)
function lifeOf(
  t: NozzleTypeRow,
  wear: Buying['wear'][number],
  worn: Buying['lives'][number] | undefined,
): Pick<Line, 'life' | 'failures'> {
  if (worn) return { life: { shape: worn.shape, scale: worn.scale / wearPerKg.value }, failures: worn.failures }
  if (t.boreGrowthLimit === null) return { life: null, failures: null }
  return { life: boreLifeSpread(t.nominalBoreMm, t.boreGrowthLimit, wear, wearPerKg.value), failures: null }
}
const lines = computed<Line[]>(() => {
  const s = settings.value,
    d = data.value
  if (!s || !d) return []
  return types.value
    .filter(t => chosen.value.includes(t.id))
    .flatMap(t => {
      const p = priceOf(t.material),
        w = d.wear.find(x => x.material === t.material)!
      if (p === null) return []
      return {
        id: t.id,
        name: t.name,
        material: t.material,
        sisters: w.sisters,
        cost: { price: p.price, swap: swapCost(p.minutes, s) },
        ...lifeOf(t, w, byWornOut.value ? d.lives.find(l => l.typeId === t.id) : undefined),
      }
    })
    .sort((a, b) => a.cost.price - b.cost.price)
})
/** Materials among the chosen types of which nobody has entered a price. */
const unpriced = computed(() => [
  ...new Set(
    types.value.flatMap(t => (chosen.value.includes(t.id) && priceOf(t.material) === null ? [t.material] : [])),
  ),
])
const known = computed(() => lines.value.filter((l): l is Line & { life: Life } => l.life !== null))
const perYear = computed(() => (perMonth.value !== null && perMonth.value > 0 ? perMonth.value * 12 : null))
const cheapest = computed(() =>
  perYear.value === null
    ? null
    : ([...known.value].sort(
        (a, b) =>
          costInYear(a.cost, medianLifeKg(a.life), perYear.value!) -
          costInYear(b.cost, medianLifeKg(b.life), perYear.value!),
      )[0] ?? null),
)
const rows = computed(() =>
  known.value.map(l => ({
    id: l.id,
    l,
    perKg: costPerKg(l.cost, medianLifeKg(l.life)),
    low: costPerKg(l.cost, lifeKgAt(l.life, 0.9)),
    high: costPerKg(l.cost, lifeKgAt(l.life, 0.1)),
    year: perYear.value === null ? null : costInYear(l.cost, medianLifeKg(l.life), perYear.value),
    ratio: l === known.value[0] ? null : breakEvenLifeRatio(l.cost, known.value[0]!.cost),
    lifeRatio: l === known.value[0] ? null : medianLifeKg(l.life) / medianLifeKg(known.value[0]!.life),
    cheaper: perYear.value === null || l === known.value[0] ? null : chanceCheaper(l, known.value[0]!, perYear.value),
  })),
)
type Row = (typeof rows.value)[number]
const COLUMNS: SortColumn<Row>[] = [
  { key: 'type', label: 'type', by: r => r.l.name },
  { key: 'price', label: 'price', num: true, by: r => r.l.cost.price },
  { key: 'swap', label: 'a swap', num: true, by: r => r.l.cost.swap },
  { key: 'life', label: 'life, kg of filament', num: true, by: r => medianLifeKg(r.l.life) },
  { key: 'perKg', label: 'cost per kg', num: true, by: r => r.perKg },
  { key: 'year', label: 'a year', num: true, by: r => r.year },
  { key: 'must', label: 'must last', num: true, by: r => r.ratio },
  { key: 'does', label: 'does last', num: true, by: r => r.lifeRatio },
  { key: 'cheaper', label: 'cheaper in a year', num: true, by: r => r.cheaper },
]
const times = (ratio: number | null) => {
  if (ratio === null) return '–'
  return `${ratio >= 20 ? Math.round(ratio) : ratio.toFixed(1)} times`
}
const end = computed(() =>
  nice(
    Math.max(
      4,
      (perYear.value ?? 12) * 2,
      ...pairs.value.map(p => p.kg * 1.4).filter(v => v < (perYear.value ?? 12) * 6),
    ),
  ),
)
/** Rounded up to one or two digits, so that the axis ends on a mark. */
function nice(v: number): number {
  const step = 10 ** Math.floor(Math.log10(v)) / 2
  return Math.ceil(v / step) * step
}
const pairs = computed(() => {
  const out: { kg: number; cost: number; text: string }[] = []
  const first = known.value[0]
  if (first)
    for (const l of known.value.slice(1)) {
      const x = crossingKg(first, l)
      if (x !== null)
        out.push({ kg: x, cost: costInYear(l.cost, medianLifeKg(l.life), x), text: `${Number(x.toPrecision(2))} kg` })
    }
  return out
})
const curves = computed(() =>
  known.value.map(l => ({
    name: l.name,
    points: Array.from({ length: 61 }, (_, i) => {
      const x = (end.value * i) / 60
      return {
        kg: x,
        median: costInYear(l.cost, medianLifeKg(l.life), x),
        low: costInYear(l.cost, lifeKgAt(l.life, 0.9), x),
        high: costInYear(l.cost, lifeKgAt(l.life, 0.1), x),
      }
    }),
  })),
)
const crossings = computed(() => pairs.value.filter(p => p.kg <= end.value))
const currency = computed(() => settings.value?.currency ?? '')
const sentence = computed(() => {
  const c = cheapest.value,
    first = known.value[0]
  if (settings.value && unpriced.value.length > 0 && known.value.length < 2)
    return `What does a ${listed(unpriced.value)} nozzle cost here? Enter it, and the comparison is made.`
  if (!c || !first || perYear.value === null) return 'Choose two or more types and how much filled filament you print.'
  const rest = rows.value.find(r => r.l === c)
  const sure =
    rest?.cheaper == null
      ? ''
      : ` The chance that it is cheaper than ${first.name} within a year is ${chance(rest.cheaper)}.`
  return (
    `At ${Number(perMonth.value!.toPrecision(3))} kg of filled filament a month ${c.name} costs least: ` +
    `about ${money(costInYear(c.cost, medianLifeKg(c.life), perYear.value), currency.value)} a year.${sure}`
  )
})
/** Plain advice for the two kinds of shop, worked out at both ends. */
const advice = computed(() => {
  const at = (x: number) =>
    [...known.value].sort(
      (a, b) => costInYear(a.cost, medianLifeKg(a.life), x) - costInYear(b.cost, medianLifeKg(b.life), x),
    )[0]
  const seldom = at(0.5),
    mostly = at(Math.max(60, (perYear.value ?? 0) * 2))
  if (!seldom || !mostly) return []
  return [
    `If filled filament is occasional (half a kilogram a year), ${seldom.name} is plenty.`,
    mostly === seldom
      ? `Even when it is most of the work, ${mostly.name} costs least by these lives and rates.`
      : `If it is most of the work, ${mostly.name} costs least.`,
  ]
})
function basisOf(l: Line): string {
  if (l.failures !== null) return `by ${l.failures} of this type that wore out`
  return l.sisters >= 3 ? `from ${l.sisters} of the shop's own` : 'start values: fewer than 3 gauged'
}
function toggle(id: number): void {
  chosen.value = chosen.value.includes(id) ? chosen.value.filter(x => x !== id) : [...chosen.value, id]
}

const pricing = ref(false)
const priceItems = NOZZLE_MATERIALS.map(m => ({
  key: `nozzle ${m}`,
  label: `${m[0]!.toUpperCase()}${m.slice(1)}`,
  price: NOZZLE_PRICE[m],
  minutes: NOZZLE_MINUTES,
}))
</script>

<template>
  <div>
    <EquipTabs :failure="failure" />
    <template v-if="data && settings">
      <p v-if="types.length === 0" class="sheet max-w-[560px] p-4">
        No nozzle type is described yet.
        <NuxtLink class="underline" to="/stores?add=type">Add the first one in Stores.</NuxtLink>
      </p>
      <template v-else>
        <p class="mb-3 text-[17px] font-[680] leading-snug" role="status">{{ sentence }}</p>
        <p v-if="unpriced.length > 0" class="mb-3 flex flex-wrap items-center gap-3">
          <span class="font-semibold text-look"
            >Price not entered: {{ unpriced.join(', ') }}; left out until it is.</span
          ><button type="button" class="button first" @click="pricing = true">Enter nozzle prices</button>
        </p>
        <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] xl:grid-cols-[280px_minmax(0,1fr)]">
          <div class="grid gap-3">
            <FieldNumber
              id="buy-month"
              v-model="perMonth"
              label="Filled filament a month"
              unit="kg"
              :hint="
                data.mix.length
                  ? `the last ${data.mixDays} days: ${data.mix
                      .slice(0, 3)
                      .map(m => `${m.name} ${kg(m.kg)}`)
                      .join(', ')}`
                  : 'no filled filament logged; reckoned with 20 wt% carbon fibre'
              "
              :error="perMonth !== null && perMonth <= 0 ? 'More than 0 kg' : undefined"
            />
            <fieldset class="sheet px-3 py-2">
              <legend class="label float-left w-full">Types to compare</legend>
              <div class="field clear-both mb-1">
                <label for="buy-bore">Bore</label
                ><select id="buy-bore" v-model="bore" class="input">
                  <option :value="null">all</option>
                  <option v-for="b in bores" :key="b" :value="b">{{ b }} mm</option>
                </select>
              </div>
              <label
                v-for="t in types.filter(x => bore === null || x.nominalBoreMm === bore || chosen.includes(x.id))"
                :key="t.id"
                class="check w-full"
                ><input type="checkbox" :checked="chosen.includes(t.id)" @change="toggle(t.id)" /> {{ t.name }}</label
              >
            </fieldset>
            <label v-if="data.lives.length > 0" class="check sheet px-3 py-2"
              ><input v-model="byWornOut" type="checkbox" /> lives by what wore out, where three or more did</label
            >
            <div class="sheet px-3 py-2 text-sm">
              <p>
                Rates: labour {{ settings.labourPerHour }}, standing printer {{ settings.downtimePerHour }} an hour,
                {{ settings.downtimeHours }} h and {{ settings.scrapPerSwap }} of scrap a swap{{
                  currency ? `, in ${currency}` : ''
                }}.
              </p>
              <button type="button" class="button plain" @click="pricing = true">Edit nozzle prices</button
              ><NuxtLink to="/stores" class="button plain">Rates in Stores</NuxtLink>
            </div>
          </div>
          <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
            <CostChart
              v-if="known.length > 0 && perYear !== null"
              :curves="curves"
              :now-kg="perYear"
              :crossings="crossings"
              :currency="currency"
              :label="
                `Cost of nozzles a year against kg of filled filament. ` +
                crossings.map(c => `Crossing at ${c.text}`).join('; ')
              "
            />
            <p v-for="a in advice" :key="a" class="font-semibold">{{ a }}</p>
            <SortTable
              :rows="rows"
              :columns="COLUMNS"
              label="Comparison"
              :min-width="780"
              :row-class="r => (r.l === cheapest ? 'bg-white' : '')"
            >
              <template #cell-type="{ row: r }"
                ><b>{{ r.l.name }}</b
                ><span class="block text-xs text-ink2">{{ basisOf(r.l) }}</span></template
              >
              <template #cell-price="{ row: r }">{{ money(r.l.cost.price, currency) }}</template>
              <template #cell-swap="{ row: r }">{{ money(r.l.cost.swap, currency) }}</template>
              <template #cell-life="{ row: r }"
                ><b>{{ kg(medianLifeKg(r.l.life)) }}</b
                ><span class="block text-xs text-ink2">{{
                  kgBetween(lifeKgAt(r.l.life, 0.1), lifeKgAt(r.l.life, 0.9))
                }}</span></template
              >
              <template #cell-perKg="{ row: r }"
                ><b>{{ money(r.perKg, currency) }}</b
                ><span class="block text-xs text-ink2"
                  >80 % between {{ money(r.low, '') }} and {{ money(r.high, currency) }}</span
                ></template
              >
              <template #cell-year="{ row: r }">{{ r.year === null ? '–' : money(r.year, currency) }}</template>
              <template #cell-must="{ row: r }">{{ times(r.ratio) }}</template>
              <template #cell-does="{ row: r }">{{ times(r.lifeRatio) }}</template>
              <template #cell-cheaper="{ row: r }">{{ r.cheaper === null ? '–' : chance(r.cheaper) }}</template>
            </SortTable>
            <p v-for="l in lines.filter(x => x.life === null)" :key="l.id" class="text-sm font-semibold text-look">
              {{ l.name }} is retired by mass only, so its life is not worked out here.
            </p>
            <p class="text-xs text-ink2">
              Life by the bore rule of the type and the sliding-wear law, with the shop's own wear where three or more
              of its nozzles were gauged (spread {{ START_SIGMA }} of ln κ otherwise); or, where that is chosen, by
              nozzles of the type that were found past their limit, whose own doubt is not in the range (see
              <NuxtLink class="underline" to="/inspect/types">Types</NuxtLink>). “Must last”: as many times longer than
              the first as its price and swap ask. Tip loss and inserts that fall out are not counted; a year costs one
              nozzle at least.
            </p>
          </div>
        </div>
      </template>
      <PriceSheet :open="pricing" title="Nozzle prices" :items="priceItems" @close="pricing = false" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the wear"
    />
  </div>
</template>
