/** Cost of one nozzle and per kg. Source: arithmetic; the check value 125/31 = 4.03 is common practice, no source. */
import { need } from '../numeric'

/** The shop's rates for one swap. */
export interface Rates {
  labourPerHour: number
  /** What an hour of a standing printer costs. */
  downtimePerHour: number
  /** Hours the printer stands for a swap with its calibration. */
  downtimeHours: number
  /** Filament and parts thrown away until it prints well again. */
  scrapPerSwap: number
}

/** Cost of one swap beside the nozzle: labour for `minutes`, downtime in hours, scrap; rates 0 to 1e6. */
export function swapCost(minutes: number, r: Rates): number {
  need('minutes', minutes, 0, 1e5)
  for (const k of ['labourPerHour', 'downtimePerHour', 'downtimeHours', 'scrapPerSwap'] as const) need(k, r[k], 0, 1e6)
  return (minutes / 60) * r.labourPerHour + r.downtimeHours * r.downtimePerHour + r.scrapPerSwap
}

export interface NozzleCost {
  price: number
  swap: number
}

/** Cost per kg of filament at a life in kg (above 0), in the currency of its prices. */
export function costPerKg(c: NozzleCost, lifeKg: number): number {
  need('price', c.price, 0, 1e6)
  need('swap', c.swap, 0, 1e6)
  need('lifeKg', lifeKg, 1e-9, 1e12)
  return (c.price + c.swap) / lifeKg
}

/**
 * How many times longer `dear` must last than `cheap` to cost the same per kg. Money in one currency.
 *
 * @example
 * breakEvenLifeRatio({ price: 110, swap: 15 }, { price: 16, swap: 15 }) // 4.03 (125 / 31)
 */
export function breakEvenLifeRatio(dear: NozzleCost, cheap: NozzleCost): number {
  need('price', cheap.price + cheap.swap, 1e-9, 1e7)
  need('price', dear.price + dear.swap, 0, 1e7)
  return (dear.price + dear.swap) / (cheap.price + cheap.swap)
}
