<script setup lang="ts">
/** One spool: how wet it is and why, how long it stays dry, and how to dry it. */
import { computed, ref } from 'vue'
import { drynessFixes, drynessFor, newSpool, throughHistory, trace } from '#core/drying'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import ListLinks from '~/components/ui/ListLinks.vue'
import DryPlan from '~/components/prepare/DryPlan.vue'
import SpoolEventSheet from '~/components/prepare/SpoolEventSheet.vue'
import EndSheet, { type ToEnd } from '~/components/prepare/EndSheet.vue'
import PrepareTabs from '~/components/prepare/PrepareTabs.vue'
import SpoolClock from '~/components/prepare/SpoolClock.vue'
import WaterTrace from '~/components/prepare/WaterTrace.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useNow } from '~/composables/prepare'
import { againAt, useAgain } from '~/composables/again'
import { useAnswer } from '~/composables/answer'
import { when, withTimes } from '#shared/time'
import { hours, water, leftWords } from '#core/words'
import { boxReading, boxWords, drynessVerdict, heldWords, placeWords, spoolSentence } from '~/words/water'
import { minutesLeft } from '#core/schedule'
import { useShop } from '~/state/shop'
import { VERDICT_TEXT } from '~/words/verdict'

const route = useRoute()
const tag = computed(() => String(route.params.tag))
useHead({ title: () => `${tag.value} · Iron Nozzle` })
const shop = useShop()
const now = useNow()
const { data, failure } = useAnswer('/api/spools/{tag}', { params: () => ({ tag: tag.value }), everyMs: 60_000 })
const { data: prepare } = useAnswer('/api/prepare')
const { data: equip } = useAnswer('/api/equip')

const history = computed(() => data.value?.history ?? null)
const start = computed(() =>
  history.value?.filament
    ? newSpool(history.value.filament, history.value.soakedRh, history.value.start, history.value.fill)
    : null,
)
const state = computed(() =>
  start.value && history.value?.filament
    ? throughHistory(start.value, history.value.filament, history.value.stays, data.value!.wound)
    : null,
)
const points = computed(() =>
  start.value && history.value?.filament
    ? trace(start.value, history.value.filament, history.value.stays, data.value!.wound)
    : [],
)
const mark = computed(() => (data.value ? drynessVerdict(data.value.state) : 'look'))
const sets = computed(() => equip.value?.materials.find(m => m.id === data.value?.state.materialId)?.sets ?? [])
const drying = computed(() => data.value?.state.drying ?? null)
const ending = ref<ToEnd | null>(null)
const striking = ref<{ target: 'spool event' | 'drying'; id: number; says: string; again?: string } | null>(null)
const { old: before, leave: leaveBefore, failure: noEntry } = useAgain('spool event')
function endIt(): void {
  const d = drying.value!
  ending.value = {
    target: 'drying',
    id: d.id,
    says: `${tag.value} in ${d.dryer}`,
    setC: d.setC,
    beforeG: d.beforeG,
    spoolId: data.value!.state.id,
  }
}

type Events = NonNullable<typeof data.value>
function eventWords(e: Events['events'][number]): string {
  const more = [
    e.grossG === null ? '' : ` ${e.grossG} g`,
    e.atC === null ? '' : ` at ${e.atC} °C`,
    e.hours === null ? '' : ` for ${e.hours} h`,
    e.rh === null ? '' : ` into ${e.rh} %`,
  ]
  return e.kind + more.join('')
}
function dryingWords(x: Events['dryings'][number]): string {
  const long = x.to === null ? `${x.plannedH} h planned` : hours((Date.parse(x.to) - Date.parse(x.from)) / 3_600_000)
  const lost = x.beforeG !== null && x.afterG !== null ? `: ${(x.beforeG - x.afterG).toFixed(1)} g lost` : ''
  return `dried in ${x.dryer} at ${x.actualC ?? x.setC} °C, ${long}${lost}`
}
const log = computed(() => {
  const d = data.value
  if (!d) return []
  const events = d.events.map(e => ({
    key: `e${e.id}`,
    target: 'spool event' as const,
    id: e.id,
    at: e.at,
    says: eventWords(e),
    note: e.note,
    person: e.person,
    struck: e.struck,
  }))
  const dried = d.dryings.map(x => ({
    key: `d${x.id}`,
    target: 'drying' as const,
    id: x.id,
    at: x.from,
    says: dryingWords(x),
    note: x.note,
    person: x.person,
    struck: null as string | null,
  }))
  const struck = d.struckDryings.map(x => ({
    key: `s${x.id}`,
    target: 'drying' as const,
    id: x.id,
    at: x.from,
    says: `dried in ${x.dryer}`,
    note: '',
    person: '',
    struck: x.reason,
  }))
  return [...events, ...dried, ...struck].sort((a, b) => (a.at < b.at ? 1 : -1))
})

