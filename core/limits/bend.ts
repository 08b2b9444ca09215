/**
 * Bending strain of filament in a tube: (d/2)·|1/R ± 1/R_set|, plus when bent the other way than it curls.
 * Source: beam bending, any strength-of-materials text. Radii and diameter in mm, strains as shares.
 */
import { need, needOne } from '../numeric'

const WAYS = ['with', 'against'] as const

/**
 * Strain (a share) at the outside of the bend; diameter, bend radius and radius of the free curl in mm, `curlMm` null
 * for straight filament.
 */
export function bendStrain(diameterMm: number, bendMm: number, curlMm: number | null, way: 'with' | 'against'): number {
  need('diameterMm', diameterMm, 0.5, 5, 'mm')
  need('bendMm', bendMm, 1, 1e6, 'mm')
  if (curlMm !== null) need('curlMm', curlMm, 5, 1e6, 'mm')
  needOne('way', way, WAYS)
  const curl = curlMm === null ? 0 : 1 / curlMm
  return (diameterMm / 2) * Math.abs(1 / bendMm + (way === 'against' ? curl : -curl))
}

/**
 * Tightest bend radius in mm at a strain at break, with a safety factor ≥ 1; Infinity when even a straight path is too
 * much.
 */
export function tightestBend(
  diameterMm: number,
  strainAtBreak: number,
  curlMm: number | null,
  way: 'with' | 'against',
  safety = 1,
): number {
  need('diameterMm', diameterMm, 0.5, 5, 'mm')
  need('strainAtBreak', strainAtBreak, 0.001, 10)
  need('safety', safety, 1, 20)
  if (curlMm !== null) need('curlMm', curlMm, 5, 1e6, 'mm')
  needOne('way', way, WAYS)
  const curl = curlMm === null ? 0 : 1 / curlMm
  const most = strainAtBreak / safety / (diameterMm / 2)
  const curvature = way === 'against' ? most - curl : most + curl
  return curvature > 0 ? 1 / curvature : Infinity
}
