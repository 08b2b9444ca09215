/**
 * Where in a picture a mouth may be: dark, with a brighter edge all around. Looked for in a small copy. Every place
 * where brightness rises votes for all points behind it, as far as a mouth may reach; where votes meet, rings of
 * rising edges are looked for, and an ellipse through most of each. Of several rings about one middle the one with the
 * darkest inside is the mouth: the outer edge of the flat may be the stronger one.
 * Source: gradient voting after Kimme, Ballard & Sklansky (1975).
 */
import { distanceFrom, meanDiameter, type Ellipse } from './ellipse'
import { boxMean, brightnessAt, median, shrunk, type Grey, type Pixels, type Tone } from './picture'
import { robustEllipse } from './robust'
import { meanBetween, unwrap } from './unwrap'

/** Longer side of the small copy, px. */
const SMALL = 640
/** Smallest radius looked for there, px. */
const LEAST_RADIUS = 5
const MIDDLES = 5
const DIRECTIONS = 72
/** Directions in which a ring must show its edge, and lie on its ellipse. */
const LEAST_SEEN = 0.5
const LEAST_ON = 0.42
/** A ring counts beside the strongest one of the picture when its step is at least this share. */
const LEAST_STEP = 0.15
/** Brightness that two insides must differ by to be told apart, as a share of the picture's range. */
const SAME_DARK = 0.04

export interface FoundRing {
  ellipse: Ellipse
  /** Share of directions on the ellipse. */
  on: number
  /** Brightness just inside, and the step to outside. */
  inside: number
  step: number
}

/** Rings that may be the mouth, the likeliest first, in pixels of the whole picture. */
export function findRings(p: Pixels, tone: Tone): FoundRing[] {
  const { grey, by } = shrunk(p, tone, SMALL)
  const smooth = boxMean(boxMean(grey, 1), 1)
  const slopes = slopesOf(smooth)
  const rings: FoundRing[] = []
  for (const m of middles(slopes, smooth)) rings.push(...ringsAbout(smooth, m.x, m.y, slopes.noise))
  return inOrder(rings).map(r => ({ ...r, ellipse: larger(r.ellipse, by) }))
}

function larger(e: Ellipse, by: number): Ellipse {
  const half = (by - 1) / 2
  return { x: e.x * by + half, y: e.y * by + half, a: e.a * by, b: e.b * by, angle: e.angle }
}

/**
 * The darkest insides first. Of insides that are alike the smallest ring, if most of its edge is there: a worn, rounded
 * edge has a second rise at its outer end.
 */
function inOrder(rings: FoundRing[]): FoundRing[] {
  const strongest = Math.max(0, ...rings.map(r => r.step))
  const good = rings.filter(r => r.step >= LEAST_STEP * strongest).sort((p, q) => p.inside - q.inside)
  if (good.length === 0) return []
  const dark = good.filter(r => r.inside <= good[0]!.inside + SAME_DARK * strongest)
  const on = Math.max(...dark.map(r => r.on))
  const step = Math.max(...dark.map(r => r.step))
  const whole = dark.filter(r => r.on > 0.75 * on && r.step > INNER_SHARE * step)
  whole.sort((p, q) => p.ellipse.a * p.ellipse.b - q.ellipse.a * q.ellipse.b)
  return [...new Set([...whole, ...dark, ...good])]
}

interface Slopes {
  gx: Float32Array
  gy: Float32Array
  /** From here on a slope counts, per px. */
  least: number
  /** Noise of the small copy, brightness. */
  noise: number
}

function slopesOf(g: Grey): Slopes {
  const { width: w, height: h, v } = g
  const gx = new Float32Array(w * h)
  const gy = new Float32Array(w * h)
  const seen: number[] = []
  const fine: number[] = []
  for (let y = 1; y < h - 1; y++)
    for (let x = 1; x < w - 1; x++) {
      const i = y * w + x
      gx[i] = (v[i + 1]! - v[i - 1]!) / 2
      gy[i] = (v[i + w]! - v[i - w]!) / 2
      if ((x + 7 * y) % 11 !== 0) continue
      seen.push(Math.hypot(gx[i]!, gy[i]!))
      fine.push(Math.abs(v[i]! - (v[i + 1]! + v[i - 1]! + v[i + w]! + v[i - w]!) / 4))
    }
  seen.sort((p, q) => p - q)
  const top = seen[Math.floor(0.995 * seen.length)] ?? 0
  const common = seen[Math.floor(0.5 * seen.length)] ?? 0
  return { gx, gy, least: Math.max(0.06 * top, 2.5 * common, 1e-4), noise: 2 * median(fine) }
}

/** Points that most rising edges face away from. */
function middles(s: Slopes, g: Grey): { x: number; y: number }[] {
  const { width: w, height: h } = g
  const votes = new Float32Array(w * h)
  const far = 0.6 * Math.max(w, h)
  for (let y = 1; y < h - 1; y++)
    for (let x = 1; x < w - 1; x++) {
      const i = y * w + x
      const size = Math.hypot(s.gx[i]!, s.gy[i]!)
      if (size < s.least) continue
      const dx = -s.gx[i]! / size
      const dy = -s.gy[i]! / size
      for (let r = LEAST_RADIUS; r < far; r++) {
        const px = Math.round(x + r * dx)
        const py = Math.round(y + r * dy)
        if (px < 0 || py < 0 || px >= w || py >= h) break
        votes[py * w + px]! += 1
      }
    }
  const counted = boxMean(boxMean({ ...g, v: votes }, 2), 1).v.slice()
  const out: { x: number; y: number }[] = []
  const apart = Math.max(6, Math.round(Math.max(w, h) / 24))
  for (let k = 0; k < MIDDLES; k++) {
    let best = 0
    for (let i = 1; i < counted.length; i++) if (counted[i]! > counted[best]!) best = i
    if (!(counted[best]! > 0)) break
    const x = best % w
    const y = Math.floor(best / w)
    out.push({ x, y })
    for (let py = Math.max(0, y - apart); py <= Math.min(h - 1, y + apart); py++)
      for (let px = Math.max(0, x - apart); px <= Math.min(w - 1, x + apart); px++) counted[py * w + px] = 0
  }
  return out
}

