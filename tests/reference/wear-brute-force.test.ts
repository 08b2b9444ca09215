/**
 * The posterior against another way of reckoning it. Sources: Archard's differential equation integrated step by step
 * (fourth-order Runge-Kutta, any numerical analysis textbook); Bayes' rule by plain Monte Carlo weighting of draws from
 * the prior, with the exact normal distribution.
 */
import { describe, expect, test } from 'vitest'
import { mulberry32, normalCdf, normalDraw } from '#core/numeric'
import { boreAfter, boreAt, boreLife, borePosterior, brokenBy, wearToLimit, type BoreObservation, type Law } from '#core/wear'

describe('closed form against the differential equation dd/dM = κ (0.4/d)²', () => {
  test.each([[0.4, 0.03, 1.5], [0.6, 0.5, 0.2], [0.25, 1.0, 0.02], [0.8, 0.004, 30]])('d0 %f mm, κ %f, M %f kg', (d0, kappa, end) => {
    const slope = (d: number) => kappa * (0.4 / d) ** 2
    const steps = 2000, h = end / steps
    let d = d0
    for (let i = 0; i < steps; i++) {
      const k1 = slope(d), k2 = slope(d + h * k1 / 2), k3 = slope(d + h * k2 / 2), k4 = slope(d + h * k3)
      d += h * (k1 + 2 * k2 + 2 * k3 + k4) / 6
    }
    expect(boreAfter('sliding', d0, kappa, end, 0.4)).toBeCloseTo(d, 9)
  })
})

/** Quantiles of bore and chance of being past, from 200 000 draws of the prior weighted by the likelihood. */
function monteCarlo(law: Law, observations: BoreObservation[], now: number) {
  const random = mulberry32(11)
  const draws: { d: number, life: number, w: number }[] = []
  for (let i = 0; i < 200_000; i++) {
    const d0 = 0.4 + 0.01 * normalDraw(random), kappa = Math.exp(Math.log(0.03) + 0.8 * normalDraw(random))
    let w = 1
    for (const o of observations) {
      const d = boreAfter(law, d0, kappa, o.wearKg, 0.4)
      if (o.kind === 'value') w *= Math.exp(-0.5 * ((d - o.valueMm) / o.uMm) ** 2)
      else w *= (o.noGoMm === null ? 1 : normalCdf((o.noGoMm - d) / o.uMm)) - (o.goMm === null ? 0 : normalCdf((o.goMm - d) / o.uMm))
      if (w < 1e-12) break
    }
    if (w > 1e-12) draws.push({ d: boreAfter(law, d0, kappa, now, 0.4), life: wearToLimit(law, d0, kappa, 0.44, 0.4), w })
  }
  const total = draws.reduce((s, x) => s + x.w, 0)
  const quantile = (p: number) => {
    const sorted = [...draws].sort((a, b) => a.d - b.d)
    let sum = 0
    return sorted.find(x => (sum += x.w) >= p * total)!.d
  }
  return { low: quantile(0.1), median: quantile(0.5), high: quantile(0.9), past: draws.filter(x => x.life <= now).reduce((s, x) => s + x.w, 0) / total }
}

const pins = (wearKg: number, goMm: number | null, noGoMm: number | null): BoreObservation => ({ kind: 'pins', wearKg, goMm, noGoMm, uMm: 0.003 })
describe.each(['sliding', 'linear'] as Law[])('%s wear against Monte Carlo', law => {
  test.each<[string, BoreObservation[], number]>([
    ['no gauge', [], 1],
    ['one interval', [pins(0.8, 0.42, 0.43)], 1],
    ['intervals and a value', [pins(0.3, 0.40, 0.41), { kind: 'value', wearKg: 0.7, valueMm: 0.421, uMm: 0.006 }, pins(1, 0.42, 0.43)], 1.3],
    ['one-sided', [pins(0.9, null, 0.43), pins(0.9, 0.41, null)], 1.2],
    ['near the limit', [pins(0.5, 0.42, 0.43), pins(0.9, 0.43, 0.44)], 1.1],
  ])('%s', (_name, observations, now) => {
    const want = monteCarlo(law, observations, now)
    const p = borePosterior({ nominalMm: 0.4, d0: { meanMm: 0.4, uMm: 0.01 }, observations }, { meanLn: Math.log(0.03), sd: 0.8 }, law)
    const got = boreAt(p, now)
    expect(Math.abs(got.quantile(0.1) - want.low)).toBeLessThan(0.0006)
    expect(Math.abs(got.quantile(0.5) - want.median)).toBeLessThan(0.0006)
    expect(Math.abs(got.quantile(0.9) - want.high)).toBeLessThan(0.001)
    expect(Math.abs(brokenBy([boreLife(p, 0.44)], now) - want.past)).toBeLessThan(0.015)
  })
})
