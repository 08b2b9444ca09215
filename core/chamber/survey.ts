/**
 * A survey of a chamber: probes at several places and one in the room, read together until they are steady. Each place
 * comes to a share θ = (T − room)/(bed − room) where the bed warms the air, or to °C over the setpoint where a heater
 * does; both hold at another setting as long as lid, vent, fan and stack stay. °C, s, mm; u standard (k = 1). Source of
 * θ: common practice, no source.
 */
import { AIR_PLACES, AIR_RANGES, LEAST_RISE_C, type AirPlace, type AirSource, type Opening } from '../limits'
import { InputError, need, needIfKnown, ONE_SIDED_90 } from '../numeric'
import { evenness, POSITION_MM, type Evenness } from './gradient'
import { checkReads, checkTimes, lastOf, restOf, TAU_S, type Read, type Steady } from './steady'
import { CHAMBER_C } from './warm-up'

export interface SurveyProbe {
  name: string
  place: AirPlace
  /** From the left, the front and the bed, mm. */
  xMm: number
  yMm: number
  zMm: number
  readC: readonly Read[]
}
/** The room inside a chamber, mm. */
export interface ChamberSize {
  widthMm: number
  depthMm: number
  heightMm: number
}
/** Any chamber's width, depth and height, mm. */
export const SIZE_MM = [50, 2000] as const

/** How the chamber was while it was read. */
export interface SurveyState {
  opening: Opening
  /** Null: not noted. */
  fan: boolean | null
  /** How far the door stood open, mm. */
  gapMm: number
}
/**
 * Whether a survey says what the air is now: nothing that makes the air was `changed` since, its door was shut, and the
 * lid was as it is. One rule for the certificate and for what is due.
 */
export const surveyHolds = (s: SurveyState, changed: readonly string[], opening: Opening): boolean =>
  changed.length === 0 && s.gapMm === 0 && s.opening === opening

export interface Survey {
  timesS: readonly number[]
  roomC: readonly Read[]
  probes: readonly SurveyProbe[]
  /** As they were set, in the same kind of degrees as what a prediction is made for: both shown, or both corrected. */
  bedC: number
  chamberSetC: number | null
  tauS: number
  /** Every probe was kept from seeing the bed. */
  shielded: boolean
  /** Standard uncertainty of a probe, °C. */
  probeUC: number
}

/** What a probe may be known to, standard, °C; a thermocouple of class 2 with its meter is about 1.5. */
export const PROBE_UC = [0.05, 10] as const
/** Probes of one survey, and times that they are read at. */
export const MOST_PROBES = 12
/** Times at which a survey is read. */
export const MOST_READINGS = 2000
/** Any room, °C. */
export const ROOM_C = [-20, 60] as const
/** How far a door may stand open, mm. */
export const GAP_MM = [0, 1000] as const
/** A bed while a survey is read, °C. */
export const SURVEY_BED_C = [0, 300] as const
/** A chamber heater while a survey is read, °C. */
export const SURVEY_CHAMBER_C = [20, 250] as const

/**
 * Standard part of the way to the bed that a probe in sight of it may read too hot: radiation against the film of air
 * round a probe. Common practice, no source.
 */
const SIGHT_U = 0.08

export interface ProbeFound {
  probe: SurveyProbe
  steady: Steady
  /** Share of the way from room to bed, or °C over the setpoint; null where it does not count. */
  value: number | null
  u: number
  /** It is steady and yet no air that can be: warmer than the bed, or colder than the room. */
  odd: boolean
}
export interface SurveyFound {
  by: 'bed' | 'heater'
  roomC: number
  probes: ProbeFound[]
  /** Every probe counts. */
  whole: boolean
  evenness: Evenness
}

/**
 * What a survey comes to. A probe that still moves, that died, or of which nobody can tell, counts for nothing and is
 * named; the others stand. Throws InputError for numbers outside their range, a room that nobody read, and a bed that
 * is hardly warmer than the room.
 */
