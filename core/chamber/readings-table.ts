/**
 * Readings of probes from a table (CSV already split into cells): a column of time and one of temperature, or one for
 * each probe of a survey, found by their headings. Numbers with a decimal comma or point; times as seconds, minutes
 * (when the heading says so), h:mm:ss or a date and time. Every line that cannot be read is named; nothing is taken
 * while one is.
 */
import type { Read } from './steady'
import { CHAMBER_C, type Reading } from './warm-up'

export interface TableProblem {
  line: number
  message: string
}
/** What two numbers with a colon between them are; a person is asked where the heading does not say. */
export type Clock = 'h:mm' | 'mm:ss'
export interface ReadTable {
  readings: Reading[]
  problems: TableProblem[]
  /** Its times can be read in two ways: nothing is taken until somebody says which. */
  asksClock: boolean
  timeColumn: string | null
  temperatureColumn: string | null
}

const TIME = /^(time|t|zeit|clock|seconds?|minutes?|date|elapsed)\b/i
const TEMPERATURE = /(temp|°c|\bc\b|celsius|chamber|air)/i
const number = (t: string) =>
  /^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/.test(t.trim()) ? Number(t.trim().replace(',', '.')) : NaN

/** `0:30` is half an hour or half a minute. */
const TWO_PARTS = /^\d{1,3}:\d{2}(?:[.,]\d+)?$/
function clockOf(heading: string): Clock | null {
  if (/\bh+:mm?\b/i.test(heading)) return 'h:mm'
  return /\bm+:ss?\b/i.test(heading) ? 'mm:ss' : null
}

function seconds(t: string, minutes: boolean, clock: Clock | null): number {
  const plain = number(t)
  if (!Number.isNaN(plain)) return plain * (minutes ? 60 : 1)
  if (TWO_PARTS.test(t.trim())) {
    const [a, b] = t
      .trim()
      .split(':')
      .map(x => Number(x.replace(',', '.'))) as [number, number]
    return clock === 'mm:ss' ? a * 60 + b : a * 3600 + b * 60
  }
  const parts = /^(\d{1,3}):(\d{2}):(\d{2}(?:[.,]\d+)?)$/.exec(t.trim())
  if (parts) return Number(parts[1]) * 3600 + Number(parts[2]) * 60 + Number(parts[3]!.replace(',', '.'))
  const date = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}/.test(t.trim()) ? Date.parse(t.trim().replace(' ', 'T')) : NaN
  return date / 1000
}

/** A line of the table: its number in the file, its cells, and the time in s as it stands there. */
interface Row {
  line: number
  cells: readonly string[]
  s: number
}
interface Rows {
  rows: Row[]
  problems: TableProblem[]
  asksClock: boolean
}

const noTime = (head: readonly string[]) =>
  `No column of time (headings: ${head.map(h => `"${h.trim()}"`).join(', ') || 'none'}). Name it "time s" or "minutes"`
const timeColumn = (head: readonly string[]) => head.findIndex(h => TIME.test(h.trim()))

/** The lines of which the time reads, under a heading whose column of time is `timeAt`. */
function rowsOf(lines: readonly (readonly string[])[], timeAt: number, clock: Clock | null): Rows {
  const head = lines[0] ?? []
  const minutes = /min/i.test(head[timeAt]!)
  const reads = clock ?? clockOf(head[timeAt]!)
  const out: Rows = { rows: [], problems: [], asksClock: false }
  if (reads === null && lines.some((cells, i) => i > 0 && TWO_PARTS.test((cells[timeAt] ?? '').trim())))
    return { ...out, asksClock: true }
  for (const [i, cells] of lines.entries()) {
    if (i === 0 || cells.every(c => c.trim() === '')) continue
    const line = i + 1
    if (cells.length !== head.length) {
      const perhaps = '; a decimal comma in a file separated by commas? Separate by semicolons, or quote the numbers'
      out.problems.push({
        line,
        message:
          `${cells.length} cells where the heading has ${head.length}` + (cells.length > head.length ? perhaps : ''),
      })
      continue
    }
    const s = seconds(cells[timeAt]!, minutes, reads)
    if (Number.isNaN(s)) out.problems.push({ line, message: `"${cells[timeAt]!.trim()}" is not a time` })
    else out.rows.push({ line, cells, s })
  }
  return out
}

/** The temperature of a cell, °C, or what is wrong with it. */
function degreesOf(cell: string): number | string {
  const c = number(cell)
  if (Number.isNaN(c)) return `"${cell.trim()}" is not a temperature`
  return c < CHAMBER_C[0] || c > CHAMBER_C[1] ? `${c} °C is outside ${CHAMBER_C.join(' to ')} °C` : c
}

