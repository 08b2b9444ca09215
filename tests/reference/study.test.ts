/**
 * Gauge studies against sources outside: NIST StRD analysis of variance (SiRstv, certified values), chi-square critical
 * values (NIST/SEMATECH e-Handbook, section 1.3.6.7.4), expected mean squares by brute force, and how often ranges hold
 * the truth.
 */
import { describe, expect, test } from 'vitest'
import { chiSquareCdf, inverseChiSquare, mulberry32, normalCdf, normalDraw } from '#core/numeric'
import { componentsOf, crossed, oneWay, pinScatter, studyResult, type PinPair } from '#core/study'

/** NIST StRD "SiRstv": resistivity of silicon, five instruments, five readings each (readings from memory). */
const SIRSTV = [
  [196.3052, 196.124, 196.189, 196.2569, 196.3403],
  [196.3042, 196.3825, 196.1669, 196.3257, 196.0422],
  [196.1303, 196.2005, 196.2889, 196.0343, 196.1811],
  [196.2795, 196.1748, 196.1494, 196.1485, 195.9885],
  [196.2119, 196.1051, 196.185, 196.0052, 196.209],
]

test('NIST StRD SiRstv: the certified analysis of variance', () => {
  const a = oneWay(SIRSTV)
  expect(a.between.degrees).toBe(4)
  expect(a.within.degrees).toBe(20)
  expect(a.between.square).toBeCloseTo(5.11462616e-2, 10)
  expect(a.within.square).toBeCloseTo(2.1663656e-1, 10)
  expect(a.f).toBeCloseTo(1.18046237440255, 10)
})

test('chi-square: critical values of the e-Handbook table', () => {
  // degrees, upper 0.10, upper 0.05, upper 0.01, lower 0.10 (from memory of the table)
  for (const [degrees, p90, p95, p99, p10] of [
    [1, 2.706, 3.841, 6.635, 0.016],
    [2, 4.605, 5.991, 9.21, 0.211],
    [5, 9.236, 11.07, 15.086, 1.61],
    [10, 15.987, 18.307, 23.209, 4.865],
    [30, 40.256, 43.773, 50.892, 20.599],
    [100, 118.498, 124.342, 135.807, 82.358],
  ] as const) {
    for (const [p, x] of [
      [0.9, p90],
      [0.95, p95],
      [0.99, p99],
      [0.1, p10],
    ] as const)
      expect(Math.abs(inverseChiSquare(p, degrees) - x), `${p} of ${degrees}`).toBeLessThan(0.00051)
  }
})

test('chi-square: of one degree it is the square of a normal, of two an exponential', () => {
  for (const x of [0.01, 0.3, 1, 4, 15]) {
    expect(chiSquareCdf(x, 1)).toBeCloseTo(2 * normalCdf(Math.sqrt(x)) - 1, 12)
    expect(chiSquareCdf(x, 2)).toBeCloseTo(1 - Math.exp(-x / 2), 12)
  }
})

/** Readings drawn with known parts: [person][nozzle][repeat]. */
function drawn(
  sd: { e: number; p: number; pn: number; n: number },
  of: [number, number, number],
  random: () => number,
) {
  const [people, nozzles, repeats] = of
  const draw = (s: number) => s * normalDraw(random)
  const list = (n: number, s: number) => Array.from({ length: n }, () => draw(s))
  const n = list(nozzles, sd.n)
  return list(people, sd.p).map(p =>
    n.map(m => p + m + draw(sd.pn)).map(cell => list(repeats, sd.e).map(e => cell + e)),
  )
}
const SD = { e: 3, p: 2, pn: 1.5, n: 6 }

