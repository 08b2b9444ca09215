<script setup lang="ts">
/** The bed from the end of the print until the part comes off: held, let down, switched off. °C over minutes. */
import { computed } from 'vue'
import type { CoolPhase, CoolPlan } from '#core/cooling'
import { duration } from '#core/words'
import { stepFor } from '~/lib/steps'

const props = defineProps<{ plan: CoolPlan; bedC: number; roomC: number }>()
const W = 620
const H = 250
const BOX = { left: 46, right: 600, top: 30, bottom: 200 }
const WORDS: Record<CoolPhase['name'], string> = { 'hold': 'hold', 'let down': 'let down', 'off': 'off, shut' }
const endMin = computed(() =>
  Math.max(
    10,
    props.plan.phases.reduce((sum, p) => sum + p.high80, 0),
  ),
)
const topC = computed(() => Math.max(props.bedC, 60) * 1.08)
const x = (min: number) => BOX.left + (min / endMin.value) * (BOX.right - BOX.left)
const y = (c: number) => BOX.bottom - (Math.max(0, c) / topC.value) * (BOX.bottom - BOX.top)
const parts = computed(() => {
  let at = 0
  return props.plan.phases.map(p => {
    const from = at
    at += p.minutes
    return { ...p, from, to: at }
  })
})
/** A switched-off bed by Newton's law, in a few pieces. */
function curve(p: (typeof parts.value)[number]): string {
  if (p.name !== 'off') return `M${x(p.from)} ${y(p.fromC)}L${x(p.to)} ${y(p.toC)}`
  const k = Math.log((p.fromC - props.roomC) / Math.max(1, p.toC - props.roomC))
  return Array.from({ length: 25 }, (_, i) => i / 24)
    .map((t, i) => {
      const c = props.roomC + (p.fromC - props.roomC) * Math.exp(-k * t)
      return `${i === 0 ? 'M' : 'L'}${x(p.from + t * (p.to - p.from)).toFixed(1)} ${y(c).toFixed(1)}`
    })
    .join('')
}
const marks = computed(() => {
  const step = stepFor(
    endMin.value,
    [
      [1200, 300],
      [480, 120],
      [200, 60],
      [80, 30],
    ],
    10,
  )
  return Array.from({ length: Math.floor(endMin.value / step) + 1 }, (_, i) => i * step)
})
const degrees = computed(() => [0, 50, 100, 150, 200].filter(c => c <= topC.value))
const off = computed(() => parts.value.at(-1))
const says = computed(() =>
  parts.value.map(p => `${WORDS[p.name]} ${duration(p.minutes * 60)}, to ${Math.round(p.toC)} °C`).join('; '),
)
</script>

<template>
  <svg :viewBox="`0 0 ${W} ${H}`" class="w-full min-w-[560px]" role="img" :aria-label="`Bed over time: ${says}`">
    <g font-size="12" fill="var(--color-ink2)">
      <g v-for="c in degrees" :key="c">
        <path :d="`M${BOX.left} ${y(c)}H${BOX.right}`" stroke="var(--color-faint)" />
        <text :x="BOX.left - 6" :y="y(c) + 4" text-anchor="end">{{ c }}</text>
      </g>
      <text :x="BOX.left - 6" :y="BOX.top - 12" text-anchor="end">°C</text>
      <g v-for="m in marks" :key="m">
        <path :d="`M${x(m)} ${BOX.bottom}v5`" stroke="var(--color-ink)" />
        <text :x="x(m)" :y="BOX.bottom + 18" text-anchor="middle">{{ m }}</text>
      </g>
      <text :x="BOX.right" :y="BOX.bottom + 36" text-anchor="end">minutes after the print</text>
    </g>
    <path
      v-if="off && off.name === 'off'"
      :d="`M${x(off.from + off.low80)} ${BOX.bottom}V${BOX.bottom - 9}H${x(off.from + off.high80)}V${BOX.bottom}`"
      fill="none"
      stroke="var(--color-look)"
      stroke-width="1.6"
    />
    <g v-for="p in parts" :key="p.name">
      <path :d="curve(p)" fill="none" stroke="var(--color-ink)" stroke-width="2.6" />
      <path v-if="p.from > 0" :d="`M${x(p.from)} ${BOX.top}V${BOX.bottom}`" stroke="var(--color-rule)" />
      <text
        v-if="x(p.to) - x(p.from) > 44"
        :x="(x(p.from) + x(p.to)) / 2"
        :y="BOX.top - 8"
        text-anchor="middle"
        font-size="13"
        font-weight="650"
        fill="var(--color-ink)"
      >
        {{ WORDS[p.name] }}
      </text>
    </g>
    <path
      :d="`M${BOX.left} ${y(plan.takeOff.atC)}H${BOX.right}`"
      stroke="var(--color-stop)"
      stroke-width="1.4"
      stroke-dasharray="6 4"
    />
    <text :x="BOX.right" :y="y(plan.takeOff.atC) - 6" text-anchor="end" font-size="13" fill="var(--color-stop)">
      off {{ plan.takeOff.how === 'warm' ? 'from here down to it' : 'below' }}: {{ plan.takeOff.atC }} °C
    </text>
  </svg>
</template>
