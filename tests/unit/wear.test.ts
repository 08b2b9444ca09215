import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { borePosterior, boreAt, brokenBy, fillerKgFor, fleetForecast, forecast, wearKg, wearAtRisk, WearInputError, type BoreObservation, type FleetNozzle, type NozzleInput } from '#core/wear'

const prior = { meanLn: Math.log(0.03), sd: 0.8 }
const pins = (wearKg: number, goMm: number | null, noGoMm: number | null, more: object = {}): BoreObservation => ({ kind: 'pins', wearKg, goMm, noGoMm, uMm: 0.003, ...more })
const nozzle = (observations: BoreObservation[], more: Partial<NozzleInput> = {}): NozzleInput => ({
  material: 'hardened steel', law: 'sliding', bore: { nominalMm: 0.4, d0: { meanMm: 0.4, uMm: 0.01 }, observations },
  tip: { tip0: { meanMm: 12.5, uMm: 0.03 }, observations: [] }, rules: { boreLimitMm: 0.44, tipLossLimitMm: null, massLimitKg: null }, wearKg: 1, prior, ...more,
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
    const good = forecast(nozzle([pins(1, 0.40, 0.41)]))
    const bad = forecast(nozzle([pins(1, 0.43, 0.44)]))
    expect(good.leftKg.median).toBeGreaterThan(none.leftKg.median)
    expect(bad.leftKg.median).toBeLessThan(none.leftKg.median)
    expect(good.pastChance).toBeLessThan(0.001)
    expect(bad.bore.median).toBeGreaterThan(0.43)
    expect(bad.bore.median).toBeLessThan(0.44)
  })
  test('the ranges are in order and the next gauge is at the accepted risk', () => {
    const f = forecast(nozzle([pins(0.5, 0.41, 0.42)]))
    for (const r of [f.bore, f.leftKg, f.kappa]) expect([r.low95, r.low80, r.median, r.high80, r.high95]).toEqual([r.low95, r.low80, r.median, r.high80, r.high95].sort((a, b) => a - b))
    expect(f.nextGaugeKg).toBeCloseTo(f.leftKg.low80, 9)
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
    const both = forecast(nozzle([pins(1, 0.40, 0.41)], { rules: { boreLimitMm: 0.44, tipLossLimitMm: 0.02, massLimitKg: null } }))
    expect(both.firstRule).toBe('tip')
    expect(both.pastChance).toBeGreaterThan(0.2)
    expect(wearAtRisk([], 0.5)).toBe(Infinity)
    expect(brokenBy([], 9)).toBe(0)
  })
  test('one-sided pins count', () => {
    expect(forecast(nozzle([pins(1, null, 0.41)])).bore.high95).toBeLessThan(0.42)
    expect(forecast(nozzle([pins(1, 0.43, null)])).bore.low95).toBeGreaterThan(0.42)
  })
  test('a marked pin: its error is shared, so repeating it adds no certainty', () => {
    const uses = (mark: string | null) => Array.from({ length: 8 }, () => pins(1, 0.43, null, { goPin: mark }))
    const once = boreAt(borePosterior(nozzle([pins(1, 0.43, null, { goPin: 'P43' })]).bore, prior), 1).range()
    const marked = boreAt(borePosterior(nozzle(uses('P43')).bore, prior), 1).range()
    const unmarked = boreAt(borePosterior(nozzle(uses(null)).bore, prior), 1).range()
    expect(marked.low95).toBeCloseTo(once.low95, 6)
    expect(unmarked.low95).toBeGreaterThan(once.low95 + 0.001)
  })
  test('a marked pin that went later but not earlier brackets the bore', () => {
    const b = borePosterior(nozzle([pins(0.5, null, 0.42, { noGoPin: 'P42' }), pins(1, 0.42, null, { goPin: 'P42' })]).bore, prior)
    expect(boreAt(b, 0.5).quantile(0.5)).toBeLessThan(0.422)
    expect(boreAt(b, 1).quantile(0.5)).toBeGreaterThan(0.419)
  })
  test('readings that contradict each other leave a finite answer', () => {
    const f = forecast(nozzle([pins(0.4, 0.43, 0.44), pins(1, 0.40, 0.41), pins(0.2, 0.44, null, { goPin: 'a' }), pins(1, null, 0.44, { noGoPin: 'a' })]))
    for (const v of [...Object.values(f.bore), ...Object.values(f.leftKg), f.pastChance]) expect(Number.isFinite(v)).toBe(true)
  })
  test('property: whatever is gauged, no NaN, chances within 0 and 1, more wear never leaves more', () => {
    const gauge = fc.record({ wearKg: fc.double({ min: 0, max: 30, noNaN: true }), go: fc.integer({ min: 30, max: 60 }), gap: fc.integer({ min: 1, max: 5 }) })
    fc.assert(fc.property(fc.array(gauge, { maxLength: 8 }), fc.double({ min: 0, max: 30, noNaN: true }), (gauges, wear) => {
      const observations = gauges.map(g => pins(g.wearKg, g.go / 100, (g.go + g.gap) / 100))
      const f = forecast(nozzle(observations, { wearKg: wear }))
      for (const v of [...Object.values(f.bore), ...Object.values(f.leftKg), ...Object.values(f.kappa), f.pastChance, f.nextGaugeKg]) expect(Number.isFinite(v)).toBe(true)
      expect(f.pastChance).toBeGreaterThanOrEqual(0)
      expect(f.pastChance).toBeLessThanOrEqual(1)
      expect(forecast(nozzle(observations, { wearKg: wear + 1 })).leftKg.median).toBeLessThanOrEqual(f.leftKg.median + 1e-9)
    }), { numRuns: 40 })
  })
  test('impossible input names the field', () => {
    expect(() => forecast(nozzle([pins(1, 0.44, 0.43)]))).toThrow(/goMm: 0.44 is not allowed; smaller than the no-go of 0.43/)
    expect(() => forecast(nozzle([pins(1, null, null)]))).toThrow(WearInputError)
    expect(() => forecast(nozzle([pins(NaN, 0.4, 0.41)]))).toThrow(/wearKg/)
  })
})

describe('fleet', () => {
  const fleet: FleetNozzle[] = Array.from({ length: 8 }, (_, i) => ({ ...nozzle([pins(0.5, 0.42, 0.43), pins(1, 0.44, 0.45)]), key: `N-${i}` }))
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
    const out = fleetForecast(Array.from({ length: 30 }, (_, i) => ({ ...fleet[0]!, key: String(i) })), (done: number) => { seen.push(done); return done < 40 })
    expect(seen).toEqual([20, 40])
    expect(out.length).toBeLessThan(30)
  })
})
