/**
 * The bore of a nozzle's mouth from a picture of known scale, with its uncertainty. Steps: where it may be (`find`);
 * the picture laid out straight about that ellipse (`unwrap`); the edge in 180 directions (`edge-points`); an ellipse
 * through most of them (`robust`); all directions on it averaged, and the shape of that edge (`edge-shape`) says where
 * the edge really is, how blurred it is, and whether a grey band of a worn edge lies outside it. Three times, each time
 * closer. Uncertainty by `budget`.
 */
import { InputError, need, needOne } from '../numeric'
import { budgetOf, type Budget } from './budget'
import { chipsOf, type Chip } from './chips'
import { edgePoints, type EdgePoints, type Looking } from './edge-points'
import { edgeShape, type EdgeProfile, type EdgeShape } from './edge-shape'
import { meanDiameter, PLACE_PX, type Ellipse } from './ellipse'
import { findRings } from './find'
import { checkPixels, TONES, viewOf, type Pixels, type Tone } from './picture'
import { robustEllipse, type RobustFit } from './robust'
import { tiltOf } from './tilt'
import { unwrap, type Strip } from './unwrap'

/** Version of the method: kept with every bore, so that it is known what it was read by. */
export const IMAGING_METHOD = 'mouth-1'

/** Scale of a picture, µm per pixel. */
export const UM_PER_PX = [0.01, 1000] as const
/** Its standard uncertainty, µm per pixel. */
export const U_UM_PER_PX = [0, 100] as const
/** A mouth with fewer pixels across is refused. */
export const FEWEST_PX = 40
/** One with fewer is measured with a warning. */
export const FEW_PX = 60

export interface BoreQuestion {
  umPerPx: number
  uUmPerPx: number
  tone: Tone
  /** Whether the tone was stated; if not, what the other reading would give counts in the uncertainty. */
  isToneStated: boolean
  /** Where the edge is, when someone has shown it: it is looked for nearby only. */
  near?: Ellipse
}

/** What a measured bore may be warned of. */
export const WARNINGS = ['tilted', 'not separable', 'few pixels', 'out of focus', 'partly hidden'] as const
export type Warning = (typeof WARNINGS)[number]

export interface Bore {
  /** Diameter of the circle of equal area, mm, and its standard uncertainty. */
  boreMm: number
  uMm: number
  largestMm: number
  smallestMm: number
  /** Direction of the long axis, degrees clockwise from the right as seen. */
  longDeg: number
  chips: Chip[]
  /** Width of the worn, rounded edge around the mouth, mm; null when none is seen. */
  flareMm: number | null
  /** Share of the edge that is not hidden. */
  edgeShare: number
  warnings: Warning[]
  budget: Budget
  /** In pixels: the mouth as it lies in the picture, the flat's outer edge if found, points of the edge, the blur. */
  ellipse: Ellipse
  flat: Ellipse | null
  points: { x: number; y: number; isOn: boolean }[]
  blurPx: number
  /** Pixels across the mouth. */
  acrossPx: number
}

export interface NoBore {
  refused: true
  reason: string
}

const refusal = (reason: string): NoBore => ({ refused: true, reason })

/** Share of directions that must show the edge, and scatter that an edge may have, as a share of its radius. */
const LEAST_ON = 0.42
const MOST_SCATTER = 0.045
/** An edge more blurred than this share of its radius is none. */
const MOST_BLUR = 0.22
/** Height of an edge above the noise of its average. */
const LEAST_HEIGHT = 0.012

/**
 * The bore in a picture, or why there is none. `progress` is told the share done. Throws InputError for what is no
 * picture (sides 16 to 20000 px, at most 60 million pixels) or no scale (0.01 to 1000 µm per pixel).
 */
export function measureBore(p: Pixels, q: BoreQuestion, progress: (share: number) => void = () => {}): Bore | NoBore {
  checkPixels(p)
  need('umPerPx', q.umPerPx, ...UM_PER_PX, 'µm per pixel')
  need('uUmPerPx', q.uUmPerPx, ...U_UM_PER_PX, 'µm per pixel')
  needOne('tone', q.tone, TONES)
  if (q.near) checkNear(q.near)
  const rings = q.near ? [q.near] : findRings(p, q.tone).map(r => r.ellipse)
  progress(0.5)
  if (rings.length === 0) return refusal(NO_MOUTH)
  let reason = NO_MOUTH
  for (const [i, ring] of rings.slice(0, 5).entries()) {
    const edge = closer(p, q.tone, ring, q.near !== undefined)
    progress(0.6 + 0.08 * i)
    if ('refused' in edge) {
      if (i === 0) ({ reason } = edge)
      continue
    }
    return report(p, q, edge)
  }
  return refusal(reason)
}

