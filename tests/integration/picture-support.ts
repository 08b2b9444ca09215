/** A picture gauge as the page sends it, with a crop that is a real picture. */
import { pngOf } from '../../sim/microscope'

const BUDGET = { scaleUm: 1, edgeUm: 0.1, blurUm: 0.1, noiseUm: 0.5, toneUm: 0, hiddenUm: 0, bandUm: 0, tiltUm: 0 }

export const cropBase64 = (grey = 90) => {
  const rgba = new Uint8ClampedArray(4 * 12 * 12).fill(grey)
  return pngOf({ width: 12, height: 12, rgba }).toString('base64')
}

export const pictured = (
  setupId: number,
  mm: number,
  { sharedMm = 0.001, uMm = 0.0013, base64 = cropBase64() } = {},
) => ({
  valueMm: mm,
  uMm,
  picture: {
    setupId,
    umPerPx: 2,
    uUmPerPx: 0.005,
    uSharedMm: sharedMm,
    largestMm: mm,
    smallestMm: mm,
    flareMm: null,
    edgeShare: 1,
    chips: [],
    warnings: [],
    budget: BUDGET,
    acrossPx: 200,
    blurPx: 1.2,
    shape: { aMm: mm / 2, bMm: mm / 2, longDeg: 0, points: [[mm / 2, 0, true]] },
    crop: { base64, umPerPx: 40, x: 6, y: 6 },
  },
})
