/** Distributions on bins: shares and quantiles undo each other, and rules combine as they should. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { normalCdf } from '#core/numeric'
import { brokenBy, Cdf, cdfOf, wearAtRisk, type Life } from '../../core/wear/life'

/** Log of a life that is log-normal about `kg` with spread `sd`, from many weighted places. */
function logNormal(kg: number, sd: number, n = 401): Life {
  const z = Float64Array.from({ length: n }, (_, i) => -5 + 10 * i / (n - 1))
  return { kind: 'cdf', lnKg: cdfOf(z.map(v => Math.log(kg) + sd * v), new Float64Array(n).fill(10 * sd / (n - 1)), z.map(v => Math.exp(-v * v / 2))) }
}

describe('one distribution', () => {
  test('a box is a straight line', () => {
    const c = cdfOf(Float64Array.of(5), Float64Array.of(2), Float64Array.of(3))
    for (const [v, p] of [[3.9, 0], [4, 0], [4.5, 0.25], [5, 0.5], [6, 1], [7, 1]] as const) expect(c.share(v)).toBeCloseTo(p, 2)
    expect(c.quantile(0.25)).toBeCloseTo(4.5, 2)
  })
  test('a normal spread gives the normal quantiles back', () => {
    const l = logNormal(2, 0.5) as Life & { kind: 'cdf' }
    for (const z of [-1.96, -1.2816, 0, 1.2816, 1.96]) {
      expect(l.lnKg.quantile(normalCdf(z))).toBeCloseTo(Math.log(2) + 0.5 * z, 2)
      expect(l.lnKg.share(Math.log(2) + 0.5 * z)).toBeCloseTo(normalCdf(z), 3)
    }
  })
  test('weight that is below everything stays below', () => {
    const c = cdfOf(Float64Array.of(-Infinity, 1, 2), Float64Array.of(0, 0.1, 0.1), Float64Array.of(1, 1, 2))
    expect(c.share(-100)).toBeCloseTo(0.25, 9)
    expect(c.quantile(0.2)).toBe(-Infinity)
    expect(c.quantile(0.9)).toBeCloseTo(2, 1)
    const none = cdfOf(Float64Array.of(-Infinity), Float64Array.of(0), Float64Array.of(1))
    expect(none.share(0)).toBe(1)
  })
  test('property: it rises, and quantile and share undo each other', () => {
    const places = fc.array(fc.record({ v: fc.double({ min: -50, max: 50, noNaN: true }), w: fc.double({ min: 0.001, max: 10, noNaN: true }), width: fc.double({ min: 0.01, max: 5, noNaN: true }) }), { minLength: 1, maxLength: 30 })
    fc.assert(fc.property(places, fc.double({ min: 0.02, max: 0.98, noNaN: true }), (list, p) => {
      const c = cdfOf(Float64Array.from(list, x => x.v), Float64Array.from(list, x => x.width), Float64Array.from(list, x => x.w))
      for (let i = 1; i < c.at.length; i++) expect(c.at[i]!).toBeGreaterThanOrEqual(c.at[i - 1]!)
      expect(c.at[c.at.length - 1]).toBe(1)
      const q = c.quantile(p)
      expect(c.share(q)).toBeGreaterThanOrEqual(p - 1e-9)
      expect(c.share(q - 0.5)).toBeLessThanOrEqual(p + 1e-9)
    }))
  })
  test('the range is in order', () => {
    const r = new Cdf(0, 1, Float64Array.of(0, 0.2, 0.7, 1)).range()
    expect(r.low95).toBeLessThan(r.low80)
    expect(r.low80).toBeLessThan(r.median)
    expect(r.median).toBeLessThan(r.high80)
    expect(r.high80).toBeLessThan(r.high95)
  })
})

describe('several rules', () => {
  test('independent rules: the chance of neither is the product', () => {
    const a = logNormal(1, 0.4), b = logNormal(2, 0.6)
    for (const kg of [0.3, 0.8, 1, 2, 5]) expect(brokenBy([a, b], kg)).toBeCloseTo(1 - (1 - brokenBy([a], kg)) * (1 - brokenBy([b], kg)), 12)
  })
  test('wear at a risk undoes the chance at a wear', () => {
    const lives = [logNormal(1, 0.4), logNormal(3, 0.8)]
    for (const p of [0.025, 0.1, 0.5, 0.9]) expect(brokenBy(lives, wearAtRisk(lives, p))).toBeCloseTo(p, 4)
  })
  test('a fixed mass is a step, and another rule can come first', () => {
    const mass: Life = { kind: 'mass', kg: 1.5 }
    expect([brokenBy([mass], 1.49), brokenBy([mass], 1.5)]).toEqual([0, 1])
    expect(wearAtRisk([mass], 0.5)).toBeCloseTo(1.5, 6)
    expect(wearAtRisk([mass, logNormal(0.5, 0.3)], 0.5)).toBeCloseTo(0.5, 2)
    expect(wearAtRisk([mass, logNormal(50, 0.3)], 0.5)).toBeCloseTo(1.5, 6)
  })
})
