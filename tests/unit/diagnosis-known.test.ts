/** What the records tell of a print, and what people say over them. Common practice, no source; numbers invented. */
import { describe, expect, test } from 'vitest'
import {
  answerOf,
  answerWords,
  counted,
  evidenceOf,
  LATELY_DAYS,
  nextLooks,
  nextTests,
  NOT_ASKED,
  posterior,
  recordsTell,
  reviewOf,
  speaks,
  startOf,
  testsThatSpeakFor,
  wayOf,
  type KnownFacts,
  type Told,
} from '#core/diagnosis'
import { precheckFacts } from './precheck-support'

const NOTHING_KNOWN: KnownFacts = {
  check: null,
  nozzle: null,
  spool: null,
  dried: null,
  bench: null,
  before: null,
  bend: null,
  z: null,
  sinceFit: null,
  sensor: null,
  elsewhere: null,
  onHead: null,
}
const tell = (f: Partial<KnownFacts>) => recordsTell({ ...NOTHING_KNOWN, ...f })
const states = (told: readonly Told[]) => Object.fromEntries(told.map(t => [t.key, t.state]))
const nozzle = (f: Partial<NonNullable<KnownFacts['nozzle']>> = {}): NonNullable<KnownFacts['nozzle']> => ({
  tag: 'N-1',
  boreMm: { median: 0.42, low80: 0.415, high80: 0.425 },
  boreLimitMm: 0.44,
  tipLossMm: { median: 0, low80: 0, high80: 0 },
  tipLimitMm: null,
  gaugedDaysAgo: 3,
  gaugedSince: false,
  ...f,
})

test('what is not known tells nothing', () => {
  expect(recordsTell(NOTHING_KNOWN)).toEqual([])
})

describe('the nozzle', () => {
  test('within its limit only where it surely is and was gauged lately', () => {
    expect(states(tell({ nozzle: nozzle() }))).toEqual({ 'bore gauged within its limit lately': 'there' })
    expect(tell({ nozzle: nozzle({ gaugedDaysAgo: LATELY_DAYS + 1 }) })).toEqual([])
    expect(tell({ nozzle: nozzle({ gaugedDaysAgo: null }) })).toEqual([])
    // the 80 % range just ends at the limit: nobody calls that within
    expect(tell({ nozzle: nozzle({ boreMm: { median: 0.434, low80: 0.428, high80: 0.4398 } }) })).toEqual([])
  })
  test('past its limit where that is likelier than not, with its numbers', () => {
    const [told] = tell({ nozzle: nozzle({ boreMm: { median: 0.45, low80: 0.43, high80: 0.47 } }) })
    expect(told).toMatchObject({ key: 'bore probably past its limit', state: 'there' })
    expect(told!.says).toContain('bore about 0.45 mm (80 % 0.43 to 0.47), limit 0.44, gauged 3 days ago')
  })
  test('without a limit a bore says nothing; a short tip does', () => {
    expect(tell({ nozzle: nozzle({ boreLimitMm: null }) })).toEqual([])
    const tip = { tipLimitMm: 0.3, tipLossMm: { median: 0.35, low80: 0.3, high80: 0.4 }, boreLimitMm: null }
    expect(states(tell({ nozzle: nozzle(tip) }))).toEqual({ 'tip worn shorter than its limit': 'there' })
  })
  test('gauged since the case was opened it is the test itself, and its sign is not counted beside it', () => {
    expect(states(tell({ nozzle: nozzle({ gaugedSince: true }) }))).toEqual({ gauge: 'within its limit' })
    // a bore that is read close to its limit is read all the same
    const close = { boreMm: { median: 0.435, low80: 0.43, high80: 0.441 }, gaugedSince: true }
    expect(states(tell({ nozzle: nozzle(close) }))).toEqual({ gauge: 'within its limit' })
  })
})