describe('mean squares of a crossed study', () => {
  test('are on average what the model expects, by brute force', () => {
    const random = mulberry32(11)
    const [p, n, r] = [3, 4, 2] as const
    const runs = 12_000
    const sum = { people: 0, nozzles: 0, interaction: 0, repeats: 0 }
    for (let k = 0; k < runs; k++) {
      const c = crossed(drawn(SD, [p, n, r], random))
      sum.people += c.people!.mean
      sum.nozzles += c.nozzles.mean
      sum.interaction += c.interaction!.mean
      sum.repeats += c.repeats.mean
    }
    const [e, i] = [SD.e ** 2, r * SD.pn ** 2]
    const share = (got: number, want: number) => expect(got / runs / want).toBeCloseTo(1, 1.3)
    share(sum.repeats, e)
    share(sum.interaction, e + i)
    share(sum.people, e + i + n * r * SD.p ** 2)
    share(sum.nozzles, e + i + p * r * SD.n ** 2)
  })

  test('add up to all scatter about the mean, and for one person to the one-way analysis', () => {
    const x = drawn(SD, [3, 5, 4], mulberry32(2))
    const all = x.flat(2)
    const mean = all.reduce((s, v) => s + v, 0) / all.length
    const c = crossed(x)
    const parts = [c.people!, c.nozzles, c.interaction!, c.repeats]
    expect(parts.reduce((s, m) => s + m.square, 0)).toBeCloseTo(
      all.reduce((s, v) => s + (v - mean) ** 2, 0),
      8,
    )
    expect(parts.reduce((s, m) => s + m.degrees, 0)).toBe(all.length - 1)
    const one = crossed([x[0]!])
    const { between, within } = oneWay(x[0]!)
    expect(one.nozzles.mean).toBeCloseTo(between.mean, 10)
    expect(one.repeats.mean).toBeCloseTo(within.mean, 10)
    expect(one.people).toBeNull()
  })
})

describe('80 % ranges', () => {
  // 300 studies: a share of 0.8 has a standard error of 0.023
  test.each([
    [2, 5, 3],
    [3, 6, 2],
  ])('hold the truth about as often as they say: %i people, %i nozzles, %i repeats', (...of) => {
    const random = mulberry32(77)
    const truth = { repeatability: SD.e, reproducibility: Math.hypot(SD.p, SD.pn), nozzles: SD.n }
    const held = { repeatability: 0, reproducibility: 0, nozzles: 0 }
    for (let k = 0; k < 300; k++) {
      const c = componentsOf(crossed(drawn(SD, of as [number, number, number], random)))
      for (const key of Object.keys(truth) as (keyof typeof truth)[])
        if (c[key]!.low80 <= truth[key] && truth[key] <= c[key]!.high80) held[key]++
    }
    for (const n of Object.values(held)) {
      expect(n / 300).toBeGreaterThan(0.73)
      expect(n / 300).toBeLessThan(0.9)
    }
  })

  test('of repeatability: the exact chi-square limits of a standard deviation (NIST e-Handbook 7.2.3.1)', () => {
    const c = crossed(drawn(SD, [2, 3, 4], mulberry32(3)))
    const { degrees, square } = c.repeats
    const got = componentsOf(c).repeatability
    expect(got.low80).toBeCloseTo(Math.sqrt(square / inverseChiSquare(0.9, degrees)), 2)
    expect(got.high80).toBeCloseTo(Math.sqrt(square / inverseChiSquare(0.1, degrees)), 2)
  })

  test('two people say next to nothing of people: the upper end is many times the estimate', () => {
    const random = mulberry32(4)
    const widths = (people: number) => {
      const c = componentsOf(crossed(drawn({ ...SD, p: 6 }, [people, 6, 3], random))).reproducibility!
      return c.high80 / Math.max(c.sd, 0.1)
    }
    const mid = (x: number[]) => x.sort((a, b) => a - b)[x.length >> 1]!
    const of = (people: number) => mid(Array.from({ length: 21 }, () => widths(people)))
    expect(of(2)).toBeGreaterThan(3)
    expect(of(6)).toBeLessThan(2.2)
  })
})

test('what comes out negative is zero, and named', () => {
  // the people agree in the mean to the last digit, and repeats scatter
  const c = componentsOf(
    crossed([
      [
        [1, 3],
        [5, 7],
      ],
      [
        [3, 1],
        [7, 5],
      ],
    ]),
  )
  expect(c.negative).toContain('people with nozzles')
  expect(c.reproducibility!.sd).toBe(0)
})

/** Readings with pins every `step`, by decisions that scatter. */
function pairs(sd: number, step: number, nozzles: number, each: number, random: () => number): PinPair[][] {
  return Array.from({ length: nozzles }, () => {
    const d = 0.4 + 0.1 * random()
    return Array.from({ length: each }, () => {
      const goMm = Math.floor((d + sd * normalDraw(random)) / step) * step
      return { goMm, noGoMm: goMm + step }
    })
  })
}

