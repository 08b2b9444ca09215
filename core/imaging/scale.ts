/**
 * The scale of a picture, µm per pixel: from a stage scale, from a pin of known size, from two points a known distance
 * apart.
 *
 * Stage scale: where all bars lie side by side brightness goes up and down once per bar. The picture times a wave of
 * some direction and frequency, summed, is largest for the wave that fits; the bars that are longer make weaker waves,
 * of five and ten times the period, from their ends only. Found in a small Fourier transform, then drawn to the largest
 * sum over the whole picture. How far the phase wanders along the bars says how sure it is.
 */
import { InputError, need, needOne } from '../numeric'
import { PLACE_PX } from './ellipse'
import { transform2 } from './fourier'
import { checkPixels, greyOf, shrunk, TONES, type Grey, type Pixels, type Tone } from './picture'

export interface Scale {
  umPerPx: number
  /** Standard uncertainty. */
  uUmPerPx: number
}
export interface StageScale extends Scale {
  /** Direction in which the bars follow each other, degrees clockwise from the right as seen, 0 to 180. */
  alongDeg: number
  /** Bars seen along it. */
  bars: number
}
export interface NoScale {
  refused: true
  reason: string
}

/** Distances that scales, pins and pairs of points may have, mm. */
export const KNOWN_MM = [0.0005, 50] as const
/** Their standard uncertainty, mm. */
export const U_KNOWN_MM = [0, 1] as const

/** Side of the square that is transformed. */
const SQUARE = 512
const MOST_SQUARES = 4
/** Bars must be seen this often, and lie so many pixels apart. */
const FEWEST_BARS = 5
const LEAST_PERIOD = 3
/** The wave must stand so far above the common wave. */
const STANDS_OUT = 12

const refusal = (reason: string): NoScale => ({ refused: true, reason })

/**
 * Scale from a picture of a stage scale with a bar every `everyMm` (0.0005 to 50, with its standard uncertainty), or
 * why there is none. Throws InputError for what is no picture.
 */
export function stageScale(p: Pixels, everyMm: number, uEveryMm: number, tone: Tone = 'linear'): StageScale | NoScale {
  checkPixels(p)
  need('everyMm', everyMm, ...KNOWN_MM, 'mm')
  need('uEveryMm', uEveryMm, ...U_KNOWN_MM, 'mm')
  needOne('tone', tone, TONES)
  const whole = greyOf(p, tone)
  const start = strongestWave(whole)
  if (!start) return refusal(NOT_EVEN)
  const { grey, by } = manageable(p, tone, whole, start)
  const wave = sharpened(grey, { fx: start.fx * by, fy: start.fy * by })
  const frequency = Math.hypot(wave.fx, wave.fy)
  const period = 1 / frequency
  const phases = phasesAlong(grey, wave)
  if (phases.length < 4) return refusal(period < FINE_PX ? TOO_FINE : TOO_FEW)
  const line = straightLine(phases)
  const seen = (phases[phases.length - 1]!.at - phases[0]!.at) / period
  if (seen < FEWEST_BARS) return refusal(TOO_FEW)
  // a slope of the phase is a frequency that is off by slope / 2π
  const f = frequency + line.slope / (2 * Math.PI)
  const u = Math.hypot(line.uSlope / (2 * Math.PI), (END_U * f) / seen)
  if (u > MOST_U * f) return refusal(period < FINE_PX ? TOO_FINE : NOT_EVEN)
  const umPerPx = (everyMm * 1000 * f) / by
  const alongDeg = ((Math.atan2(wave.fy, wave.fx) * 180) / Math.PI + 360) % 180
  return {
    umPerPx,
    uUmPerPx: umPerPx * Math.hypot(u / f, LEAST_U, uEveryMm / everyMm),
    alongDeg,
    bars: Math.round(seen),
  }
}
const TOO_FEW = 'No stage scale found: too few bars side by side'
const TOO_FINE = 'The bars are too fine for this picture: go closer, or take a coarser scale'
/** Bars closer than this are hardly told apart, px. */
const FINE_PX = 3.8
const NOT_EVEN = 'No stage scale found: nothing repeats evenly in this picture'
/** What the bars at both ends may be off by together, in periods: they are cut, and some are longer. */
const END_U = 0.012
/** A wave that wanders more than this share is none of bars. */
const MOST_U = 0.003
/** No stage scale is read closer than this share: the lens bends straight lines a little. */
const LEAST_U = 1e-4

interface Wave {
  fx: number
  fy: number
}

/** More pixels than this are made fewer before the wave is drawn out, when its bars stay wide enough. */
const MANY = 2_000_000
const WIDE = 7