describe('the bench', () => {
  const bench = (f: Partial<NonNullable<KnownFacts['bench']>>): Partial<KnownFacts> => ({
    bench: {
      on: '3 Nov 2026',
      dropped: null,
      level: 'fine',
      limit: 'grip or this nozzle',
      hotter: null,
      alike: null,
      since: false,
      ...f,
    },
  })
  test('what hotter did, and how another nozzle did', () => {
    const told = states(tell(bench({ hotter: 'stayed', alike: true, dropped: false })))
    expect(told).toMatchObject({
      'hotter did not help': 'there',
      'another nozzle on this head alike': 'there',
      'bench dropped since its first': 'not there',
      'share off alike at all flows': 'not there',
    })
    expect(states(tell(bench({ hotter: 'moved' })))).toMatchObject({ 'hotter helped': 'there' })
    expect(states(tell(bench({ hotter: 'cannot tell' })))).not.toHaveProperty('hotter helped')
  })
  test.each([
    ['nothing falls short', 'fine', 'none falls short'],
    ['nothing falls short', 'mark', 'all are off alike'],
    ['melting', 'fine', 'the fast blobs fall short'],
  ] as const)('run since the case was opened: %s, level %s', (limit, level, found) => {
    expect(states(tell(bench({ limit, level, since: true })))).toMatchObject({ bench: found })
  })
})

describe('the run, by the lines of the check before it', () => {
  const of = (change: (f: ReturnType<typeof precheckFacts>) => void) => {
    const check = precheckFacts()
    change(check)
    return states(tell({ check }))
  }
  test('setpoints within the window, fan off, warm enough, the right sheet', () => {
    expect(of(() => {})).toMatchObject({
      'setpoint under the window': 'not there',
      'setpoint over the window': 'not there',
      'setpoints of another filament': 'not there',
      'part fan high for this filament': 'not there',
      'sheet is not one it holds on': 'not there',
    })
  })
  test('too cold is under the window; of another filament where that one is known', () => {
    const told = of(f => {
      f.job.nozzleC = 215
      f.made.nozzleC = 215
      f.job.bedC = 60
      f.made.bedC = 60
    })
    expect(told).toMatchObject({ 'setpoint under the window': 'there', 'setpoints of another filament': 'there' })
  })
  test('a cold chamber counts where the filament needs one, and not where it merely helps', () => {
    const cold = (chamber: 'needs' | 'helps') =>
      of(f => {
        f.material.chamber = chamber
        f.material.chamberMinC = 60
        f.air = { coolestC: 40, headC: 50, u90: 2, from: 'a survey' }
      })
    expect(cold('needs')).toMatchObject({ 'chamber needed and cold': 'there' })
    expect(cold('helps')).not.toHaveProperty('chamber needed and cold')
  })
  test('air at the head that may just be too warm says nothing', () => {
    const warm = (headC: number) =>
      of(f => {
        f.material.chamberMaxC = 60
        f.air = { coolestC: 50, headC, u90: 3, from: 'a survey' }
      })['chamber too warm for this filament']
    expect([warm(50), warm(60), warm(70)]).toEqual(['not there', undefined, 'there'])
  })
  test('a soak that was cut short, by the minutes it had to go', () => {
    const told = of(f => (f.soak = { running: true, leftMin: 12, done: false }))
    expect(told).toMatchObject({ 'not soaked as long as planned': 'there' })
    expect(of(f => (f.soak = null))).not.toHaveProperty('not soaked as long as planned')
  })
  test('what stands in the nozzle from before: solid at this setpoint, flowing, or nobody knows', () => {
    const check = precheckFacts()
    const before = (lowestFlowC: number | null) => states(tell({ check, before: [{ name: 'PEEK', lowestFlowC }] }))
    const key = 'hotter filament went through before, not purged clean'
    expect([before(360)[key], before(200)[key], before(null)[key]]).toEqual(['there', 'not there', undefined])
  })
})

