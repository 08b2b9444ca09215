<script setup lang="ts">
/** Before a swap: on which head, which nozzle to take, how it would go; and why its nozzle may not be turned. */
import { computed, ref, watch } from 'vue'
import { swapSteps } from '#core/procedures'
import ChangeTabs from '~/components/change/ChangeTabs.vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import QuestionBox from '~/components/ui/QuestionBox.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useAnswer } from '~/composables/answer'
import { useEntryForm } from '~/composables/entry-form'
import { useShop } from '~/state/shop'

useHead({ title: 'Swap a nozzle · Iron Nozzle' })
const route = useRoute()
const router = useRouter()
const shop = useShop()
const headId = ref<number | null>(null)
const nozzleId = ref<number | null>(null)
const { data: offer, failure } = useAnswer('/api/swaps/{id}', {
  params: () => (headId.value === null ? null : { id: headId.value }),
})
const heads = computed(() =>
  (shop.data?.printers ?? []).flatMap(p =>
    p.heads.map(h => ({
      value: h.id as number | null,
      text: `${p.name}${p.heads.length > 1 ? ` · ${h.name}` : ''}${h.nozzle ? `, now ${h.nozzle}` : ', no nozzle'}`,
    })),
  ),
)
const asked = (key: string) => {
  const n = Number(route.query[key])
  return Number.isInteger(n) && n > 0 ? n : null
}
watch(
  () => [heads.value.map(h => h.value).join(), route.query.head, route.query.nozzle],
  () => {
    const of = asked('head')
    if (heads.value.some(h => h.value === of)) headId.value = of
    else if (headId.value === null && heads.value.length === 1) headId.value = heads.value[0]!.value
    nozzleId.value = asked('nozzle') ?? nozzleId.value
  },
  { immediate: true },
)
/** Of this head, not of the one that was asked about before. */
const now = computed(() => (offer.value?.headId === headId.value ? offer.value : null))
const chosen = computed(
  () => now.value?.choices.find(c => c.nozzle.id === nozzleId.value) ?? now.value?.choices[0] ?? null,
)
const facts = computed(() => chosen.value?.facts ?? null)
const steps = computed(() => (facts.value ? swapSteps(facts.value) : []))
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

const form = useEntryForm('/api/procedures')
async function begin(confirmed: string[] = []): Promise<void> {
  const c = chosen.value!
  const body = { kind: 'swap', headId: headId.value, nozzleId: c.nozzle.id, occurredAt: new Date().toISOString() }
  const done = await form.send(body, `Swap on ${now.value!.place}: ${c.nozzle.tag} in`, confirmed)
  if (done !== null && done !== 'queued') await router.push(`/change/${done.id}`)
}
watch([headId, nozzleId], () => form.reset())
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
        <NuxtLink v-if="now.under" :to="`/change/${now.under.id}`" class="button first">Go on with it</NuxtLink>
        <NuxtLink v-else-if="now.refusal?.where" :to="now.refusal.where" class="button">{{
          now.refusal.action
        }}</NuxtLink>
        <NuxtLink v-else-if="now.choices.length === 0" to="/stores?add=nozzle" class="button"
          >Add a nozzle in Stores</NuxtLink
        >
        <div v-else class="grid grid-cols-[minmax(0,1fr)] items-start gap-4 xl:grid-cols-2">
          <section aria-labelledby="take-title">
            <h2 id="take-title" class="mb-1">Which nozzle to take</h2>
            <p class="mb-2 text-sm text-ink2">
              {{
                now.coming.length > 0
                  ? `Comes next here: ${now.coming.join(', ')}.`
                  : 'Nothing tells what comes next here.'
              }}
            </p>
            <ul class="sheet">
              <li
                v-for="c in now.choices.slice(0, 12)"
                :key="c.nozzle.id"
                class="border-t border-rule first:border-t-0"
              >
                <label
                  class="grid min-h-[52px] cursor-pointer grid-cols-[28px_22px_minmax(0,1fr)] items-start gap-x-2 px-3 py-2"
                >
                  <input
                    type="radio"
                    name="swap-nozzle"
                    class="mt-[2px] h-[20px] w-[20px] accent-ink"
                    :checked="c === chosen"
                    @change="nozzleId = Number(c.nozzle.id)"
                  />
                  <VerdictMark :verdict="c.good ? 'fine' : 'look'" :size="18" class="mt-[2px]" />
                  <span
                    ><b>{{ c.nozzle.tag }}</b
                    >, {{ c.facts?.fresh.words ?? `${c.nozzle.material} ${c.nozzle.boreMm}` }} mm
                    <span class="block text-sm text-ink2">{{ c.says.join(' ') }}</span></span
                  >
                </label>
              </li>
            </ul>
            <p v-if="now.choices.length > 12" class="mt-1 text-sm text-ink2">
              And {{ now.choices.length - 12 }} more on the shelf that suit less.
            </p>
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
            <ol class="mt-2 ml-6 list-decimal text-sm">
              <li v-for="s in steps" :key="s.key">{{ s.title }}</li>
            </ol>
            <p v-for="e in Object.values(form.errors.value)" :key="e" class="mt-2 font-semibold text-stop" role="alert">
              {{ e }}
            </p>
            <QuestionBox
              class="mt-2"
              :problem="form.problem.value"
              :busy="form.busy.value"
              @confirm="begin"
              @local="form.reset()"
            />
            <button
              type="button"
              class="button first mt-3 w-full !min-h-[56px] !text-[17px]"
              :disabled="form.busy.value"
              @click="begin()"
            >
              Begin the swap
            </button>
            <p class="mt-1 text-xs text-ink2">
              From then on {{ now.printer }} is “not ready” until the last step is done. A swap that is done already is
              logged in Stores.
            </p>
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
