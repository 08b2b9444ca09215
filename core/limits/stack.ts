/**
 * A printer's parts sorted for one head: what couples the zones (nozzle, feed tube, enclosure with lid and heater), and
 * groups that stand alone once the operating point is known. Ceilings of the zones for the drawings.
 */
import { firstAbove, type Correction } from '../thermometry'
import { airMap, airSources, openingOf, type AirMap, type AirPlace, type AirSource, type Opening } from './air'
import { checkAsked, checkPart, checkPrinter, checkRules } from './check'
import { checkDemand, checkGroup, checkNozzle, checkTube, checkWalls, standsAt, zoneOf, type Zone } from './checks'
import { against, guardOf, heatAt, knownOf, reached, sensorsOf, type Heat, type HeadSensors } from './heat'
import { byBed, byHeater, operatingPoint, type AirParts, type OperatingPoint, unknown } from './operating'
import { isKind, kindOf } from './kinds'
import { nozzlePart } from './nozzles'
import {
  CHAMBER_ROLES,
  type Demand,
  type FittedNozzle,
  type Line,
  type Part,
  type Printer,
  type Role,
  type Rules,
} from './types'

export interface Group {
  role: Role
  parts: Part[]
}
export interface Setup {
  nozzle: FittedNozzle | null
  tube: Part | null
  air: AirParts
  sensors: HeadSensors
}
export interface Stack extends Setup {
  headId: number
  groups: Group[]
}

/** Roles of which one part counts; the rest may be there several times, each a group of its own. */
const SINGLE: readonly Role[] = [
  'heater',
  'sensor',
  'block',
  'sock',
  'firmware',
  'gears',
  'bed heater',
  'bed sensor',
  'bed wiring',
  'bed insulation',
  'magnets',
  'glue line',
  'sheet',
]
const MANY: readonly Role[] = ['other hotend part', 'other bed part', ...CHAMBER_ROLES]

const MAPS = new WeakMap<Part, { measured: readonly AirSource[]; maps: Map<Opening, AirMap> }>()
/** Enclosure, lid and heater with what is known of the air in it; worked out once for each lid. */
export function airParts(
  enclosure: Part | null,
  lid: Part | null,
  heater: Part | null,
  measured: readonly AirSource[],
): AirParts {
  const opening = openingOf(lid)
  if (!enclosure) return { enclosure, lid, heater, opening, map: null }
  let known = MAPS.get(enclosure)
  if (!known || known.measured !== measured) MAPS.set(enclosure, (known = { measured, maps: new Map() }))
  let map = known.maps.get(opening)
  if (!map) {
    const starts = isKind(enclosure.kind) ? kindOf(enclosure.kind).air : undefined
    known.maps.set(opening, (map = airMap(airSources(enclosure, starts, measured), opening)))
  }
  return { enclosure, lid, heater, opening, map }
}

/**
 * What nozzles share that stand alike in a stack: material, bore and length in mm, insert. Of a shelf with many alike
 * one of each kind need be checked. No value is refused. Source: what the checks of `limits` read of a nozzle.
 */
export const nozzleKind = ({ material, boreMm, lengthMm, insert }: FittedNozzle): string =>
  JSON.stringify([material, boreMm, lengthMm, insert])

/** A printer's parts sorted for one of its heads; parts of other heads are left out. */
export function stackOf(printer: Printer, headId: number): Stack {
  checkPrinter(printer)
  const here = printer.parts.filter(p => p.headId === null || p.headId === headId)
  const of = (role: Role) => here.filter(p => p.role === role)
  const groups: Group[] = SINGLE.map(role => ({ role, parts: of(role) }))
  groups.push({ role: 'heat break', parts: [...of('liner'), ...of('heat break')] })
  for (const role of MANY) for (const p of of(role)) groups.push({ role, parts: [p] })
  groups.push({ role: 'dryer', parts: [...printer.dryers] }, { role: 'ventilation', parts: of('ventilation') })
  return {
    headId,
    nozzle: printer.heads.find(h => h.id === headId)?.nozzle ?? null,
    tube: of('feed tube')[0] ?? null,
    air: airParts(of('enclosure')[0] ?? null, of('lid')[0] ?? null, of('chamber heater')[0] ?? null, printer.air),
    sensors: sensorsOf(printer, headId),
    groups,
  }
}

export interface Checked {
  op: OperatingPoint
  lines: Line[]
}

/** What couples the zones at an operating point: its own lines, nozzle, feed tube, and the walls that hold the air. */
export function coupledLines(s: Setup, op: OperatingPoint, demand: Demand, rules: Rules): Line[] {
  return [
    ...op.lines,
    ...checkNozzle(s.nozzle, op, demand, rules),
    ...checkTube(s.tube, op, demand, rules),
    ...checkWalls(s.air.enclosure, op, rules),
  ]
}

