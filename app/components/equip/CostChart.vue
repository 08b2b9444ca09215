<script setup lang="ts">
/**
 * What a year costs in nozzles against the kilograms of filled filament, one line per type with its 80 % band;
 * crossings marked.
 */
import { CustomChart, LineChart } from 'echarts/charts'
import { GridComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { CustomSeriesOption, LineSeriesOption } from 'echarts/charts'
import type { GridComponentOption } from 'echarts/components'
import type { ComposeOption } from 'echarts/core'
import { computed } from 'vue'
import VChart from 'vue-echarts'

use([CustomChart, LineChart, GridComponent, SVGRenderer])
type Option = ComposeOption<LineSeriesOption | CustomSeriesOption | GridComponentOption>
export interface Curve {
  name: string
  points: { kg: number; median: number; low: number; high: number }[]
}
const props = defineProps<{
  curves: Curve[]
  nowKg: number
  crossings: { kg: number; cost: number; text: string }[]
  currency: string
  label: string
}>()

const INK = '#1e2c36',
  INK2 = '#586873',
  RULE = '#e4e2d8',
  STRAW = '#c39a2e',
  BRONZE = '#925623',
  STOP = '#b3261e'
const font = { fontFamily: 'Archivo Variable, sans-serif', fontSize: 12 }
/** Lines are told apart by their dashes and their names at the end, not by colour. */
const DASH: (number[] | 'solid')[] = ['solid', [8, 4], [2, 3], [12, 3, 2, 3], [5, 2]]
const top = computed(() => Math.max(...props.curves.map(c => c.points[c.points.length - 1]!.median * 1.25), 1))
const end = computed(() => props.curves[0]?.points[props.curves[0].points.length - 1]?.kg ?? 1)
/** Names at the right end, pushed apart where lines end together. */
const ends = computed(() => {
  const sorted = props.curves
    .map((c, i) => ({ i, name: c.name, y: Math.min(top.value, c.points[c.points.length - 1]!.median) }))
    .sort((a, b) => a.y - b.y)
  const gap = top.value * 0.055
  for (let k = 1; k < sorted.length; k++)
    if (sorted[k]!.y - sorted[k - 1]!.y < gap) sorted[k]!.y = sorted[k - 1]!.y + gap
  return sorted
})
const option = computed<Option>(() => ({
  animation: false,
  textStyle: font,
  grid: { left: 58, right: 222, top: 34, bottom: 46 },
  xAxis: {
    type: 'value',
    min: 0,
    max: end.value,
    name: 'filled filament a year, kg',
    nameLocation: 'middle',
    nameGap: 28,
    nameTextStyle: { ...font, color: INK2 },
    axisLabel: { ...font, color: INK2 },
    splitLine: { show: false },
    axisLine: { lineStyle: { color: INK2 } },
  },
  yAxis: {
    type: 'value',
    min: 0,
    max: top.value,
    name: `cost of nozzles a year${props.currency ? `, ${props.currency}` : ''}`,
    nameTextStyle: { ...font, color: INK2, align: 'left', padding: [0, 0, 0, -50] },
    axisLabel: { ...font, color: INK2, showMaxLabel: false, formatter: (v: number) => String(Math.round(v)) },
    splitLine: { lineStyle: { color: RULE } },
  },
  series: [
    ...props.curves.map((c, i): CustomSeriesOption => ({
      type: 'custom',
      silent: true,
      z: 1,
      data: [0],
      clip: true,
      renderItem: (_p, api) => ({
        type: 'polygon',
        style: {
          fill: STRAW,
          fillOpacity: 0.14,
          stroke: BRONZE,
          lineWidth: 0.7,
          lineDash: i === 0 ? undefined : [2, 3],
        },
        shape: {
          points: [
            ...c.points.map(p => api.coord([p.kg, p.high])),
            ...[...c.points].reverse().map(p => api.coord([p.kg, p.low])),
          ] as number[][],
        },
      }),
    })),
    ...props.curves.map((c, i): LineSeriesOption => ({
      type: 'line',
      silent: true,
      z: 3,
      showSymbol: false,
      lineStyle: { color: INK, width: 2.2, type: DASH[i % DASH.length] as never },
      data: c.points.map(p => [p.kg, p.median]),
    })),
    {
      type: 'custom',
      silent: true,
      z: 5,
      data: [0],
      clip: false,
      renderItem: (_p, api) => {
        const children: object[] = []
        const [x0, y0] = api.coord([props.nowKg, 0]) as [number, number],
          [, y1] = api.coord([props.nowKg, top.value]) as [number, number]
        if (props.nowKg <= end.value)
          children.push(
            {
              type: 'line',
              shape: { x1: x0, y1: y0, x2: x0, y2: y1 },
              style: { stroke: STOP, lineWidth: 1.4, lineDash: [5, 4] },
            },
            {
              type: 'text',
              style: {
                text: `your mix, ${Number(props.nowKg.toPrecision(3))} kg`,
                x: x0 + 5,
                y: y1 + 2,
                fill: STOP,
                ...font,
                fontWeight: 650,
              },
            },
          )
        for (const c of props.crossings) {
          const [x, y] = api.coord([c.kg, c.cost]) as [number, number]
          children.push(
            { type: 'circle', shape: { cx: x, cy: y, r: 5 }, style: { fill: '#ffffff', stroke: INK, lineWidth: 2 } },
            { type: 'text', style: { text: c.text, x: x + 9, y: y + 6, fill: INK, ...font } },
          )
        }
        for (const e of ends.value) {
          const [x, y] = api.coord([end.value, e.y]) as [number, number]
          children.push({
            type: 'text',
            style: { text: e.name, x: x + 8, y: y - 7, fill: INK, ...font, fontWeight: 650 },
          })
        }
        return { type: 'group', children } as never
      },
    },
  ],
}))
</script>

<template>
  <figure class="sheet p-2" role="img" :aria-label="label">
    <div class="h-[380px] w-full"><VChart :option="option" autoresize /></div>
  </figure>
</template>
