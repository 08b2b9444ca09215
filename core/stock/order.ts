/** What to order, and what is short: quantities in the unit of the item. Common practice, no source. */
import { need, needIfKnown, needOne } from '../numeric'
import { ADDED_UP } from './use'

/** What a shop keeps on its shelf. */
export const STOCK_KINDS = [
  'nozzle',
  'hotend',
  'gear',
  'tube',
  'sheet',
  'heater',
  'sensor',
  'belt',
  'filter',
  'fan',
  'desiccant',
  'adhesive',
  'other',
] as const
export type StockKind = (typeof STOCK_KINDS)[number]
/** What they are counted in. */
export const STOCK_UNITS = ['pieces', 'g', 'm'] as const
export type StockUnit = (typeof STOCK_UNITS)[number]
/** Kinds that are counted by their tags. */
export const TAGGED_KINDS: readonly StockKind[] = ['nozzle', 'hotend']
/** What takes one from the shelf by itself. */
export const USED_BY = ['a nozzle swap', 'a hotend change'] as const
export type UsedBy = (typeof USED_BY)[number]
/** What happens to what is counted. */
export const STOCK_MOVES = ['counted', 'received', 'used', 'scrapped', 'ordered'] as const
export type StockMove = (typeof STOCK_MOVES)[number]

/** Money for one, in the shop's currency. */
export const PRICE = [0, 1e6] as const

export interface Stand {
  onHand: number
  onOrder: number
  /** Null: none was set. */
  minimum: number | null
  /** What will be used within the time, with the chance that is asked for; null where nothing tells. */
  need: number | null
}

/** Quantities can be below zero where the book is wrong: more was used than was counted. */
const ON_HAND = [-ADDED_UP[1], ADDED_UP[1]] as const

/**
 * How many to order so that after the time the minimum is still there; whole pieces, or the amount in g or m rounded
 * up to a whole one. 0 where there is enough.
 *
 * @example
 * toOrder({ onHand: 1, onOrder: 0, minimum: 2, need: 1.2 }) // 3
 */
export function toOrder({ onHand, onOrder, minimum, need: wanted }: Stand): number {
  need('onHand', onHand, ...ON_HAND)
  need('onOrder', onOrder, ...ADDED_UP)
  needIfKnown('minimum', minimum, ...ADDED_UP)
  needIfKnown('need', wanted, ...ADDED_UP)
  // adding 0 keeps the zero of an empty order from being a negative one
  return Math.max(0, Math.ceil((minimum ?? 0) + (wanted ?? 0) - onHand - onOrder - 1e-9)) + 0
}

/** Whether less is there than the minimum: `ordered` where what is on its way makes up for it. */
export function shortOf({ onHand, onOrder, minimum }: Omit<Stand, 'need'>): 'short' | 'ordered' | null {
  need('onHand', onHand, ...ON_HAND)
  need('onOrder', onOrder, ...ADDED_UP)
  needIfKnown('minimum', minimum, ...ADDED_UP)
  if (onHand < 0) return 'short'
  if (minimum === null || onHand >= minimum) return null
  return onHand + onOrder >= minimum ? 'ordered' : 'short'
}

/** A quantity with its unit: "3", "120 g". Pieces are plain numbers. */
export function quantityWords(quantity: number, unit: StockUnit): string {
  need('quantity', quantity, ...ON_HAND)
  needOne('unit', unit, STOCK_UNITS)
  const n = String(Number(quantity.toFixed(unit === 'pieces' ? 2 : 1)))
  return unit === 'pieces' ? n : `${n} ${unit}`
}
