/** What the rules of the strip are made of: words, numbers with their units, and what a line was understood as. */
import type { EntryPath } from '#shared/api'
import type { Shop } from '#shared/answers/shop'
import { SPOOL_KINDS } from '#shared/entries/spools'

export type StripShop = Pick<Shop, 'printers' | 'nozzles' | 'spools' | 'materials'>

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
export const PINS = new RegExp(`^${N}[-\u2013]${N}$`)
export const VALUE = new RegExp(`^${N}(?:\u00b1|\\+-|\\+/-)${N}$`)
export const GO = new RegExp(`^>${N}$`)
export const NO_GO = new RegExp(`^<${N}$`)
export const PLAIN = new RegExp(`^${N}(?:mm)?$`)
export const AMOUNT = new RegExp(`^\\+?${N}(g|kg|m)$`, 'i')
export const HOURS = new RegExp(`^${N}h$`, 'i')
export const CELSIUS = new RegExp(`^${N}(?:c|\u00b0c)$`, 'i')
/** A name as one word of the strip. */
export const dashed = (name: string): string => name.replaceAll(' ', '-')
/** The kinds of what happens to a spool as words of the strip. */
export const SPOOL_WORDS = SPOOL_KINDS.map(dashed)

export const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase()
export const unread = (w: Word, why: string): Understood => ({ kind: 'unread', word: w.text, from: w.from, why })
