/** What is due of what is under way: wet spools, dryings and soaks that are over. Times in ms since 1970. */
import { water } from '../words'
import { weightOf, type Due } from './due'

/** A soak that nobody ended is over after so long, h: nobody soaks a chamber longer; common practice, no source. */
export const LONGEST_SOAK_H = 12

/** Minutes until something that began at `fromMs` and takes `minutes` is over; negative when it is. */
export const minutesLeft = (fromMs: number, minutes: number, nowMs: number): number =>
  minutes - (nowMs - fromMs) / 60_000

/** Whether a soak that has no end yet still counts as under way or just over. */
export const soakStands = (fromMs: number, minutes: number, nowMs: number): boolean =>
  minutesLeft(fromMs, minutes, nowMs) > -LONGEST_SOAK_H * 60

/** A spool on a printer that holds more water than usually prints, both in wt%. */
export const dueOfWetSpool = (tag: string, waterWt: number, usualWt: number): Due => ({
  mark: 'look',
  about: tag,
  reason: `${tag} on it is too wet: ${water(waterWt)}, it usually prints up to ${water(usualWt)}.`,
  action: 'Dry it',
  station: 'prepare',
  open: `/prepare/spool/${tag}`,
  weight: weightOf(40),
})

/** A drying that has had its hours; null before. */
export const dueOfDrying = (tag: string, fromMs: number, plannedH: number, nowMs: number): Due | null =>
  minutesLeft(fromMs, plannedH * 60, nowMs) > 0
    ? null
    : {
        mark: 'look',
        about: tag,
        reason: `${tag} has dried its ${plannedH} h.`,
        action: 'Weigh it and end the drying',
        station: 'prepare',
        open: `/prepare/spool/${tag}`,
        weight: weightOf(45),
      }

/** A soak that has had its minutes; null before, and when it is long forgotten. */
export const dueOfSoak = (printer: string, fromMs: number, minutes: number, nowMs: number): Due | null =>
  minutesLeft(fromMs, minutes, nowMs) > 0 || !soakStands(fromMs, minutes, nowMs)
    ? null
    : {
        mark: 'look',
        about: null,
        reason: `Its soak of ${Math.round(minutes)} min is over.`,
        action: 'May I start',
        station: 'prepare',
        open: `/prepare/check?printer=${encodeURIComponent(printer)}`,
        weight: weightOf(50),
      }
