<script setup lang="ts">
/** The frame of every screen: mark, strip, person and connection above; stations on the left (below on a phone). */
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { ChevronDown } from '@lucide/vue'
import { computed, onMounted, ref } from 'vue'
import AppMark from '~/components/ui/AppMark.vue'
import ZoneAsk from '~/components/ui/ZoneAsk.vue'
import WhoAsk from '~/components/ui/WhoAsk.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import TheStrip from '~/components/strip/TheStrip.vue'
import { useListKeys } from '~/composables/list-keys'
import { STATIONS, useShortcuts } from '~/composables/shortcuts'
import { later } from '~/lib/later'
import { watchLeaving } from '~/lib/sheet-history'
import { usePaper } from '~/composables/paper'
import type { Station } from '#core/schedule'
import { nowLine } from '#shared/time'
import { useDue } from '~/state/due'
import { useLive } from '~/state/live'
import { useOutbox } from '~/state/outbox'
import { useShop } from '~/state/shop'

const OverScreen = later(() => import('~/components/ui/OverScreen.vue'))

const shop = useShop()
const outbox = useOutbox()
const route = useRoute()
const strip = ref<InstanceType<typeof TheStrip> | null>(null)
const outboxOpen = ref(false)
watchLeaving(useRouter())

onMounted(() => {
  void shop.load()
  shop.listen()
  useLive().listen()
  outbox.start()
  setInterval(() => {
    if (!shop.reachable) void shop.load()
  }, 5000)
})
useShortcuts(text => strip.value?.focus(text))
useListKeys()

const state = computed(() => {
  if (outbox.refused.length > 0)
    return {
      text: `${outbox.refused.length} ${outbox.refused.length === 1 ? 'entry needs' : 'entries need'} you`,
      look: true,
    }
  if (outbox.waiting > 0) return { text: `${outbox.waiting} waiting to be sent`, look: true }
  return shop.reachable
    ? { text: 'all entries saved', look: false }
    : { text: 'server away; entries are kept', look: true }
})
/** What is due at a station, by its key. */
const rail = useDue()
onMounted(rail.begin)
const due = computed<Record<string, number>>(() =>
  Object.fromEntries(STATIONS.map(s => [s.key, rail.counts[s.name.toLowerCase() as Station] ?? 0])),
)
/** Below each printed page: whose it is, and of when. */
const { at: printedAt } = usePaper()
const paper = computed(() => {
  const d = shop.data
  const by = shop.whoKnown && d ? ` by ${d.person.name}` : ''
  return d ? `${d.settings.shopName || 'Iron Nozzle'}, printed ${nowLine(shop.zone, printedAt.value)}${by}` : ''
})
/** What is due belongs to the Floor. */
const at = (path: string) => (path === '/' ? ['/', '/due'].includes(route.path) : route.path.startsWith(path))
</script>

<template>
  <div class="flex min-h-screen flex-col pb-[64px] md:pb-0 print:block print:min-h-0 print:pb-0">
    <a href="#content" class="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-white focus:p-3"
      >To the content</a
    >
    <header
      class="app-header z-30 flex flex-wrap items-center gap-x-4 gap-y-2 border-b-2 border-ink bg-sheet px-3 py-[6px] md:flex-nowrap md:px-[18px]"
    >
      <NuxtLink to="/" class="flex min-h-[40px] items-center gap-[10px] md:w-[190px]"
        ><AppMark /><span class="sr-only text-[16px] font-[800] tracking-[0.04em] [font-stretch:118%] sm:not-sr-only"
          >Iron Nozzle</span
        ></NuxtLink
      >
      <div class="order-last w-full md:order-none md:w-auto md:flex-1"><TheStrip ref="strip" /></div>
      <div class="ml-auto flex items-center gap-1 text-right leading-tight">
        <div>
          <Menu as="div" class="relative">
            <MenuButton class="flex items-center justify-end gap-1 px-1 font-[650]"
              >{{ shop.whoKnown ? (shop.data?.person.name ?? '…') : 'Who is there?'
              }}<ChevronDown :size="16" aria-hidden="true"
            /></MenuButton>
            <MenuItems class="sheet absolute right-0 z-50 min-w-[200px] py-1 text-left focus:outline-none">
              <p class="px-3 py-1 text-xs text-ink2">Entries are made by</p>
              <MenuItem v-for="p in shop.data?.people ?? []" :key="p.id" v-slot="{ active }">
                <button
                  type="button"
                  class="flex w-full items-center px-3 text-left"
                  :class="active ? 'bg-ink text-white' : ''"
                  @click="shop.actAs(p.id)"
                >
                  {{ p.name }}
                </button>
              </MenuItem>
            </MenuItems>
          </Menu>
        </div>
        <button
          type="button"
          class="label flex items-center gap-1 px-1 !text-[12px]"
          :class="state.look ? '!text-look' : ''"
          @click="outboxOpen = true"
        >
          <VerdictMark v-if="state.look" verdict="look" :size="14" />{{ state.text }}
        </button>
        <p
          v-if="shop.data?.onNetwork"
          class="max-w-[150px] px-1 text-xs text-look"
          title="There are no accounts yet: whoever reaches this address may enter and strike out"
        >
          everybody on the network may write
        </p>
      </div>
    </header>
    <div class="app-body flex flex-1 md:grid md:grid-cols-[84px_minmax(0,1fr)]">
      <nav
        aria-label="Stations"
        class="fixed inset-x-0 bottom-0 z-30 flex border-t border-rule bg-paper md:sticky md:top-0 md:h-screen md:max-h-[calc(100vh-56px)] md:flex-col md:border-r md:border-t-0 md:pt-[6px]"
      >
        <NuxtLink
          v-for="s in STATIONS"
          :key="s.path"
          :to="s.path"
          class="station relative flex h-[62px] flex-1 flex-col items-center justify-center gap-[3px] text-[13px] font-semibold [font-stretch:86%] md:h-[74px] md:flex-none"
          :class="[at(s.path) ? 'bg-ink text-white' : 'text-ink2', s.key === '7' ? 'md:mt-auto md:mb-2' : '']"
          :aria-current="at(s.path) ? 'page' : undefined"
        >
          <b class="text-[22px] leading-none font-light [font-stretch:75%]" aria-hidden="true">{{ s.key }}</b>{{
            s.name
          }}
          <span
            v-if="due[s.key]"
            class="absolute top-0 right-0 rounded-[9px] bg-bronze px-1 text-xs font-bold text-white md:top-2 md:right-2 md:px-[6px]"
            ><span class="sr-only">due: </span>{{ due[s.key] }}</span
          >
        </NuxtLink>
      </nav>
      <main id="content" class="min-w-0 flex-1 px-3 py-3 md:px-[18px] md:py-[14px]">
        <p v-if="route.meta.ownStamp !== true" class="print-only mb-3 border-b border-ink pb-1 text-xs">{{ paper }}</p>
        <WhoAsk />
        <ZoneAsk />
        <slot />
      </main>
    </div>
    <OverScreen :outbox-open="outboxOpen" @outbox-closed="outboxOpen = false" />
  </div>
</template>
