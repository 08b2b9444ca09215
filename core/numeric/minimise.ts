import { need } from './need'

const MOST_STEPS = 300

/**
 * Smallest value of a one-dimensional function with one valley between `low` and `high`, by golden section.
 * Returns the place to within `tolerance`. Source: Press et al., Numerical Recipes, section 10.2.
 */
export function minimise(f: (x: number) => number, low: number, high: number, tolerance = 1e-9): number {
  need('low', low, -Number.MAX_VALUE, Number.MAX_VALUE)
  need('high', high, low, Number.MAX_VALUE)
  need('tolerance', tolerance, 0, Number.MAX_VALUE)
  const r = (Math.sqrt(5) - 1) / 2
  let a = low,
    b = high
  let c = b - r * (b - a),
    d = a + r * (b - a)
  let fc = f(c),
    fd = f(d)
  for (let i = 0; i < MOST_STEPS && b - a > tolerance; i++) {
    if (fc < fd) {
      b = d
      d = c
      fd = fc
      c = b - r * (b - a)
      fc = f(c)
    } else {
      a = c
      c = d
      fc = fd
      d = a + r * (b - a)
      fd = f(d)
    }
  }
  return (a + b) / 2
}
