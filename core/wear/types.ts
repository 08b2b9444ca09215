/** Words of this folder. Bore and tip in mm; wear mass M in kg, weighted by abrasivity (carbon fibre 1). */

/** `sliding`: d³ = d0³ + 3·κ·0.16·M. `linear`: d = d0 + κ·(0.4/nominal)²·M. */
export type Law = 'sliding' | 'linear'

export type BoreObservation =
  | {
      kind: 'pins'
      /** Wear mass that had gone through when it was gauged, kg ≥ 0. */
      wearKg: number
      /** Largest pin that goes, mm; null when none was tried. */
      goMm: number | null
      /** Smallest pin that does not go, mm; null when none was tried. At least one side is given. */
      noGoMm: number | null
      /** Standard uncertainty of the pins, mm. */
      uMm: number
      /** Marks of the pins, when known: the error of one pin is then shared by all its uses. */
      goPin?: string | null
      noGoPin?: string | null
      /** Standard uncertainty of each, mm, where its own certificate told it; otherwise `uMm`. */
      goUMm?: number
      noGoUMm?: number
      /** How far the decision itself scatters, mm, beside the error of the pins; 0 unless a gauge study told it. */
      uRandomMm?: number
    }
  | { kind: 'value'; wearKg: number; valueMm: number; uMm: number }
  | {
      /** The mouth in a picture: wider than the narrowest section by the flare (see `pictures.ts`). */
      kind: 'picture'
      wearKg: number
      valueMm: number
      /** The random part of its standard uncertainty, mm: what repeats make smaller. */
      uMm: number
      /** The part shared by all pictures of the set-up, mm, and which set-up that is. */
      uSharedMm: number
      setup: string
    }

export interface TipObservation {
  wearKg: number
  tipMm: number
  uMm: number
}

/**
 * How much is left open: chances, 0 to 1, that a reading is no reading of this bore, and that the bore is another one.
 */
export interface Doubt {
  misread: number
  otherBore: number
}

export interface BoreHistory {
  /** Bore as recorded, mm. */
  nominalMm: number
  /** It had been used before it came: how worn it was is not known. */
  wasUsed: boolean
  /** Readings in any order; one at receipt is a reading at wear 0. */
  observations: readonly BoreObservation[]
  /** DOUBT unless given. */
  doubt?: Doubt
}

export interface TipHistory {
  /** Tip length at receipt: mean and standard uncertainty, mm. */
  tip0: { meanMm: number; uMm: number }
  observations: readonly TipObservation[]
}

/** Normal prior of the logarithm of a rate in mm per kg. */
export interface LogNormalPrior {
  meanLn: number
  sd: number
}

/** Quantiles 50, 10, 90, 2.5 and 97.5 %. */
export interface Range {
  median: number
  low80: number
  high80: number
  low95: number
  high95: number
}

/** A distribution of one quantity. */
export interface Spread {
  /** Share of it up to v, 0 to 1. */
  share(v: number): number
  /** Smallest v with a share of at least p (0 < p < 1). */
  quantile(p: number): number
}
