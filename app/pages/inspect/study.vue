<script setup lang="ts">
/** Gauge studies: how sure a gauge is. A list worked off line by line, and what it tells. */
import { computed, ref, watch } from 'vue'
import { counted } from '#core/words'
import type { StudyLine } from '#shared/answers/studies'
import { day } from '#shared/time'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import InspectTabs from '~/components/inspect/InspectTabs.vue'
import StudyResult from '~/components/inspect/StudyResult.vue'
import StudySheet from '~/components/inspect/StudySheet.vue'
import StudyTurn from '~/components/inspect/StudyTurn.vue'
import { useAnswer } from '~/composables/answer'
import { useStudyTurn } from '~/composables/study-turn'
import { useShop } from '~/state/shop'
import { methodWords } from '~/words/effects'
import { readingWords } from '~/words/study'

useHead({ title: 'Study · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const { data: studies, failure } = useAnswer('/api/studies')
const { data: setups } = useAnswer('/api/setups')
const adding = ref(false)
const chosen = ref<number | null>(route.query.study ? Number(route.query.study) : null)
const isOpen = (s: StudyLine) => s.struck === null && s.lines.some(l => l.reading === null)
/** The one that was asked for, or that is being read, or that counts, or the latest. */
const study = computed(() => {
  const all = studies.value ?? []
  return (
    all.find(s => s.id === chosen.value) ??
    all.find(isOpen) ??
    all.find(s => s.counts) ??
    all.find(s => s.struck === null) ??
    null
  )
})
const line = useStudyTurn(study)
/** While the list is worked off what was read stays hidden: nobody should know what the last one found. */
const peek = ref(false)
watch(
  () => study.value?.id,
  () => {
    peek.value = false
  },
)
const shows = computed(() => study.value !== null && (!isOpen(study.value) || peek.value))
const read = computed(() => study.value?.lines.filter(l => l.reading !== null).length ?? 0)
const sentence = computed(() => {
  if (!studies.value) return ''
  const s = study.value
  if (!s)
    return (
      'No gauge study yet. How far apart are two people with the same pins on the same nozzle? ' +
      'A list of some twenty lines tells.'
    )
  if (s.struck) return `${s.name} is struck out: ${s.struck.reason}. Nothing goes by it.`
  return isOpen(s) ? `${s.name} is being read: ${read.value} of ${counted(s.lines.length, 'line')}.` : ''
})
const nameOf = (s: StudyLine, id: number) => s.people.find(p => p.id === id)!.name
const tagOf = (s: StudyLine, id: number) => s.nozzles.find(n => n.id === id)!.tag
const striking = ref<{ target: 'study' | 'study reading'; id: number; says: string } | null>(null)
function begun(id: number | null): void {
  adding.value = false
  if (id !== null) chosen.value = id
}
const stand = (s: StudyLine) => {
  if (s.struck) return 'struck out'
  if (isOpen(s)) return `${s.lines.filter(l => l.reading !== null).length} of ${s.lines.length} lines read`
  return s.counts ? 'gauges go by it' : 'read, does not count'
}
function print(): void {
  window.print()
}
</script>

<template>
  <div>
    <InspectTabs :failure="failure" />
    <p v-if="sentence" class="mb-3 text-[15px] font-[650]" role="status">{{ sentence }}</p>
    <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] lg:grid-cols-[minmax(0,1fr)_300px] print:block">
      <div v-if="study" class="grid grid-cols-[minmax(0,1fr)] gap-4">
        <header class="flex flex-wrap items-baseline gap-x-3">
          <h2>{{ study.name }}</h2>
          <span class="text-sm text-ink2"
            >{{ methodWords(study) }}; {{ counted(study.people.length, 'person', 'people') }} ×
            {{ counted(study.nozzles.length, 'nozzle') }} × {{ counted(study.repeats, 'round') }}; begun
            {{ day(study.at, shop.zone) }} by {{ study.person }}{{ study.note ? `; ${study.note}` : '' }}</span
          >
          <span class="no-print ml-auto flex gap-2">
            <button type="button" class="button plain" @click="print">
              Print {{ isOpen(study) ? 'the list' : 'the study' }}
            </button>
            <button
              v-if="!study.struck"
              type="button"
              class="button plain"
              @click="striking = { target: 'study', id: study.id, says: `The study ${study.name}` }"
            >
              Strike out<span class="sr-only"> {{ study.name }}</span>
            </button>
          </span>
        </header>
        <StudyTurn v-if="line !== null" :key="study.id" :study="study" :line="line" />
        <p v-else-if="isOpen(study) && !study.struck" class="font-semibold text-look">
          The last lines are kept here and sent when the server answers.
        </p>
        <StudyResult v-if="shows" :study="study" />
        <p v-if="isOpen(study)" class="no-print flex flex-wrap items-center gap-3 text-sm">
          <span
            >What was read is hidden while the list is worked off, so that nobody goes by what the last one found.</span
          >
          <button type="button" class="button plain" @click="peek = !peek">{{ peek ? 'Hide it' : 'Show it' }}</button>
        </p>
        <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Lines, pan sideways">
          <table class="record sheet min-w-[560px]">
            <caption class="sr-only">
              The lines of
              {{
                study.name
              }}
              in their order
            </caption>
            <thead>
              <tr>
                <th scope="col" class="num">line</th>
                <th scope="col">round</th>
                <th scope="col">person</th>
                <th scope="col">nozzle</th>
                <th scope="col">reading</th>
                <th scope="col"><span class="sr-only">strike out</span></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(l, i) in study.lines" :key="i" :class="i === line ? 'bg-white font-semibold' : ''">
                <td class="num">{{ i + 1 }}</td>
                <td>{{ l.round + 1 }}</td>
                <td>{{ nameOf(study, l.personId) }}</td>
                <td>{{ tagOf(study, l.nozzleId) }}</td>
                <td>
                  <template v-if="l.reading">{{ shows ? readingWords(l.reading) : 'read' }}</template>
                  <template v-else>{{ i === line ? 'now' : '' }}</template>
                  <span
                    v-for="k in study.struckReadings.filter(x => x.line === i)"
                    :key="k.id"
                    class="block text-sm text-ink2"
                    ><s>{{ readingWords(k) }}</s> struck out by {{ k.struck!.person }}: {{ k.struck!.reason }}</span
                  >
                </td>
                <td>
                  <button
                    v-if="l.reading && !study.struck"
                    type="button"
                    class="button plain no-print"
                    @click="
                      striking = {
                        target: 'study reading',
                        id: l.reading.id,
                        says: `Line ${i + 1} of ${study.name}`,
                      }
                    "
                  >
                    Strike out<span class="sr-only"> line {{ i + 1 }}</span>
                  </button>
                </td>
              </tr>
            </tbody>
          </table>
        </div>
      </div>
      <section class="no-print grid gap-3" :class="study ? '' : 'max-w-[560px]'" aria-label="Studies">
        <div>
          <button
            type="button"
            class="button"
            :class="study && line !== null ? '' : 'first'"
            :disabled="!studies || !shop.data"
            @click="adding = true"
          >
            Begin a study
          </button>
        </div>
        <ul class="grid gap-2">
          <li v-for="s in studies ?? []" :key="s.id">
            <button
              type="button"
              class="sheet w-full p-3 text-left"
              :class="s.id === study?.id ? 'border-2 border-ink' : ''"
              :aria-current="s.id === study?.id ? 'true' : undefined"
              @click="chosen = s.id"
            >
              <b :class="s.struck ? 'line-through' : ''">{{ s.name }}</b><span class="block text-sm text-ink2"
                >{{ methodWords(s) }}, {{ day(s.at, shop.zone) }}: {{ stand(s) }}</span
              >
            </button>
          </li>
        </ul>
        <p class="text-sm text-ink2">
          Readings of a study are not gauges: they tell how sure a gauge is, and move no nozzle’s bore. What all
          readings share, the size of a pin or the scale of a set-up, no study of this kind can show.
        </p>
      </section>
    </div>
    <StudySheet :open="adding" :setups="setups ?? []" @close="begun" />
    <StrikeSheet :target="striking" @close="striking = null" />
  </div>
</template>
