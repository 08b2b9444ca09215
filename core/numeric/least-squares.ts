/**
 * Nonlinear least squares by Levenberg and Marquardt: damped Gauss-Newton steps with central differences for the
 * slopes. Source: Marquardt 1963; damping as in Press et al., Numerical Recipes, section 15.5.
 */
import { need } from './need'

export interface LeastSquares {
  parameters: number[]
  sumOfSquares: number
  converged: boolean
}

/** Solves a·x = b for a small square matrix by elimination with row exchange; null when it is singular. */
export function solve(a: readonly (readonly number[])[], b: readonly number[]): number[] | null {
  const n = b.length
  for (const row of a) for (const v of row) need('a', v, -Number.MAX_VALUE, Number.MAX_VALUE)
  for (const v of b) need('b', v, -Number.MAX_VALUE, Number.MAX_VALUE)
  const m = a.map((row, i) => [...row, b[i]!])
  for (let k = 0; k < n; k++) {
    let p = k
    for (let i = k + 1; i < n; i++) if (Math.abs(m[i]![k]!) > Math.abs(m[p]![k]!)) p = i
    if (!(Math.abs(m[p]![k]!) > 1e-300)) return null
    ;[m[k], m[p]] = [m[p]!, m[k]!]
    for (let i = k + 1; i < n; i++) {
      const f = m[i]![k]! / m[k]![k]!
      for (let j = k; j <= n; j++) m[i]![j]! -= f * m[k]![j]!
    }
  }
  const x = Array<number>(n).fill(0)
  for (let i = n - 1; i >= 0; i--)
    x[i] = (m[i]![n]! - m[i]!.reduce((s, v, j) => (j > i && j < n ? s + v * x[j]! : s), 0)) / m[i]![i]!
  return x
}

/**
 * Parameters for which the sum of squares of `residuals` is smallest, starting from `start`. `residuals` answers one
 * value per observation for given parameters; a set of parameters for which one is not finite is never accepted.
 */
export function leastSquares(
  residuals: (p: readonly number[]) => number[],
  start: readonly number[],
  { steps = 500, tolerance = 1e-14 } = {},
): LeastSquares {
  for (const v of start) need('start', v, -Number.MAX_VALUE, Number.MAX_VALUE)
  need('steps', steps, 1, 1e6)
  need('tolerance', tolerance, 0, 1)
  let p = [...start]
  let r = residuals(p)
  let ss = sum2(r)
  let damping = 1e-3
  let still = 0
  for (let step = 0; step < steps; step++) {
    const slopes = p.map((v, j) => {
      // central differences, one column per parameter
      const h = 6e-6 * Math.max(Math.abs(v), 1e-8)
      const up = residuals(p.map((x, i) => (i === j ? x + h : x))),
        down = residuals(p.map((x, i) => (i === j ? x - h : x)))
      return up.map((u, i) => (u - down[i]!) / (2 * h))
    })
    const jtj = slopes.map(a => slopes.map(b => dot(a, b)))
    const jtr = slopes.map(a => -dot(a, r))
    let better = false
    for (let tries = 0; tries < 30; tries++) {
      const move = solve(
        jtj.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) + 1e-300 : v))),
        jtr,
      )
      const next = move && p.map((v, i) => v + move[i]!)
      const rn = next && residuals(next)
      const sn = rn ? sum2(rn) : NaN
      if (next && rn && sn <= ss) {
        still = ss - sn <= tolerance * ss ? still + 1 : 0
        p = next
        r = rn
        ss = sn
        damping = Math.max(damping / 10, 1e-15)
        better = true
        break
      }
      damping *= 10
    }
    if (!better || still >= 3) return { parameters: p, sumOfSquares: ss, converged: true }
  }
  return { parameters: p, sumOfSquares: ss, converged: false }
}

const dot = (a: readonly number[], b: readonly number[]) => a.reduce((s, v, i) => s + v * b[i]!, 0)
const sum2 = (r: readonly number[]) => (r.every(Number.isFinite) ? dot(r, r) : NaN)
