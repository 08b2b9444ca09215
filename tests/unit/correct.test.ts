/** Correcting a refused entry where it was refused, and the keys of entries that take another's place. */
import { expect, test } from 'vitest'
import { keyAfter, newKey } from '~/lib/api'
import { correctable, corrected } from '~/lib/correct'

const body = { spoolId: 7, note: 'x', atC: 218, grossG: null, parts: [{ kind: 'belts', limitC: 5 }], shape: ['oval'] }

test('only fields that can be typed are offered, by a name a person reads', () => {
  const errors = ['atC', 'grossG', 'parts.0.limitC', 'shape', 'nothing.here', ''].map(field => ({
    field,
    message: `${field} is wrong`,
  }))
  expect(correctable(body, errors)).toEqual([
    { path: 'atC', label: 'at, °C', text: '218', message: 'atC is wrong' },
    { path: 'grossG', label: 'gross, g', text: '', message: 'grossG is wrong' },
    { path: 'parts.0.limitC', label: 'parts, 1, limit, °C', text: '5', message: 'parts.0.limitC is wrong' },
  ])
})

test('a number stays a number, a text a text, nothing typed is none; the entry itself is left alone', () => {
  expect(corrected(body, { 'atC': '70,5', 'parts.0.limitC': '80', 'note': '12', 'gone.field': '1' })).toEqual({
    ...body,
    atC: 70.5,
    note: '12',
    parts: [{ kind: 'belts', limitC: 80 }],
  })
  expect(corrected(body, { grossG: '900' })).toMatchObject({ grossG: 900 })
  expect(corrected(body, { atC: '' })).toMatchObject({ atC: null })
  expect(corrected(body, { atC: 'hot' })).toMatchObject({ atC: 'hot' }) // the server says what is wrong with it
  expect(body.atC).toBe(218)
})

test('every tab that changes an entry gives it the same next key, within what the server takes', () => {
  const key = newKey()
  expect(keyAfter(key)).toBe(`${key}-2`)
  expect(keyAfter(keyAfter(key))).toBe(`${key}-3`)
  expect(keyAfter(keyAfter(key))).toMatch(/^[\w-]{8,100}$/)
  expect(newKey()).not.toBe(key)
})

test('what is kept as a share is shown, and typed, in per cent', () => {
  const lot = { fillerFraction: 0.9, retire: { boreGrowthLimit: null } }
  const errors = [
    { field: 'fillerFraction', message: 'At most 80 wt%' },
    { field: 'retire.boreGrowthLimit', message: 'At least one retire rule' },
  ]
  expect(correctable(lot, errors).map(({ label, text }) => [label, text])).toEqual([
    ['filler, wt%', '90'],
    ['retire, bore growth limit, %', ''],
  ])
  expect(corrected(lot, { 'fillerFraction': '14,3', 'retire.boreGrowthLimit': '7' })).toEqual({
    fillerFraction: 0.143,
    retire: { boreGrowthLimit: 0.07 },
  })
})
