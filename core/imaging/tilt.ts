/**
 * Whether the camera looked askew. The flat of a tip is turned round; when its outer edge looks flattened and the mouth
 * alike, both are round and seen at an angle. Then what was shortened is drawn out again: of a mouth flattened just as
 * the flat is, the bore is the long axis.
 */
import type { FoundEdge } from './bore'
import { ellipseOf, meanDiameter, shapeOf, type Ellipse } from './ellipse'
import { brightnessAt, viewOf, type Pixels, type Tone, type View } from './picture'
import { robustEllipse, type RobustFit } from './robust'

export interface Tilt {
  isTilted: boolean
  /** The mouth with the tilt taken out. */
  straight: Ellipse
  /** Uncertainty of the mean radius from it, px. */
  uRadius: number
  /** Outer edge of the flat, when it was found. */
  flat: Ellipse | null
}

/** Flattening from which a flat counts as seen askew: half the logarithm of the ratio of its axes (5° is 0.0019). */
const LEAST = 0.0018
/** The mouth must be flattened at least so much along with it, as a share; it may be worn oval besides. */
const ALIKE = 0.4

const DIRECTIONS = 120

/** The strongest edge outside the mouth, rising or falling, on an ellipse about the same middle. */
function outerEdge(g: View, e: FoundEdge, blur: number): RobustFit | null {
  const { ellipse } = e
  const r = meanDiameter(ellipse) / 2
  const far = Math.min(6 * r, Math.hypot(g.p.width, g.p.height))
  const first = r + (e.shape.band ?? 0) + 3 * blur + 3
  const reach = Math.max(2, Math.round(1.2 * blur))
  const lines: { r: number; by: number }[][] = []
  for (let k = 0; k < DIRECTIONS; k++) {
    const angle = (2 * Math.PI * k) / DIRECTIONS
    const c = Math.cos(angle)
    const s = Math.sin(angle)
    const line: number[] = []
    for (let d = 0; d < far; d++) {
      // the mean over a short arc, so that noise makes no edges
      let sum = 0
      for (let j = -2; j <= 2; j++) sum += brightnessAt(g, ellipse.x + d * c - j * s, ellipse.y + d * s + j * c)
      if (Number.isNaN(sum)) break
      line.push(sum / 5)
    }
    const slope = (d: number) => Math.abs((line[d + reach] ?? line[line.length - 1]!) - line[d - reach]!)
    const found: { r: number; by: number }[] = []
    for (let d = Math.ceil(first) + reach; d < line.length - reach; d++) {
      const by = slope(d)
      if (by > 0 && by >= slope(d - 1) && by > slope(d + 1)) {
        const [a, b, z] = [slope(d - 1), by, slope(d + 1)]
        const bend = a - 2 * b + z
        found.push({ r: bend < 0 ? d + (a - z) / (2 * bend) : d, by })
      }
    }
    lines.push(found)
  }
  let best: { r: number; sum: number } | null = null
  for (let q = first; q < far / 2; q *= 1.02) {
    let sum = 0
    for (const l of lines) sum += Math.max(0, ...l.filter(o => Math.abs(o.r - q) < 0.05 * q).map(o => o.by))
    if (!best || sum > best.sum * 1.001) best = { r: q, sum }
  }
  if (!best) return null
  const near = 0.06 * best.r
  const xs: number[] = []
  const ys: number[] = []
  for (const [k, l] of lines.entries()) {
    const o = l.filter(v => Math.abs(v.r - best.r) < near).sort((p, q) => q.by - p.by)[0]
    const angle = (2 * Math.PI * k) / DIRECTIONS
    xs.push(o ? ellipse.x + o.r * Math.cos(angle) : NaN)
    ys.push(o ? ellipse.y + o.r * Math.sin(angle) : NaN)
  }
  const about = { ...ellipse, a: best.r, b: best.r, angle: 0 }
  const tolerance = Math.max(1.2, 0.6 * blur, 0.008 * best.r)
  return robustEllipse(xs, ys, { near: tolerance, about, fewest: 0.6 * DIRECTIONS })
}

export function tiltOf(p: Pixels, tone: Tone, e: FoundEdge): Tilt {
  const mouth = shapeOf(e.ellipse)
  const r = mouth[2]
  const none: Tilt = { isTilted: false, straight: e.ellipse, uRadius: (r * LEAST) / Math.sqrt(3), flat: null }
  const found = outerEdge(viewOf(p, tone), e, e.shape.blur)
  if (!found) return none
  const flat = shapeOf(found.ellipse)
  if (Math.hypot(flat[0] - mouth[0], flat[1] - mouth[1]) > 0.4 * r) return none
  const uFlat = (found.scatter * Math.sqrt(found.flatFactor)) / flat[2]
  const uMouth = (e.fit.scatter * Math.sqrt(e.fit.flatFactor)) / r
  const size = Math.hypot(flat[3], flat[4])
  const along = (flat[3] * mouth[3] + flat[4] * mouth[4]) / Math.max(1e-12, size)
  const isFlattened = size > Math.max(LEAST, 4 * uFlat)
  // what is too little to be told is still there
  if (!isFlattened) return { ...none, flat: found.ellipse, uRadius: (r * Math.hypot(size, uFlat)) / Math.sqrt(3) }
  // a flattened flat about a round mouth is a damaged flat, or a mouth worn just against it
  if (along < ALIKE * size - 2 * uMouth) return { ...none, flat: found.ellipse, uRadius: (r * size) / 2 }
  const left: [number, number] = [mouth[3] - flat[3], mouth[4] - flat[4]]
  const straight = ellipseOf([mouth[0], mouth[1], r * Math.exp(size), ...left])
  return { isTilted: true, straight, uRadius: r * Math.hypot(uFlat, 0.1 * size), flat: found.ellipse }
}
