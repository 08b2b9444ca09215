/**
 * How brightness goes from the mouth to the flat, averaged over all directions: where the edge lies, how blurred it is,
 * and whether a grey band of a worn, rounded edge lies outside it.
 *
 * A step blurred by a Gaussian is half way up where the edge is. With a band the brightness jumps at the mouth's edge,
 * bends in the band's middle and again at its end; all are blurred alike. Each shape is linear in its levels, so that
 * only place, blur and width are searched for (variable projection, Golub & Pereyra 1973).
 */
import { fastNormalCdf, leastSquares, solve } from '../numeric'

export interface EdgeShape {
  /** Distance of the mouth's edge from where it was looked for, px (+ outside). */
  at: number
  uAt: number
  /** Standard deviation of the blur, px. */
  blur: number
  /** Width of the grey band, px; null when there is none. */
  band: number | null
  /** The band is too narrow for this blur to be told from the edge. */
  isInseparable: boolean
  /** Height of the edge's own half, as a share of the way from the mouth to the flat. */
  half: number
}

/** The averaged edge: distances, brightness from about 0 in the mouth to about 1 on the flat, its uncertainty. */
export interface EdgeProfile {
  s: Float64Array
  y: Float64Array
  u: Float64Array
}

const phi = (z: number) => Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)

/** What is looked for, px. */
const LEAST_BLUR = 0.35
const MOST_BLUR = 300
const LEAST_BAND = 0.5
const MOST_BAND = 3000

/** How brightness goes within a band: bent in its middle, along a parabola, or in two S-shaped halves. */
type Within = 'bent' | 'round' | 'smooth'

interface Place {
  at: number
  blur: number
  band: number | null
  within: Within
}

const MOST_LEVELS = 6
const basis = new Float64Array(MOST_LEVELS)
const normal = new Float64Array(MOST_LEVELS * MOST_LEVELS)
const right = new Float64Array(MOST_LEVELS)

/**
 * Values at a distance of what a shape is made of: a level, a slope, a step at the edge, a bend there, and for a band
 * two more. A bend of 1 at 0, blurred, is zΦ(z) + φ(z); a parabola z²/2 that starts there ((z² + 1)Φ(z) + zφ(z))/2.
 */
function basisAt(s: number, { at, blur, band, within }: Place): void {
  const z = (s - at) / blur
  const c = fastNormalCdf(z)
  const f = phi(z)
  basis[0] = 1
  basis[1] = s - at
  basis[2] = c
  basis[3] = blur * (z * c + f)
  if (band === null) return
  if (within === 'smooth') {
    basis[4] = blurredS((s - at - band / 2) / blur, band / 2 / blur)
    basis[5] = blurredS(z, band / 2 / blur)
    return
  }
  const e = z - band / blur
  const ce = fastNormalCdf(e)
  const fe = phi(e)
  basis[4] = blur * (e * ce + fe)
  if (within === 'bent') {
    const m = z - band / 2 / blur
    basis[5] = blur * (m * fastNormalCdf(m) + phi(m))
    return
  }
  basis[5] = (blur ** 2 / 2) * ((z * z + 1) * c + z * f - (e * e + 1) * ce - e * fe)
}

/** Changes of slope of five points of 3t² − 2t³ joined by lines, at quarters of its length. */
const S_BENDS = [0.625, 0.75, 0, -0.75, -0.625]

/** A rise from 0 to 1 along 3t² − 2t³ over a length, both in blurs, from where z is 0. */
function blurredS(z: number, length: number): number {
  let sum = 0
  for (let k = 0; k < S_BENDS.length; k++) {
    if (S_BENDS[k] === 0) continue
    const v = z - (k * length) / 4
    sum += S_BENDS[k]! * (v * fastNormalCdf(v) + phi(v))
  }
  return sum / length
}

let rowsOf = new Float64Array(0)

