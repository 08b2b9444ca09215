/**
 * The flow bench against what lies outside it: figures of the trade, the project's own job-file reader, and benches
 * that are simulated with a known limit.
 */
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  balanceFor,
  benchFile,
  benchResult,
  compareBenches,
  droppedSince,
  levelOf,
  limitOf,
  netUG,
  planBench,
  sharesOf,
  stallMoved,
  type BenchSet,
  type Blob,
  type Filament,
} from '#core/flow'
import { Scan } from '#core/gcode'
import { massG } from '#core/materials'
import { mulberry32, normalDraw } from '#core/numeric'
import { delivers, type Head } from '../../sim/flow-bench'

describe('figures of the trade (common practice, no source)', () => {
  const set = (flowMm3S: number): BenchSet => ({
    temperaturesC: [260],
    flowsMm3S: [flowMm3S, flowMm3S + 1, flowMm3S + 2],
    repeats: 1,
    lengthMm: 1000,
    diameterMm: 1.75,
    densityGCm3: 1.24,
  })
  test('a metre takes 100 s at 24 mm³/s and 300 s at 8', () => {
    const seconds = (flow: number) => {
      const s = new Scan({})
      s.push(new TextEncoder().encode(benchFile({ ...set(flow), title: 'x', stand: STAND, tool: null })))
      return s.finish()
    }
    // what a blob takes shows between two files that differ by one flow alone
    expect(planBench(set(24)).blobG).toBeCloseTo(2.983, 3) // 1.75 mm at 1.24 g/cm³: 2.983 g per metre
    const each = (flow: number) => (1000 * (Math.PI / 4) * 1.75 ** 2) / flow
    expect(each(24)).toBeCloseTo(100.2, 1)
    expect(each(8)).toBeCloseTo(300.7, 1)
    expect(seconds(8).moveSeconds! - seconds(24).moveSeconds!).toBeCloseTo(
      [8, 9, 10].reduce((t, f) => t + each(f), 0) - [24, 25, 26].reduce((t, f) => t + each(f), 0),
      1,
    )
  })
  test('a tenth of a gram is 3.4 % of a metre, a hundredth 3.4 % of 100 mm', () => {
    expect(0.1 / massG(1000, 1.75, 1.24)).toBeCloseTo(0.034, 3)
    expect(0.01 / massG(100, 1.75, 1.24)).toBeCloseTo(0.034, 3)
    expect(balanceFor(0.1, massG(1000, 1.75, 1.24)).isFine).toBe(false)
    expect(balanceFor(0.01, massG(1000, 1.75, 1.24)).isFine).toBe(true)
  })
  test('0.05 mm of 1.75 mm is 5.8 % of the mass', () => {
    const f = { lengthMm: 1000, diameterMm: 1.75, densityGCm3: 1.24, mark: null }
    const blob: Blob = { temperatureC: 220, flowMm3S: 8, massG: massG(1000, 1.75, 1.24), uG: 0.004 }
    const thick = sharesOf([blob], { ...f, callipersMm: [1.8, 1.8, 1.8] })
    expect(1 / thick.cells[0]!.share - 1).toBeCloseTo(0.058, 3)
  })
  test('a difference of two readings rounded to d: d·√(2/12) (JCGM 100:2008, F.2.2.1)', () => {
    expect(netUG(0.01)).toBeCloseTo(0.00408, 5)
  })
})

const STAND = { xMm: 20, yMm: 20, zMm: 60 }

test('the job file reads back to the masses, flows and setpoints that were planned', () => {
  const numbers = fc.record({
    temperaturesC: fc.uniqueArray(fc.integer({ min: 200, max: 420 }), { minLength: 1, maxLength: 3 }),
    flowsMm3S: fc.uniqueArray(fc.integer({ min: 2, max: 40 }), { minLength: 3, maxLength: 5 }),
    repeats: fc.integer({ min: 1, max: 3 }),
    lengthMm: fc.integer({ min: 1000, max: 2500 }),
    diameterMm: fc.constantFrom(1.75, 2.85),
    densityGCm3: fc.double({ min: 0.9, max: 1.8, noNaN: true }),
    tool: fc.constantFrom(null, 0, 1),
  })
  fc.assert(
    fc.property(numbers, s => {
      const plan = planBench(s)
      const scan = new Scan({ filamentDiameterMm: s.diameterMm })
      scan.push(new TextEncoder().encode(benchFile({ ...s, title: 'Flow bench; of N-014 (Ribble)', stand: STAND })))
      const read = scan.finish()
      const readG = massG(read.totalExtrudedMm!, s.diameterMm, s.densityGCm3)
      expect(readG).toBeCloseTo(plan.grams, 6)
      expect(read.problems).toEqual([])
      expect(Object.values(read.maxSetpointC.tools)).toEqual([Math.max(...s.temperaturesC)])
      expect(read.maxSetpointC.bed ?? 0).toBe(0)
      // what the moves take is what the flows say
      const area = (Math.PI / 4) * s.diameterMm ** 2
      const blobs = plan.lines.reduce((t, l) => t + (s.lengthMm * area) / l.flowMm3S, 0)
      expect(read.moveSeconds!).toBeGreaterThan(blobs)
    }),
    { numRuns: 60, seed: 7 },
  )
})

