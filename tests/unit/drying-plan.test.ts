import { describe, expect, test } from 'vitest'
import { spoolEditFields } from '#shared/entries/spools'
import { SPOOL_LOT_FIELDS } from '~/components/stores/fields'
import { bisect } from '#core/numeric'
import {
  asksHub,
  drynessFixes,
  drynessFor,
  dryingPlan,
  dryingRefusal,
  dryTime,
  equilibriumWater,
  evenly,
  filamentOf,
  fitFactor,
  historyProblems,
  hubCeilingC,
  HUB_WORDS,
  leftAfter,
  meanWater,
  safeCap,
  newSpool,
  START_WOUND,
  stayed,
  throughHistory,
  trace,
  type Stay,
} from '#core/drying'

const PA6 = filamentOf('PA6', 0.2, 1.75)!
const ROOM = { airC: 23, rh: 50 }
const wet = newSpool(PA6, 50, 0)
const nylon = { dryHighestC: 90, glassC: 50, meltC: 220, hub: 'cardboard' }
const HOUR = 3_600_000
const plan = (
  ceilingC: number,
  kind: 'vented' | 'desiccant' = 'vented',
  target = 0.6,
  more: Partial<typeof nylon> = {},
  timeOutH: number | null = null,
) =>
  dryingPlan(wet, PA6, { kind, ceilingC, timeOutH }, ROOM, { ...nylon, ...more }, START_WOUND, {
    targetWt: target,
    practiceH: null,
    brittle: true,
  })!

describe('drying plan', () => {
  test('hotter is shorter; the strand is the optimistic bound; the wound spool adds its heat-up', () => {
    const at = (c: number) => plan(c).to
    expect(at(80).planH).toBeLessThan(at(70).planH)
    expect(at(70).strandH).toBeLessThan(at(70).planH)
    expect(at(70).planH - START_WOUND.heatUpH).toBeCloseTo(2 * at(70).strandH, 2)
    expect(at(70).lowH).toBeLessThan(at(70).planH)
    expect(at(70).highH).toBeGreaterThan(at(70).planH)
  })
  test('a target below what the air in the dryer holds is never reached; a desiccant reaches it', () => {
    expect(plan(55, 'vented', 0.3).to.planH).toBe(Infinity)
    expect(plan(55, 'vented', 0.3).leavesAtBestWt).toBeGreaterThan(0.3)
    expect(plan(55, 'desiccant', 0.3).to.planH).toBeLessThan(Infinity)
  })
  test('the filament, its glass transition and its hub cap the temperature, and say so', () => {
    expect(plan(140)).toMatchObject({ atC: 90, reason: 'filament' })
    expect(plan(140, 'vented', 0.6, { hub: 'ABS' })).toMatchObject({ atC: 80, reason: 'hub' })
    expect(plan(140, 'vented', 0.6, { hub: '' })).toMatchObject({ atC: 60, reason: 'unknown hub' })
    expect(plan(55)).toMatchObject({ atC: 55, reason: 'dryer' })
    expect(safeCap({ dryHighestC: null, glassC: 147, meltC: null, hub: 'metal' })).toEqual({
      atC: 142,
      reason: 'glass transition',
    })
    expect(safeCap({ dryHighestC: null, glassC: 50, meltC: 220, hub: 'metal' })).toBeNull()
    expect(dryingRefusal(100, { ceilingC: 140 }, { ...nylon, hub: 'metal' })).toMatch(/turns fuse/)
    expect(dryingRefusal(85, { ceilingC: 140 }, { ...nylon, hub: 'ABS' })).toMatch(/ABS hub sags above 80/)
    expect(dryingRefusal(80, { ceilingC: 70 }, nylon)).toMatch(/stops at 70/)
    expect(dryingRefusal(70, { ceilingC: 70 }, { ...nylon, dryHighestC: null })).toMatch(/No highest safe/)
    expect(dryingRefusal(70, { ceilingC: 70 }, nylon)).toBeNull()
    // a hub that nobody has told of is asked for; the filament's own limit holds all the same
    expect(dryingRefusal(80, { ceilingC: 140 }, { ...nylon, hub: '' })).toBeNull()
    expect(dryingRefusal(100, { ceilingC: 140 }, { ...nylon, hub: '' })).toMatch(/turns fuse/)
    expect([asksHub(80, ''), asksHub(60, ''), asksHub(80, 'ABS'), asksHub(90, 'ABS')]).toEqual([
      true,
      false,
      false,
      false,
    ])
    expect(hubCeilingC('Cardboard')).toEqual({ limitC: 100, known: true })
    // every word that the form offers and the door takes is one that the core knows
    for (const hub of HUB_WORDS) expect(hubCeilingC(hub).known, hub).toBe(true)
    expect(spoolEditFields.safeParse({ hub: 'PC' }).success).toBe(false)
    expect(spoolEditFields.parse({}).hub).toBe('')
    const field = SPOOL_LOT_FIELDS.find(f => f.key === 'hub')!
    expect(field.options!.map(o => o.value)).toEqual(['', ...HUB_WORDS])
  })
  test('the time-out is counted, filled nylon is warned of, and a dry spool needs nothing', () => {
    const long = plan(55, 'vented', 0.5, {}, 12)
    expect(long.restarts).toBe(Math.ceil(long.to.planH / 12) - 1)
    expect(long.overDry).toBe(true)
    expect(
      dryingPlan(
        newSpool(PA6, 10, 0),
        PA6,
        { kind: 'vented', ceilingC: 70, timeOutH: null },
        ROOM,
        nylon,
        START_WOUND,
        { targetWt: 0.6, practiceH: 6, brittle: true },
      )!.to.planH,
    ).toBe(0)
  })
  test(
    'the schools side by side: 6 h at 55 leaves about half, 12 h at 70 about a tenth of what can go, for a ' +
      'single strand',
    () => {
      const left = (c: number, h: number) => {
        const r = leftAfter(wet, PA6, 'vented', c, h, ROOM, START_WOUND)
        return r
      }
      const share = (c: number, h: number) => {
        const eq = equilibriumWater(PA6, (50 * 2808.9) / (c === 70 ? 31_201 : 15_762))
        return (left(c, h).strand - eq) / (meanWater(wet.strand) - eq)
      }
      expect(share(55, 6)).toBeCloseTo(0.48, 1)
      expect(share(70, 12)).toBeCloseTo(0.1, 1)
      expect(left(70, 12).wound).toBeGreaterThan(left(70, 12).strand)
    },
  )
})

