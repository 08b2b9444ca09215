import { need } from './need'

/** Halvings after which no number between two others is left. */
const MOST_STEPS = 200

/**
 * Where a rising condition turns true between `low` (false) and `high` (true), to within `tolerance`, or as closely as
 * numbers go.
 */
export function bisect(isPast: (x: number) => boolean, low: number, high: number, tolerance: number): number {
  need('low', low, -Number.MAX_VALUE, Number.MAX_VALUE)
  need('high', high, low, Number.MAX_VALUE)
  need('tolerance', tolerance, 0, Number.MAX_VALUE)
  let a = low
  let b = high
  for (let i = 0; i < MOST_STEPS && b - a > tolerance; i++) {
    const m = a + (b - a) / 2
    if (m === a || m === b) break
    if (isPast(m)) b = m
    else a = m
  }
  return b
}