function strike(e: (typeof log.value)[number]): void {
  const again = e.target === 'spool event' ? againAt(`/prepare/spool/${tag.value}`, e.target, e.id) : undefined
  striking.value = { target: e.target, id: e.id, says: `${tag.value} ${e.says}`, again }
}

const lasts = (t: { woundH: number; strandH: number }) =>
  data.value!.state.water!.dryness === 'unknown'
    ? 'not known: never dried for sure'
    : `${hours(t.woundH)} wound, ${hours(t.strandH)} as a single strand`
/** A planned print against how long the spool stays dry where it stands. */
const planned = ref<number | null>(null)
const outlook = computed(() => {
  const w = data.value?.state.water,
    h = planned.value
  if (!w || h === null || !(h > 0)) return null
  if (w.dryness === 'unknown')
    return { verdict: 'look' as const, text: 'Nobody knows how wet it is, so nobody knows how long it lasts: dry it.' }
  const boxed = data.value!.state.place === 'dry box',
    stays = boxed ? w.inBox : w.inRoom
  const d = drynessFor(h, stays)
  const where = boxed ? 'fed from the dry box' : 'in the room'
  const clean = (boxed ? w.cleanInBox : w.cleanInRoom).woundH
  if (d === 'dry')
    return clean >= h
      ? { verdict: 'fine' as const, text: `A print of ${hours(h)} stays clean ${where}.` }
      : { verdict: 'look' as const, text: `A print of ${hours(h)} usually works ${where}; clean it is not.` }
  const print = `A print of ${hours(h)}`
  const why = {
    'wet': 'It is too wet to begin',
    'outlasts': `${print} outlasts the spool, which stays dry ${hours(stays.woundH)}`,
    'outer turns':
      `${print} fits the spool's ${hours(stays.woundH)}, but its outer turns only stay dry ` +
      `${hours(stays.strandH)}`,
  }[d]
  return {
    verdict: d === 'outer turns' ? ('look' as const) : w.verdict,
    text: `${why}. ${drynessFixes(h, stays, boxed ? null : w.inBox)}.`,
  }
})

// an event with its own time, air or weight
const entering = ref(false)
</script>