describe('history', () => {
  const stays: Stay[] = [
    { from: 0, to: 12 * HOUR, place: 'dryer', airC: 70, rh: 4.5, fill: 1 },
    { from: 12 * HOUR, to: 20 * HOUR, place: 'room', airC: 23, rh: 60, fill: 1 },
    { from: 20 * HOUR, to: 60 * HOUR, place: 'sealed', airC: 23, rh: 60, fill: 1 },
  ]
  test('dries, takes up again, and rests in the bag', () => {
    const dried = throughHistory(wet, PA6, stays.slice(0, 1), START_WOUND),
      out = throughHistory(wet, PA6, stays.slice(0, 2), START_WOUND),
      bag = throughHistory(wet, PA6, stays, START_WOUND)
    expect(meanWater(dried.strand)).toBeLessThan(meanWater(wet.strand))
    expect(meanWater(out.strand)).toBeGreaterThan(meanWater(dried.strand))
    expect(meanWater(bag.strand)).toBe(meanWater(out.strand))
    expect(bag.at).toBe(60 * HOUR)
  })
  test('the trace ends where the history does', () => {
    const points = trace(wet, PA6, stays, START_WOUND),
      end = throughHistory(wet, PA6, stays, START_WOUND)
    expect(points[points.length - 1]!.wound).toBeCloseTo(meanWater(end.wound), 12)
    expect(points.every((p, i) => i === 0 || p.at >= points[i - 1]!.at)).toBe(true)
  })
  test('overlaps, humidity out of range and time backwards are named by stay', () => {
    const bad: Stay[] = [
      { ...stays[0]!, rh: 101 },
      { ...stays[1]!, from: 5 * HOUR },
      { ...stays[2]!, to: 0 },
    ]
    expect(historyProblems(bad).map(p => [p.index, p.message.split(' ')[0]])).toEqual([
      [0, 'Humidity'],
      [1, 'It'],
      [2, 'It'],
    ])
    expect(() => throughHistory(wet, PA6, bad, START_WOUND)).toThrow(/stays\.0.*0 to 100 %/)
    expect(() => equilibriumWater(PA6, -1)).toThrow(/rh/)
  })
  test('a filament nobody knows has no model', () => expect(filamentOf('unheard of', 0, 1.75)).toBeNull())
  test('entered facts win over start values', () =>
    expect(filamentOf('PA6', 0, 1.75, { waterAt50: 3.1, usual: 0.3 })).toMatchObject({
      waterAt50: 3.1,
      d80: 1e-11,
      usual: 0.3,
      clean: 0.2,
    }))
})

