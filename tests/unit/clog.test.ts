/** Clearing a clog: needles and pulls by facts of the trade, what is never burnt out, the steps. °C, mm. */
import { describe, expect, test } from 'vitest'
import { burnOut, clogDoubt, clogSteps, coldPullC, needleMm, valueFaults, type ClogFacts } from '#core/procedures'

const facts: ClogFacts = {
  ...{ place: 'Ribble', head: 0, sock: true, liner: false, holds: 'PA6-CF20' },
  materials: [{ id: 4, name: 'PETG', purgeC: 250 }],
  nozzle: {
    ...{ id: 1, tag: 'N-014', words: 'hardened steel 0.4', lengthMm: 12.5, lengthBy: 'type' },
    ...{ insert: false, plated: false, brittle: false },
  },
  ...{ material: 'hardened steel', boreMm: 0.4, softC: 245, pullC: 135 },
}
const step = (key: string, more: Partial<ClogFacts> = {}) => clogSteps({ ...facts, ...more }).find(s => s.key === key)!

describe('a cold pull', () => {
  // where practice pulls each, as technicians name it: from memory
  test.each([
    ['PLA', { glassC: 60, meltC: 165 }, 85, 95],
    ['PETG', { glassC: 80, meltC: null }, 95, 110],
    ['nylon 6', { glassC: 50, meltC: 220 }, 120, 140],
    ['ABS', { glassC: 105, meltC: null }, 110, 135],
    ['PC', { glassC: 147, meltC: null }, 150, 180],
  ])('%s begins where it is rubbery and comes in one piece', (_, of, low, high) => {
    expect(coldPullC(of)).toBeGreaterThanOrEqual(low)
    expect(coldPullC(of)).toBeLessThanOrEqual(high)
  })
  test('where neither point is known nobody says a number', () => {
    expect(coldPullC({ glassC: null, meltC: null })).toBeNull()
    expect(step('pull', { pullC: null }).title).toBe('Cold pull')
    expect(step('pull', { pullC: null }).says.join(' ')).toContain('is not known here')
  })
})

test('a needle goes in without force, and is as thick as it may be', () => {
  // common practice, no source: 0.35 mm for a 0.4 mm bore
  expect(needleMm(0.4)).toBe(0.35)
  for (const bore of [0.15, 0.2, 0.25, 0.3, 0.5, 0.6, 0.8, 1, 1.2]) {
    expect(needleMm(bore)).toBeLessThan(bore)
    expect(needleMm(bore)).toBeGreaterThan(bore - 0.1)
  }
})

test('burning out is never recommended, and refused where it ruins the nozzle or poisons', () => {
  // common practice, no source: never plated, brass or insert nozzles, nothing with a liner
  const solid = { material: 'tungsten carbide', insert: false, plated: false } as const
  expect(burnOut(solid, false)).toMatchObject({ refused: false, says: expect.stringContaining('Advised against') })
  expect(burnOut({ ...solid, insert: true }, false).refused).toBe(true)
  expect(burnOut({ material: 'plated copper', insert: false, plated: true }, false).refused).toBe(true)
  expect(burnOut({ material: 'brass', insert: false, plated: false }, false).refused).toBe(true)
  expect(burnOut(solid, true).says).toContain('poisonous fumes')
  expect(
    step('cleared')
      .hazards.map(h => h.hazard)
      .join(),
  ).toContain('torch')
})

test('the steps in their order, the mildest first, each with its hazard and what is asked', () => {
  expect(clogSteps(facts).map(s => s.key)).toEqual('raise protect heat feed needle pull purge cleared'.split(' '))
  for (const key of ['heat', 'feed', 'purge']) expect(step(key).wait).toMatchObject({ heater: 'nozzle', setC: 245 })
  expect(step('needle').title).toContain('0.35 mm')
  expect(step('pull').title).toContain('135 °C')
  expect(step('protect').hazards.length).toBeGreaterThan(1)
  const insert = { ...facts.nozzle, insert: true }
  expect(step('needle', { nozzle: insert }).says.join()).toContain('no side load')
  expect(valueFaults(step('needle'), {})).toEqual([{ field: 'needle', message: 'Choose one' }])
  expect(valueFaults(step('pull'), { pull: 'runs', pulledC: 900 })).toHaveLength(1)
})

test('cleared by what was not needed is asked about', () => {
  expect(clogDoubt({ needle: 'not needed', clearedBy: 'needle' })).toContain('not needed')
  expect(clogDoubt({ pull: 'runs', clearedBy: 'cold pull' })).toBeNull()
  expect(clogDoubt({ clearedBy: 'nothing' })).toBeNull()
})
