<script setup lang="ts">
/** Dry: which spools are dry, which are in a dryer, and which are getting wet where they stand. */
import type { DryerRow } from '#shared/answers/prepare'
import type { SpoolState } from '#shared/answers/spools'
import { computed, ref, watch } from 'vue'
import { FOR_GOOD_H, hours, water, leftWords } from '#core/words'
import AirSheet from '~/components/prepare/AirSheet.vue'
import DryerSheet from '~/components/prepare/DryerSheet.vue'
import EndSheet, { type ToEnd } from '~/components/prepare/EndSheet.vue'
import PrepareTabs from '~/components/prepare/PrepareTabs.vue'
import SpoolClock from '~/components/prepare/SpoolClock.vue'
import WaterBar from '~/components/prepare/WaterBar.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { usePrepare } from '~/composables/prepare'
import { when, withTimes } from '#shared/time'
import { boxReading, drynessOf, drynessVerdict, heldWords, placeWords } from '~/words/water'
import { minutesLeft } from '#core/schedule'
import { useShop } from '~/state/shop'
import { VERDICT_TEXT } from '~/words/verdict'

useHead({ title: 'Prepare · Iron Nozzle' })
const shop = useShop()
const { data, failure, now } = usePrepare()
const ending = ref<ToEnd | null>(null)
const airOpen = ref(false)
const dryer = ref<DryerRow | null>(null)
const dryerOpen = ref(false)

const GROUPS = [
  { key: 'wet', title: 'Too wet to print', verdict: 'stop' },
  { key: 'soon', title: 'Getting wet', verdict: 'look' },
  { key: 'unknown', title: 'Not known: dry it', verdict: 'look' },
  { key: 'usual', title: 'Usually prints', verdict: 'look' },
  { key: 'clean', title: 'Clean', verdict: 'fine' },
  { key: 'none', title: 'Takes up no water', verdict: 'fine' },
] as const
const groupOf = (s: SpoolState) => (s.takesNoWater ? 'none' : drynessOf(s))
const spools = computed(() => data.value?.spools ?? [])
const drying = computed(() => spools.value.filter(s => s.place === 'dryer'))
const groups = computed(() =>
  GROUPS.map(g => ({
    ...g,
    spools: spools.value
      .filter(s => s.place !== 'dryer' && groupOf(s) === g.key)
      .sort((a, b) => Number(!!b.printer) - Number(!!a.printer) || a.tag.localeCompare(b.tag)),
  }))
    .filter(g => g.spools.length > 0)
    // too wet is only a look where it does little harm
    .map(g =>
      g.spools.some(s => drynessVerdict(s) === 'stop') || g.verdict !== 'stop' ? g : { ...g, verdict: 'look' as const },
    ),
)
const sentence = computed(() => {
  const loaded = spools.value.filter(s => s.printer && ['wet', 'soon'].includes(drynessOf(s)))
  const wet = spools.value.filter(s => drynessOf(s) === 'wet')
  if (loaded.length > 0)
    return {
      verdict: 'stop' as const,
      text:
        `${loaded.map(s => `${s.tag} on ${s.printer}`).join(', ')}: ` +
        `${loaded.length === 1 ? 'it is' : 'they are'} too wet or will be soon. Dry before the next job, or ` +
        `feed from the dry box.`,
    }
  if (wet.length > 0)
    return {
      verdict: 'look' as const,
      text: `${wet.length} ${wet.length === 1 ? 'spool is' : 'spools are'} too wet to print: ${wet
        .slice(0, 6)
        .map(s => s.tag)
        .join(', ')}${wet.length > 6 ? ' …' : ''}.`,
    }
  const unknown = spools.value.filter(s => groupOf(s) === 'unknown').length
  if (unknown > 0)
    return {
      verdict: 'look' as const,
      text:
        `How dry ${unknown} of ${spools.value.length} ${spools.value.length === 1 ? 'spool is' : 'spools are'} is ` +
        `not known: they were never dried for sure.`,
    }
  return { verdict: 'fine' as const, text: 'Every spool is dry enough to print.' }
})
const stays = (s: SpoolState) => (s.place === 'dry box' ? s.water!.inBox : s.water!.inRoom)
function end(s: SpoolState): void {
  const d = s.drying!
  ending.value = {
    target: 'drying',
    id: d.id,
    says: `${s.tag} in ${d.dryer}`,
    setC: d.setC,
    beforeG: d.beforeG,
    spoolId: s.id,
  }
}
function edit(d: DryerRow | null): void {
  dryer.value = d
  dryerOpen.value = true
}
const route = useRoute()
// a link from Equip may open the sheet; it is no part of the address once it is open
watch(
  () => [route.query.dryer, data.value !== null],
  async ([asked, ready]) => {
    if (asked !== 'new' || !ready) return
    await navigateTo({ query: {} }, { replace: true })
    edit(null)
  },
  { immediate: true },
)
const fitted = computed(() => data.value?.wound ?? null)
function rowWords(s: SpoolState, w: NonNullable<SpoolState['water']>): string {
  if (w.dryness === 'wet') return `${heldWords(w)}, usually prints up to ${water(w.usual)}`
  if (w.dryness === 'unknown') return `${w.dried ? 'dried too short to be sure' : 'never dried'}: ${heldWords(w)}`
  const { woundH, strandH } = stays(s)
  return `lasts ${hours(woundH)}${woundH < FOR_GOOD_H ? `, strand ${hours(strandH)}` : ''}`
}
/** What is said of a spool whose water is not reckoned. */
function noWater(s: SpoolState): string {
  if (s.takesNoWater) return 'takes up no water'
  return s.place === 'sealed' ? 'dry it when it is opened' : 'no uptake known'
}
</script>

