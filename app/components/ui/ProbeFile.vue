<script setup lang="ts" generic="T extends { problems: readonly TableProblem[]; asksClock: boolean }">
/** A probe's table from a file: read whole or not at all, every line that cannot be read is named. */
import Papa from 'papaparse'
import { ref } from 'vue'
import type { Clock, TableProblem } from '#core/chamber'

const props = defineProps<{ says: string; read: (lines: string[][], clock: Clock | null) => T }>()
/** What was read of it, with its problems; null before there is a file. */
const table = defineModel<T | null>({ required: true })
const name = defineModel<string>('name', { default: '' })
const input = ref<HTMLInputElement | null>(null)
const tooLarge = ref(false)
let lines: string[][] = []

const MOST_BYTES = 5_000_000
const CLOCKS: { clock: Clock; says: string }[] = [
  { clock: 'h:mm', says: 'hours and minutes' },
  { clock: 'mm:ss', says: 'minutes and seconds' },
]
async function take(file: File | undefined): Promise<void> {
  if (!file) return
  name.value = file.name
  tooLarge.value = file.size > MOST_BYTES
  if (tooLarge.value) {
    table.value = null
    return
  }
  const text = await file.text()
  lines = Papa.parse<string[]>(text.replace(/^\uFEFF/, '').replace(/\r?\n$/, ''), { skipEmptyLines: false }).data
  table.value = props.read(lines, null)
}
</script>

<template>
  <div class="grid gap-3">
    <p>
      {{ says }}
      <button type="button" class="button" @click="input?.click()">Choose the file</button
      ><input
        ref="input"
        type="file"
        accept=".csv,.txt,.tsv,text/csv"
        class="sr-only"
        aria-label="Probe file"
        tabindex="-1"
        @change="take(($event.target as HTMLInputElement).files?.[0])"
      />
    </p>
    <p v-if="tooLarge" class="font-semibold text-stop" role="alert">
      {{ name }} is over 5 MB; a probe needs a reading each ten seconds at most.
    </p>
    <div v-else-if="table && table.problems.length" class="border-2 border-stop p-3" role="alert">
      <p class="font-semibold text-stop">{{ name }}: nothing is taken until these lines are right.</p>
      <ul class="text-sm">
        <li v-for="(p, i) in table.problems.slice(0, 20)" :key="i">Line {{ p.line }}: {{ p.message }}</li>
      </ul>
      <p v-if="table.problems.length > 20" class="text-sm">and {{ table.problems.length - 20 }} more.</p>
    </div>
    <div v-else-if="table?.asksClock" class="border-2 border-look p-3" role="alert">
      <p class="mb-2 font-semibold">{{ name }}: its times, like 0:30, can be read in two ways. They are</p>
      <div class="flex flex-wrap gap-2">
        <button
          v-for="c in CLOCKS"
          :key="c.clock"
          type="button"
          class="button"
          @click="table = props.read(lines, c.clock)"
        >
          {{ c.says }}
        </button>
      </div>
    </div>
  </div>
</template>
