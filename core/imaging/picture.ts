/**
 * Pictures as brightness: linear light from 0 to 1, whatever tone curve they were stored with. Pixels; the middle of
 * the first one is at (0, 0), x to the right, y down.
 * Source of the tone curve: IEC 61966-2-1 (sRGB).
 */
import { InputError, need, needOne } from '../numeric'

/** Decoded pixels: red, green, blue and alpha of each, 0 to 255, row by row. */
export interface Pixels {
  width: number
  height: number
  rgba: Uint8ClampedArray | Uint8Array
}

/** How brightness was stored: in proportion, or with the tone curve of cameras and screens. */
export type Tone = 'linear' | 'srgb'
/** Both of them. */
export const TONES: readonly Tone[] = ['linear', 'srgb']

/** Sides a picture may have, px. */
export const SIDE_PX = [16, 20_000] as const
/** Pixels that a picture may have in all. */
export const MOST_PIXELS = 60_000_000

/** Part of a picture as linear brightness; its first pixel is (x0, y0) of the whole. */
export interface Grey {
  x0: number
  y0: number
  width: number
  height: number
  v: Float32Array
}

/** Throws InputError for what is no picture that can be measured. */
export function checkPixels(p: Pixels): void {
  need('width', p.width, ...SIDE_PX, 'px')
  need('height', p.height, ...SIDE_PX, 'px')
  need('pixels', p.width * p.height, 1, MOST_PIXELS)
  if (p.rgba.length !== 4 * p.width * p.height)
    throw new InputError('rgba', p.rgba.length, `four values for each of ${p.width * p.height} pixels`)
}

const tables = new Map<Tone, Float32Array>()
/** Brightness of each stored value. */
export function toneTable(tone: Tone): Float32Array {
  needOne('tone', tone, TONES)
  let t = tables.get(tone)
  if (!t) {
    t = Float32Array.from({ length: 256 }, (_, i) => {
      const c = i / 255
      if (tone === 'linear') return c
      return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
    })
    tables.set(tone, t)
  }
  return t
}

/** Brightness of a region of the picture, clipped to it: the mean of red, green and blue. */
export function greyOf(p: Pixels, tone: Tone, region = { x0: 0, y0: 0, x1: p.width, y1: p.height }): Grey {
  const table = toneTable(tone)
  const x0 = Math.max(0, Math.floor(region.x0))
  const y0 = Math.max(0, Math.floor(region.y0))
  const width = Math.max(0, Math.min(p.width, Math.ceil(region.x1)) - x0)
  const height = Math.max(0, Math.min(p.height, Math.ceil(region.y1)) - y0)
  const v = new Float32Array(width * height)
  for (let y = 0; y < height; y++) {
    let from = 4 * ((y0 + y) * p.width + x0)
    for (let i = y * width; i < (y + 1) * width; i++, from += 4)
      v[i] = (table[p.rgba[from]!]! + table[p.rgba[from + 1]!]! + table[p.rgba[from + 2]!]!) / 3
  }
  return { x0, y0, width, height, v }
}

/** The whole picture with every `by` × `by` pixels made one, so that its longer side has at most `most`. */
export function shrunk(p: Pixels, tone: Tone, most: number): { grey: Grey; by: number } {
  const by = Math.max(1, Math.ceil(Math.max(p.width, p.height) / most))
  if (by === 1) return { grey: greyOf(p, tone), by }
  const table = toneTable(tone)
  const width = Math.floor(p.width / by)
  const height = Math.floor(p.height / by)
  const v = new Float32Array(width * height)
  for (let y = 0; y < height * by; y++) {
    const row = Math.floor(y / by) * width
    let from = 4 * y * p.width
    for (let x = 0; x < width; x++) {
      let sum = 0
      for (let k = 0; k < by; k++, from += 4)
        sum += table[p.rgba[from]!]! + table[p.rgba[from + 1]!]! + table[p.rgba[from + 2]!]!
      v[row + x]! += sum
    }
  }
  const scale = 1 / (3 * by * by)
  for (let i = 0; i < v.length; i++) v[i]! *= scale
  return { grey: { x0: 0, y0: 0, width, height, v }, by }
}

/** A picture looked at here and there only: brightness is worked out where it is asked for. */
export interface View {
  p: Pixels
  table: Float32Array
}
export const viewOf = (p: Pixels, tone: Tone): View => ({ p, table: toneTable(tone) })

function pixelLight({ p, table }: View, i: number): number {
  const at = 4 * i
  return (table[p.rgba[at]!]! + table[p.rgba[at + 1]!]! + table[p.rgba[at + 2]!]!) / 3
}

/** Brightness between pixels, linear in both directions; NaN outside. */
export function brightnessAt(g: Grey | View, px: number, py: number): number {
  return 'p' in g ? lightAt(g, px, py) : greyAt(g, px, py)
}

function lightAt(view: View, x: number, y: number): number {
  const { width, height } = view.p
  if (!(x >= 0 && y >= 0 && x <= width - 1 && y <= height - 1)) return NaN
  const i = x | 0
  const j = y | 0
  const fx = x - i
  const fy = y - j
  const at = j * width + i
  const right = fx > 0 ? 1 : 0
  const below = fy > 0 ? width : 0
  const a = pixelLight(view, at)
  const top = a + fx * (pixelLight(view, at + right) - a)
  const b = pixelLight(view, at + below)
  const bottom = b + fx * (pixelLight(view, at + below + right) - b)
  return top + fy * (bottom - top)
}

function greyAt(g: Grey, px: number, py: number): number {
  const x = px - g.x0
  const y = py - g.y0
  if (!(x >= 0 && y >= 0 && x <= g.width - 1 && y <= g.height - 1)) return NaN
  const i = x | 0
  const j = y | 0
  const fx = x - i
  const fy = y - j
  const at = j * g.width + i
  const right = fx > 0 ? 1 : 0
  const below = fy > 0 ? g.width : 0
  const { v } = g
  const top = v[at]! + fx * (v[at + right]! - v[at]!)
  const bottom = v[at + below]! + fx * (v[at + below + right]! - v[at + below]!)
  return top + fy * (bottom - top)
}

/** Each pixel replaced by the mean of the square of (2·reach + 1)² about it, less of it at the sides. */
export function boxMean(g: Grey, reach: number): Grey {
  if (reach < 1) return g
  const pass = (from: Float32Array, n: number, lines: number, step: number, stride: number) => {
    const out = new Float32Array(from.length)
    for (let l = 0; l < lines; l++) {
      const base = l * stride
      let sum = 0
      let count = 0
      for (let i = 0; i < Math.min(reach, n); i++, count++) sum += from[base + i * step]!
      for (let i = 0; i < n; i++) {
        if (i + reach < n) {
          sum += from[base + (i + reach) * step]!
          count++
        }
        if (i - reach > 0) {
          sum -= from[base + (i - reach - 1) * step]!
          count--
        }
        out[base + i * step] = sum / count
      }
    }
    return out
  }
  const rows = pass(g.v, g.width, g.height, 1, g.width)
  return { ...g, v: pass(rows, g.height, g.width, g.width, 1) }
}

/** Median of some numbers; NaN of none. */
export function median(values: ArrayLike<number>): number {
  const sorted = Float64Array.from(values)
    .filter(v => !Number.isNaN(v))
    .sort()
  const n = sorted.length
  if (n === 0) return NaN
  return n % 2 === 1 ? sorted[n >> 1]! : (sorted[n / 2 - 1]! + sorted[n / 2]!) / 2
}
