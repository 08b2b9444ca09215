<script setup lang="ts">
/* eslint-disable max-lines -- one screen: matrix, reasons and suggestion of the same fleet */
/** The fleet: every filament against every printer, one mark and one word each; open a cell for its reasons. */
import { costOf } from '~/words/cost'
import { CLASS_TEXT } from '~/words/verdict'
import Papa from 'papaparse'
import { computed, ref, watch } from 'vue'
import {
  blockersOf,
  byDedication,
  CLASS_WORDS,
  dedicate,
  findChanges,
  judge,
  matrix,
  reason,
  sentenceOf,
  VERDICT_CLASSES,
  type Cell,
  type Dedication,
  type MixPart,
  type Swap,
} from '#core/limits'
import EquipTabs from '~/components/equip/EquipTabs.vue'
import RequirementLines from '~/components/equip/RequirementLines.vue'
import ClassMark from '~/components/ui/ClassMark.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import ModalSheet from '~/components/ui/ModalSheet.vue'
import { usePaper } from '~/composables/paper'
import { useEquip } from '~/composables/equip'
import { notReady } from '#core/schedule'
import { counted, kg, money, percent } from '#core/words'
import { saveFile } from '~/lib/files'

useHead({ title: 'Fleet · Equip · Iron Nozzle' })
const { data, failure, filaments, fleet } = useEquip()
const family = ref('all')
const families = computed(() => ['all', ...new Set((data.value?.materials ?? []).map(m => m.polymer))])
const rows = computed(() => {
  if (!data.value) return []
  const shown = data.value.materials
    .map((m, i) => ({ m, filament: filaments.value[i]! }))
    .filter(
      r => family.value === 'all' || (family.value === 'filled' ? r.m.filler !== 'none' : r.m.polymer === family.value),
    )
  const cells = matrix(
    shown.map(r => r.filament),
    fleet.value,
  )
  return shown.map((r, i) => ({ ...r, cells: cells[i]! }))
})
const SHORT = {
  'runs': 'runs',
  'just': 'runs, just',
  'changes': 'after changes',
  'cannot': 'cannot',
  'cannot tell': 'cannot tell',
} as const
const count = computed(() => {
  const all = rows.value.flatMap(r => r.cells)
  const n = (c: string) => all.filter(x => x.class === c).length
  return { runs: n('runs'), just: n('just'), changes: n('changes'), cannot: n('cannot'), tell: n('cannot tell') }
})

/** A procedure left open, a tag, no commissioning: what fits on it does not run there now. */
const stands = (p: { id: number; name: string }) => {
  const standing = data.value?.standing.find(s => s.printerId === p.id)?.standing
  return standing !== undefined && notReady(p.name, standing).some(n => n.stops)
}
const open = ref<{ row: number; printer: number } | null>(null)
/** Reasons, changes and cost are worked out when a cell is opened. */
const detail = computed(() => {
  const o = open.value,
    r = o && rows.value[o.row]
  if (!o || !r || !data.value) return null
  const cell = r.cells[o.printer]!,
    c = fleet.value[o.printer]![cell.head]
  const demand = r.filament.demands[cell.demand]
  if (!c || !demand) return null
  const v = judge(c, demand),
    found = v.class === 'changes' ? findChanges(c, [demand]) : null
  const blockers = v.class === 'cannot' ? blockersOf(c, demand) : []
  return {
    r,
    cell,
    c,
    demand,
    v,
    found,
    printer: data.value.printers[o.printer]!,
    sentence: sentenceOf(v, c.printer.name, c.stack.nozzle, blockers),
    head: c.printer.heads.find(h => h.id === c.stack.headId)!,
  }
})

/** The lines that a class rests on. */
const DECIDES = { 'just': 'just', 'changes': 'short', 'cannot': 'short', 'cannot tell': 'unknown' } as const
function costWords(swaps: readonly Swap[]): string {
  const { price, unpriced } = costOf(swaps)
  const entered = money(price, data.value?.currency ?? '')
  return unpriced === 0 ? entered : `${entered} and ${counted(unpriced, 'price')} not entered`
}
function words(cell: Cell, printer: number, row: number): string {
  const c = fleet.value[printer]![cell.head],
    demand = rows.value[row]!.filament.demands[cell.demand]
  const cls = cell.class
  if (!c || !demand || cls === 'runs') return ''
  const v = judge(c, demand)
  const lines = cls === 'cannot' ? blockersOf(c, demand) : v.lines.filter(l => l.status === DECIDES[cls])
  return lines.map(l => reason(l, demand, c.stack.nozzle)).join('; ')
}
function exportCsv(): void {
  const text = Papa.unparse(
    {
      fields: ['filament', 'printer', 'head', 'practice', 'verdict', 'reasons'],
      data: rows.value.flatMap((r, i) =>
        r.cells.map((cell, p) => {
          const c = fleet.value[p]![cell.head]
          return [
            r.m.name,
            data.value!.printers[p]!.name,
            c?.printer.heads.find(h => h.id === c.stack.headId)?.name ?? '',
            r.filament.demands[cell.demand]?.set ?? '',
            CLASS_WORDS[cell.class],
            words(cell, p, i),
          ]
        }),
      ),
    },
    { newline: '\n' },
  )
  saveFile('fleet.csv', 'text/csv', text)
}
const print = () => window.print()
const { onPaper } = usePaper()
/** So many columns are read on an upright page. */
const MOST_ON_PAPER = 7
/** Paper does not pan: there the matrix stands in parts of a few printers each, as even as can be. */
const parts = computed(() => {
  const all = (data.value?.printers ?? []).map((printer, i) => ({ printer, i }))
  const each = onPaper.value ? Math.ceil(all.length / Math.ceil(all.length / MOST_ON_PAPER)) : all.length
  return Array.from({ length: Math.ceil(all.length / each) || 0 }, (_, k) => all.slice(k * each, (k + 1) * each))
})

