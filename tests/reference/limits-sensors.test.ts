/**
 * A check of a sensor counts in every limit, and only safely: what must hold for every stack, every job and every
 * check. Facts of the trade beside them are common practice, no source.
 */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  ceilings,
  checkStack,
  compile,
  demandOfJob,
  heatAt,
  heatFor,
  heatSays,
  hottestBed,
  judge,
  NO_OFFERS,
  partOf,
  settlesAt,
  stackOf,
  START_RULES,
  type Line,
  usableLimits,
  type Printer,
  type Sensors,
} from '#core/limits'
import { purge, purgeOn } from '#core/changeover'
import type { Correction } from '#core/thermometry'
import { asks, nozzle, printer } from '../unit/limits-support'
import { checks, demands, printers } from './any-printer'

const R = START_RULES
const NONE: Sensors = { heads: {}, bed: null, chamber: null }
const on = (p: Printer, s: Partial<Sensors>): Printer => ({ ...p, sensors: { ...NONE, ...s } })
const found = (cC: number, uC = 0.5, ...atC: number[]): Correction => ({
  own: { points: (atC.length ? atC : [200, 300]).map(shownC => ({ shownC, cC, uC })), from: 'its check of 3 Nov' },
  atLeast: null,
})
const readsLow = (c: Correction | null) =>
  c !== null && [...(c.own?.points ?? []), ...(c.atLeast?.points ?? [])].every(p => p.cC >= 0)
const jobs = fc.record({
  nozzleC: fc.integer({ min: 160, max: 450 }),
  bedC: fc.integer({ min: 30, max: 160 }),
  chamberC: fc.option(fc.integer({ min: 30, max: 110 })),
})
const lines = (p: Printer, job: { nozzleC: number; bedC: number; chamberC: number | null }) =>
  checkStack(stackOf(p, 0), demandOfJob('x', job, null), R).lines
/** What is left to a part's own limit, the guard band not counted. */
const toLimit = (all: Line[]) =>
  new Map(
    all.flatMap(l =>
      l.part?.limitC != null && l.asked !== null && l.part.role !== 'firmware' && l.unit === '°C'
        ? [[`${l.key} ${l.part.id}`, l.part.limitC - l.asked] as const]
        : [],
    ),
  )

describe('whatever is checked', () => {
  test('correcting a sensor that reads low never raises limit − true and never lowers reach', () => {
    fc.assert(
      fc.property(printers, jobs, checks(180, 420), checks(40, 160), checks(20, 110), (p, job, hot, bed, air) => {
        fc.pre([hot, bed, air].every(c => c === null || readsLow(c)))
        const low = on(p, { heads: { 0: hot }, bed, chamber: air })
        const [was, is] = [toLimit(lines(on(p, NONE), job)), toLimit(lines(low, job))]
        for (const [key, left] of is) expect(left).toBeLessThanOrEqual(was.get(key)! + 1e-9)
        // what can be reached in truth
        const reach = (x: Printer, c: Correction | null) =>
          Math.min(
            ...ceilings(x, R).flatMap(l => (l.zone === 'hotend' ? [heatAt(c, l.limitC - 1e-6).trueC] : [])),
            Infinity,
          )
        expect(reach(low, hot)).toBeGreaterThanOrEqual(reach(on(p, NONE), null) - 1e-3)
      }),
      { seed: 13, numRuns: 400 },
    )
  })
  test('a reference that reads low never permits anything that an unchecked sensor would not', () => {
    fc.assert(
      fc.property(printers, jobs, checks(180, 420), (p, job, hot) => {
        fc.pre(hot !== null && hot.own === null)
        const [was, is] = [lines(on(p, NONE), job), lines(on(p, { heads: { 0: hot } }), job)]
        const short = (all: Line[]) => all.filter(l => l.status === 'short').map(l => `${l.key} ${l.part?.id}`)
        for (const key of short(was)) expect(short(is)).toContain(key)
      }),
      { seed: 3, numRuns: 300 },
    )
  })
  test('a job at a lane of the Floor is not short there, and short a degree above', () => {
    fc.assert(
      fc.property(printers, p => {
        for (const c of ceilings(p, R)) {
          if (c.zone !== 'hotend' || c.shortC > 480 || c.shortC < 100) continue
          const at = (nozzleC: number) =>
            lines(p, { nozzleC, bedC: 30, chamberC: null }).find(
              l => l.key === 'nozzle temperature' && l.part?.id === c.part.id,
            )?.status
          expect(['ok', 'just']).toContain(at(c.limitC - 1e-6))
          expect(at(c.fineC - 1e-6)).toBe('ok')
        }
      }),
      { seed: 5, numRuns: 200 },
    )
  })
  test('advice reaches what is wanted: the setting of a verdict makes the window true', () => {
    fc.assert(
      fc.property(printers, demands, (p, d) => {
        const v = judge(compile(p, 0, NO_OFFERS, R), d)
        const c = p.sensors?.heads[0] ?? null
        if (v.nozzleC === null || d.nozzleMinC === null) return
        expect(heatAt(c, v.nozzleC).trueC).toBeGreaterThanOrEqual(d.nozzleMinC - 1e-6)
      }),
      { seed: 9, numRuns: 200 },
    )
  })
})

