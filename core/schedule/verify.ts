/** What is due of what temperatures, chambers and references rest on. Days and hours; common practice, no source. */
import { need, needIfKnown } from '../numeric'
import { listed } from '../words'
import { weightOf, type Due } from './due'

const at = (page: string, printer: string) =>
  ({ about: null, station: 'verify', open: `/verify${page}?printer=${encodeURIComponent(printer)}` }) as const

/**
 * A sensor by its checks: one that failed, or one of which the next check is due since so many hours at heat; null
 * while neither. `of` names it within its printer. `nextInH` −1e7 to 1e7 h, null where nobody can tell.
 */
export function dueOfSensor(
  printer: string,
  of: string,
  s: { failed: boolean; isDue: boolean; nextInH: number | null },
): Due | null {
  needIfKnown('nextInH', s.nextInH, -1e7, 1e7, 'h')
  if (s.failed)
    return {
      ...at('', printer),
      mark: 'look',
      reason: `The sensor of the ${of} failed its check.`,
      action: 'Put it right, and check it again',
      of,
      weight: weightOf(45, 1, 20),
    }
  if (!s.isDue) return null
  const since = s.nextInH === null ? '' : `, due since ${Math.max(0, Math.round(-s.nextInH))} h at heat`
  return {
    ...at('', printer),
    mark: 'look',
    reason: `The sensor of the ${of} wants its next check${since}.`,
    action: 'Check the sensor',
    of,
    weight: weightOf(20, 0.4, 40),
  }
}

/** Sensors of a printer that nobody has checked, as one line; null where there is none. */
export function dueOfUnchecked(printer: string, of: readonly string[]): Due | null {
  if (of.length === 0) return null
  return {
    ...at('', printer),
    mark: 'look',
    reason: `Nobody has checked its ${listed([...of], 'and')} ${of.length === 1 ? 'sensor' : 'sensors'}.`,
    action: 'Check them against a reference',
    weight: weightOf(12, 0.5, 20),
  }
}

/** A survey of a chamber is made again after so many days. */
export const SURVEY_DAYS = 365
/** An enclosed printer by its survey that holds: none, or an old one; null while it is neither. `days` −1 to 1e6. */
export function dueOfSurvey(printer: string, days: number | null): Due | null {
  needIfKnown('days', days, -1, 1e6, 'days')
  if (days !== null && days <= SURVEY_DAYS) return null
  return {
    ...at('/chamber', printer),
    mark: 'look',
    reason:
      days === null
        ? 'No survey of its chamber holds as it stands now.'
        : `Its chamber was surveyed ${Math.round(days)} days ago.`,
    action: 'Survey the chamber',
    weight: weightOf(10, 0.5, 24),
  }
}

/** So long before a certificate runs out it is said. */
const WARN_DAYS = 30
/** Days until any date that can be written: the years 1 to 9999. */
const LEFT_DAYS = [-4e6, 4e6] as const
/** A reference's certificate that runs out in so many days, or has; null while it is far. −4e6 to 4e6 days. */
export const dueOfCertificate = (name: string, leftDays: number): Due | null =>
  runsOut(name, leftDays, { station: 'verify', open: '/verify', about: null, what: 'every check made with it' })
/** The same of a pin gauge, by its mark: its error is in every gauge made with it. */
export const dueOfPin = (mark: string, leftDays: number): Due | null =>
  runsOut(`pin ${mark}`, leftDays, {
    station: 'stores',
    open: `/stores/pins?show=${encodeURIComponent(mark)}`,
    about: mark,
    what: 'every gauge made with it',
  })

function runsOut(
  name: string,
  leftDays: number,
  { what, ...at }: Pick<Due, 'station' | 'open' | 'about'> & { what: string },
): Due | null {
  need('leftDays', leftDays, ...LEFT_DAYS, 'days')
  if (leftDays > WARN_DAYS) return null
  const days = Math.abs(Math.floor(leftDays))
  return {
    ...at,
    mark: leftDays < 0 ? 'look' : 'fine',
    reason:
      leftDays < 0
        ? `The certificate of ${name} ran out ${days} days ago: ${what} is as old.`
        : `The certificate of ${name} runs out in ${days} days.`,
    action: 'Have it calibrated',
    of: name,
    weight: leftDays < 0 ? weightOf(30, 0.5, 40) : weightOf(6),
  }
}

/** What a bed's last measure or a lost Z asks, at the page of the bed. */
export const dueOfBed = (printer: string, z: boolean, reason: string, action: string): Due => ({
  about: null,
  mark: 'look',
  station: 'change',
  open: `/change/level?printer=${encodeURIComponent(printer)}`,
  reason,
  action,
  // a Z that was lost drives the nozzle into the bed
  weight: z ? weightOf(52) : weightOf(18, 0.5, 20),
})
