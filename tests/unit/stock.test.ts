/** What is wanted, what is short, what to order; and what a pin counts as. */
import { describe, expect, test } from 'vitest'
import { dueOfPin, dueOfStock } from '#core/schedule'
import { enoughByUse, enoughFor, needChances, quantityWords, shortOf, toOrder, type HeadWear } from '#core/stock'
import { borePosterior, boreAt, isOfPin, isPinPair, pinAt, rangeOf, type BoreObservation } from '#core/wear'
import { pinCertificateSchema, pinFields } from '#shared/entries/pins'
import { stockItemFields, stockMoveSchema } from '#shared/entries/stock'

const head = (more: Partial<HeadWear> = {}): HeadWear => ({
  leftKg: { median: 1, low80: 0.5, high80: 2 },
  kgPerDay: 0.02,
  life: null,
  ...more,
})
const said = (schema: { safeParse: (v: unknown) => { success: boolean; error?: { issues: unknown[] } } }, v: unknown) =>
  (schema.safeParse(v).error?.issues ?? []) as { path: string[]; message: string }[]

describe('what is wanted', () => {
  test('a head at its median is one with half a chance; one that prints nothing or lasts for ever is none', () => {
    expect(needChances([head()], 50)[1]).toBeCloseTo(0.5, 6)
    expect(needChances([head({ kgPerDay: 0 })], 60)).toEqual([1])
    const never = { median: Infinity, low80: Infinity, high80: Infinity }
    expect(needChances([head({ leftKg: never })], 60)).toEqual([1])
    expect(needChances([], 60)).toEqual([1])
  })
  test('two heads are independent; the chances together are 1', () => {
    const two = needChances([head(), head()], 50)
    expect(two[0]).toBeCloseTo(0.25, 6)
    expect(two[1]).toBeCloseTo(0.5, 6)
    expect(two.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 9)
    expect(enoughFor(two, 0.5)).toBe(1)
    expect(enoughFor(two, 0.8)).toBe(2)
  })
  test('a soft nozzle is replaced more than once: what follows the fitted one lives its own life', () => {
    const soft = { shape: 3, scale: 0.2 }
    const chances = needChances([head({ leftKg: { median: 0.1, low80: 0.05, high80: 0.15 }, life: soft })], 30)
    expect(enoughFor(chances, 0.8)).toBeGreaterThan(2)
    expect(chances.reduce((s, p) => s + p, 0)).toBeCloseTo(1, 6)
  })
  test('by use: none used is none, a short record tells nothing, more uses want more', () => {
    expect(enoughByUse({ uses: 0, quantity: 0, overDays: 300 }, 60, 0.8)).toBe(0)
    expect(enoughByUse({ uses: 3, quantity: 3, overDays: 10 }, 60, 0.8)).toBeNull()
    const few = enoughByUse({ uses: 2, quantity: 2, overDays: 300 }, 60, 0.8)!
    const many = enoughByUse({ uses: 20, quantity: 20, overDays: 300 }, 60, 0.8)!
    expect(many).toBeGreaterThan(few)
    // each use of 200 g
    expect(enoughByUse({ uses: 2, quantity: 400, overDays: 300 }, 60, 0.8)).toBeCloseTo(200 * few, 9)
    expect(Number.isFinite(enoughByUse({ uses: 90_000, quantity: 90_000, overDays: 365 }, 365, 0.8))).toBe(true)
  })
})

describe('what to order', () => {
  test('what is wanted and the minimum, less what is there and on its way', () => {
    expect(toOrder({ onHand: 1, onOrder: 1, minimum: 2, need: 2 })).toBe(2)
    expect(toOrder({ onHand: 9, onOrder: 0, minimum: 2, need: 2 })).toBe(0)
    expect(toOrder({ onHand: 0, onOrder: 0, minimum: null, need: null })).toBe(0)
    expect(toOrder({ onHand: -1, onOrder: 0, minimum: 2, need: null })).toBe(3)
  })
  test('short, ordered, enough', () => {
    expect(shortOf({ onHand: 1, onOrder: 0, minimum: 2 })).toBe('short')
    expect(shortOf({ onHand: 1, onOrder: 1, minimum: 2 })).toBe('ordered')
    expect(shortOf({ onHand: 2, onOrder: 0, minimum: 2 })).toBeNull()
    expect(shortOf({ onHand: 0, onOrder: 0, minimum: null })).toBeNull()
    expect(shortOf({ onHand: -1, onOrder: 9, minimum: null })).toBe('short')
  })
  test('a shelf that took a million many times, and a certificate that holds for ever, take no list down', () => {
    const much = { onHand: 7e6, onOrder: 9e6, minimum: 1 }
    expect(toOrder({ ...much, need: 8e7 })).toBe(8e7 + 1 - 16e6)
    expect(shortOf(much)).toBeNull()
    expect(enoughByUse({ uses: 40, quantity: 4e7, overDays: 365 }, 60, 0.8)).toBeGreaterThan(1e6)
    const days = (day: string) => (Date.parse(day) - Date.parse('2026-11-29')) / 86_400_000
    expect(dueOfPin('P-42', days('9999-12-31'))).toBeNull()
    expect(dueOfPin('P-42', days('0001-01-01'))).toMatchObject({ mark: 'look' })
  })
  test('quantities say their unit', () => {
    expect([quantityWords(3, 'pieces'), quantityWords(120.04, 'g'), quantityWords(-1, 'pieces')]).toEqual([
      '3',
      '120 g',
      '-1',
    ])
  })
  test('what is due of it names how many to order; a book below zero is counted', () => {
    const belt = { id: 7, name: 'Belt', unit: 'pieces' as const, onOrder: 0, minimum: 2 }
    expect(dueOfStock({ ...belt, onHand: 1 })).toMatchObject({
      mark: 'look',
      station: 'stores',
      reason: 'Only 1 there; the minimum is 2.',
      action: 'Order at least 1',
    })
    expect(dueOfStock({ ...belt, onHand: 1, onOrder: 1 })).toMatchObject({ mark: 'fine' })
    expect(dueOfStock({ ...belt, onHand: -2, minimum: null })).toMatchObject({ mark: 'look', action: 'Count it' })
    expect(dueOfStock({ ...belt, onHand: 2 })).toBeNull()
    const none = dueOfStock({ ...belt, onHand: 0 })!
    expect(none.weight).toBeGreaterThan(dueOfStock({ ...belt, onHand: 1 })!.weight)
  })
  test('a pin whose certificate ran out is looked at, one that soon does is said', () => {
    expect(dueOfPin('P-42', -3)).toMatchObject({ mark: 'look', about: 'P-42', open: '/stores/pins?show=P-42' })
    expect(dueOfPin('P-42', 12)).toMatchObject({ mark: 'fine' })
    expect(dueOfPin('P-42', 40)).toBeNull()
  })
})