// Which printer to give to filled filament: head by head, so that the page stays alive and it can be stopped.
const mix = computed<MixPart[]>(() =>
  (data.value?.mix ?? []).flatMap(x => {
    const i = data.value!.materials.findIndex(m => m.id === x.materialId)
    return i >= 0 && data.value!.materials[i]!.filler !== 'none' && x.kg > 0
      ? [{ filament: filaments.value[i]!, kg: x.kg }]
      : []
  }),
)
const ranked = ref<Dedication[] | null>(null)
const done = ref(0)
const working = ref(false)
let round = 0
async function suggest(): Promise<void> {
  const mine = ++round
  working.value = true
  done.value = 0
  const out: Dedication[] = []
  for (const heads of fleet.value) {
    out.push(...dedicate(mix.value, [heads]))
    done.value++
    await new Promise(r => setTimeout(r))
    if (mine !== round) return
  }
  ranked.value = out.sort(byDedication)
  working.value = false
}
function stop(): void {
  round++
  working.value = false
}
watch(data, () => {
  ranked.value = null
  stop()
})
const first = computed(() => ranked.value?.[0] ?? null)
const summary = computed(() => {
  const d = data.value
  if (!d || d.printers.length === 0 || d.materials.length === 0)
    return 'Describe a printer and a filament first; then every pair is judged here.'
  const c = count.value
  const pairs = rows.value.length * d.printers.length
  const tell = c.tell > 0 ? `; of ${c.tell} a fact is missing` : ''
  const just = c.just > 0 ? ` and ${c.just} just` : ''
  const never = `${c.changes} after changes, ${c.cannot} never here${tell}`
  return `Of ${pairs} pairs ${c.runs} run as they are${just}, ${never}.`
})
const afterChanges = (found: { swaps: Swap[] } | null) =>
  found === null || found.swaps.length === 0
    ? 'runs as it stands'
    : `runs after ${counted(found.swaps.length, 'change')} for ${costWords(found.swaps)}`
const detailTitle = computed(() => {
  const d = detail.value
  if (!d) return ''
  return `${d.r.m.name} on ${d.printer.name}${d.printer.heads.length > 1 ? `, ${d.head.name}` : ''}`
})
</script>

