import fc from 'fast-check'
import { InputError } from '#core/numeric'
import { describe, expect, test } from 'vitest'
import {
  borePosterior,
  boreAt,
  brokenBy,
  expectedReading,
  takenForMisread,
  fillerKgFor,
  fleetForecast,
  forecast,
  wearKg,
  wearAtRisk,
  wouldExplain,
  rangeOf,
  UNUSUAL,
  type BoreObservation,
  type FleetNozzle,
  type NozzleInput,
} from '#core/wear'

const prior = { meanLn: Math.log(0.03), sd: 0.8 }
const pins = (wearKg: number, goMm: number | null, noGoMm: number | null, more: object = {}): BoreObservation => ({
  kind: 'pins',
  wearKg,
  goMm,
  noGoMm,
  uMm: 0.003,
  ...more,
})
const nozzle = (observations: BoreObservation[], more: Partial<NozzleInput> = {}): NozzleInput => ({
  material: 'hardened steel',
  law: 'sliding',
  bore: { nominalMm: 0.4, wasUsed: false, observations },
  tip: { tip0: { meanMm: 12.5, uMm: 0.03 }, observations: [] },
  rules: { boreLimitMm: 0.44, tipLossLimitMm: null, massLimitKg: null },
  wearKg: 1,
  prior,
  ...more,
})

describe('wear mass', () => {
  test('filled counts its filler, unfilled its whole mass a little', () => {
    expect(wearKg(312, 0.2, 1)).toBeCloseTo(0.0624, 12)
    expect(wearKg(1000, 0.1, 1.2)).toBeCloseTo(0.12, 12)
    expect(wearKg(1000, 0, 0.002)).toBeCloseTo(0.002, 12)
    expect(fillerKgFor(0.12, 1.2)).toBeCloseTo(0.1, 12)
    expect(() => wearKg(-1, 0.2, 1)).toThrow(/extrudedG: -1/)
  })
})

