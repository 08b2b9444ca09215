<script setup lang="ts">
/**
 * The screens of a station, in the order of the work, and what could not be read. The first tab is the station itself.
 */
import { useRoute } from 'vue-router'

const props = defineProps<{
  title: string
  tabs: readonly { to: string; name: string; also?: string }[]
  failure?: string | null
}>()
const route = useRoute()
const here = (t: { to: string; also?: string }) =>
  t.to === props.tabs[0]!.to
    ? route.path.replace(/\/$/, '') === t.to || (!!t.also && route.path.startsWith(t.also))
    : route.path.startsWith(t.to)
</script>

<template>
  <div class="no-print mb-3 flex flex-wrap items-end gap-x-4 border-b-2 border-ink">
    <h1 class="pb-1">{{ title }}</h1>
    <nav :aria-label="title" class="flex flex-wrap gap-x-1">
      <NuxtLink
        v-for="t in tabs"
        :key="t.to"
        :to="t.to"
        class="flex min-h-[40px] items-center px-3 font-[650]"
        :class="here(t) ? 'bg-ink text-white' : ''"
        :aria-current="here(t) ? 'page' : undefined"
        >{{ t.name }}</NuxtLink
      >
    </nav>
  </div>
  <p v-if="failure" class="mb-2 font-semibold text-look" role="status">{{ failure }}</p>
</template>
