/**
 * Upkeep of a printer: what is done to it by hours, kilograms or days, whichever comes first, and when it is due.
 * Intervals to start from are common practice, no source; the maker's manual comes first.
 */
import { TEST_DAYS, TEST_EVERY_DAYS, type Guard, type GuardState } from '../chamber'
import { cautionsNamed, type Caution } from '../cautions'
import { InputError, need, needIfKnown } from '../numeric'
import { counted, listed } from '../words'
import { weightOf, type Due } from './due'

/** What there is to keep up, and what it costs when it is not: the part of `weightOf` that the chance is of. */
export const UPKEEP = {
  'belts': 20,
  'rods and screws': 15,
  'fans': 30,
  'filters': 30,
  'gears': 20,
  'wiring strain': 55,
  'cut-out test': 60,
  'smoke detector test': 60,
  'other': 15,
} as const satisfies Record<string, number>
export type UpkeepKind = keyof typeof UPKEEP
/** Cautions that stand where it is done, by their keys in the catalogue. */
const HAZARDS: Record<UpkeepKind, readonly string[]> = {
  'belts': ['pinch'],
  'rods and screws': ['pinch', 'falling axis'],
  'fans': ['live leads'],
  'filters': ['fibre dust', 'conductive'],
  'gears': ['pinch', 'burns'],
  'wiring strain': ['mains', 'live leads'],
  'cut-out test': ['fire', 'burns'],
  'smoke detector test': [],
  'other': ['pinch'],
}
/** The hazards of doing it. */
export const upkeepHazards = (kind: UpkeepKind): Caution[] => cautionsNamed(...HAZARDS[kind])
/** Kinds of upkeep, as they are stored. */
export const UPKEEP_KINDS = Object.keys(UPKEEP) as [UpkeepKind, ...UpkeepKind[]]

/** By what an interval counts. */
const MEASURES = ['hours', 'kg', 'days'] as const
/** Hours at work, kilograms of filled filament and days that an interval can be. */
export const EVERY = { hours: [1, 20_000], kg: [0.05, 5000], days: TEST_DAYS } as const
export type Every = { readonly [K in keyof typeof EVERY]: number | null }
const UNITS = { hours: 'h at work', kg: 'kg of filled filament', days: 'days' } as const

/** What was found when it was done. */
export const FOUND = ['in order', 'put right', 'replaced', 'needs work'] as const
export type Found = (typeof FOUND)[number]

/** Throws InputError for an interval that is none: each at least its smallest, and one of them there. */
export function checkEvery(every: Every): void {
  for (const k of MEASURES) needIfKnown(k, every[k], EVERY[k][0], EVERY[k][1], UNITS[k])
  if (every.hours === null && every.kg === null && every.days === null)
    throw new InputError('hours', null, 'hours, kilograms or days: one of them at least')
}

export interface PlannedUpkeep {
  kind: UpkeepKind
  name: string
  every: Every
  /** What a test of a cut-out is of; null for everything else. */
  guard: Guard | null
  note: string
}
const every = (hours: number | null, kg: number | null, days: number | null): Every => ({ hours, kg, days })
const planned = (kind: UpkeepKind, name: string, of: Every, note: string): PlannedUpkeep => ({
  kind,
  name,
  every: of,
  note,
  guard: null,
})
/** What a test of a cut-out is called. */
export const guardName = (guard: Guard): string => `Test of the ${guard}`
/** What a printer is usually kept up by; common practice, no source. */
const USUAL: readonly PlannedUpkeep[] = [
  planned('belts', 'Belts: tension, teeth, dust', every(500, null, 180), 'both sides sound alike'),
  planned(
    'rods and screws',
    'Rods and screws: wipe, grease',
    every(300, null, 180),
    'a grease that stands the chamber',
  ),
  planned('fans', 'Fans: dust, bearings, start', every(400, null, null), 'each starts ten times of ten'),
  planned('filters', 'Filters and extraction', every(250, null, 180), 'respirator, no compressed air'),
  planned('gears', 'Extruder gears: teeth, grip', every(null, 10, null), 'filled filament wears them'),
  planned(
    'wiring strain',
    'Wiring: strain relief, chafing',
    every(500, null, 180),
    'power isolated; mains by an electrician',
  ),
  planned('smoke detector test', 'Smoke detector', every(null, null, 30), 'by its button'),
]
/**
 * What a printer is usually kept up by, and a yearly test of each guard that it has.
 *
 * @example
 * usualUpkeep(['bed thermal cut-out']).length // 8
 */
