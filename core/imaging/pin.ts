/**
 * The scale of a picture from a pin of known size that lies in the plane of the tip: two points, one on each of its
 * edges, are drawn to the edges along many lines beside each other. px.
 */
import { InputError, need, needOne } from '../numeric'
import { brightnessAt, checkPixels, median, TONES, viewOf, type Pixels, type Tone, type View } from './picture'
import { KNOWN_MM, U_KNOWN_MM, type NoScale, type Scale } from './scale'

interface Point {
  x: number
  y: number
}

/** Lines across the pin. */
const LINES = 41
/** A pin is at least so wide, px. */
const LEAST_WIDE = 20
/** What half-height of a bright or dark edge of a pin may be off by, px. */
const EDGE_PX = 0.15
/** Scatter that straight edges may have, as a share of the pin. */
const MOST_SCATTER = 0.04

/**
 * Scale from a pin (mm, 0.0005 to 50, with its standard uncertainty) whose edges lie near two points; or why there is
 * none. Throws InputError for points outside the picture or less than 20 px apart, and for what is no picture.
 */
export function pinScale(
  p: Pixels,
  a: Point,
  b: Point,
  pinMm: number,
  uPinMm: number,
  tone: Tone = 'linear',
): Scale | NoScale {
  checkPixels(p)
  need('pinMm', pinMm, ...KNOWN_MM, 'mm')
  need('uPinMm', uPinMm, ...U_KNOWN_MM, 'mm')
  needOne('tone', tone, TONES)
  for (const q of [a, b]) {
    need('x', q.x, 0, p.width, 'px')
    need('y', q.y, 0, p.height, 'px')
  }
  const wide = Math.hypot(b.x - a.x, b.y - a.y)
  if (wide < LEAST_WIDE) throw new InputError('points', wide, `at least ${LEAST_WIDE} px apart`)
  const g = viewOf(p, tone)
  const nx = (b.x - a.x) / wide
  const ny = (b.y - a.y) / wide
  const near: [number, number][] = []
  const far: [number, number][] = []
  for (let k = 0; k < LINES; k++) {
    const t = ((k - (LINES - 1) / 2) / LINES) * 0.6 * wide
    const from = { x: a.x - t * ny, y: a.y + t * nx }
    for (const [middle, edges] of [
      [0, near],
      [wide, far],
    ] as const) {
      const at = edgeNear(g, from, nx, ny, middle, 0.25 * wide)
      if (!Number.isNaN(at)) edges.push([t, at])
    }
  }
  const one = lineThrough(near)
  const two = lineThrough(far)
  if (!one || !two || one.scatter > MOST_SCATTER * wide || two.scatter > MOST_SCATTER * wide)
    return { refused: true, reason: 'No straight edges of a pin found at the two points' }
  if (Math.abs(one.slope - two.slope) > 0.03)
    return { refused: true, reason: 'The two edges are not parallel: is it a pin, seen from straight above?' }
  const slope = (one.slope + two.slope) / 2
  const px = Math.abs(two.at - one.at) / Math.hypot(1, slope)
  const uPx = Math.hypot(one.scatter / Math.sqrt(one.n), two.scatter / Math.sqrt(two.n), EDGE_PX * Math.SQRT2)
  const umPerPx = (pinMm * 1000) / px
  return { umPerPx, uUmPerPx: umPerPx * Math.hypot(uPx / px, uPinMm / pinMm) }
}

/** The steepest place of a line near a distance along it; NaN when it leaves the picture. */
function edgeNear(g: View, from: Point, nx: number, ny: number, middle: number, reach: number): number {
  const line: number[] = []
  const step = 0.5
  for (let d = middle - reach; d <= middle + reach; d += step)
    line.push(brightnessAt(g, from.x + d * nx, from.y + d * ny))
  const wide = Math.max(2, Math.round(0.04 * line.length))
  let best = 0
  let at = NaN
  for (let i = wide; i < line.length - wide; i++) {
    let slope = 0
    for (let k = 1; k <= wide; k++) slope += line[i + k]! - line[i - k]!
    if (Math.abs(slope) > best) {
      best = Math.abs(slope)
      at = i
    }
  }
  if (Number.isNaN(at)) return NaN
  const low = median(line.slice(Math.max(0, at - 4 * wide), at - wide + 1))
  const high = median(line.slice(at + wide, at + 4 * wide + 1))
  const half = (low + high) / 2
  for (let i = Math.max(1, at - 2 * wide); i <= Math.min(line.length - 1, at + 2 * wide); i++) {
    const [p, q] = [line[i - 1]!, line[i]!]
    if ((p - half) * (q - half) <= 0 && p !== q) return middle - reach + (i - 1 + (half - p) / (q - p)) * step
  }
  return NaN
}

/** A line through most of some points (t, at): middle slopes, then least squares of those close to it. */
function lineThrough(points: [number, number][]): { at: number; slope: number; scatter: number; n: number } | null {
  if (points.length < LINES / 2) return null
  const slopes: number[] = []
  for (let i = 0; i < points.length; i++)
    for (let j = i + 5; j < points.length; j++)
      slopes.push((points[j]![1] - points[i]![1]) / (points[j]![0] - points[i]![0]))
  const slope = median(slopes)
  const at = median(points.map(([t, v]) => v - slope * t))
  const off = points.map(([t, v]) => Math.abs(v - slope * t - at))
  const close = Math.max(0.5, 4.5 * median(off))
  const on = points.filter((_, i) => off[i]! < close)
  const mt = on.reduce((s, [t]) => s + t, 0) / on.length
  const mv = on.reduce((s, [, v]) => s + v, 0) / on.length
  const fine = on.reduce((s, [t, v]) => s + (t - mt) * (v - mv), 0) / on.reduce((s, [t]) => s + (t - mt) ** 2, 0)
  const left = on.reduce((s, [t, v]) => s + (v - mv - fine * (t - mt)) ** 2, 0)
  return { at: mv - fine * mt, slope: fine, scatter: Math.sqrt(left / Math.max(1, on.length - 2)), n: on.length }
}
