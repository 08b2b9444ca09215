/** A card in words: one set for the materials page, Equip and the check. */
import { need, needEach } from '../numeric'
import { counted, listed } from '../words'
import { ANY, CARD_FIELDS, RUNS, type CardKey, type CardValue, type Compared } from './card'

const number = (key: CardKey, v: number) => String(Number(v.toFixed(CARD_FIELDS[key].digits)))

/**
 * A value with its unit.
 *
 * @example
 * valueWords('nozzleC', 280) // "280 °C"
 */
export function valueWords(key: CardKey, value: number): string {
  need(key, value, ...ANY)
  return `${number(key, value)} ${CARD_FIELDS[key].unit}`
}

/** From low to high with one unit; one number where both are said alike. */
function spanWords(key: CardKey, { low, high }: { low: number; high: number }): string {
  const [from, to] = [number(key, low), number(key, high)]
  return from === to ? valueWords(key, low) : `${from} to ${valueWords(key, high)}`
}

/** What the runs used, where they did not all use the same. */
export function spreadWords(v: CardValue): string {
  need('value', v.value, ...ANY)
  if (v.found) needEach(v.found, ['low', 'middle', 'high'], ...ANY)
  const f = v.found
  if (f === null) return ''
  const used = spanWords(v.key, f)
  if (v.by === 'hand') return `runs used ${used}`
  return used === valueWords(v.key, f.low) ? '' : used
}

/**
 * "12 good, 1 failed".
 *
 * @example
 * countWords(12, 1) // "12 good runs, 1 failed"
 */
export function countWords(good: number, failed: number): string {
  need('good', good, ...RUNS)
  need('failed', failed, ...RUNS)
  return `${counted(good, 'good run')}, ${failed === 0 ? 'none' : failed} failed`
}

/** Where a job is not as it worked: "nozzle 262 °C, where 280 °C worked". */
export function differsWords(c: Compared): string {
  return listed(
    c.differs.map(d => {
      needEach(d, ['job', 'low', 'high'], ...ANY)
      const label = CARD_FIELDS[d.key].label.toLowerCase()
      return `${label} ${valueWords(d.key, d.job)}, where ${spanWords(d.key, d)} worked`
    }),
    'and',
  )
}
