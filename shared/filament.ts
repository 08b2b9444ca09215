/**
 * What the filament is that a spool, or without one a material alone, brings to the nozzle. One rule for the check, the
 * run, the lists and the forms: what is entered of the spool counts, else what its material says.
 */
export interface SpoolFacts {
  diameterMm: number
  /** Null where the spool has none of its own. */
  densityGCm3: number | null
  fillerFraction: number | null
}
export interface MaterialFacts {
  densityGCm3: number | null
  fillerFraction: number
}
export interface Filament {
  /** Null where neither spool nor material has one: a length then has no mass. */
  densityGCm3: number | null
  diameterMm: number
  fillerFraction: number
}

/**
 * Mass of an empty spool, g, that nobody weighed: plastic ones of a kilogram weigh so much; common practice, no source.
 */
export const USUAL_TARE_G = 200
/** Diameter of filament, mm, that nothing else tells. */
export const USUAL_DIAMETER_MM = 1.75

/** `readForMm` is the diameter a job file was read for, which counts as long as no spool is chosen. */
export function filamentOfSpool(
  spool: SpoolFacts | null,
  material: MaterialFacts,
  readForMm: number | null = null,
): Filament {
  return {
    densityGCm3: spool?.densityGCm3 ?? material.densityGCm3,
    fillerFraction: spool?.fillerFraction ?? material.fillerFraction,
    diameterMm: spool?.diameterMm ?? readForMm ?? USUAL_DIAMETER_MM,
  }
}

/** Why a job file tells nothing of this spool, or null: its lengths were read for another diameter. */
export function readForAnother(
  spool: { tag: string; diameterMm: number } | null,
  readForMm: number | null,
): string | null {
  if (!spool || readForMm === null || Math.abs(spool.diameterMm - readForMm) <= 1e-9) return null
  return (
    `The file was read for ${readForMm} mm filament and ${spool.tag} is ${spool.diameterMm} mm; read the ` +
    `file again`
  )
}
