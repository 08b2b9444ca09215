/** Pasted text and chosen files as lines of cells. */
import { describe, expect, test } from 'vitest'
import { tableOfText } from '~/lib/table-text'
import { textOfFile } from '~/lib/text-file'

const cells = (text: string) => tableOfText(text).rows.map(r => r.cells)

describe('a table', () => {
  test.each([
    ['tabs', 'tag\ttype\nN-1\tbrass 0.4'],
    ['semicolons', 'tag;type\r\nN-1;brass 0.4\r\n'],
    ['commas and a mark', '\uFEFFtag,type\nN-1,brass 0.4\n\n'],
  ])('%s', (_, text) =>
    expect(cells(text)).toEqual([
      ['tag', 'type'],
      ['N-1', 'brass 0.4'],
    ]),
  )
  // RFC 4180: quoted cells with separators, quotation marks and line breaks inside
  test('RFC 4180', () => {
    expect(cells('a,b\n"x, ""y""","1\n2"')).toEqual([
      ['a', 'b'],
      ['x, "y"', '1\n2'],
    ])
    expect(tableOfText('a,b\n1,"2').problem).toBe('Line 2: a quotation mark that is not closed')
  })
  test('lines keep their number, short ones are filled up', () => {
    expect(tableOfText('a;b;c\n\n1;2\n').rows).toEqual([
      { line: 1, cells: ['a', 'b', 'c'] },
      { line: 3, cells: ['1', '2', ''] },
    ])
    expect(tableOfText('').rows).toEqual([])
  })
  test('a list in JSON: its fields are the headings', () => {
    expect(cells('[{"tag":"N-1","used":true},{"tag":"N-2","bore":0.4,"note":null}]')).toEqual([
      ['tag', 'used', 'bore', 'note'],
      ['N-1', 'true', '', ''],
      ['N-2', '', '0.4', ''],
    ])
    expect(tableOfText('[{"tag":').problem).toMatch(/begins like JSON and is none/)
    expect(tableOfText('[{"a":1},{"a":[2]}]').problem).toBe(
      'Item 2 of the list is no line of fields with one value each',
    )
  })
})

describe('a file', () => {
  const file = (bytes: number[] | string, name = 't.csv') =>
    new File([typeof bytes === 'string' ? bytes : new Uint8Array(bytes)], name)
  test('UTF-8, UTF-16 by its mark, Latin-1', async () => {
    expect(await textOfFile(file('± µm'))).toEqual({ text: '± µm', problem: null })
    expect((await textOfFile(file([0xff, 0xfe, 0xb1, 0, 0x41, 0]))).text).toBe('±A')
    expect((await textOfFile(file([0xfe, 0xff, 0, 0xb1]))).text).toBe('±')
    // ISO 8859-1: 0xB1 is ±, 0xB5 is µ
    expect((await textOfFile(file([0xb1, 0x20, 0xb5, 0x6d]))).text).toBe('± µm')
  })
  test('a workbook, no text, and too much are refused with what to do', async () => {
    expect((await textOfFile(file([0x50, 0x4b, 3, 4], 'a.xlsx'))).problem).toBe(
      'a.xlsx is a workbook: copy its cells and paste them here, or save it as CSV.',
    )
    expect((await textOfFile(file([1, 0, 2]))).problem).toMatch(/is no text/)
    const large = { size: 2e8, name: 'all.csv' } as File
    expect((await textOfFile(large)).problem).toBe('all.csv has 200 MB: a table is read up to 20 MB.')
  })
})
