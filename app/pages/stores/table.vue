<script setup lang="ts">
/** What a shop has by the table: pasted or from a file, looked at line by line, all of it or nothing. */
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { TABLE_NAMES, TABLES, type TableName } from '#core/intake'
import { counted, listed } from '#core/words'
import BroughtTables from '~/components/stores/BroughtTables.vue'
import TableColumns from '~/components/stores/TableColumns.vue'
import TableLines from '~/components/stores/TableLines.vue'
import ChoiceButtons from '~/components/ui/ChoiceButtons.vue'
import { useEntryForm } from '~/composables/entry-form'
import { useInAddress } from '~/composables/in-address'
import { useIntake } from '~/composables/intake'
import { textOfFile } from '~/lib/text-file'
import { useUi } from '~/state/ui'

useHead({ title: 'A whole table · Stores · Iron Nozzle' })
const ui = useUi()
const of = useInAddress('of', { none: 'nozzles' })
const table = computed<TableName>({
  get: () => TABLE_NAMES.find(t => t === of.value) ?? 'nozzles',
  set: t => (of.value = t),
})
const kind = computed(() => TABLES[table.value])
const intake = useIntake(table)
const { now, problem, columns, headings, lines, looking, questions, missing, asksFor, sent, count, stage } = intake
const form = useEntryForm('/api/intake')
const input = ref<HTMLInputElement | null>(null)
const over = ref(false)
/** One comes here to paste: the field is ready for it, but not where that would bring up a keyboard over the page. */
function ready(): void {
  if (window.matchMedia('(pointer: fine)').matches)
    document.getElementById('table-text')?.focus({ preventScroll: true })
}
onMounted(ready)
watch(table, () => void nextTick(ready))
/** What was saved last, and the table that usually comes after it. */
const saved = ref<{ says: string; next: TableName | null } | null>(null)
const NEXT: Record<TableName, TableName | null> = {
  printers: 'nozzles',
  types: 'nozzles',
  nozzles: 'spools',
  materials: 'spools',
  spools: 'runs',
  people: 'printers',
  runs: null,
  gauges: null,
  weighings: null,
}

/** Past runs are not needed for the first question. */
const asksNext = computed(() => saved.value?.next === null || saved.value?.next === 'runs')

const many = (n: number) => counted(n, kind.value.one, kind.value.many)
const OPTIONS = TABLE_NAMES.map(value => ({ value, text: TABLES[value].many }))
async function choose(file: File | undefined): Promise<void> {
  over.value = false
  if (!file) return
  const read = await textOfFile(file)
  if (read.problem !== null) problem.value = read.problem
  else take(read.text, file.name)
  if (input.value) input.value.value = ''
}
function take(text: string, name = ''): void {
  saved.value = null
  form.reset()
  intake.paste(text, name)
}
const open = computed(() => count('wrong') + count('asks') + count('reading'))
const sentence = computed(() => {
  const [fresh, here, asks, wrong] = [count('new'), count('here'), count('asks'), count('wrong')]
  const parts = [
    fresh > 0 ? `${many(fresh)} to add` : '',
    here > 0 ? `${here} here already` : '',
    asks > 0 ? `${counted(asks, 'line')} ${asks === 1 ? 'asks' : 'ask'} first` : '',
    wrong > 0 ? `${counted(wrong, 'line')} to put right or leave out` : '',
  ].filter(Boolean)
  if (parts.length === 0) return looking.value ? 'Looking at the lines' : 'No line is taken.'
  return `${listed(parts, 'and').replace(/^./, c => c.toUpperCase())}.`
})
async function save(): Promise<void> {
  sending.value = true
  const done = await sendAll()
  sending.value = false
  if (done === null) return
  intake.done()
  if (done === 'queued') return
  const { added, here } = done
  const says = `${many(added)} added${here > 0 ? `, ${here} ${here === 1 ? 'was' : 'were'} here already` : ''}.`
  saved.value = { says, next: NEXT[table.value] }
  ui.say(says)
}
/** A long table goes ahead in pieces, and its progress is followed. */
async function sendAll() {
  try {
    const body = await stage.staged(sent.value)
    return await stage.followed(form.send(body, `A table of ${kind.value.many}`), body.staged !== null)
  } catch {
    problem.value = 'The server does not answer: nothing is saved. Try again when it is back.'
    return null
  }
}
const sending = ref(false)
async function giveUp(): Promise<void> {
  await stage.giveUp().catch(() => {})
  problem.value = 'Given up: nothing of it is stored.'
}
const lineCount = computed(() => sent.value.lines.length)
const addWords = computed(() => {
  if (sending.value) return 'Saving'
  return count('new') === 0 ? `Add the ${kind.value.many}` : `Add ${many(count('new'))}`
})
/** Of questions of one kind the first are written out. */
const WRITTEN_OUT = 4
const linesOf = (n: readonly number[]) =>
  n.length > 6 ? `${n.length} lines` : `line${n.length > 1 ? 's' : ''} ${listed(n.map(String), 'and')}`