/** Half axes of a ring that someone has shown, px. */
export const NEAR_PX = [2, 1e4] as const

function checkNear(e: Ellipse): void {
  need('x', e.x, ...PLACE_PX, 'px')
  need('y', e.y, ...PLACE_PX, 'px')
  need('a', e.a, ...NEAR_PX, 'px')
  need('b', e.b, ...NEAR_PX, 'px')
  need('angle', e.angle, -10, 10, 'rad')
  if (e.b > e.a) throw new InputError('b', e.b, `at most the long half axis, ${e.a}`)
}

const NO_MOUTH = 'No mouth found: nothing dark with a brighter edge all around it'
const NO_ELLIPSE = 'No mouth found: its edge is no ellipse'

/** The edge as found: everything the report is made from. */
export interface FoundEdge {
  ellipse: Ellipse
  strip: Strip
  points: EdgePoints
  fit: RobustFit
  shape: EdgeShape
}

const LOOKS = 3

/** Three looks, each in a narrower strip about the ellipse of the last. */
function closer(p: Pixels, tone: Tone, start: Ellipse, isShown: boolean): FoundEdge | NoBore {
  let ellipse = start
  let blur = 2
  let band = 0
  let half = 0.5
  let found: FoundEdge | null = null
  const view = viewOf(p, tone)
  for (let look = 0; look < LOOKS; look++) {
    const r = meanDiameter(ellipse) / 2
    const wide = Math.max(4, (isShown ? 0.14 : 0.2) * r)
    const reach = look === 0 ? wide : Math.min(0.35 * r, Math.max(4, 0.06 * r, 3 * blur))
    const inner = Math.min(0.85 * ellipse.b, Math.max(reach + 3 * blur + 3, 0.2 * r))
    const outer = Math.max(reach + 3 * blur + 3, 0.36 * r, band + 6 * blur + 4)
    const strip = unwrap(view, ellipse, -inner, outer)
    const looking: Looking = {
      mouthTo: -Math.min(0.6 * inner, look === 0 ? 0.5 * reach : 2.5 * blur + 1),
      flatFrom: look === 0 ? 0.5 * reach : Math.min(0.7 * outer, band + 2.5 * blur + 1),
      flatTo: look === 0 ? reach : band + 5 * blur + 4,
      half,
      reach,
      around: look === 0 ? 0.6 * reach : Math.max(2, 1.5 * blur),
    }
    const points = edgePoints(strip, looking)
    const near = look === 0 ? Math.max(1, 0.04 * r) : Math.max(0.6, Math.min(0.03 * r, 0.5 * blur))
    const fit = robustEllipse(points.xs, points.ys, { near, about: ellipse, fewest: LEAST_ON * strip.rows })
    const size = fit ? meanDiameter(fit.ellipse) / meanDiameter(start) : 0
    if (!fit || size < 0.5 || size > 1.6) return refusal(NO_ELLIPSE)
    // lay it out anew about the better ellipse, so that the average is sharp
    const about = unwrap(view, fit.ellipse, -inner, outer)
    const profile = averaged(about, fit, points, look === 0 ? -inner : -4.5 * blur - 3)
    const guess = { at: 0, blur: Math.min(blur, 0.2 * r) }
    const shape = profile && edgeShape(profile, guess, look === LOOKS - 1)
    if (!shape) return refusal('No mouth found: its edge is not brighter outside than inside')
    if (shape.blur > MOST_BLUR * r) return refusal('No edge: the picture is far out of focus, or this is no mouth')
    ;({ blur, half } = shape)
    band = shape.band ?? 0
    ellipse = grown(fit.ellipse, shape.at + curvedBy(shape.blur, r))
    found = { ellipse, strip: about, points, fit, shape }
  }
  if (!found) return refusal(NO_MOUTH)
  const r = meanDiameter(found.ellipse) / 2
  if (found.fit.scatter > MOST_SCATTER * r) return refusal(NO_ELLIPSE)
  return found
}

