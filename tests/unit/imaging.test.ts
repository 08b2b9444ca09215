/** What the picture gauge refuses, and what parts of it do on their own. */
import { describe, expect, test } from 'vitest'
import { measureBore, stageScale, twoPointScale, type Bore, type Pixels } from '#core/imaging'
import { InputError, mulberry32 } from '#core/numeric'
import { distanceFrom, ellipseOf, pointOn, shapeOf } from '../../core/imaging/ellipse'
import { transform2 } from '../../core/imaging/fourier'
import { boxMean, brightnessAt, greyOf, shrunk, toneTable } from '../../core/imaging/picture'
import { robustEllipse } from '../../core/imaging/robust'
import { drawMouth, drawScale, toSrgb } from '../../sim/mouth-picture'
import { mouthScene, SCALE } from '../../sim/mouth-scenes'

const question = { umPerPx: 2, uUmPerPx: 0, tone: 'linear' as const, isToneStated: true }
const painted = (width: number, height: number, at: (x: number, y: number) => number): Pixels => {
  const rgba = new Uint8ClampedArray(4 * width * height).fill(255)
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) rgba.fill(255 * at(x, y), 4 * (y * width + x), 4 * (y * width + x) + 3)
  return { width, height, rgba }
}
const random = mulberry32(1)
const far = (x: number, y: number) => Math.max(Math.abs(x - 120), Math.abs(y - 90))

describe('no mouth in it', () => {
  test.each([
    ['nothing at all', () => 0.5],
    ['noise', () => random()],
    ['light from one side', (x: number) => x / 240],
    ['a bright disc without a mouth', (x: number, y: number) => (Math.hypot(x - 120, y - 90) < 60 ? 0.8 : 0.2)],
    ['one straight edge', (x: number) => (x > 120 ? 0.8 : 0.2)],
    ['a square hole', (x: number, y: number) => (far(x, y) < 50 ? 0.1 : 0.7)],
    ['a slot', (x: number, y: number) => (Math.abs(y - 90) < 12 && Math.abs(x - 120) < 80 ? 0.1 : 0.7)],
    ['a checkerboard', (x: number, y: number) => (((x >> 4) + (y >> 4)) % 2 === 0 ? 0.2 : 0.8)],
  ])('%s', (_, at) => {
    expect(measureBore(painted(240, 180, at), question)).toEqual({ refused: true, reason: expect.any(String) })
  })
  test('too few pixels says how many there are', () => {
    const s = { ...mouthScene('clean', 1, 240), a: 17, b: 17, flat: 40 }
    const found = measureBore(drawMouth(s), question) as { reason: string }
    expect(found.reason).toMatch(/the mouth is 3[34] across, 40 are needed/)
  })
  test('nor a stage scale', () => {
    expect(stageScale(drawMouth(mouthScene('clean', 1, 320)), 0.01, 0)).toHaveProperty('refused')
    expect(
      stageScale(
        painted(120, 120, () => 0.5),
        0.01,
        0,
      ),
    ).toHaveProperty('refused')
    expect(
      stageScale(
        painted(40, 40, () => 0.5),
        0.01,
        0,
      ),
    ).toHaveProperty('refused')
  })
})

test('what is no picture, or no scale, is refused with its field', () => {
  const p = painted(40, 40, () => 0.5)
  const says = (f: () => unknown) => {
    try {
      f()
    } catch (e) {
      return e instanceof InputError ? e.field : String(e)
    }
    return null
  }
  expect(says(() => measureBore({ ...p, width: 4 }, question))).toBe('width')
  expect(says(() => measureBore({ ...p, rgba: p.rgba.subarray(8) }, question))).toBe('rgba')
  expect(says(() => measureBore(p, { ...question, umPerPx: 0 }))).toBe('umPerPx')
  expect(says(() => measureBore(p, { ...question, near: { x: 1, y: 1, a: 5, b: 6, angle: 0 } }))).toBe('b')
  expect(says(() => stageScale(p, 0, 0))).toBe('everyMm')
  expect(says(() => twoPointScale({ x: 0, y: 0 }, { x: 9, y: 0 }, 0.5, 0))).toBe('points')
})

test('progress rises, and the answer does not depend on who listens', () => {
  const s = mouthScene('all mildly', 2, 240)
  const p = drawMouth(s)
  const seen: number[] = []
  const a = measureBore(p, { ...question, tone: s.tone }, x => seen.push(x))
  expect(seen.length).toBeGreaterThan(1)
  expect([...seen].sort((x, y) => x - y)).toEqual(seen)
  expect(measureBore(p, { ...question, tone: s.tone })).toEqual(a)
})

