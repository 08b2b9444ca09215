/** What is said of a spool: its marks, what nobody knows, its fill, plans, the bed as a dryer, and its mass. */
import { describe, expect, test } from 'vitest'
import {
  BED_SHARE,
  CLEAN_WT,
  dryingPlan,
  dryTime,
  equilibriumWater,
  factorAt,
  filamentOf,
  leftAfter,
  marksOf,
  meanWater,
  newSpool,
  rhFor,
  safeCap,
  spoolDryness,
  spoolTempC,
  START_UPTAKE,
  START_WOUND,
  throughHistory,
  wetVerdict,
  type Stay,
} from '#core/drying'
import { heaviestSpool, spoolFill, spoolMass } from '#core/materials'
import { startWindow } from '#core/limits'
import { inverseNormal } from '#core/numeric'
import { shortestDryH } from '#shared/asking'

const HOUR = 3_600_000
const DAY = 24 * HOUR
const ROOM = { airC: 23, rh: 50 }
const PEI = filamentOf('PEI', 0, 1.75)!
const PEEK = filamentOf('PEEK', 0, 1.75)!
const PA6CF = filamentOf('PA6', 0.2, 1.75)!
const stay = (from: number, to: number, place: Stay['place'], airC = 23, rh = 50, fill = 1): Stay => ({
  from,
  to,
  place,
  airC,
  rh,
  fill,
})

describe('two marks', () => {
  test('usually prints is never below clean, for every polymer there is and whatever is entered', () => {
    for (const polymer of new Set([...Object.keys(START_UPTAKE), ...Object.keys(CLEAN_WT)]))
      for (const filler of [0, 0.1, 0.3, 0.5]) {
        const m = marksOf(polymer, (START_UPTAKE[polymer]?.waterAt50 ?? 0.2) * (1 - filler))!
        expect(m.usual, polymer).toBeGreaterThanOrEqual(m.clean)
      }
    for (const [clean, usual] of [
      [null, 0.001],
      [3, null],
      [0.3, 0.3],
    ] as const) {
      const m = marksOf('PA6', 2.7, { clean, usual })!
      expect(m.usual).toBeGreaterThanOrEqual(m.clean)
    }
    expect(() => marksOf('PA6', 2.7, { clean: 0.4, usual: 0.3 })).toThrow(/usual/)
    expect(marksOf('unheard of', 1)).toBe(null)
    expect(marksOf('unheard of', 1, { usual: 0.5 })).toEqual({ clean: 0.2, usual: 0.5 })
  })
  // clean: moulding practice, from memory; usually prints: common practice, no source
  test.each([
    ['PA6', 0, 0.2, 0.675],
    ['PA6', 0.2, 0.2, 0.54],
    ['PA12', 0, 0.1, 0.175],
    ['PA12', 0.15, 0.1, 0.15],
    ['PPA', 0, 0.1, 0.45],
    ['PC', 0, 0.02, 0.05],
    ['PEI', 0, 0.02, 0.05],
    ['PEEK', 0, 0.02, 0.05],
    ['PLA', 0, 0.025, 0.44],
    ['PETG', 0, 0.04, 0.22],
    ['ABS', 0, 0.1, 0.33],
    ['TPU', 0, 0.03, 0.075],
  ])('%s with a filler share of %d: clean %d, usually prints %d', (polymer, filler, clean, usual) => {
    const f = filamentOf(polymer, filler, 1.75)!
    expect(f.clean).toBeCloseTo(clean, 9)
    expect(f.usual).toBeCloseTo(usual, 9)
  })
  test('too wet stops nylons, PC and the hot ones; PLA, ABS, ASA, PETG and TPU want a look', () => {
    for (const p of ['PA6', 'PA12', 'PPA', 'PC', 'PEEK', 'PEKK', 'PEI', 'PPS', 'PSU', 'PPSU'])
      expect(wetVerdict(p), p).toBe('stop')
    for (const p of ['PLA', 'ABS', 'ASA', 'PETG', 'TPU']) expect(wetVerdict(p), p).toBe('look')
  })
})

