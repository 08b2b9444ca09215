/** The flow bench's smaller parts: what may be heated, plans to begin from, the balance, words. */
import { describe, expect, test } from 'vitest'
import {
  benchFile,
  benchResult,
  cellRefusal,
  hottestCellC,
  netOf,
  panMoved,
  planBench,
  sharesOf,
  sustainedFor,
  sustainedWords,
  usualBench,
  USUAL_MOST,
  type BenchLimits,
  type Sustained,
} from '#core/flow'
import { InputError } from '#core/numeric'
import type { BenchPage } from '#shared/answers/flow'
import { fileOf, nextBlob } from '~/lib/flow'
import { comparedWords, levelWords, limitWords, standWords, typedNumbers } from '~/words/flow'

const limits: BenchLimits = { ceilingSetC: 290, sensor: null, material: 'PA6-CF20', shortMaxC: 310, lowestFlowC: 240 }

describe('what may be heated', () => {
  test('hotend, filament and what is not known', () => {
    expect(cellRefusal(290, limits)).toBeNull()
    expect(cellRefusal(291, limits)).toBe('291 °C is more than the hotend stands: 290 °C')
    expect(cellRefusal(280, { ...limits, shortMaxC: 270 })).toContain('more than PA6-CF20 stands for a short time')
    expect(cellRefusal(230, limits)).toContain('less than PA6-CF20 flows at')
    expect(cellRefusal(260, { ...limits, ceilingSetC: null })).toContain('not known')
    expect(cellRefusal(260, { ...limits, shortMaxC: null })).toContain('no short-time maximum')
    expect(cellRefusal(260, { ...limits, lowestFlowC: null })).toBeNull()
  })
  test('a sensor that reads low makes more of a setpoint', () => {
    const reads = { points: [{ shownC: 280, cC: 12, uC: 1 }], from: 'its check' }
    const low: BenchLimits = { ...limits, ceilingSetC: 330, shortMaxC: 290, sensor: { own: reads, atLeast: null } }
    expect(cellRefusal(280, low)).toBe(
      '280 °C makes 292 °C, which is more than PA6-CF20 stands for a short time: 290 °C',
    )
    expect(hottestCellC(low)).toBe(278)
    expect(hottestCellC(limits)).toBe(290)
    expect(hottestCellC({ ...limits, shortMaxC: null })).toBeNull()
  })
})

test('a bench to begin from stays under an hour and 80 g, for slow and fast heads and thick filament', () => {
  for (const highest of [null, 0.5, 2, 6, 12, 24, 60, 200])
    for (const diameter of [1.75, 2.85]) {
      const set = usualBench(highest, 260, diameter, 1.2)
      const { minutes, grams } = planBench(set)
      expect([minutes < USUAL_MOST.minutes, grams < USUAL_MOST.grams], `${highest}`).toEqual([true, true])
      expect(Math.max(...set.flowsMm3S)).toBeGreaterThan(Math.min(highest ?? 0, 60))
    }
})

test('flows rise in one round and fall in the next, the coolest temperature first', () => {
  const set = { temperaturesC: [285, 265], flowsMm3S: [12, 8, 10], repeats: 2, lengthMm: 1000 }
  const { lines } = planBench({ ...set, diameterMm: 1.75, densityGCm3: 1.2 })
  expect(lines.map(l => l.temperatureC)).toEqual([...Array<number>(6).fill(265), ...Array<number>(6).fill(285)])
  expect(lines.slice(0, 6).map(l => l.flowMm3S)).toEqual([8, 10, 12, 12, 10, 8])
  const plan = (more: object) => () => planBench({ ...set, diameterMm: 1.75, densityGCm3: 1.2, ...more })
  expect(plan({ repeats: 1.5 })).toThrow(InputError)
  expect(plan({ repeats: 5, temperaturesC: [250, 260, 270, 280] })).not.toThrow()
  expect(plan({ repeats: 5, flowsMm3S: [1, 2, 3, 4], temperaturesC: [250, 260, 270, 280] })).toThrow('at most 60 blobs')
})

test('the file waits, lifts first, pauses, ends cold, and no text of a name is a command', () => {
  const set = { temperaturesC: [265], flowsMm3S: [8, 10, 12], repeats: 1, lengthMm: 1000 }
  const stand = { xMm: 20, yMm: 30, zMm: 60 }
  const file = { ...set, diameterMm: 1.75, densityGCm3: 1.2, title: 'µ (x)\nM104 S999', stand, tool: 1 }
  const lines = benchFile(file).split('\n')
  expect(lines.some(l => /^M104 S999/.test(l))).toBe(false)
  expect(lines.filter(l => l.startsWith('M0 '))).toHaveLength(4)
  expect(lines.indexOf('G28 ; home, cold')).toBeLessThan(lines.findIndex(l => l.startsWith('M104')))
  expect(lines.findIndex(l => l.startsWith('G1 Z60'))).toBeLessThan(lines.findIndex(l => l.startsWith('G1 X20 Y30')))
  expect(lines).toContain('T1')
  expect(lines.filter(l => /^M14[01]|^M19[01]/.test(l))).toEqual(['M140 S0'])
  expect(Math.max(...lines.flatMap(l => (/^G1 E([\d.]+)/.exec(l) ? [Number(/^G1 E([\d.]+)/.exec(l)![1])] : [])))).toBe(
    50,
  )
  expect(lines.slice(-4)).toEqual(['M104 S0 ; heaters off', 'M140 S0', 'G1 Z60 F600 ; parked where it stood', ''])
})

