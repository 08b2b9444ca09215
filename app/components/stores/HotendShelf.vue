<script setup lang="ts">
/** Hotends: where each is, what is inside, what it stands, and where it and its parts were. */
import { computed, ref, shallowRef } from 'vue'
import { HOTEND_ROLES } from '#core/limits'
import { counted, mmNumber } from '#core/words'
import type { HotendLine } from '#shared/answers/hotends'
import { day, when } from '#shared/time'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import { editOf } from '~/components/equip/part-fields'
import type { OpenRecord } from '~/components/stores/form-field'
import RecordSheet from '~/components/stores/RecordSheet.vue'
import { useAnswer } from '~/composables/answer'
import { later } from '~/lib/later'
import { useShop } from '~/state/shop'

const AssemblySheet = later(() => import('~/components/stores/AssemblySheet.vue'))
const HotendSheet = later(() => import('~/components/stores/HotendSheet.vue'))

/** Whether one is being put together. */
const adding = defineModel<boolean>('adding', { required: true })
const shop = useShop()
const { data, failure } = useAnswer('/api/hotends')
const changing = ref<HotendLine | null>(null)
const striking = ref<{ target: 'stack change'; id: number; says: string } | null>(null)
const editing = shallowRef<OpenRecord | null>(null)
const sorted = computed(() =>
  [...(data.value ?? [])].sort((a, b) => Number(a.place !== null) - Number(b.place !== null)),
)
const spares = computed(() => sorted.value.filter(h => h.place === null))
const partsOf = (h: HotendLine) =>
  [...h.parts].sort((a, b) => HOTEND_ROLES.indexOf(a.role as never) - HOTEND_ROLES.indexOf(b.role as never))
/** What stops it first, as rated. */
function stands(h: HotendLine): string {
  const least = h.parts.filter(p => p.limitC !== null).sort((a, b) => a.limitC! - b.limitC!)[0]
  return least ? `stands ${least.limitC} °C as rated: ${least.name}` : 'what it stands is not described'
}
const nozzleOf = (h: HotendLine) =>
  h.nozzle ? `${h.nozzle.tag}, ${h.nozzle.material} ${mmNumber(h.nozzle.boreMm)} mm` : 'no nozzle'
const lead = computed(() => {
  const ready = spares.value.filter(h => h.nozzle !== null && h.parts.some(p => p.role === 'sensor'))
  return spares.value.length === 0
    ? 'No hotend is on the shelf. One wired ready, with a nozzle in it, is quicker than one that is torn down.'
    : `${counted(spares.value.length, 'hotend')} on the shelf, ${ready.length} of them ready to go.`
})
</script>

<template>
  <div>
    <p v-if="failure" class="mb-2 font-semibold text-look" role="status">{{ failure }}</p>
    <template v-if="data">
      <p class="mb-2 flex flex-wrap items-center gap-3">
        <button type="button" class="button first" @click="adding = true">Put a hotend together</button
        ><span class="text-sm text-ink2">{{ lead }}</span>
      </p>
      <ul class="sheet max-w-[1000px]" aria-label="Hotends">
        <li v-for="h in sorted" :key="h.id" class="border-b border-rule px-3 py-2 last:border-0" :data-hotend="h.tag">
          <div class="grid items-start gap-x-4 gap-y-1 sm:grid-cols-[84px_minmax(0,1fr)_auto]">
            <h2 class="text-[17px]! leading-tight font-[720]!">{{ h.tag }}</h2>
            <div class="min-w-0">
              <p>
                <b>{{ h.place ? `on ${h.place.words}` : 'on the shelf' }}</b>
                <span class="text-ink2">{{ h.place ? ' since' : ', last changed' }} {{ day(h.since, shop.zone) }}</span>
                · {{ nozzleOf(h) }}
              </p>
              <p class="text-sm text-ink2">{{ stands(h) }}{{ h.note ? `; ${h.note}` : '' }}</p>
              <NuxtLink v-if="h.taken" :to="`/change/${h.taken.id}`" class="text-sm font-semibold text-look underline"
                >Taken: {{ h.taken.title }}</NuxtLink
              >
              <details class="mt-1">
                <summary
                  class="flex min-h-[40px] cursor-pointer items-center font-[650] underline underline-offset-[3px]"
                >
                  What is inside, and where it was<span class="sr-only">: {{ h.tag }}</span>
                </summary>
                <p v-if="h.parts.length === 0" class="text-sm">None of its parts is described.</p>
                <table v-else class="record w-full">
                  <thead>
                    <tr>
                      <th>role</th>
                      <th>part</th>
                      <th>where it was, the latest first</th>
                      <th class="no-print"><span class="sr-only">edit</span></th>
                    </tr>
                  </thead>
                  <tbody>
                    <tr v-for="p in partsOf(h)" :key="p.id">
                      <td>{{ p.role }}</td>
                      <td>
                        <b>{{ p.name }}</b>{{ p.limitC === null ? '' : `, ${p.limitC} °C` }}
                      </td>
                      <td>
                        <span v-for="(b, i) in p.been" :key="i" class="block text-xs text-ink2"
                          >{{ b.words }}, {{ day(b.at, shop.zone) }}</span
                        >
                      </td>
                      <td class="num no-print">
                        <button type="button" class="button plain" @click="editing = editOf(p)">
                          Edit<span class="sr-only"> {{ p.name }} of {{ h.tag }}</span>
                        </button>
                      </td>
                    </tr>
                  </tbody>
                </table>
                <h3 class="label mt-2">Where it went</h3>
                <ul>
                  <li
                    v-for="x in h.history"
                    :key="x.changeId"
                    class="py-[2px] text-sm"
                    :class="x.struck ? 'text-ink2' : ''"
                  >
                    <span :class="x.struck ? 'line-through' : ''"
                      ><b>{{ x.what }}</b
                      >, {{ when(x.at, shop.zone) }}, {{ x.person }}: {{ x.says }}</span
                    ><span v-if="x.struck">. Struck out: {{ x.struck.reason }}</span>
                    <button
                      v-else-if="x.strikeable"
                      type="button"
                      class="button plain no-print"
                      @click="striking = { target: 'stack change', id: x.changeId, says: `“${x.says.slice(0, 60)}”` }"
                    >
                      Strike out<span class="sr-only"> {{ x.says }}</span>
                    </button>
                  </li>
                </ul>
              </details>
            </div>
            <p class="flex flex-wrap gap-2">
              <NuxtLink v-if="h.place" :to="`/change/hotend?head=${h.place.headId}`" class="button"
                >Change it<span class="sr-only">: {{ h.tag }}</span></NuxtLink
              >
              <template v-else>
                <button type="button" class="button" @click="changing = h">
                  Change what is inside<span class="sr-only">: {{ h.tag }}</span>
                </button>
                <NuxtLink v-if="!h.taken" :to="`/change/hotend?hotend=${h.id}`" class="button"
                  >Put it on a printer<span class="sr-only">: {{ h.tag }}</span></NuxtLink
                >
              </template>
            </p>
          </div>
        </li>
      </ul>
    </template>
    <div v-else-if="!failure" class="sheet h-[320px] animate-pulse opacity-60" role="status" aria-label="Reading" />
    <RecordSheet :open="editing" wide @close="editing = null" />
    <HotendSheet :open="adding" @close="adding = false" />
    <StrikeSheet :target="striking" @close="striking = null" />
    <AssemblySheet :hotend="changing" @close="changing = null" />
  </div>
</template>
