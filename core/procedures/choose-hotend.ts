/**
 * Which hotend to take from the shelf: one with which every coming job runs, and that is soonest on. Source: common
 * practice, no source; what a filament asks of a stack, `limits`.
 */
import {
  checkStack,
  hotendMinutes,
  reason,
  stackOf,
  withHotend,
  type Demand,
  type Hotend,
  type Line,
  type Printer,
  type Rules,
} from '../limits'
import { listed } from '../words'
import type { Coming } from './choose'
import { byKeys } from './order'

export interface HotendChoice {
  hotend: Hotend
  /** Nothing speaks against it. */
  good: boolean
  /** In words: what speaks for it, or against it. */
  says: string[]
  minutes: number
}

/** Why it cannot go on a printer as it is; null when it can. The firmware must know its sensor. */
export function notReadyToGo(h: Hotend): string | null {
  if (!h.parts.some(p => p.role === 'sensor')) return 'its sensor is not described'
  return h.nozzle === null ? 'no nozzle is in it' : null
}

/** What a hotend decides; gears, air and bed are the printer's, whichever is taken. */
const OF_HOTEND: readonly Line['key'][] = ['nozzle', 'nozzle insert', 'bore', 'nozzle temperature', 'reading']
/** The firmware's ceiling is set anew when it comes. */
const speaks = (l: Line) => OF_HOTEND.includes(l.key) && l.part?.role !== 'firmware'

/** The practice with the fewest lines that speak against it. */
function against(printer: Printer, headId: number, job: Coming, rules: Rules): { line: Line; demand: Demand } | null {
  const stack = stackOf(printer, headId)
  const judged = job.demands.map(demand => {
    const lines = checkStack(stack, demand, rules).lines.filter(speaks)
    const bad = [...lines.filter(l => l.status === 'short'), ...lines.filter(l => l.status === 'unknown')]
    return { demand, bad }
  })
  const best = judged.sort((a, b) => a.bad.length - b.bad.length)[0]
  const line = best?.bad[0]
  return line ? { line, demand: best.demand } : null
}

/**
 * The hotends in the order in which to take them, each with why. Time in minutes. Throws InputError for a part, a
 * demand or a rule outside its range.
 */
export function rankHotends(
  printer: Printer,
  headId: number,
  hotends: readonly Hotend[],
  coming: readonly Coming[],
  rules: Rules,
): HotendChoice[] {
  return hotends
    .map(hotend => {
      const minutes = hotendMinutes(printer, headId, hotend)
      const lacks = notReadyToGo(hotend)
      const fitted = withHotend(printer, headId, hotend)
      const judged = coming.map(job => ({ job, no: against(fitted, headId, job, rules) }))
      const runs = judged.filter(x => x.no === null).map(x => x.job.name)
      const good = lacks === null && runs.length === coming.length
      const says = [
        ...(lacks === null ? [] : [`Not ready to go: ${lacks}.`]),
        ...(good && runs.length > 0 ? [`Good for ${listed(runs.slice(0, 3), 'and')}.`] : []),
        ...judged.flatMap(({ job, no }) =>
          no === null ? [] : [`${job.name}: ${reason(no.line, no.demand, hotend.nozzle)}.`],
        ),
      ]
      const key = [Number(lacks === null), runs.length, -minutes]
      return { choice: { hotend, good, says, minutes }, key, tag: hotend.tag }
    })
    .sort(byKeys)
    .map(x => x.choice)
}
