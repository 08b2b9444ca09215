/* eslint-disable max-lines -- tables of several standards, and the rule of a check */
/**
 * Sensors against what others published: thermocouple tables and inverse polynomials (IEC 60584-1, NIST Monograph 175),
 * platinum tables and classes (IEC 60751), a worked Steinhart–Hart example, and the rule of a check.
 */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { InputError } from '#core/numeric'
import {
  allowedAt,
  correctionAt,
  correctionFrom,
  driftBetween,
  firmwareTable,
  firstAbove,
  leadError,
  nextCheckHours,
  ntcCelsius,
  ntcOhm,
  ofBeta,
  ohmOf,
  platinumCelsius,
  platinumOhm,
  platinumSlope,
  referenceSays,
  sensorCheck,
  sensorState,
  setFor,
  START_CHECK_H,
  steinhartHart,
  thermocoupleCelsius,
  thermocoupleMillivolt,
  thermocoupleRangeC,
  thermocoupleSlope,
  THERMOCOUPLES,
  verdictOn,
  type Correction,
  type Point,
  type Reference,
  type Thermocouple,
} from '#core/thermometry'

// published tables of IEC 60584-1 / NIST Monograph 175, mV; from memory below 0 and above 500 °C
describe('thermocouples', () => {
  const table: Record<Thermocouple, [tC: number, mV: number][]> = {
    J: [
      [-200, -7.89],
      [-100, -4.633],
      [0, 0],
      [100, 5.269],
      [300, 16.327],
      [500, 27.393],
      [760, 42.919],
      [1000, 57.953],
      [1200, 69.553],
    ],
    K: [
      [-200, -5.891],
      [-100, -3.554],
      [0, 0],
      [100, 4.096],
      [200, 8.138],
      [300, 12.209],
      [400, 16.397],
      [450, 18.516],
      [500, 20.644],
      [1000, 41.276],
    ],
    N: [
      [-200, -3.99],
      [-100, -2.407],
      [0, 0],
      [100, 2.774],
      [300, 9.341],
      [500, 16.748],
      [1000, 36.256],
    ],
    T: [
      [-200, -5.603],
      [-100, -3.379],
      [0, 0],
      [100, 4.279],
      [200, 9.288],
      [300, 14.862],
      [400, 20.872],
    ],
  }
  test.each(THERMOCOUPLES)('type %s within half a microvolt of the rounded table', type => {
    // the table itself is rounded to 1 µV
    for (const [tC, mV] of table[type])
      expect(Math.abs(thermocoupleMillivolt(type, tC) - mV)).toBeLessThanOrEqual(0.0005 + 1e-9)
  })

  /** Published inverses of NIST Monograph 175 (from memory): coefficients, range in mV, errors in °C as published. */
  const inverses: [Thermocouple, number, number, [number, number], number[]][] = [
    [
      'K',
      -5.891,
      0,
      [-0.02, 0.04],
      [
        0, 2.5173462e1, -1.1662878, -1.0833638, -8.977354e-1, -3.7342377e-1, -8.6632643e-2, -1.0450598e-2,
        -5.1920577e-4,
      ],
    ],
    [
      'K',
      0,
      20.644,
      [-0.05, 0.04],
      [
        0, 2.508355e1, 7.860106e-2, -2.503131e-1, 8.31527e-2, -1.228034e-2, 9.804036e-4, -4.41303e-5, 1.057734e-6,
        -1.052755e-8,
      ],
    ],
    [
      'K',
      20.644,
      54.886,
      [-0.05, 0.06],
      [-1.318058e2, 4.830222e1, -1.646031, 5.464731e-2, -9.650715e-4, 8.802193e-6, -3.11081e-8],
    ],
    [
      'J',
      -8.095,
      0,
      [-0.05, 0.04],
      [
        0, 1.9528268e1, -1.2286185, -1.0752178, -5.9086933e-1, -1.7256713e-1, -2.8131513e-2, -2.396337e-3,
        -8.3823321e-5,
      ],
    ],
    [
      'J',
      0,
      42.919,
      [-0.04, 0.04],
      [0, 1.978425e1, -2.001204e-1, 1.036969e-2, -2.549687e-4, 3.585153e-6, -5.344285e-8, 5.09989e-10],
    ],
    [
      'N',
      -3.99,
      0,
      [-0.02, 0.03],
      [0, 3.8436847e1, 1.1010485, 5.2229312, 7.2060525, 5.8488586, 2.7754916, 7.7075166e-1, 1.1582665e-1, 7.3138868e-3],
    ],
    [
      'N',
      0,
      20.613,
      [-0.02, 0.03],
      [0, 3.86896e1, -1.08267, 4.70205e-2, -2.12169e-6, -1.17272e-4, 5.3928e-6, -7.98156e-8],
    ],
    [
      'T',
      -5.603,
      0,
      [-0.02, 0.04],
      [0, 2.5949192e1, -2.1316967e-1, 7.9018692e-1, 4.2527777e-1, 1.3304473e-1, 2.0241446e-2, 1.2668171e-3],
    ],
    ['T', 0, 20.872, [-0.03, 0.03], [0, 2.5928e1, -7.602961e-1, 4.637791e-2, -2.165394e-3, 6.048144e-5, -7.293422e-7]],
  ]
  test.each(inverses)('type %s from %f to %f mV: off the published inverse as published', (type, from, to, err, c) => {
    for (let i = 0; i <= 300; i++) {
      const mV = from + ((to - from) * i) / 300
      const off = c.reduceRight((s, k) => s * mV + k, 0) - thermocoupleCelsius(type, mV, 0)
      expect(off).toBeGreaterThan(err[0] - 0.005)
      expect(off).toBeLessThan(err[1] + 0.005)
    }
  })
  test('the inverse brings every temperature back to 1e-6 °C, whatever the cold junction', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...THERMOCOUPLES),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: -40, max: 80 }),
        (type, x, coldC) => {
          const [from, to] = thermocoupleRangeC(type)
          const tC = from + 1 + x * (to - from - 2)
          const mV = thermocoupleMillivolt(type, tC) - thermocoupleMillivolt(type, coldC)
          expect(Math.abs(thermocoupleCelsius(type, mV, coldC) - tC)).toBeLessThan(1e-6)
        },
      ),
      { seed: 13, numRuns: 400 },
    )
  })
  test('slope is the derivative; the pieces meet', () => {
    for (const type of THERMOCOUPLES)
      for (const t of [-150, -1, 1, 127, 350])
        expect(thermocoupleSlope(type, t)).toBeCloseTo(
          (thermocoupleMillivolt(type, t + 0.01) - thermocoupleMillivolt(type, t - 0.01)) / 0.02,
          6,
        )
    for (const [type, at] of [
      ['J', 760],
      ['K', 0],
      ['N', 0],
      ['T', 0],
    ] as const)
      expect(thermocoupleMillivolt(type, at + 1e-9)).toBeCloseTo(thermocoupleMillivolt(type, at), 5)
  })
  test('what no thermocouple reads is refused with what it could be', () => {
    expect(() => thermocoupleCelsius('K', 60, 23)).toThrow(
      /-7\.\d+ to 53\.\d+ mV \(type K with its cold junction at 23/,
    )
    expect(() => thermocoupleCelsius('K', 8, 400)).toThrow('coldC')
    expect(() => thermocoupleMillivolt('T', 401)).toThrow(InputError)
    expect(() => thermocoupleMillivolt('K', -271)).toThrow('-270 to 1372')
  })
})

