<script setup lang="ts">
/** The rack: a row per nozzle type, a tag per nozzle. Filled = fitted, open = on the shelf, crossed = retired. */
import { computed } from 'vue'
import type { ShopData } from '~/state/shop'
import { kg, mmNumber } from '#core/words'
import { leftOn, shelfOf } from '~/words/nozzle'

const props = defineProps<{ shop: ShopData; /** Those in which this is found, in small letters. */ find: string }>()
const isFound = (n: ShopData['nozzles'][number]) =>
  [n.tag, n.typeName, n.place ?? '', n.hotend ?? ''].some(t => t.toLowerCase().includes(props.find))
const rows = computed(() =>
  props.shop.types
    .map(t => ({ type: t, nozzles: props.shop.nozzles.filter(n => n.typeName === t.name && isFound(n)) }))
    .filter(r => r.nozzles.length > 0)
    .sort((a, b) => a.type.name.localeCompare(b.type.name)),
)
const look = (n: ShopData['nozzles'][number]) => {
  if (n.retired) return 'border-ink2 text-ink2 line-through'
  return n.place ? 'border-ink bg-ink text-white' : 'border-ink bg-white'
}
/** Less than this, in kg, is nothing. */
const NOTHING_KG = 0.0005
/** What is left of it, as a range; '' while nobody knows, and of what is retired. */
function left(n: ShopData['nozzles'][number]): string {
  if (n.retired || n.leftLowKg === null || n.leftHighKg === null) return ''
  return n.leftHighKg < NOTHING_KG ? 'nothing left' : `${kg(n.leftLowKg)} to ${kg(n.leftHighKg)} left`
}
const words = (n: ShopData['nozzles'][number]) => {
  if (n.retired) return `retired: ${n.retiredReason}`
  return n.place ? `on ${n.place}${leftOn(n)}` : shelfOf(n)
}
</script>

<template>
  <p v-if="rows.length === 0 && find !== ''" class="text-ink2">None is found.</p>
  <ul v-else class="sheet" aria-label="Nozzle rack" data-list>
    <li
      v-for="r in rows"
      :key="r.type.id"
      class="grid items-center gap-x-3 border-b border-rule px-3 py-2 last:border-0 sm:grid-cols-[190px_1fr]"
    >
      <p class="text-sm">
        <b>{{ r.type.name }}</b><span class="block text-xs text-ink2"
          >{{ mmNumber(r.type.nominalBoreMm) }} mm bore;
          {{ r.nozzles.filter(n => !n.place && !n.hotend && !n.retired).length }} on the shelf</span
        >
      </p>
      <p class="flex flex-wrap gap-2 py-1">
        <NuxtLink
          v-for="n in r.nozzles"
          :key="n.id"
          :to="`/inspect/${n.tag}`"
          :title="words(n)"
          class="inline-flex min-h-[40px] items-center gap-1 rounded-[3px] border-[1.5px] px-2 text-[13px] font-semibold"
          :class="look(n)"
          >{{ n.tag }}<span v-if="n.place ?? n.hotend" class="font-normal">{{ n.place ?? n.hotend }}</span
          ><span v-if="left(n)" class="text-xs font-normal">{{ left(n) }}</span
          ><span class="sr-only">, {{ words(n) }}</span></NuxtLink
        >
      </p>
    </li>
  </ul>
</template>
