/** Lists as text: CSV with a heading line, or JSON as an array of objects, in pieces as the rows come. */
import Papa from 'papaparse'
import type { Row } from './rows'

export const LIST_TYPES = { csv: 'text/csv; charset=utf-8', json: 'application/json; charset=utf-8' } as const
export type ListType = keyof typeof LIST_TYPES

/** Figures as people wrote them, without the last binary digits: 0.1 + 0.2 is 0.3. */
const plain = (v: unknown): unknown => (typeof v === 'number' ? Number(v.toPrecision(12)) : v)
const plainRow = (r: Row): Row => Object.fromEntries(Object.entries(r).map(([k, v]) => [k, plain(v)]))
const yesNo = (v: unknown): unknown => {
  if (typeof v !== 'boolean') return v
  return v ? 'yes' : 'no'
}

/**
 * The text of a list. A spreadsheet would work out a text that begins like a formula: such a cell gets an apostrophe in
 * CSV, but not in an archive. `headings` stand there also where there is no row.
 */
export async function* listText(
  pages: AsyncIterable<Row[]>,
  headings: readonly string[],
  type: ListType,
  { escapeFormulae = true } = {},
): AsyncGenerator<string> {
  // a byte order mark: without it spreadsheets take it for another encoding
  yield type === 'csv' ? `\uFEFF${Papa.unparse([[...headings]])}\r\n` : '['
  let isFirst = true
  for await (const rows of pages) {
    const plainly = rows.map(plainRow)
    if (type === 'csv') {
      const cells = plainly.map(r => headings.map(h => yesNo(r[h])))
      yield `${Papa.unparse(cells, { escapeFormulae })}\r\n`
    } else {
      yield (isFirst ? '' : ',') + plainly.map(r => `\n${JSON.stringify(r)}`).join(',')
      isFirst = false
    }
  }
  if (type === 'json') yield '\n]\n'
}
