/**
 * Pictures in the wear posterior against brute force: a grid of (d0, ln κ, b), every likelihood written out, the shared
 * offset b summed over instead of integrated in closed form. Source: Bayes' rule; the model in docs/wear.md.
 */
import { describe, expect, test } from 'vitest'
import { mulberry32, normalDraw, normalCdf } from '#core/numeric'
import { beyondBore, boreAt, boreLife, borePosterior, brokenBy, FLARE_SHARE, type BoreObservation } from '#core/wear'
import { lnGroup, lnGroupAtMost, pictureGroups } from '../../core/wear/pictures'
import { misreadChance } from '../../core/wear/readings'

type Picture = Extract<BoreObservation, { kind: 'picture' }>
const picture = (wearKg: number, valueMm: number, more: Partial<Picture> = {}): Picture => ({
  kind: 'picture',
  wearKg,
  valueMm,
  uMm: 0.0012,
  uSharedMm: 0.003,
  setup: 'a',
  ...more,
})
const prior = { meanLn: Math.log(0.03), sd: 0.8 }
const EPSILON = 0.03
const TAU = FLARE_SHARE * 0.4
const density = (z: number) => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI)

/** Likelihood of pictures of one set-up as a function of their bores, b summed over. */
function summed(list: Picture[]): (d: number[]) => number {
  const [uS, n] = [list[0]!.uSharedMm, list.length]
  const omega = Math.hypot(uS, TAU)
  const bad = list.map(o => EPSILON * misreadChance(o, 0.4))
  const step = omega / 40
  const offsets = Array.from({ length: 440 }, (_, k) => (k - 220) * step)
  const chances = offsets.map(b => (2 / omega) * density(b / omega) * normalCdf(((TAU / uS) * b) / omega) * step)
  return d => {
    let sum = n > 1 ? bad.reduce((s, v) => s * v, 1) : 0
    for (let k = 0; k < offsets.length; k++) {
      // products with none of them bad, and with exactly one
      let none = 1
      let one = 0
      for (let i = 0; i < n; i++) {
        const o = list[i]!
        const good = ((1 - EPSILON) * density((o.valueMm - d[i]! - offsets[k]!) / o.uMm)) / o.uMm
        one = one * good + none * bad[i]!
        none *= good
      }
      sum += chances[k]! * (none + one)
    }
    return sum
  }
}

const CASES: Record<string, { readings: BoreObservation[]; nowKg: number }> = {
  'one picture': { readings: [picture(0.8, 0.43)], nowKg: 1 },
  'receipt and two later': { readings: [picture(0, 0.404), picture(0.5, 0.418), picture(1, 0.428)], nowKg: 1.2 },
  'six of one sitting': { readings: [1, 2, 3, 4, 5, 6].map(k => picture(0.9, 0.428 + 0.0004 * k)), nowKg: 0.9 },
  'one misread among four': {
    readings: [picture(0.3, 0.412), picture(0.5, 0.46), picture(0.7, 0.42), picture(0.9, 0.425)],
    nowKg: 1,
  },
  'pins and pictures that stand wider': {
    readings: [
      { kind: 'pins', wearKg: 0.5, goMm: 0.41, noGoMm: 0.42, uMm: 0.003 },
      picture(0.5, 0.428),
      { kind: 'pins', wearKg: 1, goMm: 0.42, noGoMm: 0.43, uMm: 0.003 },
      picture(1, 0.438),
    ],
    nowKg: 1,
  },
  'two set-ups': { readings: [picture(0.5, 0.42), picture(0.5, 0.426, { setup: 'b', uSharedMm: 0.008 })], nowKg: 0.6 },
}

/** The bore now, counted over a grid of (ln κ, d0) about the recorded bore. */
function counted(readings: BoreObservation[], nowKg: number) {
  const bores: { mm: number; w: number }[] = []
  const setups = new Map<string, Picture[]>()
  for (const o of readings) if (o.kind === 'picture') setups.set(o.setup, [...(setups.get(o.setup) ?? []), o])
  const groups = [...setups.values()].map(list => ({ list, likelihood: summed(list) }))
  for (let x = prior.meanLn - 3.4; x < prior.meanLn + 3; x += 0.08)
    for (let d0 = 0.36; d0 < 0.44; d0 += 0.0008) {
      const at = (kg: number) => Math.cbrt(d0 ** 3 + 0.48 * Math.exp(x) * kg)
      let w = density((d0 - 0.4) / 0.01) * density((x - prior.meanLn) / prior.sd)
      for (const o of readings)
        if (o.kind === 'pins') {
          const d = at(o.wearKg)
          const good = normalCdf((o.noGoMm! - d) / o.uMm) - normalCdf((o.goMm! - d) / o.uMm)
          w *= (1 - EPSILON) * good + EPSILON * misreadChance(o, 0.4)
        }
      if (w < 1e-12) continue
      for (const g of groups) w *= g.likelihood(g.list.map(o => at(o.wearKg)))
      bores.push({ mm: at(nowKg), w })
    }
  bores.sort((a, b) => a.mm - b.mm)
  const all = bores.reduce((s, o) => s + o.w, 0)
  const share = (mm: number) => bores.reduce((s, o) => s + (o.mm <= mm ? o.w : 0), 0) / all
  return { share }
}

