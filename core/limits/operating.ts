/**
 * The least that a demand asks of this stack: nozzle temperature with the conductivity offset, the coolest bed that
 * will do, and the air it makes at each place of the chamber, by `air.ts`. Every other check gets harder with each of
 * these, so what fails at this point fails everywhere. A filament's need is judged at the coolest place of the build, a
 * part at its own place, both at the expected value; what that is uncertain by counts once, as U of the margin.
 */
import { coolest, type AirAt, type AirMap, type Opening } from './air'
import { grade, ONE_SIDED_90 } from './margin'
import { differs, guardOf, heatAt, heatFor, reached, together, unheated, type HeadSensors, type Heat } from './heat'
import { offsetC } from './nozzles'
import type { Demand, FittedNozzle, KnownLine, Line, LineKey, Part, Place, Rules, UnknownLine } from './types'

export interface AirParts {
  enclosure: Part | null
  lid: Part | null
  heater: Part | null
  /** How the lid is, and what is known of the air with it so; null without an enclosure. */
  opening: Opening
  map: AirMap | null
}

/** Air at a place, °C; `u90` is U, 1.28 standard uncertainties of it. */
export interface PlaceAir {
  c: number
  u90: number
  from: string
  /** The sensor that governs it is checked there: its part of the guard band is not needed. */
  covered: boolean
}

export interface OperatingPoint {
  nozzle: Heat | null
  bed: Heat | null
  /** True when the bed is set hotter than its window asks, to warm the chamber. */
  bedForChamber: boolean
  /** U of a bed that is set by the chamber's need, °C; 0 when the window sets it. */
  bedU90: number
  /** The chamber heater; null when it stays off. */
  heater: Heat | null
  air: Record<Place, PlaceAir | null>
  lines: Line[]
}

export function line(
  key: LineKey,
  status: KnownLine['status'],
  code: string,
  part: Part | null,
  asked: number | null,
  allowed: number | null,
  unit: Line['unit'] = '°C',
  u90 = 0,
  rests = '',
): KnownLine {
  return { key, status, part, asked, allowed, unit, code, u90, rests }
}
/** A line whose margin has an uncertainty: fine, just or short by `grade`. */
export function graded(
  key: LineKey,
  code: string,
  part: Part | null,
  asked: number,
  allowed: number,
  u90: number,
  rests = '',
  heat: Heat | null = null,
): KnownLine {
  const out = line(key, grade(allowed - asked, u90), code, part, asked, allowed, '°C', u90, rests)
  return heat && (differs(heat) || heat.u90C > 0) ? { ...out, heat } : out
}
export function unknown(
  key: LineKey,
  missing: string,
  part: Part | null = null,
  asked: number | null = null,
): UnknownLine {
  return { key, status: 'unknown', missing, part, asked, unit: '°C', code: 'missing' }
}

/** What the air outside of any enclosure rests on. */
export const ROOM_AIR = 'room air'

/** Air of a share of the way from the room to the bed. */
export const byBed = (a: AirAt, bed: Heat, roomC: number): PlaceAir => ({
  c: roomC + a.value * (bed.trueC - roomC),
  u90: together(ONE_SIDED_90 * a.u * (bed.trueC - roomC), a.value * bed.u90C),
  from: a.from,
  covered: bed.covered,
})
export const byHeater = (a: AirAt, heater: Heat): PlaceAir => ({
  c: heater.trueC + a.value,
  u90: together(ONE_SIDED_90 * a.u, heater.u90C),
  from: a.from,
  covered: heater.covered,
})

/** The air at every place with the bed and the chamber heater as they are set; null for what is not set or known. */
export function airOf(
  air: AirParts,
  set: { bed: Heat | null; heater: Heat | null },
  roomC: number,
): Record<Place, PlaceAir | null> {
  const room = { c: roomC, u90: 0, from: ROOM_AIR, covered: false }
  if (!air.enclosure || !air.map) return { low: room, high: room, bay: room, outside: room }
  const { map } = air
  const { bed, heater } = set
  if (heater !== null)
    return {
      low: byHeater(map.heater.low, heater),
      high: byHeater(map.heater.high, heater),
      bay: byHeater(map.heater.bay, heater),
      outside: room,
    }
  if (bed === null) return { low: null, high: null, bay: null, outside: room }
  return {
    low: byBed(map.bed.low, bed, roomC),
    high: byBed(map.bed.high, bed, roomC),
    bay: byBed(map.bed.bay, bed, roomC),
    outside: room,
  }
}

