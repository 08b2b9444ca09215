/**
 * The air at a place, from what is most trusted of it. Surveys come with a later issue: here they are made up, to hold
 * the order of trust. Practice values: common practice, no source.
 */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  AIR_PLACES,
  AIR_TRUST,
  airAt,
  airSources,
  checkStack,
  compile,
  judge,
  NO_OFFERS,
  OPENINGS,
  partOf,
  PRACTICE_AIR,
  recordSource,
  stackOf,
  START_RULES,
  type AirSource,
  type AirTrust,
  type Opening,
} from '#core/limits'
import { asks, nozzle, printer } from './limits-support'

const source = (trust: AirTrust, more: Partial<AirSource> = {}): AirSource => ({
  trust,
  by: 'bed',
  opening: 'shut',
  fan: null,
  place: 'high',
  value: 0.5,
  u: 0.02,
  from: trust,
  ...more,
})
const box = (details = {}) => ({ ...partOf('enclosure'), details })
const at = (sources: readonly AirSource[], place: 'low' | 'high' | 'bay', opening: Opening = 'shut') =>
  airAt(sources, 'bed', place, opening)!

describe('order of trust', () => {
  test.each(AIR_TRUST.slice(0, -1).map((t, i) => [t, AIR_TRUST[i + 1]!] as const))('%s before %s', (better, worse) => {
    const both = [source(worse, { value: 0.3 }), source(better, { value: 0.6 })]
    expect(at(both, 'high')).toMatchObject({ value: 0.6, trust: better })
    expect(at([...both].reverse(), 'high')).toMatchObject({ value: 0.6, trust: better })
  })
  test('practice of a lined enclosure: near bed and head is the hotter', () => {
    const practice = airSources(box(), undefined, [])
    expect(at(practice, 'low')).toMatchObject({ value: 0.62, u: 0.08, trust: 'practice' })
    expect(at(practice, 'high')).toMatchObject({ value: 0.52, u: 0.08 })
    for (const o of OPENINGS) expect(PRACTICE_AIR[o].low).toBeGreaterThan(PRACTICE_AIR[o].high)
  })
  test('what a person entered beats the start value; its own u counts', () => {
    const entered = airSources(box({ thetaLow: 0.7, thetaU: 0.03 }), undefined, [])
    expect(at(entered, 'low')).toMatchObject({ value: 0.7, u: 0.03, trust: 'entered' })
  })
})

describe('a record at one place', () => {
  const record = recordSource({
    place: 'high',
    opening: 'shut',
    finalC: 65.2,
    bedC: 100,
    roomC: 23,
    chamberSetC: null,
    from: 'its warm-up',
  })!
  const known = airSources(box(), undefined, [record])
  test('is what it came to, over what heated it', () => expect(record.value).toBeCloseTo(42.2 / 77, 9))
  test('shifts practice at another by the difference it makes, surer than practice and less sure than there', () => {
    const low = at(known, 'low')
    expect(low.value).toBeCloseTo(0.62 + (42.2 / 77 - 0.52), 9)
    expect(low.trust).toBe('warm-up record')
    expect(low.u).toBeGreaterThan(at(known, 'high').u)
    expect(low.u).toBeLessThan(0.08)
  })
  test('holds for its own lid; another lid is less by what opening it takes off', () => {
    const raised = stackOf(
      { ...printer('bed-heated enclosure', undefined, { lid: 'lid on a riser' }), air: [record] },
      0,
    )
    const { value } = raised.air.map!.bed.high
    expect(value).toBeCloseTo((PRACTICE_AIR.raised.high * record.value) / PRACTICE_AIR.shut.high, 9)
  })
  test('that did not see the end is less sure; one that was hardly heated is none', () => {
    const seen = { place: 'low' as const, opening: 'shut' as const, finalC: 60, roomC: 23, chamberSetC: null, from: '' }
    const u = (reachedShare: number) => recordSource({ ...seen, bedC: 100, reachedShare })!.u
    expect(u(0.7)).toBeGreaterThan(u(1))
    expect(recordSource({ ...seen, bedC: 28 })).toBeNull()
  })
  test('a fan that moves the air is another state', () => {
    const still = source('survey', { fan: false, value: 0.4 })
    const moved = source('survey', { fan: true, value: 0.6 })
    expect(airAt([still, moved], 'bed', 'high', 'shut', true)!.value).toBe(0.6)
    expect(airAt([still, moved], 'bed', 'high', 'shut', false)!.value).toBe(0.4)
  })
})

