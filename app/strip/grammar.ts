/** What the rules of the strip are made of: words, numbers with their units, and what a line was understood as. */
import type { EntryPath } from '#shared/api'
import type { KnownTags, Shop } from '#shared/answers/shop'
import { SPOOL_KINDS } from '#shared/choices'

export type StripShop = Pick<Shop, 'printers' | 'nozzles' | 'hotends' | 'spools' | 'materials' | 'studyTurn'> & {
  known: KnownTags
}

export type Understood =
  | { kind: 'empty' }
  | { kind: 'entry'; says: string; route: EntryPath; body: Record<string, unknown> }
  | { kind: 'open'; says: string; path: string }
  /** Fine so far, but something is still needed. */
  | { kind: 'more'; says: string }
  /** `word` could not be read; it stands at `from` in the line. */
  | { kind: 'unread'; word: string; from: number; why: string }

export interface Word {
  text: string
  from: number
}

export const number = (t: string) => Number(t.replace(',', '.'))
const N = '(\\d+(?:[.,]\\d+)?)'
const DASH = '[-\u2013]'
const GIVE_OR_TAKE = '(?:\u00b1|\\+-|\\+/-)'
/** A number and what belongs to it are one word, also with spaces between: "812 g", "+ 40 g", "0.43 - 0.44". */
const WITH_UNIT = `(?:\\+\\s?)?${N}\\s+(?:kg|g|mm|m|h|\u00b0?c)(?=\\s|$)`
const TWO_NUMBERS = `${N}\\s*(?:${DASH}|${GIVE_OR_TAKE})\\s*${N}(?=\\s|$)`
const WORD = new RegExp(`${WITH_UNIT}|${TWO_NUMBERS}|[<>]\\s+${N}(?=\\s|$)|\\S+`, 'gi')
export const wordsOf = (line: string): Word[] => [...line.matchAll(WORD)].map(m => ({ text: m[0], from: m.index }))
export const PINS = new RegExp(`^${N}\\s*${DASH}\\s*${N}$`)
export const VALUE = new RegExp(`^${N}\\s*${GIVE_OR_TAKE}\\s*${N}$`)
export const GO = new RegExp(`^>\\s*${N}$`)
export const NO_GO = new RegExp(`^<\\s*${N}$`)
export const PLAIN = new RegExp(`^${N}\\s*(?:mm)?$`)
export const AMOUNT = new RegExp(`^(?:\\+\\s?)?${N}\\s*(g|kg|m)$`, 'i')
export const HOURS = new RegExp(`^${N}\\s*h$`, 'i')
export const CELSIUS = new RegExp(`^${N}\\s*(?:c|\u00b0c)$`, 'i')
/** A name as one word of the strip. */
export const dashed = (name: string): string => name.replaceAll(' ', '-')
/** The kinds of what happens to a spool as words of the strip. */
export const SPOOL_WORDS = SPOOL_KINDS.map(dashed)

export const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase()
export const unread = (w: Word, why: string): Understood => ({ kind: 'unread', word: w.text, from: w.from, why })