const notAfter = (cell: string) => `The time ${cell.trim()} is not after the line before`

/**
 * Readings (s, °C) from a table of a probe, with what is wrong by its line: `lines[0]` is the heading and is line 1 of
 * the file. Times like `0:30` are read as `clock` says, or as the heading does; where neither does, it asks. Never
 * throws; a table with a wrong line gives its problems and the readings of the others.
 */
export function readTable(lines: readonly (readonly string[])[], clock: Clock | null = null): ReadTable {
  const head = lines[0] ?? []
  const timeAt = timeColumn(head)
  const tempAt = head.findIndex((h, i) => i !== timeAt && TEMPERATURE.test(h))
  const problems: TableProblem[] = []
  if (timeAt < 0) problems.push({ line: 1, message: noTime(head) })
  if (tempAt < 0) problems.push({ line: 1, message: 'No column of temperature. Name it "temperature C"' })
  const out: ReadTable = {
    readings: [],
    problems,
    asksClock: false,
    timeColumn: head[timeAt]?.trim() ?? null,
    temperatureColumn: head[tempAt]?.trim() ?? null,
  }
  if (problems.length > 0) return out
  const read = rowsOf(lines, timeAt, clock)
  if (read.asksClock) return { ...out, asksClock: true }
  problems.push(...read.problems)
  let first: number | null = null
  for (const { line, cells, s } of read.rows) {
    const c = degreesOf(cells[tempAt]!)
    if (typeof c === 'string') {
      problems.push({ line, message: c })
      continue
    }
    first ??= s
    const at = s - first
    const before = out.readings[out.readings.length - 1]
    if (before && at <= before.s) problems.push({ line, message: notAfter(cells[timeAt]!) })
    else out.readings.push({ s: at, c })
  }
  problems.sort((a, b) => a.line - b.line)
  if (out.readings.length === 0 && problems.length === 0) problems.push({ line: 1, message: 'No line with readings' })
  return out
}

export interface ReadSurveyTable {
  timesS: number[]
  /** One for each column beside the time, by its heading. */
  probes: { name: string; readC: Read[] }[]
  /** The column of the room, by its heading; null where none says so. */
  roomC: Read[] | null
  problems: TableProblem[]
  asksClock: boolean
}
const ROOM = /^(room|ambient|outside)\b/i
/** What a logger writes where a probe gave nothing. */
const NOTHING = /^(-*|nan|n\/?a|open|err(or)?|over)$/i

/**
 * A survey's readings (s, °C) from a table: a column of time and one for each probe, that of the room named so. An
 * empty cell, `--` or a logger's word for a broken probe is a probe that gave nothing. What is wrong is named by its
 * line, as in `readTable`; never throws.
 */
export function readSurveyTable(lines: readonly (readonly string[])[], clock: Clock | null = null): ReadSurveyTable {
  const head = lines[0] ?? []
  const timeAt = timeColumn(head)
  const columns = head.flatMap((h, i) => (i === timeAt || h.trim() === '' ? [] : [{ i, name: h.trim() }]))
  const out: ReadSurveyTable = { timesS: [], probes: [], roomC: null, problems: [], asksClock: false }
  if (timeAt < 0) out.problems.push({ line: 1, message: noTime(head) })
  else if (columns.length === 0) out.problems.push({ line: 1, message: 'No column of a probe beside the time' })
  if (out.problems.length > 0) return out
  const read = rowsOf(lines, timeAt, clock)
  if (read.asksClock) return { ...out, asksClock: true }
  out.problems.push(...read.problems)
  const all: { name: string; readC: Read[] }[] = columns.map(c => ({ name: c.name, readC: [] }))
  let first: number | null = null
  for (const { line, cells, s } of read.rows) {
    const values = columns.map(c => (NOTHING.test(cells[c.i]!.trim()) ? null : degreesOf(cells[c.i]!)))
    const wrong = values.findIndex(v => typeof v === 'string')
    first ??= s
    const before = out.timesS[out.timesS.length - 1]
    if (wrong >= 0) out.problems.push({ line, message: `${columns[wrong]!.name}: ${values[wrong]}` })
    else if (before !== undefined && s - first <= before) out.problems.push({ line, message: notAfter(cells[timeAt]!) })
    else {
      out.timesS.push(s - first)
      all.forEach((p, i) => p.readC.push(values[i] as Read))
    }
  }
  out.problems.sort((a, b) => a.line - b.line)
  if (out.timesS.length === 0 && out.problems.length === 0)
    out.problems.push({ line: 1, message: 'No line with readings' })
  out.probes = all.filter(p => !ROOM.test(p.name))
  out.roomC = all.find(p => ROOM.test(p.name))?.readC ?? null
  return out
}