test('a surer or hotter source somewhere never makes the shares negative or the u larger than practice', () => {
  const sources = fc.array(
    fc.record({
      trust: fc.constantFrom(...AIR_TRUST.slice(0, 3)),
      place: fc.constantFrom(...AIR_PLACES),
      value: fc.double({ min: 0.1, max: 1.1, noNaN: true }),
      u: fc.double({ min: 0.001, max: 0.08, noNaN: true }),
    }),
    { maxLength: 5 },
  )
  fc.assert(
    fc.property(sources, made => {
      const all = airSources(
        box(),
        undefined,
        made.map(m => source(m.trust, m)),
      )
      for (const place of AIR_PLACES) expect(at(all, place).u).toBeLessThanOrEqual(0.08 + 1e-12)
    }),
  )
})

describe('a margin and its U', () => {
  const R = START_RULES
  const SOUND = { 'magnets, ordinary grade': 'magnets, 180 grade', 'camera': null }
  const shared = (thetaU: number, shift = 0) =>
    printer('bed-heated enclosure', nozzle('hardened steel'), SOUND, {
      enclosure: { details: { thetaLow: 0.62 + shift, thetaHigh: 0.52 + shift, thetaU } },
    })
  const chamber = (p: ReturnType<typeof printer>, chamberMinC: number) =>
    checkStack(stackOf(p, 0), asks('PC', 'none', 1, { chamberMinC, bedMinC: 100, bedMaxC: 110 }), R).lines.find(
      l => l.key === 'chamber',
    )!
  test('raising θ does not turn “chamber 70” green by itself: its spread counts once', () => {
    expect(chamber(shared(0.08), 70)).toMatchObject({ status: 'just' }) // 68.2, known to 8.9
    expect(chamber(shared(0.08, 0.05), 70)).toMatchObject({ status: 'just' }) // 72.6
    expect(chamber(shared(0.02, 0.05), 70)).toMatchObject({ status: 'ok' })
    expect(chamber(shared(0.02, -0.05), 70)).toMatchObject({ status: 'short' })
  })
  test('no mains bed is wired because 120.4 is more than 120', () => {
    const c = compile(shared(0.08), 0, NO_OFFERS, R)
    const d = asks('PC', 'none', 1, { chamberMinC: 73.65, bedMinC: 100, bedMaxC: 125, dryMinC: 60 })
    const bed = judge(c, d).lines.find(l => l.key === 'bed' && l.part?.role === 'bed heater')!
    expect(bed).toMatchObject({ status: 'just', allowed: 120 })
    expect(bed.asked!).toBeCloseTo(120.4, 1)
  })
  test('what a window asks of a bed is exact', () => {
    const d = asks('PC', 'none', 0, { bedMinC: 120.4, bedMaxC: 130 })
    const bed = checkStack(stackOf(shared(0.08), 0), d, R).lines.find(
      l => l.key === 'bed' && l.part?.role === 'bed heater',
    )!
    expect(bed.status).toBe('short')
  })
  test("practice's 290 of 300 stays fine, with the guard band used up", () => {
    const lines = checkStack(stackOf(shared(0.08), 0), asks('PC', 'none', 0), R).lines
    expect(lines.find(l => l.part?.role === 'sensor' && l.key === 'nozzle temperature')).toMatchObject({
      status: 'ok',
      asked: 290,
      allowed: 290,
    })
  })
})
