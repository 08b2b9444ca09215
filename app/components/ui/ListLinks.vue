<script setup lang="ts">
/** A list for other programs: as CSV for a spreadsheet, as JSON for a program. */
import { LIST_WORDS, type ListFilter, type ListName } from '#shared/lists'

const props = defineProps<{ list: ListName; by?: Partial<Record<ListFilter, string>>; said?: string }>()
const href = (as: 'csv' | 'json') => `/api/lists/${props.list}?${new URLSearchParams({ as, ...props.by }).toString()}`
const what = () => [props.said ?? LIST_WORDS[props.list], ...Object.values(props.by ?? {})].join(' of ')
</script>

<template>
  <span class="inline-flex flex-wrap items-baseline gap-x-3 no-print">
    <a :href="href('csv')" class="act" download :aria-label="`${what()} as CSV`">CSV</a
    ><a :href="href('json')" class="act" download :aria-label="`${what()} as JSON`">JSON</a>
  </span>
</template>
