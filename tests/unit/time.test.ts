/** The shop's clock: typed and shown in its zone, whatever the machine's is. Zones and rules: the IANA database. */
import { describe, expect, test } from 'vitest'
import { day, fromField, isZone, nowLine, toField, untilWords, when, withTimes } from '#shared/time'

test.each(['UTC', 'Europe/London', 'America/Argentina/Buenos_Aires', 'America/New_York', 'Asia/Tokyo'])(
  '%s is a zone',
  name => expect(isZone(name)).toBe(true),
)
test.each(['', 'GMT', 'CET', 'Berlin', 'Europe/Nowhere', '+01:00', 'utc', 'Europe/', '../etc'])('“%s” is none', name =>
  expect(isZone(name)).toBe(false),
)

describe('across the change of the clock, Europe/London 2026: forward 29 March 01:00, back 25 October 02:00', () => {
  const zone = 'Europe/London'
  test.each([
    ['2026-03-29T00:30', '2026-03-29T00:30:00.000Z'],
    ['2026-03-29T02:30', '2026-03-29T01:30:00.000Z'],
    ['2026-10-25T00:30', '2026-10-24T23:30:00.000Z'],
    ['2026-10-25T02:30', '2026-10-25T02:30:00.000Z'],
    ['2026-07-01T12:00', '2026-07-01T11:00:00.000Z'],
  ])('%s is %s, there and back', (text, iso) => {
    expect(fromField(text, zone)).toBe(iso)
    expect(toField(iso, zone)).toBe(text)
  })
  test('an hour that is skipped counts as the one after, and the field says so', () => {
    const iso = fromField('2026-03-29T01:30', zone)!
    expect(iso).toBe('2026-03-29T01:30:00.000Z')
    expect(toField(iso, zone)).toBe('2026-03-29T02:30')
  })
  test('of an hour that comes twice the first counts', () => {
    expect(fromField('2026-10-25T01:30', zone)).toBe('2026-10-25T00:30:00.000Z')
    expect(toField('2026-10-25T01:30:00.000Z', zone)).toBe('2026-10-25T01:30')
  })
})

test('what is no time is none', () => {
  for (const text of ['', 'x', '2026-02-30T10:00', '2026-11-24T25:00', '24.11.2026'])
    expect(fromField(text, 'Europe/London'), text).toBeNull()
  expect(toField('', 'UTC')).toBe('')
  expect(toField('soon', 'UTC')).toBe('')
})
test('shown on the shop’s clock, with the year when it is another', () => {
  const now = new Date('2026-11-24T12:00:00Z')
  expect(when('2026-07-01T11:00:00.000Z', 'Europe/London', now)).toBe('01 Jul 12:00')
  expect(when('2025-12-31T15:30:00.000Z', 'Asia/Tokyo', now)).toBe('01 Jan 00:30')
  expect(when('2025-12-31T15:30:00.000Z', 'Europe/London', now)).toBe('31 Dec 2025 15:30')
  expect(day('2026-07-01T23:30:00.000Z', 'Europe/London')).toBe('2 Jul 2026')
  expect(nowLine('America/New_York', now)).toBe('Tue 24 Nov, 07:00')
})
test('a name that is no zone is shown in UTC', () => {
  expect(toField('2026-07-01T11:00:00.000Z', 'Europe/Nowhere')).toBe('2026-07-01T11:00')
})
test('times inside a text of the server', () => {
  const year = new Date().getUTCFullYear()
  expect(withTimes(`S-07 is in Dryer 1 since ${year}-07-01T11:00:00.000Z. End it first`, 'Europe/London')).toBe(
    'S-07 is in Dryer 1 since 01 Jul 12:00. End it first',
  )
  expect(withTimes('PA6-CF20 of 2026-07', 'Europe/London')).toBe('PA6-CF20 of 2026-07')
})
test('a time that is over is not said to come', () => {
  const until = (now: string) =>
    untilWords(
      { is: 'S-01 dries', then: 'The timer goes on.' },
      { was: 'S-01 had its hours', now: 'weigh it.' },
      '2026-11-26T14:30:00Z',
      'UTC',
      new Date(now),
    )
  expect(until('2026-11-26T10:00:00Z')).toBe('S-01 dries until about 26 Nov 14:30. The timer goes on.')
  expect(until('2026-11-26T21:40:00Z')).toBe('S-01 had its hours by 26 Nov 14:30: weigh it.')
})
