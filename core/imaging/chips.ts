/**
 * What of the edge is broken and what is hidden. Where the edge lies farther out than the ellipse and all between is as
 * dark as the mouth, a piece of the edge has broken out; where it is neither dark nor on the ellipse, residue, dirt or
 * glare hides it.
 */
import type { FoundEdge } from './bore'
import { pointOn } from './ellipse'
import { meanBetween } from './unwrap'

export interface Chip {
  /** Direction from the middle, degrees clockwise from the right as seen. */
  atDeg: number
  /** How far it reaches beyond the ellipse at its deepest. */
  deepMm: number
  /** How wide it is along the edge. */
  wideMm: number
}

/** A chip is at least so deep: scatters of the edge, blurs, and px. */
const DEEP_SCATTERS = 4
const DEEP_BLURS = 0.8
const DEEP_PX = 1.2
/** How far above the mouth a chip may be, as a share of the way to the flat. */
const DARK = 0.3

export function chipsOf(e: FoundEdge, umPerPx: number): { chips: Chip[]; edgeShare: number } {
  const { strip, fit, points, shape } = e
  const deepest = Math.max(DEEP_PX, DEEP_SCATTERS * fit.scatter, DEEP_BLURS * shape.blur)
  const rows = strip.rows
  const deep = new Float64Array(rows)
  let hidden = 0
  for (let r = 0; r < rows; r++) {
    if (fit.isOn[r]) continue
    const height = points.flat[r]! - points.mouth[r]!
    const beyond = darkUntil(e, r, points.mouth[r]! + DARK * height)
    if (beyond > deepest) deep[r] = edgeBeyond(e, r, points.mouth[r]! + shape.half * height)
    else if (Number.isNaN(fit.off[r]!) || Math.abs(fit.off[r]!) > deepest) hidden++
  }
  const pxPerRow = (Math.PI * (e.ellipse.a + e.ellipse.b)) / rows
  const chips: Chip[] = []
  for (const [from, to] of runs(deep)) {
    let at = from
    for (let r = from; r <= to; r++) if (deep[r % rows]! > deep[at % rows]!) at = r
    const p = pointOn(e.ellipse, (2 * Math.PI * ((at % rows) + 0.5)) / rows)
    const deg = (Math.atan2(p.y - e.ellipse.y, p.x - e.ellipse.x) * 180) / Math.PI
    chips.push({
      atDeg: (deg + 360) % 360,
      deepMm: (deep[at % rows]! * umPerPx) / 1000,
      wideMm: ((to - from + 1) * pxPerRow * umPerPx) / 1000,
    })
  }
  return { chips, edgeShare: 1 - hidden / rows }
}

/** How far outside the ellipse it is still as dark as the mouth, px; 0 when it is not dark on the way. */
function darkUntil(e: FoundEdge, row: number, level: number): number {
  const { strip } = e
  const inside = meanBetween(strip, row, -2 * e.shape.blur - 2, -0.8 * e.shape.blur - 0.5)
  if (!(inside < level)) return 0
  let at = 0
  for (let c = 0; c < strip.cols; c++) {
    const d = strip.from + c * strip.step
    if (d < -0.5) continue
    if (!(strip.v[row * strip.cols + c]! < level)) break
    at = d
  }
  return at
}

/** Where the edge of a chip lies, px outside the ellipse. */
function edgeBeyond(e: FoundEdge, row: number, level: number): number {
  const { strip } = e
  for (let c = 1; c < strip.cols; c++) {
    const d = strip.from + c * strip.step
    const b = strip.v[row * strip.cols + c]!
    if (d < 0 || b < level) continue
    const a = strip.v[row * strip.cols + c - 1]!
    return d - (strip.step * (b - level)) / Math.max(1e-9, b - a)
  }
  return strip.from + (strip.cols - 1) * strip.step
}

/** Runs of rows above 0 round the ring, at least two rows long; a single row between two belongs to them. */
function runs(deep: Float64Array): [number, number][] {
  const n = deep.length
  const on = (r: number) => deep[r % n]! > 0
  const start = Array.from(deep).findIndex((v, i) => v === 0 && deep[(i + n - 1) % n]! === 0)
  if (start < 0) return []
  const out: [number, number][] = []
  for (let r = start; r < start + n; r++) {
    if (!on(r)) continue
    let to = r
    while (on(to + 1) || on(to + 2)) to++
    if (to > r) out.push([r, to])
    r = to
  }
  return out
}
