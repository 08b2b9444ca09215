/**
 * Start values of parts and windows against facts of the trade: common practice, no source, unless "from memory" stands
 * beside. The design's tables, once more by hand.
 */
import { describe, expect, test } from 'vitest'
import { DRYER_KINDS, dryerRh, filamentOf, heatedRh, START_UPTAKE, takesNoWater, VACUUM_SHARE } from '#core/drying'
import { KINDS, kindOf, partOf, startWindow, STARTING_STACKS, surfaceReason, surfaceText, SHEETS } from '#core/limits'

describe('parts', () => {
  test.each([
    ['epoxy-glass laminate sheet', 135],
    ['high-temperature laminate sheet', 170],
    ['polystyrene foam insulation', 75],
    ['magnets, ordinary grade', 80],
    ['magnets, 150 grade', 150],
    ['linear bearings, plastic end caps', 80],
    ['motors', 75],
    ['printed parts, PETG', 70],
    ['printed parts, PC', 100],
  ])('%s: %d °C', (kind, limitC) => expect(kindOf(kind).limitC).toBe(limitC))
  test('ordinary laminate is no sheet for a bed of 140 to 160; the high-temperature grade is', () => {
    expect(kindOf('epoxy-glass laminate sheet').limitC! - 5).toBeLessThan(140)
    expect(kindOf('high-temperature laminate sheet').limitC! - 5).toBeGreaterThanOrEqual(160)
  })
  test('polystyrene burns, motors go by their case, a starting stack has ordinary magnets', () => {
    expect(kindOf('polystyrene foam insulation').note).toMatch(/burns/)
    expect(kindOf('motors').note).toMatch(/case/)
    for (const s of STARTING_STACKS.filter(x => x.key !== 'hot machine'))
      expect(s.parts.map(p => p.kind)).toEqual(
        expect.arrayContaining(['magnets, ordinary grade', 'linear bearings, plastic end caps']),
      )
  })
  test('a start value says so, never nameplate or data sheet; no name carries the number of its limit', () => {
    for (const k of KINDS) {
      expect(partOf(k.key).basis).toBe('start value')
      for (const n of partOf(k.key).name.match(/\d+/g) ?? []) expect(['10', '12'], k.key).toContain(n) // bits
    }
  })
  test('what the head carries sits near bed and head, what hangs on the frame near the top', () => {
    for (const role of ['printed parts', 'fans', 'bearings'] as const)
      for (const k of KINDS.filter(x => x.role === role)) expect(k.place, k.key).toBe('low')
    for (const role of ['belts', 'motors', 'glazing'] as const)
      for (const k of KINDS.filter(x => x.role === role)) expect(k.place, k.key).toBe('high')
  })
})

