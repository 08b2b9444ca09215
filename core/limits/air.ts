/**
 * The air at a place of a chamber: the one function that everybody asks. Heated by the bed, the air at a place is
 * θ = (T − room)/(bed − room) of the way from the room to the bed; heated by a chamber heater it is its setpoint plus
 * an offset. What is known comes from sources of different trust, each for a place and a state of lid and vent; a
 * better source at another place shifts what is known here by the difference it makes there. Shares 0 to 1.2, offsets
 * and u in °C, u standard (k = 1). Start values are common practice, no source.
 */
import { InputError, need, needEach, needIfKnown } from '../numeric'
import type { Part } from './types'

/** Places of a chamber that have air of their own: near bed and head, near the top, the electronics bay. */
export const AIR_PLACES = ['low', 'high', 'bay'] as const
export type AirPlace = (typeof AIR_PLACES)[number]

/** Where knowledge of the air comes from, the most trusted first. */
export const AIR_TRUST = ['survey', 'warm-up record', 'entered', 'start value', 'practice'] as const
export type AirTrust = (typeof AIR_TRUST)[number]

/** How a lid is: on, on with its vent open, raised on a riser, off. */
export const OPENINGS = ['shut', 'vent open', 'raised', 'off'] as const
export type Opening = (typeof OPENINGS)[number]

/** How the lid of a printer is; without one it is off. */
export const openingOf = (lid: Pick<Part, 'details'> | null | undefined): Opening =>
  lid ? (lid.details.opening ?? 'shut') : 'off'

/**
 * One thing that is known: a share of the way from room to bed (`bed`), or °C over the heater's setpoint (`heater`).
 */
export interface AirSource {
  trust: AirTrust
  by: 'bed' | 'heater'
  opening: Opening
  /** Whether a fan moves the air; null where it makes no difference or was not noted. */
  fan: boolean | null
  place: AirPlace
  value: number
  u: number
  /** In words: "its warm-up of 3 Nov near the top". */
  from: string
}
/** What is taken for one place: the value with its u, and on what it rests. */
export type AirAt = Pick<AirSource, 'value' | 'u' | 'trust' | 'from'>
export type AirMap = Record<'bed' | 'heater', Record<AirPlace, AirAt>>

/** Standard uncertainty of practice: share of the way from room to bed, and °C over a heater's setpoint. */
const PRACTICE_U = { bed: 0.08, heater: 3 }
/** Of a person's own numbers when they do not say; of a warm-up at its own place; of a difference between places. */
const ENTERED_U = { bed: 0.05, heater: 2 }
const RECORD_U = { bed: 0.02, heater: 1.5 }
/** Standard uncertainty of the part of a rise that a record did not see, as a share of it. */
const UNSEEN_U = 0.3
const SHIFT_U = { bed: 0.05, heater: 2.5 }

type Starts = Record<Opening | 'heater', Record<AirPlace, number>>
const places = (low: number, high: number, bay: number) => ({ low, high, bay })
/** A lined enclosure by practice: the air near bed and head is the hotter one. */
export const PRACTICE_AIR: Starts = {
  'shut': places(0.62, 0.52, 0.2),
  'vent open': places(0.5, 0.42, 0.18),
  'raised': places(0.4, 0.3, 0.12),
  'off': places(0.18, 0.12, 0.08),
  'heater': places(3, -4, -40),
}
/** An open kit of panels leaks more. */
export const KIT_AIR: Starts = {
  'shut': places(0.5, 0.4, 0.2),
  'vent open': places(0.42, 0.34, 0.18),
  'raised': places(0.34, 0.26, 0.12),
  'off': places(0.15, 0.1, 0.08),
  'heater': places(2, -6, -40),
}
/** A machine built hot, its electronics outside. */
export const HOT_AIR: Starts = { ...PRACTICE_AIR, shut: places(0.6, 0.5, 0.1), off: places(0.2, 0.15, 0.05) }