describe('spool, Z, sensor and other runs', () => {
  test('the clock of the spool', () => {
    const spool = (dryness: 'wet' | 'usual' | 'unknown', takesNoWater = false) =>
      states(tell({ spool: { tag: 'S-1', dryness, takesNoWater, place: 'in the room for 9 h' } }))
    expect(spool('wet')).toEqual({ 'spool wet by its clock': 'there' })
    expect(spool('usual')).toEqual({ 'spool dry by its clock': 'there' })
    expect(spool('unknown')).toEqual({})
    expect(spool('unknown', true)).toEqual({ 'spool dry by its clock': 'there' })
  })
  test('dried for longer than one and a half times its hours', () => {
    const dried = (hours: number) => states(tell({ dried: { hours, longestH: 12 } }))['dried longer than its hours']
    expect([dried(12), dried(18), dried(19)]).toEqual(['not there', 'not there', 'there'])
  })
  test('Z set before or after the last change', () => {
    const key = 'head moved or nozzle changed since Z was set'
    expect(states(tell({ z: { setDaysAgo: 9, fittedDaysAgo: 2 } }))[key]).toBe('there')
    expect(states(tell({ z: { setDaysAgo: 2, fittedDaysAgo: 9 } }))[key]).toBe('not there')
  })
  test('the sensor: never checked, failed, passed and due, checked since', () => {
    const sensor = (s: KnownFacts['sensor']) => states(tell({ sensor: s }))
    const check = { on: '3 Nov 2026', isDue: false, since: false }
    expect(sensor('never')).toEqual({ 'sensor not checked for long': 'there' })
    expect(sensor({ verdict: 'fail', ...check })).toEqual({ 'sensor check failed': 'there' })
    expect(sensor({ verdict: 'pass', ...check, isDue: true })).toEqual({
      'sensor check failed': 'not there',
      'sensor not checked for long': 'there',
    })
    expect(sensor({ verdict: 'fail', ...check, since: true })).toEqual({ sensor: 'off by more than it may be' })
    expect(sensor({ verdict: 'cannot tell', ...check })).toEqual({})
  })
  test('other runs: of one kind alone, and not from one good run', () => {
    const runs = (good: number, bad: number) => Object.keys(states(tell({ onHead: { good, bad } })))
    expect(runs(2, 0)).toEqual(['other spools on this head fine'])
    expect(runs(0, 1)).toEqual(['other spools on this head bad'])
    expect([runs(1, 0), runs(3, 1), runs(0, 0)]).toEqual([[], [], []])
  })
})

test('a person stands over the records, and what was not asked after all says nothing', () => {
  const told: Told[] = [{ kind: 'sign', key: 'spool wet by its clock', state: 'there', says: '' }]
  const say = (state: string) => evidenceOf(told, [{ kind: 'sign', key: 'spool wet by its clock', state }])
  expect(say('not there')).toMatchObject({ seen: [], not: ['spool wet by its clock'] })
  expect(say(NOT_ASKED)).toMatchObject({ seen: [], not: [] })
  const lens = { kind: 'test' as const, key: 'lens' }
  const twice = [
    { ...lens, state: 'bubbles in the strand' },
    { ...lens, state: 'a clear strand and a round mouth' },
  ]
  expect(evidenceOf([], twice).tests).toEqual({ lens: 'a clear strand and a round mouth' })
})

