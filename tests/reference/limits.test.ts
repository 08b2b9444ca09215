/**
 * Sensors, threads, bends, money and windows against published values and facts of the trade; the source stands beside
 * each.
 */
import { describe, expect, test } from 'vitest'
import { checkDensity, compositeDensity } from '#core/materials'
import { breakEvenLifeRatio } from '#core/money'
import {
  bendStrain,
  CONDUCTIVITY_OFFSET_C,
  MOHS,
  NOZZLE_LIMIT_C,
  NOZZLE_PRICE,
  partOf,
  START_RULES,
  START_WINDOWS,
  startWindow,
  tightestBend,
  kindsOf,
} from '#core/limits'
import {
  ntcResolution,
  platinumOhm,
  platinumResolution,
  platinumSlope,
  PT_FILM_RANGE_C,
  PT_WIRE_RANGE_C,
  typeKResolution,
  ntcOhm,
} from '#core/thermometry'
import { HOT_YIELD_MPA, stressAreaMm2, swapTemperature, torqueCeiling, zChange } from '#core/changeover'
import { InputError, inverseNormal, normalCdf } from '#core/numeric'

describe('platinum, IEC 60751 table of resistances', () => {
  test.each([
    [-200, 18.52],
    [-100, 60.26],
    [0, 100],
    [100, 138.51],
    [200, 175.86],
    [300, 212.05],
    [400, 247.09],
    [500, 280.98],
    [600, 313.71],
    [850, 390.48],
  ])('%d °C: %f Ω', (t, ohm) => {
    expect(platinumOhm(t)).toBeCloseTo(ohm, 2)
  })
  test('ranges of class B as the standard gives them; slope is the derivative', () => {
    expect([PT_FILM_RANGE_C, PT_WIRE_RANGE_C]).toEqual([
      [-50, 500],
      [-196, 600],
    ])
    for (const t of [0.1, 100, 400])
      expect(platinumSlope(t, 1000)).toBeCloseTo((platinumOhm(t + 0.01, 1000) - platinumOhm(t - 0.01, 1000)) / 0.02, 5)
    expect(() => platinumOhm(900)).toThrow(InputError)
    expect(() => platinumOhm(NaN)).toThrow('tC')
  })
})

describe('bead thermistor by its divider (check values of the design; voltage divider arithmetic)', () => {
  const ntc = { r25Ohm: 100_000, betaK: 3950 }
  test.each([
    [200, 10, 0.47, 0.01],
    [300, 10, 2.4, 0.05],
    [300, 12, 0.6, 0.02],
  ])('at %d °C with %d bits: %f °C per count', (t, bits, expected, within) => {
    expect(Math.abs(ntcResolution(t, ntc, { pullUpOhm: 4700, bits }) - expected)).toBeLessThan(within)
  })
  test('10 µV per count of a type K: about 41 µV per °C', () => {
    expect(typeKResolution(300, 10)).toBeCloseTo(0.01 / 0.0415, 1)
  })
  test('agrees with counting: one count up and down around 250 °C', () => {
    const count = (t: number) => (4096 * ntcOhm(t, ntc.r25Ohm, ntc.betaK)) / (ntcOhm(t, ntc.r25Ohm, ntc.betaK) + 4700)
    expect(1 / (count(249.5) - count(250.5))).toBeCloseTo(ntcResolution(250, ntc, { pullUpOhm: 4700, bits: 12 }), 4)
    const pt = (t: number) => (4096 * platinumOhm(t, 1000)) / (platinumOhm(t, 1000) + 4700)
    expect(1 / (pt(250.5) - pt(249.5))).toBeCloseTo(platinumResolution(250, 1000, { pullUpOhm: 4700, bits: 12 }), 4)
    expect(() => ntcResolution(200, ntc, { pullUpOhm: 4700, bits: 2 })).toThrow('bits')
  })
})