describe('platinum (IEC 60751)', () => {
  test('the table forwards and back', () => {
    for (const [tC, ohm] of [
      [-200, 18.52],
      [-100, 60.26],
      [0, 100],
      [100, 138.51],
      [300, 212.05],
      [400, 247.09],
      [500, 280.98],
      [850, 390.48],
    ] as const) {
      expect(platinumOhm(tC)).toBeCloseTo(ohm, 2)
      expect(Math.abs(platinumCelsius(platinumOhm(tC)) - tC)).toBeLessThan(1e-6)
      expect(platinumCelsius(platinumOhm(tC, 1000), 1000)).toBeCloseTo(tC, 6)
    }
    for (const t of [-150, -10, 200])
      expect(platinumSlope(t)).toBeCloseTo((platinumOhm(t + 0.01) - platinumOhm(t - 0.01)) / 0.02, 5)
  })
  test('1 Ω of lead is 2.6 °C on a Pt100, a tenth of it on a Pt1000 (common practice, no source)', () => {
    expect(platinumCelsius(101) - platinumCelsius(100)).toBeCloseTo(2.56, 2)
    expect(platinumCelsius(1001, 1000)).toBeCloseTo(0.256, 3)
    expect(leadError(2, 1, 0.1)).toEqual({ ohm: 1, uOhm: 0.1 })
    expect(leadError(3, 1, 0.1).ohm).toBe(0)
    expect(leadError(4, 1, 0.1)).toEqual({ ohm: 0, uOhm: 0 })
  })
  test('ohms of another element say which', () => {
    expect(() => platinumCelsius(1385, 100)).toThrow('is it a Pt1000?')
    expect(() => platinumCelsius(110, 1000)).toThrow('is it a Pt100?')
    expect(() => platinumCelsius(5e4, 100)).toThrow(/18\.5 to 390\.5 Ω/)
  })
})

