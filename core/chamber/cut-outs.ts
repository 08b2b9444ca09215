/**
 * What stops a heater that runs away, and when it was last proved to. Common practice, no source; the maker's manual
 * and local codes come first.
 */
import { AT_MS, need } from '../numeric'

/** What can be tested: by the firmware, and by switches of their own that need no firmware. */
export const GUARDS = [
  'hotend runaway protection',
  'bed runaway protection',
  'chamber runaway protection',
  'hotend thermal cut-out',
  'bed thermal cut-out',
  'chamber heater cut-out',
] as const
export type Guard = (typeof GUARDS)[number]

/**
 * Each has to trip once a year at least, and after a change of its heater or sensor: common practice, no source. A shop
 * may want it more often.
 */
export const TEST_EVERY_DAYS = 365
/** How often anything can be wanted, days. */
export const TEST_DAYS = [1, 3650] as const
const DAY_MS = 86_400_000

/** Heater and sensor that each guard watches: with another one it is not proved any more. */
export const GUARDED: Record<Guard, readonly [heater: string, sensor: string]> = {
  'hotend runaway protection': ['heater', 'sensor'],
  'bed runaway protection': ['bed heater', 'bed sensor'],
  'chamber runaway protection': ['chamber heater', 'chamber sensor'],
  'hotend thermal cut-out': ['heater', 'sensor'],
  'bed thermal cut-out': ['bed heater', 'bed sensor'],
  'chamber heater cut-out': ['chamber heater', 'chamber sensor'],
}

export type GuardState = 'proved' | 'changed since' | 'due again' | 'failed' | 'never tested'
/**
 * How a guard stands at `nowMs`, by its latest test; ms since 1970. `changed`: its heater or sensor was changed since;
 * `everyDays` 1 to 3650, how often this shop wants it tested.
 */
export function guardState(
  last: { atMs: number; tripped: boolean; changed: boolean } | null,
  nowMs: number,
  everyDays: number = TEST_EVERY_DAYS,
): GuardState {
  need('nowMs', nowMs, ...AT_MS, 'ms')
  need('everyDays', everyDays, ...TEST_DAYS, 'days')
  if (last === null) return 'never tested'
  need('atMs', last.atMs, ...AT_MS, 'ms')
  if (!last.tripped) return 'failed'
  if (last.changed) return 'changed since'
  return nowMs - last.atMs > everyDays * DAY_MS ? 'due again' : 'proved'
}
