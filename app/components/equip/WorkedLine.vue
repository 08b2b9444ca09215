<script setup lang="ts">
/** What worked with a filament on this printer with the nozzle that sits there; with a job file, held against it. */
import { computed } from 'vue'
import { compareJob, differsWords, ofJob, recordOf } from '#core/cards'
import type { FullScan } from '#core/gcode'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useShop } from '~/state/shop'
import { firstValues, triedWords } from '~/words/cards'

const props = defineProps<{
  materialId: number
  printerId: number
  /** The nozzle that sits there, or that is tried. */
  nozzleId: number | string
  scan: FullScan | null
}>()
const shop = useShop()
const type = computed(() => shop.data?.nozzles.find(n => n.id === props.nozzleId)?.typeName ?? null)
const { data } = useAnswer('/api/cards/{id}', { params: () => ({ id: props.materialId }) })
const card = computed(
  () =>
    data.value?.find(
      c => c.materialId === props.materialId && c.printerId === props.printerId && c.type === type.value,
    ) ?? null,
)
const differs = computed(() => {
  const scan = props.scan
  if (!card.value || !scan) return ''
  const temps = Object.values(scan.maxSetpointC.tools)
  const c = compareJob(
    card.value.values,
    ofJob({
      nozzleC: temps.length > 0 ? Math.max(...temps) : null,
      bedC: scan.maxSetpointC.bed,
      chamberC: scan.maxSetpointC.chamber,
      fanMax: scan.fan.max,
      firstLayer: scan.firstLayer ?? null,
    }),
  )
  return c.differs.length > 0 ? differsWords(c) : ''
})
const mark = computed(() => {
  if (!card.value) return null
  if (differs.value || recordOf(card.value.good, card.value.failed) === 'mostly fails') return 'look' as const
  return card.value.good > 0 ? ('fine' as const) : null
})
</script>

<template>
  <p v-if="card" class="mb-2 flex items-start gap-2 text-sm">
    <VerdictMark v-if="mark" :verdict="mark" :size="15" class="mt-[2px]" />
    <span
      ><b>What worked here with a {{ type }}:</b> {{ triedWords(card)
      }}{{ firstValues(card) ? `; ${firstValues(card)}` : '' }}.<span v-if="differs" class="font-semibold text-look">
        The file is not like it: {{ differs }}.</span
      >
      <NuxtLink :to="`/equip/materials?m=${materialId}#worked`" class="act ml-1">The card</NuxtLink></span
    >
  </p>
</template>
