<script setup lang="ts">
/** Before a hotend is changed: on which head, which one to take, what has to match, how it would go. */
import { computed } from 'vue'
import { hotendSteps, matchWords } from '#core/procedures'
import BeginProcedure from '~/components/change/BeginProcedure.vue'
import OfferFrame from '~/components/change/OfferFrame.vue'
import PickList from '~/components/change/PickList.vue'
import { useAnswer } from '~/composables/answer'
import { useHeadChoice } from '~/composables/head-choice'
import { heldUp } from '~/lib/offer'

useHead({ title: 'Change a hotend · Iron Nozzle' })
const { headId, takenId: hotendId, heads } = useHeadChoice('hotend')
const { data: offer, failure } = useAnswer('/api/hotend-swaps/{id}', {
  params: () => (headId.value === null ? null : { id: headId.value }),
})
/** Of this head, not of the one that was asked about before. */
const now = computed(() => (offer.value?.headId === headId.value ? offer.value : null))
const chosen = computed(() => now.value?.choices.find(c => c.id === hotendId.value) ?? now.value?.choices[0] ?? null)
const facts = computed(() => chosen.value?.facts ?? null)
const steps = computed(() => (facts.value ? hotendSteps(facts.value) : []))
type Choice = NonNullable<typeof chosen.value>
const inside = (c: Choice) =>
  [c.nozzle ? `${c.nozzle.tag}, ${c.nozzle.words} mm` : 'no nozzle', c.sensor ?? 'sensor not described'].join(', ')
const items = computed(() =>
  (now.value?.choices ?? []).map(c => ({
    id: c.id,
    good: c.good,
    tag: c.tag,
    words: inside(c),
    says: [...(c.refusal === null ? c.says : [c.refusal]), `About ${c.minutes} min.`].join(' '),
  })),
)
const lead = computed(() => {
  const o = now.value
  if (!o) return null
  const held = heldUp(o)
  if (held) return held
  const c = chosen.value
  if (c === null)
    return {
      mark: 'stop' as const,
      text: `${o.nozzle ? `${o.nozzle} ` : ''}No hotend is on the shelf: put one together, with a nozzle in it.`,
    }
  const off = o.old ? `${o.old.tag} comes off` : 'The head is empty'
  if (c.refusal) return { mark: 'stop' as const, text: c.refusal }
  return {
    mark: c.good ? ('fine' as const) : ('look' as const),
    text: `${off}; take ${c.tag} with ${c.nozzle?.tag ?? 'no nozzle'}, cold and with the power off. ${c.says[0] ?? ''}`,
  }
})
</script>

<template>
  <OfferFrame
    v-model="headId"
    :failure="failure"
    :heads="heads"
    :offer="now"
    :lead="lead"
    take="Which hotend to take"
    :none="now?.choices.length === 0 ? { to: '/stores?add=hotend', text: 'Put a hotend together' } : null"
    :steps="steps.length"
    choose="Choose the head whose hotend is to be changed."
  >
    <template #beside>
      <p v-if="now?.nozzle && chosen" class="mb-3">
        Why not only its nozzle: {{ now.nozzle.replace(' Change the whole hotend.', '') }}
      </p>
    </template>
    <template #shelf>
      <PickList
        name="hotend"
        :items="items"
        :model-value="chosen?.id ?? null"
        @update:model-value="id => (hotendId = id)"
      />
      <p class="mt-2"><NuxtLink to="/stores?show=hotends" class="act">All hotends and what is in them</NuxtLink></p>
    </template>
    <template #how>
      <template v-if="facts && now">
        <div class="sheet px-3 py-2">
          <p class="font-[650]">What has to match</p>
          <ul class="ml-5 list-disc">
            <li v-for="w in matchWords(facts)" :key="w">{{ w }}</li>
            <li>
              The loop is tuned anew at {{ facts.tuneC }} °C; runaway protection and cut-out are proved on it before it
              runs.
            </li>
            <li>Its sensor is unchecked here: limits keep the wider guard band until it is.</li>
          </ul>
        </div>
        <BeginProcedure
          :steps="steps"
          :printer="now.printer"
          action="Begin the change"
          :body="{ kind: 'hotend', headId, hotendId: chosen!.id }"
          :says="`Hotend on ${now.place}: ${chosen!.tag} on`"
          already="One that is done already is logged at the printer’s stack."
        />
      </template>
    </template>
  </OfferFrame>
</template>
