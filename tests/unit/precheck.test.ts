/** The lines of a check before a run, and what closes them: the fact, eyes, or a reason; never a click. */
import { describe, expect, test } from 'vitest'
import { likeliest, precheck, stillAnswered, verdictOf, type Answer, type PrecheckFacts } from '#core/precheck'
import { precheckFacts } from './precheck-support'

describe('pre-run check', () => {
  const good = precheckFacts()
  const { material } = good
  const of = (more: Partial<PrecheckFacts>, key: string) => precheck({ ...good, ...more }).find(l => l.key === key)!
  const job = (more: Partial<PrecheckFacts['job']>) => {
    const is = { ...good.job, ...more }
    return { job: is, made: { nozzleC: is.nozzleC, bedC: is.bedC } }
  }
  test('all well: only what a person must look at is open', () => {
    const lines = precheck(good)
    expect(lines.filter(l => l.status !== 'ok').map(l => [l.key, l.status])).toEqual([
      ['surface', 'confirm'],
      ['level', 'confirm'],
      ['lid and vent', 'confirm'],
    ])
    const open = verdictOf(lines, [])
    expect(open.may).toBe(false)
    expect(
      verdictOf(
        lines,
        open.open.map(index => ({ index, how: 'looked' as const, reason: '' })),
      ),
    ).toEqual({ may: true, open: [], waived: 0 })
  })
  // common practice, no source: what cannot stop a heater is not left alone; a person beside it may run it
  test('a cut-out that did not trip is answered by a person who stays, never by a tick', () => {
    const lines = precheck({ ...good, guards: [{ guard: 'bed thermal cut-out', state: 'failed' }] })
    const index = lines.findIndex(l => l.key === 'guards')
    const with_ = (a: Omit<Answer, 'index'>) => verdictOf(lines, [{ index, ...a }]).open.includes(index)
    expect(with_({ how: 'looked', reason: '' })).toBe(true)
    expect(with_({ how: 'waived', reason: 'a person stays by it until it is cold' })).toBe(false)
    const quiet = (['proved', 'due again', 'never tested'] as const).map(state => ({
      guard: 'bed thermal cut-out' as const,
      state,
    }))
    expect(precheck({ ...good, guards: quiet }).some(l => l.key === 'guards')).toBe(false)
  })
  test('a profile of another material is caught, and the likeliest named', () => {
    expect(of(job({ nozzleC: 220, bedC: 55 }), 'profile')).toMatchObject({
      status: 'stop',
      says: expect.stringContaining('a profile for PLA-CF15') as string,
    })
    expect(of(job({ nozzleC: 299 }), 'profile').status).toBe('ok') // 290 and what a hard nozzle asks on top
    expect(of(job({ bedC: 62 }), 'profile')).toMatchObject({ status: 'look' })
    expect(likeliest({ nozzleC: 245, bedC: 78 }, good.others, 'none')).toBe('PETG')
    expect(likeliest({ nozzleC: 400, bedC: 78 }, good.others, 'none')).toBeNull()
  })
  test.each<[string, Partial<PrecheckFacts>, string, string]>([
    ['guards', { guards: [{ guard: 'bed thermal cut-out', state: 'failed' }] }, 'stop', 'the bed thermal cut-out.'],
    ['guards', { guards: [{ guard: 'bed thermal cut-out', state: 'changed since' }] }, 'look', 'Not proved since'],
    ['flow', job({ peakMm3S: 14 }), 'look', '14.0 mm³/s is above the 10.0'],
    ['flow', { nozzle: { ...good.nozzle!, provenMm3S: null } }, 'unknown', 'not known yet'],
    ['wear', job({ fibreG: 100 }), 'look', 'perhaps too little'],
    ['wear', job({ fibreG: 300 }), 'stop', 'about 0.19 kg (80 % between 0.08 and 0.42 kg) left'],
    ['wear', { nozzle: { ...good.nozzle!, pastChance: 0.7 } }, 'stop', '70 %'],
    ['wear', { nozzle: null }, 'stop', 'No nozzle'],
    ['wear', { nozzle: { ...good.nozzle!, left: null } }, 'unknown', 'not known'],
    ['wear', job({ fibreG: 0 }), 'ok', 'no fibre'],
    ['spool', { spool: { tag: 'S-02', leftG: 200 } }, 'stop', '100 g short'],
    ['spool', { spool: { tag: 'S-02', leftG: 310 } }, 'look', '310 g'],
    ['spool', { spool: null }, 'unknown', 'No spool'],
    ['dryness', job({ hours: 12 }), 'look', 'outer turns only 6 h'],
    ['dryness', job({ hours: 30 }), 'stop', 'stays dry 20 h'],
    ['dryness', { dryness: { strandH: 0, woundH: 0 } }, 'stop', 'too wet'],
    // known to be wet, whatever the hours; a look for what wet filament does little harm to
    ['dryness', { dryness: { strandH: 0, woundH: 0 }, ...job({ hours: null }) }, 'stop', 'too wet'],
    ['dryness', { dryness: { strandH: 0, woundH: 0 }, wet: 'look' }, 'look', 'too wet'],
    // between the marks: a look
    ['dryness', { clean: { strandH: 0, woundH: 0 } }, 'look', 'Clean it is not'],
    ['dryness', { clean: { strandH: 1, woundH: 2 } }, 'look', 'Clean it is for 2 h'],
    ['dryness', { clean: null }, 'look', 'by what usually prints'],
    ['dryness', { dryness: null, drynessMissing: 'Not known where it stood.' }, 'unknown', 'Not known where'],
    ['dryness', { printsFrom: 'dry box', dryness: { strandH: 1e5, woundH: 1e5 } }, 'ok', 'stays dry in the dry box'],
    ['surface', { fittedSurface: 'glass' }, 'stop', 'glass sheet is on'],
    ['first layer', job({ firstLayer: { heightMm: 0.3, meanMmS: 40 } }), 'look', '40 mm/s'],
    ['first layer', job({ firstLayer: { heightMm: 0.1, meanMmS: 15 } }), 'look', 'thin'],
    ['first layer', job({ firstLayer: null }), 'unknown', 'does not show'],
    ['fan', job({ fanMax: 1 }), 'look', '100 %'],
    ['lid and vent', { enclosed: false }, 'ok', 'Open frame'],
    ['lid and vent', { enclosed: false, material: { ...material, chamber: 'needs' } }, 'stop', 'no enclosure'],
    ['lid and vent', { material: { ...material, chamber: 'indifferent', chamberMaxC: 40 } }, 'confirm', 'Lid off'],
    ['soak', { soak: { running: true, leftMin: 7.2, done: false } }, 'look', '8 min'],
    ['soak', { soak: null }, 'look', 'No soak'],
    ['soak', { soak: null, material: { ...material, chamber: 'needs' } }, 'stop', 'No soak'],
    ['limits', { limits: [{ status: 'short', says: 'liner stops at 230' }] }, 'stop', 'Liner stops at 230.'],
    ['limits', { limits: [{ status: 'just', says: 'the fans stop at 70' }] }, 'look', 'The fans stop at 70: just.'],
    ['limits', { limits: [{ status: 'look', says: 'a bore of 0.6 is recommended' }] }, 'note', 'recommended'],
    ['limits', { limits: [{ status: 'look', says: 'an insert', eye: true }] }, 'confirm', 'An insert'],
    ['profile', job({ nozzleC: null, bedC: null }), 'unknown', 'no temperatures'],
    ['profile', job({ nozzleC: 430 }), 'stop', 'stands 310 °C for a short time at most'],
    [
      'in the nozzle',
      { nozzle: { ...good.nozzle!, holds: { name: 'PC', same: false, purgeC: 260 } } },
      'stop',
      'PC still',
    ],
    ['in the nozzle', { nozzle: { ...good.nozzle!, holds: null } }, 'unknown', 'not logged'],
    ['wear', { nozzle: { ...good.nozzle!, shape: ['loose insert'] } }, 'stop', 'loose insert'],
    ['wear', { nozzle: { ...good.nozzle!, shape: ['cracked body'] } }, 'stop', 'cracked body'],
    ['level', { nozzle: { ...good.nozzle!, fittedSinceRun: true } }, 'confirm', 'N-014 was fitted since'],
    ['chamber', {}, 'ok', 'The file makes 63 °C'],
    ['chamber', { air: { ...good.air!, coolestC: 49 } }, 'look', 'known to 2 °C'],
    ['chamber', { air: { ...good.air!, coolestC: 40 } }, 'look', 'is better with 50'],
    [
      'chamber',
      { air: { ...good.air!, coolestC: 40 }, material: { ...material, chamber: 'needs' } },
      'stop',
      'needs 50',
    ],
    ['chamber', { air: null }, 'unknown', 'nothing that warms'],
    ['chamber', { material: { ...material, chamber: 'indifferent' } }, 'ok', 'asks for no warm chamber'],
    ['own', { own: ['The extraction is on.'] }, 'confirm', 'extraction'],
    ['after', { material: { ...material, chamber: 'needs', glassC: 143 } }, 'note', 'below 80 °C'],
  ])('%s: %o', (key, more, status, says) => {
    expect(of(more, key)).toMatchObject({ status, says: expect.stringContaining(says) as string })
  })
  test('a waiver needs a reason; what a part does not stand is never waived', () => {
    const lines = precheck({ ...good, ...job({ hours: 12 }), limits: [{ status: 'short', says: 'too hot' }] })
    const at = (key: string) => lines.findIndex(l => l.key === key)
    const waive = (key: string, reason: string) =>
      verdictOf(lines, [{ index: at(key), how: 'waived', reason }]).open.includes(at(key))
    expect(waive('dryness', '')).toBe(true)
    expect(waive('dryness', 'short part of it')).toBe(false)
    expect(waive('limits', 'it will be fine')).toBe(true)
    const wet = precheck({ ...good, dryness: { strandH: 0, woundH: 0 } }),
      index = wet.findIndex(l => l.key === 'dryness')
    // a spool is not dried by saying so
    for (const how of ['looked', 'fixed'] as const)
      expect(verdictOf(wet, [{ index, how, reason: '' }]).open).toContain(index)
  })
  test('nothing is green by a click: eyes close only what eyes judge, and what hurts is closed by nothing', () => {
    const bad: Partial<PrecheckFacts>[] = [
      job({ nozzleC: 430 }),
      job({ nozzleC: null, bedC: null }),
      { limits: [{ status: 'short', says: 'the liner stops' }] },
      { limits: [{ status: 'unknown', says: 'what the fans stand is not known' }] },
      { nozzle: null },
      { nozzle: { ...good.nozzle!, shape: ['loose insert'] } },
      { nozzle: { ...good.nozzle!, shape: ['cracked body'] } },
      { material: { ...material, nozzleMinC: null } },
    ]
    for (const more of bad) {
      const lines = precheck({ ...good, ...more })
      const all = (how: 'looked' | 'waived') => lines.map((_, index) => ({ index, how, reason: 'it will be fine' }))
      for (const answers of [all('looked'), all('waived')]) expect(verdictOf(lines, answers).may).toBe(false)
    }
    const lines = precheck({ ...good, soak: null, ...job({ hours: 12 }) })
    const looked = lines.map((_, index) => ({ index, how: 'looked' as const, reason: '' }))
    const open = verdictOf(lines, looked).open.map(i => lines[i]!.key)
    expect(open).toEqual(['dryness', 'soak'])
  })
  test('an answer given for one printer, job or spool ticks nothing of another', () => {
    const lines = precheck({ ...good, ...job({ hours: 12 }), own: ['The door is shut.', 'The lamp is on.'] })
    const at = (key: string, says = '', of = lines) => of.findIndex(l => l.key === key && l.says.includes(says))
    const given: Answer[] = [
      { index: at('dryness'), how: 'waived', reason: 'a trial piece' },
      { index: at('level'), how: 'looked', reason: '' },
      { index: at('own', 'lamp'), how: 'looked', reason: '' },
    ]
    const before = { place: 'A', work: 'guide', lines }
    const then = (after: Partial<typeof before>) => stillAnswered(given, before, { ...before, ...after })
    expect(then({})).toEqual(given)
    // the same job made again from a file that was changed: eyes saw what they saw, reasons are asked anew
    expect(then({ work: 'guide, sliced again' })).toEqual(given.slice(1))
    expect(then({ place: 'B' })).toEqual([])
    // a line that went away leaves the others their answers
    const fewer = precheck({ ...good, ...job({ hours: 12 }), own: ['The lamp is on.'] })
    expect(then({ lines: fewer }).map(a => fewer[a.index]!.says)).toEqual(given.map(a => lines[a.index]!.says))
    // another number in the same line: a reason stands, what was looked at is looked at again
    const later = precheck({
      ...good,
      ...job({ hours: 13 }),
      nozzle: { ...good.nozzle!, fittedSinceRun: true },
      own: ['The lamp is on.'],
    })
    expect(then({ lines: later }).map(a => later[a.index]!.key)).toEqual(['dryness', 'own'])
    // worse than it was
    const wet = precheck({ ...good, dryness: null, own: [] })
    expect(then({ lines: wet }).map(a => wet[a.index]!.key)).toEqual(['level'])
  })
  test('glass is left warm, whatever else is said of heat', () => {
    const lines = precheck({
      ...good,
      fittedSurface: 'glass',
      material: { ...material, surfaces: ['glass + glue stick'] },
    })
    expect(lines.filter(l => l.key === 'after').map(l => l.says)).toEqual([expect.stringContaining('while it is warm')])
  })
})
