<script setup lang="ts">
/**
 * Parts that stand in a chamber's air, each against what it may be: the bar is the air at its place with its range, the
 * hatch what the part does not take (its guard band in it). The part that decides stands first and is drawn heavy.
 */
import { computed } from 'vue'
import { PLACE_WORDS } from '#core/limits'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import type { InState } from '~/lib/survey'
import { airLineWords, LINE_MARK } from '~/words/chamber'

/** By a survey that does not hold any more nothing is fine: the air is what it was, not what it is. */
const props = defineProps<{ parts: InState['parts']; roomC: number; holds: boolean }>()
const [W, H] = [340, 18]
/** Far enough for the air and what is near it; a limit beyond is drawn at the edge. */
const topC = computed(
  () => Math.ceil((Math.max(...props.parts.map(p => p.line.asked! + p.line.u90), props.roomC + 30) + 40) / 10) * 10,
)
const x = (c: number) =>
  ((Math.max(props.roomC, Math.min(topC.value, c)) - props.roomC) / (topC.value - props.roomC)) * W
const markOf = (mark: (typeof LINE_MARK)[keyof typeof LINE_MARK]) =>
  mark === 'fine' && !props.holds ? ('look' as const) : mark
const rows = computed(() =>
  props.parts.map(({ line, place }, i) => ({
    key: String(line.part!.id),
    name: line.part!.name,
    place: PLACE_WORDS[place],
    says: airLineWords(line, PLACE_WORDS[place]),
    mark: markOf(LINE_MARK[line.status]),
    heavy: i === 0,
    air: `${line.asked!.toFixed(0)} ± ${Math.max(1, Math.round(line.u90))}`,
    allowed: line.allowed!.toFixed(0),
    at: x(line.asked!),
    from: x(line.asked! - line.u90),
    to: x(line.asked! + line.u90),
    limit: x(line.allowed!),
  })),
)
</script>

<template>
  <div>
    <svg width="0" height="0" class="absolute" aria-hidden="true">
      <pattern id="not-taken" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0V7" stroke="var(--color-ink2)" stroke-width="1.4" />
      </pattern>
    </svg>
    <p
      class="grid grid-cols-[minmax(0,1fr)] gap-x-3 text-xs text-ink2 sm:grid-cols-[190px_minmax(0,1fr)_136px]"
      aria-hidden="true"
    >
      <span>part</span
      ><span class="flex justify-between"
        ><span>{{ roomC }} °C, the room</span><span>{{ topC }} °C</span></span
      ><span class="hidden sm:block">air, °C</span>
    </p>
    <ul>
      <li
        v-for="r in rows"
        :key="r.key"
        class="grid min-h-[34px] grid-cols-[minmax(0,1fr)] items-center gap-x-3 border-t border-rule py-1 text-sm sm:grid-cols-[190px_minmax(0,1fr)_136px]"
      >
        <span class="flex items-start gap-2"
          ><VerdictMark :verdict="r.mark" :size="15" class="mt-[2px]" /><span
            ><span :class="r.heavy ? 'font-[700]' : ''">{{ r.name }}</span
            ><span class="block text-xs text-ink2">{{ r.place }}</span></span
          ></span
        >
        <svg
          :viewBox="`0 0 ${W} ${H}`"
          class="block w-full"
          preserveAspectRatio="none"
          height="18"
          role="img"
          :aria-label="r.says"
        >
          <rect :x="r.limit" y="0" :width="W - r.limit" :height="H" fill="url(#not-taken)" />
          <path :d="`M${r.limit} 0V${H}`" stroke="var(--color-ink)" :stroke-width="r.heavy ? 4 : 2" />
          <path :d="`M0 ${H / 2}H${r.at}`" stroke="var(--color-slate)" :stroke-width="r.heavy ? 6 : 4" />
          <path :d="`M${r.from} ${H / 2}H${r.to}`" stroke="var(--color-ink)" :stroke-width="r.heavy ? 3 : 2" />
          <path :d="`M${r.at} 2V${H - 2}`" stroke="var(--color-ink)" stroke-width="2" />
        </svg>
        <span class="tabular-nums"
          >{{ r.air }}, may be <b>{{ r.allowed }} °C</b></span
        >
      </li>
    </ul>
  </div>
</template>
