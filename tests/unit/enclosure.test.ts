/** The enclosure planner: what it answers, how wide, and what it refuses at which field. */
import { describe, expect, test } from 'vitest'
import {
  meanAt,
  placeC,
  planOutcome,
  powerFor,
  safeContactS,
  type EnclosurePlan,
  type Layer,
  type Planning,
  type Wall,
} from '#core/chamber'
import { PRACTICE_AIR } from '#core/limits'
import { InputError } from '#core/numeric'

const acrylic: Layer[] = [{ material: 'acrylic', mm: 4 }]
const side = (name: string, face: Wall['face'] = 'side', layers = acrylic): Wall => ({
  name,
  face,
  areaM2: 0.2,
  layers,
})
const now: EnclosurePlan = {
  walls: [side('left'), side('right'), side('back'), side('front'), side('top', 'top'), side('floor', 'bottom')],
  heightM: 0.45,
  roomC: 23,
  bed: { setC: 100, areaM2: 0.09, powerW: 300, under: 'insulated' },
  nozzleW: 15,
  heaterW: 0,
  heaterSetC: null,
  cutOutC: null,
  stirred: false,
  gapMm2: 2000,
  ventLMin: 0,
}
const { low, high, bay } = PRACTICE_AIR.shut
const wool: Layer = { material: 'mineral wool', mm: 20 }
const lined = (p: EnclosurePlan) => ({ ...p, walls: p.walls.map(w => ({ ...w, layers: [...w.layers, wool] })) })
const planning = (more: Partial<Planning> = {}): Planning => ({
  now,
  then: lined(now),
  map: { bed: { low, high, bay }, heater: PRACTICE_AIR.heater },
  parts: [
    { name: 'printed parts, PETG', place: 'high', allowedC: 65 },
    { name: 'belts', place: 'high', allowedC: 75 },
  ],
  record: null,
  insideKg: 8,
  ...more,
})
const record = { meanC: 42, u90: 2, bedC: 100, roomC: 23, tauS: 900 }

test('places and the mean are the two ways of one rule', () => {
  const { map } = planning()
  for (const by of ['bed', 'heater'] as const)
    for (const place of ['low', 'high', 'bay'] as const)
      expect(meanAt(map, by, place, placeC(map, by, place, 61, 23), 23)).toBeCloseTo(61, 9)
  expect(placeC(map, 'bed', 'low', 60, 23)).toBeGreaterThan(placeC(map, 'bed', 'high', 60, 23))
})

describe('what a plan comes to', () => {
  const o = planOutcome(planning())
  test('lining warms it, and it is told over the ways in which it may be', () => {
    expect(o.then.meanC.mid).toBeGreaterThan(o.now.meanC.mid + 3)
    for (const s of [o.now.meanC, o.then.meanC, o.now.tauS]) {
      expect(s.low).toBeLessThan(s.mid)
      expect(s.mid).toBeLessThan(s.high)
    }
    expect(o.fits.basis).toBe('no record')
    expect(o.then.tauS.mid).toBeGreaterThan(o.now.tauS.mid)
  })
  test('a record narrows it; its own doubt widens it', () => {
    const width = (u90: number) => {
      const { low: a, high: b } = planOutcome(planning({ record: { ...record, u90 } })).now.meanC
      return b - a
    }
    expect(width(0.5)).toBeLessThan(o.now.meanC.high - o.now.meanC.low)
    expect(width(0.5)).toBeLessThan(width(3))
    expect(planOutcome(planning({ record })).fits.basis).toBe('both ways')
  })
  test('walls that are drawn to lose more than the record says leave one way only', () => {
    const hot = planOutcome(planning({ record: { ...record, meanC: 58, u90: 0.2 } }))
    expect(hot.fits.basis).toBe('walls only')
    expect(hot.fits.ways.gaps).toBeNull()
    expect(hot.fits.ways.walls!.walls).toBeLessThan(1)
  })
  test('the tightest part first, and the vent that keeps it safe in every way', () => {
    expect(o.then.parts[0]!.name).toBe('printed parts, PETG')
    if (o.keepSafe === null || typeof o.keepSafe === 'string') throw new Error('a vent')
    expect(o.keepSafe.part.name).toBe('printed parts, PETG')
    const vented = planOutcome(planning({ then: { ...lined(now), ventLMin: o.keepSafe.fanLMin.high } }))
    expect(vented.then.places.high.high).toBeLessThan(65.05)
  })
  test('what matters most: the bare wall, once the others are lined', () => {
    const bareFront = { ...now, walls: now.walls.map((w, i) => (i === 3 ? w : lined(now).walls[i]!)) }
    const one = planOutcome(planning({ then: bareFront }))
    const walls = one.matters.filter(m => m.kind === 'wall')
    expect(walls[0]!.name).toBe('front')
    expect(one.matters.reduce((a, m) => a + m.share, 0)).toBeCloseTo(1, 6)
    for (const m of one.matters) expect(m.gainC.low).toBeGreaterThanOrEqual(-1e-3)
  })
  test('what burns is said, wall by wall', () => {
    expect(o.fireLoad.map(f => f.wall)).toEqual(['left', 'right', 'back', 'front', 'top', 'floor'])
    expect(o.fireLoad[0]!.materials).toEqual(['acrylic'])
  })
  test('how long the outside may be touched goes by the hottest it may be', () => {
    const t = o.now.touch[0]!
    expect(t.touched).toBe('plastic')
    expect(t.safeS).toBe(safeContactS('plastic', t.outsideC.high))
    // wool outside: its outside is cooler than bare acrylic
    expect(o.then.touch[0]!.outsideC.high).toBeLessThan(t.outsideC.low)
  })
})

