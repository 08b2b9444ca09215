/**
 * A bed's heights from text: a table (CSV), or the plain grid of numbers that a printer prints, one row a line. Decimal
 * point or comma; cells by semicolon, tab, comma or blanks; rows in square brackets; a first line and first column
 * that only count are left out. What is missing and what cannot be read is named by its place. mm.
 */
import { counted } from '../words'
import { HEIGHT_MM } from './plane'

/** Rows and columns of a mesh. */
export const MESH_SIDE = [2, 60] as const
/** No mesh is longer than this, in characters. */
export const MESH_TEXT = 60_000

export interface MeshText {
  /** Heights in mm as they stand, row by row; null where one is missing. */
  rows: (number | null)[][]
  /** Where one is missing, rows and columns from 1. */
  holes: { row: number; column: number }[]
  /** What keeps it from being read, by the line of the text. */
  problems: { line: number; message: string }[]
  /** Left out on purpose, in words. */
  left: string[]
}

const NUMBER = /^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?$/i
const WITH_COMMA = /^[+-]?\d*,\d+$/
/** What stands where a probe gave nothing. */
const HOLE = /^(?:|-+|=+|\.+|\?+|\*+|x+|nan|n\/?a|null|none|inf|off)$/i

interface Line {
  line: number
  cells: string[]
}

/** Lines of the text with what is in brackets taken apart. */
function linesOf(text: string): { line: number; text: string }[] {
  return text.split(/\r\n|\r|\n/).flatMap((whole, i) =>
    whole.split(']').flatMap(part => {
      const t = part
        .replace(/^\s*,/, '')
        .replace(/[[\](){}|"']/g, ' ')
        .trim()
      return t.replace(/[,;]/g, '').trim() === '' ? [] : [{ line: i + 1, text: t }]
    }),
  )
}

type Cut = (t: string) => string[]
const BLANKS: Cut = t => t.trim().split(/\s+/)
const cutAt =
  (by: string): Cut =>
  t =>
    t.split(by).map(c => c.trim())
/** Numbers with decimal commas that stand apart by blanks, with or without another comma. */
const COMMAS: Cut = t => t.trim().split(/,\s+|\s+/)

/** How the lines are cut into cells; null: a comma may be either. */
function cutOf(lines: readonly string[]): Cut | null {
  const all = lines.join('\n')
  if (all.includes(';')) return cutAt(';')
  if (all.includes('\t')) return cutAt('\t')
  if (!all.includes(',')) return BLANKS
  const apart = lines.map(COMMAS)
  if (apart.every(c => c.length > 1 && c.every(x => WITH_COMMA.test(x) || HOLE.test(x) || /^[+-]?\d+$/.test(x))))
    if (apart.flat().some(x => WITH_COMMA.test(x))) return COMMAS
  const cells = lines.flatMap(cutAt(','))
  return cells.some(c => c.includes('.')) ? cutAt(',') : null
}

const isNumber = (c: string) => NUMBER.test(c.trim())
const toNumber = (c: string) => Number(c.trim().replace(',', '.'))
const whole = (c: string) => /^\d+$/.test(c.trim())
const counts = (cells: readonly string[]) =>
  cells.length > 1 && cells.every((c, i) => whole(c) && Number(c) === Number(cells[0]) + i && Number(cells[0]) <= 1)
/** Up or down by one, from or to 0 or 1. */
function countsAlong(cells: readonly string[]): boolean {
  return counts(cells) || counts([...cells].reverse())
}

/** Leaves out a first line that only counts, and a first column that does. */
function withoutCounts(lines: Line[], left: string[]): Line[] {
  let rows = lines
  const first = rows[0]!.cells.filter(c => c !== '')
  if (rows.length > MESH_SIDE[0] && counts(first)) {
    left.push('the first line, which only counts the columns')
    rows = rows.slice(1)
  }
  const heads = rows.map(l => (l.cells[0] ?? '').replace(/:$/, ''))
  if (countsAlong(heads) && rows.every(l => l.cells.length > MESH_SIDE[0])) {
    left.push('the first column, which only counts the rows')
    rows = rows.map(l => ({ ...l, cells: l.cells.slice(1) }))
  }
  return rows
}

/** A semicolon or comma at the end of every line makes no cell. */
function withoutEnds(lines: Line[]): Line[] {
  return lines.every(l => l.cells.length > 1 && l.cells.at(-1) === '')
    ? lines.map(l => ({ ...l, cells: l.cells.slice(0, -1) }))
    : lines
}

/**
 * Whether a line is a row of the grid and no title: no word in it, or mostly numbers all the same. A row with one cell
 * that cannot be read stays a row, or those after it would move up unsaid.
 */
function isRow(text: string): boolean {
  if (!/\d/.test(text)) return false
  if (!/[a-z]{3,}/i.test(text.replace(/nan|null|none|inf|off/gi, ''))) return true
  const cells = text.split(/[\s,;]+/).filter(c => c !== '')
  return cells.filter(isNumber).length > cells.length / 2
}

/**
 * Heights from a text, mm; at most 60 000 characters. Never throws: what is wrong is named, and nothing is to be used
 * while something is.
 *
 * @example
 * readMesh('0,12 0,10\n0,05 nan').holes // [{"row":2,"column":2}]
 */
export function readMesh(text: string): MeshText {
  const out: MeshText = { rows: [], holes: [], problems: [], left: [] }
  const wrong = (line: number, message: string) => void out.problems.push({ line, message })
  if (text.length > MESH_TEXT) {
    wrong(1, `Longer than ${MESH_TEXT} characters: this is no mesh of a bed`)
    return out
  }
  const lines = linesOf(text)
  const numbered = lines.filter(l => isRow(l.text))
  const words = lines.length - numbered.length
  if (words > 0) out.left.push(words === 1 ? 'a line of words' : `${words} lines of words`)
  if (numbered.length === 0) {
    wrong(1, 'No row of numbers')
    return out
  }
  const cut = cutOf(numbered.map(l => l.text))
  if (cut === null) {
    wrong(numbered[0]!.line, 'These commas may be decimals or stand between: separate the numbers by semicolons')
    return out
  }
  const rows = withoutCounts(withoutEnds(numbered.map(l => ({ line: l.line, cells: cut(l.text) }))), out.left)
  const columns = rows[0]!.cells.length
  for (const { line, cells } of rows) {
    if (cells.length !== columns)
      wrong(
        line,
        `${counted(cells.length, 'number')} where the first row has ${columns}: write nan where one is missing`,
      )
    out.rows.push(
      cells.map((c, i) => {
        if (HOLE.test(c)) {
          out.holes.push({ row: out.rows.length + 1, column: i + 1 })
          return null
        }
        const mm = isNumber(c) ? toNumber(c) : NaN
        if (Number.isNaN(mm)) wrong(line, `Column ${i + 1}: “${c.slice(0, 20)}” is not a number`)
        else if (mm < HEIGHT_MM[0] || mm > HEIGHT_MM[1])
          wrong(line, `Column ${i + 1}: ${mm} is outside ${HEIGHT_MM.join(' to ')} mm. Is it in µm?`)
        return mm
      }),
    )
  }
  for (const [n, what] of [
    [rows.length, 'rows'],
    [columns, 'columns'],
  ] as const)
    if (n < MESH_SIDE[0] || n > MESH_SIDE[1]) wrong(rows[0]!.line, `${n} ${what}: ${MESH_SIDE.join(' to ')} are read`)
  return out
}
