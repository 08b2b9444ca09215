/**
 * Drawn pictures of nozzle mouths and of stage scales, for the microscope's stand-in, the demo, the tests and the
 * bench: what is in them is known exactly. Drawn sharp, six by six to the pixel where an edge runs, then blurred as a
 * lens does in both directions, then lit, made noisy and stored with or without a camera's tone curve.
 */
import { mulberry32, normalDraw } from '../core/numeric'

export interface Drawn {
  width: number
  height: number
  /** Red, green, blue, alpha of every pixel, row by row. */
  rgba: Uint8ClampedArray
}

/** A mouth in pixels; angles in degrees, clockwise from the right as seen. */
export interface MouthScene {
  width: number
  height: number
  seed: number
  x: number
  y: number
  /** Half axes of the mouth before the camera is tilted, and the direction of the long one. */
  a: number
  b: number
  longDeg: number
  /** Radius of the flat around it; 0 for none. */
  flat: number
  /** Brightness from 0 to 1 of the mouth, the flat and what is around it. */
  levels: { mouth: number; flat: number; around: number }
  /** Standard deviation of the blur. */
  blur: number
  noise: number
  /** How far the edge wanders in and out, as machining leaves it; its mean is the ellipse. */
  rough?: number
  /** A worn, rounded edge outside the mouth: its width, and how bright its start and middle are, from mouth to flat. */
  band?: { width: number; start: number; middle: number }
  chips?: { atDeg: number; wideDeg: number; deep: number }[]
  residue?: { fromDeg: number; toDeg: number; inside: number; outside: number; level: number }[]
  glare?: { x: number; y: number; size: number; strength: number }
  /** Light that comes up the bore. */
  lit?: number
  /** Light from one side: how much brighter one edge of the picture is, and where it comes from. */
  side?: { strength: number; fromDeg: number }
  tilt?: { deg: number; towardsDeg: number }
  /** Turning marks on the flat, as a share of its brightness. */
  turning?: number
  tone: 'linear' | 'srgb'
  /** Red, green and blue of the light; white if not given. */
  tint?: [number, number, number]
}

const RAD = Math.PI / 180

