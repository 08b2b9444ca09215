/** Words for numbers: one rule for each unit, and no number that makes them say nonsense. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import * as words from '#core/words'

const { capital, counted, grams, hours, kg, listed, mmNumber, money, percent, smallChance, water } = words

test('half a kilogram is one thing on every screen', () => {
  expect(kg(0.5)).toBe('0.50 kg')
  expect(kg(0.0994)).toBe('99 g')
  expect(kg(12.4)).toBe('12 kg')
  expect(kg(null)).toBe('unknown')
})
test.each([
  [312.4, '312 g'],
  [31.24, '31.2 g'],
  [3.124, '3.1 g'],
  [0, '0 g'],
])('%s g: %s', (v, text) => expect(grams(v)).toBe(text))
test.each([
  [0.5, '30 min'],
  [1.4, '84 min'],
  [2.345, '2.3 h'],
  [12.6, '13 h'],
  [1e5, 'for good'],
  [Infinity, 'for good'],
])('%s h: %s', (h, text) => expect(hours(h)).toBe(text))
test('chances, shares, water, lengths, money', () => {
  expect(smallChance(0.00002)).toBe('under 0.01 %')
  expect(smallChance(0.0034)).toBe('0.3 %')
  expect(percent(0.126)).toBe('13 %')
  expect(water(0.034)).toBe('0.034 wt%')
  expect(water(1.234)).toBe('1.23 wt%')
  expect(mmNumber(0.4)).toBe('0.4')
  expect(mmNumber(0.41256)).toBe('0.4126')
  expect(money(12.34, '')).toBe('12')
  expect(money(7.25, 'EUR')).toBe('7.3 EUR')
})
test('pieces of sentences', () => {
  expect(listed([])).toBe('')
  expect(listed(['a'])).toBe('a')
  expect(listed(['a', 'b'])).toBe('a or b')
  expect(listed(['a', 'b', 'c'], 'and')).toBe('a, b, and c')
  expect(counted(1, 'run')).toBe('1 run')
  expect(counted(3, 'gauge')).toBe('3 gauges')
  expect(capital('brass')).toBe('Brass')
})

describe('whatever the number, no "NaN", no "undefined", no exponent for a mass', () => {
  const { FOR_GOOD_H: _, capital: _c, counted: _n, listed: _l, zoneWord: _z, kgBetween, money: m, ...ofOne } = words
  const all: Record<string, (v: number) => string> = { ...ofOne, kgBetween: v => kgBetween(v, v), money: v => m(v, '') }
  test.each(Object.keys(all))('%s', name => {
    for (const v of [NaN, Infinity, -Infinity]) expect(all[name]!(v), String(v)).toMatch(/unknown|for good|\d/)
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e6, noNaN: true }), v => {
        expect(all[name]!(v)).not.toMatch(/NaN|undefined|Infinity/)
        if (name === 'kg' || name === 'grams') expect(all[name]!(v)).not.toMatch(/e[+-]/)
      }),
    )
  })
})
