<script setup lang="ts">
/**
 * What must be fitted first: the cheapest set of swaps with cost, time and who may do it; any other swap to try; what
 * the tried ones break elsewhere. Nothing is stored until it is applied with its date.
 */
import { computed, ref, watch } from 'vue'
import {
  CLASS_WORDS,
  compile,
  consequencesOf,
  findChanges,
  hotendInstead,
  type Demand,
  type Filament,
  type Hotend,
  type Offers,
  type Printer,
  type Rules,
  type Swap,
} from '#core/limits'
import { counted, money } from '#core/words'
import { costOf } from '~/words/cost'

const props = defineProps<{
  printer: Printer
  headId: number
  demand: Demand
  offers: Offers
  rules: Rules
  currency: string
  others: readonly Filament[]
  tried: readonly Swap[]
  solved: boolean
  /** On the shelf. */
  hotends: readonly Hotend[]
}>()
const emit = defineEmits<{ 'update:tried': [swaps: Swap[]]; 'apply': [] }>()

const compiled = computed(() => compile(props.printer, props.headId, props.offers, props.rules))
const found = computed(() => findChanges(compiled.value, [props.demand]))
/** A hotend of the shelf with which it runs sooner. */
const instead = computed(() =>
  hotendInstead(props.printer, props.headId, props.demand, props.offers, props.rules, props.hotends),
)
const title = computed(() => {
  if (props.tried.length > 0) return 'What you try'
  return found.value && found.value.swaps.length > 0 ? 'What must be fitted first' : 'Try a change'
})
/** A price that nobody entered is not known: plans are weighed with a start value, and nobody buys by it. */
function costs(s: Swap): string {
  if (s.fromShelf) return 'on the shelf'
  if (s.price === 0) return 'no parts'
  return s.priced ? money(s.price, props.currency) : 'price not entered'
}
const same = (a: Swap, b: Swap) => a.text === b.text
const isTried = (s: Swap) => props.tried.some(t => same(t, s))
function toggle(s: Swap): void {
  const touches = (t: Swap) => t.role === s.role && s.role !== 'dryer'
  emit('update:tried', isTried(s) ? props.tried.filter(t => !same(t, s)) : [...props.tried.filter(t => !touches(t)), s])
}
/** Every swap there is, by the role it concerns. */
const choices = computed(() => {
  const c = compiled.value
  const of = (role: string, swaps: (Swap | null)[]) => ({ role, swaps: swaps.filter(s => s !== null) })
  return [
    of(
      'nozzle',
      c.nozzles.map(o => o.swap),
    ),
    of(
      'feed tube',
      c.tubes.map(o => o.swap),
    ),
    of(
      'enclosure and lid',
      c.air.map(o => o.swap),
    ),
    ...c.groups.map(g =>
      of(
        g.role,
        g.options.map(o => o.swap),
      ),
    ),
  ].filter(g => g.swaps.length > 0)
})
const picked = ref('')
watch(picked, text => {
  const s = choices.value.flatMap(g => g.swaps).find(x => x.text === text)
  if (s && !isTried(s)) toggle(s)
  picked.value = ''
})
const listed = computed(() =>
  props.tried.length > 0
    ? [
        ...props.tried,
        ...(found.value?.swaps ?? []).filter(s => !isTried(s) && !props.tried.some(t => t.role === s.role)),
      ]
    : (found.value?.swaps ?? []),
)
const total = computed(() => costOf(props.tried.length > 0 ? props.tried : (found.value?.swaps ?? [])))
const broken = computed(() =>
  props.tried.length === 0
    ? null
    : consequencesOf(props.printer, props.headId, props.tried, props.demand, props.others, props.rules, props.offers),
)
const air = (v: number | null) => (v === null ? 'not known' : `${Math.round(v)} °C`)
const time = (m: number) => (m >= 90 ? `${Number((m / 60).toFixed(1))} h` : `${m} min`)
</script>

