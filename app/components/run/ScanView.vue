<script setup lang="ts">
/** What a job file holds, verdict first. */
import { computed, ref } from 'vue'
import { movesH, type FullScan } from '#core/gcode'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { duration, metres } from '#core/words'
import { problemWords } from '~/state/scans'
import { VERDICT_TEXT } from '~/words/verdict'

const props = defineProps<{ scan: FullScan; name: string }>()
defineEmits<{ dialect: [] }>()
const all = ref(false)
const q = (v: number | null) => (v === null ? '–' : `${v.toPrecision(3)}`)
const notText = computed(() => props.scan.problems.some(p => p.kind === 'not-text'))
const nothing = computed(() => props.scan.problems.some(p => p.kind === 'no-extrusion'))
const differs = computed(() => props.scan.otherReading !== null && props.scan.otherReading.difference > 0.001)
const faults = computed(() => props.scan.problems.filter(p => p.line !== null))
const shown = computed(() => (all.value ? faults.value.slice(0, 500) : faults.value.slice(0, 5)))
const verdict = computed(() => {
  const s = props.scan
  if (notText.value)
    return {
      verdict: 'stop' as const,
      text: 'This is not a text file, so it is no G-code. Is it the right file, or packed?',
    }
  if (s.lines === 0) return { verdict: 'stop' as const, text: 'This file is empty.' }
  if (nothing.value)
    return { verdict: 'stop' as const, text: 'Nothing is extruded in this file, so there is nothing to log.' }
  const time = movesH(s) === null ? 'its time is not known' : `at least ${duration(s.moveSeconds!)} of moves`
  const what = `${metres(s.totalExtrudedMm!)} of filament, ${time}`
  if (differs.value) return { verdict: 'look' as const, text: `${what}; but its E words can be read in two ways.` }
  if (faults.value.length > 0)
    return {
      verdict: 'look' as const,
      text:
        `${what}; ${faults.value.length + s.problemsNotListed} ` +
        `${faults.value.length === 1 ? 'line has a problem' : 'lines have problems'}.`,
    }
  return { verdict: 'fine' as const, text: `${what}. Read without problems.` }
})
</script>

<template>
  <section class="sheet p-3" :aria-label="`Scan of ${name}`">
    <p class="flex items-start gap-2 text-[15px] font-[650]" :class="VERDICT_TEXT[verdict.verdict]">
      <VerdictMark :verdict="verdict.verdict" class="mt-[2px]" />{{ verdict.text }}
    </p>
    <div v-if="differs" class="mt-2 border-2 border-look p-3">
      <p>
        Read with E on its own (M82 / M83) it is
        <b>{{
          metres(scan.dialect === 'eIndependent' ? scan.totalExtrudedMm! : scan.otherReading!.totalExtrudedMm)
        }}</b>; read with E following G90 / G91 it is
        <b>{{
          metres(scan.dialect === 'eIndependent' ? scan.otherReading!.totalExtrudedMm : scan.totalExtrudedMm!)
        }}</b>. Which one holds depends on the printer's firmware. In use:
        {{ scan.dialect === 'eIndependent' ? 'E on its own' : 'E following G90 / G91' }}.
      </p>
      <button type="button" class="button mt-2" @click="$emit('dialect')">Use the other reading</button>
    </div>
    <dl v-if="!notText && !nothing" class="mt-3 grid grid-cols-2 gap-x-4 gap-y-2 sm:grid-cols-4">
      <div>
        <dt class="label">extruded</dt>
        <dd>{{ metres(scan.totalExtrudedMm!) }}</dd>
      </div>
      <div>
        <dt class="label">flow, typical (half of it below)</dt>
        <dd>{{ q(scan.flow.p50) }} mm³/s</dd>
      </div>
      <div>
        <dt class="label">flow, 95 % below</dt>
        <dd>{{ q(scan.flow.p95) }} mm³/s{{ scan.flowBinned ? ' (± 0.1 %)' : '' }}</dd>
      </div>
      <div>
        <dt class="label">flow, peak</dt>
        <dd>{{ q(scan.flow.peak) }} mm³/s</dd>
      </div>
      <div>
        <dt class="label">nozzle, highest set</dt>
        <dd>
          {{
            Object.entries(scan.maxSetpointC.tools)
              .map(([t, c]) => (Object.keys(scan.maxSetpointC.tools).length > 1 ? `T${t} ${c} °C` : `${c} °C`))
              .join(', ') || 'not set'
          }}
        </dd>
      </div>
      <div>
        <dt class="label">bed, highest set</dt>
        <dd>{{ scan.maxSetpointC.bed === null ? 'not set' : `${scan.maxSetpointC.bed} °C` }}</dd>
      </div>
      <div>
        <dt class="label">chamber, highest set</dt>
        <dd>{{ scan.maxSetpointC.chamber === null ? 'not set' : `${scan.maxSetpointC.chamber} °C` }}</dd>
      </div>
      <div>
        <dt class="label">moves, at least</dt>
        <dd>{{ movesH(scan) === null ? 'no feedrate: not known' : duration(scan.moveSeconds!) }}</dd>
      </div>
    </dl>
    <div v-if="faults.length" class="mt-3">
      <h2 class="!text-[14px]">Problems by line</h2>
      <ul class="text-sm">
        <li v-for="(p, i) in shown" :key="i">Line {{ p.line }}: {{ problemWords(p.kind) }}</li>
      </ul>
      <button v-if="faults.length > 5 && !all" type="button" class="button plain" @click="all = true">
        Show all {{ faults.length + scan.problemsNotListed }}
      </button>
      <p v-if="all && faults.length + scan.problemsNotListed > 500" class="text-sm text-ink2">
        The first 500 are shown.
      </p>
    </div>
  </section>
</template>
