/**
 * The flow that a nozzle on its head sustains: where the delivered share, counted against the slowest blobs of the same
 * lot, falls under what the shop accepts. Its range: where the fit less, and plus, 1.28 standard uncertainties falls
 * under it, each a tenth of the way further between the two flows that were tested there, as the true curve may leave
 * the straight line.
 * Source: common practice, no source; the tenth holds for sharp and smooth bends (tests/reference/flow.test.ts).
 */
import { need, ONE_SIDED_90 } from '../numeric'
import { monotoneTable } from './monotone'
import type { Cell, Shares } from './shares'

/** The share that counts as delivered unless the shop says otherwise. */
export const ACCEPTED_SHARE = 0.95
/** What a shop may accept. */
export const ACCEPTED_RANGE = [0.7, 0.995] as const

export type Reach = 'between' | 'at least the highest tested' | 'under the lowest tested'
export interface Sustained {
  temperatureC: number
  reach: Reach
  /** mm³/s: where the fit crosses; the highest tested where none is below, the lowest where the first already is. */
  flowMm3S: number
  /** 80 %, mm³/s; null at an open end. */
  low80: number | null
  high80: number | null
}
/** A cell after the fit. `relative` is its share of what the slowest blobs delivered. */
export interface Fitted extends Cell {
  fit: number
  relative: number
  uRelative: number
}
export interface BenchResult {
  cells: Fitted[]
  /** What the slowest, hottest blobs delivered of the nominal mass, with its own standard uncertainty. */
  level: { share: number; u: number }
  /** What `relative` is counted against: those blobs, or the nominal mass where they cannot be what the head feeds. */
  against: 'slowest' | 'nominal'
  /** Slow blobs deliver alike: the level is what is fed, not the beginning of the fall. */
  plateau: boolean
  sustained: Sustained[]
}

/** Two shares are alike within this many standard uncertainties of their difference. */
const ALIKE_AT = 2
/** A level this many of the filament's standard uncertainties under nominal is not explained by the filament. */
const EXPLAINS_AT = 2

/**
 * What a bench tells. `accepted` 0.7 to 0.995. Null while any temperature has under two flows. Throws InputError.
 */
export function benchResult(s: Shares, accepted: number): BenchResult | null {
  need('accepted', accepted, ...ACCEPTED_RANGE)
  const temperatures = [...new Set(s.cells.map(c => c.temperatureC))]
  const flows = [...new Set(s.cells.map(c => c.flowMm3S))].sort((a, b) => a - b)
  if (temperatures.length === 0 || temperatures.some(t => s.cells.filter(c => c.temperatureC === t).length < 2))
    return null
  const at = (t: number, f: number) => s.cells.find(c => c.temperatureC === t && c.flowMm3S === f)
  const fit = monotoneTable(
    temperatures.map(t =>
      flows.map(f => {
        const c = at(t, f)
        return c ? { value: c.share, weight: 1 / c.u ** 2 } : null
      }),
    ),
  )
  const fitted = s.cells.map(c => ({
    ...c,
    fit: fit[temperatures.indexOf(c.temperatureC)]![flows.indexOf(c.flowMm3S)]!,
  }))
  const hottest = fitted.filter(c => c.temperatureC === temperatures.at(-1))
  const [slowest, second] = hottest as [(typeof fitted)[number], (typeof fitted)[number]]
  const level = { share: slowest.fit, u: slowest.u }
  const plateau = slowest.share - second.share <= ALIKE_AT * Math.hypot(slowest.u, second.u)
  const explained = 1 - level.share <= EXPLAINS_AT * Math.hypot(s.nominal.share, level.u)
  const against = plateau || explained ? 'slowest' : 'nominal'
  // where the fall begins with the first step, what is fed is known by the filament alone
  const shared = against === 'slowest' && plateau ? 0 : s.nominal.share
  const by = against === 'slowest' ? level.share : 1
  const cells = fitted.map(c => {
    const own = c === slowest && against === 'slowest' ? 0 : Math.hypot(c.u, against === 'slowest' ? level.u : 0)
    return { ...c, relative: c.fit / by, uRelative: Math.hypot(own / by, shared) }
  })
  return {
    cells,
    level,
    against,
    plateau,
    sustained: temperatures.map(t =>
      sustainedOf(
        t,
        cells.filter(c => c.temperatureC === t),
        accepted,
      ),
    ),
  }
}

/** How far the true curve may leave the straight line between two tested flows, as a share of their distance. */
const LEAVES_LINE = 0.1

function sustainedOf(temperatureC: number, row: readonly Fitted[], accepted: number): Sustained {
  const first = row[0]!
  const last = row.at(-1)!
  const shifted = (by: number) => row.map(c => ({ flowMm3S: c.flowMm3S, share: c.relative + by * c.uRelative }))
  const surely = crossing(falling(shifted(-ONE_SIDED_90)), accepted)
  const perhaps = crossing(falling(shifted(ONE_SIDED_90)), accepted)
  const at = crossing(shifted(0), accepted)
  const low80 = surely.where === 'before' ? null : Math.max(surely.from, surely.flow - LEAVES_LINE * surely.step)
  const high80 = perhaps.where === 'after' ? null : Math.min(perhaps.to, perhaps.flow + LEAVES_LINE * perhaps.step)
  if (at.where === 'after')
    return { temperatureC, reach: 'at least the highest tested', flowMm3S: last.flowMm3S, low80, high80 }
  if (at.where === 'before')
    return { temperatureC, reach: 'under the lowest tested', flowMm3S: first.flowMm3S, low80, high80 }
  return { temperatureC, reach: 'between', flowMm3S: at.flow, low80, high80 }
}

interface Point {
  flowMm3S: number
  share: number
}
/** The same, never rising: where the uncertainties of cells differ, the shifted shares might. */
const falling = (row: readonly Point[]): Point[] => {
  let least = Infinity
  return row.map(p => ({ ...p, share: (least = Math.min(least, p.share)) }))
}

/** Where a falling row crosses a share, on the straight line between the tested flows `from` and `to`. */
function crossing(row: readonly Point[], accepted: number) {
  const first = row[0]!.flowMm3S
  const last = row.at(-1)!.flowMm3S
  const i = row.findIndex(p => p.share < accepted)
  if (i === 0) return { where: 'before' as const, flow: first, from: first, to: first, step: 0 }
  if (i < 0) return { where: 'after' as const, flow: last, from: last, to: last, step: 0 }
  const [a, b] = [row[i - 1]!, row[i]!]
  const step = b.flowMm3S - a.flowMm3S
  const flow = a.flowMm3S + ((a.share - accepted) / (a.share - b.share)) * step
  return { where: 'between' as const, flow, from: a.flowMm3S, to: b.flowMm3S, step }
}

/**
 * What a bench says of a job's setpoint: the hottest tested temperature that is not above it, since hotter never
 * delivers less; null where the job is cooler than all that was tested. °C.
 */
export function sustainedFor(list: readonly Sustained[], setC: number): Sustained | null {
  need('setC', setC, -273, 2000, '°C')
  let best: Sustained | null = null
  for (const s of list) if (s.temperatureC <= setC && (best === null || s.temperatureC > best.temperatureC)) best = s
  return best
}
