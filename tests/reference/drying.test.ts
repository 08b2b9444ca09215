/** Drying against the world outside: Crank's cylinder, Abramowitz & Stegun, psychrolib, and what the trade says. */
import { createRequire } from 'node:module'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  besselJ0,
  carried,
  crankUptake,
  diffusivity,
  dryerRh,
  dryingPlan,
  evenly,
  equilibriumWater,
  filamentOf,
  goneThroughSurface,
  heatedRh,
  meanAfter,
  meanWater,
  ratePerS,
  saturationPa,
  shortTimeUptake,
  newSpool,
  START_WOUND,
  stayed,
  throughHistory,
  zerosOfJ0,
  type Stay,
} from '#core/drying'

const psychro = createRequire(import.meta.url)('psychrolib') as {
  SetUnitSystem: (u: unknown) => void
  SI: unknown
  GetSatVapPres: (t: number) => number
}
psychro.SetUnitSystem(psychro.SI)
const PA6CF = filamentOf('PA6', 0.2, 1.75)!
const HOUR = 3_600_000

describe('Crank, The Mathematics of Diffusion, chapter 5', () => {
  test.each([
    [0.01, 0.2155],
    [0.05, 0.4521],
    [0.1, 0.6058],
    [0.2, 0.7821],
    [0.3, 0.878],
    [0.4, 0.9316],
  ])('uptake at D·t/a² = %d is %d', (x, share) => {
    expect(crankUptake(x)).toBeCloseTo(share, 4)
  })
  test('short-time form agrees to 0.1 % at 0.01, and joins the series where it takes over', () => {
    const plain = (x: number) => (4 / Math.sqrt(Math.PI)) * Math.sqrt(x) - x
    expect(Math.abs(plain(0.01) / crankUptake(0.01) - 1)).toBeLessThan(0.001)
    expect(shortTimeUptake(0.002)).toBeCloseTo(crankUptake(0.002), 5)
  })
  test.each([0.003, 0.01, 0.05, 0.1, 0.2, 0.3, 0.4, 1])('the shells agree to 0.5 % at %d, drying and wetting', x => {
    expect(Math.abs((1 - meanAfter(evenly(1), 0, x)) / crankUptake(x) - 1)).toBeLessThan(0.005)
    expect(Math.abs(meanAfter(evenly(0), 1, x) / crankUptake(x) - 1)).toBeLessThan(0.005)
  })
})

test('zeros of J0: Abramowitz & Stegun, table 9.5; values of J0: table 9.1', () => {
  zerosOfJ0(4).forEach((z, i) => expect(z).toBeCloseTo([2.404826, 5.520078, 8.653728, 11.791534][i]!, 6))
  expect(besselJ0(1)).toBeCloseTo(0.7651976866, 10)
  expect(besselJ0(10)).toBeCloseTo(-0.2459357645, 10)
  for (const z of zerosOfJ0(60)) expect(Math.abs(besselJ0(z))).toBeLessThan(1e-12)
})

describe('psychrolib', () => {
  test.each([-40, -20, -0.5, 0.5, 5, 23, 55, 70, 110, 140])('saturation pressure at %d °C', t => {
    expect(saturationPa(t) / psychro.GetSatVapPres(t)).toBeCloseTo(1, 6)
  })
  test('room air of 23 °C and 50 % has 4.5 % at 70 °C', () => {
    expect(heatedRh(23, 50, 70)).toBeCloseTo((50 * psychro.GetSatVapPres(23)) / psychro.GetSatVapPres(70), 6)
    expect(heatedRh(23, 50, 70)).toBeCloseTo(4.5, 1)
  })
})

describe('common practice, no source (the constants were chosen to agree with it: agreement, not proof)', () => {
  const removed = (celsius: number, hours: number) => crankUptake(ratePerS(PA6CF, celsius) * hours * 3600)
  test.each([
    [70, 12.3, 0.9],
    [80, 7.1, 0.9],
    [55, 29.6, 0.9],
    [55, 6, 0.52],
  ])('at %d °C, %d h take out %d of the removable water', (c, h, share) => {
    expect(removed(c, h)).toBeCloseTo(share, 1.99)
  })
  test('a single strand of dry nylon is good for 5 to 6 h in humid room air (70 %)', () => {
    const rate = ratePerS(PA6CF, 23)
    const after = (h: number) => meanAfter(evenly(0), equilibriumWater(PA6CF, 70), rate * h * 3600)
    expect(after(5)).toBeLessThan(PA6CF.usual)
    expect(after(6)).toBeGreaterThan(PA6CF.usual)
  })
  test('diffusivity: the reference value at 80 °C, and its slope by the activation energy', () => {
    expect(diffusivity(PA6CF, 80)).toBeCloseTo(1e-11, 15)
    const ea = (Math.log(diffusivity(PA6CF, 80) / diffusivity(PA6CF, 60)) * 8.314462618) / (1 / 333.15 - 1 / 353.15)
    expect(ea).toBeCloseTo(55_000, 3)
  })
})

