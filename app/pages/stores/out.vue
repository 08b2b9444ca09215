<script setup lang="ts">
/** Everything out: each list for a spreadsheet, all of the shop as one archive of open formats. */
import { LIST_NAMES, LIST_WORDS } from '#shared/lists'
import ListLinks from '~/components/ui/ListLinks.vue'

useHead({ title: 'Take it out · Stores · Iron Nozzle' })
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] gap-4">
    <header class="flex flex-wrap items-baseline gap-x-4">
      <h1>Take it out</h1>
      <NuxtLink to="/stores" class="act">Back to Stores</NuxtLink>
    </header>
    <section class="grid max-w-[70ch] gap-2" aria-labelledby="archive-title">
      <h2 id="archive-title">All of the shop</h2>
      <p>
        One ZIP with every record to the last digit, the lists below, and the pictures; struck entries and edits
        included. Another installation reads it with <code>npm run restore FILE</code> and works out the same forecasts.
      </p>
      <p><a href="/api/archive" class="button first inline-flex items-center" download>Download the archive</a></p>
    </section>
    <section aria-labelledby="lists-title">
      <h2 id="lists-title">Lists</h2>
      <p class="mb-2 max-w-[70ch] text-sm text-ink2">
        Units stand in the headings, times are on the shop’s clock. A cell that begins like a formula gets an apostrophe
        in CSV. Nozzles, nozzle types, materials, spools, people, runs, gauges and weighings can be pasted again as they
        are.
      </p>
      <ul class="grid max-w-[560px]">
        <li
          v-for="l in LIST_NAMES"
          :key="l"
          class="flex min-h-[40px] items-baseline justify-between gap-4 border-b border-rule py-1"
        >
          <span class="font-semibold">{{ LIST_WORDS[l] }}</span>
          <ListLinks :list="l" />
        </li>
      </ul>
    </section>
  </div>
</template>
