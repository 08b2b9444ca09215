/* eslint-disable max-lines -- the rules of the limits, one after the other */
/** Requirements one by one, verdicts, changes and words. Stacks are the starting ones, adapted. */
import { describe, expect, test } from 'vitest'
import {
  after,
  bestClass,
  blockersOf,
  ceilings,
  checkStack,
  classify,
  compile,
  consequencesOf,
  demandOfJob,
  findChanges,
  inOrder,
  isKind,
  judge,
  kindOf,
  KINDS,
  NO_OFFERS,
  partOf,
  sentenceOf,
  setProblems,
  stackOf,
  stackProblems,
  startWindow,
  START_RULES,
  START_WINDOWS,
  STARTING_STACKS,
  VALUES,
  ADHESIVES,
  onSheet,
  readSurface,
  SHEETS,
  surfaceText,
  wordsOf,
  type Line,
  type LineKey,
  type Printer,
} from '#core/limits'
import { InputError } from '#core/numeric'
import { asks, asksAll, nozzle, printer } from './limits-support'

const R = START_RULES
const lines = (p: Printer, d: Parameters<typeof checkStack>[1]) => checkStack(stackOf(p, 0), d, R).lines
const of = (all: readonly Line[], key: LineKey) => all.filter(l => l.key === key)
const short = (all: readonly Line[]) =>
  all.filter(l => l.status === 'short').map(l => `${l.key}: ${l.part?.name ?? l.code}`)
const unknown = (all: readonly Line[]) => all.flatMap(l => (l.status === 'unknown' ? [l.missing] : []))
const cls = (p: Printer, d: Parameters<typeof checkStack>[1]) => classify(compile(p, 0, NO_OFFERS, R), d)
const ENCLOSURE = 'bed-heated enclosure'
/** Parts with room to spare where nylon at a bed of 100 makes it warm. */
const SOUND = {
  'magnets, ordinary grade': 'magnets, 180 grade',
  'printed parts, PETG': 'printed parts, PC',
  'linear bearings, plastic end caps': 'bearings, metal shields',
  'fans': 'high-temperature fans',
  'motors': 'high-temperature motors',
  'belts': 'high-temperature belts',
  'acrylic glazing': 'glass glazing',
  'PTFE feed tube': 'PEEK feed tube',
  'camera': null,
  'ventilated room': 'particle and carbon filter',
}
/** Nylon in an enclosure, and nylon that needs it warm. */
const NYLON_SETS = startWindow('PA6', 'carbon fibre')!.sets.map(x => x.name)
const ENCLOSED = NYLON_SETS.indexOf('enclosed')
const WARM = NYLON_SETS.indexOf('warm chamber')

