<script setup lang="ts">
/** Printers with their heads and, per zone, limit, deciding part and basis. */
import type { ShopData } from '~/stores/shop'
import { day } from '~/format'

type Printer = ShopData['printers'][number]
defineProps<{ shop: ShopData, zone: string }>()
defineEmits<{ fit: [headId: number], edit: [printer: Printer], limit: [printer: Printer, limit: Printer['limits'][number]] }>()
const headOf = (p: Printer, id: number | null) => p.heads.find(h => h.id === id)
</script>

<template>
  <div class="grid gap-3 xl:grid-cols-2">
    <section v-for="p in shop.printers" :key="p.id" class="sheet" :aria-label="p.name">
      <header class="flex items-center gap-3 border-b border-rule px-3"><h2>{{ p.name }}</h2><span class="text-sm text-ink2">{{ p.kind }}</span><button type="button" class="button plain ml-auto" @click="$emit('edit', p)">Edit<span class="sr-only"> {{ p.name }}</span></button></header>
      <ul>
        <li v-for="l in p.limits" :key="l.id" class="grid grid-cols-[96px_64px_minmax(0,1fr)_auto] items-center gap-x-3 border-b border-faint px-3 text-sm">
          <span>{{ l.zone }}{{ p.heads.length > 1 && l.headId !== null ? `, ${headOf(p, l.headId)?.name}` : '' }}</span><b class="text-right">{{ l.limitC }} °C</b>
          <span class="py-1">{{ l.part }}<span class="block text-xs text-ink2">{{ l.basis }}{{ l.note ? `, ${l.note}` : '' }} · {{ l.enteredBy }}, {{ day(l.enteredAt, zone) }}</span></span>
          <button type="button" class="button plain" @click="$emit('limit', p, l)">Edit<span class="sr-only"> {{ l.zone }} limit of {{ p.name }}</span></button>
        </li>
        <li v-for="h in p.heads" :key="h.id" class="flex flex-wrap items-center gap-x-3 px-3 text-sm"><span class="w-[92px]">{{ h.name }}</span><NuxtLink v-if="h.nozzle" :to="`/inspect/${h.nozzle}`" class="act">{{ h.nozzle }}</NuxtLink><b v-else class="text-look">no nozzle fitted</b><button type="button" class="button plain ml-auto" @click="$emit('fit', h.id)">Fit<span class="sr-only"> a nozzle to {{ p.name }} {{ h.name }}</span></button></li>
      </ul>
    </section>
  </div>
</template>
