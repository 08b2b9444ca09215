/** Tables that a shop brings along: headings, cells, names. */
import { describe, expect, test } from 'vitest'
import {
  columnsOf,
  filamentOfName,
  looksLikeHeadings,
  matchHeadings,
  nextTags,
  tagsFrom,
  nozzleTypeOfName,
  readCell,
  separatorOf,
  startMaterial,
  startNozzle,
  TABLE_NAMES,
  writtenBy,
  type TableName,
} from '#core/intake'
import { MOST_FILLER } from '#core/materials'

const column = (table: TableName, key: string) => columnsOf(table).find(c => c.key === key)!
const KNOWN = { decimal: null, order: null } as const

describe('headings', () => {
  test('any order, any case, with units beside them', () => {
    const heads = ['Remarks', 'NET WEIGHT (kg)', 'Spool', 'filament', 'Tare [g]', 'colour', 'empty spool']
    expect(matchHeadings(heads, columnsOf('spools'))).toEqual([
      { key: 'note', unit: null },
      { key: 'net', unit: 'kg' },
      { key: 'tag', unit: null },
      { key: 'material', unit: null },
      { key: 'tare', unit: 'g' },
      { key: null, unit: null },
      // each column once: the empty spool is there already
      { key: null, unit: null },
    ])
  })
  test('a column’s own name comes before the other names of one', () => {
    expect(matchHeadings(['printer', 'name', 'tag', 'type'], columnsOf('nozzles')).map(h => h.key)).toEqual([
      'printer',
      null,
      'tag',
      'type',
    ])
  })
  test.each(['net, kg', 'net in kg', 'net kg', 'Net_weight (kg)'])('%s', h => {
    expect(matchHeadings([h], columnsOf('spools'))).toEqual([{ key: 'net', unit: 'kg' }])
  })
  test('a first line of data is no line of headings', () => {
    expect(looksLikeHeadings(['tag', 'type', 'my own'], columnsOf('nozzles'))).toBe(true)
    expect(looksLikeHeadings(['N-001', 'brass 0.4', ''], columnsOf('nozzles'))).toBe(false)
    expect(looksLikeHeadings(['', ''], columnsOf('nozzles'))).toBe(false)
  })
  test('every column is known by its own heading, and no two by the same', () => {
    for (const table of TABLE_NAMES) {
      const columns = columnsOf(table)
      expect(
        matchHeadings(
          columns.map(c => c.label),
          columns,
        ).map(h => h.key),
      ).toEqual(columns.map(c => c.key))
      expect(columns.some(c => c.needed)).toBe(true)
      for (const c of columns)
        if (c.example !== '') expect(readCell(c.example, c, KNOWN, null).problem, `${table} ${c.key}`).toBeNull()
    }
  })
  test.each([
    ['a\tb;c,d', '\t'],
    ['\n\ntag;diameter\nS-01;1,75', ';'],
    ['tag,type', ','],
    ['tag', ','],
  ])('%j is separated by %j', (text, by) => expect(separatorOf(text)).toBe(by))
})

describe('numbers', () => {
  const net = column('spools', 'net')
  test.each([
    ['750', 750],
    ['750 g', 750],
    ['0,75 kg', 750],
    ['0.75kg', 750],
    ['1 000', 1000],
    ["1'000.5", 1000.5],
    ['1.234,5', 1234.5],
    ['1,234.5 g', 1234.5],
    ['0,750', 0.75],
  ])('%s', (cell, value) => expect(readCell(cell, net, KNOWN, null)).toEqual({ value, problem: null }))
  test('the unit of the heading counts where the cell has none', () => {
    expect(readCell('0.75', net, KNOWN, 'kg').value).toBe(750)
    expect(readCell('750 g', net, KNOWN, 'kg').value).toBe(750)
    expect(readCell('400', column('nozzles', 'bore'), KNOWN, 'µm').value).toBe(0.4)
  })
  test('what can be two numbers is asked for, until the table tells', () => {
    expect(readCell('1,000', net, KNOWN, 'kg').problem).toBe(
      '“1,000” can be 1 or 1000: choose how decimals are written',
    )
    expect(readCell('1,000', net, { ...KNOWN, decimal: ',' }, 'kg').value).toBe(1000)
    expect(readCell('1,000', net, { ...KNOWN, decimal: '.' }, null).value).toBe(1000)
    expect(readCell('1.000', net, { ...KNOWN, decimal: ',' }, null).value).toBe(1000)
    expect(writtenBy(['S-01', '1,000', '1.75']).decimal).toBe('.')
    expect(writtenBy(['1,000', '1,75']).decimal).toBe(',')
    expect(writtenBy(['1,000', '24.12.2025', '12']).decimal).toBeNull()
  })
  test.each(['abc', '12 °C', '5 constructor', '=A1*2', '#REF!', '1-2'])('%s is refused with what to do', cell =>
    expect(readCell(cell, net, KNOWN, null)).toMatchObject({ value: null, problem: expect.any(String) as string }),
  )
})

