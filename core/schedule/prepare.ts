/** What is due of what is under way: wet spools, dryings and soaks that are over. Times in ms since 1970. */
import { AT_MS, need } from '../numeric'
import { hours, leftWords, water } from '../words'
import { ANY, weightOf, type Due } from './due'

/** A soak that nobody ended is over after so long, h: nobody soaks a chamber longer; common practice, no source. */
export const LONGEST_SOAK_H = 12

/** Minutes until something that began at `fromMs` and takes `minutes` is over; negative when it is. */
export function minutesLeft(fromMs: number, minutes: number, nowMs: number): number {
  need('fromMs', fromMs, ...AT_MS, 'ms')
  need('nowMs', nowMs, ...AT_MS, 'ms')
  need('minutes', minutes, ...ANY, 'min')
  return minutes - (nowMs - fromMs) / 60_000
}

/** Whether a soak that has no end yet still counts as under way or just over. */
export const soakStands = (fromMs: number, minutes: number, nowMs: number): boolean =>
  minutesLeft(fromMs, minutes, nowMs) > -LONGEST_SOAK_H * 60

const ofSpool = (tag: string) => ({ about: tag, station: 'prepare', open: `/prepare/spool/${tag}` }) as const

/** A spool on a printer that holds more water than usually prints, both in wt%. */
export function dueOfWetSpool(tag: string, waterWt: number, usualWt: number): Due {
  need('waterWt', waterWt, ...ANY, 'wt%')
  need('usualWt', usualWt, ...ANY, 'wt%')
  return {
    ...ofSpool(tag),
    mark: 'look',
    reason: `${tag} on it is too wet: ${water(waterWt)}, it usually prints up to ${water(usualWt)}.`,
    action: 'Dry it',
    weight: weightOf(40),
  }
}

/** A spool on a printer that nobody dried for sure. */
export const dueOfUnknownSpool = (tag: string): Due => ({
  ...ofSpool(tag),
  mark: 'look',
  reason: `How wet ${tag} on it is nobody knows: it was never dried for sure.`,
  action: 'Dry it',
  weight: weightOf(26),
})

/** Less than this on a spool runs out in the next job, g and share of its label; common practice, no source. */
const RUNS_OUT_G = 100
const RUNS_OUT_SHARE = 0.1
/** A spool on a printer that runs out, g left of g on its label; null while there is enough. */
export function dueOfLowSpool(tag: string, leftG: number, netG: number): Due | null {
  need('leftG', leftG, ...ANY, 'g')
  need('netG', netG, ...ANY, 'g')
  if (leftG >= Math.max(RUNS_OUT_G, RUNS_OUT_SHARE * netG)) return null
  return {
    ...ofSpool(tag),
    mark: 'look',
    reason: `${tag} on it runs out: ${Math.max(0, leftG).toFixed(0)} g left.`,
    action: 'Weigh it, or load another',
    weight: weightOf(24),
  }
}

/** A spool in room air that is on no printer, h until it is too wet, 0 when it is; null while it stays dry for long. */
export function dueOfSpoolOut(tag: string, leftH: number): Due | null {
  need('leftH', leftH, 0, Infinity, 'h')
  if (leftH > SPOOL_OUT_H) return null
  return {
    ...ofSpool(tag),
    mark: 'look',
    reason:
      leftH === 0 ? `${tag} lies in room air, too wet by now.` : `${tag} lies in room air: dry for ${hours(leftH)}.`,
    action: leftH === 0 ? 'Dry it, then into its box' : 'Put it into its box',
    weight: weightOf(leftH === 0 ? 16 : 24),
  }
}
/** Longer than a shift is no matter of today. */
const SPOOL_OUT_H = 12

/** A drying that has had its hours, or is under way. */
export function dueOfDrying(tag: string, fromMs: number, plannedH: number, nowMs: number): Due {
  need('plannedH', plannedH, ...ANY, 'h')
  const left = minutesLeft(fromMs, plannedH * 60, nowMs)
  if (left > 0)
    return {
      ...ofSpool(tag),
      mark: 'fine',
      reason: `${tag} dries its ${plannedH} h: ${leftWords(left)}.`,
      action: 'See it',
      weight: weightOf(3),
    }
  return {
    ...ofSpool(tag),
    mark: 'look',
    reason: `${tag} has dried its ${plannedH} h.`,
    action: 'Weigh it and end the drying',
    weight: weightOf(45),
  }
}

/** A soak that has had its minutes, or is under way; null when it is long forgotten. */
export function dueOfSoak(printer: string, fromMs: number, minutes: number, nowMs: number): Due | null {
  if (!soakStands(fromMs, minutes, nowMs)) return null
  const left = minutesLeft(fromMs, minutes, nowMs)
  const at = { about: null, station: 'prepare' } as const
  const name = encodeURIComponent(printer)
  if (left > 0)
    return {
      ...at,
      mark: 'fine',
      reason: `Soaks its ${Math.round(minutes)} min: ${leftWords(left)}.`,
      action: 'See it',
      open: `/prepare/soak?printer=${name}`,
      weight: weightOf(4),
    }
  return {
    ...at,
    mark: 'look',
    reason: `Its soak of ${Math.round(minutes)} min is over.`,
    action: 'May I start',
    open: `/prepare/check?printer=${name}`,
    weight: weightOf(50),
  }
}

/** A part that cools: held, let down, or due to be taken off; null when it is long forgotten. */
export function dueOfCoolDown(
  what: string,
  how: 'warm' | 'cold',
  fromMs: number,
  minutes: number,
  nowMs: number,
): Due | null {
  if (!soakStands(fromMs, minutes, nowMs)) return null
  const left = minutesLeft(fromMs, minutes, nowMs)
  const at = { about: null, station: 'change', open: '/change/cool' } as const
  if (left > 0)
    return { ...at, mark: 'fine', reason: `${what} cools: ${leftWords(left)}.`, action: 'See it', weight: weightOf(4) }
  return {
    ...at,
    mark: 'look',
    reason:
      how === 'warm' ? `${what}: off the glass now, warm, in heat gloves.` : `${what} has cooled: it may come off.`,
    action: 'Take it off, and log it',
    // on glass it gets worse by the minute, elsewhere it waits
    weight: weightOf(how === 'warm' ? 70 : 40),
  }
}