/** Brightness of a point of the scene, before blur and light. */
function painter(s: MouthScene): (px: number, py: number) => number {
  const tilt = s.tilt ? { cos: Math.cos(s.tilt.deg * RAD), at: s.tilt.towardsDeg * RAD } : null
  const cosLong = Math.cos(s.longDeg * RAD)
  const sinLong = Math.sin(s.longDeg * RAD)
  const { mouth, flat, around } = s.levels
  const random = mulberry32(s.seed + 7)
  const waves = [5, 8, 13, 19].map(n => ({
    n,
    at: 2 * Math.PI * random(),
    by: (s.rough ?? 0) * (0.3 + 0.7 * random()),
  }))
  const wander = (t: number) => waves.reduce((sum, w) => sum + (w.by / 2) * Math.cos(w.n * t + w.at), 0)
  const most = (of: number[]) => Math.max(0, ...of)
  const wanders = waves.reduce((sum, w) => sum + w.by / 2, 0)
  /** From here on nothing along the edge can be seen: most of a picture. */
  const outside =
    wanders +
    most((s.chips ?? []).map(c => c.deep)) +
    most((s.residue ?? []).map(p => p.outside)) +
    (s.band?.width ?? 0)
  const inside = wanders + most((s.residue ?? []).map(p => p.inside))
  const ground = (r: number) => {
    if (s.flat > 0 && r > s.flat) return around
    const level = s.flat > 0 ? flat : around
    return s.turning ? level * (1 + s.turning * Math.sin(r * 0.9) * Math.sin(r * 0.23 + 1)) : level
  }
  const hole = (q: number) => mouth + (s.lit ? s.lit * Math.max(0, 1 - q * q) : 0)
  return (px, py) => {
    let x = px - s.x
    let y = py - s.y
    if (tilt) {
      // seen askew, everything is shorter along one direction
      const along = x * Math.cos(tilt.at) + y * Math.sin(tilt.at)
      const more = along / tilt.cos - along
      x += more * Math.cos(tilt.at)
      y += more * Math.sin(tilt.at)
    }
    // Math.hypot guards against overflow, at ten times the price
    const r = Math.sqrt(x * x + y * y)
    const u = (x * cosLong + y * sinLong) / s.a
    const v = (-x * sinLong + y * cosLong) / s.b
    const q = Math.sqrt(u * u + v * v)
    // distance outside the mouth's edge, to first order, before it wanders
    const far = q === 0 ? -s.b : ((q - 1) * q) / Math.sqrt((u / s.a) ** 2 + (v / s.b) ** 2)
    if (far > outside) return ground(r)
    if (far < -inside) return hole(q)
    const deg = (Math.atan2(y, x) / RAD + 360) % 360
    const edge = far - wander(deg * RAD)
    let deep = 0
    for (const c of s.chips ?? []) deep = Math.max(deep, c.deep * chipShape(turn(deg - c.atDeg) / c.wideDeg))
    for (const p of s.residue ?? [])
      if (within(deg, p.fromDeg, p.toDeg) && edge > -p.inside && edge < p.outside) return p.level
    if (edge < deep) return hole(q)
    if (s.flat > 0 && r > s.flat) return around
    let level = ground(r)
    if (s.band && edge < s.band.width && deep === 0) {
      const t = edge / s.band.width
      const { start, middle } = s.band
      const up = t < 0.5 ? start + (middle - start) * smooth(2 * t) : middle + (1 - middle) * smooth(2 * t - 1)
      level = mouth + (level - mouth) * up
    }
    return level
  }
}
const smooth = (t: number) => t * t * (3 - 2 * t)
const chipShape = (t: number) => (Math.abs(t) >= 0.5 ? 0 : (1 - (2 * t) ** 2) ** 0.7)
const turn = (deg: number) => ((((deg + 180) % 360) + 360) % 360) - 180
const within = (deg: number, from: number, to: number) => (((deg - from) % 360) + 360) % 360 <= to - from

/** Averages six by six points of a pixel where they can differ, its corners where they do not. */
function paint(width: number, height: number, at: (x: number, y: number) => number): Float32Array {
  const out = new Float32Array(width * height)
  // four pixels share a corner: it is asked once
  const corners = (y: number) => Float64Array.from({ length: width + 1 }, (_, x) => at(x - 0.5, y - 0.5))
  let below = corners(0)
  for (let y = 0; y < height; y++) {
    const above = below
    below = corners(y + 1)
    for (let x = 0; x < width; x++) {
      const [a, b, c, d] = [above[x]!, above[x + 1]!, below[x]!, below[x + 1]!]
      if (Math.max(a, b, c, d) - Math.min(a, b, c, d) < 0.02) {
        out[y * width + x] = (a + b + c + d) / 4
        continue
      }
      let sum = 0
      for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) sum += at(x + (2 * i - 5) / 12, y + (2 * j - 5) / 12)
      out[y * width + x] = sum / 36
    }
  }
  return out
}

/** Gaussian blur, rows then columns. */
export function blurred(image: Float32Array, width: number, height: number, sigma: number): Float32Array {
  if (sigma <= 0) return image
  const reach = Math.ceil(4 * sigma)
  const kernel = Float64Array.from({ length: 2 * reach + 1 }, (_, i) => Math.exp(-0.5 * ((i - reach) / sigma) ** 2))
  const total = kernel.reduce((s, v) => s + v, 0)
  const pass = (from: Float32Array, n: number, lines: number, step: number, stride: number) => {
    const out = new Float32Array(from.length)
    // a line by itself, its ends drawn out: no place of it is asked whether it is still within
    const line = new Float64Array(n + 2 * reach)
    for (let l = 0; l < lines; l++) {
      for (let i = 0; i < line.length; i++) line[i] = from[l * stride + Math.min(n - 1, Math.max(0, i - reach)) * step]!
      for (let i = 0; i < n; i++) {
        let sum = 0
        for (let k = 0; k <= 2 * reach; k++) sum += kernel[k]! * line[i + k]!
        out[l * stride + i * step] = sum / total
      }
    }
    return out
  }
  return pass(pass(image, width, height, 1, width), height, width, width, 1)
}