test('the pan: drift is half taken off and half doubt, another pan is no drift', () => {
  expect(netOf({ grossG: 7.3, panG: 4.3 }, null, 0.001)).toMatchObject({ massG: 3 })
  const drifted = netOf({ grossG: 7.3, panG: 4.3 }, 4.32, 0.001)
  expect(drifted.massG).toBeCloseTo(2.99, 9)
  expect(drifted.uG).toBeCloseTo(Math.hypot((0.001 * Math.SQRT2) / Math.sqrt(12), 0.01 / Math.sqrt(3)), 9)
  expect(netOf({ grossG: 7.3, panG: 4.3 }, 12.1, 0.001).massG).toBeCloseTo(3, 9)
  expect(() => netOf({ grossG: 4.3, panG: 4.3 }, null, 0.001)).toThrow('grossG')
  expect([panMoved(4.3, 4.303, 0.001), panMoved(4.3, 4.304, 0.001)]).toEqual([false, true])
})

test('a bench holds at its temperature and hotter, never cooler', () => {
  const at = (temperatureC: number): Sustained => ({
    temperatureC,
    reach: 'between',
    flowMm3S: temperatureC / 20,
    low80: 10,
    high80: 16,
  })
  expect(sustainedFor([at(265), at(285)], 280)?.temperatureC).toBe(265)
  expect(sustainedFor([at(265), at(285)], 300)?.temperatureC).toBe(285)
  expect(sustainedFor([at(265)], 264)).toBeNull()
  expect(sustainedWords(at(260))).toBe('about 13 mm³/s at 260 °C (80 % between 10 and 16)')
  expect(sustainedWords({ ...at(260), low80: null })).toContain('(80 % under 16)')
  expect(sustainedWords({ ...at(260), reach: 'under the lowest tested', high80: null })).toContain('it is not sure')
})

describe('words', () => {
  test('numbers in one field, comma or point', () => {
    expect(typedNumbers('265, 285')).toEqual([265, 285])
    expect(typedNumbers('8;10 12,5')).toEqual([8, 10, 12.5])
    expect(typedNumbers(' ')).toEqual([])
    expect(typedNumbers('8, x')).toEqual([8, NaN])
  })
  const filament = { lengthMm: 1000, diameterMm: 1.75, densityGCm3: 1.2, callipersMm: null, mark: null }
  const shares = sharesOf(
    [8, 10, 12].map((flowMm3S, i) => ({ temperatureC: 265, flowMm3S, massG: 2.7 - 0.3 * i ** 2, uG: 0.004 })),
    filament,
  )
  const page = {
    id: 4,
    nozzle: 'N-014',
    place: 'Ribble',
    spool: 'S-07',
    material: 'PA6-CF20',
    ...filament,
    stand: { xMm: 20, yMm: 20, zMm: 60 },
    tool: null,
    struck: null,
    ended: null,
    blobs: 3,
    weighed: 1,
    sustained: [],
    lines: [8, 10, 12].map((flowMm3S, i) => ({ temperatureC: 265, flowMm3S, round: 0, blob: i === 0 ? {} : null })),
    result: benchResult(shares, 0.95),
    limit: { limit: 'cannot tell', move: null, against: [], next: 'hotter' },
    level: { off: -0.06, left: -0.06, asks: { kind: 'calliper' } },
  } as unknown as BenchPage
  test('whose blob it is, also of what waits to be sent', () => {
    expect(nextBlob(page, [])).toBe(1)
    expect(nextBlob(page, [{ route: '/api/blobs', body: { benchId: 4, line: 1 } }])).toBe(2)
    expect(nextBlob(page, [{ route: '/api/blobs', body: { benchId: 5, line: 1 } }])).toBe(1)
    expect(fileOf(page).name).toBe('flow-bench-4-N-014.gcode')
    expect(standWords(page)).toBe('1 of 3 blobs weighed')
  })
  test('what holds it back and what the level asks', () => {
    expect(limitWords(page)).toEqual({
      says: 'Cannot tell yet what holds it back: one temperature, one nozzle.',
      next: expect.stringContaining('20 °C hotter') as string,
    })
    expect(levelWords(page)?.says).toBe('Even the slowest blobs deliver 6.0 % less than the record of S-07 says.')
    const steps = { ...page, level: { off: -0.06, left: -0.06, asks: { kind: 'density', gCm3: 1.128 } } } as BenchPage
    expect(levelWords(steps)?.fix).toContain('spoil every other spool')
  })
  test('a comparison says what it would have shown', () => {
    const c = { difference: 0.004, u: 0.02, cells: 3, verdict: 'no difference' as const, shows: 0.056 }
    expect(comparedWords('N-9', { ...c, needs: { metres: 1.9, repeats: 4 } })).toBe(
      'No difference from N-9 that this balance can see (3 cells, pair by pair); it would have shown 5.6 %. ' +
        'To show 3.0 %: blobs of 1.9 m, or 4 blobs of each.',
    )
  })
})
