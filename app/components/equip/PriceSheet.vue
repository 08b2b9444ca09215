<script setup lang="ts">
/** What parts or nozzles cost this shop, and how long fitting one takes. Kept beside the catalogue's start values. */
import { computed } from 'vue'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import StaleBox from '~/components/stores/StaleBox.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import { useEditSheet } from '~/composables/edit-sheet'
import { useShop } from '~/state/shop'

interface Price {
  price: number | null
  minutes: number | null
}
const props = defineProps<{
  open: boolean
  title: string
  items: readonly { key: string; label: string; price: number; minutes: number }[]
}>()
const emit = defineEmits<{ close: [] }>()
const shop = useShop()

const starts = computed(() => new Map(props.items.map(i => [i.key, i])))
/** What an item costs by these prices; empty where nobody has entered one. */
const priceIn = (prices: Record<string, Price>, i: (typeof props.items)[number]): Price => ({
  price: prices[i.key]?.price ?? null,
  minutes: prices[i.key]?.minutes ?? i.minutes,
})
const sheet = useEditSheet({
  on: () => (props.open ? (shop.data?.settings ?? null) : null),
  of: s => ({ kind: 'prices', id: s.id, version: s.version }),
  start: s => Object.fromEntries(props.items.map(i => [i.key, priceIn(s.prices, i)])),
  values: (v, s) => ({
    prices: Object.fromEntries([
      ...Object.entries(s.prices).filter(([k]) => !starts.value.has(k)),
      // a price that is not entered stays unknown, and its minutes with it
      ...Object.entries(v).flatMap(([k, p]) =>
        p.price === null ? [] : [[k, { price: p.price, minutes: p.minutes ?? starts.value.get(k)!.minutes }] as const],
      ),
    ]),
  }),
  saved: () => 'Prices changed.',
  close: () => emit('close'),
})
const words = (p: Price | undefined) => `${p?.price ?? 'none'}, ${p?.minutes ?? 'no'} min`
const stored = computed(() => (sheet.theirs?.prices ?? {}) as Record<string, Price>)
const rows = computed(() =>
  props.items.map(i => ({
    key: i.key,
    label: i.label,
    theirs: words(priceIn(stored.value, i)),
    mine: words(sheet.v[i.key]),
  })),
)
function takeTheirs(): void {
  for (const i of props.items) sheet.v[i.key] = priceIn(stored.value, i)
  sheet.keepMine()
}
const id = (key: string) => key.replaceAll(/\W+/g, '-')
const shown = computed(() => props.items.flatMap(i => [`prices.${i.key}.price`, `prices.${i.key}.minutes`]))
</script>

<template>
  <EntrySheet :sheet="sheet" :title="title" wide action="Save" :blocked="sheet.theirs !== null" :shown="shown">
    <template v-for="i in items" :key="i.key">
      <div v-if="sheet.v[i.key]" class="grid grid-cols-2 items-start gap-3">
        <FieldNumber
          :id="`price-${id(i.key)}`"
          v-model="sheet.v[i.key]!.price"
          :label="`${i.label}, price`"
          :unit="shop.data?.settings.currency || undefined"
          :hint="sheet.v[i.key]!.price === null ? `not entered; plans are weighed with ${i.price}` : undefined"
          :error="sheet.errors[`prices.${i.key}.price`]"
        />
        <FieldNumber
          :id="`minutes-${id(i.key)}`"
          v-model="sheet.v[i.key]!.minutes"
          label="Work to fit it"
          unit="min"
          :error="sheet.errors[`prices.${i.key}.minutes`]"
        />
      </div>
    </template>
    <StaleBox v-if="sheet.theirs" :rows="rows" @keep="sheet.keepMine()" @take="takeTheirs" />
  </EntrySheet>
</template>
