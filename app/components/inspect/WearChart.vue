<script setup lang="ts">
/**
 * Bore against fibre mass: gauge intervals, 80 and 95 % bands, limit, now. A gauge being entered is drawn before it is
 * saved, and the bands shift with it; a click sets the pins on either side.
 */
import { stepFor } from '~/lib/steps'
import { CustomChart, LineChart } from 'echarts/charts'
import { GridComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { CustomSeriesOption, LineSeriesOption } from 'echarts/charts'
import type { GridComponentOption } from 'echarts/components'
import type { ComposeOption } from 'echarts/core'
import { computed } from 'vue'
import VChart from 'vue-echarts'
import type { Band } from '#core/wear'

use([CustomChart, LineChart, GridComponent, SVGRenderer])
type Option = ComposeOption<LineSeriesOption | CustomSeriesOption | GridComponentOption>
export interface Mark {
  wearKg: number
  low: number | null
  high: number | null
  value: number | null
  uMm: number | null
  preview: boolean
  outweighed: boolean
}

const props = defineProps<{
  bands: Band[]
  marks: Mark[]
  limitMm: number | null
  nowKg: number
  editing: boolean
  weighted: boolean
  label: string
}>()
const emit = defineEmits<{ pick: [boreMm: number] }>()

const INK = '#1e2c36',
  INK2 = '#586873',
  RULE = '#e4e2d8',
  STOP = '#b3261e',
  BLUE = '#2e5a88',
  STRAW = '#c39a2e',
  BRONZE = '#925623',
  LOOK = '#7d5300'
const font = { fontFamily: 'Archivo Variable, sans-serif', fontSize: 12 }

const extent = computed(() => {
  const values = [
    props.limitMm,
    ...props.bands.flatMap(b => [b.range.low80, b.range.high80]),
    ...props.marks.flatMap(m => [
      m.low,
      m.high,
      m.value === null ? null : m.value + (m.uMm ?? 0),
      m.value === null ? null : m.value - (m.uMm ?? 0),
    ]),
  ].filter(v => v !== null)
  const low = Math.min(...values),
    high = Math.max(...values)
  const step = stepFor(
    high - low,
    [
      [0.2, 0.05],
      [0.09, 0.02],
    ],
    0.01,
  )
  return { min: Math.floor((low - 0.004) / step) * step, max: Math.ceil((high + 0.004) / step) * step, step }
})
const end = computed(() => props.bands[props.bands.length - 1]?.wearKg ?? 1)

function area(low: 'low80' | 'low95', high: 'high80' | 'high95', opacity: number): CustomSeriesOption {
  return {
    type: 'custom',
    silent: true,
    z: 1,
    data: [0],
    clip: true,
    renderItem: (_p, api) => ({
      type: 'polygon',
      style: {
        fill: STRAW,
        opacity: 1,
        fillOpacity: opacity,
        stroke: BRONZE,
        lineWidth: 0.8,
        lineDash: low === 'low95' ? [4, 3] : undefined,
      },
      shape: {
        points: [
          ...props.bands.map(b => api.coord([b.wearKg, b.range[high]])),
          ...[...props.bands].reverse().map(b => api.coord([b.wearKg, b.range[low]])),
        ] as number[][],
      },
    }),
  }
}

const option = computed<Option>(() => ({
  animation: false,
  textStyle: font,
  grid: { left: 52, right: 16, top: 34, bottom: 46 },
  xAxis: {
    type: 'value',
    min: 0,
    max: end.value,
    name: `fibre through this nozzle, kg${props.weighted ? ' (weighted by abrasivity)' : ''}`,
    nameLocation: 'middle',
    nameGap: 28,
    nameTextStyle: { ...font, color: INK2 },
    axisLabel: {
      ...font,
      color: INK2,
      showMaxLabel: false,
      formatter: (v: number) => String(Number(v.toPrecision(3))),
    },
    splitLine: { show: false },
    axisLine: { lineStyle: { color: INK2 } },
  },
  yAxis: {
    type: 'value',
    min: extent.value.min,
    max: extent.value.max,
    interval: extent.value.step,
    name: 'bore, mm',
    nameTextStyle: { ...font, color: INK2, align: 'left', padding: [0, 0, 0, -44] },
    axisLabel: { ...font, color: INK2, formatter: (v: number) => v.toFixed(2) },
    splitLine: { lineStyle: { color: RULE } },
  },
  series: [
    area('low95', 'high95', 0.24),
    area('low80', 'high80', 0.4),
    {
      type: 'line',
      silent: true,
      z: 3,
      showSymbol: false,
      lineStyle: { color: INK, width: 2 },
      data: props.bands.map(b => [b.wearKg, b.range.median]),
    },
    {
      type: 'custom',
      silent: true,
      z: 4,
      data: [0],
      clip: false,
      renderItem: (_p, api) => {
        const children: object[] = []
        if (props.limitMm !== null) {
          const [x0, y0] = api.coord([0, props.limitMm]) as [number, number]
          const [x1] = api.coord([end.value, props.limitMm]) as [number, number]
          children.push({
            type: 'line',
            shape: { x1: x0, y1: y0, x2: x1, y2: y0 },
            style: { stroke: STOP, lineWidth: 1.6, lineDash: [7, 4] },
          })
          children.push({
            type: 'text',
            style: {
              text: `retire at ${Number(props.limitMm.toFixed(3))}`,
              x: x0 + 8,
              y: y0 - 16,
              fill: STOP,
              font: '650 12px Archivo Variable, sans-serif',
            },
          })
        }
        const [nx, ny] = api.coord([props.nowKg, extent.value.max]) as [number, number]
        const [, by] = api.coord([props.nowKg, extent.value.min]) as [number, number]
        const left = nx > 160
        children.push({ type: 'line', shape: { x1: nx, y1: ny, x2: nx, y2: by }, style: { stroke: INK, lineWidth: 1 } })
        children.push({
          type: 'text',
          style: {
            text: `now ${Number(props.nowKg.toPrecision(3))} kg`,
            x: left ? nx - 6 : nx + (nx < 90 ? 30 : 6),
            y: ny - 14,
            align: left ? 'right' : 'left',
            fill: INK,
            font: '650 12px Archivo Variable, sans-serif',
          },
        })
        return { type: 'group', children } as never
      },
    },
    {
      type: 'custom',
      silent: true,
      z: 5,
      clip: false,
      data: props.marks.map((_, i) => i),
      renderItem: (p, api) => {
        const m = props.marks[p.dataIndex]
        if (!m) return { type: 'group', children: [] }
        const low = m.value !== null ? m.value - (m.uMm ?? 0) : (m.low ?? extent.value.min)
        const high = m.value !== null ? m.value + (m.uMm ?? 0) : (m.high ?? extent.value.max)
        const [x, y0] = api.coord([m.wearKg, low]) as [number, number]
        const [, y1] = api.coord([m.wearKg, high]) as [number, number]
        const settled = m.outweighed ? LOOK : BLUE
        const dashes = m.outweighed ? [2, 3] : undefined
        const style = {
          stroke: m.preview ? BRONZE : settled,
          lineWidth: m.preview ? 3 : 2.4,
          lineDash: m.preview ? [5, 3] : dashes,
          fill: 'none',
        }
        const cap = (y: number) => ({ type: 'line', shape: { x1: x - 7, y1: y, x2: x + 7, y2: y }, style })
        return {
          type: 'group',
          children: [
            { type: 'line', shape: { x1: x, y1: y0, x2: x, y2: y1 }, style },
            ...(m.value !== null || m.low !== null ? [cap(y0)] : []),
            ...(m.value !== null || m.high !== null ? [cap(y1)] : []),
            ...(m.value !== null
              ? [{ type: 'circle', shape: { cx: x, cy: (y0 + y1) / 2, r: 3.5 }, style: { fill: style.stroke } }]
              : []),
          ],
        } as never
      },
    },
  ],
}))

type Zr = { offsetY: number; offsetX: number }
const chart = useTemplateRef<InstanceType<typeof VChart>>('chart')
function click(e: Zr): void {
  if (!props.editing || !chart.value) return
  const point = chart.value.convertFromPixel({ gridIndex: 0 }, [e.offsetX, e.offsetY])
  if (Array.isArray(point)) emit('pick', point[1] as number)
}
</script>

<template>
  <figure class="m-0 h-[330px]" role="img" :aria-label="label" :class="editing ? 'cursor-crosshair' : ''">
    <VChart ref="chart" :option="option" :init-options="{ renderer: 'svg' }" autoresize @zr:click="click" />
  </figure>
</template>
