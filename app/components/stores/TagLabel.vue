<script setup lang="ts">
/** One label in mm: the code, the tag in plain letters, and what it is. */
import { computed } from 'vue'
import { labelFace, textMm, wrapped, type LabelSize } from '#core/labels'
import { codeOf } from '#shared/labels'
import { codeFor } from '~/lib/code'
import type { Labelled } from '~/lib/tag-labels'

const props = defineProps<{
  of: Labelled
  size: LabelSize
  address: string
  shop: string
  outline?: boolean
  /** Inside a drawing whose unit is the mm already. */
  inMm?: boolean
}>()
const long = (mm: number) => (props.inMm ? mm : `${mm}mm`)
const face = computed(() => labelFace(props.size))
const code = computed(() => codeFor(codeOf(props.address, props.of.tag)))
const isWide = computed(() => face.value.text.xMm > face.value.code.xMm + face.value.code.widthMm - 0.01)
const middle = computed(() => (isWide.value ? face.value.text.xMm : props.size.widthMm / 2))
const tagMm = computed(() => textMm(props.of.tag, face.value.text.widthMm, face.value.tagMm))
const lines = computed(() => {
  const { text, lineMm, lines: room } = face.value
  const broken = (t: string) => wrapped(t, text.widthMm, lineMm)
  const own = props.of.lines.flatMap(broken).slice(0, room)
  // half a name of the shop is none
  const shop = broken(props.shop)
  return own.length + shop.length <= room ? [...own, ...shop] : own
})
const y = computed(() => face.value.text.yMm + tagMm.value)
</script>

<template>
  <svg
    xmlns="http://www.w3.org/2000/svg"
    :viewBox="`0 0 ${size.widthMm} ${size.heightMm}`"
    :width="long(size.widthMm)"
    :height="long(size.heightMm)"
    role="img"
    :aria-label="`Label ${of.tag}`"
  >
    <rect :width="size.widthMm" :height="size.heightMm" fill="white" />
    <rect
      v-if="outline"
      x="0.1"
      y="0.1"
      :width="size.widthMm - 0.2"
      :height="size.heightMm - 0.2"
      fill="none"
      stroke="#c9c9bf"
      stroke-width="0.2"
    />
    <g :transform="`translate(${face.code.xMm} ${face.code.yMm}) scale(${face.code.widthMm / code.side})`">
      <path :d="code.path" fill="black" shape-rendering="crispEdges" />
    </g>
    <text
      :x="middle"
      :y="y"
      :text-anchor="isWide ? 'start' : 'middle'"
      :font-size="tagMm"
      font-weight="700"
      font-family="Archivo Variable, sans-serif"
      fill="black"
    >
      {{ of.tag }}
    </text>
    <text
      v-for="(text, i) in lines"
      :key="i"
      :x="middle"
      :y="y + (i + 1) * face.lineMm * 1.3"
      :text-anchor="isWide ? 'start' : 'middle'"
      :font-size="face.lineMm"
      font-family="Archivo Variable, sans-serif"
      fill="black"
    >
      {{ text }}
    </text>
  </svg>
</template>