const FLOWS = [8, 10, 12, 14, 16, 18]
const FILAMENT: Filament = { lengthMm: 1000, diameterMm: 1.75, densityGCm3: 1.2, callipersMm: null, mark: null }
/** A bench of a simulated head: scatter of its own, a balance of 0.01 g. */
function bench(h: Head, seed: number, temperaturesC: readonly number[] = [260], repeats = 2, f = FILAMENT): Blob[] {
  const draw = mulberry32(seed)
  const nominal = massG(f.lengthMm, f.diameterMm, f.densityGCm3)
  return temperaturesC.flatMap(temperatureC =>
    FLOWS.flatMap(flowMm3S =>
      Array.from({ length: repeats }, () => {
        const exact = nominal * delivers(h, temperatureC, flowMm3S) * (1 + 0.004 * normalDraw(draw))
        return { temperatureC, flowMm3S, massG: Math.round(exact / 0.01) * 0.01, uG: netUG(0.01) }
      }),
    ),
  )
}
/** Where the head really falls under 95 % of what it feeds. */
function truly(h: Head, temperatureC: number): number {
  let [low, high] = [0.1, 200]
  for (let i = 0; i < 60; i++) {
    const f = (low + high) / 2
    if (delivers(h, temperatureC, f) / h.level > 0.95) low = f
    else high = f
  }
  return low
}
const clear = { atC: 260, gripsMm3S: 200, clogMm3S: null, level: 1 }

describe('simulated benches', () => {
  test.each<[string, (k: number) => Head, number]>([
    ['melting', k => ({ ...clear, meltsMm3S: k }), 2.6],
    ['grip', k => ({ ...clear, meltsMm3S: 200, gripsMm3S: k }), 2.6],
    ['melting, bent like a corner', k => ({ ...clear, meltsMm3S: k, bend: 30 }), 2.6],
    ['melting, bent gently', k => ({ ...clear, meltsMm3S: k, bend: 4 }), 6],
    ['clog', k => ({ ...clear, meltsMm3S: 30, clogMm3S: k }), 2.6],
    ['steps 6 % low', k => ({ ...clear, meltsMm3S: k, level: 0.94 }), 2.6],
    ['steps 6 % high', k => ({ ...clear, meltsMm3S: k, level: 1.06 }), 2.6],
  ])('%s: the 80 %% range holds the true flow in 4 of 5 benches and more', (_, head, wide) => {
    const draw = mulberry32(3)
    let held = 0
    let told = 0
    const count = 250
    let width = 0
    for (let i = 0; i < count; i++) {
      const h = head(7 + 14 * draw())
      const result = benchResult(sharesOf(bench(h, i), FILAMENT), 0.95)!
      const [s] = result.sustained
      const is = truly(h, 260)
      const inside = (s!.low80 === null || is >= s!.low80) && (s!.high80 === null || is <= s!.high80)
      if (inside) held++
      if (s!.low80 !== null && s!.high80 !== null) {
        told++
        width += s!.high80 - s!.low80
      }
      if (s!.reach === 'at least the highest tested') expect(is).toBeGreaterThan(17)
      if (s!.reach === 'under the lowest tested') expect(is).toBeLessThan(11)
    }
    expect(held / count).toBeGreaterThan(0.78)
    // and is not wide for nothing: flows are 2 apart, and only where nothing is level it is not known what is fed
    expect(told).toBeGreaterThan(count / 2)
    expect(width / told).toBeLessThan(wide)
  })

  test('melting moves with 20 °C, grip and steps stay', () => {
    const tally = (h: Head) => {
      const counts = { 'moved': 0, 'stayed': 0, 'cannot tell': 0 }
      for (let i = 0; i < 60; i++) {
        const shares = sharesOf(bench(h, 1000 + i, [260, 280]), FILAMENT)
        counts[stallMoved(shares, benchResult(shares, 0.95)!, 0.95)!.verdict]++
      }
      return counts
    }
    const melting = tally({ ...clear, meltsMm3S: 13 })
    expect(melting.moved).toBeGreaterThan(57)
    expect(melting.stayed).toBe(0)
    const grip = tally({ ...clear, meltsMm3S: 200, gripsMm3S: 13 })
    expect(grip.stayed).toBeGreaterThan(50)
    expect(grip.moved).toBeLessThan(4)
  })

  test('several nozzles that stall alike are not the nozzle; one that does better is', () => {
    const own = (h: Head, seed: number, at: readonly number[] = [260]) => {
      const shares = sharesOf(bench(h, seed, at), FILAMENT)
      return { shares, result: benchResult(shares, 0.95)!, lengthMm: 1000 }
    }
    const slips: Head = { ...clear, meltsMm3S: 200, gripsMm3S: 13 }
    const [a, b] = [own(slips, 1, [260, 280]), own(slips, 2, [260, 280])]
    expect(limitOf(a, [{ nozzle: 'B', ...b }], 0.95).limit).toBe('grip')
    expect(limitOf(a, [], 0.95)).toMatchObject({ limit: 'grip or this nozzle', next: 'another nozzle' })
    const clogged = own({ ...slips, gripsMm3S: 200, meltsMm3S: 18, clogMm3S: 11 }, 4)
    const good = own({ ...slips, gripsMm3S: 200, meltsMm3S: 18 }, 5)
    expect(limitOf(clogged, [{ nozzle: 'B', ...good }], 0.95).limit).toBe('this nozzle')
    const only = own({ ...clear, meltsMm3S: 13 }, 6)
    expect(limitOf(only, [], 0.95)).toMatchObject({ limit: 'cannot tell', next: 'hotter' })
    expect(limitOf(own({ ...clear, meltsMm3S: 60 }, 7), [], 0.95)).toMatchObject({ limit: 'nothing falls short' })
  })

  test('two nozzles: 3 % shows with a balance of 0.01 g and not with 0.1 g', () => {
    const at = (step: number, level: number, seed: number) => {
      const blobs = bench({ ...clear, meltsMm3S: 60, level }, seed).map(b => ({
        ...b,
        massG: Math.round(b.massG / step) * step,
        uG: netUG(step),
      }))
      return sharesOf(blobs, FILAMENT)
    }
    const fine = compareBenches(at(0.01, 1, 1), at(0.01, 0.97, 2), 1000)!
    expect(fine).toMatchObject({ verdict: 'worse', needs: null, cells: 6 })
    expect(fine.difference).toBeCloseTo(-0.03, 2)
    expect(compareBenches(at(0.01, 1, 3), at(0.01, 1, 4), 1000)!.verdict).toBe('no difference')
    const one = (level: number, seed: number) => {
      const s = at(0.1, level, seed)
      return { ...s, cells: s.cells.slice(0, 1) }
    }
    const coarse = compareBenches(one(1, 5), one(0.99, 6), 1000)!
    expect(coarse.verdict).toBe('no difference')
    expect(coarse.needs!.metres).toBeGreaterThan(1)
    expect(coarse.needs!.repeats).toBeGreaterThan(2)
  })

  test('a clog since the first bench shows, another spool does not', () => {
    const of = (h: Head, seed: number) => {
      const shares = sharesOf(bench(h, seed), FILAMENT)
      return { shares, result: benchResult(shares, 0.95)! }
    }
    const first = of({ ...clear, meltsMm3S: 16 }, 1)
    expect(droppedSince(first, of({ ...clear, meltsMm3S: 16, clogMm3S: 12 }, 2), 1000)).toMatchObject({ dropped: true })
    expect(droppedSince(first, of({ ...clear, meltsMm3S: 16, level: 0.95 }, 3), 1000)).toMatchObject({ dropped: false })
    expect(droppedSince(first, of({ ...clear, meltsMm3S: 16 }, 4), 1000)).toMatchObject({ dropped: false })
  })
})

