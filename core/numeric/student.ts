import { lnGamma } from './gamma'
import { InputError, need } from './need'

/** Degrees of freedom that Student's distribution is asked for. */
export const STUDENT_DEGREES = [1, 1e6] as const

/**
 * P(T ≤ t) of Student's distribution with 1 to 1e6 degrees of freedom: the incomplete beta function by its continued
 * fraction. Source: Press et al., Numerical Recipes, section 6.4.
 *
 * @example
 * studentCdf(2.228, 10) // 0.975
 */
export function studentCdf(t: number, degrees: number): number {
  if (Number.isNaN(t)) throw new InputError('t', t, 'a number')
  need('degrees', degrees, ...STUDENT_DEGREES)
  if (!Number.isFinite(t)) return t > 0 ? 1 : 0
  const tail = incompleteBeta(degrees / (degrees + t * t), degrees / 2, 0.5) / 2
  return t > 0 ? 1 - tail : tail
}

function incompleteBeta(x: number, a: number, b: number): number {
  if (x <= 0) return 0
  if (x >= 1) return 1
  const front = Math.exp(lnGamma(a + b) - lnGamma(a) - lnGamma(b) + a * Math.log(x) + b * Math.log1p(-x))
  return x < (a + 1) / (a + b + 2) ? (front * fraction(x, a, b)) / a : 1 - (front * fraction(1 - x, b, a)) / b
}

const TINY = 1e-300
/** Lentz's way through the continued fraction of the incomplete beta function. */
function fraction(x: number, a: number, b: number): number {
  const away = (v: number) => (Math.abs(v) < TINY ? TINY : v)
  let c = 1
  let d = 1 / away(1 - ((a + b) * x) / (a + 1))
  let h = d
  for (let m = 1; m < 10_000; m++) {
    const even = (m * (b - m) * x) / ((a - 1 + 2 * m) * (a + 2 * m))
    d = 1 / away(1 + even * d)
    c = away(1 + even / c)
    h *= d * c
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 1 + 2 * m))
    d = 1 / away(1 + odd * d)
    c = away(1 + odd / c)
    h *= d * c
    if (Math.abs(d * c - 1) < 1e-15) break
  }
  return h
}
