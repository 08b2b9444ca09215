<script setup lang="ts">
/** A bed by feeler: three points, screws turned, and round again; each round says what the next needs. */
import { computed } from 'vue'
import { cautionsFor } from '#core/cautions'
import { MOST_ROUNDS, turnWords, type FeelerLevel, type Place } from '#core/level'
import type { LevelPage } from '#shared/answers/level'
import { seeLevel } from '#shared/level'
import LevelAt from '~/components/change/LevelAt.vue'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import CautionList from '~/components/equip/CautionList.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { VERDICT_TEXT } from '~/words/verdict'
import { sent } from '~/words/numbers'

const props = defineProps<{ page: LevelPage }>()
const emit = defineEmits<{ close: [] }>()
interface Typed {
  xMm: number | null
  yMm: number | null
  gapMm: number | null
}
/** Where it was measured last, else over the screws, else a usual three. */
function placesOf(p: LevelPage): Place[] {
  const m = p.latest?.measured
  if (m?.how === 'feeler') return m.rounds.at(-1)!.map(({ xMm, yMm }) => ({ xMm, yMm }))
  const { widthMm, depthMm, screws } = p.bed!
  if (screws.length >= 3) return screws.map(({ xMm, yMm }) => ({ xMm, yMm }))
  return [
    { xMm: 30, yMm: 30 },
    { xMm: widthMm - 30, yMm: 30 },
    { xMm: widthMm / 2, yMm: depthMm - 30 },
  ]
}
const fresh = (places: readonly Place[]): Typed[] => places.map(({ xMm, yMm }) => ({ xMm, yMm, gapMm: null }))
/** A round in which nothing is typed is none. */
const typed = (rounds: readonly Typed[][]) => rounds.filter((r, i) => i === 0 || r.some(p => p.gapMm !== null))
const sheet = useEntrySheet('/api/levels', {
  on: () => props.page,
  name: p => `feeler ${p.printerId}`,
  start: p => ({
    wantedMm: 0.1 as number | null,
    rounds: [fresh(placesOf(p))],
    bedC: p.jobC,
    soakedMin: null as number | null,
    note: '',
    occurredAt: new Date().toISOString(),
  }),
  body: ({ wantedMm, rounds, ...v }, p) => ({
    ...v,
    printerId: p.printerId,
    soakedMin: sent(v.soakedMin),
    measured: { how: 'feeler', wantedMm, rounds: typed(rounds) },
  }),
  says: (_, p) => `Bed of ${p.printer} by feeler`,
  saved: (done, _, p) => `${p.printer}: ${done.says}${done.action ? ` ${done.action}.` : ''}`,
  close: () => emit('close'),
})
/** What each round says, as far as it is whole. */
const seen = computed(() =>
  sheet.v.rounds.map(round => {
    if (round.some(p => p.gapMm === null)) return null
    const m = { how: 'feeler', wantedMm: sheet.v.wantedMm, rounds: [round] } as FeelerLevel
    return seeLevel(m, props.page.bed!, { bedC: sheet.v.bedC, jobC: props.page.jobC })
  }),
)
const nearest = (p: Typed) => {
  const at = (s: Place) => Math.hypot(s.xMm - (p.xMm ?? 0), s.yMm - (p.yMm ?? 0))
  const screws = props.page.bed!.screws
  if (screws.length === 0) return ''
  const near = screws.reduce((a, b) => (at(b) < at(a) ? b : a))
  return at(near) < 80 ? near.name : ''
}
const again = () => sheet.v.rounds.push(fresh(sheet.v.rounds.at(-1)! as Place[]))
const error = (r: number, i: number, key: string) => sheet.errors[`measured.rounds.${r}.${i}.${key}`]
const shown = computed(() => [
  'measured.wantedMm',
  'bedC',
  'soakedMin',
  'occurredAt',
  'note',
  ...sheet.v.rounds.flatMap((round, r) =>
    round.flatMap((_, i) => ['xMm', 'yMm', 'gapMm'].map(k => `measured.rounds.${r}.${i}.${k}`)),
  ),
])
const cautions = computed(() =>
  cautionsFor({ action: 'level a bed', nozzleC: 200, bedC: sent(sheet.v.bedC) as number | null }),
)
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    wide
    :title="`Bed of ${page.printer} by feeler`"
    action="Save what was measured"
    :shown="shown"
  >
    <CautionList :cautions="cautions" />
    <p class="text-sm text-ink2">
      Hot, after the soak, nozzle wiped clean. At each point the thickest leaf that still goes between nozzle and bed.
    </p>
    <div class="grid gap-3 sm:grid-cols-3">
      <FieldNumber
        id="feeler-wanted"
        v-model="sheet.v.wantedMm"
        label="Gap that is wanted"
        unit="mm"
        :error="sheet.errors['measured.wantedMm']"
      />
      <LevelAt id="feeler" v-model="sheet.v" :errors="sheet.errors" />
    </div>
    <section v-for="(round, r) in sheet.v.rounds" :key="r" :aria-labelledby="`round-${r}`">
      <h3 :id="`round-${r}`" class="mb-1 border-b border-rule font-[650]">Round {{ r + 1 }}</h3>
      <div v-for="(p, i) in round" :key="i" class="mb-2 grid grid-cols-[1fr_1fr_1fr] items-start gap-3">
        <FieldNumber
          :id="`gap-${r}-${i}`"
          v-model="p.gapMm"
          :label="`Gap${nearest(p) ? `, ${nearest(p)}` : ` ${i + 1}`}`"
          unit="mm"
          :error="error(r, i, 'gapMm')"
        />
        <FieldNumber
          :id="`gap-x-${r}-${i}`"
          v-model="p.xMm"
          label="from the left"
          unit="mm"
          :error="error(r, i, 'xMm')"
        />
        <FieldNumber
          :id="`gap-y-${r}-${i}`"
          v-model="p.yMm"
          label="from the front"
          unit="mm"
          :error="error(r, i, 'yMm')"
        />
      </div>
      <div v-if="seen[r]" role="status">
        <p class="flex items-start gap-2 font-[650]" :class="VERDICT_TEXT[seen[r]!.verdict.mark]">
          <VerdictMark :verdict="seen[r]!.verdict.mark" :size="18" class="mt-[2px]" />{{ seen[r]!.verdict.says }}
          {{ seen[r]!.verdict.action ? `${seen[r]!.verdict.action}.` : '' }}
        </p>
        <ul v-if="seen[r]!.verdict.mark !== 'fine'" class="mt-1 ml-6 list-disc">
          <li v-for="s in seen[r]!.found.screws" :key="s.name">{{ s.name }}: {{ turnWords(s) }}</li>
        </ul>
      </div>
    </section>
    <p>
      <button v-if="sheet.v.rounds.length < MOST_ROUNDS && seen.at(-1)" type="button" class="button" @click="again">
        Screws are turned: go round again
      </button>
    </p>
  </EntrySheet>
</template>
