/** Tags in sequence. */

import { need } from '../numeric'

const MOST_TAGS = 1e5
/** Where the tags of a shop begin that has none yet; common practice, no source. */
export const FIRST_TAG = { nozzles: 'N-001', spools: 'S-01' } as const

/**
 * The next tags after those there are: the same letters and as many digits as the highest has. `first` is where a
 * sequence begins that has none yet; `count` is 0 to 100 000. Tags are compared without case.
 *
 * @example
 * nextTags(['N-009', 'N-012'], 'N-001', 2) // ["N-013","N-014"]
 */
export function nextTags(known: readonly string[], first: string, count: number): string[] {
  need('count', count, 0, MOST_TAGS)
  const all = new Set(known.map(t => t.toLowerCase()))
  const letters = (tag: string) => /^(.*?)(\d+)$/.exec(tag)
  const start = letters(first)!
  const mine = known.map(letters).filter(m => m !== null && m[1]!.toLowerCase() === start[1]!.toLowerCase())
  const width = Math.max(start[2]!.length, ...mine.map(m => m![2]!.length))
  const out: string[] = []
  let n = mine.reduce((most, m) => Math.max(most, Number(m![2])), Number(start[2]) - 1)
  while (out.length < count) {
    n += 1
    const tag = start[1]! + String(n).padStart(width, '0')
    if (!all.has(tag.toLowerCase())) out.push(tag)
  }
  return out
}

/** The most of one kind that are entered at once. */
export const MOST_ALIKE = 50

/**
 * Tags of so many alike: the first as it is given, and those after it by its number. `count` is 1 to 50; null where it
 * is more than one and the tag ends in no number.
 *
 * @example
 * tagsFrom('N-041', 3) // ["N-041","N-042","N-043"]
 */
export function tagsFrom(first: string, count: number): string[] | null {
  need('count', count, 1, MOST_ALIKE)
  if (count === 1) return [first]
  return /\d$/.test(first) ? nextTags([], first, count) : null
}
