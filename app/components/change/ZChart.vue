<script setup lang="ts">
/** Z numbers of one nozzle on one head over time, with the probe's offset and the line that fits each. */
import { LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { LineSeriesOption, ScatterSeriesOption } from 'echarts/charts'
import type { GridComponentOption } from 'echarts/components'
import type { ComposeOption } from 'echarts/core'
import { computed } from 'vue'
import VChart from 'vue-echarts'
import type { ZSeries } from '~/lib/z-series'

use([LineChart, ScatterChart, GridComponent, SVGRenderer])
type Option = ComposeOption<LineSeriesOption | ScatterSeriesOption | GridComponentOption>
const props = defineProps<{ series: readonly ZSeries[]; label: string }>()
const INK = '#1e2c36'
const INK2 = '#586873'
const RULE = '#e4e2d8'
const BRONZE = '#925623'
const DAY = 86_400_000
const font = { fontFamily: 'Archivo Variable, sans-serif', fontSize: 12 }
const option = computed<Option>(() => ({
  animation: false,
  textStyle: font,
  grid: { left: 64, right: 20, top: 30, bottom: 34 },
  xAxis: {
    type: 'time',
    axisLabel: { ...font, color: INK2, hideOverlap: true },
    axisLine: { lineStyle: { color: INK2 } },
    splitLine: { show: false },
  },
  yAxis: {
    type: 'value',
    scale: true,
    name: 'mm',
    nameTextStyle: { ...font, color: INK2 },
    axisLabel: { ...font, color: INK2, formatter: (v: number) => v.toFixed(2) },
    splitLine: { lineStyle: { color: RULE } },
  },
  series: props.series.flatMap((s, i): (LineSeriesOption | ScatterSeriesOption)[] => {
    const color = i === 0 ? INK : BRONZE
    const data = s.points.map(p => [p.day * DAY + s.fromMs, p.mm])
    const points: ScatterSeriesOption = {
      type: 'scatter',
      silent: true,
      data,
      // told apart by shape: Z is a disc, the probe a square
      symbol: i === 0 ? 'circle' : 'rect',
      symbolSize: 9,
      itemStyle: { color },
    }
    if (!s.drift) return [points]
    const mean = { day: average(s.points.map(p => p.day)), mm: average(s.points.map(p => p.mm)) }
    const at = (day: number) => mean.mm + (s.drift!.per30 / 30) * (day - mean.day)
    const ends = [s.points.at(-1)!.day, s.points[0]!.day]
    const line: LineSeriesOption = {
      type: 'line',
      silent: true,
      showSymbol: false,
      lineStyle: { color, width: 1.6, type: s.drift.verdict === 'drifts' ? 'solid' : [5, 4] },
      data: ends.map(d => [d * DAY + s.fromMs, at(d)]),
    }
    return [points, line]
  }),
}))
const average = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length
</script>

<template>
  <figure class="sheet p-2" role="img" :aria-label="label">
    <div class="h-[230px] w-full"><VChart :option="option" autoresize /></div>
  </figure>
</template>
