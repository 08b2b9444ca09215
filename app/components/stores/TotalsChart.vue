<script setup lang="ts">
/** A measure by week or month, a bar each, stacked by its largest groups; told apart by pattern, named at the side. */
import { BarChart } from 'echarts/charts'
import { AriaComponent, GridComponent, LegendComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { BarSeriesOption } from 'echarts/charts'
import type { AriaComponentOption, GridComponentOption, LegendComponentOption } from 'echarts/components'
import type { ComposeOption } from 'echarts/core'
import { computed } from 'vue'
import VChart from 'vue-echarts'

use([BarChart, AriaComponent, GridComponent, LegendComponent, SVGRenderer])
type Option = ComposeOption<BarSeriesOption | AriaComponentOption | GridComponentOption | LegendComponentOption>
const props = defineProps<{
  names: readonly string[]
  series: readonly { name: string; values: readonly number[] }[]
  unit: string
  label: string
}>()
const INK = '#1e2c36'
const INK2 = '#586873'
const RULE = '#e4e2d8'
/** The oxide colours of heated steel; a pattern each besides. */
const COLORS = ['#5b7083', '#c39a2e', '#925623', '#7a3e68', '#2e5a88', '#c9c9bf']
const font = { fontFamily: 'Archivo Variable, sans-serif', fontSize: 12 }
const option = computed<Option>(() => ({
  animation: false,
  color: COLORS,
  textStyle: font,
  // the text of the chart is its label: only the patterns are wanted of this
  aria: { enabled: true, label: { enabled: false }, decal: { show: true } },
  legend: { top: 0, left: 0, textStyle: { ...font, color: INK }, itemWidth: 22, itemHeight: 12, selectedMode: false },
  grid: { left: 58, right: 14, top: 44, bottom: 30 },
  xAxis: {
    type: 'category',
    data: [...props.names],
    axisTick: { show: false },
    axisLine: { lineStyle: { color: INK2 } },
    axisLabel: { ...font, color: INK2, hideOverlap: true },
  },
  yAxis: {
    type: 'value',
    name: props.unit,
    minInterval: props.unit === 'kg' || props.unit === 'h' ? undefined : 1,
    nameTextStyle: { ...font, color: INK2 },
    axisLabel: { ...font, color: INK2 },
    splitLine: { lineStyle: { color: RULE } },
  },
  series: props.series.map(s => ({
    type: 'bar',
    name: s.name,
    stack: 'all',
    silent: true,
    barMaxWidth: 46,
    itemStyle: { borderColor: INK, borderWidth: 0.6 },
    data: [...s.values],
  })),
}))
</script>

<template>
  <figure class="sheet p-2" role="img" :aria-label="label">
    <div class="h-[290px] w-full"><VChart :option="option" autoresize /></div>
  </figure>
</template>
