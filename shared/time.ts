/**
 * The shop's zone: times are stored and sent as ISO in UTC, and typed and shown in the zone that the shop has set,
 * whatever the browser's and the database's are.
 */
import { fromAbsolute, parseDateTime, toCalendarDateTime, toZoned } from '@internationalized/date'

/** Those that were asked for and are known: asking takes longer than all else that is done with a time. */
const zones = new Set<string>()
/** Whether a name is a zone of the IANA database that this machine knows, or UTC; no abbreviation, no offset. */
export function isZone(name: string): boolean {
  if (zones.has(name)) return true
  if (name !== 'UTC' && !/^[A-Z][A-Za-z_]+\/[A-Za-z0-9_+/-]+$/.test(name)) return false
  try {
    if (new Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone === '') return false
    zones.add(name)
    return true
  } catch {
    return false
  }
}
/** The zone itself, or UTC for a name that is none. */
const zoneOr = (name: string): string => (isZone(name) ? name : 'UTC')

/** Value of a date-and-time field for a moment: `2026-11-24T09:40` on the shop's clock. */
export function toField(iso: string, zone: string): string {
  const ms = Date.parse(iso)
  if (Number.isNaN(ms)) return ''
  return toCalendarDateTime(fromAbsolute(ms, zoneOr(zone)))
    .toString()
    .slice(0, 16)
}

/**
 * The moment that a field's value names on the shop's clock; null when it names none. An hour that the clock skips in
 * spring counts as the hour after; of one that it shows twice in autumn the first counts.
 */
export function fromField(text: string, zone: string): string | null {
  try {
    return toZoned(parseDateTime(text), zoneOr(zone), 'compatible').toDate().toISOString()
  } catch {
    return null
  }
}

const formats = new Map<string, Intl.DateTimeFormat>()
function format(zone: string, options: Intl.DateTimeFormatOptions): Intl.DateTimeFormat {
  const key = zone + JSON.stringify(options)
  const known = formats.get(key)
  if (known) return known
  const made = new Intl.DateTimeFormat('en-GB', { timeZone: zoneOr(zone), ...options })
  formats.set(key, made)
  return made
}
const clock: Intl.DateTimeFormatOptions = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }

/** "24 Nov 09:40", with the year when it is another one. */
export function when(iso: string, zone: string, now = new Date()): string {
  const d = new Date(iso)
  const year = format(zone, { year: 'numeric' })
  const other: Intl.DateTimeFormatOptions = year.format(d) === year.format(now) ? {} : { year: 'numeric' }
  return format(zone, { day: '2-digit', month: 'short', ...other, ...clock })
    .format(d)
    .replace(',', '')
}
/**
 * Until when something goes on, and what is done then: "S-01 dries until about 24 Nov 14:30. The timer goes on"; of a
 * time that is over "S-01 had its hours by 24 Nov 14:30: end it".
 */
export function untilWords(
  ahead: { is: string; then: string },
  over: { was: string; now: string },
  iso: string,
  zone: string,
  now = new Date(),
): string {
  const at = when(iso, zone, now)
  return Date.parse(iso) > now.getTime()
    ? `${ahead.is} until about ${at}. ${ahead.then}`
    : `${over.was} by ${at}: ${over.now}`
}
/** "24 Nov 2026". */
export const day = (iso: string, zone: string): string =>
  format(zone, { day: 'numeric', month: 'short', year: 'numeric' }).format(new Date(iso))
/** "Tue 24 Nov, 09:40", now. */
export const nowLine = (zone: string, now = new Date()): string =>
  format(zone, { weekday: 'short', day: 'numeric', month: 'short', ...clock }).format(now)

/** A text of the server's with each ISO time in it said on the shop's clock. */
export const withTimes = (text: string, zone: string): string =>
  text.replace(/\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(?:\.\d+)?Z/g, iso => when(iso, zone))