test('the scale only multiplies, and its uncertainty adds', () => {
  const p = drawMouth(mouthScene('clean', 4, 240))
  const one = measureBore(p, question) as Bore
  const two = measureBore(p, { ...question, umPerPx: 4, uUmPerPx: 0.04 }) as Bore
  expect(two.boreMm).toBeCloseTo(2 * one.boreMm, 9)
  expect(two.budget.scaleUm).toBeCloseTo(two.boreMm * 10, 6)
  expect(two.uMm).toBeCloseTo(Math.hypot(2 * one.uMm, two.boreMm * 0.01), 6)
  const parts = Object.values(two.budget)
  expect(two.uMm * 1000).toBeCloseTo(Math.hypot(...parts), 9)
})

test('a scale far off the middle is found, and one in a large picture is read from fewer pixels', () => {
  const off = stageScale(drawScale({ ...SCALE, x: 90, y: 60, every: 6 }), 0.01, 0) as { umPerPx: number }
  expect(off.umPerPx).toBeCloseTo(10 / 6, 2)
  const large = drawScale({ ...SCALE, width: 1800, height: 1300, x: 900, y: 650, every: 21, half: 120, noise: 0 })
  expect((stageScale(large, 0.01, 0) as { umPerPx: number }).umPerPx).toBeCloseTo(10 / 21, 3)
}, 60_000)

describe('parts', () => {
  test('an ellipse and its shape are one, and points on it lie on it', () => {
    const e = { x: 12, y: -3, a: 40, b: 33, angle: 0.6 }
    const again = ellipseOf(shapeOf(e))
    for (const k of ['x', 'y', 'a', 'b', 'angle'] as const) expect(again[k]).toBeCloseTo(e[k], 9)
    const p = pointOn(e, 1.1)
    expect(distanceFrom(e, p.x, p.y)).toBeCloseTo(0, 9)
    expect(distanceFrom(e, p.x + 0.3 * p.nx, p.y + 0.3 * p.ny)).toBeCloseTo(0.3, 2)
  })
  test('a third of the points far off does not pull the ellipse', () => {
    const e = { x: 100, y: 90, a: 50, b: 46, angle: 1 }
    const points = Array.from({ length: 90 }, (_, k) => {
      const p = pointOn(e, (2 * Math.PI * k) / 90)
      const off = k < 30 ? 4 + (k % 7) : 0
      return { x: p.x + off * p.nx, y: p.y + off * p.ny }
    })
    const about = { ...e, a: 48, b: 48 }
    const fit = robustEllipse(
      points.map(p => p.x),
      points.map(p => p.y),
      { near: 1, about, fewest: 30 },
    )!
    expect(fit.ellipse.a).toBeCloseTo(50, 1)
    expect(fit.ellipse.b).toBeCloseTo(46, 1)
    expect(fit.isOn.reduce((s, v) => s + v, 0)).toBe(60)
  })
  // the transform of a wave is one point, and Parseval holds
  test('a wave becomes one point', () => {
    const n = 16
    const re = Float64Array.from({ length: n * n }, (_, i) =>
      Math.cos((2 * Math.PI * (3 * (i % n) + 5 * (i >> 4))) / n),
    )
    const im = new Float64Array(n * n)
    transform2(re, im, n)
    const power = re.map((v, i) => v * v + im[i]! ** 2)
    expect(power.indexOf(Math.max(...power))).toBe(5 * n + 3)
    expect(power.reduce((s, v) => s + v, 0)).toBeCloseTo(n * n * (n * n) * 0.5, 6)
    expect(() => transform2(re, im, 12)).toThrow(InputError)
  })
  test('tone tables turn the curve of IEC 61966-2-1 back', () => {
    const table = toneTable('srgb')
    for (const v of [0.001, 0.05, 0.2, 0.5, 0.9]) expect(table[Math.round(255 * toSrgb(v))]!).toBeCloseTo(v, 2)
    expect(toneTable('linear')[51]).toBeCloseTo(0.2, 6)
  })
  test('brightness between pixels, shrunk pictures and box means keep a plane', () => {
    const p = painted(60, 40, (x, y) => (x + 2 * y) / 255)
    const g = greyOf(p, 'linear')
    expect(brightnessAt(g, 10.25, 7.5) * 255).toBeCloseTo(25.25, 3)
    expect(brightnessAt(g, -0.1, 3)).toBeNaN()
    const { grey, by } = shrunk(p, 'linear', 30)
    expect([by, grey.width, grey.height]).toEqual([2, 30, 20])
    expect(brightnessAt(grey, 5, 5) * 255).toBeCloseTo(10.5 + 2 * 10.5, 3)
    expect(brightnessAt(boxMean(g, 2), 20, 20) * 255).toBeCloseTo(60, 3)
  })
})
