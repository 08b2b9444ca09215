<script setup lang="ts">
/** A mesh that the printer printed: pasted or from a file; what is missing or cannot be read is said at once. */
import { computed, ref } from 'vue'
import { readMesh, type MeshLevel } from '#core/level'
import { counted, listed } from '#core/words'
import type { LevelPage } from '#shared/answers/level'
import { seeLevel } from '#shared/level'
import BedDrawing from '~/components/change/BedDrawing.vue'
import LevelAt from '~/components/change/LevelAt.vue'
import EntrySheet from '~/components/entry/EntrySheet.vue'
import FieldNumber from '~/components/ui/FieldNumber.vue'
import FieldSelect from '~/components/ui/FieldSelect.vue'
import VerdictMark from '~/components/ui/VerdictMark.vue'
import { useEntrySheet } from '~/composables/entry-sheet'
import { textOfFile } from '~/lib/text-file'
import { VERDICT_TEXT } from '~/words/verdict'
import { sent } from '~/words/numbers'

const props = defineProps<{ page: LevelPage }>()
const emit = defineEmits<{ close: [] }>()
const EDGE_MM = 20
interface Area {
  text: string
  leftMm: number | null
  rightMm: number | null
  frontMm: number | null
  backMm: number | null
  firstRow: 'front' | 'back' | null
}
const meshOf = ({ leftMm, rightMm, frontMm, backMm, firstRow }: Area, rows: MeshLevel['rows']) => {
  return { how: 'mesh', rows, leftMm, rightMm, frontMm, backMm, firstRow }
}
const sheet = useEntrySheet('/api/levels', {
  on: () => props.page,
  name: p => `mesh ${p.printerId}`,
  start: p => {
    const was = p.latest?.measured.how === 'mesh' ? p.latest.measured : null
    const { widthMm, depthMm } = p.bed!
    return {
      text: '',
      leftMm: (was?.leftMm ?? EDGE_MM) as number | null,
      rightMm: (was?.rightMm ?? widthMm - EDGE_MM) as number | null,
      frontMm: (was?.frontMm ?? EDGE_MM) as number | null,
      backMm: (was?.backMm ?? depthMm - EDGE_MM) as number | null,
      firstRow: (was?.firstRow ?? null) as 'front' | 'back' | null,
      bedC: p.jobC,
      soakedMin: null as number | null,
      note: '',
      occurredAt: new Date().toISOString(),
    }
  },
  body: ({ bedC, soakedMin, note, occurredAt, ...area }, p) => ({
    printerId: p.printerId,
    bedC,
    soakedMin: sent(soakedMin),
    note,
    occurredAt,
    measured: meshOf(area, readMesh(area.text).rows),
  }),
  says: (_, p) => `Mesh of ${p.printer}`,
  saved: (done, _, p) => `${p.printer}: ${done.says}${done.action ? ` ${done.action}.` : ''}`,
  close: () => emit('close'),
})
const read = computed(() => (sheet.v.text.trim() === '' ? null : readMesh(sheet.v.text)))
const measured = computed(() => meshOf(sheet.v, read.value?.rows ?? []) as MeshLevel)
const seen = computed(() =>
  read.value && read.value.problems.length === 0
    ? seeLevel(measured.value, props.page.bed!, { bedC: sheet.v.bedC, jobC: props.page.jobC })
    : null,
)
const fileProblem = ref('')
async function choose(e: Event): Promise<void> {
  const input = e.target as HTMLInputElement
  const file = input.files?.[0]
  input.value = ''
  if (!file) return
  const { text, problem } = await textOfFile(file)
  fileProblem.value = problem ?? ''
  if (problem === null) sheet.v.text = text
}
const SHOWN = ['measured.leftMm', 'measured.rightMm', 'measured.frontMm', 'measured.backMm', 'measured.firstRow']
/** Problems and holes that are listed one by one. */
const MOST = 8
const holes = computed(() => {
  const all = (read.value?.holes ?? []).map(h => `row ${h.row}, column ${h.column}`)
  if (all.length === 0) return ''
  const more = all.length > MOST ? `; and ${counted(all.length - MOST, 'more')}` : ''
  return `Missing, and left out: ${all.slice(0, MOST).join('; ')}${more}.`
})
</script>

