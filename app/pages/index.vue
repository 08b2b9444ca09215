<script setup lang="ts">
/** Floor: which printer needs a person, why, and the one thing to do next. */
import type { BenchLine } from '#shared/answers/bench'
import { computed, ref } from 'vue'
import FitSheet from '~/components/entry/FitSheet.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import FirstHour from '~/components/floor/FirstHour.vue'
import HeatWall from '~/components/floor/HeatWall.vue'
import { useAnswer } from '~/composables/answer'
import { preparedDue } from '#shared/prepared'
import { nowLine } from '#shared/time'
import { usePrepare } from '~/composables/prepare'
import { byWeight, isPutOff, minutesLeft, notReady, soakStands } from '#core/schedule'
import { counted, hours, leftWords, listed } from '#core/words'
import { drynessOf, type Dryness } from '~/words/water'
import { isBeingSetUp } from '~/lib/first-hour'
import { useDue } from '~/state/due'
import { useShop } from '~/state/shop'
import { VERDICT_TEXT } from '~/words/verdict'

/** Its head says whose it is and of when. */
definePageMeta({ ownStamp: true })
useHead({ title: 'Floor · Iron Nozzle' })
const { data: floor, failure } = useAnswer('/api/floor', { everyMs: 30_000 })
const { data: prepare, now } = usePrepare()
const shop = useShop()
const rail = useDue()
const fitting = ref<number | null>(null)

const DRY_NOTES: Partial<Record<Dryness, string>> = { wet: 'is too wet', unknown: 'not known to be dry' }
/** What Prepare knows of each printer: its soak, and whether the spool on it is dry. */
const notes = computed(() => {
  const out: Record<string, { text: string; look: boolean; to: string }[]> = {}
  for (const p of floor.value?.printers ?? [])
    for (const n of notReady(p.name, p.standing).slice(0, 1))
      (out[p.name] ??= []).push({ text: n.stops ? 'not ready' : 'a note to read', look: true, to: n.open })
  for (const s of prepare.value?.soaks ?? []) {
    const left = minutesLeft(Date.parse(s.from), s.minutes, now.value)
    if (s.to !== null || !soakStands(Date.parse(s.from), s.minutes, now.value)) continue
    ;(out[s.printer] ??= []).push({
      text: left > 0 ? `soaking, ${leftWords(left)}` : 'soaked: ready',
      look: left <= 0,
      to: `/prepare/soak?printer=${s.printer}`,
    })
  }
  for (const c of prepare.value?.coolDowns ?? []) {
    const left = minutesLeft(Date.parse(c.from), c.minutes, now.value)
    if (c.to !== null || !soakStands(Date.parse(c.from), c.minutes, now.value)) continue
    ;(out[c.printer] ??= []).push({
      text: left > 0 ? `cools, ${leftWords(left)}` : `take ${c.name} off`,
      look: left <= 0,
      to: '/change/cool',
    })
  }
  for (const s of prepare.value?.spools ?? []) {
    if (!s.printer || !s.water) continue
    const dry = drynessOf(s)
    ;(out[s.printer] ??= []).push({
      text: `${s.tag} ${DRY_NOTES[dry] ?? `dry ${hours(s.water.inRoom.woundH)}`}`,
      look: dry !== 'clean' && dry !== 'usual',
      to: `/prepare/spool/${s.tag}`,
    })
  }
  return out
})
/** What Prepare adds to the bench. */
const prepared = computed<BenchLine[]>(() => {
  const p = prepare.value
  if (!p) return []
  const left = (id: number) => shop.data?.spools.find(x => x.id === id) ?? null
  return preparedDue(p, left, now.value).map(({ printer, due }) => ({
    ...due,
    verdict: due.mark,
    printer: printer ?? '',
    nozzle: due.about,
    to: due.open,
  }))
})
/** A printer whose spool or soak wants a look is not fine. */
const printers = computed(() =>
  (floor.value?.printers ?? []).map(p =>
    p.verdict === 'fine' && notes.value[p.name]?.some(n => n.look) ? { ...p, verdict: 'look' as const } : p,
  ),
)
/** What stands at the printers, and what of it a person does next: what is put off waits in the list of what is due. */
const standing = computed(() => [...(floor.value?.bench ?? []), ...prepared.value].sort(byWeight))
const bench = computed(() => {
  const putOff = new Set(floor.value?.putOff)
  return standing.value.filter(
    b => !isPutOff({ ...b, mark: b.verdict, about: b.nozzle, open: b.to }, b.printer, putOff),
  )
})

