<script setup lang="ts">
/** Before a swap: on which head, which nozzle to take, how it would go; and why its nozzle may not be turned. */
import { computed } from 'vue'
import { swapSteps } from '#core/procedures'
import BeginProcedure from '~/components/change/BeginProcedure.vue'
import OfferFrame from '~/components/change/OfferFrame.vue'
import PickList from '~/components/change/PickList.vue'
import { useAnswer } from '~/composables/answer'
import { useHeadChoice } from '~/composables/head-choice'
import { heldUp } from '~/lib/offer'
import { useShop } from '~/state/shop'

useHead({ title: 'Swap a nozzle · Iron Nozzle' })
const shop = useShop()
const { headId, takenId: nozzleId, heads } = useHeadChoice('nozzle')
const { data: offer, failure } = useAnswer('/api/swaps/{id}', {
  params: () => (headId.value === null ? null : { id: headId.value }),
})
/** Of this head, not of the one that was asked about before. */
const now = computed(() => (offer.value?.headId === headId.value ? offer.value : null))
const chosen = computed(
  () => now.value?.choices.find(c => c.nozzle.id === nozzleId.value) ?? now.value?.choices[0] ?? null,
)
const facts = computed(() => chosen.value?.facts ?? null)
const steps = computed(() => (facts.value ? swapSteps(facts.value) : []))
const items = computed(() =>
  (now.value?.choices ?? []).map(c => ({
    id: Number(c.nozzle.id),
    good: c.good,
    tag: c.nozzle.tag,
    words: `${c.facts?.fresh.words ?? `${c.nozzle.material} ${c.nozzle.boreMm}`} mm`,
    says: c.says.join(' '),
  })),
)
/** What leads to a hotend is said where the hotend is. */
const framed = computed(() => {
  const o = now.value
  const twice = o?.hotend && o.refusal?.where?.startsWith('/change/hotend')
  return o && twice ? { ...o, refusal: { ...o.refusal!, where: null } } : o
})
const lead = computed(() => {
  const o = now.value
  if (!o) return null
  const held = heldUp(o)
  if (held) return held
  if (o.choices.length === 0) return { mark: 'stop' as const, text: 'No nozzle is on the shelf.' }
  const c = chosen.value!
  const wanted = nozzleId.value === null ? null : shop.data?.nozzles.find(n => n.id === nozzleId.value)
  if (wanted && c.nozzle.id !== wanted.id)
    return {
      mark: 'look' as const,
      text: `${wanted.tag} is not on the shelf, or suits this head less than all that are listed.`,
    }
  const off = o.old ? `${o.old.tag} comes off` : 'The head is empty'
  const turn = facts.value ? `, turned at ${facts.value.turn.setC} °C` : ''
  return {
    mark: c.good ? ('fine' as const) : ('look' as const),
    text: `${off}${turn}; take ${c.nozzle.tag}, ${facts.value?.fresh.words ?? ''}. ${c.says[0] ?? ''}`,
  }
})
</script>

<template>
  <OfferFrame
    v-model="headId"
    :failure="failure"
    :heads="heads"
    :offer="framed"
    :lead="lead"
    take="Which nozzle to take"
    :none="now?.choices.length === 0 ? { to: '/stores?add=nozzle', text: 'Add a nozzle in Stores' } : null"
    :steps="steps.length"
    choose="Choose the head whose nozzle is to be changed."
  >
    <template #beside>
      <p v-if="now?.hotend" class="mb-3 border-l-4 border-ink bg-sheet py-2 pl-3">
        <b>{{ now.hotend.tag }}</b> is on the shelf, wired ready with {{ now.hotend.nozzle?.tag }}:
        {{ now.hotend.nozzle?.words }} mm. {{ now.hotend.says }} About {{ now.hotend.minutes }} min in all.
        <NuxtLink
          :to="`/change/hotend?head=${headId}&hotend=${now.hotend.id}`"
          class="button mt-2 flex w-fit"
          :class="now.refusal ? 'first' : ''"
          >Change the whole hotend</NuxtLink
        >
      </p>
    </template>
    <template #shelf>
      <PickList
        name="swap-nozzle"
        :items="items"
        :model-value="Number(chosen?.nozzle.id)"
        @update:model-value="id => (nozzleId = id)"
      />
    </template>
    <template #how>
      <template v-if="facts && now">
        <dl class="sheet grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1 px-3 py-2">
          <dt class="font-semibold">Turn at</dt>
          <dd class="m-0">
            <b>{{ facts.turn.setC }} °C</b>, set at the printer{{
              facts.turn.material ? `: ${facts.turn.material} went through` : ': nothing tells what went through'
            }}
          </dd>
          <dt class="font-semibold">Torque</dt>
          <dd class="m-0">
            at most <b>{{ facts.torque.newtonMetre.toFixed(1) }} N·m</b> hot, by the
            {{ facts.torque.by === 'maker' ? "maker's value" : facts.torque.by }}
          </dd>
          <template v-if="facts.resnug">
            <dt class="font-semibold">Snug again at</dt>
            <dd class="m-0">
              <b>{{ facts.resnug.setC }} °C</b>, for {{ facts.resnug.job }}
            </dd>
          </template>
          <dt class="font-semibold">In the hotend</dt>
          <dd class="m-0">{{ facts.holds ?? 'not logged' }}</dd>
        </dl>
        <BeginProcedure
          :steps="steps"
          :printer="now.printer"
          action="Begin the swap"
          :body="{ kind: 'swap', headId, nozzleId: chosen!.nozzle.id }"
          :says="`Swap on ${now.place}: ${chosen!.nozzle.tag} in`"
          already="A swap that is done already is logged in Stores."
        />
      </template>
    </template>
  </OfferFrame>
</template>
