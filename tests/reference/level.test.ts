/**
 * Planes and drifts against a reference least squares (ml-regression-multivariate-linear, which solves by singular
 * values), and a straight line against NIST StRD "Norris" (36 observations, from memory; its certified values hold it).
 */
import { expect, test } from 'vitest'
import fc from 'fast-check'
import MLR from 'ml-regression-multivariate-linear'
import { driftOf, fitPlane, levelFound, type Bed } from '#core/level'

const height = fc.double({ min: -2, max: 2, noNaN: true })

test('planes of any mesh, with any holes, as the reference fits them', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 8 }),
      fc.integer({ min: 2, max: 8 }),
      fc.infiniteStream(height),
      fc.infiniteStream(fc.double({ min: 0, max: 1, noNaN: true })),
      (rows, columns, heights, holes) => {
        const all = Array.from({ length: rows * columns }, (_, i) => ({
          xMm: 20 + (260 / (columns - 1)) * (i % columns),
          yMm: 15 + (270 / (rows - 1)) * Math.floor(i / columns),
          zMm: heights.next().value as number,
          hole: i > 3 && (holes.next().value as number) < 0.2,
        }))
        const points = all.filter(p => !p.hole)
        fc.pre(new Set(points.map(p => p.xMm)).size > 1 && new Set(points.map(p => p.yMm)).size > 1)
        let fitted
        try {
          fitted = fitPlane(points)
        } catch {
          // on one line: the reference cannot either
          return
        }
        const reference = new MLR(
          points.map(p => [p.xMm, p.yMm]),
          points.map(p => [p.zMm]),
        )
        const at = ({ xMm, yMm }: { xMm: number; yMm: number }) =>
          fitted.z0Mm + fitted.slopeX * (xMm - fitted.x0Mm) + fitted.slopeY * (yMm - fitted.y0Mm)
        for (const p of points) expect(at(p)).toBeCloseTo(reference.predict([p.xMm, p.yMm])[0]!, 9)
      },
    ),
    { numRuns: 300, seed: 18 },
  )
})

test('turned as told, a mesh has no tilt left but what the sixteenths leave', () => {
  const bed: Bed = {
    widthMm: 300,
    depthMm: 300,
    screws: [
      { name: 'a', xMm: 20, yMm: 20 },
      { name: 'b', xMm: 280, yMm: 20 },
      { name: 'c', xMm: 20, yMm: 280 },
      { name: 'd', xMm: 280, yMm: 280 },
    ],
    pitchMm: 0.5,
    clockwise: 'lowers',
  }
  fc.assert(
    fc.property(fc.array(height, { minLength: 25, maxLength: 25 }), z => {
      const rows = Array.from({ length: 5 }, (_, r) => z.slice(5 * r, 5 * r + 5))
      const area = { leftMm: 10, rightMm: 290, frontMm: 10, backMm: 290, firstRow: 'front' as const }
      const found = levelFound({ how: 'mesh', rows, ...area }, bed)
      // a sixteenth of 0.5 mm is 0.031; half of it at each screw, from one side to the other
      expect(found.leftMm).toBeLessThanOrEqual(found.warpMm! + 0.5 / 16 + 1e-9)
    }),
    { numRuns: 200, seed: 18 },
  )
})

/** x and y of NIST StRD Norris. */
const NORRIS: readonly (readonly [number, number])[] = [
  [0.2, 0.1],
  [337.4, 338.8],
  [118.2, 118.1],
  [884.6, 888.0],
  [10.1, 9.2],
  [226.5, 228.1],
  [666.3, 668.5],
  [996.3, 998.5],
  [448.6, 449.1],
  [777.0, 778.9],
  [558.2, 559.2],
  [0.4, 0.3],
  [0.6, 0.1],
  [775.5, 778.1],
  [666.9, 668.8],
  [338.0, 339.3],
  [447.5, 448.9],
  [11.6, 10.8],
  [556.0, 557.7],
  [228.1, 228.3],
  [995.8, 998.0],
  [887.6, 888.8],
  [120.2, 119.6],
  [0.3, 0.3],
  [0.3, 0.6],
  [556.8, 557.6],
  [339.1, 339.3],
  [887.2, 888.0],
  [999.0, 998.5],
  [779.0, 778.9],
  [11.1, 10.2],
  [118.3, 117.6],
  [229.2, 228.9],
  [669.1, 668.4],
  [448.9, 449.2],
  [0.5, 0.2],
]
test('a straight line as NIST certifies it: Norris, slope 1.00211681802045 ± 0.000429796848199937', () => {
  // a tenth and less of its y, as Z numbers go no further; slope and error scale alike
  const SCALE = 0.05
  const d = driftOf(NORRIS.map(([day, y]) => ({ day, mm: y * SCALE })))!
  expect(d.per30 / 30 / SCALE).toBeCloseTo(1.00211681802045, 10)
  expect(d.sePerDay / SCALE).toBeCloseTo(0.000429796848199937, 12)
})
