/** Two nozzle types over a year. At least one nozzle is bought; what is left of the last one keeps its worth. */
import { mulberry32, need, shuffled } from '../numeric'
import { costPerKg, type NozzleCost } from './cost'
import { lifeKgAt, medianLifeKg, type Life } from '../life'

/**
 * Cost of a year with so many kg of filled filament (0 to 1e6), at a life in kg (above 0), in the currency of the
 * prices: one nozzle at least.
 */
export function costInYear(c: NozzleCost, lifeKg: number, kgPerYear: number): number {
  need('kgPerYear', kgPerYear, 0, 1e6)
  need('lifeKg', lifeKg, 1e-9, 1e12)
  need('price', c.price, 0, 1e6)
  need('swap', c.swap, 0, 1e6)
  return (c.price + c.swap) * Math.max(1, kgPerYear / lifeKg)
}

/**
 * Chance (0 to 1) that a is cheaper than b within a year of `kgPerYear` kg, by equally likely quantiles of both lives,
 * paired at random (seeded); a tie counts half. One to a million draws.
 */
export function chanceCheaper(
  a: { cost: NozzleCost; life: Life },
  b: { cost: NozzleCost; life: Life },
  kgPerYear: number,
  seed = 1897,
  draws = 4000,
): number {
  need('draws', draws, 1, 1e6)
  need('seed', seed, 0, 2 ** 32)
  const random = mulberry32(seed)
  const order = shuffled(
    Array.from({ length: draws }, (_, i) => i),
    random,
  )
  let wins = 0
  for (let i = 0; i < draws; i++) {
    const x = costInYear(a.cost, lifeKgAt(a.life, (i + 0.5) / draws), kgPerYear)
    const y = costInYear(b.cost, lifeKgAt(b.life, (order[i]! + 0.5) / draws), kgPerYear)
    if (x < y) wins += 1
    if (x === y) wins += 0.5
  }
  return wins / draws
}

/** kg a year from which the one that is dearer at first costs less, at median lives; null when it never does. */
export function crossingKg(a: { cost: NozzleCost; life: Life }, b: { cost: NozzleCost; life: Life }): number | null {
  const first = (x: typeof a) => x.cost.price + x.cost.swap
  const perKg = (x: typeof a) => costPerKg(x.cost, medianLifeKg(x.life))
  // of two that cost the same at first, the one that lasts longer is the dear one
  const aIsDear = first(a) > first(b) || (first(a) === first(b) && perKg(a) < perKg(b))
  const [dear, cheap] = aIsDear ? [a, b] : [b, a]
  return perKg(dear) < perKg(cheap) ? first(dear) / perKg(cheap) : null
}
