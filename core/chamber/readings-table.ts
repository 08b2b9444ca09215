/**
 * A probe's readings from a table (CSV already split into cells): one column of time and one of temperature, found by
 * their headings. Numbers with a decimal comma or point; times as seconds, minutes (when the heading says so), h:mm:ss
 * or a date and time. Every line that cannot be read is named; nothing is taken while one is.
 */
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

/**
 * Readings (s, °C) from a table of a probe, with what is wrong by its line: `lines[0]` is the heading and is line 1 of
 * the file. Times like `0:30` are read as `clock` says, or as the heading does; where neither does, it asks. Never
 * throws; a table with a wrong line gives its problems and the readings of the others.
 */
export function readTable(lines: readonly (readonly string[])[], clock: Clock | null = null): ReadTable {
  const head = lines[0] ?? []
  const timeAt = head.findIndex(h => TIME.test(h.trim()))
  const tempAt = head.findIndex((h, i) => i !== timeAt && TEMPERATURE.test(h))
  const problems: TableProblem[] = []
  if (timeAt < 0)
    problems.push({
      line: 1,
      message:
        `No column of time (headings: ${head.map(h => `"${h.trim()}"`).join(', ') || 'none'}). Name it ` +
        `"time s" or "minutes"`,
    })
  if (tempAt < 0) problems.push({ line: 1, message: 'No column of temperature. Name it "temperature C"' })
  const out: ReadTable = {
    readings: [],
    problems,
    asksClock: false,
    timeColumn: head[timeAt]?.trim() ?? null,
    temperatureColumn: head[tempAt]?.trim() ?? null,
  }
  if (problems.length > 0) return out
  const minutes = /min/i.test(head[timeAt]!)
  const reads = clock ?? clockOf(head[timeAt]!)
  if (reads === null && lines.some((cells, i) => i > 0 && TWO_PARTS.test((cells[timeAt] ?? '').trim())))
    return { ...out, asksClock: true }
  let first: number | null = null
  for (const [i, cells] of lines.entries()) {
    if (i === 0 || cells.every(c => c.trim() === '')) continue
    const line = i + 1
    if (cells.length !== head.length) {
      const perhaps = '; a decimal comma in a file separated by commas? Separate by semicolons, or quote the numbers'
      problems.push({
        line,
        message:
          `${cells.length} cells where the heading has ${head.length}` + (cells.length > head.length ? perhaps : ''),
      })
      continue
    }
    const s = seconds(cells[timeAt]!, minutes, reads),
      c = number(cells[tempAt]!)
    if (Number.isNaN(s)) {
      problems.push({ line, message: `"${cells[timeAt]!.trim()}" is not a time` })
      continue
    }
    if (Number.isNaN(c)) {
      problems.push({ line, message: `"${cells[tempAt]!.trim()}" is not a temperature` })
      continue
    }
    if (c < CHAMBER_C[0] || c > CHAMBER_C[1]) {
      problems.push({ line, message: `${c} °C is outside ${CHAMBER_C.join(' to ')} °C` })
      continue
    }
    first ??= s
    const at = s - first
    const before = out.readings[out.readings.length - 1]
    if (before && at <= before.s) {
      problems.push({ line, message: `The time ${cells[timeAt]!.trim()} is not after the line before` })
      continue
    }
    out.readings.push({ s: at, c })
  }
  if (out.readings.length === 0 && problems.length === 0) problems.push({ line: 1, message: 'No line with readings' })
  return out
}
