/**
 * How much of what is counted will be used up within a time, by how often it was used before. Uses are a Poisson
 * process of unknown rate; with n uses in T days (Jeffreys' prior, Gamma(n + ½, T)) those of the next H days are
 * negative binomial with r = n + ½ and p = T/(T + H).
 * Source: Gelman et al., Bayesian Data Analysis (3rd ed. 2013), 2.6, for the gamma-Poisson; the prior is a choice.
 */
import { need } from '../numeric'
import { AHEAD_DAYS } from './need'

/** Days that a use can be told by. */
export const USED_DAYS = [1, 4000] as const
const USES = [0, 1e7] as const
/** What can be counted, come or go at once, in pieces, g or m. */
export const QUANTITY = [0, 1e6] as const
/** What that can add up to. */
export const ADDED_UP = [0, 1e12] as const
/** A rate told by fewer days than this is none. */
export const FEWEST_DAYS = 14

/**
 * The quantity that is enough for the next days (1 to 365) with chance `sure`: uses that are enough, each of the mean
 * quantity of a use; null while the record is shorter than 14 days. `uses` times together `quantity` in `overDays`.
 *
 * @example
 * enoughByUse({ uses: 6, quantity: 6, overDays: 180 }, 60, 0.8) // 3 (pieces)
 */
export function enoughByUse(
  used: { uses: number; quantity: number; overDays: number },
  aheadDays: number,
  sure: number,
): number | null {
  const { uses, quantity, overDays } = used
  need('uses', uses, ...USES)
  need('quantity', quantity, ...ADDED_UP)
  need('overDays', overDays, 0, USED_DAYS[1], 'days')
  need('aheadDays', aheadDays, ...AHEAD_DAYS, 'days')
  need('sure', sure, 0.5, 0.999)
  if (overDays < FEWEST_DAYS) return null
  if (uses === 0) return 0
  return (usesEnough(uses, overDays, aheadDays, sure) * quantity) / uses
}

/** Smallest k with the negative binomial's P(K ≤ k) ≥ sure. */
function usesEnough(uses: number, overDays: number, aheadDays: number, sure: number): number {
  const r = uses + 0.5
  const p = overDays / (overDays + aheadDays)
  let term = p ** r
  let sum = term
  let k = 0
  // a long record of many uses starts below what a number can hold: then by the normal
  if (term < 1e-290) return Math.ceil((r * (1 - p)) / p + 3 * Math.sqrt((r * (1 - p)) / p ** 2))
  while (sum < sure) {
    k++
    term *= ((r + k - 1) / k) * (1 - p)
    sum += term
  }
  return k
}
