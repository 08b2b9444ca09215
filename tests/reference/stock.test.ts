/**
 * What is wanted of the shelf against facts from outside: renewals whose lives are exponential are a Poisson process
 * (Cox 1962, Renewal Theory, 3.1), heads of one chance each are binomial, the next uses under an unknown rate are
 * gamma-Poisson (Gelman et al. 2013, Bayesian Data Analysis, 2.6; here integrated numerically), and what lies evenly
 * between two bounds has their distance over √12 (JCGM 100:2008, 4.3.7).
 */
import { expect, test } from 'vitest'
import { lnGamma } from '#core/numeric'
import { enoughByUse, needChances } from '#core/stock'
import { pinAt } from '#core/wear'

const poisson = (k: number, mean: number) => Math.exp(k * Math.log(mean) - mean - lnGamma(k + 1))

test.each([0.5, 1, 3])('exponential lives are a Poisson process: mean %d', mean => {
  // the fitted one is at its end, so one is wanted at once and then as many as the process has
  const gone = { median: 1e-9, low80: 1e-9, high80: 1e-9 }
  const chances = needChances([{ leftKg: gone, kgPerDay: 0.1, life: { shape: 1, scale: 6 / mean } }], 60)
  expect(chances[0]).toBeCloseTo(0, 9)
  for (let k = 0; k < 6; k++) expect(chances[k + 1]).toBeCloseTo(poisson(k, mean), 2)
})

test('ten heads at their median are a binomial of ten', () => {
  const head = { leftKg: { median: 1, low80: 0.4, high80: 2.5 }, kgPerDay: 0.02, life: null }
  const chances = needChances(new Array(10).fill(head), 50)
  // Pascal's triangle: 1 10 45 120 210 252 …, over 1024
  for (const [k, n] of [1, 10, 45, 120, 210, 252].entries()) expect(chances[k]).toBeCloseTo(n / 1024, 6)
})

test('the log-normal of what is left is met at its own ends: a tenth below the lower, a tenth above the upper', () => {
  const leftKg = { median: 1, low80: 0.3, high80: 1.4 }
  const chance = (reachKg: number) => needChances([{ leftKg, kgPerDay: reachKg / 10, life: null }], 10)[1]
  expect([0.3, 1, 1.4].map(chance)).toEqual([0.1, 0.5, 0.9].map(p => expect.closeTo(p, 6)))
})

/** Smallest k with P(K ≤ k) ≥ sure, the rate integrated out over its posterior by small steps. */
function bySteps(uses: number, days: number, ahead: number, sure: number): number {
  const shape = uses + 0.5
  const most = (shape + 12 * Math.sqrt(shape) + 12) / days
  const steps = 40_000
  const step = most / steps
  for (let sum = 0, k = 0; ; k++) {
    for (let i = 0; i < steps; i++) {
      const rate = (i + 0.5) * step
      const density = Math.exp(shape * Math.log(days) + (shape - 1) * Math.log(rate) - days * rate - lnGamma(shape))
      sum += density * poisson(k, rate * ahead) * step
    }
    if (sum >= sure) return k
  }
}
test.each([
  [1, 40, 60, 0.8],
  [6, 180, 60, 0.8],
  [6, 180, 60, 0.95],
  [25, 365, 90, 0.8],
])('%i uses in %i days, for %i days with %d', (uses, overDays, ahead, sure) => {
  expect(enoughByUse({ uses, quantity: uses, overDays }, ahead, sure)).toBeCloseTo(
    bySteps(uses, overDays, ahead, sure),
    9,
  )
})

test('a pin between two certificates 4 µm apart: 2 µm half width over √3 beside the certificate', () => {
  const certificates = [0.42, 0.416].map((sizeMm, i) => ({ atMs: 1000 * i, sizeMm, uMm: 0.0005 }))
  const { sizeMm, uMm } = pinAt(certificates, 500)!
  expect(sizeMm).toBeCloseTo(0.418, 12)
  expect(uMm).toBeCloseTo(Math.sqrt(0.0005 ** 2 + (0.002 / Math.sqrt(3)) ** 2), 12)
})
