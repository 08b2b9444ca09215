<script setup lang="ts">
/** Before a swap: on which head, which nozzle to take, how it would go; and why its nozzle may not be turned. */
import { computed } from 'vue'
import { swapSteps } from '#core/procedures'
import BeginProcedure from '~/components/change/BeginProcedure.vue'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import PickList from '~/components/change/PickList.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useHeadChoice } from '~/composables/head-choice'
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
const lead = computed(() => {
  const o = now.value
  if (!o) return null
  if (o.under) return { mark: 'look' as const, text: `${o.under.title} is under way.` }
  if (o.refusal) return { mark: 'stop' as const, text: o.refusal.says }
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
  <div>
    <ChangeTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else>
      <FieldSelect
        id="swap-head"
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
        <p v-if="now.hotend && !now.under" class="mb-3 border-l-4 border-ink bg-sheet py-2 pl-3">
          <b>{{ now.hotend.tag }}</b> is on the shelf, wired ready with {{ now.hotend.nozzle?.tag }}:
          {{ now.hotend.nozzle?.words }} mm. {{ now.hotend.says }} About {{ now.hotend.minutes }} min in all.
          <NuxtLink
            :to="`/change/hotend?head=${headId}&hotend=${now.hotend.id}`"
            class="button mt-2 flex w-fit"
            :class="now.refusal ? 'first' : ''"
            >Change the whole hotend</NuxtLink
          >
        </p>
        <NuxtLink v-if="now.under" :to="`/change/${now.under.id}`" class="button first">Go on with it</NuxtLink>
        <NuxtLink v-else-if="now.refusal?.where && !now.hotend" :to="now.refusal.where" class="button">{{
          now.refusal.action
        }}</NuxtLink>
        <NuxtLink v-else-if="!now.refusal && now.choices.length === 0" to="/stores?add=nozzle" class="button"
          >Add a nozzle in Stores</NuxtLink
        >
        <div v-else-if="!now.refusal" class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-2">
          <section aria-labelledby="take-title">
            <h2 id="take-title" class="mb-1">Which nozzle to take</h2>
            <p class="mb-2 text-sm text-ink2">
              {{
                now.coming.length > 0
                  ? `Comes next here: ${now.coming.join(', ')}.`
                  : 'Nothing tells what comes next here.'
              }}
            </p>
            <PickList
              name="swap-nozzle"
              :items="items"
              :model-value="Number(chosen?.nozzle.id)"
              @update:model-value="id => (nozzleId = id)"
            />
          </section>
          <section v-if="facts" aria-labelledby="how-title">
            <h2 id="how-title" class="mb-1">How it goes: {{ steps.length }} steps</h2>
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
          </section>
        </div>
      </template>
      <div
        v-else-if="headId !== null && !failure"
        class="sheet h-[400px] animate-pulse opacity-60"
        role="status"
        aria-label="Reading the shelf"
      />
      <p v-else class="text-ink2">Choose the head whose nozzle is to be changed.</p>
    </template>
  </div>
</template>