describe('dry by proof only', () => {
  const held = (stays: Stay[], f = PEI) => {
    const w = throughHistory(newSpool(f, 50, 0), f, stays, START_WOUND)
    const place = stays.at(-1)?.place ?? 'sealed'
    const range = { lowWt: meanWater(w.low), highWt: meanWater(w.wound), soakedWt: equilibriumWater(f, 50) }
    return { ...range, says: spoolDryness(range, f, place, w.dried) }
  }
  test('PEI opened two hours and boxed: not dry, and not known, however long it lies there', () => {
    const opened = [stay(0, 2 * HOUR, 'room')]
    for (const days of [1, 60])
      expect(held([...opened, stay(2 * HOUR, days * DAY, 'dry box', 23, 3)]).says).toBe('unknown')
  })
  test('a box is no dryer: a spool may hold what it came with, and surely holds what it takes up there', () => {
    const boxed = (rh: number, rhLow = rh) =>
      held([stay(0, 2 * HOUR, 'room'), { ...stay(2 * HOUR, 60 * DAY, 'dry box', 23, rh), rhLow }])
    expect(boxed(3).highWt).toBeCloseTo(0.5, 3)
    // PEI wants a box below 5 %: at 10 % it is too wet even if it came dry, unless nobody read the hygrometer
    expect(boxed(10).says).toBe('wet')
    expect(boxed(10, 0).says).toBe('unknown')
    // once dried, a dry box does take water out again
    const after = held([
      stay(0, 24 * HOUR, 'dryer', 140, 0.5),
      stay(24 * HOUR, 30 * HOUR, 'room'),
      stay(30 * HOUR, 90 * DAY, 'dry box', 23, 1),
    ])
    expect(after.says).toBe('clean')
  })
  test('a spool that was never opened is not known, and starts between dry and what the room makes', () => {
    expect(held([]).says).toBe('unknown')
    expect(held([]).lowWt).toBe(0)
    expect(held([]).highWt).toBeCloseTo(0.5, 9)
  })
  test('dried long enough it is clean whatever it held; too short, nobody knows', () => {
    expect(held([stay(0, 24 * HOUR, 'dryer', 140, 0.5)]).says).toBe('clean')
    expect(held([stay(0, 24 * HOUR, 'dryer', 140, 0.5)]).highWt).toBeLessThan(PEI.clean)
    expect(held([stay(0, 3 * HOUR, 'dryer', 60, 1)]).says).toBe('unknown')
  })
  test('out in the room it is wet however it came; what the room does no harm usually prints', () => {
    expect(held([stay(0, 10 * DAY, 'room')]).says).toBe('wet')
    const pla = filamentOf('PLA', 0, 1.75)!
    expect(held([stay(0, DAY, 'room')], pla).says).toBe('usual')
    expect(held([stay(0, DAY, 'sealed')], pla).says).toBe('unknown')
  })
  test('what nobody knows narrows with time, and never turns round', () => {
    let last = Infinity
    for (const h of [3, 8, 20, 80]) {
      const w = held([stay(0, h * HOUR, 'dryer', 70, 4.5)], PA6CF)
      expect(w.highWt).toBeGreaterThanOrEqual(w.lowWt)
      expect(w.highWt - w.lowWt).toBeLessThan(last)
      last = w.highWt - w.lowWt
    }
  })
})

describe('the wound spool', () => {
  test('starts at 2, 80 % between 1 and 4; a nearly empty one is near a single strand', () => {
    const z = inverseNormal(0.9)
    expect(START_WOUND.factor).toBe(2)
    expect(START_WOUND.factor * Math.exp(-z * START_WOUND.lnSd)).toBeCloseTo(1, 9)
    expect(START_WOUND.factor * Math.exp(z * START_WOUND.lnSd)).toBeCloseTo(4, 9)
    expect(factorAt(START_WOUND, 1)).toBe(2)
    expect(factorAt(START_WOUND, 0.03)).toBeLessThan(1.03)
    expect(() => factorAt(START_WOUND, 1.2)).toThrow(/fill/)
  })
  test('the same drying leaves less on an emptier spool, and its clock is shorter', () => {
    const left = [1, 0.5, 0.05].map(fill =>
      meanWater(
        throughHistory(newSpool(PA6CF, 50, 0, fill), PA6CF, [stay(0, 8 * HOUR, 'dryer', 70, 4.5, fill)], START_WOUND)
          .wound,
      ),
    )
    expect(left[1]).toBeLessThan(left[0]!)
    expect(left[2]).toBeLessThan(left[1]!)
    const dry = newSpool(PA6CF, 0, 0)
    const out = [1, 0.05].map(fill => dryTime({ ...dry, fill }, PA6CF, ROOM, START_WOUND).woundH)
    expect(out[1]).toBeLessThan(out[0]!)
  })
})