describe('a case goes on', () => {
  const start = startOf([])
  const seen = { seen: ['stringing', 'popping', 'steam or bubbles in the strand'], not: [], tests: {} }
  test('what was put right and still shows is hardly it any more', () => {
    const before = posterior(start, seen)
    const after = posterior(start, { ...seen, right: ['moisture'] })
    expect(answerOf(before)).toMatchObject({ cause: 'moisture', sure: true })
    // 19 to 1 against, whatever else is known: the odds of two causes among each other stay
    const odds = (p: typeof before, a: 'moisture' | 'grip', b: 'grip' | 'worn nozzle') => p[a] / p[b]
    expect(odds(after, 'moisture', 'grip')).toBeCloseTo(odds(before, 'moisture', 'grip') / 19, 9)
    expect(odds(after, 'grip', 'worn nozzle')).toBeCloseTo(odds(before, 'grip', 'worn nozzle'), 9)
  })
  test('a test counts in full before the signs of its group', () => {
    const list = counted({ seen: ['popping'], not: [], tests: { lens: 'bubbles in the strand' } })
    expect(list.map(c => [c.key, c.power])).toEqual([
      ['lens', 1],
      ['popping', 0.5],
    ])
  })
  test('the way of a cause begins at the start, ends at the posterior, and no step is lost', () => {
    const way = wayOf('moisture', start, seen)
    expect(way[0]!.before).toBeCloseTo(start.moisture, 12)
    expect(way.at(-1)!.after).toBeCloseTo(posterior(start, seen).moisture, 12)
    for (const [i, step] of way.slice(1).entries()) expect(step.before).toBeCloseTo(way[i]!.after, 12)
    expect(way.map(w => speaks(w))).toContain('strongly for')
  })
  test('what is asked or made already is not asked again, and what tells nothing is left out', () => {
    const p = posterior(start, seen)
    expect(nextLooks(p, ['ooze']).map(l => l.sign)).not.toContain('ooze')
    const sure = posterior(start, {
      seen: [],
      not: [],
      tests: { gauge: 'past its limit', lens: 'a mouth that is not round' },
    })
    expect(nextTests(sure, ['gauge', 'lens']).every(t => t.bits > 0)).toBe(true)
  })
  test.each([
    [{ tests: { gauge: 'tight' } }, 'result'],
    [{ tests: { torch: 'hot' } }, 'test'],
    [{ seen: ['smoke'] }, 'sign'],
    [{ right: ['gremlins'] as never }, 'right'],
  ])('what the tables do not have is refused: %j', (e, field) => {
    const all = { seen: [], not: [], tests: {}, ...e }
    expect(() => counted(all as Parameters<typeof counted>[0])).toThrow(expect.objectContaining({ field }))
  })
})

test('a test proves a cause only where it speaks for it', () => {
  const start = startOf([])
  expect(testsThatSpeakFor('worn nozzle', { gauge: 'past its limit' }, start)).toEqual(['gauge'])
  expect(testsThatSpeakFor('moisture', { gauge: 'past its limit' }, start)).toEqual([])
  expect(testsThatSpeakFor('worn nozzle', { gauge: 'within its limit' }, start)).toEqual([])
  expect(
    testsThatSpeakFor('grip', { pull: 'it slips under its usual pull', lens: 'bubbles in the strand' }, start),
  ).toEqual(['pull'])
})

test('how often it was right counts what was proved alone', () => {
  const of = (known: 'proved' | 'assumed', said: 'grip' | null, ledBefore: 'grip' | 'moisture') =>
    ({ cause: 'grip', known, said, ledBefore }) as const
  expect(
    reviewOf([of('proved', 'grip', 'moisture'), of('proved', null, 'grip'), of('assumed', 'grip', 'grip')]),
  ).toEqual({ closed: 3, proved: 2, named: 1, right: 1, rightBefore: 1 })
})

test('the verdict in words: sure, probable, or not enough to tell', () => {
  const words = (e: Partial<Parameters<typeof posterior>[1]>) =>
    answerWords(answerOf(posterior(startOf([]), { seen: [], not: [], tests: {}, ...e })))
  expect(words({})).toMatch(/^Not enough to tell: moisture \(16 %\)/)
  expect(words({ seen: ['popping'] })).toMatch(/^The likeliest is moisture \(65 %\); next /)
  expect(words({ seen: ['popping', 'stringing'], tests: { lens: 'bubbles in the strand' } })).toMatch(/^Very probably/)
  expect(words({ tests: { gauge: 'past its limit' }, seen: ['uneven lines'] })).toMatch(/^Probably worn nozzle/)
})
