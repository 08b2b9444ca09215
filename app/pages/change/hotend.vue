<script setup lang="ts">
/** Before a hotend is changed: on which head, which one to take, what has to match, how it would go. */
import { computed } from 'vue'
import { hotendSteps, matchWords } from '#core/procedures'
import BeginProcedure from '~/components/change/BeginProcedure.vue'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import PickList from '~/components/change/PickList.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useHeadChoice } from '~/composables/head-choice'
import { useShop } from '~/state/shop'

useHead({ title: 'Change a hotend · Iron Nozzle' })
const shop = useShop()
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
    says: [c.refusal ?? '', ...c.says, `About ${c.minutes} min.`].filter(Boolean).join(' '),
  })),
)
const lead = computed(() => {
  const o = now.value
  if (!o) return null
  if (o.under) return { mark: 'look' as const, text: `${o.under.title} is under way.` }
  if (o.refusal) return { mark: 'stop' as const, text: o.refusal.says }
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
  <div>
    <ChangeTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else>
      <FieldSelect
        id="hotend-head"
        v-model="headId"
        class="mb-3 max-w-[420px]"
        label="On which head"
        :options="[{ value: null, text: 'Choose a head' }, ...heads]"
      />
      <template v-if="now && lead">
        <p
          class="mb-3 flex items-start gap-2 text-[17px] leading-snug font-[680]"
          :class="{ fine: '', look: 'text-look', stop: 'text-stop' }[lead.mark]"
          role="status"
        >
          <VerdictMark :verdict="lead.mark" :size="20" class="mt-[2px]" />{{ lead.text }}
        </p>
        <p v-if="now.nozzle && chosen && !now.under" class="mb-3">
          Why not only its nozzle: {{ now.nozzle.replace(' Change the whole hotend.', '') }}
        </p>
        <NuxtLink v-if="now.under" :to="`/change/${now.under.id}`" class="button first">Go on with it</NuxtLink>
        <NuxtLink v-else-if="now.refusal?.where" :to="now.refusal.where" class="button">{{
          now.refusal.action
        }}</NuxtLink>
        <NuxtLink v-else-if="now.choices.length === 0" to="/stores?add=hotend" class="button first"
          >Put a hotend together</NuxtLink
        >
        <div v-else class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-2">
          <section aria-labelledby="take-title">
            <h2 id="take-title" class="mb-1">Which hotend to take</h2>
            <p class="mb-2 text-sm text-ink2">
              {{
                now.coming.length > 0
                  ? `Comes next here: ${now.coming.join(', ')}.`
                  : 'Nothing tells what comes next here.'
              }}
            </p>
            <PickList
              name="hotend"
              :items="items"
              :model-value="chosen?.id ?? null"
              @update:model-value="id => (hotendId = id)"
            />
            <p class="mt-2">
              <NuxtLink to="/stores?show=hotends" class="act">All hotends and what is in them</NuxtLink>
            </p>
          </section>
          <section v-if="facts" aria-labelledby="how-title">
            <h2 id="how-title" class="mb-1">How it goes: {{ steps.length }} steps</h2>
            <div class="sheet px-3 py-2">
              <p class="font-[650]">What has to match</p>
              <ul class="ml-5 list-disc">
                <li v-for="w in matchWords(facts)" :key="w">{{ w }}</li>
                <li>
                  The loop is tuned anew at {{ facts.tuneC }} °C; runaway protection and cut-out are proved on it before
                  it runs.
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
          </section>
        </div>
      </template>
      <div
        v-else-if="headId !== null && !failure"
        class="sheet h-[400px] animate-pulse opacity-60"
        role="status"
        aria-label="Reading the shelf"
      />
      <p v-else class="text-ink2">Choose the head whose hotend is to be changed.</p>
    </template>
  </div>
</template>
