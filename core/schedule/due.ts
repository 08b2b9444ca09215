/** What is due: why, what to do about it, where, and how much it matters. */
import { CHANCE, need } from '../numeric'

/** Any mass, degree or time of a log: only what is no number is refused, so that no record takes a list down. */
export const ANY = [-1e15, 1e15] as const

/** Where a thing is done: the stations of the rail, in their order. */
export const STATIONS = ['floor', 'equip', 'prepare', 'run', 'inspect', 'change', 'verify', 'stores'] as const
export type Station = (typeof STATIONS)[number]

export interface Due {
  /** `stop`: not before it is done; `look`: when a person comes by; `fine`: under way, to know. */
  mark: 'fine' | 'look' | 'stop'
  /** Tag of the nozzle or spool that it is about; null when it is the printer. */
  about: string | null
  /** What is so, as a sentence with its numbers. */
  reason: string
  /** The one thing to do. */
  action: string
  /** Where it is done, and what is opened there. */
  station: Station
  open: string
  /** Tells it from another of the same action at the same place: which task, which sensor. */
  of?: string
  /** What it tells of has happened: once somebody has looked, nothing is left to do but not to repeat it. */
  isOver?: boolean
  /** 0 to 100; see `weightOf`. */
  weight: number
}

/**
 * How much a due matters, 0 to 100: what being due at all is worth, and on top the chance that it goes wrong times what
 * that costs. All three are chosen so that what can hurt or break comes first, then what spoils the next job, then what
 * can wait; common practice, no source. `chance` 0 to 1, the others 0 to 100 and together at most 100. Throws
 * InputError.
 */
export function weightOf(atAll: number, chance = 0, consequence = 0): number {
  need('atAll', atAll, 0, 100)
  need('chance', chance, ...CHANCE)
  need('consequence', consequence, 0, 100)
  return Math.min(100, Math.max(0, atAll + chance * consequence))
}

/** Names what is due whatever its numbers are today, so that it can be put off and found again. */
export const keyOf = (d: Pick<Due, 'about' | 'open' | 'action' | 'of'>, printer: string | null): string =>
  [printer ?? '', d.about ?? '', d.open, d.of ?? d.action].join(' | ')

/** Whether it may be put off: what stops a printer may not, unless it tells of what is over. */
export const mayBePutOff = (d: Pick<Due, 'mark' | 'isOver'>): boolean => d.mark !== 'stop' || d.isOver === true

/** Whether it is put off, by the keys of what is: what may not be never is. */
export const isPutOff = (
  d: Pick<Due, 'about' | 'open' | 'action' | 'of' | 'mark' | 'isOver'>,
  printer: string | null,
  putOff: { has: (key: string) => boolean },
): boolean => mayBePutOff(d) && putOff.has(keyOf(d, printer))

/** The most pressing first. */
export const byWeight = (a: { weight: number }, b: { weight: number }): number => b.weight - a.weight
