/**
 * A chamber that is warmed without a print: what the bed, its parts and everything in the air say to it, by the same
 * checks as a job file. °C.
 */
import { SETPOINT_C } from '../gcode'
import { bisect, needEach } from '../numeric'
import { setFor } from '../thermometry'
import { capital } from '../words'
import { checkSource, coolest, type AirAt, type AirSource } from './air'
import { checkRules } from './check'
import { zoneOf } from './checks'
import { heatAt, type Heat } from './heat'
import { airOf, byBed, byHeater, type PlaceAir } from './operating'
import { checkStack, type Stack } from './stack'
import { demandOfJob } from './windows'
import { furthestOver, reason } from './words'
import type { Demand, Line, Place, Rules } from './types'

export interface HeatSet {
  bedC: number
  /** Setpoint of a chamber heater; null when there is none or it stays off. */
  chamberC: number | null
}

/** What is asked of a printer whose bed and chamber heater are set so, the nozzle cold. */
export const soakDemand = (set: HeatSet): Demand => demandOfJob('soak', { nozzleC: null, ...set }, null)

/** Lines of bed, chamber and what stands in the heat with bed and chamber heater set so. */
export function heatLines(stack: Stack, set: HeatSet, rules: Rules): Line[] {
  const counts = (l: Line) =>
    l.status !== 'look' &&
    ((l.part !== null && (zoneOf(l.part.role) === 'bed' || zoneOf(l.part.role) === 'chamber')) ||
      ['chamber', 'chamber part', 'tube heat', 'bed'].includes(l.key))
  return checkStack(stack, soakDemand(set), rules).lines.filter(counts)
}

/** No bed is set hotter, °C. */
const HOTTEST_BED_C = 300

/**
 * The hottest bed in whole °C at which nothing is short (with `sure`: nothing just met either), the chamber heater set
 * as given; null when even a cold bed is too much. 0 to 300 °C.
 */
export function hottestBed(stack: Stack, chamberC: number | null, rules: Rules, sure = false): number | null {
  checkRules(rules)
  needEach({ chamberC }, ['chamberC'], ...SETPOINT_C, '°C')
  const holds = (bedC: number) =>
    heatLines(stack, { bedC, chamberC }, rules).every(l => l.status !== 'short' && !(sure && l.status === 'just'))
  if (!holds(rules.roomC)) return null
  if (holds(HOTTEST_BED_C)) return HOTTEST_BED_C
  return Math.floor(bisect(b => !holds(b), rules.roomC, HOTTEST_BED_C, 1e-6) + 1e-6)
}

/** Where the air comes to rest at the coolest place, and what setting of the bed would bring a target there. °C. */
export interface Settles {
  settlesC: number
  u90: number
  from: string
  bedForTargetC: number | null
}

/**
 * The air at each place with bed and chamber heater set so, °C with its U; null where it is not known. By the same rule
 * as every limit.
 */
export function chamberAir(stack: Stack, set: HeatSet, rules: Rules): Record<Place, PlaceAir | null> {
  checkRules(rules)
  needEach(set, ['bedC', 'chamberC'], ...SETPOINT_C, '°C')
  return airOf(stack.air, heatsOf(stack, set), rules.roomC)
}

/**
 * The air at one probe of a survey, which found it to be a share of the way from room to bed, or °C over the heater's
 * setpoint: `value` with its standard `u`, at another setting. By the same rule as every place.
 */
export function airFrom(stack: Stack, found: Pick<AirAt, 'value' | 'u'>, set: HeatSet, rules: Rules): PlaceAir {
  checkRules(rules)
  needEach(set, ['bedC', 'chamberC'], ...SETPOINT_C, '°C')
  const { bed, heater } = heatsOf(stack, set)
  const by = heater === null ? 'bed' : 'heater'
  const at: AirSource = { ...found, by, trust: 'survey', from: '', place: 'low', opening: 'shut', fan: null }
  checkSource(at)
  return heater === null ? byBed(at, bed, rules.roomC) : byHeater(at, heater)
}

/** What bed and chamber heater make as they are set. */
function heatsOf({ air, sensors }: Stack, set: HeatSet): { bed: Heat; heater: Heat | null } {
  const heaterC = air.heater ? set.chamberC : null
  return { bed: heatAt(sensors.bed, set.bedC), heater: heaterC === null ? null : heatAt(sensors.chamber, heaterC) }
}

/** Null for a printer without an enclosure. `targetC` null when nothing is asked. */
export function settlesAt(stack: Stack, set: HeatSet, targetC: number | null, rules: Rules): Settles | null {
  const { map, heater } = stack.air
  checkRules(rules)
  needEach({ ...set, targetC }, ['bedC', 'chamberC', 'targetC'], ...SETPOINT_C, '°C')
  if (!map) return null
  const heaterC = heater ? set.chamberC : null
  const air = chamberAir(stack, set, rules)
  const place = coolest(heaterC === null ? map.bed : map.heater)
  const at = air[place]!
  const share = map.bed[place].value
  const byBed = heaterC === null && targetC !== null && share > 0
  return {
    settlesC: at.c,
    u90: at.u90,
    from: at.from,
    bedForTargetC: byBed ? setFor(stack.sensors.bed, rules.roomC + (targetC - rules.roomC) / share) : null,
  }
}

/** Why a soak must not be started, at its field; null when it may. Which bed would do is said. */
export function soakRefusal(
  stack: Stack,
  set: HeatSet,
  rules: Rules,
): { field: 'bedC' | 'chamberSetC'; message: string } | null {
  const worst = furthestOver(heatLines(stack, set, rules).filter(l => l.status === 'short'))
  if (!worst) return null
  const most = hottestBed(stack, set.chamberC, rules)
  const sure = hottestBed(stack, set.chamberC, rules, true)
  const heater = set.chamberC !== null && most === null
  return {
    field: heater ? 'chamberSetC' : 'bedC',
    message: `${capital(reason(worst, soakDemand(set), stack.nozzle))}${wouldStand(sure, most)}`,
  }
}

/** Which bed it would stand: surely, and perhaps, by what is known of the air. */
function wouldStand(sure: number | null, most: number | null): string {
  if (most === null) return ''
  if (sure === null) return `; a bed of ${most} °C it stands perhaps`
  return most === sure ? `; a bed of ${sure} °C it stands` : `; a bed of ${sure} °C it stands, ${most} perhaps`
}