/** The lines of everything that couples the zones, at the operating point they make. */
export function checkSetup(s: Setup, demand: Demand, rules: Rules): Checked {
  const op = operatingPoint(s.nozzle, s.air, demand, rules, s.sensors)
  return {
    op,
    lines: coupledLines(s, op, demand, rules),
  }
}

/** An enclosure of which no part is described: what stands in its heat is not known. */
export const nothingInside = (s: Stack) => s.air.enclosure !== null && !s.groups.some(g => zoneOf(g.role) === 'chamber')

/** Every requirement of the demand against the stack as it is. */
export function checkStack(stack: Stack, demand: Demand, rules: Rules): Checked {
  checkAsked(demand)
  checkRules(rules)
  const { op, lines } = checkSetup(stack, demand, rules)
  const all = [...checkDemand(demand), ...lines]
  for (const g of stack.groups) all.push(...checkGroup(g.role, g.parts, op, demand, rules))
  if (nothingInside(stack)) all.push(unknown('chamber part', 'the parts that sit in the heat'))
  return { op, lines: all }
}

export interface Ceiling {
  zone: Zone
  headId: number | null
  limitC: number
  part: Part
  /** Up to here it is fine, above `shortC` it is short: U of the margin lies between. Both `limitC` where U is 0. */
  fineC: number
  shortC: number
  /** The part stands in the air that the bed makes. */
  inAir: boolean
  /** What it is a limit of: a setpoint, or the air near the top where no heater holds the chamber. */
  of: 'setpoint' | 'air'
  /** A bed limit that counts while the chamber heater is off: then the bed makes the air. */
  heaterOff: boolean
  /** The guard band that counts there: less the sensor's part of it where a check covers that. */
  guardC: number
}

/**
 * Lowest of (limit − guard band) over the parts of a zone; a part without a limit is left out here and named by the
 * verdict.
 */
export function ceilingOf(
  zone: Zone,
  parts: readonly Part[],
  rules: Rules,
): { limitC: number | null; part: Part | null } {
  checkRules(rules)
  parts.forEach(checkPart)
  let limitC: number | null = null,
    part: Part | null = null
  for (const p of parts) {
    if (zoneOf(p.role) !== zone || p.limitC === null) continue
    const allowed = p.limitC - guardOf(zone, rules)
    if (limitC === null || allowed < limitC) {
      limitC = allowed
      part = p
    }
  }
  return { limitC, part }
}

/** Parts that stand in the air of the chamber, each with its place. */
function inTheAir(parts: readonly Part[]): { part: Part; place: AirPlace; limitC: number }[] {
  return parts.flatMap(part => {
    const place = standsAt(part)
    return place === null || part.limitC === null ? [] : [{ part, place, limitC: part.limitC }]
  })
}

/**
 * Those that decide: the one that is short first as a setpoint rises, and the one that is just met first. The grade of
 * any setpoint is theirs; mostly they are one. The lower first.
 */
function deciding(all: readonly Ceiling[]): Ceiling[] {
  const least = (of: (c: Ceiling) => number) =>
    all.reduce<Ceiling | null>((a, b) => (a === null || of(b) < of(a) ? b : a), null)
  const both = [least(c => c.shortC), least(c => c.fineC)].filter(c => c !== null)
  return [...new Set(both)].sort((a, b) => a.limitC - b.limitC)
}

/** Hotter than any bed, °C: where a limit is known so badly that nothing is told to be short. */
const NO_BED_C = 10_000

/**
 * What ceilings are worked out by; stored ones of another version are worked out again. Raise it with every change of
 * the limits.
 */
export const LIMITS_MODEL = 4

/** Hotter than anything is set, °C. */
const NO_SET_C = 3000
const COLDEST_C = -60

/** What comes of a setpoint at a part, with its U, and the guard band that counts there. */
type Comes = (heat: Heat) => { c: number; u90: number; guardC: number }
/** Three ceilings of a part that stands `limitC`: up to where it is fine, the margin 0, and from where it is short. */
function setpointsOf(
  sensor: Correction | null,
  limitC: number,
  comes: Comes,
  from = COLDEST_C,
  to = NO_SET_C,
): { limitC: number; fineC: number; shortC: number; guardC: number } {
  const upTo = (k: -1 | 0 | 1) => {
    const of = (setC: number) => {
      const { c, u90, guardC } = comes(heatAt(sensor, setC))
      return c + k * u90 + guardC
    }
    // to the billionth: what is whole stays whole
    return Math.round(firstAbove(sensor, of, limitC, from, to) * 1e9) / 1e9
  }
  const limit = upTo(0)
  const { guardC } = comes(heatAt(sensor, limit))
  return { limitC: limit, fineC: Math.min(limit, upTo(1)), shortC: Math.max(limit, upTo(-1)), guardC }
}

