/** What a measured picture becomes as the entry of a gauge: one place for the page, the demo and the tests. */
import type { z } from 'zod'
import { IMAGING_METHOD, partsOf, type Bore, type Scale } from '#core/imaging'
import { BORE_U_MM } from '#core/wear'
import type { pictureSchema } from './entries/pictures'

export interface PictureOf {
  bore: Bore
  scale: Scale
  setupId: number
  isOwnScale: boolean
  /** Photographed in place on its head: only then the direction of the long axis says anything. */
  isInPlace: boolean
  crop: z.input<typeof pictureSchema>['crop']
}

/** The smallest uncertainty an entry may claim, mm: no picture is surer. */
const LEAST_U_MM = 0.0001

export function pictureGauge({ bore, scale, setupId, isOwnScale, isInPlace, crop }: PictureOf) {
  const mm = scale.umPerPx / 1000
  const { x, y, a, b, angle } = bore.ellipse
  const uMm = Math.max(LEAST_U_MM, bore.uMm)
  return {
    valueMm: bore.boreMm,
    uMm,
    picture: {
      setupId,
      method: IMAGING_METHOD,
      umPerPx: scale.umPerPx,
      uUmPerPx: scale.uUmPerPx,
      isOwnScale,
      uSharedMm: Math.min(uMm, Math.max(BORE_U_MM[0], partsOf(bore.budget).sharedMm)),
      largestMm: bore.largestMm,
      smallestMm: bore.smallestMm,
      longDeg: isInPlace ? bore.longDeg : null,
      flareMm: bore.flareMm,
      edgeShare: bore.edgeShare,
      chips: bore.chips,
      warnings: bore.warnings,
      budget: bore.budget,
      acrossPx: bore.acrossPx,
      blurPx: bore.blurPx,
      shape: {
        aMm: a * mm,
        bMm: b * mm,
        longDeg: ((angle * 180) / Math.PI + 360) % 180,
        points: bore.points.map((p): [number, number, boolean] => [(p.x - x) * mm, (p.y - y) * mm, p.isOn]),
      },
      crop,
    } satisfies z.input<typeof pictureSchema>,
  }
}

/** What a picture says of the shape, to begin with: the technician has the last word. */
export function shapesSeen(b: Bore): ('oval' | 'flared' | 'chipped')[] {
  const seen = {
    oval: b.largestMm / b.smallestMm > OVAL,
    flared: (b.flareMm ?? 0) > FLARED_MM,
    chipped: b.chips.length > 0,
  }
  return (['oval', 'flared', 'chipped'] as const).filter(s => seen[s])
}
const OVAL = 1.02
const FLARED_MM = 0.01
