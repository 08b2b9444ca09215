/**
 * The week of a date: weeks begin on Monday, and the first of a year is the one with its first Thursday.
 * Source: ISO 8601-1:2019, 3.1.1.23 and 5.5.
 */
import { InputError } from '../numeric'

const DAY_MS = 86_400_000

/**
 * Year and number of the week that a day (year-month-day) lies in.
 *
 * @example
 * isoWeek('2021-01-03') // {"year":2020,"week":53}
 */
export function isoWeek(day: string): { year: number; week: number } {
  const ms = /^\d{4}-\d\d-\d\d$/.test(day) ? Date.parse(`${day}T00:00:00Z`) : NaN
  if (Number.isNaN(ms)) throw new InputError('day', day, 'a day as 2026-11-30')
  // Sunday is the seventh
  const weekday = new Date(ms).getUTCDay() || 7
  const thursday = new Date(ms + (4 - weekday) * DAY_MS)
  const year = thursday.getUTCFullYear()
  return { year, week: 1 + Math.floor((thursday.getTime() - Date.UTC(year, 0, 1)) / (7 * DAY_MS)) }
}