export function operatingPoint(
  nozzle: FittedNozzle | null,
  air: AirParts,
  demand: Demand,
  rules: Rules,
  sensors: HeadSensors,
): OperatingPoint {
  const { roomC } = rules
  const out: OperatingPoint = {
    nozzle: null,
    bed: null,
    bedForChamber: false,
    bedU90: 0,
    heater: null,
    air: airOf(air, { bed: null, heater: null }, roomC),
    lines: [],
  }
  // a job file sets what is shown; a window wants what is true
  const heat = demand.exact ? heatAt : heatFor
  // without a nozzle the least that any would ask
  if (demand.nozzleMinC !== null)
    out.nozzle = heat(sensors.hotend, demand.nozzleMinC + (demand.exact || !nozzle ? 0 : offsetC(nozzle.material)))
  if (demand.bedMinC !== null) out.bed = heat(sensors.bed, demand.bedMinC)
  else if (demand.exact) out.bed = unheated(roomC)
  const { enclosure, lid, heater, map } = air
  if (!enclosure || !map) {
    if (demand.enclosed) out.lines.push(line('enclosure', 'short', 'open frame', null, null, null, ''))
    if (demand.chamber === 'needs' && demand.chamberMinC !== null)
      out.lines.push(line('chamber', 'short', 'open frame', null, demand.chamberMinC, roomC))
    else if (demand.chamber === 'helps' && demand.chamberMinC !== null)
      out.lines.push(
        line('chamber', 'look', demand.exact ? 'no heater' : 'would help', null, demand.chamberMinC, roomC),
      )
    return out
  }
  if (demand.enclosed && !lid) out.lines.push(line('enclosure', 'short', 'lid off', enclosure, null, null, ''))
  const needs = demand.chamber === 'needs'
  const asked = demand.chamberMinC
  if (needs && asked === null) {
    out.lines.push(unknown('chamber', 'the chamber temperature this filament needs', enclosure))
    return out
  }
  if (heater && asked !== null && (needs || demand.exact)) {
    // a file's own setpoint is checked as it is: then nothing of the air is in the heater's line
    const cool = map.heater[coolest(map.heater)]
    const u90 = demand.exact ? 0 : ONE_SIDED_90 * cool.u
    const heats = heat(sensors.chamber, demand.exact ? asked : asked - cool.value)
    out.heater = heats
    const reach = heater.details.reachC
    if (reach === undefined) out.lines.push(unknown('chamber', 'what the chamber heater reaches', heater, asked))
    else
      out.lines.push(
        lid
          ? graded(
              'chamber',
              'heated',
              heater,
              reached(heats),
              reach - guardOf('chamber', rules, heats.covered),
              together(u90, heats.u90C),
              cool.from,
              heats,
            )
          : line('chamber', 'short', 'lid off', enclosure, asked, roomC),
      )
    out.air = airOf(air, out, roomC)
    return out
  }
  if (out.bed === null) return out // the bed's own line says what is missing
  const cool = map.bed[coolest(map.bed)]
  if (needs) {
    if (demand.bedMaxC === null) {
      out.lines.push(unknown('chamber', 'the hottest bed this filament takes', enclosure, asked))
      return out
    }
    const most = byBed(cool, heatFor(sensors.bed, demand.bedMaxC), roomC)
    // the bed that makes it, as far as the filament takes one
    const forChamber = cool.value > 0 ? Math.min(roomC + (asked! - roomC) / cool.value, demand.bedMaxC) : demand.bedMaxC
    if (forChamber > out.bed.trueC) {
      out.bed = heatFor(sensors.bed, forChamber)
      out.bedForChamber = true
      out.bedU90 = most.u90 / Math.max(cool.value, 0.05)
    }
    out.lines.push(graded('chamber', lid ? 'bed-heated' : 'lid off', enclosure, asked!, most.c, most.u90, most.from))
  }
  out.air = airOf(air, out, roomC)
  if (demand.chamber === 'helps' && asked !== null) {
    const holds = heater && lid ? (heater.details.reachC ?? null) : out.air[coolest(map.bed)]!.c
    const helped = heater && lid ? 'heater helps' : 'would help'
    out.lines.push(
      line(
        'chamber',
        holds !== null && holds >= asked ? 'ok' : 'look',
        demand.exact ? 'no heater' : helped,
        heater ?? enclosure,
        asked,
        holds,
      ),
    )
  }
  if (demand.chamberMaxC !== null && !needs) {
    // it softens in the heat break, which rides on the head
    const head = out.air.low!
    if (demand.chamber === 'indifferent')
      out.lines.push(graded('chamber', 'too warm', enclosure, head.c, demand.chamberMaxC, head.u90, head.from))
    else if (head.c > demand.chamberMaxC)
      out.lines.push(line('chamber', 'look', 'warmer', enclosure, head.c, demand.chamberMaxC))
  }
  return out
}