describe('forecast', () => {
  test('a gauge with room left raises what is left, one near the limit lowers it', () => {
    const none = forecast(nozzle([]))
    const good = forecast(nozzle([pins(1, 0.4, 0.41)]))
    const bad = forecast(nozzle([pins(1, 0.43, 0.44)]))
    expect(good.leftKg.median).toBeGreaterThan(none.leftKg.median)
    expect(bad.leftKg.median).toBeLessThan(none.leftKg.median)
    expect(good.pastChance).toBeLessThan(0.003) // a misreading cannot be ruled out
    expect(bad.bore.median).toBeGreaterThan(0.43)
    expect(bad.bore.median).toBeLessThan(0.44)
  })
  test('the ranges are in order and the next gauge is at the accepted risk', () => {
    const f = forecast(nozzle([pins(0.5, 0.41, 0.42)]))
    for (const r of [f.bore, f.leftKg, f.kappa])
      expect([r.low95, r.low80, r.median, r.high80, r.high95]).toEqual(
        [r.low95, r.low80, r.median, r.high80, r.high95].sort((a, b) => a - b),
      )
    expect(f.nextGaugeKg).toBeCloseTo(f.leftKg.low80, 6)
    expect(forecast(nozzle([pins(0.5, 0.41, 0.42)], { acceptedRisk: 0.02 })).nextGaugeKg).toBeLessThan(f.nextGaugeKg)
  })
  test('past the limit: due now, nothing left', () => {
    const f = forecast(nozzle([pins(1, 0.45, 0.46)]))
    expect(f.pastChance).toBeGreaterThan(0.99)
    expect([f.nextGaugeKg, f.leftKg.median]).toEqual([0, 0])
  })
  test('the earliest rule decides', () => {
    const massOnly = forecast(nozzle([], { rules: { boreLimitMm: null, tipLossLimitMm: null, massLimitKg: 1.5 } }))
    expect(massOnly.leftKg.median).toBeCloseTo(0.5, 6)
    expect(massOnly.firstRule).toBe('mass')
    const both = forecast(
      nozzle([pins(1, 0.4, 0.41)], { rules: { boreLimitMm: 0.44, tipLossLimitMm: 0.02, massLimitKg: null } }),
    )
    expect(both.firstRule).toBe('tip')
    expect(both.pastChance).toBeGreaterThan(0.2)
    expect(wearAtRisk([], 0.5)).toBe(Infinity)
    expect(brokenBy([], 9)).toBe(0)
  })
  test('one-sided pins count', () => {
    expect(forecast(nozzle([pins(1, null, 0.41)])).bore.median).toBeLessThan(0.41)
    expect(forecast(nozzle([pins(1, 0.43, null)])).bore.median).toBeGreaterThan(0.43)
  })
  test('a marked pin: its error is shared, so repeating it only makes a misreading unlikely', () => {
    const uses = (mark: string | null) => Array.from({ length: 8 }, () => pins(1, 0.43, null, { goPin: mark }))
    const once = rangeOf(boreAt(borePosterior(nozzle([pins(1, 0.43, null, { goPin: 'P43' })]).bore, prior), 1))
    const marked = rangeOf(boreAt(borePosterior(nozzle(uses('P43')).bore, prior), 1))
    const unmarked = rangeOf(boreAt(borePosterior(nozzle(uses(null)).bore, prior), 1))
    expect(marked.low95).toBeGreaterThan(once.low95 - 1e-6)
    expect(unmarked.low95).toBeGreaterThan(marked.low95 + 0.001)
  })
  test('a marked pin that went later but not earlier brackets the bore', () => {
    const b = borePosterior(
      nozzle([pins(0.5, null, 0.42, { noGoPin: 'P42' }), pins(1, 0.42, null, { goPin: 'P42' })]).bore,
      prior,
    )
    expect(boreAt(b, 0.5).quantile(0.5)).toBeLessThan(0.422)
    expect(boreAt(b, 1).quantile(0.5)).toBeGreaterThan(0.419)
  })
  test('readings that contradict each other leave a finite answer', () => {
    const f = forecast(
      nozzle([
        pins(0.4, 0.43, 0.44),
        pins(1, 0.4, 0.41),
        pins(0.2, 0.44, null, { goPin: 'a' }),
        pins(1, null, 0.44, { noGoPin: 'a' }),
      ]),
    )
    for (const v of [...Object.values(f.bore), ...Object.values(f.leftKg), f.pastChance])
      expect(Number.isFinite(v)).toBe(true)
  })
  test('property: whatever is gauged, no NaN, chances within 0 and 1, more wear never leaves more', () => {
    const gauge = fc.record({
      wearKg: fc.double({ min: 0, max: 30, noNaN: true }),
      go: fc.integer({ min: 30, max: 60 }),
      gap: fc.integer({ min: 1, max: 5 }),
    })
    fc.assert(
      fc.property(fc.array(gauge, { maxLength: 8 }), fc.double({ min: 0, max: 30, noNaN: true }), (gauges, wear) => {
        const observations = gauges.map(g => pins(g.wearKg, g.go / 100, (g.go + g.gap) / 100))
        const f = forecast(nozzle(observations, { wearKg: wear }))
        for (const v of [
          ...Object.values(f.bore),
          ...Object.values(f.leftKg),
          ...Object.values(f.kappa),
          f.pastChance,
          f.nextGaugeKg,
        ])
          expect(Number.isFinite(v)).toBe(true)
        expect(f.pastChance).toBeGreaterThanOrEqual(0)
        expect(f.pastChance).toBeLessThanOrEqual(1)
        expect(forecast(nozzle(observations, { wearKg: wear + 1 })).leftKg.median).toBeLessThanOrEqual(
          f.leftKg.median + 1e-9,
        )
      }),
      { numRuns: 40 },
    )
  })
  test('impossible input names the field', () => {
    expect(() => forecast(nozzle([pins(1, 0.44, 0.43)]))).toThrow(
      /goMm: 0.44 is not allowed; smaller than the no-go of 0.43/,
    )
    expect(() => forecast(nozzle([pins(1, null, null)]))).toThrow(InputError)
    expect(() => forecast(nozzle([pins(NaN, 0.4, 0.41)]))).toThrow(/wearKg/)
  })
})

