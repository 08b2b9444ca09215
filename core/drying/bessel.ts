/**
 * Bessel functions of the first kind, orders 0 and 1, and the zeros of J0, for 0 ≤ x ≤ 500.
 * Source: Bessel's integral (Abramowitz & Stegun 9.1.18 and 9.1.21) by the midpoint rule, which converges faster than
 * any power for a periodic integrand; zeros from McMahon's expansion (A&S 9.5.12) and Newton steps.
 */
import { InputError, need } from '../numeric'

function integral(order: 0 | 1, x: number): number {
  need('x', x, 0, 500)
  const n = 32 + Math.ceil(Math.abs(x))
  let sum = 0
  for (let i = 0; i < n; i++) {
    const t = (Math.PI * (i + 0.5)) / n
    sum += Math.cos(order * t - x * Math.sin(t))
  }
  return sum / n
}

/**
 * J0(x), 0 ≤ x ≤ 500, no unit (A&S 9.1.18).
 *
 * @example
 * besselJ0(1) // 0.7651976866 (A&S table 9.1)
 */
export const besselJ0 = (x: number) => integral(0, x)
/** J1(x), 0 ≤ x ≤ 500, no unit (A&S 9.1.21). */
export const besselJ1 = (x: number) => integral(1, x)

/** The first `count` positive zeros of J0. */
export function zerosOfJ0(count: number): number[] {
  if (!Number.isInteger(count) || count < 1 || count > 150)
    throw new InputError('count', count, 'a whole number from 1 to 150')
  return Array.from({ length: count }, (_, i) => {
    const b = (i + 0.75) * Math.PI
    let x = b + 1 / (8 * b) - 124 / (3 * (8 * b) ** 3)
    for (let k = 0; k < 4; k++) x += besselJ0(x) / besselJ1(x)
    return x
  })
}
