<script setup lang="ts">
/** Spools by what is left on them, to one scale. */
import { computed } from 'vue'
import { SPOOL_HAPPENINGS } from '#shared/choices'
import type { SpoolOrder } from '~/components/stores/fields'
import type { ShopData } from '~/state/shop'

const props = defineProps<{
  shop: ShopData
  /** Those in which this is found, in small letters. */
  find: string
  by: SpoolOrder
}>()
type Spool = ShopData['spools'][number]
defineEmits<{ edit: [spool: Spool]; log: [spool: Spool] }>()
/** A sum of runs is no weighing, and a spool whose empty weight nobody knows cannot be weighed. */
const BY: Record<Spool['leftBy'], (netG: number) => string> = {
  'weighing': netG => ` of ${netG} g`,
  'difference of weighings': () => ' by its label and weighings',
  'label': netG => ` by its label of ${netG} g`,
}
const left = (s: Spool) => Math.max(0, s.leftG)
const ORDER: Record<SpoolOrder, (a: Spool, b: Spool) => number> = {
  'tag': () => 0,
  'material': (a, b) => a.material.localeCompare(b.material),
  'least left': (a, b) => left(a) - left(b),
}
const shown = computed(() =>
  props.shop.spools.filter(s => `${s.tag} ${s.material}`.toLowerCase().includes(props.find)).sort(ORDER[props.by]),
)
const most = computed(() => Math.max(1, ...props.shop.spools.map(s => s.netG)))
</script>

<template>
  <p v-if="shown.length === 0" class="text-ink2">None is found.</p>
  <ul v-else class="sheet" aria-label="Spools" data-list>
    <li
      v-for="s in shown"
      :key="s.id"
      class="grid items-center gap-x-3 border-b border-rule px-3 py-1 last:border-0 sm:grid-cols-[70px_140px_minmax(120px,1fr)_150px_auto]"
    >
      <b>{{ s.tag }}</b>
      <span class="text-sm"
        >{{ s.material
        }}<span v-if="s.densityGCm3 === null" class="block text-xs font-semibold text-look"
          >no density entered</span
        ></span
      >
      <svg
        viewBox="0 0 200 14"
        preserveAspectRatio="none"
        class="h-[14px] w-full"
        role="img"
        :aria-label="`${s.leftG.toFixed(0)} of ${s.netG} g left`"
      >
        <rect
          x="0.5"
          y="1"
          :width="(198 * s.netG) / most"
          height="12"
          fill="#fff"
          stroke="var(--color-ink2)"
          vector-effect="non-scaling-stroke"
        />
        <rect x="0.5" y="1" :width="(198 * left(s)) / most" height="12" fill="var(--color-slate)" />
      </svg>
      <span class="text-sm"
        ><b>{{ left(s).toFixed(0) }} g</b>{{ BY[s.leftBy](s.netG)
        }}<span v-if="s.tareG === null" class="block text-xs text-look">weight empty not known</span
        ><span class="block text-xs text-ink2"
          >{{ s.diameterMm }} mm{{ s.place ? `, ${SPOOL_HAPPENINGS[s.place].after}` : '' }}</span
        ></span
      >
      <span
        ><button type="button" class="button plain" @click="$emit('log', s)">
          Log<span class="sr-only"> what happened to {{ s.tag }}</span></button
        ><button type="button" class="button plain" @click="$emit('edit', s)">
          Edit<span class="sr-only"> {{ s.tag }}</span>
        </button></span
      >
    </li>
  </ul>
</template>