describe('a heater stuck on', () => {
  const heated = (more: Partial<EnclosurePlan>) =>
    planOutcome(planning({ then: { ...lined(now), heaterW: 800, heaterSetC: 70, ...more } })).stuck
  test('without a cut-out it runs to where the walls take all of it, over every part', () => {
    const s = heated({})
    expect(s).toMatchObject({ heater: 'chamber heater', cutOut: null, stopsC: s.meanC.high })
    expect(s.over.map(p => p.name)).toEqual(['printed parts, PETG', 'belts'])
  })
  test('a cut-out that opens first is what it comes to', () => {
    expect(heated({ cutOutC: 78 })).toMatchObject({ cutOut: 'opens first', stopsC: 78 })
    expect(heated({ cutOutC: 78 }).over.map(p => p.name)).toEqual(['printed parts, PETG'])
  })
  test('one that never opens is no help', () => {
    const s = heated({ heaterW: 200, cutOutC: 300 })
    expect(s.cutOut).toBe('never opens')
    expect(s.over).toHaveLength(2)
  })
  test('where there is no chamber heater it is the bed', () => expect(planOutcome(planning()).stuck.heater).toBe('bed'))
})

test('what a heater must bring spans the ways', () => {
  const { fits } = planOutcome(planning({ record }))
  const p = powerFor(lined(now), fits, 85)
  expect(p.low).toBeLessThan(p.high)
  expect(p.low).toBeGreaterThan(0)
})

describe('refused at its field', () => {
  const field = (then: Partial<EnclosurePlan>) => {
    try {
      planOutcome(planning({ then: { ...now, ...then } }))
      return ''
    } catch (e) {
      return e instanceof InputError ? e.field : String(e)
    }
  }
  const wall = (layers: Layer[]) => ({ walls: [side('left'), side('odd', 'side', layers)] })
  test.each([
    ['then.walls.1.layers.0.mm', wall([{ material: 'acrylic', mm: 0 }])],
    ['then.walls.1.layers', wall([])],
    ['then.walls.1.layers', wall([{ material: 'air gap', mm: 10 }])],
    ['then.walls.1.layers.0.material', wall([{ material: 'straw' as never, mm: 10 }])],
    ['then.walls', { walls: [] }],
    ['then.gapMm2', { gapMm2: -1 }],
    ['then.bed.powerW', { bed: { ...now.bed, powerW: 0 } }],
    ['then.cutOutC', { cutOutC: 10 }],
  ])('%s', (at, then) => expect(field(then)).toBe(at))
})