describe('threads and torque', () => {
  test.each([
    [3, 0.5, 5.03],
    [4, 0.7, 8.78],
    [5, 0.8, 14.2],
    [6, 1, 20.1],
    [8, 1.25, 36.6],
    [10, 1.5, 58.0],
    [12, 1.75, 84.3],
  ])('M%d × %f: %f mm² (ISO 898-1, table of nominal stress areas)', (d, pitch, area) => {
    expect(stressAreaMm2(d, pitch)).toBeCloseTo(area, area >= 10 ? 1 : 2)
  })
  test(
    'about 2 N·m for a 2 mm channel in cold brass at half yield, 0.8 for 4.1 mm (design; yield of cold brass ' +
      '200 MPa, from memory)',
    () => {
      const joint = { nozzleYieldMPa: 200, blockYieldMPa: 1000, engagedMm: 6 }
      expect(torqueCeiling({ ...joint, channelMm: 2 }).newtonMetre).toBeCloseTo(2, 0)
      expect(torqueCeiling({ ...joint, channelMm: 4.1 }).newtonMetre).toBeCloseTo(0.8, 1)
      expect(torqueCeiling({ ...joint, channelMm: 2 }).part).toBe('nozzle neck')
      expect(
        torqueCeiling({
          channelMm: 2,
          nozzleYieldMPa: HOT_YIELD_MPA.carbide,
          blockYieldMPa: HOT_YIELD_MPA['aluminium block'],
          engagedMm: 4,
        }).part,
      ).toBe('block thread')
      expect(() => torqueCeiling({ ...joint, channelMm: 5.5 })).toThrow(InputError)
    },
  )
  test(
    'swap temperature: 220 if only PLA went through, 245 after nylon; above the ceiling it is not turned ' +
      '(common practice, no source)',
    () => {
      const pla = { name: 'PLA', swapC: 220 },
        pa = { name: 'PA6', swapC: 245 }
      expect(swapTemperature([pla], 230)).toEqual({ atC: 220, material: 'PLA', allowed: true })
      expect(swapTemperature([pla, pa], 290)).toMatchObject({ atC: 245, material: 'PA6', allowed: true })
      expect(swapTemperature([pla, pa], 230).allowed).toBe(false)
      expect(swapTemperature([pla, { name: 'new', swapC: null }], 290)).toEqual({
        atC: null,
        material: 'new',
        allowed: false,
      })
      expect(swapTemperature([], null)).toEqual({ atC: null, material: null, allowed: false })
      expect(zChange(12.5, 13)).toEqual({ mm: 0.5, canTouchBed: true })
    },
  )
})

describe('filament path', () => {
  test(
    '1.75 mm straight filament at 2.5 % strain at break needs 35 mm (common practice, no source; beam ' + 'bending)',
    () => {
      expect(tightestBend(1.75, 0.025, null, 'against')).toBeCloseTo(35, 9)
      expect(bendStrain(1.75, 35, null, 'with')).toBeCloseTo(0.025, 12)
    },
  )
  test('curl adds when bent the other way, and straightening alone may be too much', () => {
    expect(bendStrain(1.75, 100, 100, 'with')).toBe(0)
    expect(bendStrain(1.75, 100, 100, 'against')).toBeCloseTo(0.0175, 12)
    expect(tightestBend(1.75, 0.005, 100, 'against')).toBe(Infinity)
    expect(() => bendStrain(1.75, 0, null, 'with')).toThrow('bendMm')
    expect(() => tightestBend(1.75, 0.025, null, 'with', 0.5)).toThrow('safety')
  })
})