/** Levels for a given place, blur and band, and what is left over in uncertainties. */
function project(p: EdgeProfile, place: Place): { levels: number[]; left: number[] } | null {
  const n = place.band === null ? 4 : 6
  if (rowsOf.length < n * p.s.length) rowsOf = new Float64Array(MOST_LEVELS * p.s.length)
  normal.fill(0)
  right.fill(0)
  for (let i = 0; i < p.s.length; i++) {
    basisAt(p.s[i]!, place)
    const w = 1 / p.u[i]! ** 2
    for (let r = 0; r < n; r++) {
      rowsOf[i * n + r] = basis[r]!
      const wr = w * basis[r]!
      right[r]! += wr * p.y[i]!
      for (let c = r; c < n; c++) normal[r * MOST_LEVELS + c]! += wr * basis[c]!
    }
  }
  const square = Array.from({ length: n }, (_, r) =>
    Array.from(
      { length: n },
      (__, c) => normal[Math.min(r, c) * MOST_LEVELS + Math.max(r, c)]! * (r === c ? 1 + 1e-10 : 1),
    ),
  )
  const levels = solve(square, Array.from(right.subarray(0, n)))
  if (!levels) return null
  const left: number[] = []
  for (let i = 0; i < p.s.length; i++) {
    let made = 0
    for (let k = 0; k < n; k++) made += rowsOf[i * n + k]! * levels[k]!
    left.push((p.y[i]! - made) / p.u[i]!)
  }
  return { levels, left }
}

const meanSquare = (left: readonly number[]) => left.reduce((s, v) => s + v * v, 0) / left.length

/** A fitted shape: its place, its levels, and the residuals it came from. */
interface Fitted extends Place {
  levels: number[]
  misfit: number
  parameters: number[]
  residuals: (q: readonly number[]) => number[]
}

/** The shape of one kind that is nearest to a profile, from a start; null when there is none. */
function fitShape(p: EdgeProfile, start: Place): Fitted | null {
  const read = (q: readonly number[]): Place => ({
    at: q[0]!,
    blur: Math.min(MOST_BLUR, LEAST_BLUR + Math.abs(q[1]!)),
    band: start.band === null ? null : Math.min(MOST_BAND, LEAST_BAND + Math.abs(q[2]!)),
    within: start.within,
  })
  const none = Array.from(p.y, (y, i) => y / p.u[i]!)
  const residuals = (q: readonly number[]) => project(p, read(q))?.left ?? none
  const q0 = [start.at, Math.max(1e-3, start.blur - LEAST_BLUR)]
  if (start.band !== null) q0.push(Math.max(1e-3, start.band - LEAST_BAND))
  const { parameters } = leastSquares(residuals, q0, { steps: 25, tolerance: 1e-7 })
  const v = read(parameters)
  const made = project(p, v)
  return made && { ...v, levels: made.levels, misfit: meanSquare(made.left), parameters, residuals }
}

/** Uncertainty of the place, from how the residuals go with it; scaled up where the shape does not fit. */
function uncertaintyOf(f: Fitted): number {
  const q = f.parameters
  const slopes = q.map((v, j) => {
    const h = 1e-3 * Math.max(1, Math.abs(v))
    const up = f.residuals(q.map((x, i) => (i === j ? x + h : x)))
    const down = f.residuals(q.map((x, i) => (i === j ? x - h : x)))
    return up.map((u, i) => (u - down[i]!) / (2 * h))
  })
  const m = slopes.map(a => slopes.map(b => a.reduce((s, v, i) => s + v * b[i]!, 0)))
  const first =
    solve(
      m,
      q.map((_, i) => (i === 0 ? 1 : 0)),
    )?.[0] ?? Infinity
  return Math.sqrt(Math.max(0, first) * Math.max(1, f.misfit))
}

/** A band narrower than so many blurs cannot be told from the edge. */
const SEPARABLE_BLURS = 4

/** Band widths that are tried first, in blurs. */
const TRIED = [2.6, 4, 6, 9, 14, 22, 34]
/** A plain edge that leaves no more than this over needs no band; with one, half of it must go. */
const FITS = 1.6
const WORTH = 0.5
/** What no averaged edge is known better than, as a share of its height: light is never quite even. */
const FLOOR = 0.004

