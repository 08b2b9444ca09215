/**
 * Ellipses in a picture: fitted to points, measured against points. Pixels; x to the right, y down, angles clockwise
 * from the right as seen, rad.
 * Source: direct least squares by Fitzgibbon, Pilu & Fisher (1999), in the stable form of Halíř & Flusser (1998).
 */
import { need, symmetricEigen } from '../numeric'

export interface Ellipse {
  x: number
  y: number
  /** Half axes, a ≥ b > 0. */
  a: number
  b: number
  /** Direction of the long axis. */
  angle: number
}

/** Pixels from any corner that a point may lie. */
export const PLACE_PX = [-1e5, 1e5] as const

/** Diameter of the circle of equal area. */
export const meanDiameter = (e: Ellipse) => 2 * Math.sqrt(e.a * e.b)

/** Lower Cholesky factor of a 3 × 3 matrix; null when it is not positive. */
function cholesky(m: readonly (readonly number[])[]): number[][] | null {
  const l = [
    [0, 0, 0],
    [0, 0, 0],
    [0, 0, 0],
  ]
  for (let i = 0; i < 3; i++)
    for (let j = 0; j <= i; j++) {
      let sum = m[i]![j]!
      for (let k = 0; k < j; k++) sum -= l[i]![k]! * l[j]![k]!
      if (i === j) {
        if (!(sum > 0)) return null
        l[i]![i] = Math.sqrt(sum)
      } else l[i]![j] = sum / l[j]![j]!
    }
  return l
}

/** Inverse of a lower triangular 3 × 3 matrix. */
function lowerInverse(l: readonly (readonly number[])[]): number[][] {
  const out = l.map(() => [0, 0, 0])
  for (let j = 0; j < 3; j++)
    for (let i = j; i < 3; i++) {
      let sum = i === j ? 1 : 0
      for (let k = j; k < i; k++) sum -= l[i]![k]! * out[k]![j]!
      out[i]![j] = sum / l[i]![i]!
    }
  return out
}

const times = (a: readonly (readonly number[])[], b: readonly (readonly number[])[]) =>
  a.map(row => b[0]!.map((_, j) => row.reduce((s, v, k) => s + v * b[k]![j]!, 0)))
const turned = (a: readonly (readonly number[])[]) => a[0]!.map((_, j) => a.map(row => row[j]!))

/**
 * The ellipse of least algebraic distance to five or more points (pixels, within 1e5 of the corner), each with its
 * weight if given (0 leaves it out); null when the points lie on none.
 */
export function fitEllipse(
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
  weights: ArrayLike<number> | null = null,
): Ellipse | null {
  let w = 0
  let mx = 0
  let my = 0
  for (let i = 0; i < xs.length; i++) {
    need('x', xs[i]!, ...PLACE_PX, 'px')
    need('y', ys[i]!, ...PLACE_PX, 'px')
    const wi = weights?.[i] ?? 1
    need('weight', wi, 0, 1e9)
    w += wi
    mx += wi * xs[i]!
    my += wi * ys[i]!
  }
  if (!(w > 0) || xs.length < 5) return null
  mx /= w
  my /= w
  let size = 0
  for (let i = 0; i < xs.length; i++) size += (weights?.[i] ?? 1) * Math.hypot(xs[i]! - mx, ys[i]! - my)
  size /= w
  if (!(size > 1e-6)) return null
  // scatter of [x², xy, y²] (s1), with [x, y, 1] (s2), and of those (s3)
  const s1 = zeros()
  const s2 = zeros()
  const s3 = zeros()
  for (let i = 0; i < xs.length; i++) {
    const wi = weights?.[i] ?? 1
    if (wi === 0) continue
    const x = (xs[i]! - mx) / size
    const y = (ys[i]! - my) / size
    const d1 = [x * x, x * y, y * y]
    const d2 = [x, y, 1]
    for (let r = 0; r < 3; r++)
      for (let c = 0; c < 3; c++) {
        s1[r]![c]! += (wi / w) * d1[r]! * d1[c]!
        s2[r]![c]! += (wi / w) * d1[r]! * d2[c]!
        s3[r]![c]! += (wi / w) * d2[r]! * d2[c]!
      }
  }
  const l3 = cholesky(s3)
  if (!l3) return null
  const i3 = lowerInverse(l3)
  const s3Inverse = times(turned(i3), i3)
  const t = times(s3Inverse, turned(s2)).map(row => row.map(v => -v))
  const m = times(s2, t).map((row, r) => row.map((v, c) => v + s1[r]![c]! + (r === c ? 1e-13 : 0)))
  const l = cholesky(m)
  if (!l) return null
  const li = lowerInverse(l)
  // the constraint 4ac − b² = 1 as a matrix; its one positive direction is the ellipse
  const c1 = [
    [0, 0, 2],
    [0, -1, 0],
    [2, 0, 0],
  ]
  const { values, vectors } = symmetricEigen(times(times(li, c1), turned(li)))
  if (!(values[2]! > 0)) return null
  const [a, b, c] = turned(li).map(row => row.reduce((s, v, k) => s + v * vectors[2]![k]!, 0)) as [
    number,
    number,
    number,
  ]
  const [d, e, f] = t.map(row => row[0]! * a + row[1]! * b + row[2]! * c) as [number, number, number]
  return fromConic([a, b, c, d, e, f], mx, my, size)
}
const zeros = () => [
  [0, 0, 0],
  [0, 0, 0],
  [0, 0, 0],
]

