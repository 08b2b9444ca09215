<script setup lang="ts">
/** Change: which printer is not ready and why, what is due to be swapped, what was done. */
import { computed, ref } from 'vue'
import { notReady } from '#core/schedule'
import { counted, listed } from '#core/words'
import { when } from '#shared/time'
import type { NoteLine, TagLine } from '#shared/answers/change'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import NoteSheet from '~/components/change/NoteSheet.vue'
import ReturnSheet from '~/components/change/ReturnSheet.vue'
import TagSheet from '~/components/change/TagSheet.vue'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import LeadSentence from '~/components/ui/LeadSentence.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useEntryForm } from '~/composables/entry-form'
import { useKeptFocus } from '~/composables/kept-focus'
import { useShop } from '~/state/shop'
import { useUi } from '~/state/ui'

useHead({ title: 'Change · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const ui = useUi()
const { data, failure } = useAnswer('/api/change', { everyMs: 30_000 })
useKeptFocus()

/** The printer that was asked for first, then those that are not ready, then those with a nozzle that is due. */
const rows = computed(() => {
  const asked = (name: string) => (route.query.printer === name ? 0 : 1)
  return (data.value?.printers ?? [])
    .map(p => {
      const against = notReady(p.name, p.standing)
      const due = p.heads.filter(h => h.due !== null)
      const mark = against[0]?.mark ?? (due.length > 0 ? ('look' as const) : ('fine' as const))
      return { ...p, against, due, mark, order: { stop: 0, look: 1, fine: 2 }[mark] }
    })
    .sort((a, b) => asked(a.name) - asked(b.name) || a.order - b.order || a.id - b.id)
})
const lead = computed(() => {
  const stopped = rows.value.filter(r => r.against.some(a => a.stops)).map(r => r.name)
  const due = rows.value.flatMap(r => r.due.map(h => h.nozzle ?? `a nozzle for ${h.place}`))
  if (stopped.length > 0) {
    const names = stopped.length > 4 ? counted(stopped.length, 'printer') : listed(stopped, 'and')
    return { mark: 'stop' as const, text: `${names} ${stopped.length === 1 ? 'is' : 'are'} not ready.` }
  }
  if (due.length > 0)
    return {
      mark: 'look' as const,
      text: `Due to be changed: ${due.length > 4 ? counted(due.length, 'nozzle') : listed(due, 'and')}.`,
    }
  return {
    mark: 'fine' as const,
    text: 'Nothing is under way, no printer is out of service, and no nozzle is due to be changed.',
  }
})
const putWords = (h: { nozzle: string | null; hotend: string | null }) => {
  if (h.hotend === null) return 'Put one on'
  return h.nozzle ? 'Swap it' : 'Put one in'
}
const tagsOf = (id: number) => (data.value?.tags ?? []).filter(t => t.printerId === id && !t.back && t.struck === null)
const notesOf = (id: number) =>
  (data.value?.notes ?? []).filter(n => n.printerId === id && !n.read && n.struck === null)
const tagging = ref<{ id: number; name: string } | null>(null)
const noting = ref<{ id: number; name: string } | null>(null)
const returning = ref<TagLine | null>(null)
const striking = ref<{ target: 'out of service' | 'shift note'; id: number; says: string } | null>(null)

const form = useEntryForm('/api/endings')
const signed = ref<number | null>(null)
async function sign(n: NoteLine): Promise<void> {
  signed.value = n.id
  const body = { target: 'shift note', targetId: n.id, occurredAt: new Date().toISOString() }
  const done = await form.send(body, `Note on ${n.printer} read`)
  if (done !== null && done !== 'queued') ui.say(`${n.printer}: read and signed by ${shop.data?.person.name ?? 'you'}.`)
}
const OUTCOME = { 'done': 'ready', 'stopped early': 'stopped' } as const
/** What was done lately, newest first. */
const past = computed(() => {
  const d = data.value
  if (!d) return []
  const procedures = d.procedures
    .filter(p => p.ended !== null || p.struck !== null)
    .map(p => ({
      key: `p${p.id}`,
      at: p.ended?.at ?? p.begunAt,
      text: p.title,
      how: p.struck !== null ? `struck out: ${p.struck}` : OUTCOME[p.ended!.outcome],
      by: p.ended?.by ?? p.by,
      to: `/change/${p.id}` as string | null,
    }))
  const tags = d.tags
    .filter(t => t.back !== null || t.struck !== null)
    .map(t => ({
      key: `t${t.id}`,
      at: t.back?.at ?? t.at,
      text: `${t.printer} was out of service: ${t.why}`,
      how: t.struck ?? (t.back!.proved.map(p => `${p.what}: ${p.how}`).join('; ') || t.back!.note),
      by: t.back?.by ?? t.by,
      to: null,
    }))
  const notes = d.notes
    .filter(n => n.read !== null || n.struck !== null)
    .map(n => ({
      key: `n${n.id}`,
      at: n.read?.at ?? n.at,
      text: `${n.printer}: ${n.says} (${n.by})`,
      how: n.struck !== null ? `struck out: ${n.struck}` : 'read and signed',
      by: n.read?.by ?? n.by,
      to: null,
    }))
  return [...procedures, ...tags, ...notes].sort((a, b) => (a.at < b.at ? 1 : -1)).slice(0, 30)
})
</script>

<template>
  <div>
    <ChangeTabs :failure="failure" />
    <EmptyShop v-if="data && data.printers.length === 0" />
    <template v-else-if="data">
      <LeadSentence :lead="lead" />
      <ul class="sheet" aria-label="Printers" data-list>
        <li
          v-for="p in rows"
          :key="p.id"
          class="border-t border-rule px-3 py-2 first:border-t-0 md:px-4"
          :data-printer="p.name"
        >
          <div class="flex flex-wrap items-center gap-x-3 gap-y-1">
            <h2 class="flex min-w-[108px] items-center gap-2">
              <VerdictMark v-if="p.mark !== 'fine'" :verdict="p.mark" :size="20" />{{ p.name }}
            </h2>
            <ul class="flex flex-wrap gap-x-6">
              <li v-for="h in p.heads" :key="h.id" class="flex flex-wrap items-center gap-x-3">
                <span class="font-semibold"
                  >{{ p.heads.length > 1 ? `${h.name}: ` : '' }}{{ h.nozzle ?? 'no nozzle' }}</span
                >
                <span v-if="h.due" class="flex items-center gap-1 text-look"
                  ><VerdictMark verdict="look" :size="16" />{{ h.due }}</span
                >
                <NuxtLink
                  v-if="p.standing.procedures.length === 0"
                  :to="`/change/${h.hotend ? 'swap' : 'hotend'}?head=${h.id}`"
                  class="act"
                  >{{ putWords(h) }}<span class="sr-only"> on {{ h.place }}</span></NuxtLink
                >
              </li>
            </ul>
            <div class="ml-auto flex flex-wrap gap-1">
              <NuxtLink
                v-if="p.standing.toCommission && p.standing.procedures.length === 0"
                :to="`/change/commission?printer=${encodeURIComponent(p.name)}`"
                class="button first"
                >Commission it<span class="sr-only">: {{ p.name }}</span></NuxtLink
              >
              <button type="button" class="button" @click="noting = { id: p.id, name: p.name }">
                Leave a note<span class="sr-only"> on {{ p.name }}</span>
              </button>
              <button type="button" class="button" @click="tagging = { id: p.id, name: p.name }">
                Out of service<span class="sr-only">: {{ p.name }}</span>
              </button>
            </div>
          </div>
          <div v-for="t in tagsOf(p.id)" :key="`t${t.id}`" class="mt-2 border-l-4 border-stop pl-3">
            <p class="font-[650] text-stop">Out of service: {{ t.why }}</p>
            <p class="text-sm text-ink2">{{ t.by }}, {{ when(t.at, shop.zone) }}</p>
            <ul v-if="t.must.length > 0" class="ml-5 list-disc text-sm">
              <li v-for="m in t.must" :key="m">to be proved: {{ m }}</li>
            </ul>
            <div class="flex flex-wrap gap-2">
              <button type="button" class="button first" @click="returning = t">Prove it and put it back</button>
              <button
                type="button"
                class="button plain"
                @click="striking = { target: 'out of service', id: t.id, says: `The tag on ${p.name}` }"
              >
                Strike out
              </button>
            </div>
          </div>
          <div
            v-for="x in p.standing.procedures"
            :key="`p${x.id}`"
            class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 border-l-4 border-stop pl-3"
          >
            <div class="min-w-0">
              <p class="font-[650] text-stop">{{ x.title }}: {{ x.done }} of {{ x.of }} steps done</p>
              <p class="text-sm text-ink2">last by {{ x.by }}</p>
            </div>
            <NuxtLink :to="`/change/${x.id}`" class="button first">Go on with it</NuxtLink>
          </div>
          <div v-for="n in notesOf(p.id)" :key="`n${n.id}`" class="mt-2 border-l-4 border-look pl-3">
            <p class="font-[650]">“{{ n.says }}”</p>
            <p class="text-sm text-ink2">{{ n.by }}, {{ when(n.at, shop.zone) }}</p>
            <p v-if="signed === n.id && form.errors.value.targetId" class="font-semibold text-stop" role="alert">
              {{ form.errors.value.targetId }}
            </p>
            <div class="flex flex-wrap gap-2">
              <button type="button" class="button" :disabled="form.busy.value" @click="sign(n)">
                I have read it<span class="sr-only">: note on {{ p.name }}</span>
              </button>
              <button
                type="button"
                class="button plain"
                @click="striking = { target: 'shift note', id: n.id, says: `The note on ${p.name}` }"
              >
                Strike out
              </button>
            </div>
          </div>
        </li>
      </ul>
      <section v-if="past.length > 0" class="mt-5" aria-labelledby="past-title">
        <h2 id="past-title" class="border-b-2 border-ink pb-1">Lately</h2>
        <ul>
          <li
            v-for="x in past"
            :key="x.key"
            class="grid gap-x-4 border-b border-rule py-2 md:grid-cols-[170px_minmax(0,1fr)_minmax(0,1fr)]"
          >
            <span class="text-sm text-ink2">{{ when(x.at, shop.zone) }}, {{ x.by }}</span>
            <NuxtLink v-if="x.to" :to="x.to" class="underline underline-offset-[3px]">{{ x.text }}</NuxtLink><span
              v-else
              >{{ x.text }}</span
            >
            <span class="text-sm">{{ x.how }}</span>
          </li>
        </ul>
      </section>
      <TagSheet v-if="tagging" :printer="tagging" @close="tagging = null" />
      <NoteSheet v-if="noting" :printer="noting" @close="noting = null" />
      <ReturnSheet v-if="returning" :of="returning" @close="returning = null" />
      <StrikeSheet :target="striking" @close="striking = null" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading what is under way"
    />
  </div>
</template>