<template>
  <div>
    <PrepareTabs :failure="failure" />
    <p v-if="noEntry" class="mb-2 font-semibold text-stop" role="alert">{{ noEntry }}</p>
    <template v-if="data">
      <div class="mb-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <p class="text-[20px] font-[700]">
          {{ data.state.tag }} <span class="font-normal">{{ data.state.material }}</span>
        </p>
        <span class="text-ink2"
          >{{ placeWords(data.state) }}{{ data.state.since ? ` since ${when(data.state.since, shop.zone)}` : '' }};
          {{ data.leftG.toFixed(0) }} g left; hub {{ data.state.hub || 'not known' }}</span
        >
        <span class="ml-auto flex flex-wrap gap-1"
          ><SpoolClock :spool="data.state" /><button type="button" class="button" @click="entering = true">
            Enter something else
          </button></span
        >
      </div>
      <p
        class="mb-3 flex items-start gap-2 text-[17px] font-[680] leading-snug"
        role="status"
        :class="VERDICT_TEXT[mark]"
      >
        <VerdictMark :verdict="mark" :size="20" class="mt-[2px]" />{{ withTimes(spoolSentence(data.state), shop.zone) }}
      </p>
      <p v-if="drying" class="sheet mb-3 flex flex-wrap items-center gap-x-4 px-3 py-1">
        <b>{{ leftWords(minutesLeft(Date.parse(drying.from), drying.plannedH * 60, now)) }}</b> in {{ drying.dryer }} at
        {{ drying.setC }} °C, since {{ when(drying.from, shop.zone) }}, {{ drying.plannedH }} h planned.
        <button type="button" class="button ml-auto" @click="endIt">End it</button>
      </p>
      <div class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-2">
        <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
          <WaterTrace
            v-if="points.length && history?.filament"
            :points="points"
            :clean="history.filament.clean"
            :usual="history.filament.usual"
            :zone="shop.zone"
            :tag="data.state.tag"
          />
          <dl v-if="data.state.water" class="title-block sm:grid-cols-2">
            <div>
              <dt>In the room it usually prints</dt>
              <dd>{{ lasts(data.state.water.inRoom) }}</dd>
            </div>
            <div>
              <dt>In the dry box</dt>
              <dd>{{ lasts(data.state.water.inBox) }}</dd>
            </div>
            <div>
              <dt>Its box</dt>
              <dd>{{ boxWords(data.state.water) }}; {{ boxReading(data.air, shop.zone) }}</dd>
            </div>
            <div>
              <dt>Water now</dt>
              <dd>
                {{ heldWords(data.state.water) }} wound, at most {{ water(data.state.water.strand) }} as a single strand
              </dd>
            </div>
            <div>
              <dt>In room air it would end at</dt>
              <dd>{{ water(data.state.water.soaked) }}</dd>
            </div>
          </dl>
          <section
            v-if="data.state.water && data.state.place !== 'sealed'"
            class="flex flex-wrap items-start gap-3"
            aria-label="Planned print"
          >
            <FieldNumber id="planned" v-model="planned" class="w-[170px]" label="Planned print" unit="h" />
            <p
              v-if="outlook"
              class="flex min-w-0 flex-1 items-start gap-2 pt-6 font-[650]"
              role="status"
              :class="VERDICT_TEXT[outlook.verdict]"
            >
              <VerdictMark :verdict="outlook.verdict" :size="16" />{{ outlook.text }}
            </p>
          </section>
          <section aria-labelledby="log" class="order-last">
            <header class="mb-1 flex flex-wrap items-baseline gap-x-4">
              <h2 id="log">Log</h2>
              <ListLinks list="spool-events" :by="{ spool: data.state.tag }" />
            </header>
            <ul>
              <li
                v-for="e in log"
                :key="e.key"
                class="flex flex-wrap items-center gap-x-3 border-t border-rule py-[2px]"
              >
                <span class="w-[110px] text-ink2">{{ when(e.at, shop.zone) }}</span><span
                  class="min-w-0 flex-1"
                  :class="e.struck ? 'text-ink2 line-through' : ''"
                  >{{ e.says }}{{ e.note ? `; ${e.note}` : ''
                  }}<span class="text-ink2">{{ e.person ? `, ${e.person}` : '' }}</span></span
                ><span v-if="e.struck" class="text-sm text-ink2">struck out: {{ e.struck }}</span
                ><button v-else type="button" class="button plain" @click="strike(e)">
                  Strike out<span class="sr-only"> {{ e.says }}</span>
                </button>
              </li>
            </ul>
          </section>
        </div>
        <DryPlan
          v-if="state && history?.filament && prepare"
          :page="data"
          :filament="history.filament"
          :state="state"
          :dryers="prepare.dryers"
          :sets="sets"
        />
      </div>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the spool"
    />
    <EndSheet :ending="ending" @close="ending = null" />
    <StrikeSheet :target="striking" @close="striking = null" />
    <SpoolEventSheet :spool="entering && data ? data.state : null" @close="entering = false" />
    <SpoolEventSheet v-if="before" :spool="data?.state ?? null" :again="before" @close="leaveBefore" />
  </div>
</template>