describe('the hotend', () => {
  test('a sensor rated 300 stops at 290; the guard band comes off everywhere in the zone', () => {
    const t = of(lines(printer(ENCLOSURE), asks('PPS')), 'nozzle temperature')
    expect(t.find(l => l.part!.role === 'sensor')).toMatchObject({ status: 'short', asked: 325, allowed: 290 })
    expect(t.find(l => l.part!.role === 'block')).toMatchObject({ status: 'ok', allowed: 340 })
    expect(t.find(l => l.part!.role === 'nozzle')).toMatchObject({ status: 'ok', allowed: 490 })
  })
  test("the conductivity offset is added to a window, never to a file's setpoint", () => {
    const p = printer(ENCLOSURE)
    expect(of(lines(p, asks('PC')), 'nozzle temperature')[0]!.asked).toBe(290)
    expect(of(lines(printer(ENCLOSURE, nozzle('tungsten carbide')), asks('PC')), 'nozzle temperature')[0]!.asked).toBe(
      280,
    )
    expect(
      of(lines(p, demandOfJob('x.gcode', { nozzleC: 285, bedC: 100, chamberC: null }, null)), 'nozzle temperature')[0]!
        .asked,
    ).toBe(285)
  })
  test('a liner stops nylon; a coarse reading is only worth a look', () => {
    expect(short(lines(printer('open frame'), asks('PA6', 'carbon fibre')))).toContain(
      'nozzle temperature: PTFE liner to the nozzle',
    )
    const coarse = of(
      lines(
        printer(ENCLOSURE, undefined, { 'bead thermistor, 12-bit reading': 'bead thermistor, 10-bit reading' }),
        asks('PC'),
      ),
      'reading',
    )
    expect(coarse[0]).toMatchObject({ status: 'look', unit: '°C per count' })
    expect(of(lines(printer(ENCLOSURE), asks('PC')), 'reading')[0]!.status).toBe('ok')
  })
  test('hardness, insert, bore and gears', () => {
    expect(short(lines(printer(ENCLOSURE, nozzle('brass')), asks('PA6', 'glass fibre')))).toContain(
      'nozzle: N-900, brass 0.6',
    )
    expect(short(lines(printer(ENCLOSURE, nozzle('brass')), asks('PLA')))).toEqual([])
    expect(
      of(
        lines(printer(ENCLOSURE, nozzle('tungsten carbide', 0.6, { insert: true })), asks('PA6', 'carbon fibre')),
        'nozzle insert',
      )[0]!.status,
    ).toBe('look')
    expect(
      of(lines(printer(ENCLOSURE, nozzle('hardened steel', 0.4)), asks('PA6', 'carbon fibre')), 'bore')[0],
    ).toMatchObject({ status: 'look', code: 'possible' })
    expect(
      of(lines(printer(ENCLOSURE, nozzle('hardened steel', 0.25)), asks('PA6', 'carbon fibre')), 'bore')[0]!.status,
    ).toBe('short')
    expect(
      short(
        lines(printer('open frame', undefined, { 'no ventilation': 'ventilated room' }), asks('PLA', 'carbon fibre')),
      ),
    ).toEqual(['gears: plain steel gears'])
    expect(of(lines(printer('open frame'), asks('PLA')), 'gears')).toEqual([])
  })
})

