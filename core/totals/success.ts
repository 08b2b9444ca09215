/**
 * How often a job comes out well, with its 80 % range: the score interval, whose ends p satisfy
 * (p̂ − p)² = z²·p·(1 − p)/n. It stays within 0 to 1 and does not shrink to nothing where all went well.
 * Source: Wilson (1927), JASA 22, 209; Brown, Cai & DasGupta (2001), Statistical Science 16, 101.
 */
import { inverseNormal, need } from '../numeric'

export interface SuccessRate {
  rate: number
  low80: number
  high80: number
}
/** Runs that can be counted together. */
const RUNS = [0, 1e9] as const
const Z = inverseNormal(0.9)

/**
 * Share of runs that came out well, of `good` and `failed` ones; null without any.
 *
 * @example
 * successRate(0, 0) // null
 */
export function successRate(good: number, failed: number): SuccessRate | null {
  need('good', good, ...RUNS)
  need('failed', failed, ...RUNS)
  const n = good + failed
  if (n === 0) return null
  const rate = good / n
  const about = (rate + (Z * Z) / (2 * n)) / (1 + (Z * Z) / n)
  const half = (Z / (1 + (Z * Z) / n)) * Math.sqrt((rate * (1 - rate)) / n + (Z / (2 * n)) ** 2)
  return { rate, low80: Math.max(0, about - half), high80: Math.min(1, about + half) }
}
