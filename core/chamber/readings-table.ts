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
export interface ReadTable {
  readings: Reading[]
  problems: TableProblem[]
  timeColumn: string | null
  temperatureColumn: string | null
}

const TIME = /^(time|t|zeit|clock|seconds?|minutes?|date|elapsed)\b/i
const TEMPERATURE = /(temp|°c|\bc\b|celsius|chamber|air)/i
const number = (t: string) =>
  /^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/.test(t.trim()) ? Number(t.trim().replace(',', '.')) : NaN

function seconds(t: string, minutes: boolean): number {
  const plain = number(t)
  if (!Number.isNaN(plain)) return plain * (minutes ? 60 : 1)
  const clock = /^(\d{1,3}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?$/.exec(t.trim())
  if (clock) return Number(clock[1]) * 3600 + Number(clock[2]) * 60 + Number((clock[3] ?? '0').replace(',', '.'))
  const date = /^\d{4}-\d{2}-\d{2}[T ]\d{2}:\d{2}/.test(t.trim()) ? Date.parse(t.trim().replace(' ', 'T')) : NaN
  return date / 1000
}

/**
 * Readings (s, °C) from a table of a probe, with what is wrong by its line: `lines[0]` is the heading and is line 1 of
 * the file. Never throws; a table with a wrong line gives its problems and the readings of the others.
 */
export function readTable(lines: readonly (readonly string[])[]): ReadTable {
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
    timeColumn: head[timeAt]?.trim() ?? null,
    temperatureColumn: head[tempAt]?.trim() ?? null,
  }
  if (problems.length > 0) return out
  const minutes = /min/i.test(head[timeAt]!)
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
    const s = seconds(cells[timeAt]!, minutes),
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
