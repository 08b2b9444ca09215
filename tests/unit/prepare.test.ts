import { describe, expect, test } from 'vitest'
import {
  annealDoes,
  annealNow,
  annealPlan,
  annealRefusal,
  annealSchools,
  hottestAnneal,
  soakThroughH,
  usuallyInSand,
} from '#core/anneal'
import { PRACTICE_SOAK_MIN, readTable, soakPlan, timeToHold } from '#core/chamber'
import { purge, washout } from '#core/changeover'
import { Scan } from '#core/gcode'
import { startWindow } from '#core/limits'

const flowing = (name: string, polymer = name, filler: 'none' | 'carbon fibre' = 'none') => {
  const f = startWindow(polymer, filler)!.facts
  return { name, lowestFlowC: f.lowestFlowC!.value, shortMaxC: f.shortMaxC!.value }
}

describe('changeover', () => {
  test.each(['PLA', 'ABS', 'PA6'])('from PC to %s at 260 °C (common practice, no source)', to => {
    expect(purge(flowing('PC'), flowing(to), 300)).toEqual({ kind: 'direct', steps: [{ from: 'PC', to, atC: 260 }] })
  })
  test('windows that do not meet go through another filament, the coolest way', () => {
    expect(purge(flowing('PPS'), flowing('ABS'), 400, [flowing('PC'), flowing('PEI')])).toMatchObject({
      kind: 'through',
      via: ['PC'],
    })
  })
  test('a hotend too cool, windows that nothing bridges, and missing facts are said', () => {
    expect(purge(flowing('PC'), flowing('PLA'), 240)).toEqual({
      kind: 'none',
      why: 'ceiling',
      neededC: 260,
      allowedC: 240,
    })
    expect(purge(flowing('PEEK'), flowing('PLA'), 480)).toMatchObject({ kind: 'none', why: 'windows' })
    expect(purge(flowing('PEEK'), flowing('PLA'), 340, [flowing('PC')])).toMatchObject({ kind: 'none', why: 'ceiling' })
    expect(purge({ name: 'X', lowestFlowC: null, shortMaxC: 300 }, flowing('PLA'), 300)).toEqual({
      kind: 'cannot tell',
      missing: 'the lowest flow temperature of X',
    })
    expect(purge(flowing('PC'), flowing('PLA'), null)).toMatchObject({ kind: 'cannot tell' })
  })
  test('chains: from PEEK down to PLA one after the other, each step in both windows; what the shop has first', () => {
    const all = ['PEI', 'PPS', 'PC', 'ABS', 'PETG', 'PA6', 'PSU', 'PPSU']
    const between = (atHand: string[]) => all.map(p => ({ ...flowing(p), atHand: atHand.includes(p) }))
    const facts = new Map([...all, 'PEEK', 'PLA'].map(p => [p, flowing(p)]))
    for (const atHand of [[], all, ['PEI', 'PPS', 'PC']]) {
      const r = purge(flowing('PEEK'), flowing('PLA'), 480, between(atHand))
      if (r.kind !== 'through') throw new Error(r.kind)
      expect(r.steps[0]!.from).toBe('PEEK')
      expect(r.steps.at(-1)!.to).toBe('PLA')
      r.steps.forEach((s, i) => {
        expect(s.from).toBe(i === 0 ? 'PEEK' : r.via[i - 1])
        const [a, b] = [facts.get(s.from)!, facts.get(s.to)!]
        expect(s.atC).toBeGreaterThanOrEqual(a.lowestFlowC + 10)
        expect(s.atC).toBeGreaterThanOrEqual(b.lowestFlowC)
        expect(s.atC).toBeLessThanOrEqual(Math.min(a.shortMaxC, b.shortMaxC))
      })
      // common practice, no source: PEEK, PEI, PPS, PC, PLA, with the spools of those at hand
      if (atHand.length === 3) expect(r.via.every(v => atHand.includes(v))).toBe(true)
    }
  })
  test('washout to 1 % is 4.6 melt volumes times the slowness', () => {
    expect(washout(65, 1.75, 0.01, 1).volumeMm3 / 65).toBeCloseTo(4.605, 3)
    expect(washout(65, 1.75).volumeMm3).toBeCloseTo(3 * 4.605 * 65, 0)
    expect(((washout(65, 1.75).lengthMm * Math.PI) / 4) * 1.75 ** 2).toBeCloseTo(washout(65, 1.75).volumeMm3, 9)
    expect(() => washout(0, 1.75)).toThrow(/meltMm3/)
  })
})

