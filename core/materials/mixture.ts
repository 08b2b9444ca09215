/** Density of a void-free mixture and its inverse. Source: rule of mixtures by mass (any composites handbook). */

import { InputError, need } from '../numeric'

/**
 * Density of matrix and filler together, g/cm³: 1/ρ = w/ρ_f + (1 − w)/ρ_m. Valid: densities 0.1 to 25 g/cm³, filler
 * mass fraction 0 to 0.95. Throws InputError naming the field.
 *
 * @example
 * compositeDensity(1.14, 1.8, 0.2) // 1.230 (g/cm³; nylon with a fifth of carbon fibre)
 */
export function compositeDensity(matrixGCm3: number, fillerGCm3: number, fillerMassFraction: number): number {
  need('matrixGCm3', matrixGCm3, 0.1, 25)
  need('fillerGCm3', fillerGCm3, 0.1, 25)
  need('fillerMassFraction', fillerMassFraction, 0, 0.95)
  return 1 / (fillerMassFraction / fillerGCm3 + (1 - fillerMassFraction) / matrixGCm3)
}

/**
 * Filler mass fraction that a measured density stands for (the inverse of `compositeDensity`), 0 to 0.95.
 * Throws InputError when the measured density is not between matrix and filler, or both are equal.
 */
export function fillerFraction(measuredGCm3: number, matrixGCm3: number, fillerGCm3: number): number {
  need('matrixGCm3', matrixGCm3, 0.1, 25)
  need('fillerGCm3', fillerGCm3, 0.1, 25)
  if (matrixGCm3 === fillerGCm3) throw new InputError('fillerGCm3', fillerGCm3, 'a density other than the matrix')
  need('measuredGCm3', measuredGCm3, Math.min(matrixGCm3, fillerGCm3), Math.max(matrixGCm3, fillerGCm3))
  return (1 / measuredGCm3 - 1 / matrixGCm3) / (1 / fillerGCm3 - 1 / matrixGCm3)
}

/**
 * Density in g/cm³ of fillers: the middle of 2.54 to 2.58 for glass, 1.75 to 1.80 for carbon fibre (handbooks); others
 * vary too much to say.
 */
export const FILLER_DENSITY: Readonly<Record<string, number | undefined>> = {
  'glass fibre': 2.56,
  'carbon fibre': 1.78,
}

/** The largest mass fraction of filler that a filament is entered with; common practice, no source. */
export const MOST_FILLER = 0.8

export interface DensityCheck {
  expectedGCm3: number
  offShare: number
  disagrees: boolean
}

/**
 * A data sheet's density against the mixture rule for its filler, g/cm³ and mass fraction. Off by more than 1 %: voids
 * or a different grade are the usual reasons. Null when the filler's density is not known.
 */
export function checkDensity(
  statedGCm3: number,
  matrixGCm3: number,
  filler: string,
  fillerMassFraction: number,
): DensityCheck | null {
  need('statedGCm3', statedGCm3, 0.1, 25)
  const fillerGCm3 = filler === 'none' ? matrixGCm3 : FILLER_DENSITY[filler]
  if (fillerGCm3 === undefined) return null
  const expectedGCm3 = compositeDensity(matrixGCm3, fillerGCm3, fillerMassFraction)
  const offShare = statedGCm3 / expectedGCm3 - 1
  return { expectedGCm3, offShare, disagrees: Math.abs(offShare) > 0.01 }
}