<template>
  <section aria-labelledby="plan-title" class="grid gap-2">
    <div v-if="instead && tried.length === 0" class="border-l-4 border-ink bg-sheet py-2 pl-3" data-instead>
      <p>
        <b>Sooner with {{ instead.hotend.tag }}</b
        >, on the shelf{{ instead.hotend.nozzle ? ` with ${instead.hotend.nozzle.tag}` : ', without a nozzle' }}: about
        {{ time(instead.minutes) }} in all,
        {{ instead.partsMinutes === null ? 'and no set of parts makes it run' : `not ${time(instead.partsMinutes)}` }}.
        {{ instead.swaps.length > 0 ? `Beside it: ${instead.swaps.map(s => s.text).join('; ')}.` : '' }}
      </p>
      <NuxtLink :to="`/change/hotend?head=${headId}&hotend=${instead.hotend.id}`" class="act no-print"
        >Change the whole hotend</NuxtLink
      >
    </div>
    <div class="flex flex-wrap items-baseline gap-x-4">
      <h2 id="plan-title">
        {{ title }}
      </h2>
      <p v-if="listed.length > 0" class="text-sm">
        <b v-if="total.price > 0 || total.unpriced === 0">{{ money(total.price, currency) }} for parts</b
        ><span v-if="total.unpriced > 0" class="text-look"
          >{{ total.price > 0 ? ' and ' : '' }}{{ counted(total.unpriced, 'price') }} not entered</span
        >, <b>{{ time(total.minutes) }}</b> of work<span v-if="listed.some(s => s.fromShelf)"
          >; what is on the shelf costs nothing</span
        >
      </p>
    </div>
    <p v-if="!found && tried.length === 0" class="text-sm">
      No set of swaps makes it run. The reasons above are what stays short whatever is fitted.
    </p>
    <p v-else-if="found?.unknown" class="text-sm font-semibold">Even then a fact is missing: see “not known” above.</p>
    <ul v-if="listed.length > 0" class="sheet" aria-label="Swaps">
      <li v-for="s in listed" :key="s.text" class="border-b border-rule px-3 py-1 last:border-0">
        <label
          class="grid cursor-pointer grid-cols-[28px_minmax(0,1fr)] items-start gap-x-2 py-1 sm:grid-cols-[28px_minmax(0,1fr)_150px]"
        >
          <input
            type="checkbox"
            class="mt-[2px] h-[20px] w-[20px] accent-ink"
            :checked="isTried(s)"
            @change="toggle(s)"
          />
          <span
            ><b>{{ s.text }}</b
            ><span v-if="s.after" class="block text-[13px] text-ink2">{{ s.after }}</span></span
          >
          <span class="col-start-2 sm:col-auto sm:text-right"
            ><span class="whitespace-nowrap">{{ costs(s) }}</span> ·
            <span class="whitespace-nowrap">{{ time(s.minutes) }}</span><span
              class="block"
              :class="s.who === 'electrician' ? 'font-[650] text-look' : 'text-ink2'"
              >{{ s.who === 'electrician' ? 'licensed electrician' : 'technician' }}</span
            ></span
          >
        </label>
      </li>
    </ul>
    <div class="flex flex-wrap items-end gap-2">
      <button
        v-if="found && found.swaps.length > 0 && tried.length === 0"
        type="button"
        class="button first"
        @click="emit('update:tried', [...found.swaps])"
      >
        Try all of these
      </button>
      <button v-if="tried.length > 0" type="button" class="button first" @click="emit('apply')">Apply as fitted</button>
      <button v-if="tried.length > 0" type="button" class="button" @click="emit('update:tried', [])">
        Put it back
      </button>
      <div class="field w-72">
        <label for="try-swap">{{ tried.length > 0 ? 'Try another swap as well' : 'Try any swap' }}</label>
        <select id="try-swap" v-model="picked" class="input">
          <option value="">Choose a part</option>
          <optgroup v-for="g in choices" :key="g.role" :label="g.role">
            <option v-for="s in g.swaps" :key="s.text" :value="s.text">{{ s.text }}</option>
          </optgroup>
        </select>
      </div>
    </div>
    <div v-if="broken" class="sheet px-3 py-2 text-sm" role="status">
      <p class="font-[650]">
        {{
          solved ? 'With these it runs. Nothing is stored yet.' : 'With these it does not run yet. Nothing is stored.'
        }}
      </p>
      <p v-if="broken.airLow[0] !== broken.airLow[1]">
        Chamber air for this job: {{ air(broken.airLow[0]) }} before, {{ air(broken.airLow[1]) }} after near the part;
        {{ air(broken.airHigh[0]) }} before, {{ air(broken.airHigh[1]) }} after near the top.
      </p>
      <p v-if="broken.worse.length > 0" class="font-semibold text-look">
        Worse off here afterwards:
        {{ broken.worse.map(w => `${w.name} (${CLASS_WORDS[w.was]} now, then ${CLASS_WORDS[w.is]})`).join(', ') }}.
      </p>
      <p v-else>No other filament is worse off on this printer.</p>
    </div>
  </section>
</template>
