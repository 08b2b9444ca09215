<script setup lang="ts">
/** An address that leads nowhere: said within the frame, with where what was meant may be. */
import { computed, ref } from 'vue'
import { STATIONS } from '~/composables/shortcuts'
import { useStripNames } from '~/composables/strip-names'
import { understand } from '~/strip/parse'

useHead({ title: 'No such page · Iron Nozzle' })
const route = useRoute()
const { names } = useStripNames(ref(true))
/** The last piece of the address may be a tag that is known: the strip reads it. */
const meant = computed(() => {
  const last = route.path.split('/').filter(Boolean).pop()
  const u = last ? understand(last, names.value, new Date().toISOString(), null) : null
  return u?.kind === 'open' ? u : null
})
</script>

<template>
  <div class="grid max-w-[70ch] gap-4">
    <h1>There is no page at {{ route.path }}</h1>
    <p v-if="meant">
      <NuxtLink :to="meant.path" class="act text-ink">{{ meant.says }}</NuxtLink>
    </p>
    <p>Press / and type a tag or a printer, or go on from a station:</p>
    <nav aria-label="Where to go on" class="flex flex-wrap gap-2">
      <NuxtLink v-for="s in STATIONS" :key="s.path" :to="s.path" class="button inline-flex items-center">{{
        s.name
      }}</NuxtLink>
    </nav>
  </div>
</template>
