import { InputError, need } from './need'

/**
 * Gamma function for z from 1e-3 to 170: Lanczos approximation with g = 7 and nine terms (Press et al., Numerical
 * Recipes, section 6.1; coefficients from memory).
 *
 * @example
 * gamma(1.5) // 0.886227
 */
export function gamma(z: number): number {
  need('z', z, 1e-3, 170)
  return Math.exp(lnGamma(z))
}

/** ln of the gamma function, z from 1e-3 to 1e8. */
export function lnGamma(z: number): number {
  need('z', z, 1e-3, 1e8)
  const x = z - 1
  const t = x + 7.5
  const sum = LANCZOS.slice(1).reduce((s, v, i) => s + v / (x + i + 1), LANCZOS[0]!)
  return 0.5 * Math.log(2 * Math.PI) + (x + 0.5) * Math.log(t) - t + Math.log(sum)
}
const LANCZOS = [
  0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313, -176.61502916214059,
  12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6, 1.5056327351493116e-7,
]

/** Degrees of freedom that the chi-square distribution is asked for. */
export const DEGREES = [0.5, 1e5] as const

/**
 * P(χ² ≤ x) for x ≥ 0 and degrees of freedom from 0.5 to 1e5: the incomplete gamma function by its series or its
 * continued fraction. Source: Press et al., Numerical Recipes, section 6.2.
 */
export function chiSquareCdf(x: number, degrees: number): number {
  need('degrees', degrees, ...DEGREES)
  need('x', x, 0, Number.MAX_VALUE)
  const a = degrees / 2
  const y = x / 2
  if (y === 0) return 0
  const top = Math.exp(-y + a * Math.log(y) - lnGamma(a))
  if (top === 0) return y < a ? 0 : 1
  return y < a + 1 ? top * series(a, y) : 1 - top * fraction(a, y)
}
const MOST_TERMS = 20_000

function series(a: number, y: number): number {
  let term = 1 / a
  let sum = term
  for (let n = 1; n < MOST_TERMS && term > sum * 1e-16; n++) {
    term *= y / (a + n)
    sum += term
  }
  return sum
}

/** Lentz's way through the continued fraction of the upper tail. */
function fraction(a: number, y: number): number {
  let b = y + 1 - a
  let c = 1e300
  let d = 1 / b
  let h = d
  for (let n = 1; n < MOST_TERMS; n++) {
    const an = -n * (n - a)
    b += 2
    d = 1 / (an * d + b)
    c = b + an / c
    h *= d * c
    if (Math.abs(d * c - 1) < 1e-15) break
  }
  return h
}

/**
 * x with P(χ² ≤ x) = p, for p above 0 and below 1: between two ends that hold it, Newton's steps in ln x where they
 * stay within, halves elsewhere.
 *
 * @example
 * inverseChiSquare(0.9, 10) // 15.987
 */
export function inverseChiSquare(p: number, degrees: number): number {
  need('degrees', degrees, ...DEGREES)
  if (!(p > 0 && p < 1)) throw new InputError('p', p, 'above 0 and below 1')
  const a = degrees / 2
  const lnTop = -lnGamma(a) - a * Math.log(2)
  let low = -700
  let high = Math.log(degrees + 60 + 12 * Math.sqrt(degrees))
  // from the first term of the series
  let x = Math.min(high, Math.max(low, (Math.log(p * a) + lnGamma(a)) / a + Math.log(2)))
  for (let i = 0; i < 200; i++) {
    const value = Math.exp(x)
    const off = chiSquareCdf(value, degrees) - p
    if (off > 0) high = x
    else low = x
    const slope = Math.exp(lnTop + a * x - value / 2)
    let next = x - off / slope
    if (!(next > low && next < high)) next = (low + high) / 2
    if (Math.abs(next - x) < 1e-13 * Math.max(1, Math.abs(x))) return Math.exp(next)
    x = next
  }
  return Math.exp(x)
}
