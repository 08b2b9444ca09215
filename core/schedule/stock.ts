/** What is due of what stands on the shelf: too little of it. Common practice, no source. */
import { needOne } from '../numeric'
import { quantityWords, shortOf, toOrder, type Stand, type StockUnit } from '../stock'
import { weightOf, type Due } from './due'

export interface ShelfFacts extends Omit<Stand, 'need'> {
  id: number
  name: string
  unit: StockUnit
}

/** Less than the minimum, or a book that says less than nothing; `fine` once it is ordered; null with enough. */
export function dueOfStock(s: ShelfFacts): Due | null {
  needOne('unit', s.unit, ['pieces', 'g', 'm'])
  const short = shortOf(s)
  if (short === null) return null
  const at = { about: s.name, station: 'stores', open: `/stores/stock?show=${s.id}`, of: `stock ${s.id}` } as const
  const have = quantityWords(s.onHand, s.unit)
  if (s.onHand < 0)
    return {
      ...at,
      mark: 'look',
      reason: `The book says ${have}: more was taken than was counted.`,
      action: 'Count it',
      weight: weightOf(12, 0.5, 10),
    }
  const least = quantityWords(s.minimum!, s.unit)
  const there = s.onHand === 0 ? 'None is there' : `Only ${have} there`
  if (short === 'ordered')
    return {
      ...at,
      mark: 'fine',
      reason: `${there}, ${quantityWords(s.onOrder, s.unit)} ordered; the minimum is ${least}.`,
      action: 'Wait for the order',
      weight: weightOf(3),
    }
  return {
    ...at,
    mark: 'look',
    reason: `${there}; the minimum is ${least}.`,
    action: `Order at least ${quantityWords(toOrder({ ...s, need: null }), s.unit)}`,
    weight: s.onHand === 0 ? weightOf(16, 0.6, 30) : weightOf(10, 0.3, 30),
  }
}