describe('a shortfall alike at all flows', () => {
  const asks = (level: number, f: Partial<Filament>) => {
    const filament = { ...FILAMENT, ...f }
    const shares = sharesOf(bench({ ...clear, meltsMm3S: 60, level }, 21), filament)
    return levelOf(benchResult(shares, 0.95)!, filament).asks
  }
  test('is never the nozzle: callipers first, steps from a mark alone, what is left is density', () => {
    expect(asks(1, {}).kind).toBe('fine')
    expect(asks(0.94, {}).kind).toBe('calliper')
    // 1.70 instead of 1.75 mm: (1.70/1.75)² = 0.944 (geometry)
    expect(asks((1.7 / 1.75) ** 2, { callipersMm: [1.7, 1.7, 1.7] })).toMatchObject({ kind: 'diameter', mm: 1.7 })
    const measured = { callipersMm: [1.75, 1.75, 1.75] }
    expect(asks(0.94, measured).kind).toBe('mark')
    expect(asks(0.94, { ...measured, mark: { toldMm: 100, fedMm: 94 } })).toMatchObject({
      kind: 'steps',
      factor: expect.closeTo(100 / 94, 6) as number,
    })
    const marked = { ...measured, mark: { toldMm: 100, fedMm: 100 } }
    const density = asks(0.94, marked)
    expect(density.kind).toBe('density')
    if (density.kind === 'density') expect(density.gCm3).toBeCloseTo(1.2 * 0.94, 2)
    expect(asks(1, marked).kind).toBe('fine')
  })
  test('a fall that begins with the slowest flow is no level', () => {
    const shares = sharesOf(bench({ ...clear, meltsMm3S: 7 }, 3), FILAMENT)
    const result = benchResult(shares, 0.95)!
    expect(result.plateau).toBe(false)
    expect(result.against).toBe('nominal')
    expect(result.sustained[0]!.reach).toBe('under the lowest tested')
    expect(levelOf(result, FILAMENT).asks.kind).toBe('no level')
  })
})
