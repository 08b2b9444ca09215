<script setup lang="ts">
/** Before something is changed on a head: on which head, what to know of it in one line, what to take, how it goes. */
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import LeadSentence from '~/components/ui/LeadSentence.vue'
import { useShop } from '~/state/shop'

defineProps<{
  failure: string | null
  heads: readonly { value: number | null; text: string }[]
  /** What is offered on this head; null while it is read. */
  offer: {
    refusal: { where: string | null; action: string } | null
    under: { id: number } | null
    coming: readonly string[]
  } | null
  lead: { mark: 'fine' | 'look' | 'stop'; text: string } | null
  /** "Which nozzle to take". */
  take: string
  /** Where one is added; null while there is something to take. */
  none: { to: string; text: string } | null
  steps: number
  /** Said while no head is chosen. */
  choose: string
}>()
const headId = defineModel<number | null>({ required: true })
const shop = useShop()
</script>

<template>
  <div>
    <ChangeTabs :failure="failure" />
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <template v-else>
      <FieldSelect
        id="change-head"
        v-model="headId"
        class="mb-3 max-w-[420px]"
        label="On which head"
        :options="[{ value: null, text: 'Choose a head' }, ...heads]"
      />
      <template v-if="offer && lead">
        <LeadSentence :lead="lead" />
        <slot v-if="!offer.under" name="beside" />
        <NuxtLink v-if="offer.under" :to="`/change/${offer.under.id}`" class="button first">Go on with it</NuxtLink>
        <NuxtLink v-else-if="offer.refusal?.where" :to="offer.refusal.where" class="button">{{
          offer.refusal.action
        }}</NuxtLink>
        <NuxtLink v-else-if="!offer.refusal && none" :to="none.to" class="button first">{{ none.text }}</NuxtLink>
        <div v-else-if="!offer.refusal" class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-2">
          <section aria-labelledby="take-title">
            <h2 id="take-title" class="mb-1">{{ take }}</h2>
            <p class="mb-2 text-sm text-ink2">
              {{
                offer.coming.length > 0
                  ? `Comes next here: ${offer.coming.join(', ')}.`
                  : 'Nothing tells what comes next here.'
              }}
            </p>
            <slot name="shelf" />
          </section>
          <section v-if="steps > 0" aria-labelledby="how-title">
            <h2 id="how-title" class="mb-1">How it goes: {{ steps }} steps</h2>
            <slot name="how" />
          </section>
        </div>
      </template>
      <div
        v-else-if="headId !== null && !failure"
        class="sheet h-[400px] animate-pulse opacity-60"
        role="status"
        aria-label="Reading the shelf"
      />
      <p v-else class="text-ink2">{{ choose }}</p>
    </template>
  </div>
</template>
