/** The flow bench's drawing and what it tells, and the line of what worked, as a person reads them. */
import { describe, expect, test } from 'vitest'
import { benchResult, levelOf, limitOf, sharesOf } from '#core/flow'
import type { BenchPage } from '#shared/answers/flow'
import BenchPlot from '~/components/inspect/BenchPlot.vue'
import BenchTold from '~/components/inspect/BenchTold.vue'
import { shown, words } from './support'

const filament = { lengthMm: 1000, diameterMm: 1.75, densityGCm3: 1.2, callipersMm: null, mark: null }
/** A bench whose cells deliver these shares, by temperature. */
function bench(shares: Record<number, number[]>, more: Partial<BenchPage> = {}) {
  const blobs = Object.entries(shares).flatMap(([c, row]) =>
    row.map((share, i) => ({ temperatureC: Number(c), flowMm3S: 8 + 2 * i, massG: 2.886 * share, uG: 0.002 })),
  )
  const told = sharesOf(blobs, filament)
  const result = benchResult(told, 0.95)!
  return {
    id: 1,
    nozzle: 'N-014',
    place: 'Ribble',
    spool: 'S-07',
    ...filament,
    accepted: 0.95,
    scatter: told.scatter,
    degrees: told.degrees,
    result,
    level: levelOf(result, filament),
    limit: limitOf({ shares: told, result, lengthMm: 1000 }, [], 0.95),
    beside: [],
    dropped: null,
    ...more,
  } as unknown as BenchPage & { result: NonNullable<BenchPage['result']> }
}
const GRIP = { 265: [1, 0.99, 0.9, 0.78], 285: [1, 0.99, 0.9, 0.78] }

describe('the drawing', () => {
  const drawn = (b: ReturnType<typeof bench>) => shown(BenchPlot, { props: { bench: b } as never })
  test('says every cell and what is sustained to those who cannot see it', () => {
    const label = drawn(bench(GRIP)).get('svg').attributes('aria-label')
    expect(label).toContain('265 °C, 12 mm³/s 90.0 %')
    expect(label).toMatch(/Sustained: about 1[01]\.?\d? mm³\/s at 265 °C/)
  })
  test('names of lines that end together stand apart, and nothing lies below the frame', () => {
    const w = drawn(bench(GRIP))
    const [, , , height] = w.get('svg').attributes('viewBox')!.split(' ').map(Number)
    const names = w.findAll('text').filter(t => /^\d+ °C$/.test(t.text()))
    const ys = names.map(t => Number(t.attributes('y'))).sort((a, b) => a - b)
    expect(names).toHaveLength(4) // at the ends of the lines and at the foot
    for (let i = 1; i < ys.length; i++) expect(ys[i]! - ys[i - 1]!).toBeGreaterThanOrEqual(14)
    for (const t of w.findAll('text')) expect(Number(t.attributes('y'))).toBeLessThanOrEqual(height!)
  })
  test('a bar at the foot ends where something is known, and is open where nothing bounds it', () => {
    const ends = (b: ReturnType<typeof bench>) =>
      drawn(b)
        .findAll('path')
        .map(p => p.attributes('d')!)
        .filter(d => /^M[\d.]+ [\d.]+H/.test(d) && /[vL]/.test(d))
    expect(ends(bench({ 265: [1, 0.99, 0.9, 0.78] }))[0]).toMatch(/v10M.*v10$/)
    // nothing falls short: open to the right
    expect(ends(bench({ 265: [1, 1, 1, 0.999] }))[0]).toMatch(/v10M[\d.]+ [\d.]+L/)
  })
})

describe('what it tells', () => {
  const told = (b: ReturnType<typeof bench>) => shown(BenchTold, { props: { bench: b } as never })
  test('grip or this nozzle asks for another nozzle', () => {
    expect(words(told(bench(GRIP)))).toContain('Not melting: 20 °C hotter the fast blobs gained 0.0')
    expect(words(told(bench(GRIP)))).toContain('Bench another nozzle on this head with the same spool')
  })
  test('a level asks for the callipers, and its button says which', async () => {
    const w = told(bench({ 265: [0.94, 0.94, 0.94, 0.94] }))
    expect(words(w)).toContain('Even the slowest blobs deliver 6.0 % less than the record of S-07 says.')
    await w.get('button').trigger('click')
    expect(w.emitted('measure')).toEqual([['callipers']])
  })
  test('less than at its first bench is said first, with a way there', () => {
    const dropped = {
      id: 7,
      at: '2026-11-03T09:00:00.000Z',
      compared: { difference: -0.08, u: 0.01, cells: 4, verdict: 'worse', shows: 0.03, needs: null, dropped: true },
    } as const
    const w = told(bench(GRIP, { dropped }))
    expect(words(w)).toMatch(/^Delivers 8\.0 ± 2\.0 % less than at its own first bench here/)
    expect(w.get('a').attributes('href')).toBe('/inspect/bench?bench=7')
  })
})
