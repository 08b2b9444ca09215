<script setup lang="ts">
/** What may be taken from the shelf, the best first: one is picked. */
import { computed } from 'vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'

const props = defineProps<{
  name: string
  items: readonly { id: number; good: boolean; tag: string; words: string; says: string }[]
}>()
const picked = defineModel<number | null>({ required: true })
const MOST = 12
const shown = computed(() => props.items.slice(0, MOST))
</script>

<template>
  <ul class="sheet">
    <li v-for="c in shown" :key="c.id" class="border-t border-rule first:border-t-0">
      <label class="grid min-h-[52px] cursor-pointer grid-cols-[28px_22px_minmax(0,1fr)] items-start gap-x-2 px-3 py-2">
        <input
          type="radio"
          :name="name"
          class="mt-[2px] h-[20px] w-[20px] accent-ink"
          :checked="c.id === picked"
          @change="picked = c.id"
        />
        <VerdictMark :verdict="c.good ? 'fine' : 'look'" :size="18" class="mt-[2px]" />
        <span
          ><b>{{ c.tag }}</b
          >, {{ c.words }} <span class="block text-sm text-ink2">{{ c.says }}</span></span
        >
      </label>
    </li>
  </ul>
  <p v-if="items.length > MOST" class="mt-1 text-sm text-ink2">
    And {{ items.length - MOST }} more on the shelf that suit less.
  </p>
</template>
