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
  }
  | { kind: 'value', wearKg: number, valueMm: number, uMm: number }

export interface TipObservation { wearKg: number, tipMm: number, uMm: number }

export interface BoreHistory {
  nominalMm: number
  /** Bore at receipt: mean and standard uncertainty, mm. */
  d0: { meanMm: number, uMm: number }
  observations: BoreObservation[]
}

export interface TipHistory {
  /** Tip length at receipt: mean and standard uncertainty, mm. */
  tip0: { meanMm: number, uMm: number }
  observations: TipObservation[]
}

/** Normal prior of the logarithm of a rate in mm per kg. */
export interface LogNormalPrior { meanLn: number, sd: number }

export interface Range { median: number, low80: number, high80: number, low95: number, high95: number }

export class WearInputError extends Error {
  constructor(readonly field: string, readonly given: unknown, readonly allowed: string) {
    super(`${field}: ${String(given)} is not allowed; ${allowed}`)
    this.name = 'WearInputError'
  }
}

export function need(field: string, value: number, low: number, high: number): void {
  if (!(value >= low && value <= high)) throw new WearInputError(field, value, `${low} to ${high}`)
}