/** Places of a profile that are enough to tell its shape. */
const ENOUGH = 90

/** Neighbouring places made one until no more than so many are left, with the floor of their uncertainty. */
function thinned(p: EdgeProfile): EdgeProfile {
  const each = Math.max(1, Math.ceil(p.s.length / ENOUGH))
  const n = Math.floor(p.s.length / each)
  const mean = (v: Float64Array, i: number) => {
    let sum = 0
    for (let k = 0; k < each; k++) sum += v[i * each + k]!
    return sum / each
  }
  return {
    s: Float64Array.from({ length: n }, (_, i) => mean(p.s, i)),
    y: Float64Array.from({ length: n }, (_, i) => mean(p.y, i)),
    // neighbours share most of their noise: it does not fall with their number
    u: Float64Array.from({ length: n }, (_, i) => Math.hypot(mean(p.u, i), FLOOR)),
  }
}

/**
 * The shape of an averaged edge, looked for about a place with a blur, px; null when it holds no rising edge.
 */
export function edgeShape(raw: EdgeProfile, guess: { at: number; blur: number }, isLast: boolean): EdgeShape | null {
  const p = thinned(raw)
  const whole = fitShape(p, { ...guess, band: null, within: 'bent' })
  if (!whole) return null
  const isElsewhere = Math.abs(whole.at - guess.at) > Math.max(2, 2 * guess.blur)
  const plain = isElsewhere ? localFit(p, guess) : whole
  if (!plain || !(plain.levels[2]! > 0)) return null
  const forms = whole.misfit > FITS || isElsewhere ? WITHIN.slice(0, isLast ? 3 : 1) : []
  const bands = forms.map(w => withBand(p, whole, guess, w)).filter(f => f !== null)
  const best = bands.sort((a, b) => a.misfit - b.misfit)[0]
  if (!best || (best.misfit > WORTH * whole.misfit && !isElsewhere)) {
    const { at, blur } = plain
    return { at, uAt: uncertaintyOf(plain), blur, band: null, isInseparable: false, half: 0.5 }
  }
  const other = bands[1]
  const uForm = Math.hypot(uncertaintyOf(best), other ? (other.at - best.at) / 2 : 0, BAND_BLURS * best.blur)
  const { blur, band, misfit } = best
  const narrow = band! < MAYBE_BLURS * blur ? asNarrow(p, best) : null
  if (band! < SEPARABLE_BLURS * blur || (narrow && narrow.misfit < Math.max(FITS, AS_GOOD * misfit))) {
    // somewhere between where it is if all the rise is one edge, and where it is with the band
    const outer = halfWay(p, levelAt(best, 1) / 2 + best.levels[0]!)
    const uAt = Math.hypot(uForm, Math.abs(outer - best.at) / 2 / Math.sqrt(3))
    const at = (outer + best.at) / 2
    return { at, uAt, blur, band, isInseparable: true, half: halfOf(best, at) }
  }
  return { at: best.at, uAt: uForm, blur, band, isInseparable: false, half: halfOf(best, best.at) }
}

/** A plain edge through what lies near the place only: beyond it something else rises more. */
function localFit(p: EdgeProfile, guess: { at: number; blur: number }): Fitted | null {
  const near = Array.from(p.s.keys()).filter(i => Math.abs(p.s[i]! - guess.at) < 3.5 * guess.blur + 2)
  if (near.length < 8) return null
  const part = { s: p.s, y: p.y, u: p.u }
  for (const k of ['s', 'y', 'u'] as const) part[k] = Float64Array.from(near, i => p[k][i]!)
  return fitShape(part, { ...guess, band: null, within: 'bent' })
}

