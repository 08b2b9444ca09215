<script setup lang="ts">
/** Labels as they come out: a page each, or sheets of them. */
import { A4, type LabelPlace, type LabelSize } from '#core/labels'
import TagLabel from '~/components/stores/TagLabel.vue'
import type { Labelled } from '~/lib/tag-labels'

defineProps<{
  labels: readonly Labelled[]
  /** Sheets with what stands on each; null: label by label. */
  sheets: readonly (readonly (LabelPlace & { label: Labelled })[])[] | null
  size: LabelSize
  address: string
  shop: string
}>()
/** A sheet that is as high as the paper to the last tenth begins another one. */
const SHORTER_MM = 0.5
const page = (s: LabelSize, less = 0) => ({ width: `${s.widthMm}mm`, height: `${s.heightMm - less}mm` })
</script>

<template>
  <div>
    <template v-if="sheets === null">
      <div v-for="l in labels" :key="l.tag" class="label-paper" :style="page(size)">
        <TagLabel :of="l" :size="size" :address="address" :shop="shop" />
      </div>
    </template>
    <template v-else>
      <div v-for="(sheet, i) in sheets" :key="i" class="label-paper" :style="page(A4, SHORTER_MM)">
        <div v-for="p in sheet" :key="p.label.tag" class="absolute" :style="{ left: `${p.xMm}mm`, top: `${p.yMm}mm` }">
          <TagLabel :of="p.label" :size="size" :address="address" :shop="shop" />
        </div>
      </div>
    </template>
  </div>
</template>
