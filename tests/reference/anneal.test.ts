/**
 * Soak-through of a part in sand against heat conduction worked out step by step through both layers. Sand: 0.27 W/mK,
 * 1515 kg/m³, 800 J/kgK (Incropera & DeWitt, table A.3); polymer: 0.22 W/mK, 1200 kg/m³, 1528 J/kgK (from memory).
 */
import { expect, test } from 'vitest'
import { DIFFUSIVITY, SAND_DIFFUSIVITY, soakThroughH } from '#core/anneal'

const SAND = { k: 0.27, rhoC: 1515 * 800 }
const PART = { k: 0.22, rhoC: 1200 * 1528 }

/** Hours until the middle of the plate is within 2 % of the step: explicit differences over half of it, by symmetry. */
function byDifferences(partMm: number, sandMm: number): number {
  const dx = 0.5e-3
  const inPart = Math.round(partMm / 2 / 0.5)
  const cells = Array.from({ length: inPart + Math.round(sandMm / 0.5) }, (_, i) => (i < inPart ? PART : SAND))
  const dt = 0.4
  let t = cells.map(() => 0)
  // heat that crosses between two cells: half a cell of each
  const between = cells.map((c, i) => {
    const next = cells[i + 1]
    return next ? 2 / (dx / c.k + dx / next.k) : (2 * c.k) / dx
  })
  for (let s = 0; s < 400_000; s++) {
    if (t[0]! >= 0.98) return (s * dt) / 3600
    t = t.map((x, i) => {
      const out = between[i]! * ((t[i + 1] ?? 1) - x)
      const into = i === 0 ? 0 : between[i - 1]! * (x - t[i - 1]!)
      return x + (dt * (out - into)) / (cells[i]!.rhoC * dx)
    })
  }
  throw new Error('not reached')
}

test('the diffusivities are those of their sources', () => {
  expect(SAND_DIFFUSIVITY / (SAND.k / SAND.rhoC)).toBeCloseTo(1, 1)
  expect(DIFFUSIVITY / (PART.k / PART.rhoC)).toBeCloseTo(1, 1)
})
test.each([
  [10, null],
  [20, 10],
  [8, 30],
])('a part of %d mm with %o mm of sand', (part, sand) => {
  expect(Math.abs(soakThroughH(part, sand) / byDifferences(part, sand ?? 0) - 1)).toBeLessThan(0.08)
})