/** The same with a band so narrow that nobody could tell it. */
function asNarrow(p: EdgeProfile, f: Fitted): Fitted | null {
  const left = (q: readonly number[]) => {
    const blur = Math.min(MOST_BLUR, LEAST_BLUR + Math.abs(q[1]!))
    return project(p, { at: q[0]!, blur, band: NARROW_BLURS * blur, within: f.within })?.left ?? Array.from(p.y)
  }
  const { parameters: q } = leastSquares(left, [f.at, f.band! / NARROW_BLURS - LEAST_BLUR], {
    steps: 25,
    tolerance: 1e-7,
  })
  return { ...f, at: q[0]!, misfit: meanSquare(left(q)) }
}
/** A band that seems this wide may be a narrower one, more blurred; it is tried as so many blurs wide. */
const MAYBE_BLURS = 7
const NARROW_BLURS = 3.4
/** As good a fit: what is left over is no more than this many times as much. */
const AS_GOOD = 1.7

/** Where the profile last passes a height from below, px. */
function halfWay(p: EdgeProfile, height: number): number {
  let at = p.s[0]!
  for (let i = 1; i < p.s.length; i++) {
    const [a, b] = [p.y[i - 1]!, p.y[i]!]
    if (a < height && b >= height) at = p.s[i - 1]! + ((height - a) / (b - a)) * (p.s[i]! - p.s[i - 1]!)
  }
  return at
}

const WITHIN: Within[] = ['smooth', 'bent', 'round']
/** What the form of a band that nobody knows may move the edge, blurs. */
const BAND_BLURS = 0.1

function withBand(p: EdgeProfile, plain: Fitted, guess: { at: number; blur: number }, within: Within): Fitted | null {
  const reach = p.s[p.s.length - 1]! - guess.at
  const blur = Math.min(guess.blur, plain.blur)
  // of many starts the two that fit best are followed to their end; all of the rise, or only its inner part, may be the
  // plain edge
  const starts: { place: Place; cost: number }[] = []
  for (const t of TRIED)
    for (const at of [guess.at, plain.at, plain.at - 0.5 * blur]) {
      const place = { at, blur, band: t * blur, within }
      const made = place.band > 0.9 * reach ? null : project(p, place)
      if (made) starts.push({ place, cost: meanSquare(made.left) })
    }
  starts.sort((a, b) => a.cost - b.cost)
  const far = starts.find(s => Math.abs(Math.log(s.place.band! / starts[0]!.place.band!)) > 0.3)
  let best: Fitted | null = null
  for (const { place } of [starts[0], far].filter(s => s !== undefined)) {
    const f = fitShape(p, place)
    if (f && isBand(f, reach) && (!best || f.misfit < best.misfit)) best = f
  }
  return best
}

/** Brightness of the unblurred shape outside the edge, at a share of the band. */
function levelAt(f: Fitted, t: number): number {
  const [, , step, slope, end, more] = f.levels as [number, number, number, number, number, number]
  const d = t * f.band!
  if (f.within === 'smooth') return step + slope * d + more * sAt(2 * t) + end * sAt(2 * t - 1)
  const bent = f.within === 'bent' ? more * Math.max(0, d - f.band! / 2) : (more * d * d) / 2
  return step + slope * d + bent
}

const sAt = (t: number) => (t <= 0 ? 0 : Math.min(1, t * t * (3 - 2 * Math.min(1, t))))

/** A band is darker than the flat, and the mouth darker than the band. */
function isBand(f: Fitted, reach: number): boolean {
  const end = levelAt(f, 1)
  const lowest = Math.min(levelAt(f, 0), levelAt(f, 0.25), levelAt(f, 0.5), levelAt(f, 0.75))
  return (
    f.levels[2]! > 0.15 * end && lowest > 0.08 * end && lowest < 0.95 * end && f.band! < reach && f.band! > 2 * f.blur
  )
}

/** Height of the blurred shape at a place, as a share of the way to the flat. */
function halfOf(f: Fitted, at: number): number {
  basisAt(at, f)
  let made = 0
  for (let k = 2; k < 6; k++) made += basis[k]! * f.levels[k]!
  return Math.min(0.6, Math.max(0.1, made / levelAt(f, 1)))
}
