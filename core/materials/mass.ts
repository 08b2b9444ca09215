/** From a length of filament to its mass and the fibre in it. Source: geometry. */

/** Cross-section in mm² of a filament of the given diameter in mm (above 0). */
export function filamentAreaMm2(diameterMm: number): number {
  if (!(diameterMm > 0)) throw new RangeError(`diameterMm: ${diameterMm} is not allowed; above 0`)
  return Math.PI / 4 * diameterMm * diameterMm
}

/** Volume in mm³ of a length in mm. */
export function filamentVolumeMm3(lengthMm: number, diameterMm: number): number {
  return filamentAreaMm2(diameterMm) * lengthMm
}

/** Mass in g of a length in mm at a density in g/cm³. */
export function massG(lengthMm: number, diameterMm: number, densityGCm3: number): number {
  return filamentVolumeMm3(lengthMm, diameterMm) * densityGCm3 / 1000
}

/** Length in mm that a mass in g takes. */
export function lengthForMassMm(grams: number, diameterMm: number, densityGCm3: number): number {
  if (!(densityGCm3 > 0)) throw new RangeError(`densityGCm3: ${densityGCm3} is not allowed; above 0`)
  return grams * 1000 / (densityGCm3 * filamentAreaMm2(diameterMm))
}

/** Fibre (filler) mass in g within an extruded mass in g, filler mass fraction 0 to 1. */
export function fibreMassG(extrudedG: number, fillerMassFraction: number): number {
  return extrudedG * fillerMassFraction
}