/** The picture so small that it is quick: shrunk while the bars stay wide, otherwise its middle. */
function manageable(p: Pixels, tone: Tone, whole: Grey, wave: Wave): { grey: Grey; by: number } {
  const pixels = p.width * p.height
  if (pixels <= MANY) return { grey: whole, by: 1 }
  const by = Math.min(Math.floor(1 / Math.hypot(wave.fx, wave.fy) / WIDE), Math.ceil(Math.sqrt(pixels / MANY)))
  if (by >= 2) return shrunk(p, tone, Math.ceil(Math.max(p.width, p.height) / by))
  const side = Math.sqrt(MANY / pixels)
  const w = (p.width * side) / 2
  const h = (p.height * side) / 2
  const region = { x0: p.width / 2 - w, x1: p.width / 2 + w, y0: p.height / 2 - h, y1: p.height / 2 + h }
  return { grey: greyOf(p, tone, region), by: 1 }
}

/** The strongest wave of any square of the picture; null when none stands out. */
function strongestWave(g: Grey): Wave | null {
  const size = Math.min(SQUARE, 2 ** Math.floor(Math.log2(Math.min(g.width, g.height))))
  if (size < 64) return null
  let best: WaveFound | null = null
  // squares over the whole picture: the scale need not lie in its middle
  const across = g.width > size ? Math.min(MOST_SQUARES, Math.ceil(g.width / size)) : 1
  const down = g.height > size ? Math.min(MOST_SQUARES, Math.ceil(g.height / size)) : 1
  for (let i = 0; i < across; i++)
    for (let j = 0; j < down; j++) {
      const x0 = Math.round(((g.width - size) * (i + 0.5 - 0.5 * Number(across === 1))) / across)
      const y0 = Math.round(((g.height - size) * (j + 0.5 - 0.5 * Number(down === 1))) / down)
      const found = waveIn(g, x0, y0, size)
      if (!best || found.power > best.power) best = found
    }
  return best && best.power > STANDS_OUT ** 2 * best.common ? best : null
}

interface WaveFound extends Wave {
  power: number
  /** Power of the middle one of all waves. */
  common: number
}

function waveIn(g: Grey, x0: number, y0: number, size: number): WaveFound {
  const re = new Float64Array(size * size)
  const im = new Float64Array(size * size)
  let mean = 0
  for (let y = 0; y < size; y++) for (let x = 0; x < size; x++) mean += g.v[(y0 + y) * g.width + x0 + x]!
  mean /= size * size
  const window = Float64Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / size))
  for (let y = 0; y < size; y++)
    for (let x = 0; x < size; x++)
      re[y * size + x] = (g.v[(y0 + y) * g.width + x0 + x]! - mean) * window[x]! * window[y]!
  transform2(re, im, size)
  let best = { fx: 0, fy: 0, power: 0 }
  const powers: number[] = []
  for (let y = 0; y < size; y++)
    for (let x = 0; x <= size / 2; x++) {
      const kx = x
      const ky = y > size / 2 ? y - size : y
      const k = Math.hypot(kx, ky)
      // slower than that is light; faster than three pixels no lens shows
      if (k < FEWEST_BARS || k > size / LEAST_PERIOD) continue
      const power = re[y * size + x]! ** 2 + im[y * size + x]! ** 2
      if ((x + 3 * y) % 7 === 0) powers.push(power)
      if (power > best.power) best = { fx: kx / size, fy: ky / size, power }
    }
  powers.sort((a, b) => a - b)
  return { ...best, common: powers[powers.length >> 1] ?? Infinity }
}

/** Sum of the picture times a wave, every pixel weighted so that it falls off to the sides. */
function sumAt(g: Grey, w: Wave): number {
  let re = 0
  let im = 0
  const cx = 2 * Math.PI * w.fx
  const stepRe = Math.cos(cx)
  const stepIm = Math.sin(cx)
  const across = windowOf(g.width)
  for (let y = 0; y < g.height; y++) {
    const wy = Math.sin((Math.PI * (y + 0.5)) / g.height) ** 2
    const start = 2 * Math.PI * (w.fy * y)
    let c = Math.cos(start)
    let s = Math.sin(start)
    let rowRe = 0
    let rowIm = 0
    const base = y * g.width
    for (let x = 0; x < g.width; x++) {
      const v = g.v[base + x]! * across[x]!
      rowRe += v * c
      rowIm += v * s
      const next = c * stepRe - s * stepIm
      s = c * stepIm + s * stepRe
      c = next
    }
    re += wy * rowRe
    im += wy * rowIm
  }
  return re * re + im * im
}
let windowMade = new Float64Array(0)
function windowOf(n: number): Float64Array {
  if (windowMade.length !== n)
    windowMade = Float64Array.from({ length: n }, (_, i) => Math.sin((Math.PI * (i + 0.5)) / n) ** 2)
  return windowMade
}