describe('wet-out', () => {
  const dry = stayed(wet, PA6, { from: 0, to: 80 * HOUR, place: 'dryer', airC: 80, rh: 1, fill: 1 }, START_WOUND)
  test('the strand is the pessimistic bound, the wound spool lasts longer, a dry box longer still', () => {
    const room = dryTime(dry, PA6, { airC: 23, rh: 60 }, START_WOUND),
      box = dryTime(dry, PA6, { airC: 23, rh: 10 }, START_WOUND)
    expect(room.strandH).toBeGreaterThan(2)
    expect(room.woundH).toBeGreaterThan(room.strandH)
    expect(box.strandH).toBe(Infinity)
  })
  test('a wet spool has no time left', () =>
    expect(dryTime(wet, PA6, { airC: 23, rh: 50 }, START_WOUND)).toEqual({ strandH: 0, woundH: 0 }))
  test.each([
    [4, 'dry'],
    [10, 'outer turns'],
    [30, 'outlasts'],
  ] as const)('a print of %d h: %s', (h, word) => expect(drynessFor(h, { strandH: 5, woundH: 20 })).toBe(word))
  test('what would fix it: the dry box only where it helps, a split where a part can be printed', () => {
    expect(drynessFixes(12, { strandH: 5, woundH: 8 }, { strandH: 30, woundH: 90 })).toBe(
      'Feed it from the dry box, split it into 3 parts with the spool kept dry between them, or dry the spool first',
    )
    expect(drynessFixes(12, { strandH: 0, woundH: 0 }, { strandH: 0, woundH: 0 })).toBe('Dry the spool first')
    expect(drynessFixes(12, { strandH: 0.2, woundH: 3 }, null)).toBe('Dry the spool first')
  })
  test('past the limit is wet whatever the hours', () => expect(drynessFor(0.1, { strandH: 0, woundH: 0 })).toBe('wet'))
})

describe("the shop's own wound-spool factor", () => {
  const weighed = (truth: number) =>
    [
      [70, 10],
      [80, 8],
      [70, 12],
      [80, 12],
      [60, 14],
    ].map(([c, h]) => {
      const expectedG = (factor: number) =>
        (1000 / 100) *
        (meanWater(wet.wound) -
          meanWater(
            stayed(
              wet,
              PA6,
              { from: 0, to: h! * HOUR, place: 'dryer', airC: c!, rh: 3, fill: 1 },
              { ...START_WOUND, factor },
            ).wound,
          ))
      return { lostG: expectedG(truth), uG: 0.7, expectedG }
    })
  test('without weighings it is the start value', () => {
    expect(fitFactor([]).factor).toBeCloseTo(START_WOUND.factor, 1)
    expect(fitFactor([]).weighings).toBe(0)
  })
  test.each([1.8, 3, 6])('five weighings find %d, surer than before', truth => {
    const f = fitFactor(weighed(truth))
    expect(Math.abs(Math.log(f.factor / truth))).toBeLessThan(0.25)
    expect(f.lnSd).toBeLessThan(START_WOUND.lnSd / 2)
    expect(f.low80).toBeLessThan(truth)
    expect(f.high80).toBeGreaterThan(truth)
  })
})

test('an even cylinder in its own air does not change', () => expect(meanWater(evenly(1.2))).toBeCloseTo(1.2, 12))

// this one halved for ever before, and took the server with it: the step was smaller than a number can be
test('a polyamide that takes up water slower than anything: an answer, and at once', () => {
  const slow = filamentOf('PA6', 0, 1.75, { d80E11: 0.001, eaKJMol: 200, usual: 2.43 })!
  const dry = { ...newSpool(slow, 0, 0) }
  const began = performance.now()
  const t = dryTime(dry, slow, { airC: 5, rh: 50 }, START_WOUND)
  expect(performance.now() - began).toBeLessThan(1000)
  expect(t.strandH).toBeGreaterThan(1e9)
  expect(t.woundH / t.strandH).toBeCloseTo(START_WOUND.factor, 6)
  expect(bisect(x => x > 1e17 + 1, 0, 1e18, 1e-9)).toBeGreaterThan(1e17)
})
