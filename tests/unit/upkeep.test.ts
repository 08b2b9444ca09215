/** Upkeep by hours, kilograms or days: when it is due, what is said, what stops; common practice, no source. */
import { describe, expect, test } from 'vitest'
import { GUARDS, guardState, TEST_EVERY_DAYS } from '#core/chamber'
import {
  checkEvery,
  dueOfGuard,
  dueOfNoUpkeep,
  dueOfUntested,
  dueOfUpkeep,
  UPKEEP_KINDS,
  upkeepHazards,
  upkeepShare,
  usualUpkeep,
  type UpkeepStand,
} from '#core/schedule'

const stand = (more: Partial<UpkeepStand> = {}): UpkeepStand => ({
  printer: 'Ribble',
  name: 'Belts',
  kind: 'belts',
  every: { hours: 500, kg: null, days: 180 },
  since: { hours: 100, kg: 3, days: 20 },
  withoutHours: 0,
  doneOn: '3 Sep 2026',
  found: 'in order',
  says: '',
  ...more,
})

describe('an interval', () => {
  test('whichever comes first decides', () => {
    expect(upkeepShare({ hours: 500, kg: null, days: 180 }, { hours: 250, kg: 99, days: 180 })).toBe(1)
    expect(upkeepShare({ hours: 500, kg: 2, days: null }, { hours: 250, kg: 3, days: 999 })).toBe(1.5)
  })
  test('an interval of zero, below its smallest, or none at all is refused', () => {
    expect(() => checkEvery({ hours: 0, kg: null, days: null })).toThrow(/hours: 0 is not allowed; 1 to 20000/)
    expect(() => checkEvery({ hours: null, kg: null, days: 0 })).toThrow(/days: 0/)
    expect(() => checkEvery({ hours: null, kg: null, days: null })).toThrow(/one of them at least/)
  })
})

describe('what is due', () => {
  test('nothing before nine tenths, then that it comes, then that it is due', () => {
    expect(dueOfUpkeep(stand({ since: { hours: 449, kg: 0, days: 0 } }))).toBeNull()
    expect(dueOfUpkeep(stand({ since: { hours: 460, kg: 0, days: 0 } }))).toMatchObject({ mark: 'fine', weight: 8 })
    const due = dueOfUpkeep(stand({ since: { hours: 512.4, kg: 0, days: 9 } }))!
    expect(due).toMatchObject({ mark: 'look', reason: 'Belts: 512 h at work, every 500.', station: 'change' })
    expect(due.open).toBe('/change/upkeep?printer=Ribble')
  })
  test('the longer over, the more it weighs, and what can burn more than what only spoils', () => {
    const at = (hours: number, kind: UpkeepStand['kind']) =>
      dueOfUpkeep(stand({ kind, since: { hours, kg: 0, days: 0 } }))!.weight
    expect(at(900, 'belts')).toBeGreaterThan(at(510, 'belts'))
    expect(at(510, 'wiring strain')).toBeGreaterThan(at(510, 'belts'))
  })
  test('runs of unknown length are said, never counted as nothing in silence', () => {
    expect(dueOfUpkeep(stand({ since: { hours: 505, kg: 0, days: 0 }, withoutHours: 3 }))!.reason).toBe(
      'Belts: 505 h at work and 3 runs of unknown length, every 500.',
    )
  })
  test('never logged is said', () => {
    const due = dueOfUpkeep(stand({ doneOn: null, found: null, since: { hours: 600, kg: 0, days: 0 } }))!
    expect(due.reason).toMatch(/since it was planned; never logged\.$/)
  })
  test('what needs work stays due, however lately it was looked at', () => {
    const due = dueOfUpkeep(
      stand({ found: 'needs work', says: 'frayed at the idler', since: { hours: 0, kg: 0, days: 0 } }),
    )
    expect(due).toMatchObject({
      mark: 'look',
      reason: 'Belts needs work, found on 3 Sep 2026: frayed at the idler.',
      action: 'Put it right, and log it',
    })
  })
})

describe('guards', () => {
  const at = { days: 400, every: 365 }
  test('one that did not trip stops the printer; one that did is not due', () => {
    expect(dueOfGuard('P', 'bed thermal cut-out', 'failed', at)).toMatchObject({ mark: 'stop' })
    expect(dueOfGuard('P', 'bed thermal cut-out', 'proved', at)).toBeNull()
  })
  test('one that was tested a moment ahead of this clock takes no page down', () => {
    expect(dueOfGuard('P', 'bed thermal cut-out', 'proved', { days: -0.001, every: 365 })).toBeNull()
  })
  test('overdue by the shop’s own interval', () => {
    const last = { atMs: 0, tripped: true, changed: false }
    const day = 86_400_000
    expect(guardState(last, 100 * day)).toBe('proved')
    expect(guardState(last, 100 * day, 90)).toBe('due again')
    expect(dueOfGuard('P', 'bed thermal cut-out', 'due again', { days: 100, every: 90 })!.reason).toBe(
      'The bed thermal cut-out was tested 100 days ago; every 90 is wanted.',
    )
  })
  test('a failed one comes before all else, an untested one before belts', () => {
    const failed = dueOfGuard('P', 'bed thermal cut-out', 'failed', at)!
    const untested = dueOfUntested('P', ['bed thermal cut-out', 'hotend runaway protection'])!
    const belts = dueOfUpkeep(stand({ since: { hours: 510, kg: 0, days: 0 } }))!
    expect(failed.weight).toBeGreaterThan(untested.weight)
    expect(untested.weight).toBeGreaterThan(belts.weight)
    expect(belts.weight).toBeGreaterThan(dueOfNoUpkeep('P').weight)
    expect(untested.reason).toBe('Nobody has tested the bed thermal cut-out and hotend runaway protection.')
    expect(dueOfUntested('P', [])).toBeNull()
  })
})

test('the usual is whole: every kind but “other”, each with an interval, a yearly test of each guard', () => {
  const usual = usualUpkeep(GUARDS)
  expect(new Set(usual.map(u => u.kind))).toEqual(new Set(UPKEEP_KINDS.filter(k => k !== 'other')))
  for (const u of usual) expect(() => checkEvery(u.every), u.name).not.toThrow()
  expect(usual.filter(u => u.guard !== null).every(u => u.every.days === TEST_EVERY_DAYS)).toBe(true)
  // switched off before wiring is touched: common practice, no source
  expect(upkeepHazards('wiring strain').map(c => c.key)).toContain('mains')
})