describe('class tolerances (IEC 60751, IEC 60584-1)', () => {
  const pt = (c: 'AA' | 'A' | 'B' | 'C', build: 'wire' | 'film', t: number) =>
    allowedAt({ by: 'platinum', class: c, build }, t)
  const tc = (type: Thermocouple, c: 1 | 2 | 3, t: number) => allowedAt({ by: 'thermocouple', type, class: c }, t)
  test('values', () => {
    expect(pt('A', 'wire', 100)).toBeCloseTo(0.35, 10)
    expect(pt('B', 'film', 300)).toBeCloseTo(1.8, 10)
    expect(pt('AA', 'film', 100)).toBeCloseTo(0.27, 10)
    expect(tc('K', 1, 300)).toBe(1.5)
    expect(tc('K', 1, 500)).toBe(2)
    expect(tc('K', 2, 500)).toBeCloseTo(3.75, 10)
    expect(tc('T', 1, 100)).toBe(0.5)
  })
  test('outside their range nobody vouches: cannot tell', () => {
    expect(pt('A', 'film', 301)).toBeNull()
    expect(pt('A', 'wire', 301)).not.toBeNull()
    expect(pt('A', 'wire', 451)).toBeNull()
    expect(pt('B', 'film', 501)).toBeNull()
    expect(pt('B', 'wire', 600)).not.toBeNull()
    expect(tc('J', 1, 751)).toBeNull()
    expect(tc('J', 3, 0)).toBeNull()
    expect(tc('K', 3, 100)).toBeNull()
  })
})

describe('thermistors', () => {
  test('Steinhart–Hart through three points goes through them, and a 10 kΩ bead in between (from memory)', () => {
    const points = [
      { tC: 0, ohm: 32650 },
      { tC: 25, ohm: 10000 },
      { tC: 70, ohm: 1752 },
    ]
    const s = steinhartHart(points)
    for (const p of points) {
      expect(ntcCelsius(s, p.ohm)).toBeCloseTo(p.tC, 6)
      expect(ohmOf(s, p.tC)).toBeCloseTo(p.ohm, 4)
    }
    // 50 °C of the same published curve: 3 603 Ω
    expect(Math.abs(ohmOf(s, 50) - 3603)).toBeLessThan(8)
    expect(() => steinhartHart([points[0]!, { tC: 25, ohm: 40000 }, points[2]!])).toThrow('falls as it gets hotter')
    expect(() => steinhartHart([points[0]!, { tC: 4, ohm: 20000 }, points[2]!])).toThrow('points.1.tC')
  })
  test('with c = 0 it is the beta equation, and the table counts as a divider does', () => {
    const s = ofBeta(100_000, 3950)
    for (const t of [0, 25, 200, 300]) expect(ohmOf(s, t)).toBeCloseTo(ntcOhm(t, 100_000, 3950), 4)
    const table = firmwareTable(s, { pullUpOhm: 4700, bits: 10 }, { fromC: 0, toC: 300, stepC: 50 })
    expect(table.map(l => l.tC)).toEqual([300, 250, 200, 150, 100, 50, 0])
    for (const l of table) expect(l.count).toBeCloseTo((1024 * l.ohm) / (l.ohm + 4700), 9)
    expect(() => firmwareTable(s, { pullUpOhm: 4700, bits: 10 }, { fromC: 0, toC: 300, stepC: 0 })).toThrow('stepC')
  })
})

const NONE = {
  type: null,
  coupleClass: null,
  r0Ohm: null,
  build: null,
  platinumClass: null,
  wires: null,
  leadOhm: null,
  uLeadOhm: null,
  certificateUC: null,
} as const
const couple = (more: Partial<Reference> = {}): Reference => ({
  ...NONE,
  kind: 'thermocouple',
  readsIn: 'mV',
  type: 'K',
  coupleClass: 1,
  meter: 0.005,
  ...more,
})
const pt100 = (more: Partial<Reference> = {}): Reference => ({
  ...NONE,
  kind: 'platinum',
  readsIn: 'Ω',
  r0Ohm: 100,
  build: 'wire',
  platinumClass: 'A',
  wires: 4,
  meter: 0.02,
  ...more,
})
const probe = (uC: number): Reference => ({ ...NONE, kind: 'probe', readsIn: '°C', certificateUC: uC, meter: 0.1 })
const at = (shownC: number, reading: number, coldC: number | null = null, swingC = 0): Point => ({
  shownC,
  reading,
  coldC,
  swingC,
})
const FIVE = { by: 'data sheet', plusMinusC: 5 } as const

