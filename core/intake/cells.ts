/** What a cell says: numbers with either decimal mark and their unit, days in either order, yes and no, choices. */
import type { Column } from './columns'

export interface Reading {
  /** Numbers in the column's unit, days as 2026-01-15 or 2026-01-15T08:30, on the shop's clock. */
  value: string | number | boolean | null
  /** Why it could not be read; null where it could, or is empty. */
  problem: string | null
  /** What of the whole table is not known, where that is why. */
  asks?: keyof Written
}
/** How the numbers and days of a whole table are written; null while nothing in it tells. */
export interface Written {
  decimal: ',' | '.' | null
  order: 'day first' | 'month first' | null
}
const nothing: Reading = { value: null, problem: null }
const got = (value: Reading['value']): Reading => ({ value, problem: null })
const cannot = (problem: string): Reading => ({ value: null, problem })
const cannotTell = (problem: string, asks: keyof Written): Reading => ({ ...cannot(problem), asks })

const NUMBER = /^([+-]?\d[\d.,'\s]*)\s*(.*)$/
const THOUSANDS = /^[+-]?\d{1,3}([.,])\d{3}$/
const DAY = /^(\d{1,4})([./-])(\d{1,2})\2(\d{1,4})(?:[T ,]+(\d{1,2}):(\d{2})(?::\d{2}(?:\.\d+)?)?)?$/

/** What all cells of a table tell of how it is written: one number or day that can be read in one way only. */
export function writtenBy(cells: readonly string[]): Written {
  let decimal: Written['decimal'] = null
  let order: Written['order'] = null
  for (const cell of cells) {
    const t = cell.trim()
    const number = NUMBER.exec(t)?.[1]?.trim()
    if (number && !DAY.test(t) && !THOUSANDS.test(number)) {
      const marks = [...number.replace(/['\s]/g, '').matchAll(/[.,]/g)].map(m => m[0])
      if (marks.length > 0) decimal ??= marks[marks.length - 1] as ',' | '.'
    }
    const d = DAY.exec(t)
    if (d && d[1]!.length < 3) order ??= orderOf(d)
  }
  return { decimal, order }
}

function numberOf(text: string, c: Column, decimal: Written['decimal'], unit: string | null): Reading {
  const m = NUMBER.exec(text)
  if (!m) return cannot(`Not a number: “${text}”`)
  const digits = m[1]!.replace(/['\s]/g, '')
  if (THOUSANDS.test(digits) && decimal === null && !/^[+-]?0/.test(digits)) {
    const [small, large] = [Number(digits.replace(',', '.')), Number(digits.replace(/[.,]/, ''))]
    return cannotTell(`“${text}” can be ${small} or ${large}: choose how decimals are written`, 'decimal')
  }
  const last = Math.max(digits.lastIndexOf(','), digits.lastIndexOf('.'))
  // a leading nought is no thousand
  const mark = decimal ?? (last < 0 ? '.' : digits[last]!)
  const plain = digits
    .split('')
    .filter(ch => /[\d+-]/.test(ch) || ch === mark)
    .join('')
    .replace(mark, '.')
  const value = Number(plain)
  if (!Number.isFinite(value)) return cannot(`Not a number: “${text}”`)
  const said = m[2]!.trim().toLowerCase()
  const by = said === '' ? (unit ?? '') : said
  if (by === '') return got(value)
  const factor = Object.hasOwn(c.units ?? {}, by) ? c.units![by] : undefined
  if (factor === undefined)
    return cannot(
      c.unit ? `“${m[2]!.trim()}” is no unit of it: ${c.unit} is` : `A number only, without “${m[2]!.trim()}”`,
    )
  // 0.75 kg is 750 g, not 750.0000000000001
  return got(Number((value * factor).toPrecision(12)))
}

/** Which stands first in a day that can be read in one way only: before points the day, and no month is the 13th. */
function orderOf(m: RegExpExecArray): Written['order'] {
  if (m[2] === '.' || Number(m[1]) > 12) return 'day first'
  return Number(m[3]) > 12 ? 'month first' : null
}

function dayOf(text: string, order: Written['order']): Reading {
  const m = DAY.exec(text)
  if (!m) return cannot(`Not a date: “${text}”; write it like 2026-01-15`)
  const [a, b, c] = [Number(m[1]), Number(m[3]), Number(m[4])]
  const yearFirst = m[1]!.length === 4
  if (!yearFirst && m[4]!.length === 3) return cannot(`Not a date: “${text}”; write it like 2026-01-15`)
  const first = orderOf(m) ?? order
  if (!yearFirst && first === null)
    return cannotTell(`“${text}” can be two days: choose whether day or month stands first`, 'order')
  const last = c < 100 ? 2000 + c : c
  const [year, month, date] = { 'year first': [a, b, c], 'day first': [last, b, a], 'month first': [last, a, b] }[
    yearFirst ? 'year first' : first!
  ] as [number, number, number]
  const there = new Date(Date.UTC(year, month - 1, date))
  if (there.getUTCMonth() !== month - 1 || there.getUTCDate() !== date) return cannot(`There is no day “${text}”`)
  const two = (v: number) => String(v).padStart(2, '0')
  const [h, min] = [Number(m[5] ?? 0), Number(m[6] ?? 0)]
  if (h > 23 || min > 59) return cannot(`There is no such time: “${text}”`)
  const on = `${year}-${two(month)}-${two(date)}`
  return got(m[5] === undefined ? on : `${on}T${two(h)}:${two(min)}`)
}

const YES = ['yes', 'y', 'x', 'true', '1', 'used', '✓']
const NO = ['no', 'n', '-', 'false', '0', 'new']

/**
 * Reads a cell as its column is read. Empty is null. `unit` is the one its heading gives; where the cell has its own,
 * that counts. A number that is not one, a unit of something else, a day that can be two, a formula: the problem says
 * what to do.
 */
export function readCell(cell: string, c: Column, written: Written, unit: string | null): Reading {
  // a list that was written out marks what would be worked out as a formula: it is the text behind the mark
  const text = cell.trim().replace(/^'(?=[=+\-@])/, '')
  if (text === '') return nothing
  if (cell.trim().startsWith('=')) return cannot('This is a formula: paste its value')
  if (/^#(?:REF|N\/A|VALUE|DIV\/0|NAME|NUM|NULL)[!?]?/i.test(text)) return cannot('This is a formula that failed')
  switch (c.reads) {
    case 'number':
      return numberOf(text, c, written.decimal, unit)
    case 'day':
      return dayOf(text, written.order)
    case 'yes': {
      const said = text.toLowerCase()
      if (YES.includes(said)) return got(true)
      return NO.includes(said) ? got(false) : cannot(`Yes or no: “${text}” is neither`)
    }
    case 'choice': {
      const found = c.choices!.find(x => x.toLowerCase() === text.toLowerCase())
      return found === undefined ? cannot(`“${text}” is none of: ${c.choices!.join(', ')}`) : got(found)
    }
    case 'text':
      return got(text)
  }
}
