<script setup lang="ts">
/** What is wrong with a print: opened with what is seen, settled by a test, closed with what it was. */
import { computed, ref } from 'vue'
import { testsThatSpeakFor, type Sign } from '#core/diagnosis'
import { day, when } from '#shared/time'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import CaseCloseSheet from '~/components/inspect/CaseCloseSheet.vue'
import CaseKnown from '~/components/inspect/CaseKnown.vue'
import CaseLooks from '~/components/inspect/CaseLooks.vue'
import CaseNext from '~/components/inspect/CaseNext.vue'
import CaseSheet, { type CaseFrom } from '~/components/inspect/CaseSheet.vue'
import CaseWay from '~/components/inspect/CaseWay.vue'
import InspectTabs from '~/components/inspect/InspectTabs.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useAskedFor } from '~/composables/asked-for'
import { useEntryForm } from '~/composables/entry-form'
import { evidenceOfCase, isOpenCase, piecesOf, readCase } from '~/lib/case'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'
import { caseSentence, caseStand, caseTitle, knownWords, reviewWords, saidWords } from '~/words/case'

useHead({ title: 'What is wrong · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
const shop = useShop()
const ui = useUi()
const { data: list, failure } = useAnswer('/api/cases')
const asked = computed(() => (route.query.case ? Number(route.query.case) : null))
/** The one that was asked for, or the first: open ones stand first. */
const id = computed(() => asked.value ?? list.value?.cases[0]?.id ?? null)
const { data: read, failure: pageFailure } = useAnswer('/api/cases/{id}', {
  params: () => (id.value === null ? null : { id: id.value }),
})
const page = computed(() => (read.value?.id === id.value ? read.value : null))
const now = computed(() => (page.value ? readCase(page.value) : null))
/** Of a closed case what was said then; of an open one what can be said now. */
const answer = computed(() => page.value?.answer ?? now.value?.answer ?? null)
const pieces = computed(() => (page.value ? piecesOf(page.value) : []))
const isOpen = computed(() => page.value !== null && isOpenCase(page.value))
/** What is open is to be looked at; a tick is for what was proved. */
const mark = computed(() => {
  if (page.value?.closing) return page.value.closing.known === 'assumed' ? 'look' : 'fine'
  return 'look'
})
/** Named, and a test speaks for it: nothing is left but to close it. */
const isSettled = computed(() => {
  const cause = answer.value?.cause ?? null
  if (page.value === null || cause === null || !answer.value!.sure) return false
  return testsThatSpeakFor(cause, evidenceOfCase(page.value).tests, page.value.start).length > 0
})
const choose = (to: number) => void router.push({ query: { case: String(to) } })

const number = (q: unknown) => (typeof q === 'string' && /^\d+$/.test(q) ? Number(q) : null)
const opening = ref<CaseFrom | null>(null)
const { forget } = useAskedFor(['head', 'run'], ({ head, run }) => {
  opening.value = { headId: number(head), runId: number(run), afterId: null, seen: [] }
})
const openNew = () => {
  opening.value = { headId: null, runId: null, afterId: null, seen: [] }
}
function goOn(): void {
  const c = page.value!
  opening.value = { headId: c.headId, runId: null, afterId: c.id, seen: c.seen }
}
function opened(to: number | null): void {
  opening.value = null
  if (to !== null) choose(to)
  else forget()
}
const finding = useEntryForm('/api/findings')
async function found(sign: Sign, state: string): Promise<void> {
  const body = { caseId: page.value!.id, kind: 'sign', key: sign, state, occurredAt: new Date().toISOString() }
  const done = await finding.send(body, `${sign}: ${state}`)
  if (done === null) return
  // what was pressed is another question now, or none
  document.getElementById('case-verdict')?.focus({ preventScroll: true })
  if (done !== 'queued') ui.say(`${sign}: ${state}.`)
}
const testing = ref(false)
const closing = ref(false)
const striking = ref<{ target: 'case' | 'finding' | 'closing'; id: number; says: string } | null>(null)
function print(): void {
  window.print()
}
</script>

<template>
  <div>
    <InspectTabs :failure="failure ?? pageFailure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <p v-if="page" class="no-print mb-2 lg:hidden">
      <button type="button" class="button" :disabled="!list || !shop.data" @click="openNew">Open a case</button>
    </p>
    <div
      v-if="shop.data === null || shop.data.printers.length > 0"
      class="grid grid-cols-[minmax(0,1fr)] items-start gap-[14px] lg:grid-cols-[minmax(0,1fr)_300px] print:block"
    >
      <article v-if="page && now && answer" class="grid grid-cols-[minmax(0,1fr)] gap-4">
        <header class="flex flex-wrap items-baseline gap-x-3">
          <h2 :class="page.struck ? 'line-through' : ''">{{ caseTitle(page) }}</h2>
          <span class="text-sm text-ink2"
            ><template v-if="page.run">{{ page.run.name }}, {{ when(page.run.at, shop.zone) }}; </template
            ><NuxtLink v-if="page.nozzle" :to="`/inspect/${page.nozzle}`" class="act">{{ page.nozzle }}</NuxtLink
            >{{ page.material ? `, ${page.material}` : ''
            }}<template v-if="page.spool"
              >, <NuxtLink :to="`/prepare/spool/${page.spool}`" class="act">{{ page.spool }}</NuxtLink></template
            >; opened {{ day(page.at, shop.zone) }} by {{ page.person }}{{ page.note ? `; ${page.note}` : '' }}</span
          >
          <span class="no-print ml-auto flex flex-wrap gap-2">
            <button type="button" class="button plain" @click="print">Print</button>
            <button
              v-if="!page.struck"
              type="button"
              class="button plain"
              @click="striking = { target: 'case', id: page.id, says: 'The case' }"
            >
              Strike out<span class="sr-only"> the case</span>
            </button>
          </span>
        </header>
        <p
          id="case-verdict"
          tabindex="-1"
          class="flex items-start gap-2 text-[20px] leading-tight font-bold [font-stretch:88%]"
          role="status"
        >
          <VerdictMark v-if="!page.struck" :verdict="mark" :size="20" class="mt-[2px]" />{{ caseSentence(page) }}
        </p>
        <div v-if="page.closing" class="grid gap-2">
          <p>
            {{ page.closing.how }}. Closed {{ day(page.closing.at, shop.zone) }} by {{ page.closing.person }},
            {{ knownWords(page.closing.known) }}.
          </p>
          <p class="text-sm text-ink2">{{ saidWords(page) }}</p>
          <p class="no-print flex flex-wrap gap-2">
            <NuxtLink v-if="page.nextId !== null" :to="`/inspect/wrong?case=${page.nextId}`" class="act"
              >It still showed: the case that follows</NuxtLink
            ><button v-else-if="!page.struck" type="button" class="button" @click="goOn">It still shows: go on</button
            ><button
              v-if="!page.struck"
              type="button"
              class="button plain"
              @click="striking = { target: 'closing', id: page.closing.id, says: 'How the case was closed' }"
            >
              Strike out how it was closed
            </button>
          </p>
        </div>
        <p v-if="page.afterId !== null" class="text-sm">
          Put right before: {{ page.right.length > 0 ? page.right.join(', ') : 'nothing that stands' }}.
          <NuxtLink :to="`/inspect/wrong?case=${page.afterId}`" class="act no-print">The case before</NuxtLink>
        </p>
        <p v-for="k in page.struckClosings" :key="k.id" class="text-sm text-ink2">
          <s>Closed: {{ k.cause }}, {{ k.known }} ({{ k.how }})</s> struck out by {{ k.struck!.person }}:
          {{ k.struck!.reason }}
        </p>
        <div
          v-if="isOpen"
          class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 print:hidden"
          :class="testing ? '' : 'lg:grid-cols-2'"
        >
          <CaseNext :on="page" :tests="now.tests" :is-settled="isSettled" @testing="is => (testing = is)" />
          <div class="grid gap-3">
            <CaseLooks :looks="now.looks" :busy="finding.busy.value" @found="found" />
            <div>
              <button type="button" class="button" :class="isSettled ? 'first' : ''" @click="closing = true">
                Say what it was
              </button>
              <NuxtLink
                v-if="answer.cause === 'partial clog'"
                :to="`/change/clog?head=${page.headId}`"
                class="button ml-2"
                >Clear it, step by step</NuxtLink
              >
            </div>
          </div>
        </div>
        <p v-for="e in Object.values(finding.errors.value)" :key="e" class="font-semibold text-stop" role="alert">
          {{ e }}
        </p>
        <CaseWay :key="page.id" :answer="answer" :way="now.way" :start="page.start" :pieces="pieces" />
        <figure v-if="page.picture" class="m-0">
          <img
            :src="`/api/pictures/${page.picture}`"
            :alt="`The print: ${page.seen.join(', ')}`"
            class="max-h-[320px] w-auto max-w-full border border-ink"
          />
          <figcaption class="text-sm text-ink2">Taken when the case was opened</figcaption>
        </figure>
        <CaseKnown
          :on="page"
          :can-change="isOpen"
          :busy="finding.busy.value"
          @found="found"
          @strike="(target, says) => (striking = { target: 'finding', id: target, says })"
        />
      </article>
      <section class="no-print grid gap-3" :class="page ? '' : 'max-w-[560px]'" aria-label="Cases">
        <p v-if="list?.cases.length === 0">
          No case yet. Something is wrong with a print? Say what it shows: the records of the shop are read for you, and
          the test that settles most per minute is named.
        </p>
        <div :class="page ? 'hidden lg:block' : ''">
          <button
            type="button"
            class="button"
            :class="isOpen ? '' : 'first'"
            :disabled="!list || !shop.data"
            @click="openNew"
          >
            Open a case
          </button>
        </div>
        <p v-if="list" class="text-sm text-ink2">{{ reviewWords(list.review) }}</p>
        <ul class="grid gap-2">
          <li v-for="c in list?.cases ?? []" :key="c.id">
            <button
              type="button"
              class="sheet w-full p-3 text-left"
              :class="c.id === id ? 'border-2 border-ink' : ''"
              :aria-current="c.id === id ? 'true' : undefined"
              @click="choose(c.id)"
            >
              <b :class="c.struck ? 'line-through' : ''">{{ caseTitle(c) }}</b><span class="block text-sm text-ink2"
                >{{ day(c.at, shop.zone) }}, {{ caseStand(c) }}</span
              >
            </button>
          </li>
        </ul>
      </section>
    </div>
    <CaseSheet v-if="list" :on="opening" :heads="list.heads" @close="opened" />
    <CaseCloseSheet
      :on="closing ? page : null"
      :order="answer?.order.map(o => o.cause) ?? []"
      @close="closing = false"
    />
    <StrikeSheet :target="striking" @close="striking = null" />
  </div>
</template>
