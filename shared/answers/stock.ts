/** What is on the shelf, what will be used up, what to order. */
import { z } from 'zod'
import { STOCK_KINDS, STOCK_MOVES, STOCK_UNITS, USED_BY } from '#core/stock'
import { due } from './upkeep'
import { id, maybe, number, struckFor, text, time } from './parts'

const wanted = z.object({
  /** Enough for the time, as sure as is asked. */
  enough: number,
  by: z.enum(['forecasts', 'use']),
  /** Chance that at least one is wanted; null where use alone tells. */
  oneChance: maybe(number),
  /** Heads that take it, by forecasts; times it was used and in how many days, by use. */
  heads: number,
  uses: number,
  overDays: number,
})
export const stockLine = z.object({
  /** Null: nozzles of a type that nobody set a minimum for. */
  id: maybe(id),
  kind: z.enum(STOCK_KINDS),
  name: text,
  unit: z.enum(STOCK_UNITS),
  nozzleTypeId: maybe(id),
  onHand: number,
  /** Of what is on hand, nozzles that something went through already; null where that says nothing. */
  usedBefore: maybe(number),
  onOrder: number,
  minimum: maybe(number),
  wanted: maybe(wanted),
  toOrder: number,
  due: maybe(due),
  countedAt: maybe(time),
  /** What one costs; without a day it is the shop's price of that material. */
  price: maybe(z.object({ each: number, on: maybe(text) })),
  usedBy: maybe(z.enum(USED_BY)),
  note: text,
  withdrawn: z.boolean(),
  version: maybe(id),
})
export type StockLine = z.output<typeof stockLine>

const stockMove = z.object({
  id,
  itemId: id,
  name: text,
  unit: z.enum(STOCK_UNITS),
  kind: z.enum(STOCK_MOVES),
  quantity: number,
  /** What took it, where that was not a person. */
  from: maybe(text),
  note: text,
  at: time,
  by: text,
  struck: struckFor,
})
export type StockMoveLine = z.output<typeof stockMove>

export const stock = z.object({
  /** Those in use first, then by kind and name. */
  lines: z.array(stockLine),
  /** The latest first. */
  moves: z.array(stockMove),
  /** For how many days it was worked out, and how sure. */
  days: number,
  sure: number,
  currency: text,
})
export type Stock = z.output<typeof stock>
export const moveEffect = z.object({ id, onHand: number, onOrder: number })