export function usualUpkeep(guards: readonly Guard[]): PlannedUpkeep[] {
  const test = (guard: Guard): PlannedUpkeep => ({
    kind: 'cut-out test',
    name: guardName(guard),
    every: every(null, null, TEST_EVERY_DAYS),
    guard,
    note: 'and after a change of its heater or sensor',
  })
  return [...USUAL, ...guards.map(test)]
}

/** How far a task has come since it was done, or planned. */
export interface UpkeepStand {
  printer: string
  name: string
  kind: UpkeepKind
  every: Every
  /** Since then: hours at work, kg of filled filament, days. */
  since: { hours: number; kg: number; days: number }
  /** Runs since then of which nobody knows how long they took. */
  withoutHours: number
  /** Day of the last time, in words; null: never, and it counts from when it was planned. */
  doneOn: string | null
  /** What was found then. */
  found: Found | null
  says: string
}

/** From this share of its interval on it is said that it comes up. */
const SOON = 0.9

/**
 * The share of its interval that has gone, by what has gone furthest: 1 is due. Hours, kg and days 0 to 1e7. Throws
 * InputError.
 *
 * @example
 * upkeepShare({ hours: 100, kg: null, days: 10 }, { hours: 50, kg: 3, days: 9 }) // 0.9
 */
export function upkeepShare(of: Every, since: UpkeepStand['since']): number {
  checkEvery(of)
  for (const k of MEASURES) needIfKnown(`since.${k}`, since[k], 0, 1e7)
  return Math.max(...MEASURES.map(k => (of[k] === null ? 0 : since[k] / of[k])))
}

const atUpkeep = (printer: string) =>
  ({ about: null, station: 'change', open: `/change/upkeep?printer=${encodeURIComponent(printer)}` }) as const

/**
 * In how many days it is due, by the calendar and by how much the printer did a day of late; 0 when it is due, null
 * where nothing tells. `perDay` in h and kg, 0 to 1e4. Throws InputError.
 *
 * @example
 * comesInDays({ hours: 100, kg: null, days: 90 }, { hours: 50, kg: 0, days: 30 }, { hours: 10, kg: 0 }) // 5
 */
export function comesInDays(
  of: Every,
  since: UpkeepStand['since'],
  perDay: { hours: number; kg: number },
): number | null {
  checkEvery(of)
  for (const k of ['hours', 'kg'] as const) needIfKnown(`perDay.${k}`, perDay[k], 0, 1e4)
  for (const k of MEASURES) needIfKnown(`since.${k}`, since[k], 0, 1e7)
  const rate = { ...perDay, days: 1 }
  const each = MEASURES.flatMap(k => {
    const left = of[k] === null ? null : of[k] - since[k]
    if (left === null || (left > 0 && rate[k] <= 0)) return []
    return [left <= 0 ? 0 : left / rate[k]]
  })
  return each.length === 0 ? null : Math.min(...each)
}

/** "512 h at work, every 500". */
function goneWords({ every: of, since, withoutHours }: UpkeepStand): string {
  const each = MEASURES.filter(k => of[k] !== null)
  const most = each.reduce((a, b) => (since[b] / of[b]! > since[a] / of[a]! ? b : a))
  const says = (v: number) => (most === 'kg' ? v.toFixed(1) : String(Math.round(v)))
  const more = most === 'hours' && withoutHours > 0 ? ` and ${counted(withoutHours, 'run')} of unknown length` : ''
  return `${says(since[most])} ${UNITS[most]}${more}, every ${of[most]}`
}

/**
 * What is due of one task at a printer; null while nothing is. What was found to need work is due until it is put
 * right. Ranges as in `upkeepShare`.
 */