describe('path, bed, chamber, dryer, ventilation', () => {
  test('a bend too tight for its strain at break, with the curl and the safety factor', () => {
    const p = printer(ENCLOSURE, undefined, {}, { 'PTFE feed tube': { details: { bendMm: 60 } } })
    expect(of(lines(p, asks('PPA', 'carbon fibre')), 'bend')[0]).toMatchObject({ status: 'short', allowed: 60 })
    expect(of(lines(p, asks('PPA', 'carbon fibre')), 'bend')[0]!.asked).toBeCloseTo(80.77, 1)
    expect(of(lines(p, asks('PA6', 'carbon fibre')), 'bend')[0]!.status).toBe('ok')
    const withCurl = printer(
      ENCLOSURE,
      undefined,
      {},
      { 'PTFE feed tube': { details: { bendMm: 60, bendWay: 'with' } } },
    )
    expect(of(lines(withCurl, asks('PPA', 'carbon fibre')), 'bend')[0]!.status).toBe('ok')
  })
  test('polycarbonate by its two schools', () => {
    const p = printer(ENCLOSURE, undefined, {
      'printed parts, PETG': 'printed parts, PC',
      'sheet glue line': 'high-temperature glue line',
      'magnets, ordinary grade': 'magnets, 180 grade',
      'filament dryer, 70': 'filament dryer, 90',
    })
    expect(short(lines(p, asks('PC', 'none', 0))).filter(s => s.startsWith('bed'))).toEqual([])
    expect(short(lines(p, asks('PC', 'none', 1))).filter(s => s.startsWith('bed'))).toEqual(['bed: strong bed heater'])
  })
  test('a part is judged by the air of its own place: near bed and head it is the hotter', () => {
    const parts = of(lines(printer(ENCLOSURE), asks('PA6', 'carbon fibre', ENCLOSED)), 'chamber part')
    const at = (role: string) => parts.find(l => l.part!.role === role)!
    expect(at('printed parts').asked).toBeCloseTo(23 + 0.62 * 77, 9)
    expect(at('motors').asked).toBeCloseTo(23 + 0.52 * 77, 9)
    expect(at('electronics').asked).toBeCloseTo(23 + 0.2 * 77, 9)
    expect(at('printed parts')).toMatchObject({ status: 'just', allowed: 65, rests: 'practice' })
  })
  test('a passive chamber asks for a hotter bed, by its coolest place; with the lid off it does not get there', () => {
    const needs = asks('PA6', 'carbon fibre', WARM, { chamberMinC: 60 })
    const v = judge(compile(printer(ENCLOSURE), 0, NO_OFFERS, R), needs)
    expect(v).toMatchObject({ bedForChamber: true })
    expect(v.bedC).toBeCloseTo(23 + 37 / 0.52, 9)
    expect(of(lines(printer(ENCLOSURE, undefined, { lid: null }), needs), 'chamber')[0]).toMatchObject({
      status: 'short',
      code: 'lid off',
    })
  })
  test('an active chamber is set by its offset and ends at what its heater reaches', () => {
    const hot = printer('hot machine')
    expect(judge(compile(hot, 0, NO_OFFERS, R), asks('PEEK')).heaterC).toBe(94)
    expect(
      short(
        lines(printer('hot machine', undefined, {}, { 'chamber heater': { details: { reachC: 90 } } }), asks('PEEK')),
      ),
    ).toEqual(['chamber: chamber heater'])
    expect(short(lines(printer('hot machine', undefined, { lid: null }), asks('PEEK')))).toContain(
      'chamber: heated enclosure',
    )
  })
  test('a filament that hates heat asks for the lid off', () => {
    const p = printer(ENCLOSURE, undefined, {}, { enclosure: { details: { thetaLow: 0.9, thetaHigh: 0.8 } } })
    expect(short(lines(p, asks('PLA')))).toEqual(['chamber: enclosure'])
    expect(findChanges(compile(p, 0, NO_OFFERS, R), [asks('PLA')])!.swaps.map(x => x.text)).toEqual([
      'Take the lid off',
    ])
  })
  test('a surface is read however it is spaced, and holds on its own sheet alone', () => {
    expect(readSurface(' GLASS+glue Stick ')).toEqual({ sheet: 'glass', adhesive: 'glue stick' })
    for (const text of ['', 'grey mat', 'glass +', 'glass + grease', '+ glue stick', 'PEI + glue stick + adhesive'])
      expect(readSurface(text), text).toBeNull()
    for (const sheet of SHEETS)
      for (const adhesive of [null, ...ADHESIVES])
        expect(readSurface(surfaceText({ sheet, adhesive }))).toEqual({ sheet, adhesive })
    const surfaces = ['PEI + glue stick', 'glass', 'grey mat']
    expect(onSheet(surfaces, 'pei')).toEqual([{ sheet: 'PEI', adhesive: 'glue stick' }])
    expect(onSheet(surfaces, 'grey mat')).toEqual([])
    // every surface that the app itself starts from is one of the list
    for (const w of START_WINDOWS)
      for (const set of w.sets) expect(set.surfaces.filter(x => readSurface(x) === null)).toEqual([])
  })
  test('surface, dryer, ventilation', () => {
    const p = printer('open frame')
    expect(short(lines(p, asks('PETG')))).toEqual(['dryer: filament dryer', 'ventilation: no ventilation'])
    expect(
      short(lines(printer(ENCLOSURE, undefined, { 'PEI sheet': 'polycarbonate sheet' }), asks('PA6', 'carbon fibre'))),
    ).toContain('surface: polycarbonate sheet')
    expect(
      short(lines(printer(ENCLOSURE, undefined, { 'filament dryer, 70': null }), asks('PA6', 'carbon fibre'))),
    ).toContain('dryer: none')
  })
})