describe('what a pin counts as', () => {
  const first = { atMs: 100, sizeMm: 0.42, uMm: 0.0005 }
  const again = { atMs: 900, sizeMm: 0.416, uMm: 0.0005 }
  test('as its first certificate found it before that, as the last after it, in the middle between', () => {
    expect(pinAt([], 5)).toBeNull()
    expect(pinAt([again, first], 5)).toEqual({ sizeMm: 0.42, uMm: 0.0005 })
    expect(pinAt([again, first], 900)).toEqual({ sizeMm: 0.416, uMm: 0.0005 })
    const between = pinAt([again, first], 500)!
    expect(between.sizeMm).toBeCloseTo(0.418, 12)
    // never surer than either
    expect(between.uMm).toBeGreaterThan(0.0005)
  })
  test('a typed size is the pin by its nominal or by what a certificate found', () => {
    expect([0.42, 0.416, 0.425].map(mm => isOfPin(mm, 0.42, [again]))).toEqual([true, true, true])
    expect(isOfPin(0.43, 0.42, [again])).toBe(false)
  })
  test('two pins of one size are no pair', () => {
    expect(isPinPair(0.42, 0.42)).toBe(false)
    expect(isPinPair(0.43, 0.42)).toBe(false)
    expect(isPinPair(0.42, 0.43)).toBe(true)
    expect(isPinPair(null, 0.43)).toBe(true)
  })
  test('the uncertainty of its own certificate counts in place of that of the reading', () => {
    const at = (o: object) => {
      const reading = { kind: 'pins', wearKg: 1, goMm: 0.43, noGoMm: 0.44, ...o } as BoreObservation
      const bore = { nominalMm: 0.4, wasUsed: false, observations: [reading] }
      return rangeOf(boreAt(borePosterior(bore, { meanLn: Math.log(0.03), sd: 0.8 }), 1))
    }
    const marks = { goPin: 'A', noGoPin: 'B' }
    const sure = at({ uMm: 0.001, ...marks }).high80
    expect(at({ uMm: 0.02, goUMm: 0.001, noGoUMm: 0.001, ...marks }).high80).toBeCloseTo(sure, 4)
    expect(at({ uMm: 0.02, ...marks }).high80).toBeGreaterThan(sure + 0.003)
  })
})

describe('what is refused, named at its place', () => {
  const at = '2026-10-01T08:00:00Z'
  test('a count below zero; nothing used', () => {
    expect(said(stockMoveSchema, { itemId: 1, kind: 'counted', quantity: -1, occurredAt: at })).toMatchObject([
      { path: ['quantity'], message: 'A quantity is not below zero' },
    ])
    expect(said(stockMoveSchema, { itemId: 1, kind: 'used', quantity: 0, occurredAt: at })[0]!.path).toEqual([
      'quantity',
    ])
    expect(said(stockMoveSchema, { itemId: 1, kind: 'counted', quantity: 0, occurredAt: at })).toEqual([])
  })
  test('half a piece, a price without its day, a nozzle without its type, a minimum below zero', () => {
    const belt = { kind: 'belt', name: 'Belt' }
    expect(said(stockItemFields, { ...belt, minimum: 1.5 })[0]!.path).toEqual(['minimum'])
    expect(said(stockItemFields, { ...belt, unit: 'g', minimum: 1.5 })).toEqual([])
    expect(said(stockItemFields, { ...belt, minimum: -1 })[0]!.path).toEqual(['minimum'])
    expect(said(stockItemFields, { ...belt, price: 3 })[0]!.path).toEqual(['pricedOn'])
    expect(said(stockItemFields, { kind: 'nozzle', name: 'N' })[0]!.path).toEqual(['nozzleTypeId'])
    expect(said(stockItemFields, { ...belt, pricedOn: 'last week', price: 3 })[0]!.path).toEqual(['pricedOn'])
  })
  test('a certificate that ran out before it was made; a pin without a mark', () => {
    const c = { pinId: 1, sizeMm: 0.42, expandedUm: 1, occurredAt: at }
    expect(said(pinCertificateSchema, { ...c, dueOn: '2026-09-01' })[0]!.path).toEqual(['dueOn'])
    expect(said(pinCertificateSchema, { ...c, expandedUm: 0 })[0]!.path).toEqual(['expandedUm'])
    expect(said(pinFields, { mark: ' ', nominalMm: 0.42 })[0]!.path).toEqual(['mark'])
  })
})