describe('fleet', () => {
  const fleet: FleetNozzle[] = Array.from({ length: 8 }, (_, i) => ({
    ...nozzle([pins(0.5, 0.42, 0.43), pins(1, 0.44, 0.45)]),
    key: `N-${i}`,
  }))
  test('sisters that wear fast make a new nozzle expect it, and a nozzle is not its own sister', () => {
    const out = fleetForecast([...fleet, { ...nozzle([], { wearKg: 0 }), key: 'new' }])
    expect(out).toHaveLength(9)
    expect(out[0]!.sisters).toBe(7)
    expect(out[8]!.sisters).toBe(8)
    expect(Math.exp(out[8]!.prior.meanLn)).toBeGreaterThan(0.036)
    expect(out[8]!.prior.sd).toBeLessThan(0.5)
  })
  test('it can be watched and stopped', () => {
    const seen: number[] = []
    const out = fleetForecast(
      Array.from({ length: 30 }, (_, i) => ({ ...fleet[0]!, key: String(i) })),
      (done: number) => {
        seen.push(done)
        return done < 40
      },
    )
    expect(seen).toEqual([20, 40])
    expect(out.length).toBeLessThan(30)
  })
})

describe('what is left open', () => {
  const range = (observations: BoreObservation[], more: Partial<NozzleInput> = {}) =>
    forecast(nozzle(observations, { wearKg: 0, ...more }))
  test('a new 0.4 gauged 0.49 to 0.50 is no longer ignored: it may be a 0.5', () => {
    const f = range([pins(0, 0.49, 0.5)])
    expect(f.bore.median).toBeGreaterThan(0.48)
    expect(f.pastChance).toBeGreaterThan(0.5)
  })
  test('readings that contradict each other widen the range', () => {
    const width = (f: ReturnType<typeof forecast>) => f.bore.high80 - f.bore.low80
    const one = forecast(nozzle([pins(1, 0.41, 0.42)], { wearKg: 1.3 }))
    const both = forecast(nozzle([pins(1, 0.41, 0.42), pins(1.3, 0.39, 0.4)], { wearKg: 1.3 }))
    expect(width(both)).toBeGreaterThan(1.5 * width(one))
    // both readings lie within it
    expect(both.bore.low80).toBeLessThan(0.405)
    expect(both.bore.high80).toBeGreaterThan(0.415)
  })
  test('a receipt with go 0.35 alone is a bound, not a value', () => {
    const none = range([])
    const bound = range([pins(0, 0.35, null)])
    expect(Math.abs(bound.bore.median - none.bore.median)).toBeLessThan(0.0005)
    expect(Math.abs(bound.leftKg.median / none.leftKg.median - 1)).toBeLessThan(0.03)
    expect(range([pins(0, null, 0.5)]).pastChance).toBeLessThan(0.02)
  })
  test('a receipt reading of a new nozzle counts once, with its own spread and the start', () => {
    const f = range([{ kind: 'value', wearKg: 0, valueMm: 0.406, uMm: 0.01 }])
    expect(f.bore.median).toBeCloseTo(0.403, 3) // half way between start and reading, both ± 0.01
  })
  test('one that came used starts wider and larger, with or without a reading', () => {
    const used = range([], { bore: { nominalMm: 0.4, wasUsed: true, observations: [] } })
    expect(used.bore.median).toBeCloseTo(0.42, 2)
    expect(used.bore.high80 - used.bore.low80).toBeGreaterThan(0.04)
    expect(used.needsFirstGauge).toBe(true)
    expect(used.nextGaugeKg).toBe(0)
    const read = range([], { bore: { nominalMm: 0.4, wasUsed: true, observations: [pins(0, 0.42, 0.43)] } })
    expect(read.needsFirstGauge).toBe(false)
    expect(read.bore.median).toBeCloseTo(0.425, 2)
  })
  test('a new nozzle needs a first gauge only for a risk under what the other bores make of it', () => {
    const f = range([])
    expect(f.pastChance).toBeGreaterThan(0.015)
    expect(f.pastChance).toBeLessThan(0.019)
    expect(f.needsFirstGauge).toBe(false)
    expect(range([], { acceptedRisk: 0.015 }).needsFirstGauge).toBe(true)
    expect(range([pins(0, 0.39, 0.41)], { acceptedRisk: 0.015 }).needsFirstGauge).toBe(false)
  })
  test('a value at 4.2 mm, and one of 0.02 mm, leave an answer', () => {
    for (const valueMm of [4.2, 0.02]) {
      const f = forecast(nozzle([pins(0.5, 0.41, 0.42), { kind: 'value', wearKg: 0.7, valueMm, uMm: 0.005 }]))
      expect(f.bore.median).toBeGreaterThan(0.41)
      expect(f.bore.median).toBeLessThan(0.45)
    }
  })
})

