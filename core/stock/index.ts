/**
 * What is on the shelf, what will be used up, what to order. Quantities in pieces, g or m; wear mass in kg; days. What
 * is outside its range is refused by an InputError that names the field and what is allowed; sources stand at the head
 * of each file.
 */
export { AHEAD_DAYS, ENOUGH_SURE, enoughFor, needChances } from './need'
export type { HeadWear } from './need'
export { ADDED_UP, enoughByUse, FEWEST_DAYS, QUANTITY, USED_DAYS } from './use'
export {
  PRICE,
  quantityWords,
  shortOf,
  STOCK_KINDS,
  STOCK_MOVES,
  STOCK_UNITS,
  TAGGED_KINDS,
  toOrder,
  USED_BY,
} from './order'
export type { Stand, StockKind, StockMove, StockUnit, UsedBy } from './order'