describe('a hotend whose sensor reads 6 °C low', () => {
  const p = printer('bed-heated enclosure', nozzle('hardened steel'), { 'PTFE liner to the nozzle': null })
  const thermistor = p.parts.find(x => x.role === 'sensor')!
  const low = on(p, { heads: { 0: found(6, 0.5, 200, 240, 280) } })
  const hot = (x: Printer) => ceilings(x, R).find(c => c.zone === 'hotend')!
  test('its part limits come 6 °C sooner, its guard band is 5; the firmware goes by what is set', () => {
    expect(thermistor.limitC).toBe(300)
    expect(hot(on(p, NONE)).limitC).toBe(290)
    const job = (nozzleC: number) =>
      lines(low, { nozzleC, bedC: 30, chamberC: null }).filter(l => l.key === 'nozzle temperature')
    const of = (nozzleC: number, role: string) => job(nozzleC).find(l => l.part?.role === role)!
    expect(of(285, 'sensor')).toMatchObject({ asked: 291, allowed: 295, status: 'ok' })
    expect(of(290, 'sensor')).toMatchObject({ asked: 296, allowed: 295, status: 'short' })
    expect(of(290, 'firmware')).toMatchObject({ asked: 290, allowed: 295, status: 'ok' })
    // 295 true is 289 set; U of 1.28 × 0.5 either way
    expect(hot(low).limitC).toBeCloseTo(289, 6)
    expect(hot(low).fineC).toBeCloseTo(289 - 0.64, 6)
    expect(hot(low).shortC).toBeCloseTo(289 + 0.64, 6)
  })
  test('what is usable of each part is its limit less the band that counts there', () => {
    const usable = (x: Printer, role: string) => usableLimits(x, R).find(u => u.part.role === role)!.usableC
    expect([usable(on(p, NONE), 'sensor'), usable(low, 'sensor'), usable(low, 'firmware')]).toEqual([290, 295, 295])
    expect(usable(on(p, { heads: { 0: found(6, 0.5, 200) } }), 'sensor')).toBe(290)
    // parts in the air by whose setting makes it: here the bed's
    const belts = p.parts.find(x => x.role === 'belts')!.limitC!
    expect(usable(low, 'belts')).toBe(belts - 5)
    expect(usable(on(p, { bed: found(2, 0.5, 80, 110) }), 'belts')).toBe(belts - 3)
  })
  test('beyond 20 °C from its points the whole guard band returns, and the correction stays', () => {
    const near = on(p, { heads: { 0: found(6, 0.5, 240) } })
    expect(hot(near).limitC).toBeCloseTo(284, 6)
  })
  test('advice is the wanted temperature less c', () => {
    const d = asks('PA6', 'carbon fibre')
    const v = judge(compile(low, 0, NO_OFFERS, R), d)
    const before = judge(compile(p, 0, NO_OFFERS, R), d)
    expect(before.nozzleC! - v.nozzleC!).toBeCloseTo(6, 6)
    expect(heatSays(heatFor(low.sensors!.heads[0]!, 290))).toBe(
      'Set 284 °C for 290 °C: the sensor reads 6 °C low, by its check of 3 Nov.',
    )
    expect(heatSays(heatAt(null, 290))).toBe('')
    const pc = { name: 'PC', lowestFlowC: 250, shortMaxC: 320 }
    const pla = { name: 'PLA', lowestFlowC: 190, shortMaxC: 265 }
    expect(purge(pc, pla, 300)).toMatchObject({ steps: [{ atC: 260 }] })
    expect(purgeOn(found(6), 300, pc, pla)).toMatchObject({ steps: [{ atC: 254 }] })
    // set in whole degrees: nobody sets 254.3
    expect(purgeOn(found(5.7), 300, pc, pla)).toMatchObject({ steps: [{ atC: 254 }] })
    // a ceiling of 256 set is 262 in truth: enough for 260
    expect(purgeOn(found(6), 256, pc, pla)).toMatchObject({ kind: 'direct' })
    expect(purgeOn(found(6), 250, pc, pla)).toMatchObject({ kind: 'none', why: 'ceiling', neededC: 254, allowedC: 250 })
  })
  test('a sensor of another printer is unchecked, and so is one that a plan swaps in', () => {
    const c = compile(on(p, { heads: { 7: found(6) } }), 0, NO_OFFERS, R)
    expect(judge(c, asks('PA6')).nozzleC).toBe(judge(compile(p, 0, NO_OFFERS, R), asks('PA6')).nozzleC)
  })
  test('a sensor that reads high permits more only where it was checked in the block', () => {
    const high = on(p, { heads: { 0: found(-6, 0.5, 240, 280) } })
    expect(hot(high).limitC).toBeCloseTo(295, 6) // the firmware's own, by what is set
    const tip: Correction = { own: null, atLeast: { points: [{ shownC: 280, cC: -12, uC: 1 }], from: '' } }
    expect(hot(on(p, { heads: { 0: tip } })).limitC).toBe(290)
  })
})

