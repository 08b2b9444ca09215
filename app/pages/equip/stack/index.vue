<script setup lang="ts">
/** All stacks: which printer stops where, and the shelf of spare parts. */
import { computed, ref } from 'vue'
import { celsiusDown, zoneWord } from '#core/words'
import { ceilings, KINDS } from '#core/limits'
import EquipTabs from '~/components/equip/EquipTabs.vue'
import PriceSheet from '~/components/equip/PriceSheet.vue'
import ShelfPartSheet from '~/components/equip/ShelfPartSheet.vue'
import { useEquip } from '~/composables/equip'
import { limitNote } from '~/words/limits'

useHead({ title: 'Stacks · Equip · Iron Nozzle' })
const { data, failure } = useEquip()
const adding = ref(false)
const pricing = ref(false)
const priceItems = KINDS.filter(k => k.price !== null && k.price > 0).map(k => ({
  key: k.key,
  label: `${k.key[0]!.toUpperCase()}${k.key.slice(1)}`,
  price: k.price!,
  minutes: k.minutes,
}))
const rows = computed(() => (data.value?.printers ?? []).map(p => ({ p, zones: ceilings(p, data.value!.rules) })))
</script>

<template>
  <div>
    <EquipTabs :failure="failure" />
    <template v-if="data">
      <p class="mb-3 text-[15px] font-[650]">
        {{
          rows.length === 0
            ? 'Describe the first printer: choose the starting stack nearest to it and adapt the parts.'
            : 'Each printer is its parts. Where it stops is the weakest of them, less the guard band.'
        }}
      </p>
      <p class="mb-3"><NuxtLink to="/equip/stack/new" class="button first">Add a printer</NuxtLink></p>
      <ul class="mb-6 grid gap-3 lg:grid-cols-2 2xl:grid-cols-3" aria-label="Printers">
        <li v-for="{ p, zones } in rows" :key="p.id" class="sheet">
          <NuxtLink
            :to="`/equip/stack/${p.id}`"
            class="flex min-h-[44px] items-baseline gap-3 border-b border-rule px-3 pt-2 hover:bg-white"
            ><h2 class="underline underline-offset-2">{{ p.name }}</h2>
            <span class="text-sm text-ink2">{{ p.kind }}, {{ p.parts.length }} parts</span></NuxtLink
          >
          <dl class="px-3 py-1">
            <div
              v-for="(z, i) in zones"
              :key="i"
              class="grid grid-cols-[92px_62px_minmax(0,1fr)] gap-2 border-b border-faint py-1 text-sm last:border-0"
            >
              <dt>
                {{
                  z.headId !== null && p.heads.length > 1
                    ? p.heads.find(h => h.id === z.headId)?.name
                    : zoneWord(z.zone)
                }}
              </dt>
              <dd class="text-right font-bold">{{ celsiusDown(z.limitC) }}</dd>
              <dd>
                {{ z.part.name }}<span v-if="limitNote(z)" class="block text-xs text-ink2">{{ limitNote(z) }}</span>
              </dd>
            </div>
          </dl>
        </li>
      </ul>
      <section aria-labelledby="shelf">
        <div class="mb-2 flex flex-wrap items-center gap-3">
          <h2 id="shelf">On the shelf</h2>
          <button type="button" class="button" @click="adding = true">Add a part to the shelf</button
          ><button type="button" class="button" @click="pricing = true">What parts cost here</button>
        </div>
        <p v-if="data.shelf.length === 0" class="text-sm">
          No spare parts recorded. What comes off a printer goes here by itself.
        </p>
        <ul v-else class="sheet max-w-[900px]">
          <li
            v-for="s in data.shelf"
            :key="s.id"
            class="flex flex-wrap gap-x-4 border-b border-faint px-3 py-2 text-sm last:border-0"
          >
            <b>{{ s.name }}</b><span>{{ s.limitC === null ? '' : `${s.limitC} °C` }}</span
            ><span class="text-ink2">{{ s.note }}</span>
          </li>
        </ul>
      </section>
      <PriceSheet :open="pricing" title="What parts cost here" :items="priceItems" @close="pricing = false" />
      <ShelfPartSheet :open="adding" @close="adding = false" />
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[480px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the stacks"
    />
  </div>
</template>