const asked = computed(() => {
  const out = new Map<string, typeof questions.value>()
  for (const q of questions.value) out.set(q.code, [...(out.get(q.code) ?? []), q])
  return [...out].map(([code, all]) => ({ code, all, of: all.flatMap(q => q.lines) }))
})
/** Those a bare yes answers. */
const plainly = computed(() => asked.value.filter(a => a.all.every(q => q.choices.length === 0)))
function yesToAll(): void {
  for (const a of plainly.value) intake.answer(a.code, a.of)
}
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] gap-3">
    <header class="flex flex-wrap items-baseline gap-x-4">
      <h1>A whole table</h1>
      <NuxtLink to="/stores" class="act">Back to Stores</NuxtLink>
    </header>
    <ChoiceButtons v-model="table" label="What the lines are" :options="OPTIONS" />
    <template v-if="now.rows.length === 0">
      <div v-if="saved" class="flex flex-wrap items-center gap-3">
        <p class="text-[17px] font-[680]" role="status">{{ saved.says }}</p>
        <button v-if="saved.next" type="button" class="button first" @click="table = saved.next">
          Next: {{ TABLES[saved.next].many }}
        </button>
        <NuxtLink v-if="asksNext" to="/equip" class="button inline-flex items-center" :class="saved.next ? '' : 'first'"
          >Ask the first question</NuxtLink
        >
      </div>
      <p>
        Copy the cells of your spreadsheet, headings and all, and paste them here, or choose a file. Nothing is stored
        before you have seen what each line does.
      </p>
      <div
        class="grid gap-2"
        @dragover.prevent="over = true"
        @dragleave="over = false"
        @drop.prevent="choose($event.dataTransfer?.files[0])"
      >
        <label for="table-text" class="font-semibold">The table of {{ kind.many }}</label>
        <textarea
          id="table-text"
          class="input min-h-[140px] font-mono text-sm"
          :class="over ? 'outline-3 outline-blue' : ''"
          spellcheck="false"
          :value="now.text"
          :placeholder="columns.map(c => c.label).join('\t')"
          @change="take(($event.target as HTMLTextAreaElement).value)"
          @paste.prevent="take($event.clipboardData?.getData('text') ?? '')"
        />
        <p class="flex flex-wrap items-center gap-3">
          <button type="button" class="button" @click="input?.click()">Choose a file</button>
          <span class="text-sm text-ink2">CSV or text, with commas, semicolons or tabs; or a list in JSON</span>
          <input
            ref="input"
            type="file"
            accept=".csv,.tsv,.txt,.json,text/csv,text/plain,application/json"
            class="sr-only"
            aria-label="File of the table"
            tabindex="-1"
            @change="choose(($event.target as HTMLInputElement).files?.[0])"
          />
        </p>
      </div>
      <p v-if="problem" class="font-semibold text-stop" role="alert">{{ problem }}</p>
      <TableColumns :key="table" :columns="columns" :many="kind.many" />
      <BroughtTables />
    </template>
    <template v-else>
      <p class="text-[17px] leading-snug font-[680]" role="status">{{ sentence }}</p>
      <p v-if="problem" class="font-semibold text-stop" role="alert">{{ problem }}</p>
      <p v-if="missing" class="font-semibold text-stop" role="alert">
        No column is taken for the {{ missing }}: choose it at the head of its column.
      </p>
      <p v-if="asksFor('decimal')" class="flex flex-wrap items-center gap-2" role="alert">
        <b>1,000 and 1.000 can be one or a thousand. Decimals are written with</b>
        <button type="button" class="button" @click="intake.setWritten({ decimal: '.' })">a point</button>
        <button type="button" class="button" @click="intake.setWritten({ decimal: ',' })">a comma</button>
      </p>
      <p v-if="asksFor('order')" class="flex flex-wrap items-center gap-2" role="alert">
        <b>3/4/2026 is</b>
        <button type="button" class="button" @click="intake.setWritten({ order: 'day first' })">3 April</button>
        <button type="button" class="button" @click="intake.setWritten({ order: 'month first' })">4 March</button>
      </p>
      <p v-if="plainly.length > 1">
        <button type="button" class="button" @click="yesToAll">Yes to these {{ plainly.length }} questions</button>
      </p>
      <section v-for="a in asked" :key="a.code" class="grid gap-1 border-2 border-look p-3" aria-label="Asked first">
        <p v-for="q in a.all.slice(0, WRITTEN_OUT)" :key="q.message" class="font-semibold text-look">
          {{ q.message }} <span class="text-sm font-normal text-ink2">{{ linesOf(q.lines) }}</span>
        </p>
        <p v-if="a.all.length > WRITTEN_OUT" class="text-sm">and {{ a.all.length - WRITTEN_OUT }} more like it.</p>
        <p class="flex flex-wrap items-center gap-2">
          <template v-if="a.all[0]!.choices.length > 0"
            ><button
              v-for="c in a.all[0]!.choices"
              :key="c.code"
              type="button"
              class="button"
              @click="intake.answer(c.code, a.of)"
            >
              {{ c.label }}
            </button></template
          >
          <button v-else type="button" class="button" @click="intake.answer(a.code, a.of)">
            Yes{{ a.of.length > 1 ? `, for all ${a.of.length} lines` : '' }}
          </button>
          <span class="text-sm text-ink2">If not, change the line or leave it out.</span>
        </p>
      </section>
      <p v-for="e in Object.values(form.errors.value)" :key="e" class="font-semibold text-stop" role="alert">{{ e }}</p>
      <p v-if="form.problem.value && !form.problem.value.errors" class="font-semibold text-stop" role="alert">
        {{ form.problem.value.title }}
      </p>
      <p class="flex flex-wrap items-center gap-2">
        <button
          type="button"
          class="button first"
          :disabled="open > 0 || looking || count('new') === 0 || sending"
          @click="save"
        >
          {{ addWords }}
        </button>
        <button type="button" class="button plain" @click="intake.putBack()">Back to the text</button>
        <label class="inline-flex min-h-[40px] items-center gap-2"
          ><input
            type="checkbox"
            :checked="now.hasHeadings"
            @change="intake.setHeadings(($event.target as HTMLInputElement).checked)"
          />
          the first line is headings</label
        >
        <span v-if="looking && stage.done.value === null" class="text-sm text-ink2">Looking at the lines</span>
      </p>
      <p v-if="stage.done.value !== null" class="flex flex-wrap items-center gap-3" role="status">
        <label class="flex flex-wrap items-center gap-2"
          >{{ sending ? 'Saving' : 'Looking at' }} line {{ stage.done.value }} of {{ lineCount }}
          <progress :value="stage.done.value" :max="lineCount" class="h-3 w-[180px] accent-blue" /></label
        ><button type="button" class="button" @click="giveUp">Give up</button>
      </p>
      <TableLines
        :key="table"
        :headings="headings"
        :keys="now.keys"
        :units="now.units"
        :columns="columns"
        :lines="lines"
        @key="intake.setKey"
        @cell="intake.setCell"
        @leave-out="intake.leaveOut"
      />
      <TableColumns :columns="columns" :many="kind.many" />
    </template>
  </div>
</template>