/**
 * A lens blurs in both directions, so that half the height of a round edge lies blur²/2r inside it; of an edge that was
 * blurred along its normal only it does not. Half of that is added, and it is as uncertain. px.
 */
export const curvedBy = (blur: number, r: number) => blur ** 2 / (4 * r)

/** The ellipse with its edge so many pixels farther out. */
function grown(e: Ellipse, by: number): Ellipse {
  return { ...e, a: e.a + by, b: e.b + by }
}

/** Mean of all directions that lie on the ellipse, from 0 in the mouth to 1 on the flat. */
export function averaged(s: Strip, fit: RobustFit, points: EdgePoints, from: number): EdgeProfile | null {
  const ss: number[] = []
  const ys: number[] = []
  const us: number[] = []
  for (let c = 0; c < s.cols; c++) {
    const at = s.from + c * s.step
    if (at < from) continue
    let n = 0
    let sum = 0
    let square = 0
    for (let r = 0; r < s.rows; r++) {
      if (!fit.isOn[r]) continue
      const v = (s.v[r * s.cols + c]! - points.mouth[r]!) / (points.flat[r]! - points.mouth[r]!)
      if (!Number.isFinite(v)) continue
      n++
      sum += v
      square += v * v
    }
    if (n < 20) continue
    const mean = sum / n
    ss.push(at)
    ys.push(mean)
    us.push(Math.sqrt(Math.max(1e-8, square / n - mean * mean) / n))
  }
  if (ss.length < 12) return null
  return { s: Float64Array.from(ss), y: Float64Array.from(ys), u: Float64Array.from(us) }
}

function report(p: Pixels, q: BoreQuestion, edge: FoundEdge): Bore | NoBore {
  const across = meanDiameter(edge.ellipse)
  if (across < FEWEST_PX)
    return refusal(`Too few pixels: the mouth is ${Math.floor(across)} across, ${FEWEST_PX} are needed; go closer`)
  const heights = edge.points.flat.map((f, i) => f - edge.points.mouth[i]!)
  const height = heights.reduce((s, v) => s + (Number.isFinite(v) ? v : 0), 0) / heights.length
  if (height < LEAST_HEIGHT) return refusal('No mouth found: hardly any difference between inside and outside')
  const tilt = tiltOf(p, q.tone, edge)
  const chips = chipsOf(edge, q.umPerPx)
  const { budget, uMm } = budgetOf(p, q, edge, tilt, chips.edgeShare)
  const straight = tilt.isTilted ? tilt.straight : edge.ellipse
  const mm = q.umPerPx / 1000
  const warnings: Warning[] = []
  if (tilt.isTilted) warnings.push('tilted')
  if (edge.shape.isInseparable) warnings.push('not separable')
  if (across < FEW_PX) warnings.push('few pixels')
  if (edge.shape.blur > OUT_OF_FOCUS_PX && edge.shape.blur > OUT_OF_FOCUS * across) warnings.push('out of focus')
  if (chips.edgeShare < PARTLY) warnings.push('partly hidden')
  return {
    boreMm: meanDiameter(straight) * mm,
    uMm,
    largestMm: 2 * straight.a * mm,
    smallestMm: 2 * straight.b * mm,
    longDeg: ((straight.angle * 180) / Math.PI + 360) % 180,
    chips: chips.chips,
    flareMm: edge.shape.band === null ? null : edge.shape.band * mm,
    edgeShare: chips.edgeShare,
    warnings,
    budget,
    ellipse: edge.ellipse,
    flat: tilt.flat,
    points: Array.from(edge.points.xs, (x, i) => ({ x, y: edge.points.ys[i]!, isOn: edge.fit.isOn[i] === 1 })).filter(
      o => Number.isFinite(o.x),
    ),
    blurPx: edge.shape.blur,
    acrossPx: across,
  }
}
/** Blur from which the picture counts as out of focus: px, and as a share of the bore. */
const OUT_OF_FOCUS_PX = 2.6
const OUT_OF_FOCUS = 0.018
const PARTLY = 0.9