describe('what a reference says', () => {
  test('a thermocouple by hand: class, meter and cold junction by squares (GUM)', () => {
    const s = referenceSays(couple(), 12.209 - thermocoupleMillivolt('K', 25), 25)
    expect(s.trueC).toBeCloseTo(300, 1)
    const slope = thermocoupleSlope('K', 300)
    const by = Math.hypot(1.5 / Math.sqrt(3), 0.005 / Math.sqrt(3) / slope, (0.5 * thermocoupleSlope('K', 25)) / slope)
    expect(s.uC).toBeCloseTo(by, 3)
    expect(s.budget.map(b => b.what)).toEqual(['its class', 'its meter', 'its cold junction'])
  })
  test('two wires read their leads as temperature; in °C as well as in Ω', () => {
    const two = pt100({ wires: 2, leadOhm: 1, uLeadOhm: 0.1 })
    expect(referenceSays(two, platinumOhm(200) + 1, null).trueC).toBeCloseTo(200, 9)
    const shown = platinumCelsius(platinumOhm(200) + 1)
    expect(shown).toBeGreaterThan(202)
    expect(referenceSays({ ...two, readsIn: '°C' }, shown, null).trueC).toBeCloseTo(200, 9)
    expect(referenceSays(two, platinumOhm(200), null).budget.find(b => b.what === 'its leads')!.uC).toBeCloseTo(0.27, 2)
  })
  test('a class that does not reach there leaves it unknown; a certificate does not', () => {
    expect(referenceSays(pt100(), platinumOhm(500), null).uC).toBeNull()
    expect(referenceSays(pt100({ certificateUC: 0.2 }), platinumOhm(500), null).uC).not.toBeNull()
  })
  test.each([
    ['millivolts outside its type', couple(), 60, 23, 'reading'],
    ['ohms of another element', pt100(), 1385, null, 'reading'],
    ['a cold junction of 400 °C', couple(), 8, 400, 'coldC'],
    ['millivolts without a cold junction', couple(), 8, null, 'coldC'],
    ['two wires without their leads', pt100({ wires: 2 }), 150, null, 'leadOhm'],
    ['a probe without a certificate', { ...probe(1), certificateUC: null }, 100, null, 'certificateUC'],
    ['ohms of a thermocouple', couple({ readsIn: 'Ω' }), 8, 23, 'readsIn'],
  ] as const)('%s is named', (_, reference, reading, coldC, field) => {
    try {
      referenceSays(reference, reading, coldC)
      expect.unreachable()
    } catch (e) {
      expect((e as InputError).field).toBe(field)
    }
  })
})

