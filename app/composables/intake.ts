/**
 * A pasted table on its way in: read here, looked at by the server, put right in place, saved as a whole. What was
 * pasted and changed is kept in this tab until it is saved.
 */
import { useDebounceFn, useSessionStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import {
  columnsOf,
  FIRST_TAG,
  looksLikeHeadings,
  matchHeadings,
  nextTags,
  readCell,
  writtenBy,
  type Column,
  type TableName,
  type Written,
} from '#core/intake'
import { listed } from '#core/words'
import type { IntakeLine } from '#shared/answers/intake'
import { mostLines } from '#shared/choices'
import { useAnswer } from '~/composables/answer'
import { useStage } from '~/composables/intake-stage'
import { ask, ProblemError } from '~/lib/api'
import { tableOfText } from '~/lib/table-text'
import { useShop } from '~/state/shop'

interface Kept {
  text: string
  /** The file it was in; empty for what was pasted. */
  name: string
  hasHeadings: boolean
  /** The column of each place; null is not taken. */
  keys: (string | null)[]
  units: (string | null)[]
  rows: { line: number; cells: string[] }[]
  leftOut: number[]
  written: Written
  /** Questions that were answered with yes, by line and code. */
  yes: string[]
}
const EMPTY: Kept = {
  text: '',
  name: '',
  hasHeadings: true,
  keys: [],
  units: [],
  rows: [],
  leftOut: [],
  written: { decimal: null, order: null },
  yes: [],
}
const LOOK_AFTER_MS = 350
const MOST_KEPT = 1_000_000

export interface ShownLine {
  line: number
  cells: string[]
  isLeftOut: boolean
  state: IntakeLine['state'] | 'reading'
  says: string
  /** What is wrong, by the column it is in. */
  errors: Record<string, string>
  /** A tag that is proposed where none is given. */
  tag: string | null
}

export function useIntake(table: Ref<TableName>) {
  const kept = useSessionStorage<Partial<Record<TableName, Kept>>>(
    'draft intake',
    {},
    {
      flush: 'sync',
      // it is always replaced as a whole, and may have thousands of lines
      shallow: true,
      // too much for this tab to keep: it is where it was copied from
      onError: () => {},
    },
  )
  const now = computed<Kept>({
    get: () => kept.value[table.value] ?? EMPTY,
    set: v => (kept.value = { ...kept.value, [table.value]: v }),
  })
  function change(v: Partial<Kept>): void {
    now.value = { ...now.value, ...v }
  }
  const problem = ref<string | null>(null)
  const columns = computed<readonly Column[]>(() => columnsOf(table.value))
  const shop = useShop()
  const { data: tags } = useAnswer('/api/known-tags')

  const stage = useStage()
  function paste(text: string, name = ''): void {
    stage.begin()
    const read = tableOfText(text)
    problem.value = read.problem
    // more than this the tab does not keep; it is where it was copied from
    const kept = text.length < MOST_KEPT ? text : ''
    if (read.problem !== null) return change({ ...EMPTY, text: kept, name })
    const most = mostLines(table.value)
    if (read.rows.length > most + 1) {
      problem.value = `${read.rows.length} lines: at most ${most} at once. Paste the table in parts.`
      return change({ ...EMPTY, text: kept, name })
    }
    const first = read.rows[0]?.cells ?? []
    const hasHeadings = looksLikeHeadings(first, columns.value)
    const heads = hasHeadings ? matchHeadings(first, columns.value) : []
    // without headings the columns stand in our order
    const keys = hasHeadings ? heads.map(h => h.key) : first.map((_, i) => columns.value[i]?.key ?? null)
    change({
      ...EMPTY,
      text: kept,
      name,
      hasHeadings,
      keys,
      units: first.map((_, i) => heads[i]?.unit ?? null),
      rows: read.rows,
    })
  }
  const headings = computed(() =>
    now.value.hasHeadings
      ? (now.value.rows[0]?.cells ?? [])
      : (now.value.rows[0]?.cells ?? []).map((_, i) => `column ${i + 1}`),
  )
  const body = computed(() => (now.value.hasHeadings ? now.value.rows.slice(1) : now.value.rows))
  const setHeadings = (hasHeadings: boolean) => change({ hasHeadings })
  /** Each column is taken from one place. */
  const setKey = (place: number, key: string | null) =>
    change({ keys: now.value.keys.map(k => (k === key ? null : k)).map((k, i) => (i === place ? key : k)) })
  const setCell = (line: number, place: number, cell: string) =>
    change({
      rows: now.value.rows.map(r =>
        r.line === line ? { ...r, cells: r.cells.map((c, i) => (i === place ? cell : c)) } : r,
      ),
    })
  const leaveOut = (line: number, out: boolean) =>
    change({ leftOut: out ? [...now.value.leftOut, line] : now.value.leftOut.filter(l => l !== line) })

  /** How the table writes its numbers and days: as it tells itself, else as was chosen. */
  const told = computed(() => {
    const places = now.value.keys.flatMap((k, i) => (k === null ? [] : [i]))
    return writtenBy(body.value.flatMap(r => places.map(i => r.cells[i] ?? '')))
  })
  const written = computed<Written>(() => ({
    decimal: now.value.written.decimal ?? told.value.decimal,
    order: now.value.written.order ?? told.value.order,
  }))
  const setWritten = (w: Partial<Written>) => change({ written: { ...now.value.written, ...w } })

  const read = computed(() => {
    const { keys, units, leftOut } = now.value
    const tagAt = keys.indexOf('tag')
    const tagged = table.value === 'nozzles' || table.value === 'spools' ? table.value : null
    const taken = body.value.filter(r => !leftOut.includes(r.line))
    const blank = tagged ? taken.filter(r => tagAt < 0 || (r.cells[tagAt] ?? '').trim() === '') : []
    const own = tagAt < 0 ? [] : taken.map(r => r.cells[tagAt] ?? '')
    const known = tagged ? (tags.value?.[tagged] ?? []) : []
    const proposed = tagged ? nextTags([...known, ...own], FIRST_TAG[tagged], blank.length) : []
    const columnAt = keys.map(key => columns.value.find(c => c.key === key) ?? null)
    return body.value.map(r => {
      const errors: Record<string, string> = {}
      const values: Record<string, string | number | boolean | null> = {}
      const asks: (keyof Written)[] = []
      for (const [i, column] of columnAt.entries()) {
        if (column === null) continue
        const cell = readCell(r.cells[i] ?? '', column, written.value, units[i] ?? null)
        if (cell.asks) asks.push(cell.asks)
        if (cell.problem !== null) errors[column.key] = cell.problem
        else if (cell.value !== null) values[column.key] = cell.value
      }
      const at = blank.indexOf(r)
      const tag = at < 0 ? null : proposed[at]!
      if (tag !== null) values.tag = tag
      return { ...r, isLeftOut: leftOut.includes(r.line), errors, values, asks, tag }
    })
  })
  const confirmed = computed(() => {
    const of = new Map<number, string[]>()
    for (const y of now.value.yes) {
      const line = Number(y.slice(0, y.indexOf(' ')))
      of.set(line, [...(of.get(line) ?? []), y.slice(y.indexOf(' ') + 1)])
    }
    return of
  })
  const sent = computed(() => ({
    table: table.value,
    name: now.value.name,
    lines: read.value
      .filter(r => !r.isLeftOut && Object.keys(r.errors).length === 0)
      .map(r => ({
        line: r.line,
        values: r.values,
        confirmed: confirmed.value.get(r.line) ?? [],
      })),
  }))

  const looked = shallowRef<IntakeLine[]>([])
  const looking = ref(false)
  let round = 0
  async function lookedAt(table: typeof sent.value) {
    const body = await stage.staged(table)
    return await stage.followed(ask('/api/intake/look', body), body.staged !== null)
  }
  const look = useDebounceFn(async () => {
    const mine = ++round
    const body = sent.value
    try {
      const answer = body.lines.length === 0 ? { lines: [] } : await lookedAt(body)
      if (mine !== round) return
      looked.value = answer.lines
      if (now.value.rows.length > 0) problem.value = null
    } catch (error) {
      if (mine !== round) return
      looked.value = []
      problem.value =
        error instanceof ProblemError ? error.problem.title : 'The server does not answer: nothing is looked at yet.'
    }
    looking.value = false
  }, LOOK_AFTER_MS)
  watch(
    () => JSON.stringify(sent.value),
    () => {
      round++
      looking.value = sent.value.lines.length > 0
      if (sent.value.lines.length === 0) looked.value = []
      void look()
    },
    { immediate: true },
  )
  // a server that was away is asked again when it is back
  watch(
    () => shop.reachable,
    isBack => isBack && void look(),
  )
  watch(table, () => {
    problem.value = null
    looked.value = []
  })

  const lines = computed<ShownLine[]>(() => {
    const answers = new Map(looked.value.map(l => [l.line, l]))
    return read.value.map(({ line, cells, isLeftOut, errors, tag }) => {
      const shown = { line, cells, isLeftOut, tag }
      if (isLeftOut) return { ...shown, state: 'here', says: 'left out', errors: {} }
      const own = Object.values(errors)
      if (own.length > 0) return { ...shown, state: 'wrong', says: own.join('; '), errors }
      const a = answers.get(line)
      if (!a) return { ...shown, state: 'reading', says: '', errors: {} }
      return {
        ...shown,
        state: a.state,
        says: a.says,
        errors: Object.fromEntries(a.errors.map(e => [e.field, e.message])),
      }
    })
  })
  const count = (state: ShownLine['state']) => lines.value.filter(l => !l.isLeftOut && l.state === state).length

  /** What is asked, each question once, with the lines that ask it. */
  const questions = computed(() => {
    const out = new Map<
      string,
      { code: string; message: string; choices: { code: string; label: string }[]; lines: number[] }
    >()
    for (const l of looked.value)
      for (const q of l.questions) {
        const key = `${q.code} ${q.message}`
        const known = out.get(key)
        if (known) known.lines.push(l.line)
        else out.set(key, { code: q.code, message: q.message, choices: q.choices ?? [], lines: [l.line] })
      }
    return [...out.values()]
  })
  const answer = (code: string, of: readonly number[]) =>
    change({ yes: [...now.value.yes, ...of.map(line => `${line} ${code}`)] })

  /** What has no decision yet, in the words of the table; null where all of it could be read. */
  const missing = computed(() => {
    const names = columns.value.filter(c => c.needed && !now.value.keys.includes(c.key)).map(c => c.label)
    return now.value.rows.length > 0 && names.length > 0 ? listed(names, 'and') : null
  })
  /** Whether the table does not tell how it is written where a line needs it. */
  const asksFor = (what: keyof Written) => read.value.some(r => r.asks.includes(what))
  /** The text stands in its field again, as it was pasted. */
  const putBack = () => change({ ...EMPTY, text: now.value.text, name: now.value.name })
  function done(): void {
    const { [table.value]: _, ...rest } = kept.value
    kept.value = rest
    looked.value = []
  }
  return {
    now,
    problem,
    columns,
    headings,
    lines,
    looking,
    questions,
    missing,
    asksFor,
    sent,
    count,
    paste,
    setHeadings,
    setKey,
    setCell,
    setWritten,
    leaveOut,
    answer,
    putBack,
    done,
    stage,
  }
}