describe('cannot tell', () => {
  const nylon = asks('PA6', 'carbon fibre', ENCLOSED)
  test.each([
    ['bead thermistor, 12-bit reading', 'the sensor'],
    ['aluminium block', 'the block'],
    ['all-metal heat break', 'the heat break'],
    ['firmware ceiling', 'the firmware'],
    ['strong bed heater', 'the bed heater'],
    ['hardened gears', 'whether the drive gears are hardened'],
    ['PTFE feed tube', 'the feed tube and its tightest bend'],
    ['PEI sheet', 'the build surface'],
  ])('without %s', (kind, missing) => {
    const p = printer(ENCLOSURE, undefined, { ...SOUND, [kind]: null })
    expect(unknown(lines(p, nylon))).toContain(missing)
    expect(cls(p, nylon)).toBe('cannot tell')
  })
  test('a known no beats it: the missing fact is named below', () => {
    const p = printer(
      'open frame',
      nozzle('brass', 0.4),
      { 'silicone sock': null },
      { 'aluminium block': { limitC: null } },
    )
    const c = compile(p, 0, NO_OFFERS, R)
    expect(classify(c, asks('PA6', 'carbon fibre'))).toBe('changes')
    expect(sentenceOf(judge(c, asks('PA6', 'carbon fibre')), 'P', c.stack.nozzle)).toMatch(
      /^PA6 does not run on P as it is: the limit of the PTFE liner.* Not known besides: what the aluminium block stands\.$/,
    )
  })
  test('a part whose limit is not entered, an enclosure with nothing in it', () => {
    expect(unknown(lines(printer(ENCLOSURE, undefined, {}, { belts: { limitC: null } }), nylon))).toEqual([
      'what the belts stand',
    ])
    const bare = {
      ...printer(ENCLOSURE),
      parts: printer(ENCLOSURE).parts.filter(
        p =>
          p.role !== 'printed parts' &&
          !['belts', 'motors', 'fans', 'bearings', 'glazing', 'camera', 'electronics'].includes(p.role),
      ),
    }
    expect(unknown(lines(bare, nylon))).toContain('the parts that sit in the heat')
  })
  test('a material without a window, a file without setpoints', () => {
    const p = printer(ENCLOSURE)
    expect(unknown(lines(p, { ...nylon, nozzleMinC: null, bedMinC: null }))).toEqual(
      expect.arrayContaining(['the nozzle window of this filament', 'the bed window of this filament']),
    )
    expect(cls(p, { ...asks('PLA'), nozzleMinC: null })).toBe('cannot tell')
    expect(unknown(lines(p, demandOfJob('x', { nozzleC: null, bedC: 60, chamberC: null }, null)))).toEqual([
      'a nozzle setpoint in the file',
    ])
    expect(
      unknown(
        lines(p, {
          ...nylon,
          strainAtBreak: null,
          boreMinMm: null,
          filler: 'carbon fibre',
          ventilation: null,
          surfaces: null,
          dryMinC: null,
        }),
      ),
    ).toHaveLength(5)
  })
  test("a printer without heads' nozzle is short, not unknown", () => {
    expect(short(lines(printer(ENCLOSURE, null), nylon))).toContain('nozzle: none fitted')
    expect(bestClass([], [nylon]).class).toBe('cannot tell')
  })
})

