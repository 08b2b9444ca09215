/**
 * Two benches cell by cell: the same lot on the same head, two nozzles, or one nozzle then and now. Paired differences
 * leave out what both share: density, diameter, steps.
 * Source: weighted mean of paired differences, JCGM 100:2008 H.3 in kind; 1.96 and 0.84 are the two-sided 95 % and the
 * one-sided 80 % points of the normal distribution.
 */
import { need } from '../numeric'
import type { Cell, Shares } from './shares'

/** A difference of shares that a comparison should be able to show. */
export const SHOWS = 0.03
const SURE_AT = 1.96
const POWER_AT = 0.84

export interface Compared {
  /** Second less first, as a share of the nominal mass, with its standard uncertainty. */
  difference: number
  u: number
  cells: number
  verdict: 'better' | 'worse' | 'no difference'
  /** The smallest difference that these two would have shown, four times in five. */
  shows: number
  /** To show SHOWS: metres in each blob, or blobs in each cell; null where they do already. */
  needs: { metres: number; repeats: number } | null
}

/** A share with its standard uncertainty. */
type Sure = Pick<Cell, 'share' | 'u'>
/** Mean of second less first over pairs, weighted by 1/u², with its standard uncertainty; at least one pair. */
export function pairedDifference(both: readonly (readonly [Sure, Sure])[]): { difference: number; u: number } {
  let sum = 0
  let weight = 0
  for (const [x, y] of both) {
    const w = 1 / (x.u ** 2 + y.u ** 2)
    sum += w * (y.share - x.share)
    weight += w
  }
  return { difference: sum / weight, u: 1 / Math.sqrt(weight) }
}

/** Cells that both have: their differences, at any temperature and flow. */
const pairs = (a: Shares, b: Shares) =>
  a.cells.flatMap(x => {
    const y = b.cells.find(c => c.temperatureC === x.temperatureC && c.flowMm3S === x.flowMm3S)
    return y ? [[x, y] as [Cell, Cell]] : []
  })

/**
 * The second bench against the first over the cells that both have, of blobs of `lengthMm`; `where` leaves cells out.
 * Null when they share none. Throws InputError.
 */
export function compareBenches(
  first: Shares,
  second: Shares,
  lengthMm: number,
  where: (c: Cell) => boolean = () => true,
): Compared | null {
  need('lengthMm', lengthMm, 1, 1e5, 'mm')
  const both = pairs(first, second).filter(([x]) => where(x))
  if (both.length === 0) return null
  const { difference, u } = pairedDifference(both)
  const shows = (SURE_AT + POWER_AT) * u
  const repeats = Math.min(...both.map(([x, y]) => Math.min(x.blobs, y.blobs)))
  const times = (shows / SHOWS) ** 2
  const sure = Math.abs(difference) > SURE_AT * u
  const side = difference > 0 ? 'better' : 'worse'
  return {
    difference,
    u,
    cells: both.length,
    verdict: sure ? side : 'no difference',
    shows,
    needs:
      times <= 1
        ? null
        : { metres: Math.ceil((Math.sqrt(times) * lengthMm) / 100) / 10, repeats: Math.ceil(times * repeats) },
  }
}