describe('a check of a sensor', () => {
  test('pass, fail, cannot tell: the error and its U against what is allowed', () => {
    expect(sensorCheck([at(240, 241)], probe(0.5), 'in the block', FIVE).verdict).toBe('pass')
    expect(sensorCheck([at(240, 246)], probe(0.2), 'in the block', FIVE).verdict).toBe('fail')
    expect(sensorCheck([at(240, 245)], probe(1), 'in the block', FIVE).verdict).toBe('cannot tell')
    const low = sensorCheck([at(240, 246)], probe(0.2), 'in the block', FIVE)
    expect(low.worst.cC).toBeCloseTo(6, 9)
    expect(low.worst.uC).toBeCloseTo(Math.hypot(0.2, 0.1 / Math.sqrt(3), 0.5), 9)
  })
  test('a larger uncertainty of the reference never turns "cannot tell" into "pass"', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -12, max: 12, noNaN: true }),
        fc.double({ min: 0.01, max: 8, noNaN: true }),
        fc.double({ min: 1, max: 3, noNaN: true }),
        fc.boolean(),
        (cC, u90, more, own) => {
          const [was, is] = [verdictOn(cC, u90, 5, own), verdictOn(cC, u90 * more, 5, own)]
          if (was !== 'pass') expect(is).not.toBe('pass')
          // and never makes a failure of what was none
          if (was !== 'fail') expect(is).not.toBe('fail')
        },
      ),
      { seed: 13, numRuns: 500 },
    )
    expect(verdictOn(0, null, 5, true)).toBe('cannot tell')
    expect(verdictOn(0, 1, null, true)).toBe('cannot tell')
  })
  test('a reference at the tip reads low: it fails a sensor or tells nothing', () => {
    // 12 °C under what is shown: the stem, or the sensor; nobody knows
    expect(sensorCheck([at(240, 228)], probe(0.5), 'at the tip', FIVE).verdict).toBe('cannot tell')
    expect(sensorCheck([at(240, 240)], probe(0.5), 'at the tip', FIVE).verdict).toBe('cannot tell')
    // even the tip is 10 °C hotter than shown
    expect(sensorCheck([at(240, 250)], probe(0.5), 'at the tip', FIVE).verdict).toBe('fail')
  })
  test('points taken again are one, with what they differ by', () => {
    const r = sensorCheck([at(240, 246), at(241, 250), at(200, 205)], probe(0.2), 'in the block', FIVE)
    expect(r.points.map(p => [p.shownC, p.times])).toEqual([
      [200, 1],
      [240.5, 2],
    ])
    expect(r.points[1]!.cC).toBeCloseTo(7.5, 9)
    expect(r.points[1]!.budget.find(b => b.what === 'taken again')!.uC).toBeCloseTo(1.5 / Math.sqrt(3), 9)
  })
  test('hotter by the printer and colder by the reference: one of both readings is wrong, and which is named', () => {
    expect(() => sensorCheck([at(200, 210), at(220, 205)], probe(0.2), 'in the block', FIVE)).toThrow(
      'points.1.reading',
    )
    expect(() => sensorCheck([], probe(0.2), 'in the block', FIVE)).toThrow('points')
    expect(() => sensorCheck([at(200, 200), at(240, 60, null)], couple(), 'in the block', FIVE)).toThrow('points.0')
  })
})

describe('what a check is worth in the limits', () => {
  const own = (...points: [shownC: number, cC: number, uC: number][]): Correction => ({
    own: { points: points.map(([shownC, cC, uC]) => ({ shownC, cC, uC })), from: 'its check' },
    atLeast: null,
  })
  test('interpolated between points, kept 20 °C outside, then only what tightens', () => {
    const low = own([200, 4, 1], [240, 8, 1])
    expect(correctionAt(low, 220)).toMatchObject({ cC: 6, covered: true })
    expect(correctionAt(low, 260)).toMatchObject({ cC: 8, covered: true })
    expect(correctionAt(low, 261)).toMatchObject({ cC: 8, covered: false, u90C: 0 })
    const high = own([200, -4, 1], [240, -8, 1])
    expect(correctionAt(high, 260)).toMatchObject({ cC: -8, covered: true })
    expect(correctionAt(high, 261)).toMatchObject({ cC: 0, covered: false, u90C: 0 })
    expect(correctionAt(high, 179)).toMatchObject({ cC: 0, covered: false })
    expect(correctionAt(null, 240)).toMatchObject({ cC: 0, covered: false })
  })
  test('a reference that reads low only tightens, and takes nothing out of the guard band', () => {
    const tip = (c: number): Correction => ({
      own: null,
      atLeast: { points: [{ shownC: 240, cC: c, uC: 1 }], from: '' },
    })
    expect(correctionAt(tip(-12), 240)).toMatchObject({ cC: 0, covered: false })
    expect(correctionAt(tip(5), 240)).toMatchObject({ cC: 5, covered: false })
    // within what the own check leaves open it changes nothing; beyond it the own check does not hold any more
    const both = (c: number): Correction => ({ ...own([240, 2, 1]), atLeast: tip(c).atLeast })
    expect(correctionAt(both(3), 240)).toMatchObject({ cC: 2, covered: true })
    expect(correctionAt(both(9), 240)).toMatchObject({ cC: 9, covered: false })
  })
  test('what is set reaches what is wanted, and nothing lower does', () => {
    const points = fc.uniqueArray(fc.integer({ min: 0, max: 300 }), { minLength: 1, maxLength: 4 })
    fc.assert(
      fc.property(
        points,
        fc.array(fc.integer({ min: -9, max: 9 }), { minLength: 4, maxLength: 4 }),
        fc.integer({ min: -20, max: 350 }),
        (at, cs, wanted) => {
          const c = own(...[...at].sort((a, b) => a - b).map((s, i) => [s, cs[i]! / 10, 1] as [number, number, number]))
          const set = setFor(c, wanted)
          const makes = (s: number) => s + correctionAt(c, s).cC
          expect(makes(set)).toBeGreaterThanOrEqual(wanted - 1e-6)
          for (const lower of [0.01, 0.1, 1, 10]) expect(makes(set - lower)).toBeLessThan(wanted)
        },
      ),
      { seed: 7, numRuns: 300 },
    )
    expect(setFor(own([240, 6, 1]), 250)).toBe(244)
  })
  test('the first setting that is too much, across the jump where a check ends', () => {
    const high = own([240, -6, 1])
    const of = (s: number) => s + correctionAt(high, s).cC
    expect(firstAbove(high, of, 250, 0, 400)).toBeCloseTo(256, 6)
    // 257 would make 251 by the check, but at 260 nobody has checked: it may be 260
    expect(firstAbove(high, of, 256, 0, 400)).toBeCloseTo(260, 6)
    expect(firstAbove(high, of, 900, 0, 400)).toBe(400)
  })
})