describe('changes', () => {
  const lined = () =>
    printer('open frame', nozzle('brass', 0.4), {
      'no ventilation': 'particle and carbon filter',
      'filament dryer, 55': 'filament dryer, 70',
    })
  test('nylon on a lined open frame: heat break, nozzle, gears; from the shelf when they are there', () => {
    const bought = findChanges(compile(lined(), 0, NO_OFFERS, R), [asks('PA6', 'carbon fibre')])!
    expect(bought.swaps.map(s => s.role).sort()).toEqual(['gears', 'heat break', 'nozzle'])
    expect(bought.price).toBe(20 + 40 + 30)
    const shelf = {
      shelf: [partOf('all-metal heat break', 77), partOf('hardened gears', 78)],
      nozzles: [nozzle('hardened steel', 0.6, { id: 5, tag: 'N-005', headId: null })],
      prices: {},
    }
    const found = findChanges(compile(lined(), 0, shelf, R), [asks('PA6', 'carbon fibre')])!
    expect(found).toMatchObject({ price: 0, minutes: 125, unknown: false })
    expect(found.swaps.every(s => s.fromShelf)).toBe(true)
    expect(found.swaps.map(s => s.text)).toContain('Fit an all-metal heat break and take the liner out (on the shelf)')
    const p2 = after(lined(), 0, found.swaps)
    expect(p2.parts.some(p => p.role === 'liner')).toBe(false)
    expect(cls(p2, asks('PA6', 'carbon fibre'))).toBe('runs')
  })
  test("mains heaters are an electrician's work", () => {
    const p = printer(ENCLOSURE, undefined, {
      'sheet glue line': 'high-temperature glue line',
      'magnets, ordinary grade': 'magnets, 180 grade',
    })
    const found = findChanges(compile(p, 0, NO_OFFERS, R), [
      demandOfJob('x', { nozzleC: 250, bedC: 150, chamberC: null }, null),
    ])!
    expect(found.swaps.filter(s => s.who === 'electrician').map(s => s.role)).toEqual(
      expect.arrayContaining(['bed heater', 'bed wiring']),
    )
  })
  test('a freed tube takes the lid with it, and that costs chamber heat', () => {
    const p = printer(
      ENCLOSURE,
      undefined,
      { ...SOUND, 'PTFE feed tube': 'PTFE feed tube' },
      { 'PTFE feed tube': { details: { bendMm: 30, freedBendMm: 120, freedNeedsLidOff: true } } },
    )
    const open = findChanges(compile(p, 0, NO_OFFERS, R), [asks('PA6', 'carbon fibre', 0)])!
    expect(open.swaps.map(s => s.text).sort()).toEqual([
      'Free the feed tube from its chain (bend 120 mm)',
      'Take the lid off',
    ])
    const broken = consequencesOf(
      p,
      0,
      open.swaps,
      asks('PA6', 'carbon fibre', 0),
      [{ name: 'warm nylon', demands: [asks('PA6', 'carbon fibre', WARM, { strainAtBreak: 0.1 })] }],
      R,
    )
    expect(broken.airLow[1]!).toBeLessThan(broken.airLow[0]!)
    expect(broken.worse).toEqual([{ name: 'warm nylon', was: 'runs', is: 'changes' }])
    // where the chamber is needed, another tube is cheaper than heat that is not there
    const warm = findChanges(compile(p, 0, NO_OFFERS, R), [asks('PA6', 'carbon fibre', WARM)])!
    expect(warm.swaps.map(s => s.role)).toEqual(['feed tube'])
  })
  test('a practice that needs an enclosure needs its lid on', () => {
    const open = printer(ENCLOSURE, undefined, { ...SOUND, lid: null })
    expect(short(lines(open, asks('PA6', 'carbon fibre', ENCLOSED)))).toContain('enclosure: enclosure')
    expect(short(lines(open, asks('PA6', 'carbon fibre', 0)))).toEqual([])
    expect(
      findChanges(compile(open, 0, NO_OFFERS, R), [asks('PA6', 'carbon fibre', ENCLOSED)])!.swaps.map(x => x.text),
    ).toContain('Put the lid on')
  })
  test('several filaments at once share their swaps', () => {
    const c = compile(lined(), 0, NO_OFFERS, R)
    const one = findChanges(c, [asks('PA6', 'carbon fibre')])!,
      both = findChanges(c, [asks('PA6', 'carbon fibre'), asks('PA12', 'carbon fibre')])!
    expect(both.cost).toBe(one.cost)
  })
  test('what no swap cures is named', () => {
    const c = compile(lined(), 0, NO_OFFERS, R)
    expect(classify(c, asks('PEEK'))).toBe('cannot')
    expect(findChanges(c, [asks('PEEK')])).toBeNull()
    const why = blockersOf(c, asks('PEEK'))
    expect(why.map(l => l.key)).toContain('chamber')
    expect(sentenceOf(judge(c, asks('PEEK')), 'P', c.stack.nozzle, why)).toMatch(
      /^PEEK cannot run on P: it needs 90 °C in the chamber, which holds/,
    )
    expect(blockersOf(c, asks('PLA'))).toEqual([])
  })
  test('riser, vent, lining and a chamber heater are tried; none counts that is more likely short than not', () => {
    const box = printer(ENCLOSURE, undefined, SOUND, {
      enclosure: { details: { thetaLow: 0.4, thetaHigh: 0.3, thetaU: 0.01 } },
    })
    const say = (d: Parameters<typeof checkStack>[1]) =>
      findChanges(compile(box, 0, NO_OFFERS, R), [d])?.swaps.map(x => x.text) ?? null
    const warm = (chamberMinC: number) =>
      asks('PA6', 'carbon fibre', WARM, { chamberMinC, chamberMaxC: 99, bedMaxC: 110 })
    expect(say(warm(52))).toEqual(['Line the enclosure'])
    expect(say(warm(70))!.some(t => t === 'Fit a chamber heater kit')).toBe(true)
    expect(say(warm(76))).toBeNull() // by lining 68, by a heater kit 71
    const shut = printer(ENCLOSURE, undefined, SOUND)
    const cool = asks('PA6', 'carbon fibre', 0, { bedMinC: 100, chamberMaxC: 58 })
    const opened = findChanges(compile(shut, 0, NO_OFFERS, R), [cool])!
    expect(opened.swaps.map(x => x.role)).toEqual(['lid'])
  })
  test('what the maker gives as the ceiling is not raised; a setting is', () => {
    const hot = asks('PC', 'none', 0, { nozzleMinC: 320, enclosed: false, chamber: 'indifferent', bedMinC: 90 })
    const at = (basis: 'nameplate' | 'start value') =>
      classify(compile(printer('open frame', undefined, {}, { 'firmware ceiling': { basis } }), 0, NO_OFFERS, R), hot)
    expect(at('start value')).toBe('changes')
    expect(at('nameplate')).toBe('cannot')
  })
  test('of equal cost the plan with fewer looks: a solid nozzle before an insert', () => {
    const spare = (id: number, insert: boolean) =>
      nozzle('tungsten carbide', 0.6, { id, tag: `N-${id}`, insert, headId: null })
    for (const nozzles of [
      [spare(1, true), spare(2, false)],
      [spare(2, false), spare(1, true)],
    ]) {
      const c = compile(lined(), 0, { shelf: [], nozzles, prices: {} }, R)
      expect(findChanges(c, [asks('PA6', 'carbon fibre')])!.swaps.map(x => x.text)).toContain(
        'Fit a tungsten carbide 0.6 nozzle (N-2, on the shelf)',
      )
    }
  })
  test('a price that nobody entered is told from one that was', () => {
    const c = (prices: Record<string, { price: number; minutes: number }>) =>
      findChanges(compile(lined(), 0, { ...NO_OFFERS, prices }, R), [asks('PA6', 'carbon fibre')])!
    expect(c({}).priced).toBe(false)
    const all = ['nozzle hardened steel', 'all-metal heat break', 'hardened gears']
    expect(c(Object.fromEntries(all.map(k => [k, { price: 10, minutes: 10 }]))).priced).toBe(true)
  })
  test('prices of the shop count', () => {
    const c = compile(lined(), 0, { ...NO_OFFERS, prices: { 'nozzle hardened steel': { price: 500, minutes: 20 } } }, R)
    expect(findChanges(c, [asks('PA6', 'carbon fibre')])!.price).toBe(80 + 40 + 30)
  })
})

