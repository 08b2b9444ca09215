/**
 * Whether another hotend of the shelf is quicker than changing parts, minutes.
 * Source: common practice, no source; the minutes are those of `changes` and `hotend`.
 */
import { compile, findChanges, type Offers, type Swap } from './changes'
import { checkHotend, hotendMinutes, isHotendRole, withHotend, type Hotend } from './hotend'
import type { Demand, Printer, Rules } from './types'

export interface Instead {
  hotend: Hotend
  /** What has to be fitted beside it. */
  swaps: Swap[]
  /** All of it, minutes. */
  minutes: number
  /** What changing parts takes, minutes; null when no set of parts makes it run. */
  partsMinutes: number | null
}

/**
 * The hotend of the shelf with which a job runs sooner than by changing parts; null when there is none, or nothing on
 * the hotend has to be changed. Throws InputError for a demand, a part or a rule outside its range.
 */
export function hotendInstead(
  printer: Printer,
  headId: number,
  demand: Demand,
  offers: Offers,
  rules: Rules,
  hotends: readonly Hotend[],
): Instead | null {
  hotends.forEach(checkHotend)
  if (hotends.length === 0) return null
  const find = (p: Printer) => findChanges(compile(p, headId, offers, rules), [demand])
  const parts = find(printer)
  if (parts && !parts.swaps.some(s => s.role === 'nozzle' || isHotendRole(s.role))) return null
  let best: Instead | null = null
  for (const hotend of hotends) {
    const found = find(withHotend(printer, headId, hotend))
    // what is not known of it would stay not known
    if (found === null || (found.unknown && !parts?.unknown)) continue
    const minutes = hotendMinutes(printer, headId, hotend) + found.minutes
    if (minutes >= (best?.minutes ?? parts?.minutes ?? Infinity)) continue
    best = { hotend, swaps: found.swaps, minutes, partsMinutes: parts?.minutes ?? null }
  }
  return best
}
