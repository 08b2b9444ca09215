/** What is on the shelf, in words. */
import { quantityWords } from '#core/stock'
import { chance, counted, price } from '#core/words'
import type { Stock, StockLine, StockMoveLine } from '#shared/answers/stock'
import { day } from '#shared/time'

/** "2 there, 1 used before; 3 ordered; minimum 2". */
export function thereWords(l: StockLine): string {
  const have = l.onHand < 0 ? `the book says ${quantityWords(l.onHand, l.unit)}` : quantityWords(l.onHand, l.unit)
  return [
    `${have} there${l.usedBefore ? `, ${quantityWords(l.usedBefore, l.unit)} used before` : ''}`,
    l.onOrder > 0 ? `${quantityWords(l.onOrder, l.unit)} ordered` : '',
    l.minimum === null ? 'no minimum' : `minimum ${quantityWords(l.minimum, l.unit)}`,
  ]
    .filter(Boolean)
    .join('; ')
}

/** What will be wanted and what tells it: "2 within 60 days, 80 % sure; by the forecasts of 3 fitted". */
export function wantedWords(l: StockLine, { days, sure }: Pick<Stock, 'days' | 'sure'>): string {
  const w = l.wanted
  if (w === null) return l.kind === 'hotend' ? 'kept ready, not used up' : 'too short a record to tell its use'
  if (w.by === 'forecasts' && w.heads === 0) return 'fitted nowhere'
  const within = `within ${counted(days, 'day')}, ${Math.round(sure * 100)} % sure`
  const often =
    w.uses === 0 ? `not used in ${counted(Math.round(w.overDays), 'day')}` : `used ${times(w.uses)} in ${daysOf(w)}`
  const told =
    w.by === 'use' ? often : `by ${counted(w.heads, 'fitted nozzle')}; at least one: ${chance(w.oneChance ?? 0)}`
  return `${w.enough === 0 ? 'none' : quantityWords(Math.ceil(w.enough - 1e-9), l.unit)} wanted ${within}; ${told}`
}
const times = (n: number) => (n === 1 ? 'once' : `${n} times`)
const daysOf = (w: NonNullable<StockLine['wanted']>) => counted(Math.round(w.overDays), 'day')

/** Why so many are ordered: what is wanted, what is to be left, what is there. */
export function whyWords(l: StockLine, s: Pick<Stock, 'days' | 'sure'>): string {
  return `${wantedWords(l, s)}. ${thereWords(l)}`
}

/** "20.00 EUR (12 Nov)"; the shop's own price of a material has no day. */
export function priceWords(l: StockLine, currency: string, zone: string): string {
  if (l.price === null) return 'no price'
  const from = l.price.on === null ? 'price of the material' : day(`${l.price.on}T12:00:00Z`, zone)
  return `${price(l.price.each, currency)} (${from})`
}

const MOVED: Record<StockMoveLine['kind'], string> = {
  counted: 'counted',
  received: 'received',
  used: 'used',
  scrapped: 'thrown away',
  ordered: 'ordered',
}
export const moveWords = (m: StockMoveLine): string =>
  [`${quantityWords(m.quantity, m.unit)} ${MOVED[m.kind]}`, m.from, m.note].filter(Boolean).join('; ')
export const MOVE_TEXT = MOVED
