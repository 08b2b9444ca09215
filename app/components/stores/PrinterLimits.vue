<script setup lang="ts">
/** Printers with their heads and, per zone, the deciding part; the parts themselves are edited in the stack. */
import { celsiusDown, zoneWord } from '#core/words'
import { limitNote } from '~/words/limits'
import type { ShopData } from '~/state/shop'

type Printer = ShopData['printers'][number]
defineProps<{ shop: ShopData }>()
defineEmits<{ fit: [headId: number]; edit: [printer: Printer] }>()
const headOf = (p: Printer, id: number | null) => p.heads.find(h => h.id === id)
</script>

<template>
  <div class="grid gap-3 xl:grid-cols-2">
    <section v-for="p in shop.printers" :key="p.id" class="sheet" :aria-label="p.name">
      <header class="flex items-center gap-3 border-b border-rule px-3">
        <h2>{{ p.name }}</h2>
        <span class="text-sm text-ink2">{{ p.kind }}</span><button
          type="button"
          class="button plain ml-auto"
          @click="$emit('edit', p)"
        >
          Edit<span class="sr-only"> {{ p.name }}</span>
        </button>
      </header>
      <ul>
        <li
          v-for="(l, i) in p.limits"
          :key="i"
          class="grid min-h-[40px] grid-cols-[96px_64px_minmax(0,1fr)] items-center gap-x-3 border-b border-faint px-3 text-sm"
        >
          <span
            >{{ zoneWord(l.zone)
            }}{{ p.heads.length > 1 && l.headId !== null ? `, ${headOf(p, l.headId)?.name}` : '' }}</span
          ><b class="text-right">{{ celsiusDown(l.limitC) }}</b>
          <span class="py-1"
            >{{ l.part
            }}<span class="block text-xs text-ink2">{{
              [l.basis, l.note, limitNote(l)].filter(Boolean).join(', ')
            }}</span></span
          >
        </li>
        <li class="border-b border-faint px-3 text-sm">
          <NuxtLink :to="`/equip/stack/${p.id}`" class="act"
            >Parts and their limits<span class="sr-only"> of {{ p.name }}</span></NuxtLink
          >
        </li>
        <li v-for="h in p.heads" :key="h.id" class="flex flex-wrap items-center gap-x-3 px-3 text-sm">
          <span class="w-[92px]">{{ h.name }}</span><NuxtLink
            v-if="h.nozzle"
            :to="`/inspect/${h.nozzle}`"
            class="act"
            >{{ h.nozzle }}</NuxtLink
          ><b v-else class="text-look">no nozzle fitted</b
          ><button type="button" class="button plain ml-auto" @click="$emit('fit', h.id)">
            Fit<span class="sr-only"> a nozzle to {{ p.name }} {{ h.name }}</span>
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>
