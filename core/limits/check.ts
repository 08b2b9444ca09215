/**
 * What the limits take, in one place: who asks in numbers that are none gets an InputError that names the field, never
 * a verdict. The doors take their ranges of rules and parts from here.
 */
import { SETPOINT_C } from '../gcode'
import { need, needEach, needIfKnown } from '../numeric'
import { AIR_RANGES } from './air'
import { GUARD_FLOOR_C } from './heat'
import type { Demand, Details, FittedNozzle, Part, Printer, Rules } from './types'

/** Any temperature of a part, a window or a setpoint, °C. */
export const ANY_C = [-60, 1500] as const
/** Bends, curls and lengths, mm. */
export const ANY_MM = [0, 1e6] as const
export const PRICE = [0, 1e6] as const
export const MINUTES = [0, 1e5] as const

/** Rules of the shop. Guard bands and room in °C, coarseness in °C per count, money per hour. */
export const RULE_RANGES: Record<keyof Rules, readonly [number, number]> = {
  guardHotendC: [GUARD_FLOOR_C.hotend, 100],
  guardBedC: [GUARD_FLOOR_C.bed, 100],
  guardChamberC: [GUARD_FLOOR_C.chamber, 100],
  guardHotendCheckedC: [GUARD_FLOOR_C.hotend, 100],
  guardBedCheckedC: [GUARD_FLOOR_C.bed, 100],
  guardChamberCheckedC: [GUARD_FLOOR_C.chamber, 100],
  roomC: [5, 45],
  bendSafety: [1, 10],
  coarseC: [0.1, 20],
  labourPerHour: [0, 10_000],
}
const RULE_KEYS = Object.keys(RULE_RANGES) as (keyof Rules)[]

type NumberDetail = { [K in keyof Details]-?: Required<Details>[K] extends number ? K : never }[keyof Details]
/** Details of a part: ohms, kelvins, bits, µV per count, mm, °C, and shares of the way from room to bed. */
export const DETAIL_RANGES: Record<NumberDetail, readonly [number, number]> = {
  r25Ohm: [10, 1e7],
  betaK: [1000, 6000],
  pullUpOhm: [10, 1e7],
  bits: [6, 24],
  countMicrovolt: [0.01, 1000],
  bendMm: [5, 2000],
  freedBendMm: [5, 2000],
  reachC: [20, 400],
  thetaLow: AIR_RANGES.bed,
  thetaHigh: AIR_RANGES.bed,
  thetaBay: AIR_RANGES.bed,
  openThetaLow: AIR_RANGES.bed,
  openThetaHigh: AIR_RANGES.bed,
  thetaU: [0.005, 0.3],
  offsetU: [0.2, 20],
  offsetLow: AIR_RANGES.heater,
  offsetHigh: AIR_RANGES.heater,
  offsetBay: AIR_RANGES.heater,
}
const DETAIL_KEYS = Object.keys(DETAIL_RANGES) as NumberDetail[]

export function checkRules(r: Rules): void {
  for (const k of RULE_KEYS) need(k, r[k], ...RULE_RANGES[k])
}

export function checkAsked(d: Demand): void {
  needEach(
    d,
    ['nozzleMinC', 'nozzleMaxC', 'bedMinC', 'bedMaxC', 'chamberMinC', 'chamberMaxC', 'dryMinC'],
    ...SETPOINT_C,
    '°C',
  )
  needEach(d, ['boreMinMm', 'boreGoodMm', 'curlMm'], ...ANY_MM, 'mm')
  needIfKnown('strainAtBreak', d.strainAtBreak, 0.001, 10)
  need('diameterMm', d.diameterMm, 0.5, 5, 'mm')
}

export function checkNozzleNumbers(n: FittedNozzle): void {
  need('boreMm', n.boreMm, 0.05, 3, 'mm')
  need('lengthMm', n.lengthMm, ...ANY_MM, 'mm')
  need('price', n.price, ...PRICE)
}

export function checkPart(p: Part): void {
  needEach(p, ['limitC', 'shortC'], ...ANY_C, '°C')
  for (const k of DETAIL_KEYS) needIfKnown(k, p.details[k], ...DETAIL_RANGES[k])
}

export function checkPrinter(p: Printer): void {
  for (const part of [...p.parts, ...p.dryers]) checkPart(part)
  for (const h of p.heads) if (h.nozzle) checkNozzleNumbers(h.nozzle)
}
