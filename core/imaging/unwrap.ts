/**
 * The picture about an ellipse laid out straight: one row per direction, distance from the ellipse along its normal
 * from left to right. px.
 */
import { pointOn, type Ellipse } from './ellipse'
import { brightnessAt, type Grey, type View } from './picture'

export interface Strip {
  ellipse: Ellipse
  /** Directions, and places along each. */
  rows: number
  cols: number
  /** Distance of the first place, and from place to place, px. */
  from: number
  step: number
  /** Brightness, row by row; NaN outside the picture. */
  v: Float32Array
}

/** Directions the edge is looked at in. */
export const ROWS = 180

/** Each row is the mean of as many neighbouring normals as there are pixels of the edge in it, at most `most`. */
export function unwrap(g: Grey | View, e: Ellipse, from: number, to: number, most = 8): Strip {
  const step = Math.max(0.5, (to - from) / 240)
  const cols = Math.floor((to - from) / step) + 1
  const each = Math.min(most, Math.max(1, Math.round((Math.PI * (e.a + e.b)) / ROWS)))
  const v = new Float32Array(ROWS * cols)
  for (let r = 0; r < ROWS; r++)
    for (let k = 0; k < each; k++) {
      const p = pointOn(e, (2 * Math.PI * (r + (k + 0.5) / each)) / ROWS)
      for (let c = 0; c < cols; c++) {
        const d = from + c * step
        v[r * cols + c]! += brightnessAt(g, p.x + d * p.nx, p.y + d * p.ny) / each
      }
    }
  return { ellipse: e, rows: ROWS, cols, from, step, v }
}

/** The point so far from the ellipse in the middle of a row. */
export function placeOf(s: Strip, row: number, distance: number): { x: number; y: number } {
  const p = pointOn(s.ellipse, (2 * Math.PI * (row + 0.5)) / s.rows)
  return { x: p.x + distance * p.nx, y: p.y + distance * p.ny }
}

/** Mean of a row between two distances; NaN when any of it lies outside the picture or between them is nothing. */
export function meanBetween(s: Strip, row: number, from: number, to: number): number {
  const first = Math.max(0, Math.ceil((from - s.from) / s.step))
  const last = Math.min(s.cols - 1, Math.floor((to - s.from) / s.step))
  let sum = 0
  for (let c = first; c <= last; c++) sum += s.v[row * s.cols + c]!
  return last >= first ? sum / (last - first + 1) : NaN
}