/** Centre, axes and direction of ax² + bxy + cy² + dx + ey + f = 0, drawn `size` times larger about (mx, my). */
function fromConic(
  [a, b, c, d, e, f]: [number, number, number, number, number, number],
  mx: number,
  my: number,
  size: number,
): Ellipse | null {
  const det = 4 * a * c - b * b
  if (!(det > 0)) return null
  const x = (b * e - 2 * c * d) / det
  const y = (b * d - 2 * a * e) / det
  const atCentre = f + (d * x + e * y) / 2
  const half = Math.hypot(a - c, b) / 2
  const middle = (a + c) / 2
  const sign = middle < 0 ? -1 : 1
  const a2 = -atCentre / (middle - sign * half)
  const b2 = -atCentre / (middle + sign * half)
  if (!(a2 > 0 && b2 > 0)) return null
  const long = sign > 0 ? Math.atan2(-b, c - a) : Math.atan2(b, a - c)
  return {
    x: mx + x * size,
    y: my + y * size,
    a: Math.sqrt(Math.max(a2, b2)) * size,
    b: Math.sqrt(Math.min(a2, b2)) * size,
    angle: long / 2,
  }
}

/** An ellipse as (centre, mean radius, two numbers of flattening), which has no jump where it is a circle. */
export type Shape = [x: number, y: number, r: number, e1: number, e2: number]
export function shapeOf(e: Ellipse): Shape {
  const m = Math.log(e.a / e.b) / 2
  return [e.x, e.y, Math.sqrt(e.a * e.b), m * Math.cos(2 * e.angle), m * Math.sin(2 * e.angle)]
}
export function ellipseOf([x, y, r, e1, e2]: Readonly<Shape>): Ellipse {
  const m = Math.hypot(e1, e2)
  return { x, y, a: r * Math.exp(m), b: r * Math.exp(-m), angle: Math.atan2(e2, e1) / 2 }
}

/** Place at the parameter t (rad from the long axis), and the outward normal there. */
export function pointOn(e: Ellipse, t: number): { x: number; y: number; nx: number; ny: number } {
  const c = Math.cos(e.angle)
  const s = Math.sin(e.angle)
  const u = e.a * Math.cos(t)
  const v = e.b * Math.sin(t)
  const nu = Math.cos(t) / e.a
  const nv = Math.sin(t) / e.b
  const n = Math.hypot(nu, nv)
  return {
    x: e.x + u * c - v * s,
    y: e.y + u * s + v * c,
    nx: (nu * c - nv * s) / n,
    ny: (nu * s + nv * c) / n,
  }
}

/** Distance of a point outside (+) or inside (−) the ellipse, to first order: right near the edge. */
export function distanceFrom(e: Ellipse, x: number, y: number): number {
  const c = Math.cos(e.angle)
  const s = Math.sin(e.angle)
  const u = ((x - e.x) * c + (y - e.y) * s) / e.a
  const v = (-(x - e.x) * s + (y - e.y) * c) / e.b
  const q = Math.hypot(u, v)
  if (q < 1e-9) return -e.b
  return ((q - 1) * q) / Math.hypot(u / e.a, v / e.b)
}
