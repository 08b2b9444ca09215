/**
 * Pins whose decision scatters, in the wear posterior, against brute force: a grid of (d0, ln κ), every likelihood
 * written out, the error of a marked pin summed over instead of taken from tables. Source: Bayes' rule; the model in
 * docs/wear.md.
 */
import { describe, expect, test } from 'vitest'
import { normalCdf } from '#core/numeric'
import { boreAt, boreLife, borePosterior, brokenBy, expectedReading, type BoreObservation } from '#core/wear'
import { misreadChance } from '../../core/wear/readings'

type Pins = Extract<BoreObservation, { kind: 'pins' }>
const pins = (wearKg: number, goMm: number | null, noGoMm: number | null, more: Partial<Pins> = {}): Pins => ({
  kind: 'pins',
  wearKg,
  goMm,
  noGoMm,
  uMm: 0.003,
  uRandomMm: 0.004,
  ...more,
})
const marked = { goPin: 'A', noGoPin: 'B' }
const prior = { meanLn: Math.log(0.03), sd: 0.8 }
const EPSILON = 0.03
const density = (z: number) => Math.exp(-0.5 * z * z) / Math.sqrt(2 * Math.PI)
const DOUBT = { misread: EPSILON, otherBore: 0 }

const CASES: Record<string, { readings: Pins[]; nowKg: number }> = {
  'one unmarked pair': { readings: [pins(0.8, 0.42, 0.43)], nowKg: 1 },
  'a marked pair, three times': {
    readings: [
      pins(0, 0.39, 0.4, { goPin: 'L', noGoPin: 'M' }),
      pins(0.5, 0.42, 0.43, marked),
      pins(1, 0.42, 0.43, marked),
    ],
    nowKg: 1,
  },
  'one pin that goes, does not, and goes': {
    readings: [pins(0.9, 0.42, null, marked), pins(0.9, null, 0.42, { noGoPin: 'A' }), pins(0.9, 0.42, null, marked)],
    nowKg: 0.9,
  },
  'scatter small beside the pin, and large': {
    readings: [
      pins(0.4, 0.41, 0.43, { ...marked, uMm: 0.006, uRandomMm: 0.0013 }),
      pins(0.8, 0.42, 0.44, { goPin: 'C', noGoPin: 'D', uMm: 0.001, uRandomMm: 0.01 }),
    ],
    nowKg: 1,
  },
}

/** Likelihood of the uses of one marked pin, its error summed over. */
function ofPin(sizeMm: number, uses: { go: boolean; o: Pins }[]): (bore: (kg: number) => number) => number {
  const { uMm } = uses[0]!.o
  const errors = Array.from({ length: 241 }, (_, i) => {
    const z = (i - 120) * 0.05
    const at = sizeMm + z * uMm
    // the same reading of a bore spread evenly, by the same pin
    const bad = uses.map(({ go, o }) => {
      const reading = { ...o, goMm: go ? at : null, noGoMm: go ? null : at, uMm: o.uRandomMm!, uRandomMm: 0 }
      return EPSILON * misreadChance(reading, 0.4)
    })
    return { at, weight: 0.05 * density(z), bad }
  })
  return bore => {
    let sum = 0
    for (const e of errors) {
      let product = e.weight
      for (const [i, { go, o }] of uses.entries()) {
        const goes = normalCdf((bore(o.wearKg) - e.at) / o.uRandomMm!)
        product *= (1 - EPSILON) * (go ? goes : 1 - goes) + e.bad[i]!
      }
      sum += product
    }
    return sum
  }
}

