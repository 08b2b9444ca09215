<script setup lang="ts">
/** Where the code of a label leads: to the thing itself, or for a printer to what is done at it. */
import { computed, ref, watch } from 'vue'
import EmptyShop from '~/components/ui/EmptyShop.vue'
import { useStripNames } from '~/composables/strip-names'
import { useShop } from '~/state/shop'
import type { Understood } from '~/strip/grammar'
import { understand } from '~/strip/parse'

useHead({ title: 'Label · Iron Nozzle' })
const route = useRoute()
const shop = useShop()
const tag = computed(() => String(route.params.tag))
const asked = ref(true)
const { names } = useStripNames(asked)
const printer = computed(
  () => shop.data?.printers.find(p => p.name.toLowerCase() === tag.value.toLowerCase())?.name ?? null,
)
/** A spool's tag alone is no whole line of the strip, which asks what happened to it; its label leads to its page. */
const spool = computed(() => shop.data?.spools.find(s => s.tag.toLowerCase() === tag.value.toLowerCase())?.tag ?? null)
const found = computed<Understood | null>(() => {
  if (!shop.data) return null
  if (spool.value !== null) return { kind: 'open', says: '', path: `/prepare/spool/${spool.value}` }
  return understand(tag.value, names.value, new Date().toISOString(), null)
})
// what has a page of its own is there at once, and Back leads to where one came from
watch(
  found,
  u => {
    if (printer.value === null && u?.kind === 'open') void navigateTo(u.path, { replace: true })
  },
  { immediate: true },
)
const links = computed(() => {
  const of = `printer=${encodeURIComponent(printer.value ?? '')}`
  return [
    { to: `/prepare/check?${of}`, text: 'May I start' },
    { to: `/run?${of}`, text: 'Log a run' },
    { to: `/change/upkeep?${of}`, text: 'Upkeep' },
    { to: `/change/level?${of}`, text: 'Level and Z' },
    { to: `/verify?${of}`, text: 'Sensors' },
    { to: `/due?by=printer`, text: 'What is due' },
  ]
})
</script>

<template>
  <div class="grid max-w-[60ch] gap-4">
    <h1>{{ printer ?? tag }}</h1>
    <EmptyShop v-if="shop.data && shop.data.printers.length === 0" />
    <nav v-else-if="printer" :aria-label="printer" class="grid gap-2 sm:grid-cols-2">
      <NuxtLink v-for="l in links" :key="l.to" :to="l.to" class="button inline-flex min-h-[52px] items-center">{{
        l.text
      }}</NuxtLink>
    </nav>
    <template v-else-if="found && found.kind !== 'open'">
      <p class="font-[650] text-look" role="status">Nothing in this shop has the tag {{ tag }}.</p>
      <p>Is it the label of another shop, or of a thing that was given another tag?</p>
      <p class="flex flex-wrap gap-2">
        <NuxtLink :to="`/stores?find=${encodeURIComponent(tag)}`" class="button">Look on the shelves</NuxtLink>
        <NuxtLink to="/stores/labels" class="button">Labels</NuxtLink>
      </p>
    </template>
    <div v-else class="sheet h-[200px] animate-pulse opacity-60" role="status" aria-label="Looking for the tag" />
  </div>
</template>