describe('ceilings of the zones', () => {
  test('an enclosure: air near the top; a heated one: a setpoint; an open frame has none', () => {
    const at = (p: Printer) => ceilings(p, R).map(c => [c.zone, Math.round(c.limitC), c.part.role])
    const zone = (p: Printer, z: string) => at(p).filter(c => c[0] === z)
    expect(zone(printer(ENCLOSURE), 'hotend')).toEqual([['hotend', 290, 'sensor']])
    expect(zone(printer(ENCLOSURE), 'chamber')[0]).toEqual(['chamber', 55, 'camera'])
    // the bed by its own parts, and by what stands in the air that it makes
    expect(zone(printer(ENCLOSURE, undefined, SOUND), 'bed')).toEqual([['bed', 120, 'bed heater']])
    const petg = printer(ENCLOSURE, undefined, { ...SOUND, 'printed parts, PETG': 'printed parts, PETG' })
    expect(zone(petg, 'bed')[0]).toEqual(['bed', 91, 'printed parts'])
    expect(zone(petg, 'chamber')[0]).toEqual(['chamber', 58, 'printed parts'])
    expect(zone(printer('hot machine'), 'chamber')[0]).toEqual(['chamber', 95, 'chamber heater'])
    expect(at(printer('open frame')).map(c => c[0])).toEqual(['hotend', 'bed'])
  })
})

