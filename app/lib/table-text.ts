/** A pasted text as lines of cells: a table with tabs, semicolons or commas, or a list of objects in JSON. */
import Papa from 'papaparse'
import { separatorOf } from '#core/intake'

export interface TableText {
  /** Cells by line, empty lines left out, with the number each line has in the text. */
  rows: { line: number; cells: string[] }[]
  problem: string | null
}
const said = (v: unknown): string => (v === null || v === undefined ? '' : String(v as string | number | boolean))

function ofJson(text: string): TableText {
  let data: unknown
  try {
    data = JSON.parse(text)
  } catch (error) {
    return { rows: [], problem: `This begins like JSON and is none: ${(error as Error).message}` }
  }
  const items = (Array.isArray(data) ? data : [data]) as unknown[]
  const isFlat = (x: unknown): x is Record<string, unknown> =>
    typeof x === 'object' && x !== null && Object.values(x).every(v => typeof v !== 'object' || v === null)
  const bad = items.findIndex(x => !isFlat(x))
  if (bad >= 0) return { rows: [], problem: `Item ${bad + 1} of the list is no line of fields with one value each` }
  const keys = [...new Set(items.flatMap(x => Object.keys(x as object)))]
  const lines = items.map(x => keys.map(k => said((x as Record<string, unknown>)[k])))
  return { rows: [keys, ...lines].map((cells, i) => ({ line: i + 1, cells })), problem: null }
}

export function tableOfText(pasted: string): TableText {
  const text = pasted.replace(/^\uFEFF/, '')
  if (/^\s*[[{]/.test(text)) return ofJson(text)
  const read = Papa.parse<string[]>(text, { delimiter: separatorOf(text) })
  const open = read.errors.find(e => e.type === 'Quotes')
  if (open) return { rows: [], problem: `Line ${(open.row ?? 0) + 1}: a quotation mark that is not closed` }
  const rows = read.data.map((cells, i) => ({ line: i + 1, cells }))
  const width = Math.max(0, ...rows.map(r => r.cells.length))
  return {
    rows: rows
      .filter(r => r.cells.some(c => c.trim() !== ''))
      .map(r => ({ ...r, cells: [...r.cells, ...Array<string>(width - r.cells.length).fill('')] })),
    problem: null,
  }
}