describe('what a reading was expected to be', () => {
  const fresh = { nominalMm: 0.4, wasUsed: false, observations: [] }
  test('a new 0.4 gauged 0.42 to 0.43 is not asked, 0.43 to 0.44 is', () => {
    expect(expectedReading(fresh, pins(0, 0.42, 0.43), prior).chance).toBeGreaterThan(UNUSUAL)
    const e = expectedReading(fresh, pins(0, 0.43, 0.44), prior)
    expect(e.chance).toBeLessThan(UNUSUAL)
    expect(e.bore.median).toBeCloseTo(0.4, 3)
  })
  test('P by the normal distribution where nothing else is known', () => {
    // d ~ N(0.4, 0.01), x = d + N(0, 0.005): a value of 0.42 lies 1.789 standard deviations out (A&S table 26.1:
    // 0.0736)
    expect(expectedReading(fresh, { kind: 'value', wearKg: 0, valueMm: 0.42, uMm: 0.005 }, prior).chance).toBeCloseTo(
      0.0736,
      3,
    )
    // one pin alone: its other side counts 1
    expect(expectedReading(fresh, pins(0, 0.41, null), prior).chance).toBeCloseTo(2 * 0.1691, 2)
    expect(expectedReading(fresh, pins(0, 0.35, null), prior).chance).toBe(1)
  })
  test('the other readings decide, and a wrong one among them is named', () => {
    const others = { ...fresh, observations: [pins(0, 0.4, 0.41), pins(0.5, 0.41, 0.42), pins(0.8, 0.44, 0.45)] }
    const reading = pins(1, 0.41, 0.42)
    expect(
      expectedReading({ ...fresh, observations: others.observations.slice(0, 2) }, reading, prior).chance,
    ).toBeGreaterThan(UNUSUAL)
    expect(
      wouldExplain({ ...fresh, observations: [pins(0, 0.44, 0.45)] }, pins(0.1, 0.4, 0.41), prior).map(e => e.index),
    ).toEqual([0])
    expect(wouldExplain(fresh, pins(0, 0.49, 0.5), prior)).toEqual([])
  })
  test('a reading that the others outweigh counts as misread; one that may as well be right does not', () => {
    const three = [pins(0, 0.4, 0.41), pins(0.4, 0.41, 0.42), pins(0.8, 0.42, 0.43)]
    expect(takenForMisread({ ...fresh, observations: three }, prior)).toEqual([false, false, false])
    expect(takenForMisread({ ...fresh, observations: [...three, pins(1.05, 0.39, 0.4)] }, prior)).toEqual([
      false,
      false,
      false,
      true,
    ])
    // one against one: nobody can tell which, so neither is set aside and the range is wide
    const two = { ...fresh, observations: [pins(1, 0.43, 0.44), pins(1.1, 0.4, 0.41)] }
    expect(takenForMisread(two, prior)).toEqual([false, false])
  })
})