<template>
  <EntrySheet
    :sheet="sheet"
    wide
    :title="`Mesh of ${page.printer}`"
    action="Save the mesh"
    :blocked="read === null || read.problems.length > 0"
    :shown="[...SHOWN, 'bedC', 'soakedMin', 'occurredAt', 'note']"
  >
    <div class="field">
      <label for="mesh-text">The heights, as the printer prints them or as a table, mm</label>
      <textarea
        id="mesh-text"
        v-model="sheet.v.text"
        class="input min-h-[150px] py-2 font-mono text-sm"
        rows="7"
        spellcheck="false"
        aria-describedby="mesh-says"
        placeholder="0.12  0.05  -0.02&#10;0.10  0.04  -0.03&#10;0.11  nan   -0.01"
      />
      <div id="mesh-says" class="text-sm" role="status">
        <template v-if="read">
          <ul v-if="read.problems.length > 0" class="font-semibold text-stop">
            <li v-for="p in read.problems.slice(0, MOST)" :key="`${p.line} ${p.message}`">
              Line {{ p.line }}: {{ p.message }}
            </li>
            <li v-if="read.problems.length > MOST">and {{ counted(read.problems.length - MOST, 'more problem') }}</li>
          </ul>
          <p v-else>
            {{ counted(read.rows.length, 'row') }} of {{ read.rows[0]!.length }}.
            {{ read.left.length > 0 ? `Left out: ${listed(read.left, 'and')}.` : '' }} {{ holes }}
          </p>
        </template>
        <p v-else class="text-ink2">Decimal point or comma; write nan where a point is missing.</p>
      </div>
    </div>
    <p>
      <label class="button inline-flex cursor-pointer"
        >Open a file<input type="file" class="sr-only" accept=".csv,.txt,.json,text/*" @change="choose"
      /></label>
    </p>
    <p v-if="fileProblem" class="font-semibold text-stop" role="alert">{{ fileProblem }}</p>
    <div class="grid grid-cols-2 gap-3 sm:grid-cols-3">
      <FieldSelect
        id="mesh-first"
        v-model="sheet.v.firstRow"
        label="Its first row is at the"
        :options="[
          { value: null, text: 'choose' },
          { value: 'front', text: 'front of the bed' },
          { value: 'back', text: 'back of the bed' },
        ]"
        :error="sheet.errors['measured.firstRow']"
      />
      <FieldNumber
        v-for="k in ['leftMm', 'rightMm', 'frontMm', 'backMm'] as const"
        :id="`mesh-${k}`"
        :key="k"
        v-model="sheet.v[k]"
        :label="
          {
            leftMm: 'First column, from the left',
            rightMm: 'Last column, from the left',
            frontMm: 'Front row, from the front',
            backMm: 'Back row, from the front',
          }[k]
        "
        unit="mm"
        :error="sheet.errors[`measured.${k}`]"
      />
      <LevelAt id="mesh" v-model="sheet.v" :errors="sheet.errors" />
    </div>
    <template v-if="seen">
      <p class="flex items-start gap-2 font-[650]" :class="VERDICT_TEXT[seen.verdict.mark]" role="status">
        <VerdictMark :verdict="seen.verdict.mark" :size="18" class="mt-[2px]" />{{ seen.verdict.says }}
        {{ seen.verdict.action ? `${seen.verdict.action}.` : '' }}
      </p>
      <BedDrawing :bed="page.bed!" :found="seen.found" :label="`The mesh on the bed of ${page.printer}`" />
    </template>
  </EntrySheet>
</template>