describe('soak', () => {
  const ask = {
    targetC: 60,
    nowC: 23,
    roomC: 23,
    part: 'small' as const,
    settles: { settlesC: 65, u90: 2 },
    record: { tauS: 900, delayS: 60 },
  }
  test('without a record the practice minimum of 20 min; a large part asks for more', () => {
    expect(soakPlan({ ...ask, record: null })).toMatchObject({ basis: 'practice', minutes: PRACTICE_SOAK_MIN })
    expect(soakPlan({ ...ask, record: null, part: 'large or flat' }).minutes).toBeGreaterThan(PRACTICE_SOAK_MIN)
  })
  test('with one: from the curve; less when it is warm already', () => {
    const cold = soakPlan(ask),
      warm = soakPlan({ ...ask, nowC: 50 })
    expect(cold.minutes).toBeCloseTo((60 + 900 * Math.log(42 / 7)) / 60, 6)
    expect(warm.minutes).toBeLessThan(cold.minutes)
  })
  test('the larger of model and practice: warm air is not yet a warm part', () => {
    for (const nowC of [50, 58, 64])
      expect(soakPlan({ ...ask, nowC })).toMatchObject({ basis: 'practice', minutes: PRACTICE_SOAK_MIN })
    expect(soakPlan({ ...ask, nowC: 64, part: 'large or flat' }).minutes).toBe(PRACTICE_SOAK_MIN + 15)
  })
  test('a chamber that is warm and cools down past its target does not hold it', () => {
    // warm from the job before, and settling at 39: it held 60 °C "already"
    expect(timeToHold({ startC: 62, finalC: 39, tauS: 900, delayS: 0 }, 60)).toBe(Infinity)
    expect(timeToHold({ startC: 62, finalC: 65, tauS: 900, delayS: 0 }, 60)).toBe(0)
    expect(soakPlan({ ...ask, nowC: 62, settles: { settlesC: 39, u90: 2 } }).minutes).toBe(Infinity)
  })
  test('never reached is said with or without a record; what is not sure is neither', () => {
    expect(soakPlan({ ...ask, targetC: 75 })).toMatchObject({ minutes: Infinity, reaches: 'short' })
    expect(soakPlan({ ...ask, targetC: 75, record: null })).toMatchObject({ minutes: Infinity, reaches: 'short' })
    const just = soakPlan({ ...ask, targetC: 67 })
    expect(just.reaches).toBe('just')
    expect(just.minutes).toBeLessThan(Infinity)
    expect(soakPlan({ ...ask, targetC: null })).toMatchObject({ basis: 'practice', reaches: null })
  })
  test('numbers that are none are refused', () => {
    expect(() => soakPlan({ ...ask, nowC: NaN })).toThrow(/nowC/)
    expect(() => soakPlan({ ...ask, record: { tauS: 0, delayS: 0 } })).toThrow(/tauS/)
  })
})

describe("a probe's table", () => {
  const lines = (text: string, sep = ',') => text.split('\n').map(l => l.split(sep))
  test('seconds, minutes, clock times; comma or point', () => {
    expect(readTable(lines('time s,temperature C\n10,23\n40,24.5')).readings).toEqual([
      { s: 0, c: 23 },
      { s: 30, c: 24.5 },
    ])
    expect(readTable(lines('minutes;chamber\n0;23,5\n1,5;30,25', ';')).readings).toEqual([
      { s: 0, c: 23.5 },
      { s: 90, c: 30.25 },
    ])
    expect(readTable(lines('time,air\n0:01:00,23\n0:02:30,25')).readings[1]).toEqual({ s: 90, c: 25 })
    // half an hour or half a minute: it is asked, unless the heading says
    const clock = lines('time,air\n0:30,23\n1:00,25')
    expect(readTable(clock)).toMatchObject({ asksClock: true, readings: [], problems: [] })
    expect(readTable(clock, 'mm:ss').readings[1]).toEqual({ s: 30, c: 25 })
    expect(readTable(clock, 'h:mm').readings[1]).toEqual({ s: 1800, c: 25 })
    expect(readTable(lines('time mm:ss,air\n0:30,23\n1:00,25')).readings[1]!.s).toBe(30)
    expect(readTable(lines('date,temp\n2026-11-24T09:00:00,23\n2026-11-24 09:01:00,25')).readings[1]!.s).toBe(60)
  })
  test('wrong columns and decimal commas in a file of commas are named by line', () => {
    expect(readTable(lines('speed,power\n1,2')).problems.map(p => p.line)).toEqual([1, 1])
    const r = readTable(lines('time s,temperature C\n0,23\n30,24,5\nsoon,25\n60,warm\n20,26\n90,999'))
    expect(r.problems.map(p => [p.line, p.message.split(' ').slice(0, 3).join(' ')])).toEqual([
      [3, '3 cells where'],
      [4, '"soon" is not'],
      [5, '"warm" is not'],
      [7, '999 °C is'],
    ])
    expect(readTable(lines('time s,temperature C\n30,23\n20,26')).problems[0]!.message).toMatch(/not after/)
    expect(readTable([]).problems).not.toEqual([])
    expect(readTable(lines('time s,temperature C')).problems[0]!.message).toMatch(/No line/)
  })
})