<template>
  <div>
    <PrepareTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <div v-else-if="data && data.spools.length === 0" class="sheet max-w-[560px] p-4">
      <p class="mb-2">No spool is in Stores yet, so there is nothing to dry.</p>
      <NuxtLink to="/stores?add=spool" class="button first">Add the first spool</NuxtLink>
    </div>
    <template v-else-if="data">
      <p
        class="mb-3 flex items-start gap-2 text-[17px] font-[680] leading-snug"
        role="status"
        :class="VERDICT_TEXT[sentence.verdict]"
      >
        <VerdictMark :verdict="sentence.verdict" :size="20" class="mt-[2px]" />{{ sentence.text }}
      </p>
      <p class="mb-3 flex flex-wrap items-center gap-x-4 text-sm text-ink2">
        <span class="inline-flex items-center gap-1"
          ><svg width="22" height="12" aria-hidden="true">
            <rect y="2" width="22" height="8" fill="var(--color-blue)" /></svg
          >wound spool, the estimate</span
        >
        <span class="inline-flex items-center gap-1"
          ><svg width="6" height="14" aria-hidden="true">
            <path d="M3 0V14" stroke="var(--color-bronze)" stroke-width="3" /></svg
          >a single strand, the bound</span
        >
        <span>pale: may hold; hatched: too wet; short mark: clean</span>
        <span
          >Room {{ data.air.roomC }} °C, {{ data.air.roomRh }} %; dry box {{ boxReading(data.air, shop.zone) }}.
          <button type="button" class="button plain !min-h-[40px]" @click="airOpen = true">Change</button></span
        >
      </p>
      <section v-if="drying.length" class="mb-4" aria-labelledby="in-dryers">
        <h2 id="in-dryers" class="mb-1">In a dryer now</h2>
        <ul class="grid gap-2" data-list>
          <li v-for="s in drying" :key="s.id" class="sheet flex flex-wrap items-center gap-x-4 gap-y-1 px-3 py-1">
            <NuxtLink :to="`/prepare/spool/${s.tag}`" class="act">{{ s.tag }}</NuxtLink><span>{{ s.material }}</span>
            <span v-if="s.drying"
              >{{ s.drying.dryer }}, {{ s.drying.setC }} °C since {{ when(s.drying.from, shop.zone) }}</span
            >
            <b
              v-if="s.drying"
              :class="minutesLeft(Date.parse(s.drying.from), s.drying.plannedH * 60, now) <= 0 ? 'text-look' : ''"
              >{{ leftWords(minutesLeft(Date.parse(s.drying.from), s.drying.plannedH * 60, now)) }}</b
            >
            <span v-if="s.drying?.timeOutH && s.drying.timeOutH < s.drying.plannedH" class="text-look"
              >switches itself off after {{ s.drying.timeOutH }} h</span
            >
            <button v-if="s.drying" type="button" class="button ml-auto" @click="end(s)">
              End it<span class="sr-only"> for {{ s.tag }}</span>
            </button>
          </li>
        </ul>
      </section>
      <section v-for="g in groups" :key="g.key" class="mb-4" :aria-labelledby="`g-${g.key}`">
        <h2 :id="`g-${g.key}`" class="mb-1 flex items-center gap-2">
          <VerdictMark :verdict="g.verdict" :size="16" />{{ g.title }}
          <span class="font-normal text-ink2">{{ g.spools.length }}</span>
        </h2>
        <ul class="grid gap-x-6 xl:grid-cols-2" data-list>
          <li
            v-for="s in g.spools"
            :key="s.id"
            class="grid grid-cols-[auto_minmax(0,1fr)_auto] items-center gap-x-3 border-t border-rule py-1 sm:grid-cols-[64px_130px_minmax(80px,1fr)_auto]"
          >
            <NuxtLink :to="`/prepare/spool/${s.tag}`" class="act">{{ s.tag }}</NuxtLink>
            <span class="min-w-0 leading-tight"
              ><span class="block truncate font-semibold">{{ s.material }}</span
              ><span class="block text-xs text-ink2">{{ placeWords(s) }}</span></span
            >
            <span v-if="s.water && s.place !== 'sealed'" class="col-span-3 row-start-2 sm:col-span-1 sm:row-start-auto"
              ><WaterBar v-bind="s.water" :label="s.tag" /><span
                class="block text-xs"
                :class="{ stop: 'text-stop', look: 'text-look', fine: 'text-ink2' }[drynessVerdict(s)]"
                >{{ rowWords(s, s.water) }}</span
              ></span
            >
            <span v-else class="col-span-3 row-start-2 text-xs text-ink2 sm:col-span-1 sm:row-start-auto"
              ><template v-if="s.problem"
                ><span class="text-look">{{ withTimes(s.problem, shop.zone) }}</span></template
              ><template v-else>{{ noWater(s) }}</template></span
            >
            <SpoolClock :spool="s" />
          </li>
        </ul>
      </section>
      <section class="grid gap-x-8 gap-y-3 border-t-2 border-ink pt-3 lg:grid-cols-2" aria-labelledby="dryers">
        <div>
          <h2 id="dryers" class="mb-1">Dryers</h2>
          <p v-if="data.dryers.length === 0">No dryer is described yet.</p>
          <ul class="grid">
            <li
              v-for="d in data.dryers"
              :key="d.id"
              class="flex flex-wrap items-center gap-x-3 border-t border-rule"
              :class="d.withdrawn ? 'text-ink2 line-through' : ''"
            >
              <b>{{ d.name }}</b><span
                >{{ d.kind }}, to {{ d.ceilingC }} °C{{ d.timeOutH ? `, off after ${d.timeOutH} h` : '' }}</span
              ><button type="button" class="button plain ml-auto" @click="edit(d)">
                Edit<span class="sr-only"> {{ d.name }}</span>
              </button>
            </li>
          </ul>
          <button type="button" class="button mt-2" @click="edit(null)">Add a dryer</button>
        </div>
        <div v-if="fitted">
          <h2 class="mb-1">The wound spool</h2>
          <p v-if="fitted.weighings === 0">
            Turns on a spool shield each other: it dries about {{ fitted.factor.toFixed(0) }} times slower than a single
            strand (start value, between {{ fitted.low80.toFixed(1) }} and {{ fitted.high80.toFixed(0) }}). Weigh spools
            before and after drying, and the shop's own factor takes its place.
          </p>
          <p v-else>
            By {{ fitted.weighings }} {{ fitted.weighings === 1 ? 'drying that was' : 'dryings that were' }} weighed
            before and after, a spool here dries {{ fitted.factor.toFixed(1) }} times slower than a single strand (80 %
            between {{ fitted.low80.toFixed(1) }} and {{ fitted.high80.toFixed(1) }}).
          </p>
        </div>
      </section>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the spools"
    />
    <EndSheet :ending="ending" @close="ending = null" />
    <DryerSheet :open="dryerOpen" :dryer="dryer" @close="dryerOpen = false" />
    <AirSheet :open="airOpen" @close="airOpen = false" />
  </div>
</template>
