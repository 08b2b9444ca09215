import { describe, expect, test } from 'vitest'
import { InputError } from '#core/numeric'
import { compositeDensity, fibreMassG, fillerFraction, lengthForMassMm, massG } from '#core/materials'

describe('mixture density', () => {
  // Source: rule of mixtures by mass; the trade quotes 1.44 g/cm³ for PEEK with 20 wt% glass (common practice, no
  // source).
  test('PEEK with 20 wt% glass is the 1.44 that the trade quotes', () =>
    expect(compositeDensity(1.3, 2.56, 0.2)).toBeCloseTo(1.442, 3))
  test('PA6 with 20 wt% carbon', () => expect(compositeDensity(1.14, 1.78, 0.2)).toBeCloseTo(1.228, 3))
  test('the inverse gives the fraction back', () => {
    for (const w of [0, 0.05, 0.2, 0.5, 0.9])
      expect(fillerFraction(compositeDensity(1.14, 1.78, w), 1.14, 1.78)).toBeCloseTo(w, 12)
  })
  test('bad input names the field', () => {
    expect(() => compositeDensity(0, 1.78, 0.2)).toThrow(/matrixGCm3: 0/)
    expect(() => fillerFraction(1.0, 1.14, 1.78)).toThrow(/measuredGCm3/)
    expect(() => fillerFraction(1.14, 1.14, 1.14)).toThrow(InputError)
    expect(() => compositeDensity(1.14, NaN, 0.2)).toThrow(/fillerGCm3: NaN/)
  })
})

describe('length and mass', () => {
  // Source: geometry; 1.75 mm at 1.24 g/cm³ is the "about 3 g per metre" of the trade (common practice, no source).
  test('a metre of 1.75 mm at 1.24 g/cm³', () => expect(massG(1000, 1.75, 1.24)).toBeCloseTo(2.983, 3))
  test('and back', () => expect(lengthForMassMm(massG(1234, 2.85, 1.5), 2.85, 1.5)).toBeCloseTo(1234, 9))
  test('fibre in it', () => expect(fibreMassG(312, 0.2)).toBeCloseTo(62.4, 12))
  test('bad input', () => {
    expect(() => massG(1, 0, 1)).toThrow(InputError)
    expect(() => lengthForMassMm(1, 1.75, 0)).toThrow(/densityGCm3/)
  })
})
