/** Quantiles by crossing, and lives: shares and quantiles undo each other, and rules combine as they should. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { normalCdf } from '#core/numeric'
import { brokenBy, massLife, rangeOf, wearAtRisk, type Life } from '#core/wear'
import { Crossings } from '../../core/wear/crossing'

/** A life that is log-normal about `kg` with spread `sd`; how well the rough places fit must not matter. */
const logNormal = (kg: number, sd: number, rough = { at: [kg], weight: [1] }): Life => ({
  chance: x => (x <= 0 ? 0 : normalCdf(Math.log(x / kg) / sd)),
  rough,
})
const normal = (mean: number, sd: number, rough: { at: number[]; weight: number[] }) =>
  new Crossings(v => normalCdf((v - mean) / sd), mean - 12 * sd, mean + 12 * sd, rough)

describe('one distribution', () => {
  test.each([
    ['good places', { at: [-1, 0, 1].map(z => 5 + 2 * z), weight: [0.3, 0.4, 0.3] }],
    ['no places', { at: [], weight: [] }],
    ['places that are far off', { at: [-18, 27], weight: [1, 5] }],
    ['places outside', { at: [-1000, 1000], weight: [1, 1] }],
  ])('a normal spread gives the normal quantiles back: %s', (_, rough) => {
    const s = normal(5, 2, rough)
    for (const z of [-1.96, 1.96, 0, -1.2816, 1.2816]) expect(s.quantile(normalCdf(z))).toBeCloseTo(5 + 2 * z, 2)
  })
  test('a step is found', () => {
    const s = new Crossings(v => (v >= 3.25 ? 1 : 0), 0, 10, { at: [1, 9], weight: [1, 1] })
    for (const p of [0.1, 0.5, 0.9]) expect(s.quantile(p)).toBeCloseTo(3.25, 6)
  })
  test('property: whatever the steps, the quantile is where the share reaches p', () => {
    const steps = fc.array(
      fc.record({ at: fc.double({ min: 0, max: 10, noNaN: true }), w: fc.double({ min: 0.01, max: 1, noNaN: true }) }),
      { minLength: 1, maxLength: 12 },
    )
    fc.assert(
      fc.property(steps, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (list, p) => {
        const all = list.reduce((s, x) => s + x.w, 0)
        const share = (v: number) => list.reduce((s, x) => s + (v >= x.at ? x.w : 0), 0) / all
        const q = new Crossings(share, -1, 11, { at: list.map(x => x.at), weight: list.map(x => x.w) }).quantile(p)
        expect(share(q + 1e-5)).toBeGreaterThanOrEqual(p - 1e-3)
        expect(share(q - 1e-5)).toBeLessThanOrEqual(p + 1e-3)
      }),
    )
  })
  test('the range is in order', () => {
    const r = rangeOf(normal(0, 1, { at: [0], weight: [1] }))
    expect([r.low95, r.low80, r.median, r.high80, r.high95]).toEqual(
      [r.low95, r.low80, r.median, r.high80, r.high95].sort((a, b) => a - b),
    )
  })
})

describe('several rules', () => {
  test('independent rules: the chance of neither is the product', () => {
    const a = logNormal(1, 0.4)
    const b = logNormal(2, 0.6)
    for (const kg of [0.3, 0.8, 1, 2, 5])
      expect(brokenBy([a, b], kg)).toBeCloseTo(1 - (1 - brokenBy([a], kg)) * (1 - brokenBy([b], kg)), 12)
  })
  test('a hair below nothing, by rounding, is no chance below nothing', () => {
    const hair = { ...logNormal(1, 0.4), chance: () => -2.3e-16 }
    expect([brokenBy([hair], 0.1), brokenBy([hair, hair], 0.1)]).toEqual([0, 0])
  })
  test('wear at a risk undoes the chance at a wear', () => {
    const lives = [logNormal(1, 0.4), logNormal(3, 0.8)]
    for (const p of [0.025, 0.1, 0.5, 0.9]) expect(brokenBy(lives, wearAtRisk(lives, p))).toBeCloseTo(p, 3)
  })
  test('a fixed mass is a step, and another rule can come first', () => {
    const mass = massLife(1.5)
    expect([brokenBy([mass], 1.49), brokenBy([mass], 1.5)]).toEqual([0, 1])
    expect(wearAtRisk([mass], 0.5)).toBeCloseTo(1.5, 6)
    expect(wearAtRisk([mass, logNormal(0.5, 0.3)], 0.5)).toBeCloseTo(0.5, 2)
    expect(wearAtRisk([mass, logNormal(50, 0.3)], 0.5)).toBeCloseTo(1.5, 6)
  })
})
