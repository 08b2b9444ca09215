<script setup lang="ts">
/** How long nozzles of a type live: by what gauges found, beside what the wear model expects. */
import { computed, ref } from 'vue'
import { lifeKgAt, meanLifeKg } from '#core/life'
import { kg, kgBetween } from '#core/words'
import type { TypeLife } from '#shared/answers/lives'
import InspectTabs from '~/components/inspect/InspectTabs.vue'
import LifePlot from '~/components/inspect/LifePlot.vue'
import SortTable, { type SortColumn } from '~/components/ui/SortTable.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { countOf, fillerWords, lifeNotes, lifeSentence, rangeWords } from '~/words/life'

useHead({ title: 'Types · Iron Nozzle' })
const { data: lives, failure } = useAnswer('/api/lives')
const keyOf = (t: TypeLife) => `${t.typeId} ${t.filler ?? ''}`
const chosen = ref<string | null>(null)
const failures = (t: TypeLife) => countOf(t, 'found past its limit')
/** Asked for, or the one of which most is known. */
const life = computed(() => {
  const all = lives.value ?? []
  return all.find(t => keyOf(t) === chosen.value) ?? [...all].sort((a, b) => failures(b) - failures(a))[0] ?? null
})
const rows = computed(() => (lives.value ?? []).map((t, i) => ({ id: i + 1, t })))
type Row = (typeof rows.value)[number]
const COLUMNS: SortColumn<Row>[] = [
  { key: 'type', label: 'type', by: r => r.t.typeName },
  { key: 'nozzles', label: 'nozzles', num: true, by: r => r.t.nozzles.length },
  { key: 'past', label: 'found past', num: true, by: r => failures(r.t) },
  { key: 'b10', label: 'one in ten past', num: true, by: r => r.t.fit?.b10 ?? null },
  { key: 'mean', label: 'mean', num: true, by: r => r.t.fit?.mean ?? null },
  { key: 'model', label: 'wear model, mean', num: true, by: r => r.t.model && meanLifeKg(r.t.model) },
]
function print(): void {
  window.print()
}
</script>

<template>
  <div>
    <InspectTabs :failure="failure" />
    <template v-if="lives">
      <p v-if="!life" class="mb-3 text-[15px] font-[650]" role="status">
        No nozzle yet. How long a type lives is told by nozzles that were gauged until they were past their limit.
      </p>
      <template v-else>
        <p class="mb-3 flex items-start gap-2 text-[15px] font-[650]" role="status">
          <VerdictMark v-if="!life.fit" verdict="look" class="mt-[2px]" />{{ lifeSentence(life) }}
        </p>
        <div
          class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] xl:grid-cols-[minmax(0,1fr)_500px] print:block"
        >
          <section class="grid grid-cols-[minmax(0,1fr)] gap-3" :aria-label="`Life of ${life.typeName}`">
            <header class="flex flex-wrap items-baseline gap-x-3">
              <h2>{{ life.typeName }}</h2>
              <span class="text-sm text-ink2">{{ fillerWords(life) }}</span>
              <button type="button" class="button plain no-print ml-auto" @click="print">Print</button>
            </header>
            <dl v-if="life.fit" class="grid grid-cols-2 gap-3">
              <div class="sheet p-3">
                <dt class="label">One in ten past its limit after</dt>
                <dd class="text-[22px] font-bold [font-stretch:88%]">{{ kg(life.fit.b10) }}</dd>
                <dd class="text-[12.5px] text-ink2">{{ rangeWords(life.fit.ranges.b10) }}</dd>
              </div>
              <div class="sheet p-3">
                <dt class="label">Mean life</dt>
                <dd class="text-[22px] font-bold [font-stretch:88%]">{{ kg(life.fit.mean) }}</dd>
                <dd class="text-[12.5px] text-ink2">{{ rangeWords(life.fit.ranges.mean) }}</dd>
              </div>
            </dl>
            <p v-if="life.model" class="text-sm">
              <b>The wear model</b> expects of a new one, by the bore, a mean of {{ kg(meanLifeKg(life.model)) }};
              {{ kgBetween(lifeKgAt(life.model, 0.1), lifeKgAt(life.model, 0.9)) }}:
              {{
                life.model.sisters >= 3
                  ? `from the gauges of ${life.model.sisters} ${life.material} nozzles`
                  : 'start values, as fewer than three were gauged'
              }}.
            </p>
            <p v-else class="text-sm">No retire rule by the bore, so the wear model has no life to set beside.</p>
            <LifePlot
              v-if="life.nozzles.some(n => n.record)"
              :life="life"
              :model="life.model"
              :label="`Lives of ${life.typeName}: share past its limit against kg of fibre`"
            />
            <ul class="grid list-disc gap-1 pl-5 text-sm">
              <li v-for="n in lifeNotes(life)" :key="n">{{ n }}</li>
              <li v-if="life.fit">
                Shape {{ life.fit.shape.toFixed(1) }}:
                {{
                  life.fit.shape > 1
                    ? 'the more has gone through, the sooner the next is past it'
                    : 'early ends, as from faults'
                }}. Ranges are by the profile of the likelihood; of a dozen nozzles they are a little too narrow.
              </li>
            </ul>
          </section>
          <section class="no-print grid grid-cols-[minmax(0,1fr)] gap-2" aria-label="All types">
            <SortTable
              :rows="rows"
              :columns="COLUMNS"
              label="Types"
              :min-width="490"
              :row-class="r => (r.t === life ? 'bg-white' : '')"
            >
              <template #cell-type="{ row: r }"
                ><button
                  type="button"
                  class="text-left font-semibold underline"
                  :aria-current="r.t === life ? 'true' : undefined"
                  @click="chosen = keyOf(r.t)"
                >
                  {{ r.t.typeName }}<span class="block text-xs font-normal text-ink2">{{ fillerWords(r.t) }}</span>
                </button></template
              >
              <template #cell-nozzles="{ row: r }">{{ r.t.nozzles.length }}</template>
              <template #cell-past="{ row: r }">{{ failures(r.t) }}</template>
              <template #cell-b10="{ row: r }">{{ r.t.fit ? kg(r.t.fit.b10) : 'cannot tell' }}</template>
              <template #cell-mean="{ row: r }">{{ r.t.fit ? kg(r.t.fit.mean) : '–' }}</template>
              <template #cell-model="{ row: r }">{{ r.t.model ? kg(meanLifeKg(r.t.model)) : '–' }}</template>
            </SortTable>
            <p class="text-xs text-ink2">
              Lives in kg of fibre, weighted by abrasivity (carbon 1). What wore out goes into
              <NuxtLink class="underline" to="/equip/buy">Which nozzle to buy</NuxtLink>.
            </p>
          </section>
        </div>
      </template>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the lives"
    />
  </div>
</template>