describe('words', () => {
  test('every line of every starting window on every starting stack says what it is, in numbers with units', () => {
    for (const s of STARTING_STACKS)
      for (const w of START_WINDOWS)
        for (const d of asksAll(w.polymer, w.filled ? 'carbon fibre' : 'none')) {
          const p = printer(s.key, nozzle('brass', 0.4))
          for (const l of inOrder(lines(p, d))) {
            const words = wordsOf(l, d, p.heads[0]!.nozzle)
            expect(words.what).not.toBe('')
            if (l.status === 'short') expect(`${words.says}${words.asked}`).not.toBe('')
            if (l.unit === '°C' && l.asked !== null) expect(words.asked).toMatch(/\d °C( at the head)?$/)
            expect(JSON.stringify(words)).not.toMatch(/NaN|undefined|null|Infinity/)
          }
          const v = judge(compile(p, 0, NO_OFFERS, R), d)
          expect(
            sentenceOf(
              v,
              'P',
              p.heads[0]!.nozzle,
              v.class === 'cannot' ? blockersOf(compile(p, 0, NO_OFFERS, R), d) : [],
            ),
          ).toMatch(/^(Cannot tell whether )?\w.* (runs|does not run|cannot run) on P/)
        }
  })
  test('runs with its tightest part; does not run with its reasons; cannot tell with the fact', () => {
    const p = printer(ENCLOSURE, undefined, SOUND)
    const say = (x: Printer, d: Parameters<typeof checkStack>[1]) => {
      const c = compile(x, 0, NO_OFFERS, R)
      return sentenceOf(judge(c, d), 'Ribble', c.stack.nozzle)
    }
    expect(say(p, asks('PA6', 'carbon fibre', ENCLOSED))).toBe(
      'PA6 runs on Ribble. Tightest is the electronics: asks 38.4 °C, allows 55 °C, 16.6 °C left.',
    )
    expect(say(p, asks('PC', 'none', 0, { dryMinC: 60, nozzleMinC: 280 }))).toBe(
      'PC runs on Ribble. Tightest is the bead thermistor, 12-bit reading: asks 290 °C, allows 290 °C, the guard ' +
        'band is used up.',
    )
    const petg = printer(ENCLOSURE, undefined, { ...SOUND, 'printed parts, PETG': 'printed parts, PETG' })
    expect(say(petg, asks('PA6', 'carbon fibre', ENCLOSED))).toBe(
      'PA6 runs on Ribble, just: the limit of the printed parts, PETG is 65 °C, the air there would be 70.7 °C, ' +
        'known to 7.9 °C. Measure the air there to know.',
    )
    expect(say(printer('open frame'), asks('PA6', 'carbon fibre'))).toMatch(
      /^PA6 does not run on Ribble as it is: the limit of the PTFE liner to the nozzle is 240 °C, it needs 270 °C; /,
    )
    expect(say(printer(ENCLOSURE, undefined, { ...SOUND, 'firmware ceiling': null }), asks('PLA'))).toBe(
      'Cannot tell whether PLA runs on Ribble: the firmware is missing.',
    )
  })
})

