/**
 * What a person can choose in an entry, and how much of a thing is taken: known to a page before anything is entered,
 * without the schemas that check it.
 */
import type { TableName } from '#core/intake'

/** What a person can say a number rests on; a part that nobody entered a limit for has a start value besides. */
export const ENTERED_BASES = ['nameplate', 'data sheet', 'material property', 'practice'] as const

/** What a tip can look like. */
export const SHAPES = ['oval', 'flared', 'chipped', 'cracked plating', 'cracked body', 'loose insert'] as const

/** What can be wrong with a print that failed. */
export const SYMPTOMS = [
  'under-extruded',
  'uneven lines',
  'stringing',
  'popping',
  'warped',
  'clog',
  'came loose',
  'layer shift',
  'other',
] as const

interface Happening {
  /** What a form offers, and what a save says. */
  text: string
  /** Where the spool is after it, as the shelf says it; null where it stays where it was. */
  after: string | null
  /** It ends the spool, until something else happens to it or the entry is struck out. */
  ends?: true
}
/** What can happen to a spool. The words of the strip are the kinds themselves, a dash for a space. */
export const SPOOL_HAPPENINGS = {
  'opened': { text: 'opened', after: 'opened' },
  'out': { text: 'out in the room', after: 'out' },
  'in': { text: 'into the dry box', after: 'in the dry box' },
  'loaded': { text: 'loaded on a printer', after: 'on a printer' },
  'dried': { text: 'dried elsewhere', after: 'dried' },
  'weighed': { text: 'weighed', after: null },
  'finished': { text: 'finished', after: 'finished', ends: true },
  'thrown away': { text: 'thrown away', after: 'thrown away', ends: true },
} as const satisfies Record<string, Happening>
export type SpoolKind = keyof typeof SPOOL_HAPPENINGS
export const SPOOL_KINDS = Object.keys(SPOOL_HAPPENINGS) as [SpoolKind, ...SpoolKind[]]

/** Less than this, in g, is the end of a spool: nothing can be printed from it. */
const USED_UP_G = 1
const happening = (kind: SpoolKind): Happening => SPOOL_HAPPENINGS[kind]
/** Whether this was the end of the spool. */
export const endsSpool = (kind: SpoolKind | null): boolean => kind !== null && happening(kind).ends === true
/** Whether a spool is still offered and shown: one rule for every list. */
export const spoolInUse = (s: { leftG: number; place: SpoolKind | null }): boolean =>
  s.leftG > USED_UP_G && !endsSpool(s.place)

/** How the scale of a set-up is found. */
export const SCALE_WAYS = ['stage scale', 'pin', 'two points', 'by hand'] as const
/** The largest crop that is kept, bytes. */
export const CROP_BYTES = 300_000

/** Said of runs that were logged with what is corrected: they are entered again, or stay. */
export const EARLIER_RUNS = { correct: 'earlier-runs:correct', keep: 'earlier-runs:keep' } as const

/** Lines that come along with a question; a longer table is sent ahead in pieces of so many. */
export const PIECE_LINES = 2000
/** Runs at once; a longer table comes in parts. */
export const MOST_LINES = 50_000
/** The most that a table may have: things that a shop has are fewer than what it logs. */
export const mostLines = (table: TableName): number => (table === 'runs' ? MOST_LINES : PIECE_LINES)

/** Nothing is put off for longer, days. */
export const MOST_SNOOZE_DAYS = 90

/** What totals are summed by, and over what time. */
export const TOTALS_BY = ['printer', 'material', 'nozzle', 'person'] as const
export const TOTALS_PER = ['week', 'month'] as const
/** Most weeks or months that are told at once. */
export const MOST_BACK = 60
