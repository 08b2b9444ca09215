/* eslint-disable max-lines -- a table of sentences */
/** The words of each requirement: what a technician reads when it holds, is short, or cannot be told. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  bestClass,
  checkStack,
  compile,
  demandOfJob,
  inOrder,
  marginOf,
  judge,
  NO_OFFERS,
  reason,
  stackOf,
  startWindow,
  START_RULES,
  wordsOf,
  type Demand,
  type Line,
  type LineKey,
  type Printer,
} from '#core/limits'
import { asks, asksAll, nozzle, printer } from './limits-support'

const ENCLOSURE = 'bed-heated enclosure'
const SETS = startWindow('PA6', 'carbon fibre')!.sets.map(x => x.name)
const ENCLOSED = SETS.indexOf('enclosed')
const WARM = SETS.indexOf('warm chamber')
function words(p: Printer, d: Demand, key: LineKey, role?: string) {
  const l = checkStack(stackOf(p, 0), d, START_RULES).lines.find(
    x => x.key === key && (role === undefined || x.part?.role === role),
  )!
  return { status: l.status, ...wordsOf(l, d, p.heads[0]!.nozzle), reason: reason(l, d, p.heads[0]!.nozzle) }
}

describe('one requirement each', () => {
  test('a nozzle temperature with its conductivity offset', () => {
    expect(words(printer(ENCLOSURE), asks('PPS'), 'nozzle temperature', 'sensor')).toMatchObject({
      status: 'short',
      what: 'Nozzle temperature',
      asked: '325 °C',
      allowed: '290 °C',
      margin: '−35 °C',
      decides: 'bead thermistor, 12-bit reading',
      basis: 'start value: seal, leads and drift stop it, not the bead',
      says: '315 °C and 10 more for hardened steel.',
      reason: 'the limit of the bead thermistor, 12-bit reading is 290 °C, it needs 325 °C',
    })
    expect(words(printer(ENCLOSURE, nozzle('brass')), asks('PLA'), 'nozzle temperature', 'sensor')).toMatchObject({
      status: 'ok',
      margin: '+90 °C',
      says: '',
    })
  })
  test('hardness, an insert, a bore that is possible and one that is too small', () => {
    expect(words(printer(ENCLOSURE, nozzle('brass')), asks('PA6', 'carbon fibre'), 'nozzle')).toMatchObject({
      asked: 'Mohs 7.5',
      allowed: 'Mohs 3',
      says: 'carbon fibre wears this nozzle fast; hardened steel is the floor.',
      reason: 'carbon fibre wears a brass nozzle fast',
    })
    expect(words(printer(ENCLOSURE), asks('PLA'), 'nozzle')).toMatchObject({ status: 'ok', asked: 'nothing' })
    expect(words(printer(ENCLOSURE, null), asks('PLA'), 'nozzle')).toMatchObject({
      status: 'short',
      reason: 'no nozzle is fitted',
    })
    expect(
      words(printer(ENCLOSURE, nozzle('ruby tip', 0.6, { insert: true })), asks('PA6', 'carbon fibre'), 'nozzle insert')
        .says,
    ).toMatch(/can fall out/)
    expect(words(printer(ENCLOSURE, nozzle('hardened steel', 0.4)), asks('PA6', 'carbon fibre'), 'bore')).toMatchObject(
      { status: 'look', asked: '0.6 mm recommended', allowed: '0.4 mm' },
    )
    expect(
      words(printer(ENCLOSURE, nozzle('hardened steel', 0.25)), asks('PA6', 'carbon fibre'), 'bore'),
    ).toMatchObject({
      status: 'short',
      asked: 'at least 0.4 mm',
      reason: 'it needs a bore of 0.4 mm, fitted is 0.25 mm',
    })
  })
  test('a reading, gears, a bend', () => {
    expect(words(printer(ENCLOSURE), asks('PC'), 'reading')).toMatchObject({
      status: 'ok',
      asked: 'at most 2 °C per count',
      allowed: '0.5 °C per count',
    })
    expect(words(printer('open frame'), asks('PLA', 'carbon fibre'), 'gears')).toMatchObject({
      status: 'short',
      asked: 'hardened',
      allowed: 'not hardened',
      reason: 'the drive gears are not hardened',
    })
    const tight = printer(ENCLOSURE, undefined, {}, { 'PTFE feed tube': { details: { bendMm: 60 } } })
    expect(words(tight, asks('PPA', 'carbon fibre'), 'bend')).toMatchObject({
      asked: 'at least 81 mm',
      allowed: '60 mm',
      margin: '−20 mm',
      reason: 'the feed tube bends to 60 mm, it needs at least 81 mm',
    })
    expect(words(tight, { ...asks('PPA', 'carbon fibre'), strainAtBreak: 0.005 }, 'bend')).toMatchObject({
      asked: 'straighter than straight',
      says: 'It is already strained too far by the curl of its spool.',
    })
    expect(words(tight, { ...asks('PPA', 'carbon fibre'), curlMm: null }, 'bend').says).toBe('')
  })
  test('a radius is rounded against the user: asked up, allowed down', () => {
    const p = printer(ENCLOSURE, undefined, {}, { 'PTFE feed tube': { details: { bendMm: 80.9 } } })
    expect(words(p, { ...asks('PPA', 'carbon fibre'), strainAtBreak: 0.0249 }, 'bend')).toMatchObject({
      status: 'short',
      asked: 'at least 82 mm',
      allowed: '80 mm',
    })
  })
  test('surfaces say their adhesive and their hazard', () => {
    expect(words(printer(ENCLOSURE), asks('PA6', 'carbon fibre'), 'surface').says).toBe(
      'With glue stick, or it comes off.',
    )
    expect(
      words(printer(ENCLOSURE, undefined, { 'PEI sheet': 'glass plate' }), asks('PA6', 'carbon fibre'), 'surface').says,
    ).toBe(
      'With glue stick, or it comes off. Glass: remove it while it is warm, hands in gloves; cooling parts pull ' +
        'chips out.',
    )
    expect(
      words(printer(ENCLOSURE, undefined, { 'PEI sheet': 'polycarbonate sheet' }), asks('PC'), 'surface').says,
    ).toBe('With release agent between, or it welds to polycarbonate.')
    expect(
      words(
        printer(ENCLOSURE, undefined, { 'PEI sheet': 'polycarbonate sheet' }),
        asks('PA6', 'carbon fibre'),
        'surface',
      ),
    ).toMatchObject({ status: 'short', reason: 'it does not hold on polycarbonate' })
  })
  test('the chamber in each of its cases', () => {
    expect(words(printer('open frame'), asks('PA6', 'carbon fibre', WARM), 'chamber')).toMatchObject({
      status: 'short',
      decides: 'open frame',
      allowed: 'room air',
      reason: 'it needs 50 °C in the chamber, which holds room air',
    })
    expect(words(printer('open frame'), asks('PA6', 'carbon fibre', ENCLOSED), 'enclosure')).toMatchObject({
      asked: 'an enclosure',
      allowed: 'open frame',
      reason: 'this practice needs an enclosure',
    })
    expect(words(printer('open frame'), asks('ABS'), 'chamber')).toMatchObject({
      status: 'look',
      says: 'It would help: layers bond better, corners lift less.',
    })
    expect(words(printer('hot machine'), asks('ABS'), 'chamber')).toMatchObject({
      status: 'ok',
      says: 'Use the chamber heater: it helps.',
    })
    expect(
      words(printer(ENCLOSURE, undefined, {}, { enclosure: { details: { thetaLow: 0.9 } } }), asks('PLA'), 'chamber'),
    ).toMatchObject({
      status: 'short',
      asked: '47.3 °C at the head',
      allowed: 'at most 40 °C',
      margin: '−7.3 °C',
      reason: 'the air at the head gets 47.3 °C, it takes at most 40 °C',
    })
    expect(words(printer(ENCLOSURE, undefined, { lid: null }), asks('PA6', 'carbon fibre', WARM), 'chamber').says).toBe(
      'With the lid off the chamber does not hold its heat.',
    )
    expect(
      words(printer(ENCLOSURE), demandOfJob('x', { nozzleC: 250, bedC: 90, chamberC: 60 }, null), 'chamber').says,
    ).toMatch(/no heater that follows it/)
    const cool = { enclosure: { details: { thetaLow: 0.4, thetaHigh: 0.3 } } }
    expect(words(printer(ENCLOSURE, undefined, {}, cool), asks('PEEK'), 'chamber')).toMatchObject({
      status: 'short',
      says:
        'That is what the hottest bed this filament takes makes of it. At the coolest place of the build, by the map ' +
        'entered with the enclosure, known to 8.8 °C.',
    })
    const wrongWay = { enclosure: { details: { thetaLow: 0.3, thetaHigh: 0.4 } } }
    const doubts = checkStack(stackOf(printer(ENCLOSURE, undefined, {}, wrongWay), 0), asks('TPU'), START_RULES).lines
    const doubt = doubts.find(l => l.code === 'bed the cooler')!
    expect(wordsOf(doubt, asks('TPU'), null).says).toMatch(/wrong way round/)
    expect(reason(doubt, asks('TPU'), null)).toMatch(/cooler than near the top/)
  })
  test('parts in the heat by their place', () => {
    expect(words(printer(ENCLOSURE), asks('PA6', 'carbon fibre', ENCLOSED), 'chamber part', 'electronics').says).toBe(
      'In the electronics bay, by practice, known to 7.9 °C.',
    )
    expect(words(printer(ENCLOSURE), asks('PA6', 'carbon fibre', ENCLOSED), 'chamber part', 'belts').says).toBe(
      'Near the top, by practice, known to 7.9 °C.',
    )
    expect(words(printer('hot machine'), asks('PEEK'), 'chamber part', 'camera').says).toBe('Outside, by room air.')
    const low = printer(ENCLOSURE, undefined, {}, { belts: { place: 'low', limitC: 40 } })
    expect(words(low, asks('PA6', 'carbon fibre', ENCLOSED), 'chamber part', 'belts')).toMatchObject({
      status: 'short',
      says: 'Near bed and head, by practice, known to 7.9 °C.',
      reason: 'the limit of the belts is 35 °C, the air there would be 70.7 °C',
    })
  })
  test('dryer and ventilation', () => {
    expect(words(printer(ENCLOSURE), asks('PPA', 'carbon fibre'), 'dryer')).toMatchObject({
      asked: '100 °C',
      allowed: '70 °C',
      margin: '−30 °C',
      reason: 'the dryer reaches 70 °C, it is dried at 100 °C',
    })
    expect(
      words(printer(ENCLOSURE, undefined, { 'filament dryer, 70': null }), asks('PPA', 'carbon fibre'), 'dryer'),
    ).toMatchObject({ allowed: 'no dryer', reason: 'there is no dryer' })
    expect(words(printer('open frame'), asks('ABS'), 'ventilation')).toMatchObject({
      asked: 'filtered',
      allowed: 'none',
      reason: 'its fumes need a filter, there is no ventilation',
    })
  })
})

describe('a line that cannot be told', () => {
  test('a filled material without a recommended bore: the check says what is missing, and fails nowhere', () => {
    const p = printer(ENCLOSURE)
    const demand = { ...asks('PA6', 'carbon fibre'), boreMinMm: null, boreGoodMm: null }
    const l = checkStack(stackOf(p, 0), demand, START_RULES).lines.find(x => x.key === 'bore')!
    expect(l.status).toBe('unknown')
    expect(reason(l, demand, p.heads[0]!.nozzle)).toBe('the smallest bore this filler passes is not known')
    expect(wordsOf(l, demand, p.heads[0]!.nozzle)).toMatchObject({
      allowed: 'not known',
      says: 'Cannot tell: the smallest bore this filler passes is missing.',
    })
  })
  const anyNumber = fc.option(fc.double({ min: -50, max: 700, noNaN: true }), { nil: null })
  const KEYS = [
    'nozzle temperature',
    'reading',
    'nozzle',
    'nozzle insert',
    'bore',
    'gears',
    'bend',
    'tube heat',
    'bed',
    'surface',
    'enclosure',
    'chamber',
    'chamber part',
    'dryer',
    'ventilation',
  ] as const
  const CODES = [
    'part',
    'none fitted',
    'soft',
    'hard enough',
    'insert',
    'too small',
    'possible',
    'recommended',
    'curl',
    'with',
    'against',
    'for the chamber',
    'surface',
    'lid off',
    'open frame',
    'would help',
    'heater helps',
    'no heater',
    'too warm',
    'warmer',
    'bed the cooler',
    'bed-heated',
    'heated',
    'none',
    'missing',
    '',
  ]
  const head = {
    key: fc.constantFrom(...KEYS),
    unit: fc.constantFrom('°C', 'mm', '°C per count', ''),
    code: fc.constantFrom(...CODES),
    part: fc.constantFrom(null, ...printer(ENCLOSURE).parts),
  }
  const anyLine = fc.oneof(
    fc.record({
      ...head,
      status: fc.constantFrom('ok', 'just', 'look', 'short'),
      asked: anyNumber,
      allowed: anyNumber,
      u90: fc.double({ min: 0, max: 50, noNaN: true }),
      rests: fc.constantFrom('', 'practice'),
    }),
    fc.record({ ...head, status: fc.constant('unknown'), asked: anyNumber, missing: fc.string({ minLength: 1 }) }),
  ) as fc.Arbitrary<Line>
  const anyDemand = fc.record({
    strain: anyNumber,
    curl: anyNumber,
    surfaces: fc.option(fc.array(fc.constantFrom('glass', 'PEI + glue stick')), { nil: null }),
  })
  test('property: every line a check could make has words and a reason, without NaN, null or undefined', () => {
    fc.assert(
      fc.property(anyLine, anyDemand, (l, more) => {
        const demand = {
          ...asks('PA6', 'carbon fibre'),
          strainAtBreak: more.strain,
          curlMm: more.curl,
          surfaces: more.surfaces,
        }
        for (const nozzle of [null, printer(ENCLOSURE).heads[0]!.nozzle]) {
          const text = `${reason(l, demand, nozzle)} ${JSON.stringify({ ...wordsOf(l, demand, nozzle), basis: '' })}`
          if (l.status !== 'unknown') expect(text).not.toMatch(/NaN|undefined|Infinity/)
          expect(reason(l, demand, nozzle)).not.toBe('')
        }
        expect(inOrder([l, l])).toHaveLength(2)
      }),
    )
  })
})

describe('order and choice', () => {
  test('from the nozzle outwards, of one kind the tightest first', () => {
    const sorted = inOrder(checkStack(stackOf(printer(ENCLOSURE), 0), asks('PPS'), START_RULES).lines)
    const margins = sorted
      .filter(l => l.key === 'nozzle temperature')
      .map(marginOf)
      .filter(m => m !== null)
    expect(margins.length).toBeGreaterThan(3)
    expect(margins).toEqual([...margins].sort((a, b) => a - b))
    expect(sorted.findIndex(l => l.key === 'bed')).toBeGreaterThan(
      sorted.findLastIndex(l => l.key === 'nozzle temperature'),
    )
    expect(sorted.at(-1)!.key).toBe('ventilation')
  })
  test('of equal practices the one that fits the printer is chosen', () => {
    const best = (p: Printer) => {
      const all = asksAll('PA6', 'carbon fibre')
      return all[bestClass([compile(p, 0, NO_OFFERS, START_RULES)], all).demand]!.set
    }
    const filtered = {
      'ventilated room': 'particle and carbon filter',
      'no ventilation': 'particle and carbon filter',
      'filament dryer, 55': 'filament dryer, 70',
      'camera': null,
      'magnets, ordinary grade': 'magnets, 180 grade',
      'fans': 'high-temperature fans',
      'linear bearings, plastic end caps': 'bearings, metal shields',
      'printed parts, PETG': 'printed parts, PC',
      'acrylic glazing': 'glass glazing',
      'motors': 'high-temperature motors',
      'belts': 'high-temperature belts',
      'PTFE feed tube': 'PEEK feed tube',
    }
    expect(best(printer(ENCLOSURE, undefined, filtered))).toBe('enclosed')
    expect(
      best(
        printer('open frame', undefined, {
          ...filtered,
          'PTFE liner to the nozzle': null,
          'lined heat break': 'all-metal heat break',
          'plain steel gears': 'hardened gears',
        }),
      ),
    ).toBe('open frame')
  })
  test('a verdict carries what the bed and the chamber heater are set to', () => {
    expect(judge(compile(printer('hot machine'), 0, NO_OFFERS, START_RULES), asks('PEEK'))).toMatchObject({
      bedC: 140,
      heaterC: 94,
      bedForChamber: false,
      headId: 0,
    })
    expect(judge(compile(printer('open frame'), 0, NO_OFFERS, START_RULES), asks('PLA'))).toMatchObject({
      bedC: 50,
      heaterC: null,
    })
  })
})
