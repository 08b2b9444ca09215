/** Chamber surveys: when a probe is steady, what its place comes to, how even the air is, and what the limits take. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  evenness,
  placesOf,
  readSurveyTable,
  steadyAt,
  surveyFound,
  surveySources,
  type Read,
  type Survey,
  type SurveyFound,
  type SurveyState,
} from '#core/chamber'
import { airAt, airFrom, airSources, chamberAir, partOf, stackOf, START_RULES } from '#core/limits'
import { correctionFrom } from '#core/thermometry'
import type { InputError } from '#core/numeric'
import { mulberry32, normalDraw, studentCdf } from '#core/numeric'

describe('Student', () => {
  // two-sided 95 % points of any handbook table (from memory): 12.706, 2.776, 2.228, 2.042
  test.each([
    [1, 12.706],
    [4, 2.776],
    [10, 2.228],
    [30, 2.042],
  ])('%i degrees: 97.5 %% at %f', (degrees, t) => {
    expect(studentCdf(t, degrees)).toBeCloseTo(0.975, 4)
    expect(studentCdf(-t, degrees)).toBeCloseTo(0.025, 4)
  })
  test('one degree is Cauchy’s', () => {
    for (const t of [-30, -1, 0, 0.3, 2]) expect(studentCdf(t, 1)).toBeCloseTo(0.5 + Math.atan(t) / Math.PI, 12)
  })
})

const every = (minutes: number, n: number) => Array.from({ length: n }, (_, i) => i * minutes * 60)
/** A probe on its way to `finalC`, so far from it at the start. */
const settling = (timesS: number[], finalC: number, offC: number, tauS: number): Read[] =>
  timesS.map(s => finalC - offC * Math.exp(-s / tauS))

describe('steady', () => {
  const t = every(2, 16)
  test('what still rises is named with what is to go', () => {
    const s = steadyAt(t, settling(t, 70, 20, 1800), 1800)
    expect(s.state).toBe('rising')
    expect(s.toGoC).toBeGreaterThan(5)
    expect(s.slopePerH).toBeGreaterThan(0)
    expect(steadyAt(t, settling(t, 70, -20, 1800), 1800).state).toBe('falling')
  })
  test('what has come to rest is, and is the mean of its last readings', () => {
    const s = steadyAt(t, settling(t, 70, 0.1, 1800), 1800)
    expect(s.state).toBe('steady')
    expect(s.c).toBeCloseTo(70, 0)
    expect(s.toGoC).toBeLessThan(1)
  })
  test('nobody can tell from one reading, from two, or from three within a minute', () => {
    for (const [times, reads] of [
      [[0], [70]],
      [
        [0, 600],
        [70, 70],
      ],
      [
        [0, 20, 40],
        [70, 70, 70],
      ],
    ] as const)
      expect(steadyAt(times, reads, 1800).state).toBe('cannot tell')
  })
  test('a probe that gave nothing at the end has died, one that missed a reading has not', () => {
    const reads = settling(t, 70, 0, 1800)
    expect(steadyAt(t, [...reads.slice(0, 9), ...Array<null>(7).fill(null)], 1800)).toMatchObject({
      state: 'died',
      c: null,
      lastS: t[8],
    })
    expect(steadyAt(t, reads.with(7, null), 1800).state).toBe('steady')
  })
  test('a record of the whole warm-up is judged by its end', () => {
    const long = every(1, 300)
    expect(steadyAt(long, settling(long, 70, 47, 1200), 1200).state).toBe('steady')
  })
  test('of slopes that scatter, the bound holds nine times in ten', () => {
    // the bound is of |slope|: seeded draws of readings with a true slope of 0.4 °C an hour and 0.3 °C of scatter
    const draw = mulberry32(7)
    const tauS = 1800
    let held = 0
    const tries = 600
    for (let i = 0; i < tries; i++) {
      const reads = t.map(s => 70 + (0.4 * s) / 3600 + 0.3 * normalDraw(draw))
      if (steadyAt(t, reads, tauS).toGoC! >= (0.4 / 3600) * tauS) held++
    }
    expect(held / tries).toBeGreaterThan(0.86)
  })
})