describe('days, yes and no, choices', () => {
  const received = column('nozzles', 'received')
  test.each([
    ['2026-01-15', '2026-01-15'],
    ['15.1.2026', '2026-01-15'],
    ['15.01.26', '2026-01-15'],
    ['31/12/2025', '2025-12-31'],
    ['12/31/2025', '2025-12-31'],
    ['2026-01-15 08:30', '2026-01-15T08:30'],
    ['2026-01-15T08:30:12.5', '2026-01-15T08:30'],
    ['29.2.2024', '2024-02-29'],
  ])('%s', (cell, value) => expect(readCell(cell, received, KNOWN, null)).toEqual({ value, problem: null }))
  test('what can be two days is asked for, until the table tells', () => {
    expect(readCell('3/4/2026', received, KNOWN, null).problem).toMatch(/can be two days/)
    expect(readCell('3/4/2026', received, { ...KNOWN, order: 'day first' }, null).value).toBe('2026-04-03')
    expect(readCell('3/4/2026', received, { ...KNOWN, order: 'month first' }, null).value).toBe('2026-03-04')
    expect(writtenBy(['3/4/2026', '25/4/2026']).order).toBe('day first')
    expect(writtenBy(['3/4/2026', '4/25/2026']).order).toBe('month first')
    expect(writtenBy(['3/4/2026']).order).toBeNull()
  })
  test.each(['30.2.2026', '2026-13-01', 'yesterday', '1.1.202', '2026-01-15 25:00', '29.2.2026'])(
    '%s is no day',
    cell => expect(readCell(cell, received, KNOWN, null).problem).not.toBeNull(),
  )
  test('yes, no, and words of a list in any case', () => {
    const used = column('nozzles', 'used')
    expect(['Yes', 'x', 'used', 'no', 'NEW', ''].map(c => readCell(c, used, KNOWN, null).value)).toEqual([
      true,
      true,
      true,
      false,
      false,
      null,
    ])
    expect(readCell('maybe', used, KNOWN, null).problem).not.toBeNull()
    expect(readCell('Open Frame', column('printers', 'stack'), KNOWN, null).value).toBe('open frame')
    expect(readCell('delta', column('printers', 'stack'), KNOWN, null).problem).toMatch(/is none of: open frame/)
  })
})

describe('what a name tells', () => {
  // ISO 1043-1 and -2: the symbol of the polymer, then filler and its share by mass in per cent
  test.each([
    ['PA6-CF20', 'PA6', 'carbon fibre', 0.2],
    ['PA12 GF 30', 'PA12', 'glass fibre', 0.3],
    ['PETG', 'PETG', 'none', 0],
    ['PPA-CF', 'PPA', 'carbon fibre', null],
    ['PPS-GF95', 'PPS', 'glass fibre', null],
    ['CF', 'CF', 'none', 0],
  ])('%s', (name, polymer, filler, fillerFraction) =>
    expect(filamentOfName(name)).toEqual({ polymer, filler, fillerFraction }),
  )
  test('start values of a filled filament: the mixture of its densities', () => {
    // PA6 of 1.13 to 1.14 g/cm³ with 30 wt% glass is 1.35 to 1.37 by every handbook's table
    expect(startMaterial('PA6', 'glass fibre', 0.3).densityGCm3).toBeCloseTo(1.36, 1)
    expect(startMaterial('PETG', 'none', 0).densityGCm3).toBe(
      startMaterial('petg', 'none', 0).window!.facts.matrixGCm3!.value,
    )
    expect(startMaterial('PLA', 'wood', 0.2).densityGCm3).toBeNull()
    expect(startMaterial('something', 'none', 0)).toMatchObject({ densityGCm3: null, window: null })
    expect(MOST_FILLER).toBeLessThan(0.95)
  })
  test.each([
    ['hardened steel 0.4', { material: 'hardened steel', boreMm: 0.4 }],
    ['Brass, 0,6 mm', { material: 'brass', boreMm: 0.6 }],
    ['tungsten carbide 1', { material: 'tungsten carbide', boreMm: 1 }],
    ['cheese 0.4', null],
    ['brass', null],
  ])('%s', (name, is) => expect(nozzleTypeOfName(name)).toEqual(is))
  test('a nozzle to start from has a flat and an inlet wider than its bore', () => {
    for (const bore of [0.1, 0.4, 1, 2]) {
      const n = startNozzle(bore)
      expect(n.tipFlatMm).toBeGreaterThan(bore)
      expect(n.inletMm).toBeGreaterThan(bore)
      expect(n.landMm).toBeLessThan(n.lengthMm)
    }
  })
  test('tags go on in sequence', () => {
    expect(nextTags(['N-001', 'N-012', 'S-40', 'odd'], 'N-001', 3)).toEqual(['N-013', 'N-014', 'N-015'])
    expect(nextTags([], 'S-01', 2)).toEqual(['S-01', 'S-02'])
    expect(nextTags(['n-0009'], 'N-001', 2)).toEqual(['N-0010', 'N-0011'])
    expect(nextTags(['S-99'], 'S-01', 1)).toEqual(['S-100'])
    expect(tagsFrom('N-098', 3)).toEqual(['N-098', 'N-099', 'N-100'])
    expect(tagsFrom('spare', 1)).toEqual(['spare'])
    expect(tagsFrom('spare', 2)).toBeNull()
  })
})
