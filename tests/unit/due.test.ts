/** The list of what is due: what comes first, in which groups, and what a calendar is told of it. */
import ICAL from 'ical.js'
import { describe, expect, test } from 'vitest'
import {
  comesInDays,
  dueOfBed,
  dueOfCertificate,
  dueOfSensor,
  dueOfSpoolOut,
  dueOfSurvey,
  dueOfUnchecked,
  keyOf,
} from '#core/schedule'
import type { DueItem } from '#shared/answers/due'
import { dueGroups } from '../../app/lib/due'
import { calendarText } from '../../server/records/due/calendar'

describe('rules', () => {
  test('a sensor that failed weighs more than one that is due, and that more than one nobody checked', () => {
    const failed = dueOfSensor('P', 'bed', { failed: true, isDue: true, nextInH: null })!
    const late = dueOfSensor('P', 'bed', { failed: false, isDue: true, nextInH: -12.4 })!
    const never = dueOfUnchecked('P', ['bed', 'chamber'])!
    expect([failed.weight, late.weight, never.weight]).toEqual(
      [failed.weight, late.weight, never.weight].sort((a, b) => b - a),
    )
    expect(late.reason).toBe('The sensor of the bed wants its next check, due since 12 h at heat.')
    expect(never.reason).toBe('Nobody has checked its bed and chamber sensors.')
    expect(dueOfSensor('P', 'bed', { failed: false, isDue: false, nextInH: 40 })).toBeNull()
    expect(dueOfUnchecked('P', [])).toBeNull()
  })
  test('a chamber without a survey that holds, one of a year ago, one of last month', () => {
    expect(dueOfSurvey('P', null)!.reason).toMatch(/No survey/)
    expect(dueOfSurvey('P', 366)!.reason).toMatch(/366 days ago/)
    expect(dueOfSurvey('P', 30)).toBeNull()
  })
  test('a certificate is told before it runs out, and again when it has', () => {
    expect(dueOfCertificate('Probe', 90)).toBeNull()
    expect(dueOfCertificate('Probe', 12)).toMatchObject({
      mark: 'fine',
      reason: 'The certificate of Probe runs out in 12 days.',
    })
    expect(dueOfCertificate('Probe', -3)).toMatchObject({ mark: 'look' })
  })
  test('a spool in room air: by the hours that are left', () => {
    expect(dueOfSpoolOut('S-07', 3)).toMatchObject({ action: 'Put it into its box' })
    expect(dueOfSpoolOut('S-07', 0)).toMatchObject({ action: 'Dry it, then into its box' })
    expect(dueOfSpoolOut('S-07', 40)).toBeNull()
  })
  test('when it comes: by the calendar or by the work of late, whichever is first', () => {
    const since = { hours: 400, kg: 0, days: 10 }
    expect(comesInDays({ hours: 500, kg: null, days: 180 }, since, { hours: 10, kg: 0 })).toBe(10)
    expect(comesInDays({ hours: 500, kg: null, days: 15 }, since, { hours: 10, kg: 0 })).toBe(5)
    expect(comesInDays({ hours: 500, kg: null, days: null }, since, { hours: 0, kg: 0 })).toBeNull()
    expect(comesInDays({ hours: 300, kg: null, days: null }, since, { hours: 0, kg: 0 })).toBe(0)
  })
  test('the same thing keeps its key while its numbers change; two tasks have two', () => {
    const of = (name: string, reason: string) => ({ ...dueOfBed('P', false, reason, 'Turn back'), of: name })
    expect(keyOf(of('a', '0.18 mm'), 'P')).toBe(keyOf(of('a', '0.21 mm'), 'P'))
    expect(keyOf(of('a', 'x'), 'P')).not.toBe(keyOf(of('b', 'x'), 'P'))
  })
})

const item = (more: Partial<DueItem>): DueItem => ({
  key: String(more.reason ?? 'k'),
  mark: 'look',
  about: null,
  reason: 'a reason',
  action: 'Do it',
  station: 'change',
  open: '/change',
  weight: 10,
  printer: 'Ribble',
  person: null,
  on: null,
  snoozed: null,
  ...more,
})

test('groups keep the order; what somebody has in hand comes before anybody’s', () => {
  const items = [
    item({ reason: '1', printer: null }),
    item({ reason: '2', person: 'Night technician' }),
    item({ reason: '3' }),
  ]
  const names = (by: Parameters<typeof dueGroups>[1]) =>
    dueGroups(items, by, d => d).map(g => `${g.name} ${g.items.length}`)
  expect(names('printer')).toEqual(['The shop 1', 'Ribble 2'])
  expect(names('person')).toEqual(['Night technician 1', 'Anybody 2'])
  expect(names('weight')).toEqual(['When a person comes by 3'])
})

describe('iCalendar, read by a parser that is not ours (ical.js)', () => {
  const now = new Date('2026-11-29T22:30:00Z')
  const items = [
    item({
      reason: 'cable-guide.gcode failed at 60 %',
      action: 'Look at its nozzle',
      about: 'N-014',
      person: 'Day technician',
    }),
    item({ reason: 'comes', on: '2026-12-04T10:00:00.000Z', action: 'Comes; soon, "now"' }),
    item({ reason: 'late', snoozed: { id: 1, until: '2026-12-02T08:00:00.000Z', reason: 'no part', by: 'Shop lead' } }),
    item({
      reason: 'a long one',
      printer: 'A printer with a name that is much longer than a line of a calendar, which folds',
    }),
  ]
  const text = calendarText(items, 'Hollin Mill', 'Pacific/Auckland', now)
  const events = new ICAL.Component(ICAL.parse(text) as never).getAllSubcomponents('vevent').map(e => new ICAL.Event(e))
  test('an event of a whole day for each, on the day of the shop', () => {
    expect(events.map(e => e.startDate.toString())).toEqual(['2026-11-30', '2026-12-04', '2026-12-02', '2026-11-30'])
    for (const e of events) {
      expect(e.startDate.isDate).toBe(true)
      expect(e.endDate.subtractDate(e.startDate).days).toBe(1)
    }
    expect(new Set(events.map(e => e.uid)).size).toBe(4)
    expect(events[1]!.summary).toBe('Ribble: Comes; soon, "now"')
  })
  test('no job, no person, no reason leaves the shop; lines fold at 75 bytes (RFC 5545, 3.1)', () => {
    for (const word of ['cable-guide', 'gcode', 'Day technician', 'Shop lead', 'no part'])
      expect(text).not.toContain(word)
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
  })
})