interface Rise {
  r: number
  by: number
}

/** Rising edges along one direction: where the slope over a few pixels is highest. */
function risesAlong(g: Grey, x: number, y: number, angle: number, noise: number): Rise[] {
  const c = Math.cos(angle)
  const n = Math.sin(angle)
  const line: number[] = []
  for (let r = 0; ; r++) {
    const v = brightnessAt(g, x + r * c, y + r * n)
    if (Number.isNaN(v)) break
    line.push(v)
  }
  const slope = (r: number) => {
    const reach = Math.max(2, Math.round(0.06 * r))
    const a = line[r - reach]
    const b = line[r + reach]
    return a === undefined || b === undefined ? 0 : b - a
  }
  const out: Rise[] = []
  for (let r = LEAST_RADIUS - 1; r < line.length; r++) {
    const by = slope(r)
    if (by > 3 * noise + 0.003 && by >= slope(r - 1) && by > slope(r + 1)) out.push({ r, by })
  }
  const most = Math.max(0, ...out.map(o => o.by))
  return out.filter(o => o.by > 0.1 * most)
}

/** Rings of rising edges about a middle. */
function ringsAbout(g: Grey, x: number, y: number, noise: number): FoundRing[] {
  const rises = Array.from({ length: DIRECTIONS }, (_, k) => risesAlong(g, x, y, (2 * Math.PI * k) / DIRECTIONS, noise))
  const farthest = Math.max(0, ...rises.flatMap(l => l.map(o => o.r)))
  const seen: { r: number; share: number }[] = []
  for (let r = LEAST_RADIUS; r <= farthest; r *= 1.04) {
    const near = Math.max(2, 0.13 * r)
    seen.push({ r, share: rises.filter(l => l.some(o => Math.abs(o.r - r) <= near)).length / DIRECTIONS })
  }
  const out: FoundRing[] = []
  for (const [i, s] of seen.entries()) {
    const before = seen.slice(Math.max(0, i - 3), i)
    const after = seen.slice(i + 1, i + 4)
    if (s.share < LEAST_SEEN || before.some(o => o.share >= s.share) || after.some(o => o.share > s.share)) continue
    const plateau = seen.slice(i).findIndex(o => o.share < s.share)
    const middle = plateau > 1 ? (s.r + seen[i + plateau - 1]!.r) / 2 : s.r
    // a worn, rounded edge shows two rises: its outer end may be the stronger, the mouth's edge is the inner one
    for (const pick of [strongest, innermost]) {
      const ring = ringNear(g, rises, x, y, middle, pick)
      if (ring && !out.some(o => alike(o.ellipse, ring.ellipse))) out.push(ring)
    }
  }
  return out
}

const alike = (p: Ellipse, q: Ellipse) =>
  Math.abs(meanDiameter(p) - meanDiameter(q)) < 1 && Math.hypot(p.x - q.x, p.y - q.y) < 0.5

type Pick = (near: Rise[]) => Rise | undefined
const strongest: Pick = near => near.reduce<Rise | undefined>((a, b) => (a && a.by >= b.by ? a : b), undefined)
const innermost: Pick = near => {
  const most = strongest(near)?.by ?? 0
  return near.find(o => o.by > INNER_SHARE * most)
}
/** An inner rise counts when it is at least this share of the strongest beside it. */
const INNER_SHARE = 0.3

function ringNear(g: Grey, rises: Rise[][], x: number, y: number, r: number, pick: Pick): FoundRing | null {
  const near = Math.max(2.5, 0.17 * r)
  const xs: number[] = []
  const ys: number[] = []
  for (const [k, line] of rises.entries()) {
    const best = pick(line.filter(o => Math.abs(o.r - r) <= near))
    const angle = (2 * Math.PI * k) / DIRECTIONS
    xs.push(best ? x + best.r * Math.cos(angle) : NaN)
    ys.push(best ? y + best.r * Math.sin(angle) : NaN)
  }
  const tolerance = Math.max(1.2, 0.045 * r)
  const about = { x, y, a: r, b: r, angle: 0 }
  const fit = robustEllipse(xs, ys, { near: tolerance, about, fewest: LEAST_ON * DIRECTIONS })
  if (!fit) return null
  const on = xs.filter((_, i) => Math.abs(distanceFrom(fit.ellipse, xs[i]!, ys[i]!)) < tolerance).length / DIRECTIONS
  if (on < LEAST_ON) return null
  const e = fit.ellipse
  const radius = meanDiameter(e) / 2
  const strip = unwrap(g, e, -0.4 * radius, 0.4 * radius, 2)
  const rows = Array.from({ length: strip.rows }, (_, k) => k)
  const gap = Math.max(1.5, 0.08 * radius)
  const inside = median(rows.map(k => meanBetween(strip, k, -gap - 0.12 * radius - 1, -gap)))
  const outside = median(rows.map(k => meanBetween(strip, k, gap, gap + 0.12 * radius + 1)))
  return outside > inside ? { ellipse: e, on, inside, step: outside - inside } : null
}