/**
 * The lanes of the Floor, °C: a nozzle ceiling per head (its nozzle and firmware included); the bed's, by its own parts
 * and, where the bed makes the air, by what stands in that air; and the chamber's where there is an enclosure: a
 * setpoint with a chamber heater (and what that reaches), else the air near the top. All as they are set and shown: a
 * checked sensor's correction is in them. Of each the lowest first, then others that could decide because their air is
 * known worse. Throws InputError for a part or a rule outside its range.
 *
 * @example
 * const heater = { ...partOf('bed heater'), limitC: 120 }
 * const printer = { id: 1, name: 'one', heads: [], parts: [heater], air: [], dryers: [] }
 * ceilings(printer, START_RULES)[0].limitC // 115 (°C; 120 less the guard band of 5)
 */
export const ceilings = (printer: Printer, rules: Rules): Ceiling[] => everyCeiling(printer, rules).flatMap(deciding)

/**
 * How hot each part of which the limit is known may become, °C, by the guard band that counts at its own ceiling.
 * Throws InputError for a part or a rule outside its range.
 */
export function usableLimits(printer: Printer, rules: Rules): { part: Part; usableC: number }[] {
  const heated = printer.parts.some(p => p.role === 'chamber heater')
  return everyCeiling(printer, rules)
    .flat()
    .filter(c => zoneOf(c.part.role) === c.zone || (c.inAir && (c.zone === 'chamber') === heated))
    .flatMap(c => (c.part.limitC === null ? [] : [{ part: c.part, usableC: c.part.limitC - c.guardC }]))
}

/** The ceilings of all parts, in the groups of which some decide. */
function everyCeiling(printer: Printer, rules: Rules): Ceiling[][] {
  checkPrinter(printer)
  checkRules(rules)
  const { roomC } = rules
  const { bed: bedSensor, chamber: airSensor } = knownOf(printer)
  const setpoint = { of: 'setpoint' as const, heaterOff: false, inAir: false }
  const own = (zone: Zone, headId: number | null, sensor: Correction | null, parts: readonly Part[]): Ceiling[] =>
    parts.flatMap(part => {
      if (zoneOf(part.role) !== zone || part.limitC === null) return []
      const comes: Comes = heat => ({ ...against(part.role, heat), guardC: guardOf(zone, rules, heat.covered) })
      const at = setpointsOf(sensor, part.limitC, comes)
      return [{ zone, headId, part, ...at, ...setpoint }]
    })
  const out: Ceiling[][] = printer.heads.map(h => {
    const parts = printer.parts.filter(p => p.headId === h.id)
    const sensor = sensorsOf(printer, h.id).hotend
    return own('hotend', h.id, sensor, h.nozzle ? [...parts, nozzlePart(h.nozzle)] : parts)
  })
  const first = (role: Role) => printer.parts.find(p => p.role === role) ?? null
  const { enclosure, heater, map } = airParts(first('enclosure'), first('lid'), first('chamber heater'), printer.air)
  const bed = own('bed', null, bedSensor, printer.parts)
  if (!enclosure || !map) return [...out, bed]
  const inside = inTheAir(printer.parts)
  const guarded = (heat: Heat) => guardOf('chamber', rules, heat.covered)
  // the bed that brings the air at a part to what it stands; U grows with the bed
  const byAir = inside.flatMap(({ part, place, limitC }): Ceiling[] => {
    if (map.bed[place].value <= 0) return []
    const comes: Comes = heat => ({ ...byBed(map.bed[place], heat, roomC), guardC: guarded(heat) })
    const at = setpointsOf(bedSensor, limitC, comes, COLDEST_C, NO_BED_C)
    return [{ zone: 'bed', headId: null, part, ...at, of: 'setpoint', inAir: true, heaterOff: heater !== null }]
  })
  out.push(...(heater ? [bed, byAir] : [[...bed, ...byAir]]))
  const chamber = inside.map(({ part, place, limitC }): Ceiling => {
    const zone = { zone: 'chamber' as const, headId: null, part, inAir: true, heaterOff: false }
    if (heater) {
      const comes: Comes = heat => ({ ...byHeater(map.heater[place], heat), guardC: guarded(heat) })
      return { ...zone, ...setpointsOf(airSensor, limitC, comes), of: 'setpoint' }
    }
    // what the chamber's own sensor shows near the top while the part is as hot as it may be
    const share = Math.max(map.bed[place].value, 0.01) / Math.max(map.bed.high.value, 0.001)
    const comes: Comes = heat => ({
      c: roomC + share * (heat.trueC - roomC),
      u90: share * heat.u90C,
      guardC: guarded(heat),
    })
    return { ...zone, ...setpointsOf(airSensor, limitC, comes), of: 'air' }
  })
  if (heater?.details.reachC !== undefined) {
    const comes: Comes = heat => ({ c: reached(heat), u90: heat.u90C, guardC: guarded(heat) })
    const at = setpointsOf(airSensor, heater.details.reachC, comes)
    chamber.push({ zone: 'chamber', headId: null, part: heater, ...at, ...setpoint })
  }
  return [...out, chamber]
}