const rank = (t: AirTrust) => AIR_TRUST.indexOf(t)

function startSources(starts: Starts, trust: AirTrust, from: string): AirSource[] {
  return AIR_PLACES.flatMap(place => [
    ...OPENINGS.map(opening => ({
      trust,
      by: 'bed' as const,
      opening,
      fan: null,
      place,
      value: starts[opening][place],
      u: PRACTICE_U.bed,
      from,
    })),
    {
      trust,
      by: 'heater' as const,
      opening: 'shut' as const,
      fan: null,
      place,
      value: starts.heater[place],
      u: PRACTICE_U.heater,
      from,
    },
  ])
}
const PRACTICE = startSources(PRACTICE_AIR, 'practice', 'practice')
const STARTS = new Map<Starts, AirSource[]>(
  [KIT_AIR, HOT_AIR].map(s => [s, startSources(s, 'start value', 'the start value of such an enclosure')]),
)

/** What a person entered with the enclosure. */
function entered(e: Part): AirSource[] {
  const d = e.details
  const out: AirSource[] = []
  const add = (by: 'bed' | 'heater', opening: Opening, place: AirPlace, value: number | undefined) => {
    if (value === undefined) return
    const u = (by === 'bed' ? d.thetaU : d.offsetU) ?? ENTERED_U[by]
    out.push({ trust: 'entered', by, opening, fan: null, place, value, u, from: 'the map entered with the enclosure' })
  }
  add('bed', 'shut', 'low', d.thetaLow)
  add('bed', 'shut', 'high', d.thetaHigh)
  add('bed', 'shut', 'bay', d.thetaBay)
  add('bed', 'off', 'low', d.openThetaLow)
  add('bed', 'off', 'high', d.openThetaHigh)
  add('heater', 'shut', 'low', d.offsetLow)
  add('heater', 'shut', 'high', d.offsetHigh)
  add('heater', 'shut', 'bay', d.offsetBay)
  return out
}

/** All that is known of the air in an enclosure: measured, entered, its start values, practice. */
export function airSources(
  enclosure: Part,
  starts: Starts | undefined,
  measured: readonly AirSource[],
): readonly AirSource[] {
  const own = starts === undefined ? undefined : STARTS.get(starts)
  return [...measured, ...entered(enclosure), ...(own ?? []), ...PRACTICE]
}

/** What the air of any chamber may be: a share of the way from room to bed, and °C over a heater's setpoint. */
export const AIR_RANGES = { bed: [0, 1.2], heater: [-150, 100] } as const

/** Refuses what is no source: values outside any chamber. Throws InputError. */
export function checkSource(s: AirSource): void {
  const [least, most] = AIR_RANGES[s.by]
  need('value', s.value, least, most, s.by === 'bed' ? '' : '°C')
  need('u', s.u, 0, s.by === 'bed' ? 1 : 100)
}

/**
 * What to take for the air at a place, from all that is known: the most trusted source for this place, lid and fan;
 * shifted by a better one at another place. Null when nothing is known. Throws InputError for a value outside its
 * range.
 *
 * @example
 * const map = airSources(partOf('enclosure'), undefined, [])
 * airAt(map, 'bed', 'low', 'shut').value // 0.62 (of the way from the room to the bed)
 */
