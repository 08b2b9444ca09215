/** From a length of filament to its mass and the fibre in it. Source: geometry. */
import { need } from '../numeric'

/** Ranges: diameter in mm, density in g/cm³, length in mm, mass in g. */
export const DIAMETER_MM = [0.5, 5] as const
/** Density of anything that is printed, g/cm³. */
export const DENSITY_G_CM3 = [0.1, 25] as const
const LENGTH_MM = [0, 1e12] as const
const MASS_G = [0, 1e9] as const

/** Cross-section in mm² of a filament of the given diameter, 0.5 to 5 mm. */
export function filamentAreaMm2(diameterMm: number): number {
  need('diameterMm', diameterMm, ...DIAMETER_MM, 'mm')
  return (Math.PI / 4) * diameterMm * diameterMm
}

/** Volume in mm³ of a length in mm, 0 or more. */
export function filamentVolumeMm3(lengthMm: number, diameterMm: number): number {
  need('lengthMm', lengthMm, ...LENGTH_MM, 'mm')
  return filamentAreaMm2(diameterMm) * lengthMm
}

/** Mass in g of a length in mm at a density in g/cm³ (0.1 to 25). */
export function massG(lengthMm: number, diameterMm: number, densityGCm3: number): number {
  need('densityGCm3', densityGCm3, ...DENSITY_G_CM3, 'g/cm³')
  return (filamentVolumeMm3(lengthMm, diameterMm) * densityGCm3) / 1000
}

/** Length in mm that a mass in g, 0 or more, takes. */
export function lengthForMassMm(grams: number, diameterMm: number, densityGCm3: number): number {
  need('grams', grams, ...MASS_G, 'g')
  need('densityGCm3', densityGCm3, ...DENSITY_G_CM3, 'g/cm³')
  return (grams * 1000) / (densityGCm3 * filamentAreaMm2(diameterMm))
}

/** Fibre (filler) mass in g within an extruded mass in g, filler mass fraction 0 to 1. */
export function fibreMassG(extrudedG: number, fillerMassFraction: number): number {
  need('extrudedG', extrudedG, ...MASS_G, 'g')
  need('fillerMassFraction', fillerMassFraction, 0, 1)
  return extrudedG * fillerMassFraction
}