describe('the same as by brute force', () => {
  test.each(Object.entries(CASES))('%s', (_, { readings, nowKg }) => {
    const history = {
      nominalMm: 0.4,
      wasUsed: false,
      observations: readings,
      doubt: { misread: EPSILON, otherBore: 0 },
    }
    const p = borePosterior(history, prior)
    const bore = boreAt(p, nowKg)
    const want = counted(readings, nowKg)
    for (const q of [0.1, 0.5, 0.9]) expect(want.share(bore.quantile(q)), `${q}`).toBeCloseTo(q, 1.3)
    expect(brokenBy([boreLife(p, 0.44)], nowKg)).toBeCloseTo(1 - want.share(0.44), 1.3)
  })
})

test('twenty pictures of one set-up are surer than one, but never than its scale', () => {
  const range = (n: number) => {
    const observations = Array.from({ length: n }, (_, i) => picture(1, 0.43 + 0.0002 * (i % 3), { uSharedMm: 0.006 }))
    const bore = boreAt(borePosterior({ nominalMm: 0.4, wasUsed: false, observations }, prior), 1)
    return bore.quantile(0.9) - bore.quantile(0.1)
  }
  const [one, twenty, hundred] = [range(1), range(20), range(100)]
  expect(twenty).toBeLessThan(one)
  expect(hundred).toBeGreaterThan(0.95 * twenty)
  // 80 % of a normal of 6 µm is 15 µm wide
  expect(twenty).toBeGreaterThan(0.012)
})

test('growth between pictures of one set-up does not depend on its scale', () => {
  const rate = (off: number, uSharedMm: number) => {
    const observations = [0, 0.4, 0.8, 1.2].map(kg =>
      picture(kg, Math.cbrt(0.4 ** 3 + 0.48 * 0.03 * kg) + off, { uSharedMm }),
    )
    const p = borePosterior({ nominalMm: 0.4, wasUsed: false, observations }, prior)
    return boreAt(p, 1.2).quantile(0.5) - boreAt(p, 0).quantile(0.5)
  }
  expect(rate(0.008, 0.01)).toBeCloseTo(rate(0, 0.01), 3)
})

test('a lasting difference between pins and pictures is said', () => {
  const { readings } = CASES['pins and pictures that stand wider']!
  const of = { nominalMm: 0.4, wasUsed: false, observations: readings }
  const p = borePosterior(of, prior)
  const beyond = beyondBore(p, of, { setup: 'a', uSharedMm: 0.003 })
  expect(beyond.meanMm).toBeGreaterThan(0.008)
  expect(beyond.meanMm).toBeLessThan(0.016)
  expect(beyond.meanMm).toBeGreaterThan(3 * beyond.uMm)
})

test('nowhere in a box does the likelihood stand above the bound', () => {
  const random = mulberry32(9)
  for (let k = 0; k < 200; k++) {
    const list = Array.from({ length: 1 + (k % 5) }, (_, i) => picture(0.3 * i, 0.42 + 0.01 * normalDraw(random)))
    const [g] = pictureGroups(list, k % 2 ? 'sliding' : 'linear', 0.4, EPSILON, 0.4)
    const v = k % 2 ? 0.41 ** 3 : 0.41
    const [a0, a1] = [v * (1 - 0.1 * random()), v * (1 + 0.1 * random())]
    const [r0, r1] = [0.004 * random(), 0.004 + 0.01 * random()]
    const bound = lnGroupAtMost(g!, r0, r1, a0, a1)
    for (let j = 0; j < 20; j++)
      expect(lnGroup(g!, a0 + (a1 - a0) * random(), r0 + (r1 - r0) * random())).toBeLessThanOrEqual(bound + 1e-6)
  }
})