/** The wave of the largest sum near a start: a parabola through three sums along each direction, ever closer. */
function sharpened(g: Grey, start: Wave): Wave {
  const w = { ...start }
  const size = Math.min(SQUARE, g.width, g.height)
  // the sum falls off within one wave over the side; the first looks step over the uncertainty of the transform
  let step = 0.5 / size
  const least = 0.02 / Math.max(g.width, g.height)
  for (let round = 0; round < 12 && step > least; round++) {
    for (const k of ['fx', 'fy'] as const) {
      const low = sumAt(g, { ...w, [k]: w[k] - step })
      const mid = sumAt(g, w)
      const high = sumAt(g, { ...w, [k]: w[k] + step })
      const bend = low - 2 * mid + high
      const move = bend < 0 ? Math.max(-1, Math.min(1, (0.5 * (low - high)) / bend)) : Math.sign(high - low)
      w[k] += move * step
    }
    step /= 2.2
  }
  return w
}

interface Phase {
  /** Place along the bars, px, and how far the wave is ahead there, rad. */
  at: number
  ahead: number
  weight: number
}

/** How far the bars are ahead of the wave in stretches along it, where they show. */
function phasesAlong(g: Grey, w: Wave): Phase[] {
  const f = Math.hypot(w.fx, w.fy)
  const ux = w.fx / f
  const uy = w.fy / f
  const stretch = Math.max(2 / f, Math.hypot(g.width, g.height) / 40)
  const { v, width, height } = g
  const corners = [0, (width - 1) * ux, (height - 1) * uy, (width - 1) * ux + (height - 1) * uy]
  const first = Math.floor(Math.min(...corners) / stretch)
  const count = Math.floor(Math.max(...corners) / stretch) - first + 1
  const sums = Array.from({ length: count }, () => ({ re: 0, im: 0, n: 0, mean: 0 }))
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const s = sums[Math.floor((x * ux + y * uy) / stretch) - first]!
      s.n++
      s.mean += v[y * width + x]!
    }
  for (const s of sums) s.mean /= Math.max(1, s.n)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const along = x * ux + y * uy
      const s = sums[Math.floor(along / stretch) - first]!
      const a = 2 * Math.PI * f * along
      const d = v[y * width + x]! - s.mean
      s.re += d * Math.cos(a)
      s.im += d * Math.sin(a)
    }
  const strengths = sums.map(s => Math.hypot(s.re, s.im))
  const strong = Math.max(...strengths)
  const out: Phase[] = []
  for (const [k, s] of sums.entries()) {
    const i = k + first
    const strength = strengths[k]!
    if (strength < 0.3 * strong) continue
    let ahead = -Math.atan2(s.im, s.re)
    const before = out[out.length - 1]?.ahead
    if (before !== undefined) ahead += 2 * Math.PI * Math.round((before - ahead) / (2 * Math.PI))
    out.push({ at: (i + 0.5) * stretch, ahead, weight: strength / strong })
  }
  return out
}

/** A straight line through phases, with the uncertainty of its slope from how they scatter. */
function straightLine(points: Phase[]): { slope: number; uSlope: number } {
  let w = 0
  let mx = 0
  let my = 0
  for (const p of points) {
    w += p.weight
    mx += p.weight * p.at
    my += p.weight * p.ahead
  }
  mx /= w
  my /= w
  let sxx = 0
  let sxy = 0
  for (const p of points) {
    sxx += p.weight * (p.at - mx) ** 2
    sxy += p.weight * (p.at - mx) * (p.ahead - my)
  }
  const slope = sxy / sxx
  let left = 0
  for (const p of points) left += p.weight * (p.ahead - my - slope * (p.at - mx)) ** 2
  return { slope, uSlope: Math.sqrt(left / Math.max(1, points.length - 2) / sxx) }
}

/** Uncertainty of one point set by hand, px. */
const POINT_U_PX = 0.7

/**
 * Scale from two points (px) a known distance apart (mm, with its standard uncertainty). Throws InputError when they
 * lie less than 20 px apart.
 *
 * @example
 * twoPointScale({ x: 10, y: 10 }, { x: 210, y: 10 }, 0.5, 0.001).umPerPx // 2.5 (µm per pixel)
 */
export function twoPointScale(
  a: { x: number; y: number },
  b: { x: number; y: number },
  knownMm: number,
  uKnownMm: number,
): Scale {
  for (const q of [a, b]) {
    need('x', q.x, ...PLACE_PX, 'px')
    need('y', q.y, ...PLACE_PX, 'px')
  }
  need('knownMm', knownMm, ...KNOWN_MM, 'mm')
  need('uKnownMm', uKnownMm, ...U_KNOWN_MM, 'mm')
  const px = Math.hypot(b.x - a.x, b.y - a.y)
  if (px < LEAST_APART) throw new InputError('points', px, `at least ${LEAST_APART} px apart`)
  const umPerPx = (knownMm * 1000) / px
  return { umPerPx, uUmPerPx: umPerPx * Math.hypot(uKnownMm / knownMm, (POINT_U_PX * Math.SQRT2) / px) }
}
const LEAST_APART = 20
