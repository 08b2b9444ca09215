/** What is kept as a share of 1 and said in per cent: forms, earlier values, refusals. */
import { expect, test } from 'vitest'
import fc from 'fast-check'
import { materialFields } from '#shared/entries/materials'
import { nozzleTypeFields } from '#shared/entries/nozzles'
import { settingsFields } from '#shared/entries/shop'
import { keptNumber, saidValue, shareUnit, shareWords, shownNumber } from '#shared/share'

test('by name or path, and no other field', () => {
  expect(['fillerFraction', 'set.boreGrowthLimit', 'acceptedRisk'].map(shareUnit)).toEqual(['wt%', '%', '%'])
  expect(['netG', 'tools.0.amount.grams', ''].map(shareUnit)).toEqual([null, null, null])
})

test('what is typed comes back as it was typed, and nothing stays nothing', () => {
  expect(keptNumber('fillerFraction', 14.3)).toBe(0.143)
  expect(shownNumber('fillerFraction', 0.07)).toBe(7)
  expect(shownNumber('netG', 0.07)).toBe(0.07)
  expect([shownNumber('acceptedRisk', null), keptNumber('acceptedRisk', null)]).toEqual([null, null])
  expect(keptNumber('acceptedRisk', NaN)).toBeNaN() // what is no number is refused where it is typed
  const typed = fc.integer({ min: 0, max: 8_000_000 }).map(n => n / 100_000)
  fc.assert(
    fc.property(typed, n => {
      expect(shownNumber('fillerFraction', keptNumber('fillerFraction', n))).toBe(n)
    }),
  )
})

test('earlier values say the number that was typed, with its unit', () => {
  expect(saidValue('fillerFraction', 0.143)).toBe('14.3 wt%')
  expect(saidValue('netG', 1000)).toBe('1000')
  expect([null, undefined, ''].map(v => saidValue('fillerFraction', v))).toEqual(['empty', 'empty', 'empty'])
  expect(saidValue('prices', { brass: 4 })).toBe('{"brass":4}')
  expect(shareWords('boreGrowthLimit', 1 / 7)).toBe('14.3 %')
})

test('the door refuses what it refused, and says so in the unit of the field', () => {
  const says = (of: { safeParse: (v: unknown) => { error?: { issues: { message: string }[] } } }, v: unknown) =>
    of.safeParse(v).error?.issues.map(i => i.message)
  const { fillerFraction } = materialFields.shape
  expect([0, 0.2, 0.8].map(v => says(fillerFraction, v))).toEqual([undefined, undefined, undefined])
  expect(says(fillerFraction, 0.81)).toEqual(['At most 80 wt%'])
  expect(says(nozzleTypeFields.shape.boreGrowthLimit, 0.009)).toEqual(['At least 1 %'])
  expect(says(settingsFields.shape.acceptedRisk, 0.51)).toEqual(['At most 50 %'])
  expect(says(settingsFields.shape.acceptedRisk, 0.0005)).toEqual(['At least 0.1 %'])
})
