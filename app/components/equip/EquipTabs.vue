<script setup lang="ts">
/** The screens of Equip, in the order of the questions, and what could not be read. */
const TABS = [
  { to: '/equip', name: 'Ask' }, { to: '/equip/fleet', name: 'Fleet' }, { to: '/equip/stack', name: 'Stacks' }, { to: '/equip/materials', name: 'Materials' }, { to: '/equip/buy', name: 'Which nozzle to buy' },
] as const
defineProps<{ failure?: string | null }>()
const route = useRoute()
const here = (to: string) => to === '/equip' ? route.path === '/equip' || route.path === '/equip/' : route.path.startsWith(to)
</script>

<template>
  <div class="no-print mb-3 flex flex-wrap items-end gap-x-4 border-b-2 border-ink">
    <h1 class="pb-1">Equip</h1>
    <nav aria-label="Equip" class="flex flex-wrap gap-x-1">
      <NuxtLink v-for="t in TABS" :key="t.to" :to="t.to" class="flex min-h-[40px] items-center px-3 font-[650]" :class="here(t.to) ? 'bg-ink text-white' : ''" :aria-current="here(t.to) ? 'page' : undefined">{{ t.name }}</NuxtLink>
    </nav>
  </div>
  <p v-if="failure" class="mb-2 font-semibold text-look" role="status">{{ failure }}</p>
</template>
