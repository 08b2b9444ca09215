/**
 * What a new reading of the bore is expected to be from all other readings, and how unusual the one found is. A bore
 * recorded as another size, a misread pin, another nozzle in hand, an earlier gauge that was wrong: each shows here,
 * before it is stored.
 */
import { fastNormalCdf, InputError, need } from '../numeric'
import { BORE_U_MM, checkHistory, checkReading } from './check'
import { rangeOf } from './crossing'
import { offsetPrior } from './pictures'
import { boreAt, borePosterior, type BorePosterior } from './posterior'
import { uOfPins } from './readings'
import { DOUBT } from './start'
import type { BoreHistory, BoreObservation, Law, LogNormalPrior, Range, Spread } from './types'

/** A reading with a smaller chance than this is asked about before it is stored. */
export const UNUSUAL = 0.01

export interface Expected {
  /** Two-sided chance of a reading as far out, 0 to 1. */
  chance: number
  /** What the bore was expected to be, mm. */
  bore: Range
}

/**
 * How usual a reading is under the other readings of its nozzle, whose bore is taken as recorded: x = d(M) + N(0, u);
 * a value v has chance 2·min(P(x ≤ v), P(x ≥ v)), pins 2·min(P(x < no-go), P(x ≥ go)), a missing side counting 1.
 */
export function expectedReading(
  others: BoreHistory,
  reading: BoreObservation,
  prior: LogNormalPrior,
  law: Law = 'sliding',
): Expected {
  checkHistory(others)
  checkReading(reading)
  const recorded: BoreHistory = { ...others, doubt: { ...(others.doubt ?? DOUBT), otherBore: 0 } }
  const p = borePosterior(recorded, prior, law)
  const spread = boreAt(p, reading.wearKg)
  return { chance: chanceOf(spread, asBore(reading, p, recorded)), bore: rangeOf(spread) }
}

/**
 * Which readings the others outweigh: as unusual under all readings together, themselves among them, as one that would
 * be asked about. They count as misread until another reading bears them out. In the order of the readings.
 */
export function takenForMisread(history: BoreHistory, prior: LogNormalPrior, law: Law = 'sliding'): boolean[] {
  const p = borePosterior(history, prior, law)
  return history.observations.map((o, i) => chanceOf(boreAt(p, o.wearKg), asBore(o, p, history, i)) < UNUSUAL)
}

/** A reading of the bore itself. */
type OfBore = Exclude<BoreObservation, { kind: 'picture' }>

/**
 * A picture as a value of the bore: less what the other pictures of its set-up show beyond it, which widens its
 * uncertainty.
 */
function asBore(o: BoreObservation, p: BorePosterior, of: BoreHistory, own = -1): OfBore {
  if (o.kind === 'pins') return { ...o, uMm: uOfPins(o) }
  if (o.kind === 'value') return o
  const rest = of.observations.filter((_, i) => i !== own)
  const beyond = beyondBore(p, { ...of, observations: rest }, o)
  const uMm = Math.hypot(o.uMm, beyond.uOfBoreMm)
  return { kind: 'value', wearKg: o.wearKg, valueMm: o.valueMm - beyond.meanMm, uMm }
}

/** Two-sided chance of a reading as far out as this one. */
function chanceOf(spread: Spread, reading: OfBore): number {
  const below = (mm: number) => belowWithNoise(spread, mm, reading.uMm)
  if (reading.kind === 'value') {
    const p = below(reading.valueMm)
    return Math.min(1, 2 * Math.min(p, 1 - p))
  }
  const underNoGo = reading.noGoMm === null ? 1 : below(reading.noGoMm)
  const overGo = reading.goMm === null ? 1 : 1 - below(reading.goMm)
  return Math.min(1, 2 * Math.min(underNoGo, overGo))
}

/** P(d + N(0, u) ≤ mm): the share of bores up to each place within reach, times the noise that lies there. */
function belowWithNoise(spread: Spread, mm: number, uMm: number): number {
  const steps = 200
  const reach = 8
  let sum = 0
  let before = 0
  for (let i = 0; i <= steps; i++) {
    const z = reach * ((2 * i) / steps - 1)
    const upTo = i === steps ? 1 : fastNormalCdf(z)
    const middle = z - reach / steps
    // noise of −z takes a bore up to mm + z·u below mm; the noise is symmetric
    sum += (upTo - before) * spread.share(mm + middle * uMm)
    before = upTo
  }
  return sum
}

/**
 * Which of the earlier readings would have to be wrong for this one to be usual: for each, the chance of this reading
 * without it, most usual first, only those that make it usual.
 */
export function wouldExplain(
  others: BoreHistory,
  reading: BoreObservation,
  prior: LogNormalPrior,
  law: Law = 'sliding',
): { index: number; chance: number }[] {
  if (others.observations.length > 500) throw new InputError('observations', others.observations.length, 'at most 500')
  need('wearKg', reading.wearKg, 0, 1e6, 'kg')
  return others.observations
    .map((_, index) => {
      const rest = { ...others, observations: others.observations.filter((__, k) => k !== index) }
      return { index, chance: expectedReading(rest, reading, prior, law).chance }
    })
    .filter(e => e.chance >= UNUSUAL)
    .sort((a, b) => b.chance - a.chance)
}

/** How much wider pictures of one set-up show a nozzle than its bore is: mean and standard uncertainty, mm. */
export interface Beyond {
  meanMm: number
  uMm: number
  /** What of it is left when the bore is known. */
  uOfBoreMm: number
}

/**
 * By how much the pictures of a set-up stand above the bore as all readings tell it: the set-up's own error and the
 * flare of the mouth together (`pictures.ts`). Normal about the medians of the bore, so it says when a difference
 * lasts, and is no part of the posterior. mm.
 */
export function beyondBore(
  p: BorePosterior,
  of: BoreHistory,
  { setup, uSharedMm }: { setup: string; uSharedMm: number },
): Beyond {
  checkHistory(of)
  need('uSharedMm', uSharedMm, ...BORE_U_MM, 'mm')
  const { omega, meanMm } = offsetPrior(of.nominalMm, uSharedMm)
  let weight = 1 / (omega ** 2 - meanMm ** 2)
  let sum = weight * meanMm
  let boreU = 0
  for (const o of of.observations) {
    if (o.kind !== 'picture' || o.setup !== setup) continue
    const w = o.uMm ** -2
    const bore = boreAt(p, o.wearKg)
    weight += w
    sum += w * (o.valueMm - bore.quantile(0.5))
    boreU = Math.max(boreU, (bore.quantile(0.9) - bore.quantile(0.1)) / WIDTH_80)
  }
  const uOfBoreMm = weight ** -0.5
  return { meanMm: sum / weight, uMm: Math.hypot(uOfBoreMm, boreU), uOfBoreMm }
}
/** From the 10 % to the 90 % quantile of a normal, in standard deviations. */
const WIDTH_80 = 2.563
