/**
 * The posterior against other ways of reckoning it. Sources: Archard's differential equation integrated step by step
 * (fourth-order Runge-Kutta, any numerical analysis textbook); Bayes' rule by brute force on a fine grid, with a
 * program of its own (`brute-force.ts`) whose answers stand in `brute-force-answers.json`.
 */
import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import { boreAfter, boreAt, boreLife, borePosterior, brokenBy, wearAtRisk, wearToLimit } from '#core/wear'
import { bruteForce, QUANTILES } from './brute-force'
import { CASES } from './wear-cases'

describe('closed form against the differential equation dd/dM = κ (0.4/d)²', () => {
  test.each([
    [0.4, 0.03, 1.5],
    [0.6, 0.5, 0.2],
    [0.25, 1.0, 0.02],
    [0.8, 0.004, 30],
  ])('d0 %f mm, κ %f, M %f kg', (d0, kappa, end) => {
    const slope = (d: number) => kappa * (0.4 / d) ** 2
    const steps = 2000
    const h = end / steps
    let d = d0
    for (let i = 0; i < steps; i++) {
      const k1 = slope(d)
      const k2 = slope(d + (h * k1) / 2)
      const k3 = slope(d + (h * k2) / 2)
      const k4 = slope(d + h * k3)
      d += (h * (k1 + 2 * k2 + 2 * k3 + k4)) / 6
    }
    expect(boreAfter('sliding', d0, kappa, end, 0.4)).toBeCloseTo(d, 9)
  })
})

interface Answer {
  bore: number[]
  life: number[]
  past: number
  boreAround: [number, number][]
  lifeAround: [number, number][]
}
const ANSWERS = JSON.parse(readFileSync(new URL('./brute-force-answers.json', import.meta.url), 'utf8')) as Record<
  string,
  Answer
>

/** Where 0.0002 of probability moves a quantile by more than what is allowed, its probability counts instead. */
const ALLOWED_MM = 0.0001
const ALLOWED_CHANCE = 0.003

describe('the posterior is the posterior', () => {
  test('there are at least forty histories, and every one has its answer', () => {
    expect(Object.keys(CASES).length).toBeGreaterThanOrEqual(40)
    expect(Object.keys(ANSWERS).sort()).toEqual(Object.keys(CASES).sort())
  })

  test.each(Object.entries(CASES))('%s', (name, c) => {
    const want = ANSWERS[name]!
    const doubt = { misread: c.misread, otherBore: c.otherBore }
    const p = borePosterior(
      { nominalMm: c.nominalMm, wasUsed: c.wasUsed, observations: c.readings, doubt },
      c.prior,
      c.law,
    )
    const bore = boreAt(p, c.nowKg)
    const life = boreLife(p, c.limitMm)
    for (const [i, q] of QUANTILES.entries()) {
      const mm = want.bore[i]!
      const [low, high] = want.boreAround[i]!
      const perMm = (high - low) / (0.001 * mm)
      const off = Math.abs(bore.quantile(q) - mm)
      if (perMm * ALLOWED_MM >= 0.0002 || off <= ALLOWED_MM) expect(off, `bore ${q}`).toBeLessThanOrEqual(ALLOWED_MM)
      else expect(Math.abs(bore.share(mm) - q), `chance at bore ${q}`).toBeLessThan(ALLOWED_CHANCE)
    }
    const nominalLife = wearToLimit(c.law, c.nominalMm, Math.exp(c.prior.meanLn), c.limitMm, c.nominalMm)
    for (const [i, q] of QUANTILES.entries()) {
      const left = Math.max(0, want.life[i]! - c.nowKg)
      const allowed = 0.01 * left + 0.002 * nominalLife
      const off = Math.abs(Math.max(0, wearAtRisk([life], q) - c.nowKg) - left)
      const [low, high] = want.lifeAround[i]!
      const perKg = (high - low) / (0.001 * want.life[i]!)
      if (want.life[i] === 0 || perKg * allowed >= 0.0002 || off <= allowed)
        expect(off, `left ${q}`).toBeLessThanOrEqual(allowed)
      else expect(Math.abs(brokenBy([life], want.life[i]!) - q), `chance at life ${q}`).toBeLessThan(ALLOWED_CHANCE)
    }
    expect(Math.abs(brokenBy([life], c.nowKg) - want.past), 'past').toBeLessThan(ALLOWED_CHANCE)
  })

  // the stored answers are this program's: a few again, more coarsely
  test.each(['one pin pair', 'pins that contradict, straight line', 'five values without doubt'])(
    'the brute-force program says so: %s',
    name => {
      const got = bruteForce(CASES[name]!, 300, 6)
      for (const [i, mm] of got.bore.entries()) expect(Math.abs(mm - ANSWERS[name]!.bore[i]!)).toBeLessThan(0.0005)
      expect(Math.abs(got.past - ANSWERS[name]!.past)).toBeLessThan(0.005)
    },
  )

  test('the ridge: what is left is what the issue worked out by hand, not the narrow answer of a clipped box', () => {
    const c = CASES['the ridge without doubt']!
    const history = { nominalMm: 0.4, wasUsed: false, observations: c.readings, doubt: { misread: 0, otherBore: 0 } }
    const life = boreLife(borePosterior(history, c.prior), c.limitMm)
    const left = [0.1, 0.5, 0.9].map(q => wearAtRisk([life], q) - c.nowKg)
    expect(left[0]).toBeCloseTo(0.255, 2)
    expect(left[1]).toBeCloseTo(0.287, 2)
    expect(left[2]).toBeCloseTo(0.323, 2)
  })
})
