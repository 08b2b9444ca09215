/** Wear mass M of one run. Source: Archard (1953), J. Appl. Phys. 24, 981, with mass as the sliding distance. */
import { need } from '../numeric'
import { WEAR_KG } from './check'

/**
 * Wear mass in kg from extruded grams, filler mass fraction (0 to 0.95) and abrasivity (above 0, carbon fibre 1).
 * Filled: abrasivity × filler mass. Unfilled (fraction 0): abrasivity × extruded mass.
 */
export function wearKg(extrudedG: number, fillerMassFraction: number, abrasivity: number): number {
  need('extrudedG', extrudedG, 0, 1e9, 'g')
  need('fillerMassFraction', fillerMassFraction, 0, 0.95)
  need('abrasivity', abrasivity, 0, 100)
  return (abrasivity * extrudedG * (fillerMassFraction > 0 ? fillerMassFraction : 1)) / 1000
}

/** The other way: kg of filler (or of filament, when unfilled) that make a wear mass in kg. */
export function fillerKgFor(wear: number, abrasivity: number): number {
  if (wear !== Infinity) need('wear', wear, ...WEAR_KG, 'kg') // nothing left to fear is no limit
  need('abrasivity', abrasivity, 1e-6, 100)
  return wear / abrasivity
}