const verdict = computed(() => {
  const f = floor.value
  if (!f) return null
  const stop = printers.value.filter(p => p.verdict === 'stop'),
    look = printers.value.filter(p => p.verdict === 'look')
  const names = (l: { name: string }[]) =>
    l.length > 3
      ? `${l.length} printers`
      : listed(
          l.map(p => p.name),
          'and',
        )
  if (stop.length > 0) return { verdict: 'stop' as const, text: `Stop at ${names(stop)}: ${f.bench[0]!.reason}` }
  if (look.length > 0) return { verdict: 'look' as const, text: `Look at ${names(look)}: ${standing.value[0]!.reason}` }
  const others = Object.values(rail.counts).reduce((a, b) => a + b, 0)
  const beside = `Nothing is next at the bench; ${counted(others, 'thing')} due beside it.`
  if (others > 0) return { verdict: 'look' as const, text: beside }
  return { verdict: 'fine' as const, text: 'Nothing is due at any printer.' }
})
</script>

<template>
  <div>
    <div class="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1>Floor</h1>
      <span v-if="floor" class="text-sm font-semibold text-ink2"
        >{{ floor.shopName }} · {{ nowLine(floor.timeZone) }}</span
      >
      <span
        v-if="floor && floor.printers.length > 0"
        class="ml-auto hidden items-center gap-3 text-xs font-semibold text-ink2 lg:flex print:flex print:flex"
        aria-hidden="true"
      >
        <span>▮ now</span><span>◂▸ last job asked</span><span>━ part that decides</span><span>▨ not allowed</span
        ><span>bars: 1 g to 100 kg of fibre left</span>
      </span>
    </div>
    <p v-if="failure" class="mb-2 font-semibold text-look" role="status">{{ failure }}</p>
    <template v-if="floor">
      <FirstHour v-if="isBeingSetUp(shop.data)" />
      <template v-if="floor.printers.length > 0">
        <p
          v-if="verdict"
          class="mb-3 flex items-start gap-2 text-[15px] font-[650]"
          :class="VERDICT_TEXT[verdict.verdict]"
        >
          <VerdictMark :verdict="verdict.verdict" class="mt-[2px]" />{{ verdict.text }}
        </p>
        <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] xl:grid-cols-[minmax(0,1fr)_236px]">
          <HeatWall
            class="order-2 xl:order-1"
            :printers="printers"
            :zone="floor.timeZone"
            :notes="notes"
            :now="now"
            @fit="id => (fitting = id)"
          />
          <aside class="order-1 xl:order-2" aria-labelledby="bench">
            <h2 id="bench" class="flex items-baseline border-b-2 border-ink pb-1">
              Next at the bench<NuxtLink to="/due" class="act no-print ml-auto text-[13.5px]">All that is due</NuxtLink>
            </h2>
            <ol class="sm:grid sm:grid-cols-2 sm:gap-x-6 xl:block print:grid print:landscape:grid-cols-3">
              <li v-for="(b, i) in bench" :key="i" class="grid grid-cols-[22px_1fr] gap-1 border-b border-rule py-2">
                <VerdictMark :verdict="b.verdict" :size="16" class="mt-[2px]" />
                <div>
                  <p class="font-bold">{{ b.printer }}{{ b.nozzle ? ` · ${b.nozzle}` : '' }}</p>
                  <p class="text-sm text-ink2">{{ b.reason }}</p>
                  <NuxtLink :to="b.to" class="act text-[13.5px]">{{ b.action }}</NuxtLink>
                </div>
              </li>
            </ol>
            <p v-if="bench.length < standing.length" class="pt-2 text-sm text-ink2">
              {{ counted(standing.length - bench.length, 'thing') }} put off, in what is due.
            </p>
          </aside>
        </div>
      </template>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the floor"
    />
    <FitSheet :head-id="fitting" @close="fitting = null" />
  </div>
</template>