<template>
  <div>
    <EquipTabs :failure="failure" />
    <template v-if="data">
      <p class="mb-3 text-[15px] font-[650]">
        {{ summary }}
      </p>
      <div class="no-print mb-3 flex flex-wrap items-end gap-3">
        <FieldSelect
          id="fleet-family"
          v-model="family"
          label="Family"
          class="w-52"
          :options="[
            { value: 'all', text: 'all filaments' },
            { value: 'filled', text: 'filled ones only' },
            ...families.filter(f => f !== 'all').map(f => ({ value: f, text: f })),
          ]"
        />
        <button type="button" class="button" @click="exportCsv">Save as CSV</button
        ><button type="button" class="button" @click="print">Print</button>
        <p class="flex flex-wrap items-center gap-x-4 self-center pt-3 text-xs text-ink2">
          <span v-for="c in VERDICT_CLASSES" :key="c" class="flex items-center gap-1"
            ><ClassMark :verdict="c" :size="13" />{{ SHORT[c] }}</span
          >
        </p>
      </div>
      <div class="sheet relative overflow-x-auto" tabindex="0" role="group" aria-label="Fleet matrix, pans sideways">
        <table v-for="(part, k) in parts" :key="k" class="record" :class="k > 0 ? 'mt-5' : ''">
          <thead>
            <tr>
              <th class="sticky left-0 z-10 bg-sheet">filament</th>
              <th v-for="{ printer: p } in part" :key="p.id">
                <NuxtLink :to="`/equip/stack/${p.id}`" class="flex min-h-[40px] flex-col justify-center"
                  ><b class="text-[14px] text-ink underline underline-offset-2">{{ p.name }}</b
                  ><span class="font-normal">{{ p.kind }}</span
                  ><span v-if="stands(p)" class="font-[650] text-stop">not ready</span></NuxtLink
                >
              </th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(r, i) in rows" :key="r.m.id">
              <th class="sticky left-0 z-10 bg-sheet text-[13px]! text-ink!" scope="row">{{ r.m.name }}</th>
              <td v-for="{ i: p, c } in part.map(x => ({ i: x.i, c: r.cells[x.i]! }))" :key="p" class="p-0!">
                <button
                  type="button"
                  class="flex w-full items-center gap-2 px-2 text-left hover:bg-white"
                  :class="CLASS_TEXT[c.class]"
                  @click="open = { row: i, printer: p }"
                >
                  <ClassMark :verdict="c.class" :size="15" /><span class="whitespace-nowrap"
                    >{{ SHORT[c.class]
                    }}<span v-if="c.class !== 'cannot' && data.printers[p]!.heads.length > 1" class="text-xs text-ink2">
                      · {{ data.printers[p]!.heads[c.head]?.name }}</span
                    ></span
                  ><span class="sr-only">: {{ r.m.name }} on {{ data.printers[p]!.name }}</span>
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <section class="mt-5 max-w-[900px]" aria-labelledby="dedicate">
        <h2 id="dedicate">Which printer for filled filament</h2>
        <p class="mb-2 text-sm text-ink2">
          By the shop's own mix of the last {{ data.mixDays }} days:
          {{
            mix.length === 0
              ? 'no filled filament was printed'
              : mix.map(m => `${m.filament.name} ${kg(m.kg)}`).join(', ')
          }}.
        </p>
        <div v-if="mix.length > 0" class="no-print flex flex-wrap items-center gap-3">
          <button v-if="!working" type="button" class="button" @click="suggest">
            {{ ranked ? 'Work it out again' : 'Suggest one' }}
          </button>
          <template v-else
            ><progress :value="done" :max="fleet.length" aria-label="Printers worked out" /><span class="text-sm"
              >{{ done }} of {{ fleet.length }} printers</span
            ><button type="button" class="button" @click="stop">Stop</button></template
          >
        </div>
        <template v-if="ranked && first">
          <p class="mt-2 text-[15px] font-[650]" role="status">
            Give it to {{ first.printer.name
            }}{{
              first.printer.heads.length > 1 ? `, ${first.printer.heads.find(h => h.id === first!.headId)?.name}` : ''
            }}: {{ first.left === 0 ? 'all of the mix' : `${percent(1 - first.left)} of the mix` }}
            {{ afterChanges(first.found) }}{{ first.leftOut.length ? `; not ${first.leftOut.join(', ')}` : '' }}.
          </p>
          <div class="relative overflow-x-auto" tabindex="0" role="group" aria-label="Ranking, pans sideways">
            <table class="record sheet mt-2 min-w-[600px]">
              <thead>
                <tr>
                  <th>printer</th>
                  <th class="num">of the mix</th>
                  <th class="num">changes</th>
                  <th class="num">parts</th>
                  <th>left out</th>
                </tr>
              </thead>
              <tbody>
                <tr v-for="d in ranked" :key="d.headId">
                  <td>
                    <b>{{ d.printer.name }}</b>{{
                      d.printer.heads.length > 1 ? `, ${d.printer.heads.find(h => h.id === d.headId)?.name}` : ''
                    }}
                  </td>
                  <td class="num">{{ percent(1 - d.left) }}</td>
                  <td class="num">{{ d.found ? d.found.swaps.length : '–' }}</td>
                  <td class="num">{{ d.found ? costWords(d.found.swaps) : '–' }}</td>
                  <td>{{ d.leftOut.join(', ') }}</td>
                </tr>
              </tbody>
            </table>
          </div>
        </template>
      </section>
      <ModalSheet :open="detail !== null" :title="detailTitle" wide @close="open = null">
        <div v-if="detail" class="grid grid-cols-[minmax(0,1fr)] gap-3">
          <p class="flex items-start gap-2 font-[650]">
            <ClassMark :verdict="detail.v.class" class="mt-[2px]" />{{ detail.sentence }}
          </p>
          <p class="text-sm text-ink2">By the practice “{{ detail.demand.set }}”, the one that fares best here.</p>
          <div v-if="detail.found">
            <p class="font-semibold">
              {{ counted(detail.found.swaps.length, 'change') }}, {{ costWords(detail.found.swaps) }} for parts,
              {{ detail.found.minutes }} min:
            </p>
            <ul class="list-disc pl-5">
              <li v-for="s in detail.found.swaps" :key="s.text">
                {{ s.text }}<span v-if="s.who === 'electrician'" class="text-look"> (licensed electrician)</span>
              </li>
            </ul>
          </div>
          <RequirementLines :lines="detail.v.lines" :demand="detail.demand" :nozzle="detail.c.stack.nozzle" brief />
          <p>
            <NuxtLink
              class="button first"
              :to="{
                path: '/equip',
                query: {
                  filament: detail.r.m.id,
                  set: detail.demand.set,
                  printer: detail.printer.id,
                  head: detail.c.stack.headId,
                },
              }"
              >Open the question</NuxtLink
            >
          </p>
        </div>
      </ModalSheet>
    </template>
    <div
      v-else-if="!failure"
      class="sheet h-[560px] animate-pulse opacity-60"
      role="status"
      aria-label="Reading the fleet"
    />
  </div>
</template>
