/**
 * An ellipse through most of some points: those that chips, residue and glare have moved do not pull it.
 * Source: random samples and consensus by Fischler & Bolles (1981), with a fixed seed; then Tukey's weights
 * (Huber, Robust Statistics, section 4.8) on distances along the normal.
 */
import { mulberry32, solve } from '../numeric'
import { distanceFrom, ellipseOf, fitEllipse, meanDiameter, shapeOf, type Ellipse } from './ellipse'

export interface RobustFit {
  ellipse: Ellipse
  /** Distance of each point from it, px, and whether it counts. */
  off: Float64Array
  isOn: Uint8Array
  /** Scatter of those that count, px. */
  scatter: number
  /** Shares of the variance of one point in the mean radius and in the flattening. */
  radiusFactor: number
  flatFactor: number
}

const TRIES = 240
const SAMPLE = 6
/** No better ellipse is looked for when so many points lie close to one. */
const ENOUGH = 0.88
/** Flattest mouth that is looked for. */
const FLATTEST = 0.6

/**
 * `near`: points within so many px belong together. `about`: an ellipse that it must resemble (its centre within half
 * its radius, its size within half). Null when fewer than `fewest` points lie on one.
 */
export function robustEllipse(
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
  { near, about, fewest }: { near: number; about: Ellipse; fewest: number },
): RobustFit | null {
  const known: number[] = []
  for (let i = 0; i < xs.length; i++) if (Number.isFinite(xs[i]) && Number.isFinite(ys[i])) known.push(i)
  if (known.length < Math.max(SAMPLE, fewest)) return null
  const random = mulberry32(known.length)
  let best: Ellipse | null = null
  let most = 0
  const px = new Float64Array(SAMPLE)
  const py = new Float64Array(SAMPLE)
  for (let k = 0; k < TRIES; k++) {
    for (let j = 0; j < SAMPLE; j++) {
      const i = known[Math.floor(random() * known.length)]!
      px[j] = xs[i]!
      py[j] = ys[i]!
    }
    const e = k === 0 ? about : fitEllipse(px, py)
    if (!e || !resembles(e, about)) continue
    let count = 0
    for (const i of known) {
      const d = Math.abs(distanceFrom(e, xs[i]!, ys[i]!)) / near
      if (d < 1) count += 1 - d * d
    }
    if (count > most) {
      most = count
      best = e
      if (count > ENOUGH * known.length) break
    }
  }
  return best && polished(xs, ys, known, best, near, fewest)
}

function resembles(e: Ellipse, about: Ellipse): boolean {
  const r = meanDiameter(about) / 2
  const size = meanDiameter(e) / 2 / r
  return e.b > FLATTEST * e.a && Math.hypot(e.x - about.x, e.y - about.y) < r / 2 && size > 0.5 && size < 1.5
}

/** Gauss–Newton steps on distances along the normal, with Tukey's weights. */
function polished(
  xs: ArrayLike<number>,
  ys: ArrayLike<number>,
  known: number[],
  start: Ellipse,
  near: number,
  fewest: number,
): RobustFit | null {
  let shape = shapeOf(start)
  let scale = near / 2
  const off = new Float64Array(xs.length).fill(NaN)
  let normal: number[][] = []
  for (let step = 0; step < 14; step++) {
    const e = ellipseOf(shape)
    normal = Array.from({ length: 5 }, () => [0, 0, 0, 0, 0])
    const right = [0, 0, 0, 0, 0]
    const close: number[] = []
    for (const i of known) {
      const d = distanceFrom(e, xs[i]!, ys[i]!)
      off[i] = d
      if (Math.abs(d) < 4 * scale) close.push(Math.abs(d))
      const z = d / (4.7 * scale)
      if (Math.abs(z) >= 1) continue
      const w = (1 - z * z) ** 2
      const t = Math.atan2(ys[i]! - e.y, xs[i]! - e.x)
      const row = [Math.cos(t), Math.sin(t), 1, shape[2] * Math.cos(2 * t), shape[2] * Math.sin(2 * t)]
      for (let r = 0; r < 5; r++) {
        right[r]! += w * d * row[r]!
        for (let c = 0; c < 5; c++) normal[r]![c]! += w * row[r]! * row[c]!
      }
    }
    if (close.length < fewest) return null
    // the middle of the distances as a standard deviation; never under what pixels can tell
    close.sort((p, q) => p - q)
    const spread = 1.4826 * close[close.length >> 1]!
    const move = solve(normal, right)
    if (!move) return null
    shape = shape.map((v, k) => v + move[k]!) as typeof shape
    const m = Math.hypot(shape[3], shape[4])
    if (!(shape[2] > 1) || m > 0.3) return null
    const next = Math.min(near, Math.max(0.04, spread, 0.6 * scale))
    const still = Math.abs(move[2]!) < 1e-4 && Math.abs(next - scale) < 1e-3
    scale = next
    if (still && step > 3) break
  }
  const ellipse = ellipseOf(shape)
  const isOn = new Uint8Array(xs.length)
  let n = 0
  let sum = 0
  for (const i of known) {
    off[i] = distanceFrom(ellipse, xs[i]!, ys[i]!)
    if (Math.abs(off[i]!) > 3.5 * scale) continue
    isOn[i] = 1
    n++
    sum += off[i]! ** 2
  }
  if (n < fewest) return null
  const unit = (k: number) =>
    solve(
      normal,
      [0, 1, 2, 3, 4].map(j => (j === k ? 1 : 0)),
    )?.[k] ?? Infinity
  return {
    ellipse,
    off,
    isOn,
    scatter: Math.sqrt(sum / Math.max(1, n - 5)),
    radiusFactor: unit(2),
    flatFactor: shape[2] ** 2 * Math.max(unit(3), unit(4)),
  }
}