describe('a bed whose sensor reads 6 °C low', () => {
  const p = printer('bed-heated enclosure')
  const bed = found(6, 0.5, 60, 100)
  const low = on(p, { bed })
  test('its parts and the air over it are hotter than set', () => {
    const at = (x: Printer) => settlesAt(stackOf(x, 0), { bedC: 100, chamberC: null }, 60, R)!
    // 0.52 of 6 °C near the top, where it is coolest
    expect(at(low).settlesC - at(on(p, NONE)).settlesC).toBeCloseTo(0.52 * 6, 6)
    expect(at(on(p, NONE)).bedForTargetC! - at(low).bedForTargetC!).toBeCloseTo(6, 6)
    expect(hottestBed(stackOf(low, 0), null, R)!).toBeLessThan(hottestBed(stackOf(p, 0), null, R)!)
  })
  test('what a bed heater reaches may have been read off a display: both set and true must be within', () => {
    const strong = { ...p, parts: [{ ...partOf('bed heater'), limitC: 120 }, partOf('glass plate')] }
    const top = (c: Correction) => ceilings(on(strong, { bed: c }), R).find(x => x.zone === 'bed')!.limitC
    expect(top(found(6, 0, 60, 110))).toBeCloseTo(111, 6)
    expect(top(found(-6, 0, 60, 110))).toBeCloseTo(117, 6)
  })
})
