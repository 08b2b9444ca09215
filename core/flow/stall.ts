/**
 * Why the share falls: the hotend melts no faster, the extruder's grip gives way, or this nozzle holds it back. Hotter
 * melts faster and grips no better; another nozzle changes neither. What a bench did not try it does not tell.
 * Source: common practice, no source.
 */
import { need } from '../numeric'
import { compareBenches, pairedDifference, type Compared } from './compare'
import type { Cell, Shares } from './shares'
import type { BenchResult } from './sustained'

/** This much hotter shows whether melting is the limit, °C. */
export const HOTTER_C = 20
/** At least this much apart two temperatures tell. */
const APART_C = 15
/** Twenty degrees move the share beyond a melting limit by more than this. */
const MOVES = 0.03
const ONE_SIDED_95 = 1.645

export type Moved = 'moved' | 'stayed' | 'cannot tell'
export interface Move {
  coolC: number
  hotC: number
  verdict: Moved
  /** Mean gain of the flows that fell short when cool, with its standard uncertainty. */
  gain: number
  u: number
}

/**
 * Whether the fall moved between the two outermost temperatures of a bench: the flows that fell short of `accepted` at
 * the cooler one, paired with themselves at the hotter. Null where only one temperature was tried, they are too near to
 * each other, or nothing fell short. Throws InputError.
 */
export function stallMoved(s: Shares, r: BenchResult, accepted: number): Move | null {
  need('accepted', accepted, 0, 1)
  const temperatures = [...new Set(s.cells.map(c => c.temperatureC))]
  const [coolC, hotC] = [temperatures[0], temperatures.at(-1)]
  if (coolC === undefined || hotC === undefined || hotC - coolC < APART_C) return null
  const both = r.cells
    .filter(c => c.temperatureC === coolC && c.relative < accepted)
    .flatMap(cool => {
      const hot = s.cells.find(x => x.temperatureC === hotC && x.flowMm3S === cool.flowMm3S)
      return hot ? [[cool, hot] as const] : []
    })
  if (both.length === 0) return null
  const { difference: gain, u } = pairedDifference(both)
  return { coolC, hotC, verdict: movedBy(gain, u), gain, u }
}

function movedBy(gain: number, u: number): Moved {
  if (gain - ONE_SIDED_95 * u > MOVES / 2) return 'moved'
  return gain + ONE_SIDED_95 * u < MOVES ? 'stayed' : 'cannot tell'
}

export type Limit =
  'nothing falls short' | 'melting' | 'grip' | 'grip or this nozzle' | 'this nozzle' | 'not this nozzle' | 'cannot tell'

/** A bench on this head with the same filament and another nozzle. */
export interface Beside {
  nozzle: string
  shares: Shares
  result: BenchResult
}
export interface LimitFound {
  limit: Limit
  move: Move | null
  /** Against each other nozzle; null where they share no cell that fell short. */
  against: { nozzle: string; compared: Compared | null }[]
  /** What would tell more. */
  next: 'hotter' | 'another nozzle' | 'faster' | 'repeat' | null
}

/**
 * What holds the flow back on this head. `beside` are benches of other nozzles on the same head with the same lot. mm,
 * shares. Throws InputError.
 */
export function limitOf(
  own: { shares: Shares; result: BenchResult; lengthMm: number },
  beside: readonly Beside[],
  accepted: number,
): LimitFound {
  const { shares, result, lengthMm } = own
  const move = stallMoved(shares, result, accepted)
  const fell = (c: { temperatureC: number; flowMm3S: number }) => (x: Cell) =>
    x.temperatureC === c.temperatureC && x.flowMm3S === c.flowMm3S
  const short = result.cells.filter(c => c.relative < accepted)
  const against = beside.map(b => {
    const beyond = [...short, ...b.result.cells.filter(c => c.relative < accepted)]
    return {
      nozzle: b.nozzle,
      compared: compareBenches(b.shares, shares, lengthMm, x => beyond.some(c => fell(c)(x))),
    }
  })
  const found = (limit: Limit, next: LimitFound['next']): LimitFound => ({ limit, move, against, next })
  if (short.length === 0) return found('nothing falls short', 'faster')
  const told = against.flatMap(a => a.compared ?? [])
  // one nozzle that does better on the same head, or less badly: the head can do it
  if (told.some(c => c.verdict === 'worse')) return found('this nozzle', null)
  const alike = told.some(c => c.verdict === 'better' || (c.verdict === 'no difference' && c.needs === null))
  if (move?.verdict === 'moved') return found('melting', null)
  if (move?.verdict === 'stayed') return alike ? found('grip', null) : found('grip or this nozzle', 'another nozzle')
  if (move?.verdict === 'cannot tell') return found(alike ? 'not this nozzle' : 'cannot tell', 'repeat')
  return alike ? found('not this nozzle', 'hotter') : found('cannot tell', 'hotter')
}

/**
 * Whether a nozzle delivers less than at its own first bench, on the same head with the same material: what stands in
 * its way came since. Null where they share no cell. Throws InputError.
 */
export function droppedSince(
  first: { shares: Shares; result: BenchResult },
  now: { shares: Shares; result: BenchResult },
  lengthMm: number,
): (Compared & { dropped: boolean }) | null {
  // each against its own slowest blobs: another spool of the same material may be another diameter
  const compared = compareBenches(relative(first), relative(now), lengthMm)
  return compared && { ...compared, dropped: compared.verdict === 'worse' && compared.difference < -MOVES / 2 }
}
const relative = (b: { shares: Shares; result: BenchResult }): Shares => ({
  ...b.shares,
  cells: b.shares.cells.map(c => {
    const f = b.result.cells.find(x => x.temperatureC === c.temperatureC && x.flowMm3S === c.flowMm3S)!
    const by = c.share === 0 ? 1 : f.relative / f.fit
    return { ...c, share: c.share * by, u: Math.max(f.uRelative, c.u * by) }
  }),
})
