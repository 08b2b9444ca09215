/**
 * How even the air is: the plane T = a + g·(x, y, z) through the probes by least squares, and its slope in °C per 100
 * mm. Three probes always lie in one plane, and so may four: then what changes across that plane is not known, and it
 * says so. mm, °C. Ordinary least squares: textbook form.
 */
import { need, ONE_SIDED_90, solve, symmetricEigen } from '../numeric'

/** Positions in a chamber, mm from its left, front and bed. */
export const POSITION_MM = [-2000, 2000] as const
/** Probes that stray less from one plane (rms, mm) are as good as in it: nobody places them better. */
const THICK_MM = 10
const FEWEST_PROBES = 4

export interface ProbeAt {
  xMm: number
  yMm: number
  zMm: number
  c: number
}
export type Evenness =
  | { known: true; per100Mm: number; u90: number; towards: readonly [number, number, number] }
  | { known: false; why: 'fewer than four probes' | 'all probes in one plane' }

/**
 * The slope of the air, °C per 100 mm, which way it gets warmer (a unit vector to the right, back and top) and U, one
 * sided 90 %. `uC`: standard uncertainty of one probe against another, 0 to 20 °C.
 *
 * @example
 * const corner = { xMm: 0, yMm: 0, zMm: 0, c: 60 }
 * const others = [{ ...corner, xMm: 100 }, { ...corner, yMm: 100 }, { ...corner, zMm: 100, c: 64 }]
 * evenness([corner, ...others], 0).per100Mm // 4
 */
export function evenness(probes: readonly ProbeAt[], uC: number): Evenness {
  need('uC', uC, 0, 20, '°C')
  for (const [i, p] of probes.entries()) {
    for (const k of ['xMm', 'yMm', 'zMm'] as const) need(`probes.${i}.${k}`, p[k], ...POSITION_MM, 'mm')
    need(`probes.${i}.c`, p.c, -300, 2000, '°C')
  }
  if (probes.length < FEWEST_PROBES) return { known: false, why: 'fewer than four probes' }
  const n = probes.length
  const mean = (k: keyof ProbeAt) => probes.reduce((a, p) => a + p[k], 0) / n
  const middle = { x: mean('xMm'), y: mean('yMm'), z: mean('zMm'), c: mean('c') }
  const rows = probes.map(p => [p.xMm - middle.x, p.yMm - middle.y, p.zMm - middle.z])
  const scatter = [0, 1, 2].map(i => [0, 1, 2].map(j => rows.reduce((a, r) => a + r[i]! * r[j]!, 0)))
  const thinnest = Math.sqrt(symmetricEigen(scatter).values[0]! / n)
  if (!(thinnest >= THICK_MM)) return { known: false, why: 'all probes in one plane' }
  const right = [0, 1, 2].map(i => rows.reduce((a, r, k) => a + r[i]! * (probes[k]!.c - middle.c), 0))
  const g = solve(scatter, right)!
  const size = Math.hypot(...g)
  const way = size === 0 ? [0, 0, 1] : g.map(v => v / size)
  // variance of the slope along its own way: u² · wᵀ (XᵀX)⁻¹ w
  const inverse = solve(scatter, way)!
  const u = uC * Math.sqrt(way.reduce((a, w, i) => a + w * inverse[i]!, 0))
  return { known: true, per100Mm: size * 100, u90: ONE_SIDED_90 * u * 100, towards: [way[0]!, way[1]!, way[2]!] }
}