describe('drift and the next check (common practice, no source)', () => {
  const one = (cC: number, uC = 0.5) => [{ shownC: 240, cC, uC }]
  const check = (cC: number, verdict: 'pass' | 'fail' = 'pass') => ({
    verdict,
    worst: { shownC: 240, trueC: 240 + cC, cC, uC: 0.5, budget: [], allowedC: 5, verdict, times: 1 },
  })
  test('by what both took, per 100 hours', () => {
    expect(driftBetween(one(1), one(3), 200)).toMatchObject({ per100H: 1, hours: 200 })
    expect(driftBetween(one(1), one(3), 10)).toBeNull()
    expect(driftBetween([{ shownC: 100, cC: 0, uC: 1 }], one(3), 200)).toBeNull()
  })
  test('due before the drift has used up what is allowed; at once after a failure', () => {
    expect(nextCheckHours(check(1), null)).toBe(START_CHECK_H)
    expect(nextCheckHours(check(6, 'fail'), null)).toBe(0)
    expect(nextCheckHours(check(2), { per100H: 1, u90: 0.5, hours: 200 })).toBeCloseTo(200, 9)
    expect(nextCheckHours(check(2), { per100H: -1, u90: 0.5, hours: 200 })).toBeCloseTo(200, 9)
    expect(nextCheckHours(check(4.9), { per100H: 1, u90: 0.5, hours: 200 })).toBe(50)
    expect(nextCheckHours(check(0), { per100H: 0, u90: 0, hours: 200 })).toBe(1000)
  })
})

describe('how a sensor stands by its checks', () => {
  const made = (hoursSince: number, reading: number, placement: 'in the block' | 'at the tip' = 'in the block') => ({
    hoursSince,
    result: sensorCheck([at(240, reading)], probe(0.2), placement, FIVE),
  })
  test('by the latest in its own place; one at the tip is no check of it', () => {
    expect(sensorState([])).toEqual({ check: null, drift: null, nextInH: null, isDue: false })
    expect(sensorState([made(10, 245, 'at the tip')]).check).toBeNull()
    const s = sensorState([made(5, 250, 'at the tip'), made(20, 241), made(220, 239)])
    expect(s.check!.hoursSince).toBe(20)
    expect(s.drift!.per100H).toBeCloseTo(1, 9)
    expect(s.isDue).toBe(false)
    expect(sensorState([made(20, 247)])).toMatchObject({ nextInH: -20, isDue: true })
    expect(sensorState([made(301, 240)])).toMatchObject({ nextInH: -1, isDue: true })
  })
  test('what counts: the latest own, and a lower bound only where it is newer', () => {
    const one = (atMs: number, own: boolean, cC: number) => ({
      atMs,
      own,
      points: [{ shownC: 240, cC, uC: 1 }],
      from: String(atMs),
    })
    expect(correctionFrom([])).toBeNull()
    expect(correctionFrom([one(1, true, 2), one(3, true, 4)])!.own!.points[0]!.cC).toBe(4)
    expect(correctionFrom([one(1, false, 9), one(3, true, 4)])!.atLeast).toBeNull()
    expect(correctionFrom([one(5, false, 9), one(3, true, 4)])!.atLeast!.points[0]!.cC).toBe(9)
    // the latest could not tell: the one before does not stand in for it
    expect(correctionFrom([{ ...one(5, true, 4), points: [] }, one(3, true, 4)])).toBeNull()
  })
})
