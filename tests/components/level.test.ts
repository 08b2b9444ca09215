/** A bed as it is drawn, an interval as a bar: what is high, which screw, what is over. */
import { describe, expect, test } from 'vitest'
import { levelFound, type Bed, type MeshLevel } from '#core/level'
import BedDrawing from '~/components/change/BedDrawing.vue'
import UpkeepBar from '~/components/change/UpkeepBar.vue'
import { shown } from './support'

const bed: Bed = {
  widthMm: 300,
  depthMm: 300,
  screws: [
    { name: 'front left', xMm: 30, yMm: 30 },
    { name: 'front right', xMm: 270, yMm: 30 },
    { name: 'back', xMm: 150, yMm: 270 },
  ],
  pitchMm: 0.5,
  clockwise: 'lowers',
}
const mesh = (rows: number[][]): MeshLevel => ({
  how: 'mesh',
  rows,
  leftMm: 20,
  rightMm: 280,
  frontMm: 20,
  backMm: 280,
  firstRow: 'front',
})
const texts = (html: Element) => [...html.querySelectorAll('text')].map(t => t.textContent.replace(/\s+/g, ' ').trim())

describe('a bed from above', () => {
  const found = levelFound(
    mesh([
      [0, 0.3],
      [-0.001, 0.3],
    ]),
    bed,
  )
  const element = shown(BedDrawing, { props: { bed, found, label: 'The bed' } }).element as Element
  test('high points are discs, low ones rings, each with its height and no number below nothing', () => {
    const points = [...element.querySelectorAll('circle')].filter(c => c.getAttribute('r') !== '8')
    expect(points.map(p => p.getAttribute('fill') !== 'none')).toEqual([false, true, false, true])
    expect(texts(element)).toEqual(expect.arrayContaining(['0.00', '+0.30']))
    expect(texts(element).join()).not.toMatch(/-0\.00/)
  })
  test('each screw says its turn, at the end of the bed where it is', () => {
    const of = texts(element)
    expect(of.find(t => t.startsWith('front right'))).toMatch(/turn clockwise$/)
    expect(of.find(t => t.startsWith('front left'))).toMatch(/turn anticlockwise$/)
    expect(of.find(t => t.startsWith('back'))).toBe('back leave it')
  })
  test('a large mesh has no room for numbers', () => {
    const rows = Array.from({ length: 12 }, (_, r) => Array.from({ length: 12 }, (_, c) => (r + c) / 100))
    const large = shown(BedDrawing, { props: { bed, found: levelFound(mesh(rows), bed), label: 'The bed' } })
    expect(texts(large.element as Element).filter(t => /^[+-]?\d\.\d\d$/.test(t))).toEqual([])
  })
})

test('an interval: filled to its share, hatched past its end', () => {
  const rects = (share: number) =>
    [...(shown(UpkeepBar, { props: { share, label: 'Belts' } }).element as Element).querySelectorAll('rect')].map(r =>
      Number(r.getAttribute('width')),
    )
  expect(rects(0.5)).toHaveLength(2)
  const [whole, gone, over] = rects(1.5)
  expect(gone).toBeCloseTo(whole! / 2, 6)
  expect(over).toBeCloseTo(whole! / 4, 6)
  // twice its interval and more is as far as it is drawn
  expect(rects(9)[2]).toBeCloseTo(whole! / 2, 6)
})
