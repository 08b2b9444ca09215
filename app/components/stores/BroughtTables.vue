<script setup lang="ts">
/** What came in by tables of past runs, gauges and weighings; a table can be struck out as a whole. */
import { ref } from 'vue'
import { TABLES } from '#core/intake'
import { counted } from '#core/words'
import type { IntakeImports } from '#shared/answers/intake'
import StrikeSheet from '~/components/entry/StrikeSheet.vue'
import { useAnswer } from '~/composables/answer'
import { when } from '#shared/time'
import { useShop } from '~/state/shop'

type Brought = IntakeImports['imports'][number]
const { data } = useAnswer('/api/imports')
const shop = useShop()
const struck = ref<{ target: 'import'; id: number; says: string } | null>(null)
const many = (n: number, i: Brought) => counted(n, TABLES[i.kind].one, TABLES[i.kind].many)
function words(i: Brought): string {
  if (i.struck) return `struck out by ${i.struck.person}: ${i.struck.reason}`
  return i.standing < i.entries ? `${i.entries - i.standing} of them struck out` : ''
}
</script>

<template>
  <section v-if="data && data.imports.length > 0" aria-labelledby="brought-title">
    <h2 id="brought-title">What came in by tables</h2>
    <ul class="grid gap-1">
      <li
        v-for="i in data.imports"
        :key="i.id"
        class="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1"
        :class="i.struck ? 'text-ink2' : ''"
      >
        <b class="font-semibold" :class="i.struck ? 'line-through' : ''">{{ many(i.entries, i) }}</b>
        <span>{{ i.name }}</span>
        <span class="text-sm text-ink2">{{ when(i.at, shop.zone) }}, {{ i.person }}</span>
        <span v-if="words(i)" class="text-sm">{{ words(i) }}</span>
        <button
          v-if="!i.struck && i.standing > 0"
          type="button"
          class="act ml-auto"
          @click="struck = { target: 'import', id: i.id, says: `The table of ${many(i.entries, i)}` }"
        >
          Strike out all of it
        </button>
      </li>
    </ul>
    <StrikeSheet :target="struck" @close="struck = null" />
  </section>
</template>