export const toSrgb = (v: number) => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055)

/** Lights, adds noise and stores as a camera does. */
function develop(
  image: Float32Array,
  s: Pick<MouthScene, 'width' | 'height' | 'seed' | 'noise' | 'tone' | 'tint'>,
): Drawn {
  const random = mulberry32(s.seed)
  const rgba = new Uint8ClampedArray(4 * s.width * s.height)
  for (let i = 0; i < image.length; i++) {
    const grey = s.tint ? 0 : s.noise * normalDraw(random)
    for (let c = 0; c < 3; c++) {
      const v = image[i]! * (s.tint?.[c] ?? 1) + (s.tint ? s.noise * normalDraw(random) : grey)
      const light = Math.min(1, Math.max(0, v))
      rgba[4 * i + c] = 255 * (s.tone === 'srgb' ? toSrgb(light) : light)
    }
    rgba[4 * i + 3] = 255
  }
  return { width: s.width, height: s.height, rgba }
}

/** The picture of a mouth. */
export function drawMouth(s: MouthScene): Drawn {
  const image = blurred(paint(s.width, s.height, painter(s)), s.width, s.height, s.blur)
  for (let y = 0; y < s.height; y++)
    for (let x = 0; x < s.width; x++) {
      let v = image[y * s.width + x]!
      if (s.side) {
        const at = s.side.fromDeg * RAD
        v *= 1 + (s.side.strength * ((x - s.x) * Math.cos(at) + (y - s.y) * Math.sin(at))) / s.width
      }
      if (s.glare)
        v +=
          s.glare.strength *
          Math.exp(-0.5 * (((x - s.glare.x) / s.glare.size) ** 2 + ((y - s.glare.y) / s.glare.size) ** 2))
      image[y * s.width + x] = v
    }
  return develop(image, s)
}

export interface ScaleScene {
  width: number
  height: number
  seed: number
  /** Pixels from bar to bar. */
  every: number
  /** Direction along which the bars follow each other. */
  alongDeg: number
  x: number
  y: number
  blur: number
  noise: number
  tone: 'linear' | 'srgb'
  /** Half the height of a short bar, pixels. */
  half: number
  /** Bars' width as a share of the period. */
  duty: number
}

/** The picture of a stage scale: bars longer at every fifth, longest at every tenth. */
export function drawScale(s: ScaleScene): Drawn {
  const c = Math.cos(s.alongDeg * RAD)
  const n = Math.sin(s.alongDeg * RAD)
  const at = (px: number, py: number) => {
    const along = ((px - s.x) * c + (py - s.y) * n) / s.every
    const off = (py - s.y) * c - (px - s.x) * n
    const bar = Math.round(along)
    const half = s.half * longer(bar)
    return Math.abs(along - bar) < s.duty / 2 && off > -s.half && off < 2 * half - s.half ? 0.18 : 0.85
  }
  return develop(blurred(paint(s.width, s.height, at), s.width, s.height, s.blur), s)
}
function longer(bar: number): number {
  if (bar % 10 === 0) return 1.8
  return bar % 5 === 0 ? 1.4 : 1
}

export interface PinScene {
  width: number
  height: number
  seed: number
  x: number
  y: number
  wide: number
  /** Direction of the pin. */
  alongDeg: number
  blur: number
  noise: number
}

/** The picture of a pin that lies across it, brighter in its middle as round things are. */
export function drawPin(s: PinScene): Drawn {
  const c = Math.cos(s.alongDeg * RAD)
  const n = Math.sin(s.alongDeg * RAD)
  const at = (px: number, py: number) => {
    const t = ((py - s.y) * c - (px - s.x) * n) / (s.wide / 2)
    return Math.abs(t) > 1 ? 0.15 : 0.55 + 0.3 * Math.sqrt(1 - t * t)
  }
  return develop(blurred(paint(s.width, s.height, at), s.width, s.height, s.blur), { ...s, tone: 'linear' })
}
