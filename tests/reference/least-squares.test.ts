/**
 * The least-squares routine against NIST StRD nonlinear regression sets (data and certified values from memory; a wrong
 * digit would show), from both of NIST's starts where given, and the warm-up fit against its own closed form.
 */
import { describe, expect, test } from 'vitest'
import { fitWarmUp, timeToHold, warmUpAt } from '#core/chamber'
import { leastSquares, mulberry32, normalDraw, solve, symmetricEigen } from '#core/numeric'

const MISRA_X = [77.6, 114.9, 141.1, 190.8, 239.9, 289, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760]
const MISRA_Y = [10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.4, 75.47, 81.78]
interface Set {
  name: string
  x: number[]
  y: number[]
  model: (x: number, b: readonly number[]) => number
  starts: number[][]
  certified: number[]
}
const SETS: Set[] = [
  {
    name: 'Misra1a',
    x: MISRA_X,
    y: MISRA_Y,
    model: (x, b) => b[0]! * (1 - Math.exp(-b[1]! * x)),
    starts: [
      [500, 1e-4],
      [250, 5e-4],
    ],
    certified: [238.94212918, 5.5015643181e-4],
  },
  {
    name: 'Misra1b',
    x: MISRA_X,
    y: MISRA_Y,
    model: (x, b) => b[0]! * (1 - (1 + (b[1]! * x) / 2) ** -2),
    starts: [
      [500, 1e-4],
      [300, 2e-4],
    ],
    certified: [337.99746163, 3.9039091287e-4],
  },
  {
    name: 'Misra1c',
    x: MISRA_X,
    y: MISRA_Y,
    model: (x, b) => b[0]! * (1 - (1 + 2 * b[1]! * x) ** -0.5),
    starts: [
      [500, 1e-4],
      [600, 2e-4],
    ],
    certified: [636.42725809, 2.0813627256e-4],
  },
  {
    name: 'Misra1d',
    x: MISRA_X,
    y: MISRA_Y,
    model: (x, b) => (b[0]! * b[1]! * x) / (1 + b[1]! * x),
    starts: [
      [500, 1e-4],
      [450, 3e-4],
    ],
    certified: [437.36970754, 3.0227324449e-4],
  },
  {
    name: 'DanWood',
    x: [1.309, 1.471, 1.49, 1.565, 1.611, 1.68],
    y: [2.138, 3.421, 3.597, 4.34, 4.882, 5.66],
    model: (x, b) => b[0]! * x ** b[1]!,
    starts: [
      [1, 5],
      [0.7, 4],
    ],
    certified: [0.76886226176, 3.8604055871],
  },
  {
    name: 'BoxBOD (a first-order step response)',
    x: [1, 2, 3, 5, 7, 10],
    y: [109, 149, 149, 191, 213, 224],
    model: (x, b) => b[0]! * (1 - Math.exp(-b[1]! * x)),
    starts: [[100, 0.75]],
    certified: [213.80940889, 0.54723748542],
  },
  {
    name: 'Rat42',
    x: [9, 14, 21, 28, 42, 57, 63, 70, 79],
    y: [8.93, 10.8, 18.59, 22.33, 39.35, 56.11, 61.73, 64.62, 67.08],
    model: (x, b) => b[0]! / (1 + Math.exp(b[1]! - b[2]! * x)),
    starts: [
      [100, 1, 0.1],
      [75, 2.5, 0.07],
    ],
    certified: [72.462237576, 2.6180768402, 0.067359200066],
  },
]

describe('NIST StRD', () => {
  for (const s of SETS)
    test.each(s.starts)(`${s.name} from %d, %d`, (...start) => {
      const r = leastSquares(b => s.x.map((x, i) => s.y[i]! - s.model(x, b)), start)
      expect(r.converged).toBe(true)
      s.certified.forEach((c, i) => expect(Math.abs(r.parameters[i]! / c - 1)).toBeLessThan(1e-6))
    })
})

