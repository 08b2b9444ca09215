<script setup lang="ts">
/**
 * Beside the verdict: who takes this filament as it is, before anything is swapped; and how much of its windows this
 * printer can use, where that is not all.
 */
import { computed } from 'vue'
import type { UsedLine } from '#shared/answers/bench'
import {
  narrower,
  runsAsItIs,
  usableWindows,
  usableWords,
  type AsItIs,
  type Compiled,
  type Demand,
  type Filament,
  type Printer,
  type Rules,
  type Used,
} from '#core/limits'
import VerdictMark from '~/components/ui/VerdictMark.vue'

const props = defineProps<{
  printer: Printer
  headId: number
  demand: Demand
  rules: Rules
  materialId: number
  used: UsedLine | null
  /** The filament under all its practices, when the verdict is not that it runs; null otherwise. */
  filament: Filament | null
  fleet: readonly (readonly Compiled[])[]
}>()

const windows = computed(() => {
  const used: Used = {}
  for (const what of ['nozzle', 'bed', 'chamber'] as const) if (props.used?.[what]) used[what] = props.used[what]
  return usableWindows(props.printer, props.headId, props.demand, props.rules).flatMap(u => {
    const words = usableWords(u)
    const jobs = used[u.what]
    const span = jobs && jobs[0] !== jobs[1] ? `${jobs[0]} to ${jobs[1]}` : `${jobs?.[0] ?? ''}`
    const beyond = narrower(u, used) ? span : ''
    return words === '' ? [] : [{ words, part: u.part?.name ?? '', jobs: beyond }]
  })
})
const asItIs = computed(() => (props.filament ? runsAsItIs(props.filament.demands, props.fleet) : []))
const headOf = (a: AsItIs) =>
  a.printer.heads.length > 1 ? `, ${a.printer.heads.find(h => h.id === a.headId)?.name}` : ''
const to = (a: AsItIs) => ({
  path: '/equip',
  query: { printer: a.printer.id, head: a.headId, filament: props.materialId, set: a.demand.set },
})
</script>

<template>
  <p v-if="asItIs.length > 0" class="mb-1 flex flex-wrap items-baseline gap-x-3 text-sm">
    <b>Runs as it is:</b
    ><NuxtLink v-for="a in asItIs" :key="`${a.printer.id} ${a.headId}`" :to="to(a)" class="act"
      >{{ a.printer.name }}{{ headOf(a) }}{{ a.class === 'just' ? ' (just)' : '' }}</NuxtLink
    >
  </p>
  <ul v-if="windows.length > 0" class="mb-1 text-sm" aria-label="Usable windows">
    <li v-for="w in windows" :key="w.words" class="flex items-start gap-2" :class="w.jobs ? 'text-look' : ''">
      <VerdictMark v-if="w.jobs" verdict="look" :size="15" class="mt-[2px]" /><span
        >Usable here: {{ w.words }}{{ w.part ? `; ended by the ${w.part}` : ''
        }}{{ w.jobs ? `. The shop’s own jobs of it used ${w.jobs} °C` : '' }}.</span
      >
    </li>
  </ul>
</template>
