<script setup lang="ts">
/**
 * How a cause got to where it is: a chain of arrows from how often it was it before to how likely it is now, each with
 * what moved it, for or against. Reproducible by hand: the scale is that of odds, where each piece has its length.
 */
import { computed, ref, watch } from 'vue'
import { causeWords, speaks, type Answer, type Cause, type Moved } from '#core/diagnosis'
import { chance, counted } from '#core/words'
import type { Piece } from '~/lib/case'
import { pieceWords } from '~/words/case'

const props = defineProps<{
  answer: Answer
  way: (c: Cause) => Moved[]
  start: Record<Cause, number>
  pieces: readonly Piece[]
}>()
const chosen = ref<Cause | null>(null)
const cause = computed(() => chosen.value ?? props.answer.order[0]!.cause)
const SHOWN = 5
const all = ref(false)
const leading = computed(() => (all.value ? props.answer.order : props.answer.order.slice(0, SHOWN)))
watch(
  () => props.answer.order[0]!.cause,
  () => (chosen.value = null),
)
const steps = computed(() =>
  props
    .way(cause.value)
    .map(m => ({ ...m, speaks: speaks(m), says: wordsOf(m), key: `${m.evidence.kind} ${m.evidence.key}` })),
)
const hardly = ref(false)
const rows = computed(() => (hardly.value ? steps.value : steps.value.filter(s => s.speaks !== 'hardly')))
const quiet = computed(() => steps.value.length - steps.value.filter(s => s.speaks !== 'hardly').length)
const now = computed(() => props.answer.order.find(o => o.cause === cause.value)!.chance)
function wordsOf({ evidence: e }: Moved): string {
  if (e.kind === 'put right') return `${causeWords(e.key as Cause)} was put right, and it still shows.`
  return pieceWords(props.pieces.find(x => x.kind === e.kind && x.key === e.key)!)
}
/** Where a chance stands on the scale of odds, percent of the width; outside the outermost marks at the edge. */
const ENDS = 0.005
const logit = (p: number) => Math.log(p / (1 - p))
function at(p: number): number {
  const held = Math.min(1 - ENDS, Math.max(ENDS, p))
  return 50 + (50 * logit(held)) / logit(1 - ENDS)
}
const TICKS = [0.01, 0.1, 0.5, 0.9, 0.99]
function arrow(m: Moved): { left: number; width: number; isRight: boolean } {
  const [a, b] = [at(m.before), at(m.after)]
  return { left: Math.min(a, b), width: Math.abs(b - a), isRight: b >= a }
}
</script>

<template>
  <section class="grid grid-cols-[minmax(0,1fr)] gap-4 lg:grid-cols-[260px_minmax(0,1fr)]" aria-label="How likely">
    <div class="grid content-start gap-1">
      <div role="group" aria-label="Causes, the likeliest first" class="grid gap-1">
        <button
          v-for="o in leading"
          :key="o.cause"
          type="button"
          class="relative min-h-[44px] border px-2 py-1 text-left"
          :class="o.cause === cause ? 'border-2 border-ink bg-white font-[680]' : 'border-rule bg-sheet'"
          :aria-pressed="o.cause === cause"
          @click="chosen = o.cause"
        >
          <span class="flex justify-between gap-2"
            ><span>{{ causeWords(o.cause) }}</span
            ><span class="tabular-nums">{{ chance(o.chance) }}</span></span
          ><span class="mt-1 block h-[6px] border border-ink2" aria-hidden="true"
            ><span class="block h-full bg-ink" :style="{ width: `${o.chance * 100}%` }"
          /></span>
        </button>
      </div>
      <div class="no-print">
        <button type="button" class="button plain" :aria-expanded="all" @click="all = !all">
          {{ all ? 'Fewer' : 'All causes' }}
        </button>
      </div>
    </div>
    <div class="sheet grid content-start gap-0 p-3">
      <h3 class="mb-1 font-[650]">{{ causeWords(cause) }}: from {{ chance(start[cause]) }} to {{ chance(now) }}</h3>
      <div class="grid grid-cols-1 items-end sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]" aria-hidden="true">
        <span class="hidden text-sm text-ink2 sm:block">What speaks for and against it</span>
        <span class="relative block h-[18px] text-xs text-ink2">
          <span
            v-for="t in TICKS"
            :key="t"
            class="absolute -translate-x-1/2 whitespace-nowrap"
            :style="{ left: `${at(t)}%` }"
            >{{ t * 100 }} %</span
          >
        </span>
      </div>
      <ol class="grid">
        <li class="grid grid-cols-1 border-t border-faint sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
          <span class="py-1 pr-3 text-sm text-ink2">At the start: how often it was that</span>
          <span class="track">
            <span v-for="t in TICKS" :key="t" class="tick" :style="{ left: `${at(t)}%` }" aria-hidden="true" />
            <span class="dot" :style="{ left: `${at(start[cause])}%` }" aria-hidden="true" />
          </span>
        </li>
        <li
          v-for="s in rows"
          :key="s.key"
          class="grid grid-cols-1 border-t border-faint sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]"
        >
          <span class="py-1 pr-3 text-sm leading-snug"
            >{{ s.says }} <b class="whitespace-nowrap">{{ s.speaks }}</b></span
          >
          <span class="track">
            <span v-for="t in TICKS" :key="t" class="tick" :style="{ left: `${at(t)}%` }" aria-hidden="true" />
            <span
              class="arrow"
              :class="arrow(s).isRight ? 'right' : 'left'"
              :style="{ left: `${arrow(s).left}%`, width: `${arrow(s).width}%` }"
              aria-hidden="true"
            />
          </span>
        </li>
        <li class="grid grid-cols-1 border-t border-ink sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)]">
          <span class="py-1 pr-3 text-sm font-[650]">Now: {{ chance(now) }}</span>
          <span class="track">
            <span v-for="t in TICKS" :key="t" class="tick" :style="{ left: `${at(t)}%` }" aria-hidden="true" />
            <span class="dot" :style="{ left: `${at(now)}%` }" aria-hidden="true" />
          </span>
        </li>
      </ol>
      <p v-if="quiet > 0" class="no-print">
        <button type="button" class="button plain" :aria-expanded="hardly" @click="hardly = !hardly">
          {{ hardly ? 'Leave out what hardly moves it' : `${counted(quiet, 'thing')} more hardly move it` }}
        </button>
      </p>
    </div>
  </section>
</template>

<style scoped>
.track {
  position: relative;
  display: block;
  min-height: 22px;
}
.tick {
  position: absolute;
  top: 0;
  bottom: 0;
  border-left: 1px solid var(--color-rule);
}
.dot {
  position: absolute;
  top: calc(50% - 5px);
  width: 10px;
  height: 10px;
  margin-left: -5px;
  border-radius: 50%;
  background: var(--color-ink);
}
.arrow {
  position: absolute;
  top: calc(50% - 1px);
  height: 2px;
  background: var(--color-ink);
}
.arrow::after {
  content: '';
  position: absolute;
  top: -4px;
  border: 5px solid transparent;
}
.arrow.right::after {
  right: -1px;
  border-left-color: var(--color-ink);
  border-right: 0;
  border-left-width: 8px;
}
.arrow.left::after {
  left: -1px;
  border-right-color: var(--color-ink);
  border-left: 0;
  border-right-width: 8px;
}
</style>