describe('pins', () => {
  test.each([0.004, 0.01])('the scatter of decisions comes back: %f mm', sd => {
    const random = mulberry32(21)
    let held = 0
    let sum = 0
    for (let k = 0; k < 60; k++) {
      const s = pinScatter(pairs(sd, 0.01, 6, 6, random))
      sum += s.sdMm
      if (s.lowMm <= sd && sd <= s.highMm) held++
    }
    expect(sum / 60 / sd).toBeGreaterThan(0.85)
    expect(sum / 60 / sd).toBeLessThan(1.15)
    expect(held / 60).toBeGreaterThan(0.68)
  })

  test('one nozzle, one threshold: the likelihood worked out at length has its peak there', () => {
    const p = (goMm: number): PinPair => ({ goMm, noGoMm: goMm + 0.01 })
    const readings = [p(0.42), p(0.43), p(0.43), p(0.42), p(0.43)]
    const ln = (r: number) => {
      let area = 0
      for (let d = 0.35; d < 0.51; d += 0.00002)
        area +=
          readings.reduce((s, o) => s * (normalCdf((o.noGoMm - d) / r) - normalCdf((o.goMm - d) / r)), 1) * 0.00002
      return Math.log(area)
    }
    const got = pinScatter([readings])
    for (const other of [0.8, 1.25]) expect(ln(got.sdMm)).toBeGreaterThan(ln(got.sdMm * other))
    expect(2 * (ln(got.sdMm) - ln(got.highMm))).toBeCloseTo(inverseChiSquare(0.8, 1), 2)
  })

  test('agreement within one step is no repeatability of 0', () => {
    const same = [0.41, 0.43, 0.45].map(goMm => Array.from({ length: 3 }, () => ({ goMm, noGoMm: goMm + 0.01 })))
    const r = studyResult('pins', [same, same])
    // uniform over one step: its length over the root of twelve (GUM 4.3.7)
    expect(r.components!.repeatability.sd).toBeCloseTo(0.01 / Math.sqrt(12), 6)
    expect(r.tellsMm!.anybody).toBeCloseTo((2.8 * 0.01) / Math.sqrt(12), 6)
    // and its range is open upwards by what the intervals leave open
    expect(r.components!.repeatability.high80).toBeGreaterThan(1.05 * r.components!.repeatability.sd)
    expect(r.decision!.sdMm).toBe(0)
    expect(r.setsMm).toBe(r.decision!.highMm)
    const coarse = same.slice(0, 2).map(n => n.slice(0, 2).map(p => ({ ...p, noGoMm: p.goMm + 0.1 })))
    expect(studyResult('pins', [coarse]).setsMm).toBeNull()
  })
})

describe('a study as a whole', () => {
  const value = (v: number) => ({ valueMm: v })
  const picture = drawn({ e: 0.001, p: 0.002, pn: 0, n: 0.01 }, [2, 3, 3], mulberry32(9)).map(p =>
    p.map(n => n.map(v => value(0.43 + v))),
  )

  test('sets the random part of one reading once the list is worked off, and not before', () => {
    const whole = studyResult('picture', picture)
    expect(whole.isWhole).toBe(true)
    expect(whole.setsMm).toBeCloseTo(whole.components!.reading.sd, 12)
    const open = picture.map(p => p.map(n => n.map((v, k) => (k === 2 ? null : v))))
    const so = studyResult('picture', open)
    expect([so.rounds, so.isWhole, so.setsMm]).toEqual([2, false, null])
    expect(so.components).not.toBeNull()
  })

  test('with under two whole rounds, or one number typed throughout, it tells nothing', () => {
    const one = picture.map(p => p.map(n => n.map((v, k) => (k > 0 ? null : v))))
    expect(studyResult('picture', one).cannotTell).toBe('fewer than two whole rounds')
    const typed = picture.map(p => p.map(n => n.map(() => value(0.43))))
    expect(studyResult('picture', typed).cannotTell).toBe('every repeat is the same number')
    expect(studyResult('picture', typed).setsMm).toBeNull()
  })

  test('one person tells repeatability, and nothing of others', () => {
    const r = studyResult('picture', [picture[0]!])
    expect(r.components!.reproducibility).toBeNull()
    expect(r.tellsMm!.anybody).toBeNull()
    expect(r.setsMm).toBeCloseTo(r.components!.repeatability.sd, 12)
  })
})
