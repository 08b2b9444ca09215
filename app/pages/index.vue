<script setup lang="ts">
/** Floor: which printer needs a person, why, and the one thing to do next. */
import { computed, ref } from 'vue'
import type { Floor } from '../../server/records/floor'
import FitSheet from '~/components/entry/FitSheet.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import HeatWall from '~/components/wall/HeatWall.vue'
import { useReading } from '~/composables/reading'
import { nowLine } from '~/format'

useHead({ title: 'Floor · Iron Nozzle' })
const { data: floor, failure } = useReading<Floor>(() => '/api/floor', 30_000)
const fitting = ref<number | null>(null)

const verdict = computed(() => {
  const f = floor.value
  if (!f) return null
  const stop = f.printers.filter(p => p.verdict === 'stop'), look = f.printers.filter(p => p.verdict === 'look')
  const names = (l: { name: string }[]) => l.length > 3 ? `${l.length} printers` : l.map(p => p.name).join(' and ')
  if (stop.length > 0) return { verdict: 'stop' as const, text: `Stop at ${names(stop)}: ${f.bench[0]!.reason}` }
  if (look.length > 0) return { verdict: 'look' as const, text: `Look at ${names(look)}: ${f.bench[0]!.reason}` }
  return { verdict: 'fine' as const, text: 'Nothing is due at any printer.' }
})
</script>

<template>
  <div>
    <div class="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
      <h1>Floor</h1>
      <span v-if="floor" class="text-sm font-semibold text-ink2">{{ floor.shopName }} · {{ nowLine(floor.timeZone) }}</span>
      <span class="ml-auto hidden items-center gap-3 text-xs font-semibold text-ink2 lg:flex" aria-hidden="true">
        <span>◂▸ last job asked</span><span>━ part that decides</span><span>▨ not allowed</span><span>bars: 1 g to 100 kg of fibre left</span>
      </span>
    </div>
    <p v-if="failure" class="mb-2 font-semibold text-look" role="status">{{ failure }}</p>
    <template v-if="floor">
      <EmptyShop v-if="floor.printers.length === 0" />
      <template v-else>
        <p v-if="verdict" class="mb-3 flex items-start gap-2 text-[15px] font-[650]" :class="verdict.verdict === 'stop' ? 'text-stop' : verdict.verdict === 'look' ? 'text-look' : ''"><VerdictMark :verdict="verdict.verdict" class="mt-[2px]" />{{ verdict.text }}</p>
        <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] xl:grid-cols-[minmax(0,1fr)_236px]">
          <HeatWall class="order-2 xl:order-1" :printers="floor.printers" :zone="floor.timeZone" @fit="id => fitting = id" />
          <aside class="order-1 xl:order-2" aria-labelledby="bench">
            <h2 id="bench" class="border-b-2 border-ink pb-1">Next at the bench</h2>
            <ol class="sm:grid sm:grid-cols-2 sm:gap-x-6 xl:block">
              <li v-for="(b, i) in floor.bench.slice(0, 10)" :key="i" class="grid grid-cols-[22px_1fr] gap-1 border-b border-rule py-2">
                <VerdictMark :verdict="b.verdict" :size="16" class="mt-[2px]" />
                <div>
                  <p class="font-bold">{{ b.printer }}{{ b.nozzle ? ` · ${b.nozzle}` : '' }}</p>
                  <p class="text-sm text-ink2">{{ b.reason }}</p>
                  <NuxtLink :to="b.to" class="act text-[13.5px]">{{ b.action }}</NuxtLink>
                </div>
              </li>
            </ol>
          </aside>
        </div>
      </template>
    </template>
    <div v-else-if="!failure" class="sheet h-[560px] animate-pulse opacity-60" role="status" aria-label="Reading the floor" />
    <FitSheet :head-id="fitting" @close="fitting = null" />
  </div>
</template>