describe('facts of the trade (common practice, no source)', () => {
  test('a 300-rated sensor means 290', () => {
    for (const k of kindsOf('sensor').filter(s => s.key.startsWith('bead')))
      expect(partOf(k.key).limitC! - START_RULES.guardHotendC).toBe(290)
  })
  test('hardened steel runs 5 to 10 °C hotter, carbide like brass and to 450', () => {
    expect(CONDUCTIVITY_OFFSET_C['hardened steel']).toEqual([5, 10])
    expect(CONDUCTIVITY_OFFSET_C['tungsten carbide']).toEqual(CONDUCTIVITY_OFFSET_C.brass)
    expect(NOZZLE_LIMIT_C['tungsten carbide']).toBe(450)
    expect([MOHS.brass, MOHS['tungsten carbide'], MOHS['polycrystalline diamond']]).toEqual([3, 9, 10])
    expect([
      NOZZLE_PRICE['hardened steel'],
      NOZZLE_PRICE['tungsten carbide'],
      NOZZLE_PRICE['polycrystalline diamond'],
    ]).toEqual([20, 80, 160])
  })
  test('four times the price must last four times as long: 125/31; with 25 a swap 2.68', () => {
    expect(breakEvenLifeRatio({ price: 125, swap: 0 }, { price: 31, swap: 0 })).toBeCloseTo(4.03, 2)
    expect(breakEvenLifeRatio({ price: 125, swap: 25 }, { price: 31, swap: 25 })).toBeCloseTo(2.68, 2)
  })
  test('20 wt% glass PEEK is 1.44 g/cm³; a sheet that says 1.40 disagrees', () => {
    expect(compositeDensity(1.3, 2.56, 0.2)).toBeCloseTo(1.44, 2)
    expect(checkDensity(1.44, 1.3, 'glass fibre', 0.2)).toMatchObject({ disagrees: false })
    expect(checkDensity(1.4, 1.3, 'glass fibre', 0.2)).toMatchObject({ disagrees: true })
    expect(checkDensity(1.2, 1.2, 'none', 0)).toMatchObject({ disagrees: false, offShare: 0 })
    expect(checkDensity(1.28, 1.24, 'glow pigment', 0.15)).toBeNull()
  })
  test('printed PETG stops at 70, polycarbonate at 100, electronics at 60', () => {
    expect(['printed parts, PETG', 'printed parts, PC', 'electronics'].map(k => partOf(k).limitC)).toEqual([
      70, 100, 60,
    ])
  })
})

describe('published transition temperatures as limits (handbook values, from memory)', () => {
  const TG: Record<string, number> = {
    PLA: 60,
    PETG: 80,
    ABS: 105,
    PC: 147,
    PPS: 85,
    PEEK: 143,
    PEI: 217,
    PSU: 187,
    PPSU: 220,
  }
  test.each(Object.entries(TG))('%s: glass transition %d °C within 5', (polymer, tg) => {
    expect(Math.abs(startWindow(polymer, 'none')!.facts.glassC!.value - tg)).toBeLessThanOrEqual(5)
  })
  test('amorphous filaments are dried below their glass transition; nothing is printed below its melting point', () => {
    for (const w of START_WINDOWS) {
      const { glassC, meltC, dryHighestC, nozzleMinC } = w.facts
      if (glassC && !meltC) expect(dryHighestC!.value, w.polymer).toBeLessThan(glassC.value)
      if (meltC) expect(nozzleMinC!.value, w.polymer).toBeGreaterThan(meltC.value)
    }
  })
  test('printed and sheet parts of a polymer stop below its glass transition', () => {
    expect(partOf('printed parts, PETG').limitC!).toBeLessThan(TG.PETG!)
    expect(partOf('printed parts, PC').limitC!).toBeLessThan(TG.PC!)
    expect(partOf('polycarbonate sheet').limitC!).toBeLessThan(TG.PC!)
    expect(partOf('PEI sheet').limitC!).toBeLessThan(TG.PEI!)
  })
})

test('normal quantiles: Abramowitz & Stegun table 26.5, and the inverse undoes the distribution', () => {
  for (const [p, z] of [
    [0.9, 1.2815515655],
    [0.975, 1.9599639845],
    [0.995, 2.5758293035],
    [0.5, 0],
  ] as const)
    expect(inverseNormal(p)).toBeCloseTo(z, 9)
  for (const p of [1e-6, 0.01, 0.3, 0.7, 0.999999]) expect(normalCdf(inverseNormal(p)) / p).toBeCloseTo(1, 9)
  expect(() => inverseNormal(0)).toThrow(InputError)
})