describe('evenness', () => {
  const at = (xMm: number, yMm: number, zMm: number, c: number) => ({ xMm, yMm, zMm, c })
  test('four probes not in one plane find a slope exactly, by hand', () => {
    const T = (x: number, y: number, z: number) => at(x, y, z, 60 + 0.01 * x - 0.02 * y + 0.02 * z)
    const e = evenness([T(0, 0, 0), T(300, 0, 50), T(0, 300, 50), T(100, 100, 400)], 0.5)
    if (!e.known) throw new Error(e.why)
    expect(e.per100Mm).toBeCloseTo(3, 9) // |(1, −2, 2)| = 3 °C per 100 mm
    expect(e.towards).toEqual([1 / 3, -2 / 3, 2 / 3].map(v => expect.closeTo(v, 9)))
    expect(e.u90).toBeGreaterThan(0)
  })
  test('three probes, or four in one plane, cannot tell', () => {
    const flat = [at(0, 0, 50, 60), at(300, 0, 50, 62), at(0, 300, 50, 61), at(300, 300, 50, 64)]
    expect(evenness(flat.slice(0, 3), 0.5)).toEqual({ known: false, why: 'fewer than four probes' })
    expect(evenness(flat, 0.5)).toEqual({ known: false, why: 'all probes in one plane' })
    // a slanted plane is one too
    const slanted = flat.map(p => ({ ...p, zMm: 50 + p.xMm + 0.5 * p.yMm }))
    expect(evenness(slanted, 0.5).known).toBe(false)
  })
  test('an offset common to all, and turning the chamber, change nothing', () => {
    fc.assert(
      fc.property(fc.double({ min: -20, max: 20, noNaN: true }), offset => {
        const p = [at(0, 0, 0, 60), at(300, 0, 20, 63), at(0, 280, 40, 61), at(100, 90, 400, 55)]
        const [a, b, c] = [
          evenness(p, 0.5),
          evenness(
            p.map(q => ({ ...q, c: q.c + offset })),
            0.5,
          ),
          evenness(
            p.map(q => ({ ...q, xMm: q.yMm, yMm: -q.xMm })),
            0.5,
          ),
        ]
        if (!a.known || !b.known || !c.known) throw new Error('known')
        expect(b.per100Mm).toBeCloseTo(a.per100Mm, 6)
        expect(c.per100Mm).toBeCloseTo(a.per100Mm, 9)
      }),
      { numRuns: 30 },
    )
  })
})

const bare = { id: 1, name: 'one', heads: [{ id: 1, name: 'head', nozzle: null }], dryers: [] }
/** A bed that reads 6 °C low. */
const readsLow = correctionFrom([
  { atMs: 0, own: true, from: 'a check', points: [60, 120].map(shownC => ({ shownC, cC: 6, uC: 0.5 })) },
])
const timesS = every(4, 12)
const still = (c: number): Read[] => timesS.map((_, i) => c + (i % 2 === 0 ? 0.05 : -0.05))
const probe = (name: string, place: 'low' | 'high' | 'bay', c: number, at = [100, 100, 50]) => ({
  name,
  place,
  xMm: at[0]!,
  yMm: at[1]!,
  zMm: at[2]!,
  readC: still(c),
})
const survey = (more: Partial<Survey> = {}): Survey => ({
  timesS,
  roomC: still(23),
  probes: [probe('P1', 'low', 70.74), probe('P2', 'high', 61.5, [200, 200, 400])],
  bedC: 100,
  chamberSetC: null,
  tauS: 1200,
  shielded: true,
  probeUC: 0.5,
  ...more,
})

describe('a survey', () => {
  test('by the bed: shares of the way from the room to the bed', () => {
    const f = surveyFound(survey())
    // (70.74 − 23)/77 = 0.62, (61.5 − 23)/77 = 0.50: θ by hand
    expect(f.probes.map(p => p.value)).toEqual([expect.closeTo(0.62, 3), expect.closeTo(0.5, 3)])
    expect(f.whole).toBe(true)
    expect(f.evenness).toEqual({ known: false, why: 'fewer than four probes' })
    // u of T and of the room: 0.5·√(1 + 0.38²)/77 and a little that is still to go
    expect(f.probes[0]!.u).toBeGreaterThan((0.5 * Math.hypot(1, 0.38)) / 77)
    expect(f.probes[0]!.u).toBeLessThan(0.011)
  })
  test('by a heater: °C over its setpoint', () => {
    const f = surveyFound(survey({ chamberSetC: 65 }))
    expect(f.by).toBe('heater')
    expect(f.probes.map(p => p.value)).toEqual([expect.closeTo(5.74, 1), expect.closeTo(-3.5, 1)])
  })
  test('what still moves or died counts for nothing, and the others stand', () => {
    const rising = { ...probe('P3', 'high', 0), readC: settling(timesS, 90, 30, 3000) }
    const dead = { ...probe('P4', 'low', 0), readC: still(60).map((c, i) => (i > 6 ? null : c)) }
    const f = surveyFound(survey({ probes: [...survey().probes, rising, dead] }))
    expect(f.probes.map(p => p.steady.state)).toEqual(['steady', 'steady', 'rising', 'died'])
    expect(f.whole).toBe(false)
    expect(placesOf(f).map(p => p.place)).toEqual(['low', 'high'])
    expect(placesOf(f)[1]!.value).toBeCloseTo(0.5, 3)
  })
  test('a probe hotter than the bed is no air', () => {
    const f = surveyFound(survey({ probes: [probe('P1', 'low', 140)] }))
    expect(f.probes[0]).toMatchObject({ value: null, odd: true })
  })
  test('in sight of the bed nothing is known better than behind a shield', () => {
    const seen = surveyFound(survey({ shielded: false }))
    surveyFound(survey()).probes.forEach((p, i) => expect(seen.probes[i]!.u).toBeGreaterThan(p.u))
  })
  test('is refused without a room, with a cold bed, and with what no probe reads, each at its field', () => {
    const field = (s: Survey) => {
      try {
        surveyFound(s)
        return ''
      } catch (e) {
        return (e as InputError).field
      }
    }
    expect(field(survey({ roomC: timesS.map(() => null) }))).toBe('roomC')
    expect(field(survey({ bedC: 30 }))).toBe('bedC')
    expect(field(survey({ probes: [{ ...probe('P', 'low', 60), readC: still(60).with(3, 900) }] }))).toBe(
      'probes.0.readC.3',
    )
    expect(field(survey({ timesS: timesS.with(3, 1) }))).toBe('timesS.3')
    expect(field(survey({ probeUC: 0 }))).toBe('probeUC')
  })
})