describe('catalogue, starting stacks, windows', () => {
  test('kinds are named once; every starting stack can be stored', () => {
    expect(new Set(KINDS.map(k => k.key)).size).toBe(KINDS.length)
    for (const s of STARTING_STACKS) expect(stackProblems(s, 23)).toEqual([])
    expect(isKind('flux capacitor')).toBe(false)
    expect(() => kindOf('flux capacitor')).toThrow(InputError)
  })
  test('what is wrong with a stack is said at its field', () => {
    const problems = stackProblems(
      {
        heads: [{ name: 'head' }, { name: 'second' }],
        parts: [
          { kind: 'flux capacitor', head: 0 },
          { kind: 'bead thermistor, 10-bit reading', head: 0, limitC: 12 },
          { kind: 'bed heater', head: 0 },
          { kind: 'aluminium block', head: 3 },
          { kind: 'belts', head: null, limitC: 80, shortC: 70 },
        ],
      },
      23,
    )
    expect(problems.map(p => p.field)).toEqual([
      'parts.0.kind',
      'parts.1.limitC',
      'parts.2.head',
      'parts.3.head',
      'parts.4.shortC',
      'heads.1',
    ])
    expect(problems[5]!.message).toMatch(/second has no temperature sensor/)
  })
  test('starting windows are in order and inside what can be entered', () => {
    for (const w of START_WINDOWS) {
      for (const [k, f] of Object.entries(w.facts)) {
        const r = VALUES[k as keyof typeof VALUES]
        expect(f!.value, `${w.polymer} ${k}`).toBeGreaterThanOrEqual(r.min)
        expect(f!.value).toBeLessThanOrEqual(r.max)
      }
      // a support has the temperatures of its partner
      if (w.polymer.endsWith('support')) {
        expect(w.facts.nozzleMinC).toBeUndefined()
        continue
      }
      const v = (k: keyof typeof VALUES) => w.facts[k]!.value
      expect(v('lowestFlowC')).toBeLessThan(v('nozzleMinC'))
      expect(v('nozzleMinC')).toBeLessThan(v('nozzleMaxC'))
      expect(v('nozzleMaxC')).toBeLessThanOrEqual(v('shortMaxC'))
      for (const s of w.sets) {
        expect(setProblems(s)).toEqual([])
        if (s.dry) expect(s.dryMinC!).toBeLessThanOrEqual(v('dryHighestC'))
      }
    }
    expect(startWindow('pa6', 'glass fibre')!.polymer).toBe('PA6')
    expect(startWindow('unobtainium', 'none')).toBeNull()
  })
  test.each([
    ['bedMaxC', { bedMinC: 100, bedMaxC: 90 }],
    ['chamberMaxC', { chamberMinC: 80, chamberMaxC: 60 }],
    ['dryMaxC', { dryMinC: 90, dryMaxC: 70 }],
    ['dryHoursMax', { dryHoursMin: 9, dryHoursMax: 6 }],
    ['chamberMinC', { chamber: 'needs' as const, chamberMinC: null }],
    ['dryMinC', { dry: true, dryMinC: null }],
  ])('a set that contradicts itself is refused at %s', (field, more) => {
    const s = { ...startWindow('PA6', 'none')!.sets[0]!, ...more }
    expect(setProblems(s).map(p => p.field)).toEqual([field])
  })
})
