/**
 * Weeks against the examples of ISO 8601 (weeks around the turn of a year, from memory), and the score interval against
 * its own definition and the closed form for no success in n (Wilson 1927).
 */
import fc from 'fast-check'
import { expect, test } from 'vitest'
import { inverseNormal } from '#core/numeric'
import { isoWeek, successRate } from '#core/totals'

test.each([
  ['2005-01-01', 2004, 53],
  ['2005-01-02', 2004, 53],
  ['2005-12-31', 2005, 52],
  ['2007-01-01', 2007, 1],
  ['2007-12-31', 2008, 1],
  ['2008-12-28', 2008, 52],
  ['2008-12-29', 2009, 1],
  ['2009-12-31', 2009, 53],
  ['2010-01-03', 2009, 53],
  ['2026-11-29', 2026, 48],
  ['2026-11-30', 2026, 49],
])('%s lies in week %i-W%i', (day, year, week) => expect(isoWeek(day)).toEqual({ year, week }))

test('what is no day is refused', () => {
  for (const day of ['', '2026-13-01', '29.11.2026', '2026-11-29T00:00:00Z']) expect(() => isoWeek(day)).toThrow(/day/)
})

test('both ends of the range solve its equation, and hold the share between them', () => {
  const z = inverseNormal(0.9)
  fc.assert(
    fc.property(fc.integer({ min: 0, max: 4000 }), fc.integer({ min: 0, max: 4000 }), (good, failed) => {
      fc.pre(good + failed > 0)
      const n = good + failed
      const { rate, low80, high80 } = successRate(good, failed)!
      expect(rate).toBeCloseTo(good / n, 12)
      for (const p of [low80, high80]) expect((rate - p) ** 2).toBeCloseTo((z * z * p * (1 - p)) / n, 9)
      expect(low80 - 1e-12).toBeLessThanOrEqual(rate)
      expect(high80 + 1e-12).toBeGreaterThanOrEqual(rate)
    }),
  )
})
test('ten of ten are no certainty: the lower end is n/(n + z²)', () => {
  const z = inverseNormal(0.9)
  expect(successRate(10, 0)!.low80).toBeCloseTo(10 / (10 + z * z), 9)
  expect(successRate(0, 10)!.high80).toBeCloseTo((z * z) / (10 + z * z), 9)
  expect(successRate(0, 0)).toBeNull()
})