describe('plans', () => {
  const limits = { dryHighestC: 150, glassC: 143, meltC: 343, hub: 'metal' }
  const oven = { kind: 'oven', ceilingC: 150, timeOutH: null } as const
  const plan = (f = PEEK, aim: object = {}, kind: 'oven' | 'vented' = 'oven') =>
    dryingPlan(newSpool(f, 50, 0), f, { ...oven, kind }, ROOM, limits, START_WOUND, {
      targetWt: f.usual,
      practiceH: 3,
      brittle: false,
      ...aim,
    })!
  test('PEEK at 150: never below the shortest hours of practice, and no range of zero width', () => {
    const p = plan()
    expect(p.to.modelH).toBeLessThan(3)
    expect(p.to.planH).toBe(3)
    expect(p.to.highH - p.to.lowH).toBeGreaterThan(0.5)
    expect(p.to.lowH).toBeGreaterThan(0)
    // the material's own practice, as it is stored
    const peek = startWindow('PEEK', 'none')!
    const least = shortestDryH(peek.sets.map(s => ({ ...s, withdrawn: false })))!
    expect(plan(PEEK, { practiceH: least }).to.planH).toBeGreaterThanOrEqual(least)
    expect(shortestDryH(peek.sets.map(s => ({ ...s, withdrawn: true })))).toBe(null)
  })
  test('hours to both marks; where the air cannot give clean, it says so', () => {
    const p = plan()
    expect(p.clean.planH).toBeGreaterThanOrEqual(p.to.planH)
    const pla = filamentOf('PLA', 0, 1.75)!
    const vented = plan(pla, { askedC: 45, practiceH: null, targetWt: 0.3 }, 'vented')
    expect(vented.to.planH).toBeLessThan(Infinity)
    expect(vented.leavesAtBestWt).toBeGreaterThan(pla.clean)
    expect(vented.clean.planH).toBe(Infinity)
  })
  test('a bed as a dryer: the spool is cooler than the bed, its limits are judged at the bed', () => {
    // common practice, no source: three quarters of the way from the room to the bed
    expect(spoolTempC('bed under a cover', 110, 23)).toBeCloseTo(88.25, 9)
    expect(spoolTempC('oven', 110, 23)).toBe(110)
    const nylon = { dryHighestC: 90, glassC: 50, meltC: 220, hub: 'cardboard' }
    const on = (kind: 'bed under a cover' | 'vented') =>
      dryingPlan(newSpool(PA6CF, 50, 0), PA6CF, { kind, ceilingC: 120, timeOutH: null }, ROOM, nylon, START_WOUND, {
        targetWt: 0.6,
        practiceH: null,
        brittle: true,
      })!
    // the filament stands 90: so does the bed, whatever the spool on it comes to
    expect(on('bed under a cover').atC).toBe(safeCap(nylon)!.atC)
    expect(on('bed under a cover').spoolC).toBeCloseTo(23 + BED_SHARE.usual * 67, 9)
    expect(on('bed under a cover').to.modelH).toBeGreaterThan(on('vented').to.modelH)
    // its spread is in the range
    const ratio = (k: 'bed under a cover' | 'vented') => on(k).to.highH / on(k).to.modelH
    expect(ratio('bed under a cover')).toBeGreaterThan(ratio('vented'))
    const left = (kind: 'bed under a cover' | 'vented') =>
      leftAfter(newSpool(PA6CF, 50, 0), PA6CF, kind, 90, 10, ROOM, START_WOUND).wound
    expect(left('bed under a cover')).toBeGreaterThan(left('vented'))
  })
  test('a box below A % keeps it printable, below B % clean: where the water ends there', () => {
    expect(rhFor(PA6CF, PA6CF.usual)).toBeCloseTo(12.5, 9)
    for (const f of [PA6CF, PEI, PEEK]) {
      expect(equilibriumWater(f, rhFor(f, f.usual))).toBeCloseTo(f.usual, 9)
      expect(rhFor(f, f.clean)).toBeLessThan(rhFor(f, f.usual))
    }
  })
})

describe('one truth for the mass of a spool', () => {
  const s = { netG: 1000, tareG: 200, weighings: [], uses: [{ at: 3, g: 90 }] }
  test('weights that were given win over sums', () => {
    expect(spoolMass(s, 9)).toEqual({ g: 910, by: 'label' })
    const weighed = { ...s, weighings: [{ at: 5, grossG: 1000 }], uses: [...s.uses, { at: 7, g: 50 }] }
    expect(spoolMass(weighed, 9)).toEqual({ g: 750, by: 'weighing' })
    // before it was weighed nobody knew better
    expect(spoolMass(weighed, 4)).toMatchObject({ g: 910, by: 'label' })
    expect(spoolFill(weighed, 9)).toBe(0.75)
  })
  test('without its empty weight the difference of two weighings counts, and one weighing tells nothing', () => {
    const bare = { ...s, tareG: null, weighings: [{ at: 5, grossG: 1130 }] }
    expect(spoolMass(bare, 9)).toMatchObject({ g: 910, by: 'label' })
    const twice = {
      ...bare,
      weighings: [...bare.weighings, { at: 8, grossG: 1000 }],
      uses: [...s.uses, { at: 7, g: 50 }],
    }
    expect(spoolMass(twice, 9)).toMatchObject({ g: 780, by: 'difference of weighings' })
  })
  test('the heaviest it can be: by its label and its empty weight, or by the last weighing and the runs since', () => {
    expect(heaviestSpool({ ...s, uses: [] }, 9)!.grossG).toBeCloseTo(1280, 9)
    expect(heaviestSpool(s, 9)!.grossG).toBeCloseTo(1280 - 81, 9) // the sum of a run may be a tenth too much
    expect(heaviestSpool({ ...s, tareG: null }, 9)).toBeNull()
    const weighed = { ...s, weighings: [{ at: 5, grossG: 700 }], uses: [...s.uses, { at: 7, g: 100 }] }
    const most = heaviestSpool(weighed, 9)!
    expect(most).toMatchObject({ since: { at: 5 }, usedG: 100 })
    expect(most.grossG).toBeCloseTo(700 - 90 + 20, 9) // 500 g of filament take up 20 g of water at the most
    expect(heaviestSpool(weighed, 5)!.since).toBeNull() // the one that is asked about does not vouch for itself
  })
})