describe('properties', () => {
  const air = fc.record({
    rh: fc.double({ min: 0, max: 100, noNaN: true }),
    c: fc.double({ min: 0, max: 140, noNaN: true }),
    h: fc.double({ min: 0.01, max: 500, noNaN: true }),
  })
  test('water is conserved to 1e-9: what is gone went through the surface', () => {
    fc.assert(
      fc.property(fc.array(air, { minLength: 1, maxLength: 12 }), steps => {
        let m = evenly(2),
          gone = 0
        for (const s of steps) {
          const x = ratePerS(PA6CF, s.c) * s.h * 3600,
            atAir = equilibriumWater(PA6CF, s.rh)
          gone += goneThroughSurface(m, atAir, x)
          m = carried(m, atAir, x)
        }
        return Math.abs(2 - gone - meanWater(m)) < 1e-9
      }),
    )
  })
  test('a stay in one piece or in two is the same', () => {
    fc.assert(
      fc.property(air, fc.double({ min: 0.05, max: 0.95, noNaN: true }), (a, cut) => {
        const stay: Stay = { from: 0, to: a.h * HOUR, place: 'room', airC: a.c, rh: a.rh, fill: 1 }
        const mid = stay.to * cut
        const start = newSpool(PA6CF, 50, 0)
        const whole = stayed(start, PA6CF, stay, START_WOUND),
          parts = throughHistory(
            start,
            PA6CF,
            [
              { ...stay, to: mid },
              { ...stay, from: mid },
            ],
            START_WOUND,
          )
        return (
          Math.abs(meanWater(whole.strand) - meanWater(parts.strand)) < 1e-9 &&
          Math.abs(meanWater(whole.wound) - meanWater(parts.wound)) < 1e-9
        )
      }),
    )
  })
  test(
    'the strand is never slower than the wound spool, and water stays between where it was and what the ' + 'air holds',
    () => {
      fc.assert(
        fc.property(air, a => {
          const s = stayed(
            newSpool(PA6CF, 50, 0),
            PA6CF,
            { from: 0, to: a.h * HOUR, place: 'room', airC: a.c, rh: a.rh, fill: 1 },
            START_WOUND,
          )
          const start = equilibriumWater(PA6CF, 50),
            end = equilibriumWater(PA6CF, a.rh)
          const way = (v: number) => Math.abs(v - start)
          return (
            way(meanWater(s.strand)) >= way(meanWater(s.wound)) - 1e-9 &&
            meanWater(s.strand) >= Math.min(start, end) - 1e-9 &&
            meanWater(s.strand) <= Math.max(start, end) + 1e-9
          )
        }),
      )
    },
  )
  test('a hotter dryer, or drier air, never needs longer', () => {
    const limits = { dryHighestC: 140, glassC: null, meltC: 220, hub: 'metal' }
    const hours = (ceilingC: number, rh: number) =>
      dryingPlan(
        newSpool(PA6CF, 50, 0),
        PA6CF,
        { kind: 'vented', ceilingC, timeOutH: null },
        { airC: 23, rh },
        limits,
        START_WOUND,
        { targetWt: 0.6, practiceH: null, brittle: false },
      )!.to.planH
    fc.assert(
      fc.property(
        fc.double({ min: 45, max: 130, noNaN: true }),
        fc.double({ min: 1, max: 10, noNaN: true }),
        fc.double({ min: 5, max: 90, noNaN: true }),
        (c, more, rh) => hours(c + more, rh) <= hours(c, rh) + 1e-3 && hours(c, rh * 0.9) <= hours(c, rh) + 1e-3,
      ),
    )
  })
  test('a desiccant is never wetter than heated room air', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 25, max: 140, noNaN: true }),
        fc.double({ min: 0, max: 100, noNaN: true }),
        (c, rh) => dryerRh('desiccant', c, { airC: 23, rh }) <= dryerRh('vented', c, { airC: 23, rh }),
      ),
    )
  })
})