export function airAt(
  sources: readonly AirSource[],
  by: 'bed' | 'heater',
  place: AirPlace,
  opening: Opening,
  fan: boolean | null = null,
): AirAt | null {
  if (!AIR_PLACES.includes(place)) throw new InputError('place', place, AIR_PLACES.join(', '))
  const here = sources.filter(
    s => s.by === by && s.opening === opening && (s.fan === null || fan === null || s.fan === fan),
  )
  here.forEach(checkSource)
  const best = (of: readonly AirSource[]) =>
    of.reduce<AirSource | null>((b, s) => (b === null || rank(s.trust) < rank(b.trust) ? s : b), null)
  const at = best(here.filter(s => s.place === place))
  if (!at) return null
  const other = best(here.filter(s => s.place !== place && s.place !== 'bay' && rank(s.trust) < rank(at.trust)))
  const pair = other && here.find(s => s.place === other.place && s.trust === at.trust)
  if (!other || !pair) return at
  // the bay is a room of its own: warmer when the chamber is, by as much of the way and not by as many degrees
  const inBay = by === 'bed' ? (at.value * other.value) / pair.value : at.value
  return {
    value: place === 'bay' ? inBay : at.value + (other.value - pair.value),
    u: Math.min(at.u, Math.hypot(other.u, SHIFT_U[by])),
    trust: other.trust,
    from: `${other.from}, moved here as practice goes`,
  }
}

/** The whole map for a lid: every place, heated by the bed and by a heater. Practice makes it complete. */
export function airMap(sources: readonly AirSource[], opening: Opening): AirMap {
  // with the lid away a heater does not hold; its offsets are those of the shut box
  const of = (by: 'bed' | 'heater', place: AirPlace): AirAt =>
    by === 'heater' ? airAt(sources, by, place, 'shut')! : opened(sources, place, opening)
  return {
    bed: { low: of('bed', 'low'), high: of('bed', 'high'), bay: of('bed', 'bay') },
    heater: { low: of('heater', 'low'), high: of('heater', 'high'), bay: of('heater', 'bay') },
  }
}

/**
 * Air heated by the bed with the lid opened: as measured so; else what is known of the shut box, less by what opening
 * it takes off by practice.
 */
function opened(sources: readonly AirSource[], place: AirPlace, opening: Opening): AirAt {
  const at = airAt(sources, 'bed', place, opening)!
  if (opening === 'shut' || rank(at.trust) < rank('start value')) return at
  const shut = airAt(sources, 'bed', place, 'shut')!
  const usual = sources.find(s => s.by === 'bed' && s.place === place && s.opening === 'shut' && s.trust === at.trust)!
  if (rank(shut.trust) >= rank('start value')) return at
  return { ...at, value: (at.value * shut.value) / usual.value, from: `${shut.from}, opened as practice goes` }
}

/** The coolest place of the build: a filament's need is judged there. */
export const coolest = (m: AirMap['bed']): AirPlace => (m.low.value < m.high.value ? 'low' : 'high')

/** A bed that is less warmer than the room tells nothing of the air, °C. */
export const LEAST_RISE_C = 10

/**
 * A warm-up as a source: what the air came to at its place, less its room, over what heated it. Null when it was hardly
 * heated. °C.
 */
export function recordSource(r: {
  place: AirPlace
  opening: Opening
  finalC: number
  /** How much of the rise was seen; the rest is extrapolated. */
  reachedShare?: number
  bedC: number
  roomC: number
  chamberSetC: number | null
  from: string
}): AirSource | null {
  needEach(r, ['finalC', 'bedC', 'roomC', 'chamberSetC'], -1e6, 1e6, '°C')
  needIfKnown('reachedShare', r.reachedShare, 0, 1.0001)
  const heater = r.chamberSetC !== null
  if (!heater && r.bedC - r.roomC < LEAST_RISE_C) return null
  const by = heater ? 'heater' : 'bed'
  const value = heater ? r.finalC - r.chamberSetC! : (r.finalC - r.roomC) / (r.bedC - r.roomC)
  const [least, most] = AIR_RANGES[by]
  if (value < least || value > most) return null
  const { place, opening, from } = r
  const unseen = Math.max(0, 1 - (r.reachedShare ?? 1)) * (heater ? r.finalC - r.roomC : value)
  const u = Math.hypot(RECORD_U[by], UNSEEN_U * unseen)
  return { trust: 'warm-up record', by, opening, fan: null, place, value, u, from }
}
