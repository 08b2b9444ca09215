/**
 * What the scatter of a crossed study is made of, all effects random: repeatability (the same person, the same nozzle),
 * reproducibility (between people: of the people themselves, and of people with nozzles), and the nozzles' own spread.
 * With p people, n nozzles and r repeats the mean squares are expected to be
 *   repeats σ²,   interaction σ² + rσ²pn,   people σ² + rσ²pn + nrσ²p,   nozzles σ² + rσ²pn + prσ²n,
 * and each part is worked out from its differences; a negative one is taken for zero, and named.
 *
 * Ranges are generalised (fiducial) intervals: each mean square is its expectation times χ²/degrees, so an expectation
 * is drawn as mean square × degrees / χ², and the parts follow. The draws are evenly spread quantiles, paired by a
 * fixed seed: the same answer every time. They hold the truth about as often as they say (Burdick, Borror & Montgomery
 * 2003, Journal of Quality Technology 35, 342, from memory); see the tests.
 */
import { inverseChiSquare, mulberry32, need, shuffled } from '../numeric'
import type { Crossed, MeanSquare } from './anova'

/** A standard deviation with its 80 % range, in the unit of the readings. */
export interface Part {
  sd: number
  low80: number
  high80: number
}

/** Parts that came out negative, and count as zero. */
export type Negative = 'people' | 'people with nozzles' | 'nozzles'

export interface Components {
  repeatability: Part
  /** Null for one person alone: nobody to compare with. */
  reproducibility: Part | null
  nozzles: Part
  /** Repeatability and reproducibility together: one reading by anybody; by this one person where there is one. */
  reading: Part
  negative: Negative[]
}

const DRAWS = 2000
const SEED = 80_20

/**
 * Parts and ranges from mean squares as `crossed` makes them. `addedSd` (unit of the readings) is scatter that the
 * readings cannot show, as the step of a pin: it is added to every reading.
 */
export function componentsOf(c: Crossed, addedSd = 0): Components {
  need('addedSd', addedSd, 0, 1e9)
  const { people: p, nozzles: n, repeats: r } = c.of
  const parts = (repeats: number, interaction: number | null, people: number | null, nozzles: number) => {
    const pooled = interaction ?? repeats
    return {
      repeats,
      people: people === null ? 0 : (people - pooled) / (n * r),
      interaction: interaction === null ? 0 : (interaction - repeats) / r,
      nozzles: (nozzles - pooled) / (p * r),
    }
  }
  const found = parts(c.repeats.mean, c.interaction?.mean ?? null, c.people?.mean ?? null, c.nozzles.mean)
  const added = addedSd ** 2
  const drawn = drawsOf([c.repeats, c.interaction, c.people, c.nozzles]).map(([e, i = null, q = null, m]) =>
    parts(e!, i, q, m!),
  )
  const part = (of: (x: typeof found) => number): Part => {
    const all = drawn.map(of).sort((a, b) => a - b)
    const at = (share: number) => Math.sqrt(all[Math.round(share * (DRAWS - 1))]!)
    const sd = Math.sqrt(of(found))
    // where the likeliest value lies on the edge the draws may all lie above it
    return { sd, low80: Math.min(sd, at(0.1)), high80: Math.max(sd, at(0.9)) }
  }
  const above = (v: number) => Math.max(0, v)
  const between = (x: typeof found) => above(x.people) + above(x.interaction)
  const negative: Negative[] = []
  if (found.people < 0) negative.push('people')
  if (found.interaction < 0) negative.push('people with nozzles')
  if (found.nozzles < 0) negative.push('nozzles')
  return {
    repeatability: part(x => x.repeats + added),
    reproducibility: p < 2 ? null : part(between),
    nozzles: part(x => above(x.nozzles)),
    reading: part(x => x.repeats + added + between(x)),
    negative,
  }
}

/** Draws of the expected mean squares; null stays null. */
function drawsOf(squares: readonly (MeanSquare | null)[]): (number | null)[][] {
  const random = mulberry32(SEED)
  const columns = squares.map(
    s =>
      s &&
      shuffled(
        quantilesOf(s.degrees).map(q => s.square / q),
        random,
      ),
  )
  return Array.from({ length: DRAWS }, (_, i) => columns.map(c => c && c[i]!))
}

/** Evenly spread quantiles of χ²: the same few degrees come again and again. */
function quantilesOf(degrees: number): number[] {
  let q = known.get(degrees)
  if (!q) {
    if (known.size >= 100) known.clear()
    q = Array.from({ length: DRAWS }, (_, i) => inverseChiSquare((i + 0.5) / DRAWS, degrees))
    known.set(degrees, q)
  }
  return q
}
const known = new Map<number, number[]>()
