/**
 * The plane through heights of a bed, by least squares: z = z0 + sx·(x − x0) + sy·(y − y0), about the middle of the
 * points, which makes its three normal equations fall apart into one and two. mm. Source: ordinary least squares.
 */
import { InputError, need } from '../numeric'

/** Heights above or below where the nozzle touches, mm. */
export const HEIGHT_MM = [-5, 5] as const
/** Places on a bed from its front left corner, mm; a little beside it too. */
export const PLACE_MM = [-100, 2000] as const
/** Points closer to one line than this tell nothing across it, mm. */
export const FEWEST_APART_MM = 10

export interface BedPoint {
  xMm: number
  yMm: number
  /** Height of the bed there: higher is nearer to the nozzle. */
  zMm: number
}
export type Place = Pick<BedPoint, 'xMm' | 'yMm'>

export interface Plane {
  /** The middle of its points, and the height there. */
  x0Mm: number
  y0Mm: number
  z0Mm: number
  /** mm per mm, to the right and to the back. */
  slopeX: number
  slopeY: number
}

/** Height of a plane at a place, mm; `at` in mm from the front left corner. */
export const planeAt = (p: Plane, at: Place): number =>
  p.z0Mm + p.slopeX * (at.xMm - p.x0Mm) + p.slopeY * (at.yMm - p.y0Mm)

/**
 * The plane that fits heights best. Places −100 to 2000 mm, heights −5 to 5 mm; at least three points that lie 10 mm
 * or more off one line. Throws InputError.
 *
 * @example
 * fitPlane([{ xMm: 0, yMm: 0, zMm: 0 }, { xMm: 100, yMm: 0, zMm: 0.1 }, { xMm: 0, yMm: 100, zMm: 0 }]).slopeX // 0.001
 */
export function fitPlane(points: readonly BedPoint[]): Plane {
  for (const [i, p] of points.entries()) {
    need(`points.${i}.xMm`, p.xMm, ...PLACE_MM, 'mm')
    need(`points.${i}.yMm`, p.yMm, ...PLACE_MM, 'mm')
    need(`points.${i}.zMm`, p.zMm, ...HEIGHT_MM, 'mm')
  }
  const off = offLineMm(points)
  if (off < FEWEST_APART_MM)
    throw new InputError('points', points.length, `at least three that lie ${FEWEST_APART_MM} mm or more off one line`)
  const x0Mm = mean(points.map(p => p.xMm))
  const y0Mm = mean(points.map(p => p.yMm))
  const z0Mm = mean(points.map(p => p.zMm))
  let xx = 0
  let xy = 0
  let yy = 0
  let xz = 0
  let yz = 0
  for (const p of points) {
    const [x, y, z] = [p.xMm - x0Mm, p.yMm - y0Mm, p.zMm - z0Mm]
    xx += x * x
    xy += x * y
    yy += y * y
    xz += x * z
    yz += y * z
  }
  const d = xx * yy - xy * xy
  return { x0Mm, y0Mm, z0Mm, slopeX: (xz * yy - yz * xy) / d, slopeY: (yz * xx - xz * xy) / d }
}

/** How far the farthest point lies off the line through the two that are farthest apart, mm. */
function offLineMm(points: readonly Place[]): number {
  if (points.length < 3) return 0
  const far = (from: Place) => points.reduce((a, b) => (apart(from, b) > apart(from, a) ? b : a))
  const a = far(points[0]!)
  const b = far(a)
  const length = apart(a, b)
  if (length === 0) return 0
  return Math.max(
    ...points.map(p => Math.abs((b.xMm - a.xMm) * (p.yMm - a.yMm) - (b.yMm - a.yMm) * (p.xMm - a.xMm)) / length),
  )
}
const apart = (a: Place, b: Place) => Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm)
const mean = (list: readonly number[]) => list.reduce((s, v) => s + v, 0) / list.length