function counted(readings: Pins[], nowKg: number) {
  const byPin = new Map<string, { size: number; uses: { go: boolean; o: Pins }[] }>()
  const use = (mark: string, size: number, go: boolean, o: Pins) => {
    const pin = byPin.get(mark) ?? { size, uses: [] }
    pin.uses.push({ go, o })
    byPin.set(mark, pin)
  }
  for (const o of readings) {
    if (o.goPin && o.goMm !== null) use(o.goPin, o.goMm, true, o)
    if (o.noGoPin && o.noGoMm !== null) use(o.noGoPin, o.noGoMm, false, o)
  }
  const likelihoods = [...byPin.values()].map(p => ofPin(p.size, p.uses))
  const bores: { mm: number; w: number }[] = []
  for (let x = prior.meanLn - 3.4; x < prior.meanLn + 3; x += 0.1)
    for (let d0 = 0.36; d0 < 0.44; d0 += 0.001) {
      const at = (kg: number) => Math.cbrt(d0 ** 3 + 0.48 * Math.exp(x) * kg)
      let w = density((d0 - 0.4) / 0.01) * density((x - prior.meanLn) / prior.sd)
      for (const o of readings) {
        if (o.goPin || o.noGoPin) continue
        const u = Math.sqrt(o.uMm ** 2 + o.uRandomMm! ** 2)
        const good = normalCdf((o.noGoMm! - at(o.wearKg)) / u) - normalCdf((o.goMm! - at(o.wearKg)) / u)
        w *= (1 - EPSILON) * good + EPSILON * misreadChance({ ...o, uMm: u, uRandomMm: 0 }, 0.4)
      }
      if (w < 1e-9) continue
      for (const l of likelihoods) w *= l(at)
      bores.push({ mm: at(nowKg), w })
    }
  const all = bores.reduce((s, o) => s + o.w, 0)
  return (mm: number) => bores.reduce((s, o) => s + (o.mm <= mm ? o.w : 0), 0) / all
}

describe('the same as by brute force', () => {
  test.each(Object.entries(CASES))('%s', (_, { readings, nowKg }) => {
    const p = borePosterior({ nominalMm: 0.4, wasUsed: false, observations: readings, doubt: DOUBT }, prior)
    const share = counted(readings, nowKg)
    for (const q of [0.1, 0.5, 0.9]) expect(share(boreAt(p, nowKg).quantile(q)), `${q}`).toBeCloseTo(q, 1.7)
    expect(brokenBy([boreLife(p, 0.44)], nowKg)).toBeCloseTo(1 - share(0.44), 1.7)
  })
})

const width = (uRandomMm: number, n: number, more: Partial<Pins> = {}) => {
  const observations = Array.from({ length: n }, () => pins(1, 0.42, 0.43, { uRandomMm, ...more }))
  const bore = boreAt(borePosterior({ nominalMm: 0.4, wasUsed: false, observations }, prior), 1)
  return bore.quantile(0.9) - bore.quantile(0.1)
}

test('scatter widens the answer, of marked and of unmarked pins, without a jump where it is taken otherwise', () => {
  for (const more of [{}, marked]) {
    const [none, little, soft, much] = [0, 0.00029, 0.00031, 0.006].map(r => width(r, 2, more))
    // 0.00029 adds to u, 0.00031 is summed over
    expect(Math.abs(soft! / little! - 1)).toBeLessThan(0.02)
    expect(Math.abs(little! / none! - 1)).toBeLessThan(0.02)
    expect(much!).toBeGreaterThan(1.2 * none!)
  }
})

test('repeats with a marked pin make its scatter smaller, never the error of the pin', () => {
  const [two, twenty] = [2, 20].map(n => width(0.006, n, marked))
  expect(twenty!).toBeLessThan(0.9 * two!)
  // 80 % of the error of one pin of 3 µm is 7.7 µm wide
  expect(twenty!).toBeGreaterThan(0.0077 / Math.SQRT2)
})

test('a reading is less unusual where decisions scatter', () => {
  const others = { nominalMm: 0.4, wasUsed: false, observations: [pins(0.8, 0.41, 0.42)] }
  const chance = (uRandomMm: number) =>
    expectedReading(others, pins(0.8, 0.43, 0.44, { uRandomMm }), { ...prior, sd: 0.1 }).chance
  expect(chance(0.008)).toBeGreaterThan(2 * chance(0))
})