describe('what the limits take of surveys', () => {
  const state = (more: Partial<SurveyState> = {}): SurveyState => ({ opening: 'shut', fan: null, gapMm: 0, ...more })
  const found = (lowC: number): SurveyFound => surveyFound(survey({ probes: [probe('P1', 'low', lowC)] }))
  test('first in the order of trust, at its own place and lid', () => {
    const own = surveySources([{ found: found(70.74), state: state(), from: 'its survey' }])
    const record = { ...own[0]!, trust: 'warm-up record' as const, value: 0.4 }
    expect(airAt([record, ...own], 'bed', 'low', 'shut')).toMatchObject({ trust: 'survey', from: 'its survey' })
    expect(airAt(airSources(partOf('enclosure'), undefined, own), 'bed', 'low', 'off')!.trust).toBe('practice')
  })
  test('the latest of each state; with two states of the fan one value that covers both', () => {
    const s = surveySources([
      { found: found(70.74), state: state({ fan: true }), from: 'new' },
      { found: found(78.44), state: state({ fan: true }), from: 'old' },
      { found: found(74.59), state: state({ fan: false }), from: 'still air' },
    ])
    expect(s).toHaveLength(1)
    expect(s[0]!.value).toBeCloseTo((0.62 + 0.67) / 2, 3) // not the old one
    expect(s[0]!.u).toBeGreaterThan(0.025)
  })
  test('a door ajar is no source; several probes of a place cover all of them', () => {
    expect(surveySources([{ found: found(70), state: state({ gapMm: 20 }), from: '' }])).toEqual([])
    const two = surveyFound(survey({ probes: [probe('A', 'low', 70.74), probe('B', 'low', 63.04)] }))
    expect(placesOf(two)).toEqual([{ place: 'low', value: expect.closeTo(0.57, 3), u: expect.any(Number) }])
    expect(placesOf(two)[0]!.u).toBeGreaterThan(0.05)
  })
})

describe('a table of a survey', () => {
  const lines = (text: string) => text.split('\n').map(l => l.split(';'))
  test('a column for each probe, the room by its name, decimal commas, and nothing where a probe gave nothing', () => {
    const t = readSurveyTable(lines('time s;P1;Room;P2\n0;60,5;23;61\n60;60,6;23,1;--\n120;60,7;23;'))
    expect(t.problems).toEqual([])
    expect(t.timesS).toEqual([0, 60, 120])
    expect(t.roomC).toEqual([23, 23.1, 23])
    expect(t.probes).toEqual([
      { name: 'P1', readC: [60.5, 60.6, 60.7] },
      { name: 'P2', readC: [61, null, null] },
    ])
  })
  test('what cannot be read is named at its line and probe', () => {
    const t = readSurveyTable(lines('minutes;P1;P2\n0;60;x\n1;600;61\nsoon;60;60\n2;60;60\n2;60;60'))
    expect(t.problems.map(p => `${p.line} ${p.message}`)).toEqual([
      '2 P2: "x" is not a temperature',
      '3 P1: 600 °C is outside -40 to 400 °C',
      '4 "soon" is not a time',
      '6 The time 2 is not after the line before',
    ])
    expect(readSurveyTable(lines('P1;P2\n1;2')).problems[0]!.message).toContain('No column of time')
    expect(readSurveyTable(lines('time;P1\n0:30;60')).asksClock).toBe(true)
  })
})

test('a probe is told by the same rule as its place: shown or corrected, at any setting', () => {
  const sources = surveySources([
    { found: surveyFound(survey()), state: { opening: 'shut', fan: null, gapMm: 0 }, from: '' },
  ])
  const own = surveyFound(survey()).probes[0]!
  const parts = [
    { ...partOf('enclosure'), id: 1 },
    { ...partOf('lid'), id: 2 },
  ]
  for (const sensors of [undefined, { heads: {}, bed: readsLow, chamber: null }]) {
    const printer = { ...bare, parts, air: sources, ...(sensors && { sensors }) }
    for (const bedC of [50, 100, 140]) {
      const set = { bedC, chamberC: null }
      const stack = stackOf(printer, 1)
      const place = chamberAir(stack, set, START_RULES).low!
      const probe = airFrom(stack, { value: own.value!, u: own.u }, set, START_RULES)
      expect([probe.c, probe.u90]).toEqual([expect.closeTo(place.c, 9), expect.closeTo(place.u90, 9)])
    }
  }
})
