<script setup lang="ts">
/** What a table may have for columns, with units and an example, and its headings to copy into a spreadsheet. */
import type { Column } from '#core/intake'
import { useUi } from '~/state/ui'

const props = defineProps<{ columns: readonly Column[]; many: string }>()
const ui = useUi()
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(props.columns.map(c => (c.unit ? `${c.label} (${c.unit})` : c.label)).join('\t'))
  ui.say('The headings are copied: paste them into the first line of a spreadsheet.')
}
const says = (c: Column) => {
  if (c.choices) return c.choices.join(', ')
  return { text: '', number: c.unit ?? '', day: 'a date, with or without a time', yes: 'yes or no', choice: '' }[
    c.reads
  ]
}
</script>

<template>
  <details class="sheet px-3 py-2">
    <summary class="min-h-[32px] cursor-pointer py-1 font-[650]">What a table of {{ many }} may have</summary>
    <div class="relative overflow-x-auto" tabindex="0" role="group" :aria-label="`Columns of ${many}, pan sideways`">
      <table class="record min-w-[480px]">
        <thead>
          <tr>
            <th scope="col">column</th>
            <th scope="col"></th>
            <th scope="col">what stands in it</th>
            <th scope="col">like</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="c in columns" :key="c.key">
            <th scope="row" class="text-left font-semibold">{{ c.label }}</th>
            <td>{{ c.needed ? 'needed' : '' }}</td>
            <td>{{ says(c) }}</td>
            <td>{{ c.example }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p class="my-2 text-sm">
      Any order, any of the usual headings; units in the heading, like “net (kg)”, or in the cell, like “750 g”.
      <button type="button" class="button plain" @click="copy">Copy the headings</button>
    </p>
  </details>
</template>
