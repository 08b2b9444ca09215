/**
 * The edge in every direction of a straightened picture: where brightness passes so much of the way from the mouth to
 * the flat beside it. The light may be uneven, so both are taken from the neighbouring directions, by their middle:
 * residue, glare and chips cover some of them only.
 */
import { median } from './picture'
import { meanBetween, placeOf, type Strip } from './unwrap'

export interface EdgePoints {
  /** Where the edge lies, px; NaN where none was found. */
  xs: Float64Array
  ys: Float64Array
  /** Brightness in the mouth and on the flat beside each direction. */
  mouth: Float64Array
  flat: Float64Array
}

/** Neighbours on either side whose middle counts. */
const NEIGHBOURS = 12
/** An edge must be at least this share of the height beside it. */
const LEAST_HEIGHT = 0.3

export interface Looking {
  /** Places farther inside than this are the mouth, farther outside than `flatFrom` the flat, px. */
  mouthTo: number
  flatFrom: number
  flatTo: number
  /** Share of the way up at which the edge lies. */
  half: number
  /** Farthest from the ellipse that an edge is looked for, px. */
  reach: number
  /** The rise is told from what lies so far to either side of it, px. */
  around: number
}

/** Middle of the values of the neighbours of each row, round the ring. */
function besideEach(values: Float64Array): Float64Array {
  const n = values.length
  const near = new Float64Array(2 * NEIGHBOURS + 1)
  return values.map((_, r) => {
    for (let k = -NEIGHBOURS; k <= NEIGHBOURS; k++) near[k + NEIGHBOURS] = values[(r + k + n) % n]!
    return median(near)
  })
}

export function edgePoints(s: Strip, look: Looking): EdgePoints {
  const each = (from: number, to: number) =>
    Float64Array.from({ length: s.rows }, (_, r) => meanBetween(s, r, from, to))
  const ownMouth = each(s.from, look.mouthTo)
  const ownFlat = each(look.flatFrom, look.flatTo)
  const mouth = besideEach(ownMouth)
  const flat = besideEach(ownFlat)
  const out: EdgePoints = {
    xs: new Float64Array(s.rows).fill(NaN),
    ys: new Float64Array(s.rows).fill(NaN),
    mouth,
    flat,
  }
  for (let r = 0; r < s.rows; r++) {
    const height = flat[r]! - mouth[r]!
    if (!(height > 0)) continue
    const at = crossing(s, r, mouth[r]! + look.half * height, height, look)
    if (Number.isNaN(at)) continue
    const p = placeOf(s, r, at)
    out.xs[r] = p.x
    out.ys[r] = p.y
  }
  return out
}

/** A rise is also told from so near, px: a narrow band outside a sharp edge hides it from farther off. */
const NARROW = 3

const riseAt = (s: Strip, row: number, at: number, around: number) =>
  meanBetween(s, row, at + 0.4 * around, at + around) - meanBetween(s, row, at - around, at - 0.4 * around)

/** The rise through a level that is nearest to the ellipse and steep enough; NaN when there is none. */
function crossing(s: Strip, row: number, level: number, height: number, { reach, around }: Looking): number {
  let best = NaN
  const base = row * s.cols
  for (let c = 1; c < s.cols; c++) {
    const a = s.v[base + c - 1]!
    const b = s.v[base + c]!
    if (!(a < level && b >= level)) continue
    const at = s.from + (c - 1 + (level - a) / (b - a)) * s.step
    if (Math.abs(at) > reach || Math.abs(at) >= Math.abs(best)) continue
    if (Math.max(riseAt(s, row, at, around), riseAt(s, row, at, NARROW)) > LEAST_HEIGHT * height) best = at
  }
  return best
}
