/**
 * How sure a bore from a picture is: parts of the uncertainty of the diameter, combined as the root of the sum of their
 * squares. Each is a standard uncertainty, µm.
 * Source: JCGM 100:2008 (GUM), 5.1.2; a value anywhere within ± a counts a/√3 (4.3.7). The shares of a pixel and of a
 * blur are choices, checked on drawn pictures.
 */
import { averaged, curvedBy, type BoreQuestion, type FoundEdge } from './bore'
import { edgeShape } from './edge-shape'
import { meanDiameter } from './ellipse'
import { viewOf, type Pixels, type Tone } from './picture'
import type { Tilt } from './tilt'
import { meanBetween, unwrap } from './unwrap'

export interface Budget {
  scaleUm: number
  edgeUm: number
  blurUm: number
  noiseUm: number
  toneUm: number
  hiddenUm: number
  bandUm: number
  tiltUm: number
}

/** What an edge is known to at best, px of the diameter. */
const EDGE_PX = 0.04
/** The form of a blur that nobody knows, as a share of it. */
const BLUR_SHARE = 0.02

export function budgetOf(
  p: Pixels,
  q: BoreQuestion,
  e: FoundEdge,
  tilt: Tilt,
  edgeShare: number,
): { budget: Budget; uMm: number } {
  const { umPerPx, uUmPerPx } = q
  const across = meanDiameter(e.ellipse)
  const { shape, fit } = e
  const px = (v: number) => v * umPerPx
  const rowsPerPx = Math.max(1, (2 * shape.blur) / ((Math.PI * across) / e.strip.rows))
  const budget: Budget = {
    scaleUm: across * uUmPerPx,
    edgeUm: px(EDGE_PX),
    blurUm: px(2 * curvedBy(shape.blur, across / 2) + BLUR_SHARE * shape.blur),
    noiseUm: px(
      2 * Math.hypot(fit.scatter * Math.sqrt(fit.radiusFactor * rowsPerPx), shape.band === null ? shape.uAt : 0),
    ),
    toneUm: q.isToneStated ? 0 : px(toneShare(p, q.tone, e)),
    hiddenUm: px((1 - edgeShare) * 2 * Math.max(0.15, fit.scatter)),
    bandUm: shape.band === null ? 0 : px(2 * shape.uAt),
    tiltUm: px(2 * tilt.uRadius),
  }
  const sum = Object.values(budget).reduce<number>((s, v: number) => s + v * v, 0)
  return { budget, uMm: Math.sqrt(sum) / 1000 }
}

/**
 * Half of what the other tone would change in the diameter, px. The shape of the edge does not tell the tones apart: a
 * slope beside it does what the tone does.
 */
function toneShare(p: Pixels, tone: Tone, e: FoundEdge): number {
  const other: Tone = tone === 'linear' ? 'srgb' : 'linear'
  const { strip, fit, points, shape } = e
  const again = unwrap(viewOf(p, other), strip.ellipse, strip.from, strip.from + (strip.cols - 1) * strip.step)
  const far = (shape.band ?? 0) + 2.5 * shape.blur + 1
  const mouth = points.mouth.map((_, r) => meanBetween(again, r, strip.from, -2.5 * shape.blur - 1))
  const flat = points.flat.map((_, r) => meanBetween(again, r, far, far + 2.5 * shape.blur + 3))
  const profile = averaged(again, fit, { ...points, mouth, flat }, -4.5 * shape.blur - 3)
  const made = profile && edgeShape(profile, { at: shape.at, blur: shape.blur }, true)
  if (!made) return 0
  return Math.abs(made.at - shape.at)
}
