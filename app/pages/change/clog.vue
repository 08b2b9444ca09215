<script setup lang="ts">
/** Before a clog is cleared: on which head, what stands in it, which needle and how cold a pull, how it goes. */
import { computed } from 'vue'
import { burnOut, clogSteps, needleMm } from '#core/procedures'
import { celsius, mmNumber } from '#core/words'
import BeginProcedure from '~/components/change/BeginProcedure.vue'
import OfferFrame from '~/components/change/OfferFrame.vue'
import { useAnswer } from '~/composables/answer'
import { useHeadChoice } from '~/composables/head-choice'
import { heldUp } from '~/lib/offer'

useHead({ title: 'Clear a clog · Iron Nozzle' })
const { headId, heads } = useHeadChoice('nozzle')
const { data: offer, failure } = useAnswer('/api/clogs/{id}', {
  params: () => (headId.value === null ? null : { id: headId.value }),
})
/** Of this head, not of the one that was asked about before. */
const now = computed(() => (offer.value?.headId === headId.value ? offer.value : null))
const facts = computed(() => now.value?.facts ?? null)
const steps = computed(() => (facts.value ? clogSteps(facts.value) : []))
const lead = computed(() => {
  const o = now.value
  if (!o) return null
  const held = heldUp(o)
  if (held) return held
  const f = facts.value!
  const pull = f.pullC === null ? 'a cold pull' : `a cold pull from ${celsius(f.pullC)}`
  return {
    mark: 'look' as const,
    text:
      `${f.nozzle.tag}: at ${celsius(f.softC)} feed by hand, then a needle of ` +
      `${mmNumber(needleMm(f.boreMm), 2)} mm, then ${pull}.`,
  }
})
const known = computed(() => {
  const f = facts.value
  if (!f) return []
  return [
    { what: 'Nozzle', says: `${f.nozzle.tag}, ${f.nozzle.words} mm${f.nozzle.insert ? ', with an insert' : ''}` },
    { what: 'Stands in it', says: f.holds ?? 'not logged' },
    { what: 'All of it melts at', says: celsius(f.softC) },
    { what: 'Needle', says: `${mmNumber(needleMm(f.boreMm), 2)} mm, from below` },
    {
      what: 'Cold pull begins at',
      says:
        f.pullC === null
          ? `not known: ${f.holds ?? 'what stands in it'} has neither glass transition nor melting point`
          : `${celsius(f.pullC)}, by its glass transition and melting point; a start value`,
    },
    { what: 'Burning it out', says: burnOut({ ...f.nozzle, material: f.material }, f.liner).says },
  ]
})
</script>

<template>
  <OfferFrame
    v-model="headId"
    :failure="failure"
    :heads="heads"
    :offer="now"
    :lead="lead"
    take="What is known of it"
    :none="null"
    :steps="steps.length"
    choose="Choose the head that is blocked."
  >
    <template #shelf>
      <dl class="title-block grid-cols-1">
        <div v-for="(k, i) in known" :key="k.what" :class="i === 0 ? '!border-t-0' : ''">
          <dt>{{ k.what }}</dt>
          <dd>{{ k.says }}</dd>
        </div>
      </dl>
      <p class="mt-2">
        <NuxtLink :to="`/change/swap?head=${headId}`" class="act">Swap the nozzle instead</NuxtLink>
      </p>
    </template>
    <template #how>
      <BeginProcedure
        v-if="facts && now"
        :steps="steps"
        :printer="now.printer"
        action="Begin to clear it"
        :body="{ kind: 'clog', headId }"
        :says="`Clog on ${now.place}`"
        already="One that is cleared already is logged as a purge under Prepare."
      />
    </template>
  </OfferFrame>
</template>
