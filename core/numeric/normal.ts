import { InputError } from './need'

/** One-sided 90 % of the normal distribution, in standard deviations: U = 1.28 u everywhere in the limits. */
export const ONE_SIDED_90 = 1.28

/**
 * The standard normal distribution. `normalCdf` is accurate to about 1e-15 relative in the body (series and continued
 * fraction, Abramowitz & Stegun 26.2.11 and 26.2.14); `fastNormalCdf` reads a table, absolute error under 1e-7.
 */
export function normalCdf(z: number): number {
  if (Number.isNaN(z)) throw new InputError('z', z, 'a number')
  return z < 0 ? upperTail(-z) : 1 - upperTail(z)
}

function density(z: number): number {
  return Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)
}

/** z + z³/3 + z⁵/(3·5) + … (A&S 26.2.11). */
function bodySeries(z: number): number {
  let term = z
  let sum = z
  for (let n = 3; Math.abs(term) > 1e-17 * Math.abs(sum) && n < 400; n += 2) {
    term *= (z * z) / n
    sum += term
  }
  return sum
}

/** P(Z > z) for z ≥ 0, keeping relative accuracy far out (A&S 26.2.14). */
function upperTail(z: number): number {
  if (z <= 3) return 0.5 - density(z) * bodySeries(z)
  let fraction = z
  for (let n = 80; n >= 1; n--) fraction = z + n / fraction
  return density(z) / fraction
}

const TABLE_END = 8.25
const PER_UNIT = 512
const TABLE = Float64Array.from({ length: 2 * TABLE_END * PER_UNIT + 2 }, (_, i) => normalCdf(i / PER_UNIT - TABLE_END))

/** The standard normal distribution from a table, to 1e-7. */
export function fastNormalCdf(z: number): number {
  if (Number.isNaN(z)) throw new InputError('z', z, 'a number')
  if (z <= -TABLE_END) return 0
  if (z >= TABLE_END) return 1
  const t = (z + TABLE_END) * PER_UNIT
  const i = t | 0
  const low = TABLE[i]!
  return low + (t - i) * (TABLE[i + 1]! - low)
}

/**
 * z with P(Z ≤ z) = p, for p above 0 and below 1: A&S 26.2.23 (to 4.5e-4), then two Newton steps on `normalCdf`.
 *
 * @example
 * inverseNormal(0.975) // 1.959964
 */
export function inverseNormal(p: number): number {
  if (!(p > 0 && p < 1)) throw new InputError('p', p, 'above 0 and below 1')
  const t = Math.sqrt(-2 * Math.log(Math.min(p, 1 - p)))
  let z = t - (2.515517 + 0.802853 * t + 0.010328 * t * t) / (1 + 1.432788 * t + 0.189269 * t * t + 0.001308 * t ** 3)
  if (p < 0.5) z = -z
  for (let i = 0; i < 2; i++) z -= (normalCdf(z) - p) / density(z)
  return z
}
