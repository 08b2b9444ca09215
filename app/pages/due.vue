<script setup lang="ts">
/** What is due: one list over every station, by how pressing, printer, person or day; morning sheet and week. */
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { mayBePutOff } from '#core/schedule'
import { counted } from '#core/words'
import type { DueItem } from '#shared/answers/due'
import { day, when } from '#shared/time'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import CalendarSheet from '~/components/floor/CalendarSheet.vue'
import SnoozeSheet from '~/components/floor/SnoozeSheet.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import LeadSentence from '~/components/ui/LeadSentence.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useKeptFocus } from '~/composables/kept-focus'
import { DUE_BY, dueGroups, type DueBy } from '~/lib/due'
import { useDue } from '~/state/due'
import { useShop } from '~/state/shop'

useHead({ title: 'What is due · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
const shop = useShop()
const { data, failure } = useAnswer('/api/due', { everyMs: 60_000 })
const rail = useDue()
watch(data, d => d && rail.take(d))
onMounted(() => (rail.followed = true))
onBeforeUnmount(() => (rail.followed = false))
useKeptFocus()

const asked = DUE_BY.find(b => b === route.query.by)
const by = ref<DueBy>(asked ?? 'weight')
watch(by, b => void router.replace({ query: { ...route.query, by: b === 'weight' ? undefined : b } }))
const BY_TEXT: Record<DueBy, string> = { weight: 'Most pressing', printer: 'Printer', person: 'Person', day: 'Day' }

/** On paper: what is due now by printer, or the week by day. */
const sheet = ref<'morning' | 'week' | null>(null)
const WEEK_MS = 7 * 86_400_000
const standing = computed(() => (data.value?.items ?? []).filter(i => i.snoozed === null))
const shown = computed(() => {
  if (sheet.value === 'morning') return standing.value.filter(i => i.on === null)
  if (sheet.value === 'week')
    return standing.value.filter(i => i.on === null || Date.parse(i.on) < Date.now() + WEEK_MS)
  return standing.value
})
const ON_PAPER = { morning: 'printer', week: 'day' } as const
const grouping = computed<DueBy>(() => (sheet.value === null ? by.value : ON_PAPER[sheet.value]))
const groups = computed(() => dueGroups(shown.value, grouping.value, at => day(at, shop.zone)))
const putOff = computed(() => (data.value?.items ?? []).filter(i => i.snoozed !== null))
const lead = computed(() => {
  const now = standing.value.filter(i => i.on === null && i.mark !== 'fine')
  const stops = now.filter(i => i.mark === 'stop')
  const first = now[0]
  if (!first) return { mark: 'fine' as const, text: 'Nothing is due.' }
  const about = first.printer ?? first.about
  const what = `${about === null ? '' : `${about}: `}${first.reason} ${first.action}.`
  const count =
    stops.length > 0
      ? `${counted(stops.length, 'thing')} of ${now.length} due must not wait. `
      : `${counted(now.length, 'thing')} due. `
  return { mark: first.mark, text: count + what }
})
async function print(what: 'morning' | 'week'): Promise<void> {
  sheet.value = what
  await nextTick()
  window.print()
  sheet.value = null
}
/** What a line is about, without what its group says already. */
const head = (i: DueItem) =>
  [grouping.value === 'printer' ? null : (i.printer ?? 'The shop'), i.about].filter(Boolean).join(' · ')
/** Also where the printer heads the group. */
const named = (i: DueItem) => head(i) || (i.printer ?? 'The shop')
const snoozing = ref<DueItem | null>(null)
const calendar = ref(false)
const striking = ref<{ target: 'snooze'; id: number; says: string } | null>(null)
const TITLE = { morning: 'Morning sheet', week: "The week's sheet" } as const
</script>

<template>
  <div>
    <div class="mb-2 flex flex-wrap items-baseline gap-x-4">
      <h1>{{ sheet ? TITLE[sheet] : 'What is due' }}</h1>
      <NuxtLink to="/" class="act no-print">Floor</NuxtLink>
    </div>
    <p v-if="failure" class="mb-2 font-semibold text-look" role="status">{{ failure }}</p>
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else-if="data">
      <LeadSentence :lead="lead" />
      <p class="no-print mb-2 text-sm text-ink2">
        Of 100: what being due is worth, and the chance that it goes wrong times what that costs.
      </p>
      <div class="no-print mb-3 flex flex-wrap items-center gap-2">
        <ChoiceButtons
          v-model="by"
          label="In which order"
          :options="DUE_BY.map(value => ({ value, text: BY_TEXT[value] }))"
        />
        <div class="ml-auto flex flex-wrap gap-1">
          <button type="button" class="button" @click="print('morning')">Print the morning sheet</button>
          <button type="button" class="button" @click="print('week')">Print the week</button>
          <button type="button" class="button plain" @click="calendar = true">Calendar</button>
        </div>
      </div>
      <section v-for="g in groups" :key="g.name" class="mb-4 break-inside-avoid-page" :aria-label="g.name">
        <h2 class="border-b-2 border-ink pb-1">
          {{ g.name }} <span class="text-sm font-semibold text-ink2">{{ g.items.length }}</span>
        </h2>
        <ul data-list>
          <li
            v-for="i in g.items"
            :key="i.key"
            class="grid grid-cols-[22px_minmax(0,1fr)] items-start gap-x-2 gap-y-1 border-b border-rule py-2 md:grid-cols-[22px_minmax(0,1fr)_fit-content(55%)] md:items-center"
          >
            <span class="hidden print:block" aria-hidden="true">☐</span>
            <VerdictMark :verdict="i.mark" :size="18" class="mt-[2px] print:hidden" />
            <div class="min-w-0">
              <p v-if="head(i) || i.on || i.person">
                <b>{{ head(i) }}</b>
                <span v-if="i.on" class="ml-2 text-sm text-ink2">{{ day(i.on, shop.zone) }}</span>
                <span v-if="i.person" class="ml-2 text-sm text-ink2">{{ i.person }}</span>
              </p>
              <p>
                {{ i.reason }} <span class="hidden font-semibold print:inline">{{ i.action }}.</span>
                <span v-if="i.mark !== 'fine'" class="text-xs text-ink2">{{ Math.round(i.weight) }} of 100</span>
              </p>
            </div>
            <div class="no-print col-start-2 flex flex-wrap items-center gap-x-3 md:col-start-auto md:justify-end">
              <NuxtLink :to="i.open" class="button py-[6px] text-left whitespace-normal">{{ i.action }}</NuxtLink>
              <button v-if="mayBePutOff(i) && i.on === null" type="button" class="button plain" @click="snoozing = i">
                Put it off<span class="sr-only">: {{ named(i) }}, {{ i.action }}</span>
              </button>
            </div>
          </li>
        </ul>
      </section>
      <section v-if="putOff.length > 0 && sheet === null" class="mt-5" aria-labelledby="put-off">
        <h2 id="put-off" class="border-b-2 border-ink pb-1">Put off</h2>
        <ul>
          <li v-for="i in putOff" :key="i.key" class="flex flex-wrap items-center gap-x-4 border-b border-rule py-1">
            <span
              ><b>{{ i.printer ?? 'The shop' }}</b
              >: {{ i.reason }}</span
            >
            <span class="text-sm">until {{ when(i.snoozed!.until, shop.zone) }}: {{ i.snoozed!.reason }}</span>
            <span class="text-sm text-ink2">{{ i.snoozed!.by }}</span>
            <button
              type="button"
              class="button plain ml-auto"
              @click="striking = { target: 'snooze', id: i.snoozed!.id, says: `What was put off: ${i.action}` }"
            >
              Due again<span class="sr-only">: {{ named(i) }}, {{ i.action }}</span>
            </button>
          </li>
        </ul>
      </section>
      <SnoozeSheet v-if="snoozing" :item="snoozing" @close="snoozing = null" />
      <CalendarSheet v-if="calendar" :feeds="data.feeds" @close="calendar = false" />
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading what is due"
    />
  </div>
</template>
