/** What swaps cost. */
import type { Swap } from '#core/limits'

/** Money for parts and minutes of work; what nobody entered a price for is counted, not guessed. */
export function costOf(swaps: readonly Swap[]): { price: number; unpriced: number; minutes: number } {
  const priced = swaps.filter(s => s.priced)
  return {
    price: priced.reduce((sum, s) => sum + s.price, 0),
    unpriced: swaps.length - priced.length,
    minutes: swaps.reduce((sum, s) => sum + s.minutes, 0),
  }
}
