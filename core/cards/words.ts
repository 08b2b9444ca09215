/** A card in words: one set for the materials page, Equip and the check. */
import { need, needEach } from '../numeric'
import { counted, listed } from '../words'
import { CARD_FIELDS, type CardKey, type CardValue, type Compared } from './card'

const number = (key: CardKey, v: number) => String(Number(v.toFixed(CARD_FIELDS[key].digits)))

/**
 * A value with its unit.
 *
 * @example
 * valueWords('nozzleC', 280) // "280 °C"
 */
export function valueWords(key: CardKey, value: number): string {
  need(key, value, -1e9, 1e9)
  return `${number(key, value)} ${CARD_FIELDS[key].unit}`
}

/** What the runs used, where they did not all use the same. */
export function spreadWords(v: CardValue): string {
  need('value', v.value, -1e9, 1e9)
  if (v.found) needEach(v.found, ['low', 'middle', 'high'], -1e9, 1e9)
  const f = v.found
  if (f === null) return ''
  const [low, high] = [number(v.key, f.low), number(v.key, f.high)]
  const { unit } = CARD_FIELDS[v.key]
  const used = low === high ? `${low} ${unit}` : `${low} to ${high} ${unit}`
  if (v.by === 'hand') return `runs used ${used}`
  return low === high ? '' : used
}

/**
 * "12 good, 1 failed".
 *
 * @example
 * countWords(12, 1) // "12 good runs, 1 failed"
 */
export function countWords(good: number, failed: number): string {
  need('good', good, 0, 1e9)
  need('failed', failed, 0, 1e9)
  return `${counted(good, 'good run')}, ${failed === 0 ? 'none' : failed} failed`
}

/** Where a job is not as it worked: "nozzle 262 °C, where 280 °C worked". */
export function differsWords(c: Compared): string {
  return listed(
    c.differs.map(d => {
      needEach(d, ['job', 'low', 'high'], -1e9, 1e9)
      const low = number(d.key, d.low)
      const high = number(d.key, d.high)
      const worked = low === high ? low : `${low} to ${high}`
      const { label, unit } = CARD_FIELDS[d.key]
      return `${label.toLowerCase()} ${valueWords(d.key, d.job)}, where ${worked} ${unit} worked`
    }),
    'and',
  )
}
