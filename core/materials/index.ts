/**
 * Mass and density of filled filament. Units: mm, g, g/cm³; fractions by mass from 0 to 1. What is outside its range
 * is refused by an InputError that names the field and what is allowed; sources stand at the head of each file.
 */
export { checkDensity, compositeDensity, FILLER_DENSITY, fillerFraction, MOST_FILLER } from './mixture'
export type { DensityCheck } from './mixture'
export {
  DENSITY_G_CM3,
  DIAMETER_MM,
  filamentAreaMm2,
  filamentVolumeMm3,
  lengthForMassMm,
  massG,
  fibreMassG,
} from './mass'
export { BELOW_GLASS_C, solidOf } from './solid'
export type { Solid, Transitions } from './solid'
export { heaviestSpool, spoolFill, spoolMass } from './spool-mass'
export type { HeaviestSpool, SpoolMass, SpoolMassFacts, SpoolUse, SpoolWeighing } from './spool-mass'