describe('windows', () => {
  const value = (polymer: string, filled: boolean, key: 'nozzleMinC' | 'nozzleMaxC') =>
    startWindow(polymer, filled ? 'carbon fibre' : 'none')!.facts[key]?.value
  test.each([
    ['TPU', false, 210, 240, 40, 60],
    ['TPU', true, 210, 240, 40, 60],
    ['PP', false, 220, 250, 80, 100],
    ['PP', true, 220, 250, 80, 100],
    ['PEKK', false, 345, 375, 120, 140],
    ['PEKK', true, 345, 375, 120, 140],
  ] as const)('%s, filled %s: nozzle %d to %d, bed %d to %d °C', (polymer, filled, low, high, bedLow, bedHigh) => {
    const [set] = startWindow(polymer, filled ? 'carbon fibre' : 'none')!.sets
    expect([value(polymer, filled, 'nozzleMinC'), value(polymer, filled, 'nozzleMaxC')]).toEqual([low, high])
    expect([set!.bedMinC, set!.bedMaxC]).toEqual([bedLow, bedHigh])
  })
  test('PEKK needs 80 and is dried 6 h at 120; PP is not dried and holds on polypropylene; TPU 6 h at 55', () => {
    expect(startWindow('PEKK', 'none')!.sets[0]).toMatchObject({ chamber: 'needs', chamberMinC: 80, dryMinC: 120 })
    expect(startWindow('PP', 'none')!.sets[0]).toMatchObject({ dry: false, surfaces: ['polypropylene'] })
    expect(startWindow('TPU', 'none')!.sets[0]).toMatchObject({ dryMinC: 55, dryHoursMin: 6 })
  })
  test('unfilled nylon has facts and schools of its own', () => {
    for (const p of ['PA6', 'PA12']) {
      const [bare, filled] = [startWindow(p, 'none')!, startWindow(p, 'carbon fibre')!]
      expect(bare.facts.strainAtBreak!.value).toBeGreaterThan(10 * filled.facts.strainAtBreak!.value)
      expect(bare.facts.boreGoodMm).toBeUndefined()
      expect(bare.sets.map(s => s.name)).not.toEqual(filled.sets.map(s => s.name))
    }
  })
  test('schools: nylon-CF 6 h at 55 and 12 h at 70; PPA-CF warm, and with the lid off or raised', () => {
    const nylon = startWindow('PA6', 'carbon fibre')!.sets
    expect(nylon.map(s => [s.dryMinC, s.dryHoursMin])).toEqual(
      expect.arrayContaining([
        [55, 6],
        [70, 12],
      ]),
    )
    const ppa = startWindow('PPA', 'carbon fibre')!.sets
    expect(ppa.some(s => s.chamber === 'needs')).toBe(true)
    expect(ppa.some(s => /lid off or raised/.test(s.name) && s.chamber === 'indifferent')).toBe(true)
  })
  test('a support has the temperatures of its partner, named; nothing is made up for it', () => {
    for (const p of ['soluble support', 'break-away support']) {
      const w = startWindow(p, 'none')!
      expect(Object.keys(w.facts)).toEqual([])
      expect(w.sets[0]).toMatchObject({ bedMinC: null, dryMinC: 60, dryMaxC: 80 })
      expect(w.sets[0]!.conditions).toMatch(/Pairs with .*PLA.*nylon/)
    }
  })
})

describe('what is printed on', () => {
  test.each([
    ['PETG', ['PEI + glue stick'], 'PEI', /or it welds to smooth PEI/],
    ['PEI', ['PEI + adhesive'], 'PEI', /or it welds to smooth PEI/],
    ['PA6', ['PEI + glue stick'], 'PEI', /or it comes off/],
    ['PETG', ['glass + glue stick'], 'PEI', /^It welds to smooth PEI/],
    ['PEEK', ['glass + superglue'], 'glass', /irritates eyes and lungs/],
    ['ABS', ['glass + glue stick'], 'glass', /while it is warm/],
  ])('%s on %s, %s', (polymer, surfaces, sheet, says) => expect(surfaceReason(polymer, surfaces, sheet)).toMatch(says))
  test('polycarbonate holds on laminate; a carbon-fibre plate is a sheet, superglue on glass a surface', () => {
    for (const s of startWindow('PC', 'none')!.sets) expect(s.surfaces).toContain('epoxy-glass laminate')
    expect(SHEETS).toContain('carbon fibre plate')
    expect(startWindow('PEEK', 'none')!.sets[0]!.surfaces).toContain(
      surfaceText({ sheet: 'glass', adhesive: 'superglue' }),
    )
  })
})

describe('water (uptake from memory)', () => {
  test('TPU and PEKK are known, PP takes up none, a support is not known', () => {
    expect(START_UPTAKE.tpu!.waterAt50).toBeCloseTo(0.5, 9)
    expect(START_UPTAKE.pekk!.waterAt50).toBeCloseTo(0.1, 9)
    expect(takesNoWater('PP')).toBe(true)
    for (const p of ['PA6', 'TPU', 'soluble support']) expect(takesNoWater(p)).toBe(false)
    expect(filamentOf('soluble support', 0, 1.75)).toBeNull()
  })
  test('a vacuum dryer is a kind of dryer: the water of the room’s air, thinned', () => {
    expect(DRYER_KINDS).toContain('vacuum')
    expect(dryerRh('vacuum', 80, { airC: 23, rh: 50 })).toBeCloseTo(VACUUM_SHARE * heatedRh(23, 50, 80), 12)
    expect(KINDS.map(k => k.key)).toContain('vacuum dryer')
  })
})
