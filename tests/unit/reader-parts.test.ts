/** The parts of the job-file reader against plain ways of doing the same. */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { arcPath } from '../../core/gcode/arc'
import { FlowRecord } from '../../core/gcode/flow'
import { NumberText } from '../../core/gcode/number-text'
import { minimise, mulberry32, normalDraw } from '#core/numeric'

function read(text: string): NumberText {
  const n = new NumberText()
  n.start()
  for (const c of text) n.add(c.charCodeAt(0))
  return n
}

describe('numbers', () => {
  test('property: decimals read as the language itself reads them', () => {
    const digits = fc.stringMatching(/^\d{1,25}$/)
    fc.assert(
      fc.property(fc.constantFrom('', '-', '+'), digits, fc.option(digits), (sign, whole, part) => {
        const text = `${sign}${whole}${part === null ? '' : `.${part}`}`
        expect(read(text).good).toBe(true)
        expect(read(text).value() + 0).toBe(Number(text) + 0)
        expect(read(text).whole).toBe(part === null)
      }),
    )
  })
  test('a thousand digits, before or behind the point', () => {
    expect(read(`1${'0'.repeat(12)}.${'0'.repeat(1000)}`).value()).toBe(1e12)
    expect(read(`1${'0'.repeat(300)}`).value()).toBe(Infinity)
    expect(read(`0.${'0'.repeat(300)}1`).value()).toBe(0)
    expect(read(`2.5${'0'.repeat(1000)}1`).value()).toBe(2.5)
    expect(read('7'.repeat(1000)).good).toBe(true)
  })
  test.each(['', '.', '-', '+.', '1.2.3', '1-', '--1', '1e5', ' 1', '1,5', '٣'])('%j is none', text =>
    expect(read(text).good).toBe(false),
  )
  test('a reader used again forgets the last number', () => {
    const n = read('-12.5')
    n.start()
    for (const c of '3') n.add(c.charCodeAt(0))
    expect([n.good, n.value(), n.whole]).toEqual([true, 3, true])
  })
})

describe('arcs against a polyline of 200 000 chords', () => {
  /**
   * Length of the arc about a centre, walked in small steps from the start in the given sense until the end direction.
   */
  function walked(cx: number, cy: number, radius: number, from: number, swept: number, dz: number): number {
    const n = 200_000
    let length = 0
    let px = cx + radius * Math.cos(from),
      py = cy + radius * Math.sin(from)
    for (let i = 1; i <= n; i++) {
      const a = from + (swept * i) / n
      const x = cx + radius * Math.cos(a),
        y = cy + radius * Math.sin(a)
      length += Math.hypot(x - px, y - py, dz / n)
      px = x
      py = y
    }
    return length
  }
  test.each([
    [5, 0.3, 1.1, 0],
    [12, -2, 4.9, 3],
    [0.4, 1, 6.1, 0],
    [80, 2.5, 3.14, 20],
  ])('radius %f, from %f, swept %f, rise %f', (radius, from, swept, dz) => {
    const start = { x: radius * Math.cos(from), y: radius * Math.sin(from), z: 1 }
    const end = { x: radius * Math.cos(from + swept), y: radius * Math.sin(from + swept), z: 1 + dz }
    const want = walked(0, 0, radius, from, swept, dz)
    expect(arcPath(start, end, -start.x, -start.y, null, false)).toBeCloseTo(want, 5)
    expect(arcPath(start, end, null, null, swept <= Math.PI ? radius : -radius, false)).toBeCloseTo(want, 4)
    const back = walked(0, 0, radius, from, -(2 * Math.PI - swept), dz)
    expect(arcPath(start, end, -start.x, -start.y, null, true)).toBeCloseTo(back, 5)
  })
})

describe('flow quantiles', () => {
  test('property: exact, as sorting says', () => {
    const move = fc.record({
      flow: fc.double({ min: 0.01, max: 60, noNaN: true }),
      advance: fc.double({ min: 0.001, max: 5, noNaN: true }),
      tool: fc.integer({ min: 0, max: 2 }),
    })
    fc.assert(
      fc.property(fc.array(move, { minLength: 1, maxLength: 80 }), moves => {
        const r = new FlowRecord()
        for (let t = 0; t < 3; t++) r.addTool()
        for (const m of moves) r.add(m.flow, m.advance, m.tool)
        const plain = (list: typeof moves, p: number) => {
          const sorted = [...list].sort((a, b) => a.flow - b.flow)
          const want = p * list.reduce((s, m) => s + m.advance, 0) * (1 - 1e-9)
          let sum = 0
          return sorted.find(m => (sum += m.advance) >= want)!.flow
        }
        expect(r.figures().all).toEqual({
          peak: Math.max(...moves.map(m => m.flow)),
          p50: plain(moves, 0.5),
          p95: plain(moves, 0.95),
        })
        const first = moves.filter(m => m.tool === 0)
        if (first.length > 0)
          expect(r.figures().tools[0]).toEqual({
            peak: Math.max(...first.map(m => m.flow)),
            p50: plain(first, 0.5),
            p95: plain(first, 0.95),
          })
        else expect(r.figures().tools[0]).toEqual({ peak: null, p50: null, p95: null })
      }),
    )
  })
  test('a copy goes its own way', () => {
    const r = new FlowRecord()
    r.addTool()
    r.add(2, 1, 0)
    const c = r.clone()
    c.add(8, 5, 0)
    expect(r.figures().all.peak).toBe(2)
    expect(c.figures().all).toEqual({ peak: 8, p50: 8, p95: 8 })
    expect(c.histogram(0, 2)).toEqual([0, 0, 2, 0, 0, 0, 0, 0, 10])
  })
})

describe('small numerics', () => {
  test('the valley of a parabola', () => expect(minimise(x => (x - 1.234) ** 2, -10, 10)).toBeCloseTo(1.234, 6))
  test('the same seed gives the same draws, spread as they should be', () => {
    const a = mulberry32(5),
      b = mulberry32(5)
    const draws = Array.from({ length: 4000 }, () => normalDraw(a))
    expect(draws.slice(0, 50)).toEqual(Array.from({ length: 50 }, () => normalDraw(b)))
    const mean = draws.reduce((s, v) => s + v, 0) / draws.length
    expect(Math.abs(mean)).toBeLessThan(0.05)
    expect(Math.sqrt(draws.reduce((s, v) => s + (v - mean) ** 2, 0) / draws.length)).toBeCloseTo(1, 1)
  })
})
