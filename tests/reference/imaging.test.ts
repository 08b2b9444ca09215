/**
 * Bores and scales from pictures against what they are known to show: a set of drawn pictures with exact truth that
 * came with the job (tests/samples/pictures), drawn ones of our own, and a general vision library's ellipse fit on the
 * same points.
 */
import { readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { PNG } from 'pngjs'
import { describe, expect, test } from 'vitest'
import { fitEllipse, measureBore, pinScale, stageScale, type Bore, type Pixels, type Tone } from '#core/imaging'
import { mulberry32, normalDraw } from '#core/numeric'
import { drawMouth, drawPin, drawScale } from '../../sim/mouth-picture'
import { FAULTS, mouthScene, SCALE } from '../../sim/mouth-scenes'

interface Truth {
  umPerPx: number
  boreMm?: number
  largestMm?: number
  smallestMm?: number
  bandMm?: number
  separable?: boolean
  chips?: number
  chipDeepMm?: number
  edgeShare?: number
  tilted?: boolean
  refuse?: boolean
  scaleEveryMm?: number
  tone?: 'srgb'
}
const SAMPLES = 'tests/samples/pictures'
const truths = Object.entries(JSON.parse(readFileSync(`${SAMPLES}/expected.json`, 'utf8')) as Record<string, Truth>)
const read = (name: string): Pixels => {
  const { width, height, data } = PNG.sync.read(readFileSync(`${SAMPLES}/${name}.png`))
  return { width, height, rgba: data }
}
const ask = (t: { umPerPx: number; tone?: Tone }) => ({
  umPerPx: t.umPerPx,
  uUmPerPx: 0,
  tone: t.tone ?? ('linear' as const),
  isToneStated: true,
})
const median = (v: number[]) => v.sort((a, b) => a - b)[v.length >> 1]!

// limits: the README of the pictures
describe('pictures with exact truth', () => {
  const mouths = truths.filter(([, t]) => t.boreMm !== undefined)
  test.each(mouths)('%s', (name, t) => {
    const b = measureBore(read(name), ask(t)) as Bore
    const um = t.umPerPx
    expect(Math.abs(b.boreMm - t.boreMm!)).toBeLessThan(2 * b.uMm)
    expect(b.uMm).toBeLessThan(0.0015 + 0.0006 * um + (t.separable === false ? t.bandMm! / 4 : 0))
    const oval = 0.003 + 0.0008 * um
    if (t.separable !== false) {
      expect(Math.abs(b.largestMm - t.largestMm!)).toBeLessThan(oval)
      expect(Math.abs(b.smallestMm - t.smallestMm!)).toBeLessThan(oval)
    }
    expect(b.warnings.includes('tilted')).toBe(t.tilted === true)
    expect(b.warnings.includes('not separable')).toBe(t.separable === false)
    expect(b.warnings.includes('few pixels')).toBe((t.boreMm! * 1000) / um < 60)
    expect(b.flareMm !== null).toBe(t.bandMm !== undefined)
    if (t.edgeShare !== undefined) {
      expect(Math.abs(b.edgeShare - t.edgeShare)).toBeLessThan(0.12)
      expect(b.warnings).toContain('partly hidden')
    }
    expect(b.chips.length).toBe(t.chips ?? 0)
    if (t.chips) expect(Math.abs(Math.max(...b.chips.map(c => c.deepMm)) - t.chipDeepMm!)).toBeLessThan(0.006)
  })
  test.each(truths.filter(([, t]) => t.refuse))('%s is refused', (name, t) => {
    expect(measureBore(read(name), ask(t))).toEqual({ refused: true, reason: expect.stringMatching(/^No /) })
  })
  test.each(truths.filter(([, t]) => t.scaleEveryMm))('%s', (name, t) => {
    const s = stageScale(read(name), t.scaleEveryMm!, 0)
    expect(s).not.toHaveProperty('refused')
    expect(Math.abs((s as { umPerPx: number }).umPerPx / t.umPerPx - 1)).toBeLessThan(1e-3)
  })
})

test('forty of our own: nine of ten within 2u, u neither padded nor bold', () => {
  const ratios: number[] = []
  const px: number[] = []
  for (let k = 0; k < 40; k++) {
    const s = mouthScene(FAULTS[k % FAULTS.length]!, 100 + k, 260)
    const b = measureBore(drawMouth(s), ask(s)) as Bore
    const off = (b.boreMm * 1000) / s.umPerPx - s.across
    px.push(Math.abs(off))
    ratios.push(Math.abs((off * s.umPerPx) / 1000 / b.uMm))
  }
  expect(ratios.filter(r => r < 2).length).toBeGreaterThanOrEqual(36)
  expect(median(px)).toBeLessThan(0.2)
  expect(median(ratios)).toBeGreaterThan(0.2)
  expect(median(ratios)).toBeLessThan(1.2)
})

test('where the tone was not stated half the difference counts, and covers the other reading', () => {
  const s = mouthScene('blurred', 5, 320)
  const p = drawMouth(s)
  const wrong = measureBore(p, { ...ask(s), tone: 'srgb', isToneStated: false }) as Bore
  const right = measureBore(p, ask(s)) as Bore
  const off = Math.abs(wrong.boreMm - (s.across * s.umPerPx) / 1000)
  expect(off).toBeGreaterThan(4 * right.uMm)
  expect(off).toBeLessThan(2.2 * wrong.uMm)
  expect(wrong.budget.toneUm).toBeGreaterThan(400 * off)
  expect(right.budget.toneUm).toBe(0)
})

test('the outer edge of the flat is taken when someone puts the ring there, and the mouth when there', () => {
  const s = mouthScene('strong ring', 4, 320)
  const p = drawMouth(s)
  const ring = (r: number) => ({ x: s.x + 1, y: s.y - 2, a: r, b: r, angle: 0 })
  const outer = measureBore(p, { ...ask(s), near: ring(s.flat * 0.98) }) as Bore
  const inner = measureBore(p, { ...ask(s), near: ring(s.a * 1.03) }) as Bore
  expect((outer.boreMm * 1000) / s.umPerPx / (2 * s.flat)).toBeCloseTo(1, 2)
  expect((inner.boreMm * 1000) / s.umPerPx / s.across).toBeCloseTo(1, 2)
})

test('stage scales at any angle, fine and coarse, within a thousandth', () => {
  const random = mulberry32(11)
  for (let seed = 0; seed < 8; seed++) {
    const every = 3.8 + 12 * random()
    const scene = { ...SCALE, seed, every, alongDeg: 180 * random(), half: 15 + 40 * random(), noise: 0.05 * random() }
    const found = stageScale(drawScale({ ...scene, width: 320, height: 240, x: 160, y: 120 }), 0.01, 0)
    expect(found, `every ${every}`).not.toHaveProperty('refused')
    expect(Math.abs(((found as { umPerPx: number }).umPerPx * every) / 10 - 1)).toBeLessThan(1e-3)
  }
})

test('a pin between two points, at an angle, within its uncertainty', () => {
  const scene = { width: 320, height: 240, seed: 2, x: 160, y: 120, wide: 120, alongDeg: 63, blur: 1.5, noise: 0.02 }
  const n = { x: Math.sin((63 * Math.PI) / 180), y: -Math.cos((63 * Math.PI) / 180) }
  const at = (d: number) => ({ x: 160 + d * n.x + 2, y: 120 + d * n.y - 3 })
  const s = pinScale(drawPin(scene), at(-55), at(66), 0.4, 0.001) as { umPerPx: number; uUmPerPx: number }
  expect(s.umPerPx).toBeGreaterThan(0)
  expect(Math.abs(s.umPerPx - 400 / 120)).toBeLessThan(2 * s.uUmPerPx)
  expect(s.uUmPerPx / s.umPerPx).toBeLessThan(0.006)
})

type Library = typeof import('@techstark/opencv-js')
/** The library's module is thenable and resolves to itself: awaiting it never ends, so it comes in a box. */
const library = () =>
  new Promise<{ cv: Library }>(done => {
    const loading = createRequire(import.meta.url)('@techstark/opencv-js') as {
      then?: (f: (m: Library) => void) => void
    }
    if (loading.then) loading.then(cv => done({ cv }))
    else done({ cv: loading as unknown as Library })
  })

// outside check: direct least squares of OpenCV 4.12 (fitEllipseDirect), the same method by other hands
test('ellipses through scattered points as a general vision library fits them', async () => {
  const { cv } = await library()
  const random = mulberry32(3)
  for (let k = 0; k < 12; k++) {
    const [a, b, turn] = [60 + 60 * random(), 40 + 18 * random(), Math.PI * random()]
    const xs: number[] = []
    const ys: number[] = []
    for (let i = 0; i < 60; i++) {
      const t = (2 * Math.PI * i) / (k % 2 === 0 ? 60 : 90)
      const [u, v] = [a * Math.cos(t) + 0.4 * normalDraw(random), b * Math.sin(t) + 0.4 * normalDraw(random)]
      xs.push(Math.fround(200 + u * Math.cos(turn) - v * Math.sin(turn)))
      ys.push(Math.fround(150 + u * Math.sin(turn) + v * Math.cos(turn)))
    }
    const points = cv.matFromArray(
      60,
      1,
      cv.CV_32FC2,
      xs.flatMap((x, i) => [x, ys[i]!]),
    )
    const theirs = cv.fitEllipseDirect(points) as unknown as {
      center: { x: number; y: number }
      size: { width: number; height: number }
    }
    points.delete()
    const ours = fitEllipse(xs, ys)!
    expect(ours.x).toBeCloseTo(theirs.center.x, 2)
    expect(ours.y).toBeCloseTo(theirs.center.y, 2)
    expect(2 * ours.a).toBeCloseTo(Math.max(theirs.size.width, theirs.size.height), 2)
    expect(2 * ours.b).toBeCloseTo(Math.min(theirs.size.width, theirs.size.height), 2)
  }
}, 60_000)
