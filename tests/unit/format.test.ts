import { describe, expect, test } from 'vitest'
import { chance, duration, grams, kg, kgBetween, metres } from '#core/words'
import { temper, typedNumber } from '~/words/numbers'

describe('numbers in', () => {
  test.each([
    ['0.43', 0.43],
    ['0,43', 0.43],
    [' 12 ', 12],
    ['.5', 0.5],
    ['-3', -3],
    ['', null],
  ])('%s', (text, want) => expect(typedNumber(text)).toBe(want))
  test.each(['abc', '1.2.3', '1,2,3', '1e3', '0x1', '--1', '1 2'])('%s is none', text =>
    expect(typedNumber(text)).toBeNaN(),
  )
})
describe('numbers out: honest digits and a unit', () => {
  test.each([
    [0.2834, '0.28 kg'],
    [0.0581, '58 g'],
    [1.052, '1.1 kg'],
    [11.4, '11 kg'],
    [0.0003, '0 kg'],
    [56.3, '56 kg'],
  ])('%f kg', (v, want) => expect(kg(v)).toBe(want))
  test('ranges have one unit', () => {
    expect(kgBetween(0.058, 0.594)).toBe('80 % between 0.06 and 0.59 kg')
    expect(kgBetween(0.0253, 0.0861)).toBe('80 % between 25 and 86 g')
    expect(kgBetween(0, 0.3)).toBe('80 % between 0 and 0.30 kg')
    expect(kgBetween(13.8, 50.1)).toBe('80 % between 14 and 50 kg')
  })
  test('the rest', () => {
    expect([grams(312), grams(62.4), grams(2.954)]).toEqual(['312 g', '62.4 g', '3 g'])
    expect([chance(0.001), chance(0.046), chance(0.999)]).toEqual(['under 1 %', '5 %', 'over 99 %'])
    expect([metres(5000), metres(123456)]).toEqual(['5.00 m', '123.5 m'])
    expect([duration(59), duration(3600 * 9.5)]).toEqual(['1 min', '9 h 30 min'])
  })
})
test('oxide colours begin at slate and end at blue', () => {
  expect(temper(20)).toBe('rgb(91,112,131)')
  expect(temper(230)).toBe('rgb(195,154,46)')
  expect(temper(600)).toBe('rgb(46,90,136)')
})