describe('anneal', () => {
  const oven = { name: 'oven', ceilingC: 140, timeOutH: 8 }
  const aim = { atC: 100, holdH: 6, rampCPerH: 40, thicknessMm: 10, sandMm: null }
  test('ramp, soak-through, hold and slow cooling add up; the time-out is counted', () => {
    const p = annealPlan(aim, oven, 20)
    expect(p.phases.map(x => x.name)).toEqual(['heat up', 'soak through', 'hold', 'cool down'])
    expect(p.phases[0]!.hours).toBe(2)
    expect(p.totalH).toBeCloseTo(2 + 2 + 6 + soakThroughH(10), 9)
    expect(p.restarts).toBe(1)
  })
  test('an oven too cool says how short it is', () =>
    expect(annealPlan({ ...aim, atC: 200, holdH: 2, rampCPerH: 10 }, oven, 20)).toMatchObject({ atC: 140, shortC: 60 }))
  test('the middle of a plate heated from both sides: first term (Incropera & DeWitt 5.5), 2 % missing', () => {
    const fourier = (soakThroughH(20) * 3600 * 1.2e-7) / 0.01 ** 2
    expect((4 / Math.PI) * Math.exp((-(Math.PI ** 2) / 4) * fourier)).toBeCloseTo(0.02, 9)
    expect(soakThroughH(40) / soakThroughH(20)).toBeCloseTo(4, 9)
  })
  test('where it stands after some hours', () => {
    const p = annealPlan(aim, oven, 20)
    expect(annealNow(p, 1)).toMatchObject({ phase: { name: 'heat up' }, setC: 60 })
    expect(annealNow(p, 5).phase!.name).toBe('hold')
    expect(annealNow(p, 99)).toMatchObject({ phase: null, leftH: 0 })
  })
  test('amorphous parts relax and keep their shape below the glass transition only; sand holds a little more', () => {
    const pc = { glassC: 147, meltC: null }
    const pa = { glassC: 50, meltC: 220 }
    expect([pc, pa, { glassC: null, meltC: null }].map(annealDoes)).toEqual(['relaxes', 'crystallises', 'not known'])
    expect(hottestAnneal(pc, false)).toBe(142)
    expect(annealRefusal('PC', 142, pc, false)).toBeNull()
    expect(annealRefusal('PC', 150, pc, false)).toMatch(/amorphous and softens at 147 °C.*pack it in sand/)
    expect(annealRefusal('PC', 150, pc, true)).toBeNull()
    expect(annealRefusal('PC', 180, pc, true)).toMatch(/not even sand/)
    expect(annealRefusal('PA6', 205, pa, true)).toBe('PA6 melts at 220 °C: 205 °C would slump it') // sand or not
    expect(annealRefusal('X', 300, { glassC: null, meltC: null }, false)).toBeNull()
    expect(usuallyInSand('liquid-crystal polyester')).toBe(true) // common practice, no source
    expect(usuallyInSand('PEEK')).toBe(false)
  })
  test('both schools of a window; one when they agree', () => {
    const a = { lowC: 80, highC: 120, lowH: 4, highH: 6 }
    expect(annealSchools(a)).toEqual([
      { name: 'gentle', atC: 80, holdH: 6 },
      { name: 'hot', atC: 120, holdH: 4 },
    ])
    expect(annealSchools({ ...a, highC: 80 })).toHaveLength(1)
  })
  test('nonsense is refused by name', () => {
    expect(() => soakThroughH(0)).toThrow(/thicknessMm/)
    expect(() => soakThroughH(10, 1)).toThrow(/sandMm/)
    expect(() => annealPlan({ ...aim, rampCPerH: 0 }, oven, 20)).toThrow(/rampCPerH/)
    expect(() => annealPlan(aim, { ...oven, ceilingC: 10 }, 20)).toThrow(/oven/)
  })
})

test('the first layer as the file shows it: lowest height, mean speed; a priming line higher up is not it', () => {
  const scan = new Scan({})
  scan.push(
    new TextEncoder().encode(
      [
        'G90',
        'M83',
        'G1 Z0.6 F600',
        'G1 X0 Y0 F6000',
        'G1 X50 E2 F1500',
        'G1 Z0.3 F600',
        'G1 X100 E2 F900',
        'G1 X50 E2 F1800',
        'G1 Z0.6 F600',
        'G1 X0 E2 F6000',
        '',
      ].join('\n'),
    ),
  )
  expect(scan.finish().firstLayer).toEqual({ heightMm: 0.3, meanMmS: 20 })
})