describe('warm-up: first-order step response', () => {
  const truth = { startC: 23, finalC: 68, tauS: 900, delayS: 120 }
  const clean = Array.from({ length: 120 }, (_, i) => ({ s: i * 30, c: warmUpAt(truth, i * 30) }))
  test('found again from clean readings', () => {
    const f = fitWarmUp(clean)
    expect(f.tauS).toBeCloseTo(900, 0)
    expect(f.finalC).toBeCloseTo(68, 2)
    expect(f.delayS).toBeCloseTo(120, -1)
    expect(f.dips).toEqual([])
  })
  test('closed form: τ after the delay it has covered 63.2 %, and time to hold is where the curve says', () => {
    expect((warmUpAt(truth, 1020) - 23) / 45).toBeCloseTo(0.63212, 5)
    expect(warmUpAt(truth, timeToHold(truth, 65))).toBeCloseTo(63, 9)
    expect(timeToHold(truth, 75)).toBe(Infinity)
    expect(timeToHold(truth, 70)).toBe(Infinity) // it only creeps up to 68
    expect(timeToHold(truth, 24)).toBe(0)
  })
  test.each([1, 2, 3])(
    'noise of 0.3 °C and two door openings (seed %d): τ within 12 %, final value within 1 °C',
    seed => {
      const random = mulberry32(seed)
      const noisy = clean.map(r => ({
        s: r.s,
        c: r.c + 0.3 * normalDraw(random) - (r.s > 1000 && r.s < 1200 ? 9 : 0) - (r.s > 2400 && r.s < 2600 ? 14 : 0),
      }))
      const f = fitWarmUp(noisy)
      expect(f.dips.length).toBeGreaterThanOrEqual(2)
      expect(Math.abs(f.tauS / 900 - 1)).toBeLessThan(0.12)
      expect(Math.abs(f.finalC - 68)).toBeLessThan(1)
    },
  )
  test('switched off, or a door left open at the end: cut, and the rest tells the same', () => {
    const off = clean.map(r => ({ s: r.s, c: r.s < 2700 ? r.c : 23 + 40 * Math.exp(-(r.s - 2700) / 1500) }))
    const open = clean.map(r => ({ s: r.s, c: r.c - (r.s > 3200 ? 12 : 0) }))
    for (const readings of [off, open]) {
      const f = fitWarmUp(readings)
      expect(Math.abs(f.finalC - 68)).toBeLessThan(0.7)
      expect(f.dips).toHaveLength(1)
    }
  })
  test('a curve that does not describe its readings is refused with how far off it is', () => {
    // two heaters, one after the other: no first-order response
    const steps = clean.map(r => ({ s: r.s, c: r.s < 1800 ? 23 + (12 * r.s) / 1800 : 35 + (27 * (r.s - 1800)) / 1800 }))
    const odd = steps.map((r, i) => ({ ...r, c: r.c + 6 * Math.sin(i / 6) + i * 0.05 }))
    expect(() => fitWarmUp(odd)).toThrow(/°C off any warm-up curve/)
  })
  test('no delay; and 20 000 or 150 000 readings, which overflowed, are as good as 120', () => {
    const prompt = { ...truth, delayS: 0 }
    const f = fitWarmUp(Array.from({ length: 120 }, (_, i) => ({ s: i * 30, c: warmUpAt(prompt, i * 30) })))
    expect(f.tauS).toBeCloseTo(900, 0)
    expect(f.delayS).toBeLessThan(5)
    for (const n of [20_000, 150_000]) {
      const random = mulberry32(n)
      const many = Array.from({ length: n }, (_, i) => {
        const s = (i * 3600) / n
        return { s, c: warmUpAt(truth, s) + 0.05 * normalDraw(random) }
      })
      const g = fitWarmUp(many)
      expect(Math.abs(g.finalC - 68)).toBeLessThan(0.2)
      expect(Math.abs(g.tauS / 900 - 1)).toBeLessThan(0.02)
    }
    // scatter so wide that a high reading is never reached again: not looked for anew from every reading after it
    const random = mulberry32(7)
    const wide = Array.from({ length: 150_000 }, (_, i) => {
      const s = (i * 7200) / 150_000
      return { s, c: warmUpAt(truth, s) + 0.5 * normalDraw(random) }
    })
    expect(Math.abs(fitWarmUp(wide).finalC - 68)).toBeLessThan(0.5)
  })
  test('one reading that is a fault of the sensor spoils nothing', () => {
    for (const at of [0, 1, 40, clean.length - 1]) {
      const f = fitWarmUp(clean.map((r, i) => (i === at ? { ...r, c: 99 } : r)))
      expect(f.finalC).toBeCloseTo(68, 1)
      expect(f.dips).toEqual([])
    }
  })
  test('readings that do not rise, are too few or run backwards are refused by name', () => {
    expect(() => fitWarmUp(clean.slice(0, 5))).toThrow(/at least 8/)
    expect(() => fitWarmUp(clean.map(r => ({ s: r.s, c: 23 })))).toThrow(/rise of at least 3/)
    expect(() => fitWarmUp([...clean.slice(0, 10), { s: 5, c: 30 }])).toThrow(/readings\.10/)
  })
})

test('small linear systems and eigenvalues: closed forms', () => {
  expect(
    solve(
      [
        [2, 1],
        [1, 3],
      ],
      [3, 5],
    )!.map(v => Number(v.toFixed(12))),
  ).toEqual([0.8, 1.4])
  expect(
    solve(
      [
        [1, 2],
        [2, 4],
      ],
      [1, 2],
    ),
  ).toBeNull()
  const n = 12 // the second difference has eigenvalues 2 − 2·cos(kπ/(n+1))
  const { values, vectors } = symmetricEigen(
    Array.from({ length: n }, (_, i) =>
      Array.from({ length: n }, (__, j) => {
        if (i === j) return 2
        return Math.abs(i - j) === 1 ? -1 : 0
      }),
    ),
  )
  values.forEach((v, k) => expect(v).toBeCloseTo(2 - 2 * Math.cos(((k + 1) * Math.PI) / (n + 1)), 12))
  expect(vectors[0]!.reduce((s, v) => s + v * v, 0)).toBeCloseTo(1, 12)
})
