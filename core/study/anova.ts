/**
 * Analysis of variance: sums of squares, degrees of freedom and mean squares, in the square of the readings' unit.
 * Sources: NIST/SEMATECH e-Handbook of Statistical Methods, sections 7.4.3.3 (one way) and 3.2.3.2 (two ways crossed).
 */
import { InputError, need } from '../numeric'

/** Sum of squares of one source of scatter, with its degrees of freedom (at least 1). */
export interface MeanSquare {
  degrees: number
  square: number
  mean: number
}
const meanSquare = (square: number, degrees: number): MeanSquare => ({ degrees, square, mean: square / degrees })

/** Readings that an analysis takes, in any unit. */
const READING = [-1e9, 1e9] as const
const mean = (x: readonly number[]) => x.reduce((s, v) => s + v, 0) / x.length

/**
 * One way: groups of readings, at least two, with at least one reading more than groups. F is the mean square between
 * over the one within; null where nothing scatters within.
 *
 * @example
 * oneWay([[1, 3], [2, 6]]).f // 0.8
 */
export function oneWay(groups: readonly (readonly number[])[]): {
  between: MeanSquare
  within: MeanSquare
  f: number | null
} {
  const n = groups.reduce((s, g) => s + g.length, 0)
  if (groups.length < 2 || groups.some(g => g.length === 0) || n <= groups.length)
    throw new InputError('groups', groups.length, 'at least two groups, none empty, one with two readings')
  for (const v of groups.flat()) need('readings', v, ...READING)
  const all = mean(groups.flat())
  const means = groups.map(mean)
  const between = meanSquare(
    groups.reduce((s, g, i) => s + g.length * (means[i]! - all) ** 2, 0),
    groups.length - 1,
  )
  const within = meanSquare(
    groups.reduce((s, g, i) => s + g.reduce((t, v) => t + (v - means[i]!) ** 2, 0), 0),
    n - groups.length,
  )
  return { between, within, f: within.mean > 0 ? between.mean / within.mean : null }
}

/** Mean squares of a crossed study; people and interaction are null for one person alone. */
export interface Crossed {
  nozzles: MeanSquare
  people: MeanSquare | null
  interaction: MeanSquare | null
  repeats: MeanSquare
  /** How many of each. */
  of: { people: number; nozzles: number; repeats: number }
}

/**
 * Two ways crossed, with repeats: readings[person][nozzle][repeat], as many of each everywhere; at least two nozzles
 * and two repeats.
 */
export function crossed(readings: readonly (readonly (readonly number[])[])[]): Crossed {
  const p = readings.length
  const n = readings[0]?.length ?? 0
  const r = readings[0]?.[0]?.length ?? 0
  const isWhole = readings.every(a => a.length === n && a.every(b => b.length === r))
  if (p < 1 || n < 2 || r < 2 || !isWhole)
    throw new InputError('readings', `${p} × ${n} × ${r}`, 'as many of each everywhere, two nozzles and two repeats')
  for (const v of readings.flat(2)) need('readings', v, ...READING)
  const all = mean(readings.flat(2))
  const cells = readings.map(a => a.map(mean))
  const ofPerson = cells.map(mean)
  const ofNozzle = Array.from({ length: n }, (_, j) => mean(cells.map(a => a[j]!)))
  const around = (means: number[]) => means.reduce((s, m) => s + (m - all) ** 2, 0)
  const repeats = readings.reduce(
    (s, a, i) => s + a.reduce((t, b, j) => t + b.reduce((u, v) => u + (v - cells[i]![j]!) ** 2, 0), 0),
    0,
  )
  const interaction = cells.reduce(
    (s, a, i) => s + a.reduce((t, m, j) => t + (m - ofPerson[i]! - ofNozzle[j]! + all) ** 2, 0),
    0,
  )
  return {
    nozzles: meanSquare(p * r * around(ofNozzle), n - 1),
    people: p < 2 ? null : meanSquare(n * r * around(ofPerson), p - 1),
    interaction: p < 2 ? null : meanSquare(r * interaction, (p - 1) * (n - 1)),
    repeats: meanSquare(repeats, p * n * (r - 1)),
    of: { people: p, nozzles: n, repeats: r },
  }
}
