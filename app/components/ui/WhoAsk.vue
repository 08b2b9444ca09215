<script setup lang="ts">
/**
 * Asks who is there while this browser does not know: entries would carry somebody else's name. It has its place from
 * the start, so that nothing moves from under a finger once the names are there.
 */
import { computed } from 'vue'
import { useShop } from '~/state/shop'

const shop = useShop()
const people = computed(() => shop.data?.people ?? [])
</script>

<template>
  <section
    v-if="!shop.whoKnown && (shop.data ? people.length > 0 : shop.reachable)"
    class="sheet no-print mb-3 flex flex-wrap items-center gap-2 border-2 border-look px-3 py-2"
    aria-label="Who is there"
  >
    <p class="font-semibold">Who is there? Entries made here carry this name.</p>
    <button v-for="p in people" :key="p.id" type="button" class="button" @click="shop.actAs(p.id)">{{ p.name }}</button>
    <NuxtLink v-if="shop.data" to="/stores?add=person" class="act text-sm">Somebody else</NuxtLink>
    <span v-else class="button invisible" aria-hidden="true">…</span>
  </section>
</template>
