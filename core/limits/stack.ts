/**
 * A printer's parts sorted for one head: what couples the zones (nozzle, feed tube, enclosure with lid and heater), and
 * groups that stand alone once the operating point is known. Ceilings of the zones for the drawings.
 */
import { checkAsked, checkPart, checkPrinter, checkRules } from './check'
import { checkDemand, checkGroup, checkNozzle, checkTube, guardOf, zoneOf, type Zone } from './checks'
import { operatingPoint, type AirParts, type OperatingPoint, unknown } from './operating'
import { nozzlePart } from './nozzles'
import {
  CHAMBER_ROLES,
  type Demand,
  type FittedNozzle,
  type Line,
  type Part,
  type Place,
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

/** A printer's parts sorted for one of its heads; parts of other heads are left out. */
export function stackOf(printer: Printer, headId: number): Stack {
  checkPrinter(printer)
  const here = printer.parts.filter(p => p.headId === null || p.headId === headId)
  const of = (role: Role) => here.filter(p => p.role === role)
  const groups: Group[] = SINGLE.map(role => ({ role, parts: of(role) }))
  groups.push({ role: 'heat break', parts: [...of('liner'), ...of('heat break')] })
  for (const role of MANY) for (const p of of(role)) groups.push({ role, parts: [p] })
  groups.push({ role: 'dryer', parts: of('dryer') }, { role: 'ventilation', parts: of('ventilation') })
  return {
    headId,
    nozzle: printer.heads.find(h => h.id === headId)?.nozzle ?? null,
    tube: of('feed tube')[0] ?? null,
    air: { enclosure: of('enclosure')[0] ?? null, lid: of('lid')[0] ?? null, heater: of('chamber heater')[0] ?? null },
    groups,
  }
}

export interface Checked {
  op: OperatingPoint
  lines: Line[]
}

/** The lines of everything that couples the zones, at the operating point they make. */
export function checkSetup(s: Setup, demand: Demand, rules: Rules): Checked {
  const op = operatingPoint(s.nozzle, s.air, demand, rules)
  return {
    op,
    lines: [...op.lines, ...checkNozzle(s.nozzle, op, demand, rules), ...checkTube(s.tube, op, demand, rules)],
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
  limitC: number | null
  part: Part | null
}

/**
 * Lowest of (limit − guard band) over the parts of a zone; a part without a limit is left out here and named by the
 * verdict.
 */
export function ceilingOf(
  zone: Zone,
  parts: readonly Part[],
  rules: Rules,
  allowedOf: (p: Part) => number | null = p => (p.limitC === null ? null : p.limitC - guardOf(zone, rules)),
): { limitC: number | null; part: Part | null } {
  checkRules(rules)
  parts.forEach(checkPart)
  let limitC: number | null = null,
    part: Part | null = null
  for (const p of parts) {
    if (zoneOf(p.role) !== zone) continue
    const allowed = allowedOf(p)
    if (allowed !== null && (limitC === null || allowed < limitC)) {
      limitC = allowed
      part = p
    }
  }
  return { limitC, part }
}

/**
 * A limit at a place of the chamber as what the chamber's own number may be: with a heater its setpoint (air less
 * offset); without one the air near the top, by the ratio of the map's shares. Unmapped places count as they are.
 */
function asChamberNumber(air: AirParts, place: Place, limitC: number, roomC: number): number {
  const d = air.enclosure?.details
  if (!d) return limitC
  const offset = { low: d.offsetLow, high: d.offsetHigh, bay: d.offsetBay, outside: 0 }[place]
  if (air.heater) return limitC - (offset ?? 0)
  const high = air.lid ? d.thetaHigh : d.openThetaHigh
  const here = { low: air.lid ? d.thetaLow : d.openThetaLow, high, bay: d.thetaBay, outside: high }[place]
  return high === undefined || here === undefined || here <= 0 ? limitC : roomC + ((limitC - roomC) * high) / here
}

/**
 * What ceilings are worked out by; stored ones of another version are worked out again. Raise it with every change of
 * the limits.
 */
export const LIMITS_MODEL = 2

/**
 * The lanes of the Floor, °C: a nozzle ceiling per head (its nozzle and firmware included), bed, and chamber where
 * there is an enclosure: a setpoint with a chamber heater (and what that reaches), else the air near the top. The feed
 * tube counts as a part of the chamber. Throws InputError for a part or a rule outside its range.
 *
 * @example
 * const heater = { ...partOf('bed heater'), limitC: 120 }
 * const printer = { id: 1, name: 'one', heads: [], parts: [heater] }
 * ceilings(printer, START_RULES)[0].limitC // 115 (°C; 120 less the guard band of 5)
 */
export function ceilings(printer: Printer, rules: Rules): Ceiling[] {
  checkPrinter(printer)
  checkRules(rules)
  const air = printer.heads[0] ? stackOf(printer, printer.heads[0].id).air : null
  const out: Ceiling[] = printer.heads.map(h => {
    const parts = printer.parts.filter(p => p.headId === h.id)
    return {
      zone: 'hotend' as const,
      headId: h.id,
      ...ceilingOf('hotend', h.nozzle ? [...parts, nozzlePart(h.nozzle)] : parts, rules),
    }
  })
  out.push({ zone: 'bed', headId: null, ...ceilingOf('bed', printer.parts, rules) })
  if (!air?.enclosure) return out
  const at = (place: Place, limitC: number) => asChamberNumber(air, place, limitC - rules.guardChamberC, rules.roomC)
  const chamber = ceilingOf('chamber', printer.parts, rules, p =>
    p.limitC === null || p.place === 'outside' ? null : at(p.place, p.limitC),
  )
  for (const p of printer.parts) {
    let limit: number | null = null
    if (p.role === 'chamber heater' && p.details.reachC !== undefined) limit = p.details.reachC - rules.guardChamberC
    if (p.role === 'feed tube' && p.limitC !== null) limit = at('high', p.limitC)
    if (limit !== null && (chamber.limitC === null || limit < chamber.limitC)) {
      chamber.limitC = limit
      chamber.part = p
    }
  }
  out.push({ zone: 'chamber', headId: null, ...chamber })
  return out
}
