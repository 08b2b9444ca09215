/** Words for numbers: one rule for each unit, and no number that makes them say nonsense. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import * as words from '#core/words'
import { gaugeEffectWords, runEffectWords } from '~/words/effects'

const { capital, countBetween, counted, flow, grams, hours, kg, kgEstimate, listed, mmNumber, money } = words
const { percent, price, smallChance, sumOfPrices, water } = words

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
  expect([price(12.5, ''), price(0.1 + 0.2, 'EUR'), price(0.0235, '')]).toEqual(['12.50', '0.30 EUR', '0.0235'])
  expect([sumOfPrices(905 / 6, 'EUR'), sumOfPrices(0.1 + 0.2, '')]).toEqual(['150.83 EUR', '0.30'])
})
test('an estimate has the digits that matter, and its range', () => {
  expect(kgEstimate({ median: 31.221, low80: 12.4, high80: 80.3 })).toBe('about 31 kg (80 % between 12 and 80 kg)')
  expect(kgEstimate({ median: 0.058, low80: 0.02, high80: 0.09 })).toBe('about 58 g (80 % between 20 and 90 g)')
  expect(kgEstimate({ median: 2, low80: 1, high80: Infinity })).toBe('about 2.0 kg')
  expect(kgEstimate({ median: 0, low80: 0, high80: 0.0001 })).toBe('about 0 kg (80 % below 0.5 g)')
  expect(countBetween(312, 2950)).toBe('300 to 3000')
  expect(countBetween(3.4, 12.2)).toBe('3 to 12')
  expect(countBetween(952, 1040)).toBe('about 1000')
  expect(flow(667.3)).toBe('667 mm³/s')
  expect(flow(8.42)).toBe('8.4 mm³/s')
})
test('what a save did to a nozzle is an estimate with its range', () => {
  const left = { median: 0.351, low80: 0.2, high80: 0.61 }
  const run = {
    tag: 'N-1',
    fibreG: 62.4,
    extrudedG: 312,
    leftFibreKg: left,
    leftMaterial: 'PA6-CF20',
    pastChance: 0.02,
  }
  expect(runEffectWords({ runId: 1, nozzles: [run] })).toBe(
    '+62.4 g fibre on N-1; about 0.35 kg (80 % between 0.20 and 0.61 kg) left',
  )
  const gauge = { gaugeId: 1, tag: 'N-1', leftMaterial: null, pastChance: 0.02, outweighed: false, leftFibreKg: left }
  const boreMm = { median: 0.4371, low80: 0.4331, high80: 0.4412 }
  expect(gaugeEffectWords({ ...gauge, boreMm, nextGaugeFibreKg: 0.1 })).toBe(
    'N-1 is at ⌀0.437 mm (80 % between 0.433 and 0.441); about 0.35 kg (80 % between 0.20 and 0.61 kg) left, ' +
      'gauge again in 0.10 kg (2 % chance of being past the limit)',
  )
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
  const {
    FOR_GOOD_H: _,
    capital: _c,
    counted: _n,
    listed: _l,
    zoneWord: _z,
    money: m,
    price: p,
    sumOfPrices: sum,
    ...others
  } = words
  const { kgBetween, countBetween: count, kgEstimate: about, ...ofOne } = others
  const all: Record<string, (v: number) => string> = {
    ...ofOne,
    kgBetween: v => kgBetween(v, v),
    countBetween: v => count(v, v),
    kgEstimate: v => about({ median: v, low80: v, high80: v }),
    money: v => m(v, ''),
    price: v => p(v, ''),
    sumOfPrices: v => sum(v, ''),
  }
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