export function dueOfUpkeep(t: UpkeepStand): Due | null {
  const share = upkeepShare(t.every, t.since)
  need('withoutHours', t.withoutHours, 0, 1e9)
  const costs = UPKEEP[t.kind]
  const at = atUpkeep(t.printer)
  if (t.found === 'needs work') {
    const says = t.says === '' ? '' : `: ${t.says}`
    return {
      ...at,
      mark: 'look',
      reason: `${t.name} needs work, found on ${t.doneOn}${says}.`,
      action: 'Put it right, and log it',
      of: t.name,
      weight: weightOf(30, 1, costs),
    }
  }
  if (share < SOON) return null
  const never = t.doneOn === null ? ' since it was planned; never logged' : ''
  // as likely as not at twice its interval
  const chance = 1 - 2 ** -(share / 2)
  return {
    ...at,
    mark: share >= 1 ? 'look' : 'fine',
    reason: `${t.name}: ${goneWords(t)}${never}.`,
    action: share >= 1 ? 'Do it, and say what was found' : 'Comes up soon',
    of: t.name,
    weight: share >= 1 ? weightOf(22, chance, costs) : weightOf(8),
  }
}

/** Guards of a printer that nobody has tested, as one line; null where there is none. */
export function dueOfUntested(printer: string, guards: readonly Guard[]): Due | null {
  if (guards.length === 0) return null
  return {
    ...atUpkeep(printer),
    mark: 'look',
    reason: `Nobody has tested the ${listed([...guards], 'and')}.`,
    action: 'Test them one by one, with somebody beside it',
    weight: weightOf(25, 0.6, UPKEEP['cut-out test']),
  }
}
/** A thing that is not due yet, and comes in so many days, 0 to 1e5. Throws InputError. */
export function dueOfComing(printer: string, name: string, inDays: number): Due {
  need('inDays', inDays, 0, 1e5, 'days')
  return {
    ...atUpkeep(printer),
    mark: 'fine',
    reason: `${name} comes in about ${Math.ceil(inDays)} ${Math.ceil(inDays) === 1 ? 'day' : 'days'}.`,
    action: 'Comes up soon',
    of: name,
    weight: weightOf(5),
  }
}
/** A printer for which no upkeep is planned at all. */
export const dueOfNoUpkeep = (printer: string): Due => ({
  ...atUpkeep(printer),
  mark: 'look',
  reason: 'No upkeep is planned here.',
  action: 'Plan what is usual',
  weight: weightOf(12),
})

/**
 * What is due of a guard of a printer, by how it stands (`guardState`); null while it is proved. `days` since its last
 * test, from −1 as clocks differ by minutes, null where there was none; `every` how often it is wanted, days.
 */
export function dueOfGuard(
  printer: string,
  guard: Guard,
  state: GuardState,
  { days, every: wanted }: { days: number | null; every: number },
): Due | null {
  needIfKnown('days', days, -1, 1e6, 'days')
  need('every', wanted, ...EVERY.days, 'days')
  const at = { ...atUpkeep(printer), action: 'Test it, with somebody beside it', of: guard }
  const costs = UPKEEP['cut-out test']
  switch (state) {
    case 'proved':
      return null
    case 'failed':
      return {
        ...at,
        mark: 'stop',
        reason: `The ${guard} did not trip: do not run it unattended.`,
        action: 'Mend it, and test it again',
        weight: weightOf(93),
      }
    case 'changed since':
      return {
        ...at,
        mark: 'look',
        reason: `The ${guard} is not proved: its heater or sensor was changed since.`,
        weight: weightOf(25, 0.8, costs),
      }
    case 'never tested':
      return {
        ...at,
        mark: 'look',
        reason: `Nobody has tested the ${guard}.`,
        weight: weightOf(25, 0.6, costs),
      }
    case 'due again':
      return {
        ...at,
        mark: 'look',
        reason: `The ${guard} was tested ${Math.round(days ?? 0)} days ago; every ${wanted} is wanted.`,
        weight: weightOf(22, 1 - 2 ** -(Math.max(0, days ?? 0) / wanted / 2), costs),
      }
  }
}
