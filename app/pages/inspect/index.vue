<script setup lang="ts">
/** Inspect: which nozzle to gauge next, most urgent first. */
import type { NozzleLine } from '#shared/answers/nozzles'
import { computed } from 'vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import InspectTabs from '~/components/inspect/InspectTabs.vue'
import LifeBar from '~/components/ui/LifeBar.vue'
import { useInAddress } from '~/composables/in-address'
import { useAnswer } from '~/composables/answer'
import { shelfOf } from '~/words/nozzle'
import { day } from '#shared/time'
import { gaugeDue } from '#core/schedule'
import { chance, kg, kgBetween } from '#core/words'
import { useShop } from '~/state/shop'

useHead({ title: 'Inspect · Iron Nozzle' })
const shop = useShop()
const filter = useInAddress('find', { typed: true })
const retiredToo = useInAddress('retired')
const withRetired = computed({ get: () => retiredToo.value === '1', set: on => (retiredToo.value = on ? '1' : '') })
const { data: inService, failure } = useAnswer('/api/nozzles')
/** Ten years leave thousands behind: they are read when they are asked for, by what is looked for. */
const { data: retired } = useAnswer('/api/nozzles', {
  params: () => (withRetired.value ? {} : null),
  query: () => ({ retired: '1', find: filter.value.trim().slice(0, 40), limit: '200' }),
})
const nozzles = computed(
  () => inService.value && [...inService.value.nozzles, ...(withRetired.value ? (retired.value?.nozzles ?? []) : [])],
)
const risk = computed(() => shop.data?.settings.acceptedRisk ?? 0.1)
/** One rule with the Floor and the nozzle's own page. */
const dueOf = (n: NozzleLine) => (n.retired ? null : gaugeDue(n, risk.value))
const verdictOf = (n: NozzleLine) => {
  const due = dueOf(n)
  if (due === null) return 'fine' as const
  return due === 'now' ? ('stop' as const) : ('look' as const)
}
const wanted = computed(() => filter.value.trim().toLowerCase())
const sorted = computed(() =>
  [...(nozzles.value ?? [])]
    .filter(
      n =>
        n.retired || // the server looked for them
        wanted.value === '' ||
        [n.tag, n.typeName, n.place ?? '', n.hotend ?? ''].some(t => t.toLowerCase().includes(wanted.value)),
    )
    .sort(
      (a, b) =>
        Number(a.retired) - Number(b.retired) ||
        Number(!!b.place) - Number(!!a.place) ||
        b.pastChance - a.pastChance ||
        a.tag.localeCompare(b.tag),
    ),
)
const ORDER = ['now', 'before a filled job', 'after this job'] as const
const first = computed(() => {
  const fitted = sorted.value.filter(n => n.place)
  return ORDER.map(due => fitted.find(n => dueOf(n) === due)).find(n => n !== undefined)
})
const firstWords = (n: NozzleLine) =>
  dueOf(n) === 'after this job'
    ? `Gauge ${n.tag} on ${n.place} after this job: it is due in ${kg(n.nextGaugeKg)} of fibre, and a job like ` +
      `the last takes ${kg(n.jobFibreG! / 1000)}.`
    : `Gauge ${n.tag} on ${n.place} first: ${chance(n.pastChance)} chance that it is past its limit.`
const soon = computed(
  () => sorted.value.filter(n => n.place && n.nextGaugeKg !== null).sort((a, b) => a.nextGaugeKg! - b.nextGaugeKg!)[0],
)
</script>

<template>
  <div>
    <InspectTabs :failure="failure" />
    <template v-if="nozzles">
      <p class="mb-3 flex items-start gap-2 text-[15px] font-[650]">
        <template v-if="first"
          ><VerdictMark :verdict="verdictOf(first)" class="mt-[2px]" /><span
            :class="verdictOf(first) === 'stop' ? 'text-stop' : 'text-look'"
            >{{ firstWords(first) }}</span
          ></template
        >
        <template v-else-if="soon"
          ><VerdictMark verdict="fine" class="mt-[2px]" />Nothing is due. {{ soon.tag }} on {{ soon.place }} is next, in
          {{ kg(soon.nextGaugeKg) }} of fibre.</template
        >
        <template v-else-if="nozzles.length === 0"
          >No nozzle yet.
          <NuxtLink class="underline" to="/stores?add=nozzle">Add the first one in Stores.</NuxtLink></template
        >
        <template v-else>No filled job has been logged yet, so nothing is known that could be due.</template>
      </p>
      <div class="mb-3 flex flex-wrap items-end gap-3">
        <div class="field w-64">
          <label for="nozzle-filter">Find</label
          ><input id="nozzle-filter" v-model="filter" class="input" type="search" placeholder="tag, type or printer" />
        </div>
        <label class="check"><input v-model="withRetired" type="checkbox" /> retired too</label>
        <p class="self-center text-xs text-ink2">
          Bars: fibre left from 1 g to 100 kg, each mark ten times the last; stroke the middle, band 80 %.
        </p>
      </div>
      <ul class="sheet" aria-label="Nozzles" data-list>
        <li v-for="n in sorted" :key="n.id" class="border-b border-rule last:border-0">
          <NuxtLink
            :to="`/inspect/${n.tag}`"
            class="grid min-h-[56px] items-center gap-x-4 gap-y-1 px-3 py-2 hover:bg-white sm:grid-cols-[20px_130px_100px_minmax(0,1fr)_160px] lg:grid-cols-[20px_190px_150px_minmax(0,1fr)_190px]"
          >
            <VerdictMark v-if="!n.retired" :verdict="verdictOf(n)" :size="16" class="hidden sm:block" /><span
              v-else
              class="hidden sm:block"
            />
            <span
              ><b class="text-[16px]">{{ n.tag }}</b
              ><span class="block text-sm text-ink2">{{ n.typeName }}</span></span
            >
            <span class="text-sm">{{ n.retired ? `retired: ${n.retiredReason}` : (n.place ?? shelfOf(n)) }}</span>
            <span class="flex flex-wrap items-center gap-x-3"
              ><LifeBar
                :left="n.leftKg === null ? null : { median: n.leftKg, low80: n.leftLowKg!, high80: n.leftHighKg! }"
                :label="`fibre left on ${n.tag}`"
                :width="150"
              /><span class="text-sm"
                ><b>{{ n.leftKg === null ? 'no filled job yet' : `${kg(n.leftKg)} left` }}</b
                ><span v-if="n.stale" class="block text-xs text-ink2">being reckoned anew</span
                ><span v-if="n.leftKg !== null" class="block text-xs text-ink2">{{
                  kgBetween(n.leftLowKg!, n.leftHighKg!)
                }}</span></span
              ></span
            >
            <span class="text-sm text-ink2"
              >{{ chance(n.pastChance) }} chance past its limit<span class="block">{{
                n.lastGaugedAt ? `gauged ${day(n.lastGaugedAt, shop.zone)}` : 'never gauged'
              }}</span></span
            >
          </NuxtLink>
        </li>
      </ul>
      <p v-if="withRetired && retired?.next" class="mt-2 text-sm text-ink2">
        Of the retired the first {{ retired.nozzles.length }} are shown. Find by a part of the tag, type or reason.
      </p>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the nozzles"
    />
  </div>
</template>
