import { need } from './need'

const MOST_STEPS = 100

/**
 * Where a rising continuous function crosses 0 between `low` and `high`, to within `tolerance`; the nearer end where it
 * does not cross. By false position, the end that stands still weighed half (the Illinois way), halving where that is
 * slow: the crossing always stays between the ends. Source: Dowell and Jarratt 1971.
 */
export function rootOf(f: (x: number) => number, low: number, high: number, tolerance: number): number {
  need('low', low, -Number.MAX_VALUE, Number.MAX_VALUE)
  need('high', high, low, Number.MAX_VALUE)
  need('tolerance', tolerance, 0, Number.MAX_VALUE)
  let [a, b] = [low, high]
  let [fa, fb] = [f(a), f(b)]
  if (fa >= 0) return a
  if (fb <= 0) return b
  let side = 0
  for (let i = 0; i < MOST_STEPS && b - a > tolerance; i++) {
    // every third step halves: no function keeps one end for long
    const x = i % 3 === 2 ? (a + b) / 2 : Math.min(b, Math.max(a, (a * fb - b * fa) / (fb - fa)))
    const fx = f(x)
    if (fx === 0) return x
    if (fx > 0) {
      b = x
      fb = fx
      if (side > 0) fa /= 2
      side = 1
    } else {
      a = x
      fa = fx
      if (side < 0) fb /= 2
      side = -1
    }
    if (x === a && x === b) break
  }
  return b - a <= tolerance ? (a + b) / 2 : (a * fb - b * fa) / (fb - fa)
}