export function surveyFound(s: Survey): SurveyFound {
  checkSurvey(s)
  const by = s.chamberSetC === null ? 'bed' : 'heater'
  const room = lastOf(s.timesS, s.roomC, s.tauS)
  if (room.length === 0) throw new InputError('roomC', 'nothing', 'a reading of the room at the same time')
  const roomC = room.reduce((a, r) => a + r.c, 0) / room.length
  need('roomC', roomC, ...ROOM_C, '°C')
  const riseC = s.bedC - roomC
  if (by === 'bed' && riseC < LEAST_RISE_C)
    throw new InputError('bedC', s.bedC, `at least ${LEAST_RISE_C} °C over the room of ${roomC.toFixed(1)} °C`)
  const probes = s.probes.map((probe, i): ProbeFound => {
    checkReads(s.timesS, probe.readC, `probes.${i}.readC`)
    const steady = restOf(s.timesS, probe.readC, s.tauS)
    if (steady.state !== 'steady') return { probe, steady, value: null, u: 0, odd: false }
    const c = steady.c!
    const sightC = s.shielded ? 0 : SIGHT_U * Math.max(0, s.bedC - c)
    const uC = Math.hypot(s.probeUC, steady.toGoC! / ONE_SIDED_90, sightC)
    const value = by === 'bed' ? (c - roomC) / riseC : c - s.chamberSetC!
    const u = by === 'bed' ? Math.hypot(uC, (1 - value) * s.probeUC) / riseC : uC
    const [least, most] = AIR_RANGES[by]
    const odd = value < least || value > most
    return { probe, steady, value: odd ? null : value, u, odd }
  })
  const inside = probes.flatMap(p =>
    p.value === null || p.probe.place === 'bay' ? [] : [{ ...p.probe, c: p.steady.c! }],
  )
  return {
    by,
    roomC,
    probes,
    whole: probes.every(p => p.value !== null),
    evenness: evenness(inside, s.probeUC),
  }
}

function checkSurvey(s: Survey): void {
  need('timesS', s.timesS.length, 1, MOST_READINGS)
  checkTimes(s.timesS)
  need('tauS', s.tauS, ...TAU_S, 's')
  checkReads(s.timesS, s.roomC, 'roomC')
  need('probes', s.probes.length, 1, MOST_PROBES)
  for (const [i, p] of s.probes.entries())
    for (const k of ['xMm', 'yMm', 'zMm'] as const) need(`probes.${i}.${k}`, p[k], ...POSITION_MM, 'mm')
  need('bedC', s.bedC, ...CHAMBER_C, '°C')
  needIfKnown('chamberSetC', s.chamberSetC, ...CHAMBER_C, '°C')
  need('probeUC', s.probeUC, ...PROBE_UC, '°C')
}

/** A survey that counts: what it found, the state it holds for, and in words where it comes from. */
export interface Surveyed {
  found: SurveyFound
  state: SurveyState
  from: string
}

/** What one survey says of each place: the middle of its probes, as uncertain as they are and as they differ. */
export function placesOf(found: SurveyFound): { place: AirPlace; value: number; u: number }[] {
  return AIR_PLACES.flatMap(place => {
    const here = found.probes.flatMap(p => (p.probe.place === place && p.value !== null ? [{ ...p, v: p.value }] : []))
    return here.length === 0 ? [] : [{ place, ...between(here.map(p => ({ value: p.v, u: p.u }))) }]
  })
}

/** The middle of several values, as uncertain as the worst of them and as half the way between the farthest. */
function between(of: readonly { value: number; u: number }[]): { value: number; u: number } {
  const values = of.map(x => x.value)
  const [least, most] = [Math.min(...values), Math.max(...values)]
  return { value: (least + most) / 2, u: Math.hypot(Math.max(...of.map(x => x.u)), (most - least) / 2) }
}

/**
 * Surveys as sources of the limits: for each way of heating, lid and place the latest of each state of the fan. What a
 * printer's fan does at the moment nobody tells, so two states that differ come to one value that covers both. A door
 * that stood ajar is an experiment and no source. `surveys`: the latest first.
 */
export function surveySources(surveys: readonly Surveyed[]): AirSource[] {
  const seen = new Map<
    string,
    { source: AirSource; values: { value: number; u: number }[]; fans: Set<boolean | null> }
  >()
  for (const { found, state, from } of surveys) {
    if (state.gapMm > 0) continue
    const { opening, fan } = state
    for (const { place, value, u } of placesOf(found)) {
      const source: AirSource = { trust: 'survey', by: found.by, opening, fan: null, place, value, u, from }
      const key = `${found.by} ${opening} ${place}`
      const of = seen.get(key) ?? { source, values: [], fans: new Set() }
      seen.set(key, of)
      if (of.fans.has(fan)) continue
      of.fans.add(fan)
      of.values.push({ value, u })
    }
  }
  return [...seen.values()].map(({ source, values }) => ({ ...source, ...between(values) }))
}
