/** What is due, and how much it matters. The weights are common practice, no source; their order is what is held. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  byWeight,
  dueOfDrying,
  dueOfLowSpool,
  dueOfNozzle,
  dueOfPrinter,
  dueOfSoak,
  dueOfUnknownSpool,
  dueOfWetSpool,
  firstGauge,
  gaugeDue,
  keyOf,
  JOBS_AHEAD,
  LONGEST_SOAK_H,
  mayBePutOff,
  minutesLeft,
  NOTHING_STANDS,
  notReady,
  soakStands,
  STATIONS,
  weightOf,
  type NozzleFacts,
  type PrinterFacts,
} from '#core/schedule'
import { leftWords } from '#core/words'

const RISK = 0.1
const nozzle = (more: Partial<NozzleFacts> = {}): NozzleFacts => ({
  tag: 'N-014',
  material: 'hardened steel',
  limitMm: 0.44,
  fibreG: 480,
  pastChance: 0.02,
  nextGaugeKg: 2,
  jobFibreG: 62,
  lastMaterial: 'PA6-CF20',
  shape: [],
  gaugedSince: false,
  ...more,
})
const setpoint = { of: 'setpoint' as const, heaterOff: false, inAir: false }
const sure = (limitC: number) => ({ limitC, fineC: limitC, shortC: limitC })
const printer = (more: Partial<PrinterFacts> = {}): PrinterFacts => ({
  name: 'Ribble',
  standing: NOTHING_STANDS,
  heads: [{ id: 1, name: 'head', askedC: 280, nozzle: nozzle() }],
  limits: [
    { zone: 'hotend', headId: 1, ...sure(290), part: 'sensor', ...setpoint },
    { zone: 'bed', headId: null, ...sure(110), part: 'bed heater', ...setpoint },
  ],
  last: {
    runId: 7,
    name: 'bracket',
    outcome: 'finished',
    symptoms: [],
    stopped: null,
    nozzle: { tag: 'N-014' },
    lookedAt: false,
    fibreG: 62,
    bedC: 100,
    chamberC: null,
  },
  ...more,
})

describe('a gauge', () => {
  test.each([
    [{ pastChance: 0.51 }, 'now'],
    [{ pastChance: 0.5 }, 'before a filled job'],
    [{ pastChance: RISK }, 'before a filled job'],
    [{ pastChance: 0.09, nextGaugeKg: 0.062 }, 'after this job'],
    [{ pastChance: 0.09, nextGaugeKg: 0.062 * JOBS_AHEAD }, null],
    [{ pastChance: 0.09, nextGaugeKg: null }, null],
    [{ pastChance: 0.09, nextGaugeKg: 0.01, jobFibreG: null }, null],
  ] as const)('%o: %s', (more, due) => expect(gaugeDue(nozzle(more), RISK)).toBe(due))
  test('a chance that rounding left a hair beside 0 or 1 takes no list down', () => {
    expect(gaugeDue(nozzle({ pastChance: -2.3e-16 }), RISK)).toBe(gaugeDue(nozzle({ pastChance: 0 }), RISK))
    expect(dueOfNozzle(nozzle({ pastChance: 1 + 2.3e-16 }), 1, RISK)[0]!.mark).toBe('stop')
  })

  test('its sentence says why, with numbers and units, and leads to the gauge', () => {
    const [now] = dueOfNozzle(nozzle({ pastChance: 0.7 }), 1, RISK)
    expect(now).toMatchObject({
      mark: 'stop',
      about: 'N-014',
      reason: '70 % chance that it is past 0.44 mm after 0.48 kg of fibre.',
      station: 'inspect',
      open: '/inspect/N-014?gauge=1',
    })
    // the gauge has said it already
    const [said] = dueOfNozzle(nozzle({ pastChance: 0.7, gaugedSince: true }), 1, RISK)
    expect(said).toMatchObject({ action: 'Swap it', station: 'change', open: '/change/swap?head=1' })
    const [after] = dueOfNozzle(nozzle({ nextGaugeKg: 0.05 }), 1, RISK)
    expect(after!.reason).toBe('Gauge due in 50 g of fibre; a job like the last takes 62 g.')
    expect(dueOfNozzle(nozzle({ limitMm: null, pastChance: 0.7 }), 1, RISK)[0]!.reason).toContain('past its limit')
  })
  test('what was seen broken comes before everything about its bore', () => {
    const due = dueOfNozzle(nozzle({ shape: ['oval', 'chipped', 'loose insert'], pastChance: 0.99 }), 1, RISK)
    expect(due.sort(byWeight)[0]).toMatchObject({ mark: 'stop', action: 'Swap it', open: '/change/swap?head=1' })
    expect(due[0]!.reason).toBe('Last gauge found: chipped and loose insert.')
  })
  test('a soft nozzle is due only once something filled went through, and nothing else is', () => {
    expect(dueOfNozzle(nozzle({ material: 'brass' }), 4, RISK)[0]).toMatchObject({ open: '/stores?fit=4' })
    expect(dueOfNozzle(nozzle({ material: 'brass', lastMaterial: null }), 4, RISK)).toEqual([])
    expect(dueOfNozzle(nozzle({ material: 'brass', pastChance: 0.7 }), 4, RISK)).toHaveLength(1)
  })
  test('surer of being past, never less pressing', () => {
    const chances = fc.double({ min: 0, max: 1, noNaN: true })
    const weight = (pastChance: number) => dueOfNozzle(nozzle({ pastChance }), 1, RISK)[0]?.weight ?? 0
    fc.assert(fc.property(chances, chances, (a, b) => weight(Math.min(a, b)) <= weight(Math.max(a, b)) + 1e-9))
  })
})

describe('a printer', () => {
  test('with nothing due: nothing', () => expect(dueOfPrinter(printer(), RISK)).toEqual([]))
  test('a limit that the last job went over comes first of all', () => {
    const hot = printer({ heads: [{ id: 1, name: 'head', askedC: 300, nozzle: nozzle({ pastChance: 1 }) }] })
    const [first] = dueOfPrinter(hot, RISK).sort(byWeight)
    expect(first).toMatchObject({ mark: 'stop', station: 'run', open: '/run?show=7' })
    expect(mayBePutOff(first!)).toBe(true)
    expect(mayBePutOff({ ...first!, isOver: undefined })).toBe(false)
    expect(first!.reason).toBe('The last job asked 300 °C of the nozzle; the sensor stops at 290 °C.')
  })
  test.each([
    [110, null],
    [110.5, 'stop'],
    [116, 'stop'],
  ])('a bed asked %s °C where 110 is allowed: %s', (bedC, mark) => {
    const due = dueOfPrinter(printer({ last: { ...printer().last!, bedC } }), RISK)
    expect(due.map(d => d.mark)).toEqual(mark === null ? [] : [mark])
  })
  test('a margin within what is known of the air is a look, and sends to measure it', () => {
    const fans = {
      zone: 'bed' as const,
      headId: null,
      limitC: 95,
      fineC: 87,
      shortC: 103,
      part: 'fans',
      ...setpoint,
      inAir: true,
    }
    const at = (bedC: number, chamberC: number | null, heaterOff: boolean) =>
      dueOfPrinter(
        printer({
          limits: [...printer().limits, { ...fans, heaterOff }],
          last: { ...printer().last!, bedC, chamberC },
        }),
        RISK,
      ).map(d => [d.mark, d.reason, d.open])
    const says = 'The last job asked 100 °C of the bed; 95 °C brings the air at the fans to its limit, known to 8 °C.'
    expect(at(100, null, false)).toEqual([['look', says, '/verify/chamber?printer=Ribble']])
    expect(at(85, null, false)).toEqual([])
    expect(at(104, null, false).map(d => d[0])).toEqual(['stop'])
    // where a chamber heater holds the air, the bed does not make it
    expect(at(100, 85, true)).toEqual([])
  })
  test('an empty head, named where there are several', () => {
    const empty = { id: 2, name: 'high flow', askedC: null, nozzle: null }
    expect(dueOfPrinter(printer({ heads: [empty] }), RISK)[0]!.reason).toBe('No nozzle fitted.')
    expect(dueOfPrinter(printer({ heads: [...printer().heads, empty] }), RISK)[0]).toMatchObject({
      reason: 'No nozzle fitted (high flow).',
      open: '/stores?fit=2',
    })
  })
  test('a job that failed sends to its nozzle, or to the run where there is none', () => {
    const last = { ...printer().last!, outcome: 'failed' as const, stopped: 'at 40 %', symptoms: ['popping', 'clog'] }
    const [due] = dueOfPrinter(printer({ last }), RISK)
    expect(due).toMatchObject({ reason: 'bracket failed at 40 %: popping, clog.', open: '/inspect/N-014' })
    const failed = (more: object) =>
      dueOfPrinter(printer({ last: { ...last, ...more } }), RISK).find(d => d.reason.includes('failed'))
    expect(failed({ nozzle: null })).toMatchObject({ open: '/run?show=7', action: 'See the run' })
    // another one hangs there by now: it is the one that printed it that is looked at
    expect(failed({ nozzle: { tag: 'N-009' } })!.open).toBe('/inspect/N-009')
    expect(failed({ lookedAt: true })).toBeUndefined()
    // what was put off of one run is not put off of the next
    expect(keyOf(failed({ runId: 8 })!, 'Ribble')).not.toBe(keyOf(failed({})!, 'Ribble'))
  })
})

describe('what is under way', () => {
  const now = Date.UTC(2026, 10, 24, 12)
  const ago = (hours: number) => now - hours * 3_600_000
  test('minutes that are left', () => {
    expect(minutesLeft(ago(1), 90, now)).toBe(30)
    expect(minutesLeft(ago(2), 90, now)).toBe(-30)
  })
  test('a drying under way is to know, and wants a person once it has had its hours', () => {
    expect(dueOfDrying('S-07', ago(4), 6, now)).toMatchObject({
      mark: 'fine',
      reason: 'S-07 dries its 6 h: 2 h 00 min to go.',
    })
    expect(dueOfDrying('S-07', ago(6), 6, now)).toMatchObject({ reason: 'S-07 has dried its 6 h.' })
  })
  test('a soak once it is over, until it is long forgotten', () => {
    expect(dueOfSoak('Ribble', ago(0.4), 30, now)).toMatchObject({ mark: 'fine', open: '/prepare/soak?printer=Ribble' })
    expect(dueOfSoak('Ribble', ago(0.6), 30, now)).toMatchObject({ open: '/prepare/check?printer=Ribble' })
    expect(dueOfSoak('Ribble', ago(LONGEST_SOAK_H + 1), 30, now)).toBeNull()
    expect(soakStands(ago(LONGEST_SOAK_H), 30, now)).toBe(true)
  })
  test('a spool that runs out, and one of which nobody knows how wet it is', () => {
    expect(dueOfLowSpool('S-05', 18, 500)).toMatchObject({ mark: 'look', reason: 'S-05 on it runs out: 18 g left.' })
    expect(dueOfLowSpool('S-05', 150, 2000)).not.toBeNull()
    expect(dueOfLowSpool('S-05', 150, 1000)).toBeNull()
    expect(dueOfUnknownSpool('S-06')).toMatchObject({ mark: 'look', action: 'Dry it' })
  })
  test('minutes left never read 1 h 60', () => {
    expect(leftWords(119.6)).toBe('2 h 00 min to go')
    expect(leftWords(89.2)).toBe('1 h 30 min to go')
    expect(leftWords(12)).toBe('12 min to go')
    expect(leftWords(0)).toBe('done')
  })
  test('a wet spool says how wet, and what would be dry', () =>
    expect(dueOfWetSpool('S-07', 1.234, 0.5).reason).toBe(
      'S-07 on it is too wet: 1.23 wt%, it usually prints up to 0.50 wt%.',
    ))
})

test('the bench names the nozzle whose gauge comes first, on whichever head', () => {
  const head = (id: number, tag: string, nextGaugeKg: number | null) => ({
    id,
    name: 'head',
    askedC: null,
    nozzle: nozzle({ tag, nextGaugeKg }),
  })
  expect(firstGauge({ heads: [head(1, 'N-030', 14), head(2, 'N-027', 3)] })).toEqual({ tag: 'N-027', kg: 3 })
  expect(firstGauge({ heads: [head(1, 'N-030', null)] })).toBe(null)
})

test('weights stay on their scale, and every station has a screen', () => {
  expect(weightOf(20)).toBe(20)
  expect(weightOf(60, 1, 30)).toBe(90)
  expect(weightOf(90, 1, 90)).toBe(100)
  expect(new Set(STATIONS).size).toBe(STATIONS.length)
})

describe('ready for work', () => {
  const left = { id: 7, title: 'Swap on Ribble', done: 5, of: 17, by: 'Night technician' }
  const tag = { id: 3, why: 'a frayed wire', by: 'Shop lead' }
  const note = { id: 9, says: 'belt tightened', by: 'Night technician' }
  test('what was left open, tagged, not commissioned or noted is said, what can hurt most first', () => {
    const all = notReady('Ribble', { procedures: [left], tags: [tag], notes: [note], toCommission: false })
    expect(all.map(d => [d.mark, d.stops, d.open])).toEqual([
      ['stop', true, '/change?printer=Ribble'],
      ['stop', true, '/change/7'],
      ['look', false, '/change?printer=Ribble'],
    ])
    expect(all.map(d => d.weight)).toEqual([...all.map(d => d.weight)].sort((a, b) => b - a))
    expect(all[1]!.reason).toBe('Not ready: Swap on Ribble is under way, 5 of 17 steps done (Night technician).')
    expect(notReady('Ribble', NOTHING_STANDS)).toEqual([])
  })
  test('a commissioning that is under way says so itself', () => {
    expect(notReady('P', { ...NOTHING_STANDS, toCommission: true })[0]!.reason).toMatch(/^Not commissioned/)
    expect(notReady('P', { ...NOTHING_STANDS, toCommission: true, procedures: [left] })).toHaveLength(1)
  })
  test('a printer that is not ready is so on the Floor too', () => {
    const due = dueOfPrinter(printer({ standing: { ...NOTHING_STANDS, tags: [tag] } }), RISK)
    expect(due[0]).toMatchObject({ mark: 'stop', reason: 'Out of service: a frayed wire (Shop lead).' })
  })
})
