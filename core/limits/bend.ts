/**
 * Bending strain of filament in a tube: (d/2)·|1/R ± 1/R_set|, plus when bent the other way than it curls.
 * Source: beam bending, any strength-of-materials text. Radii and diameter in mm, strains as shares.
 */
import { LimitsInputError } from './types'

function need(field: string, value: number, low: number, high: number): void {
  if (!(value >= low && value <= high)) throw new LimitsInputError(field, value, `${low} to ${high}`)
}

/** Strain at the outside of the bend. `curlMm` null: straight filament. */
export function bendStrain(diameterMm: number, bendMm: number, curlMm: number | null, way: 'with' | 'against'): number {
  need('diameterMm', diameterMm, 0.5, 5)
  need('bendMm', bendMm, 1, 1e6)
  if (curlMm !== null) need('curlMm', curlMm, 5, 1e6)
  const curl = curlMm === null ? 0 : 1 / curlMm
  return diameterMm / 2 * Math.abs(1 / bendMm + (way === 'against' ? curl : -curl))
}

/** Tightest bend radius in mm at a strain at break, with a safety factor ≥ 1; Infinity when even a straight path is too much. */
export function tightestBend(diameterMm: number, strainAtBreak: number, curlMm: number | null, way: 'with' | 'against', safety = 1): number {
  need('diameterMm', diameterMm, 0.5, 5)
  need('strainAtBreak', strainAtBreak, 0.001, 10)
  need('safety', safety, 1, 20)
  if (curlMm !== null) need('curlMm', curlMm, 5, 1e6)
  const curl = curlMm === null ? 0 : 1 / curlMm
  const most = strainAtBreak / safety / (diameterMm / 2)
  const curvature = way === 'against' ? most - curl : most + curl
  return curvature > 0 ? 1 / curvature : Infinity
}
