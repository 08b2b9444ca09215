/** Labels: where each stands, what is refused, and what their codes say. */
import { describe, expect, test } from 'vitest'
import {
  A4,
  checkLabel,
  gridOf,
  LABEL_SIZES,
  labelFace,
  labelPlaces,
  LEAST_MODULE_MM,
  middleGrid,
  moduleMm,
  textMm,
  wrapped,
} from '#core/labels'
import { labelAddress } from '#shared/entries/shop'
import { codeOf, tagOfCode } from '#shared/labels'

describe('a sheet', () => {
  test('of no size is refused at the side that is none', () => {
    expect(() => checkLabel({ widthMm: 0, heightMm: 29 })).toThrow(/widthMm/)
    expect(() => checkLabel({ widthMm: 62, heightMm: 0 })).toThrow(/heightMm/)
    expect(() => checkLabel({ widthMm: NaN, heightMm: 29 })).toThrow(/widthMm/)
  })
  test.each(LABEL_SIZES)('of %o: every label lies on the paper, none over another', size => {
    const g = middleGrid(size)
    const { columns, rows } = gridOf(size, g)
    const places = labelPlaces(size, g, 1, columns * rows + 1)
    expect(places.at(-1)!.page).toBe(1)
    const first = places.filter(p => p.page === 0)
    for (const p of first) {
      expect(p.xMm).toBeGreaterThanOrEqual(0)
      expect(p.xMm + size.widthMm).toBeLessThanOrEqual(A4.widthMm + 1e-9)
      expect(p.yMm + size.heightMm).toBeLessThanOrEqual(A4.heightMm + 1e-9)
    }
    for (const [i, a] of first.entries())
      for (const b of first.slice(i + 1))
        expect(Math.abs(a.xMm - b.xMm) >= size.widthMm - 1e-9 || Math.abs(a.yMm - b.yMm) >= size.heightMm - 1e-9).toBe(
          true,
        )
  })
  test('begins at the first free place, and goes on on the next sheet', () => {
    const size = { widthMm: 100, heightMm: 140 }
    const g = { leftMm: 5, topMm: 8, gapXMm: 0, gapYMm: 0 }
    expect(gridOf(size, g)).toEqual({ columns: 2, rows: 2 })
    expect(labelPlaces(size, g, 4, 2)).toEqual([
      { page: 0, xMm: 105, yMm: 148 },
      { page: 1, xMm: 5, yMm: 8 },
    ])
    expect(() => labelPlaces(size, g, 5, 1)).toThrow(/from/)
    expect(() => gridOf(size, { ...g, leftMm: 90, gapXMm: 0 })).not.toThrow()
    expect(() => gridOf({ widthMm: 150, heightMm: 100 }, { ...g, leftMm: 80 })).toThrow(/leftMm/)
  })
})

describe('a face', () => {
  test.each([...LABEL_SIZES, { widthMm: 15, heightMm: 12 }, { widthMm: 210, heightMm: 297 }])(
    'of %o: code and text lie within it, beside each other',
    size => {
      const { code, text, lineMm } = labelFace(size)
      for (const b of [code, text]) {
        expect(b.xMm).toBeGreaterThanOrEqual(0)
        expect(b.yMm).toBeGreaterThanOrEqual(0)
        expect(b.xMm + b.widthMm).toBeLessThanOrEqual(size.widthMm + 1e-9)
        expect(b.yMm + b.heightMm).toBeLessThanOrEqual(size.heightMm + 1e-9)
        expect(b.widthMm).toBeGreaterThan(0)
        expect(b.heightMm).toBeGreaterThan(0)
      }
      const apart = text.xMm >= code.xMm + code.widthMm - 1e-9 || text.yMm >= code.yMm + code.heightMm - 1e-9
      expect(apart).toBe(true)
      expect(lineMm).toBeGreaterThan(2)
    },
  )
  test('a long address on a small label has modules that are too fine, a tag alone has not', () => {
    const small = { widthMm: 25, heightMm: 25 }
    expect(moduleMm(small, 21)).toBeGreaterThan(LEAST_MODULE_MM)
    expect(moduleMm(small, 49)).toBeLessThan(LEAST_MODULE_MM)
  })
  test('a long tag is set smaller, never wider than its box', () => {
    expect(textMm('N-1', 30, 8)).toBe(8)
    const long = 'A-VERY-LONG-TAG-00001'
    expect(textMm(long, 30, 8) * 0.62 * long.length).toBeCloseTo(30, 9)
  })
  test('what it is goes on in the next line, between words', () => {
    expect(wrapped('tungsten carbide 0.4 insert', 28, 3)).toEqual(['tungsten carbide', '0.4 insert'])
    expect(wrapped('  ', 30, 3)).toEqual([])
    expect(wrapped('polycrystallinediamond', 10, 3)).toEqual(['polycrystallinediamond'])
  })
})

describe('what a code says', () => {
  const said = (text: string) => labelAddress.safeParse(text)
  test.each([
    'http://localhost:3000',
    'http://127.0.0.1',
    'http://127.8.9.1:80',
    'https://[::1]:3000',
    'http://[::ffff:127.0.0.1]',
    'http://0.0.0.0:3000',
    'http://shop.localhost',
    'http://2130706433',
  ])('%s is every machine: refused', a => expect(said(a).error?.issues[0]!.message).toMatch(/own address/))
  test.each([
    'shop',
    'ftp://shop.example',
    'http://shop.example/other',
    'http://shop.example?x=1',
    'http://a@shop.example',
  ])('%s is no address of a shop', a => expect(said(a).success).toBe(false))
  test('an address loses its last stroke; none is none', () => {
    expect([said('http://192.168.1.20:3000/').data, said('').data]).toEqual(['http://192.168.1.20:3000', ''])
  })
  test('the tag comes back whatever address stands before it', () => {
    for (const tag of ['N-014', 'P 42', 'Grün/2', '100 %'])
      for (const address of ['', 'http://shop.example:3000']) expect(tagOfCode(codeOf(address, tag))).toBe(tag)
    expect(tagOfCode('https://other.example/t/S-07/')).toBe('S-07')
    expect(tagOfCode('https://other.example/else/S-07')).toBe('https://other.example/else/S-07')
    expect(tagOfCode('http://x/t/%E0%A4%A')).toBe('http://x/t/%E0%A4%A')
  })
})
