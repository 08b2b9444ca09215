<script setup lang="ts">
/** What worked with a material: a card for each type of nozzle and printer, from its runs and by hand. */
import { computed, shallowRef } from 'vue'
import { CARD_FIELDS, recordOf, valueWords } from '#core/cards'
import { capital } from '#core/words'
import type { Card } from '#shared/answers/cards'
import { day } from '#shared/time'
import type { OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useShop } from '~/state/shop'
import { bondWords, CARD_FORM, EMPTY_CARD, howWords, triedWords } from '~/words/cards'

const props = defineProps<{ materialId: number; material: string }>()
const shop = useShop()
const { data, failure } = useAnswer('/api/cards/{id}', { params: () => ({ id: props.materialId }) })
const cards = computed(() => (data.value ?? []).filter(c => c.materialId === props.materialId))
const open = shallowRef<OpenRecord | null>(null)
const nameOf = (c: Pick<Card, 'printer' | 'type'>) => `${c.printer}, ${c.type}`
const markOf = (c: Card) =>
  (({ 'works': 'fine', 'mostly fails': 'look', 'nothing tried': null }) as const)[recordOf(c.good, c.failed)]
const inner = ({ materialId, typeId, printerId, ...card }: Record<string, unknown>) => ({
  materialId,
  typeId,
  printerId,
  card,
})
function write(c: Card): void {
  const start = { ...EMPTY_CARD, ...c.hand?.values }
  open.value = c.hand
    ? {
        title: `What worked: ${nameOf(c)}`,
        fields: CARD_FORM,
        start: {
          ...start,
          bondAlongN: c.hand.bondAlongN,
          bondAcrossN: c.hand.bondAcrossN,
          adhesive: c.hand.adhesive,
          outcome: c.hand.outcome,
          note: c.hand.note,
        },
        says: () => `Card of ${props.material} on ${nameOf(c)}`,
        edit: { kind: 'cards', id: c.hand.id, version: c.hand.version },
      }
    : {
        title: `What worked: ${nameOf(c)}`,
        fields: CARD_FORM,
        start: { ...start, materialId: c.materialId, typeId: c.typeId, printerId: c.printerId },
        body: inner,
        says: () => `Card of ${props.material} on ${nameOf(c)}`,
        route: '/api/cards',
      }
}
/** One for a printer and a type that nothing was printed with yet. */
function another(): void {
  const types = shop.data?.types ?? []
  const printers = shop.data?.printers ?? []
  open.value = {
    title: `Another card for ${props.material}`,
    fields: [
      {
        key: 'printerId',
        label: 'Printer',
        kind: 'select',
        options: printers.map(p => ({ value: p.id, text: p.name })),
      },
      { key: 'typeId', label: 'Nozzle', kind: 'select', options: types.map(t => ({ value: t.id, text: t.name })) },
      ...CARD_FORM,
    ],
    start: {
      ...EMPTY_CARD,
      materialId: props.materialId,
      printerId: printers[0]?.id ?? null,
      typeId: types[0]?.id ?? null,
    },
    body: inner,
    says: () => `Card of ${props.material}`,
    route: '/api/cards',
  }
}
</script>

<template>
  <section id="worked" aria-labelledby="worked-title">
    <div class="mb-1 flex flex-wrap items-center gap-3">
      <h2 id="worked-title">What worked</h2>
      <button type="button" class="button no-print" :disabled="!shop.data" @click="another">Add a card</button>
    </div>
    <p v-if="failure" class="font-semibold text-look" role="status">{{ failure }}</p>
    <p v-if="data && cards.length === 0" class="text-sm text-ink2">
      {{ material }} has not been printed yet: its first finished run begins a card, or write one.
    </p>
    <div class="grid gap-3 md:grid-cols-2 2xl:grid-cols-3">
      <article v-for="c in cards" :key="`${c.printerId} ${c.typeId}`" class="sheet p-3">
        <header class="flex flex-wrap items-baseline gap-x-3">
          <h3 class="font-[680]">{{ nameOf(c) }}</h3>
          <button type="button" class="button plain no-print ml-auto" @click="write(c)">
            {{ c.hand ? 'Edit' : 'Write on it' }}<span class="sr-only"> the card of {{ nameOf(c) }}</span>
          </button>
        </header>
        <p class="flex flex-wrap items-center gap-x-2 text-sm font-semibold">
          <VerdictMark v-if="markOf(c)" :verdict="markOf(c)!" :size="14" />{{ triedWords(c) }}
          <span v-if="c.lastAt" class="font-normal text-ink2">last {{ day(c.lastAt, shop.zone) }}</span>
        </p>
        <dl class="mt-1 grid grid-cols-[auto_1fr] gap-x-3 text-sm">
          <template v-for="v in c.values" :key="v.key">
            <dt class="text-ink2">{{ CARD_FIELDS[v.key].label }}</dt>
            <dd>
              <b>{{ valueWords(v.key, v.value) }}</b><span v-if="howWords(v)" class="ml-2 text-ink2">{{
                howWords(v)
              }}</span>
            </dd>
          </template>
          <template v-if="c.hand?.adhesive">
            <dt class="text-ink2">Sheet and adhesive</dt>
            <dd>{{ c.hand.adhesive }}</dd>
          </template>
          <template v-if="c.hand && bondWords(c.hand)">
            <dt class="text-ink2">Layer bond</dt>
            <dd>{{ bondWords(c.hand) }}</dd>
          </template>
        </dl>
        <p v-if="c.hand" class="mt-1 text-sm">
          {{ [c.hand.outcome, c.hand.note].filter(Boolean).map(capital).join('. ')
          }}<span class="ml-2 text-ink2">{{ c.hand.person }}</span>
        </p>
      </article>
    </div>
    <RecordSheet :open="open" wide @close="open = null" />
  </section>
</template>
