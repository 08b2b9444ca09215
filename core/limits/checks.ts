/**
 * One group of parts against the operating point: each check says what is asked, what is allowed, and which part
 * decides.
 */
import type { AirPlace } from './air'
import { furthest } from './dryers'
import { ntcResolution, platinumResolution, typeKResolution } from '../thermometry'
import { bendStrain, tightestBend } from './bend'
import { against, guardOf, together, type Heat } from './heat'
import { graded, line, unknown, type OperatingPoint } from './operating'
import { FILLER_ASKS_MOHS, isAbrasive, MOHS, NOZZLE_LIMIT_C, nozzlePart } from './nozzles'
import { onSheet } from './surfaces'
import {
  BED_ROLES,
  CHAMBER_ROLES,
  VENTILATION,
  type Demand,
  type FittedNozzle,
  type KnownLine,
  type Line,
  type Part,
  type Role,
  type Rules,
} from './types'

export type Zone = 'hotend' | 'bed' | 'chamber'
/** A hash looked up once per check: the matrix asks hundreds of thousands of times. */
const ZONES: ReadonlyMap<string, Zone> = new Map<string, Zone>([
  ...['nozzle', 'heater', 'sensor', 'liner', 'heat break', 'block', 'sock', 'firmware', 'other hotend part'].map(
    r => [r, 'hotend'] as const,
  ),
  ...BED_ROLES.map(r => [r, 'bed'] as const),
  ...CHAMBER_ROLES.map(r => [r, 'chamber'] as const),
])
/** The zone whose heat a role stands in; null for what stands outside of all. */
export function zoneOf(role: Part['role']): Zone | null {
  return ZONES.get(role) ?? null
}
/** What the maker of a machine says it may do. */
export const isMakers = (p: Part) => p.basis === 'nameplate' || p.basis === 'data sheet'

/** Roles without which a stack cannot be judged. A liner or a sock may truly not be there. */
export const REQUIRED: readonly Role[] = ['heater', 'sensor', 'heat break', 'block', 'firmware', 'bed heater']
/** Parts of these roles bear no limit of their own; a missing number is not a missing fact. */
const MAY_BE_COOL: ReadonlySet<string> = new Set(['magnets'])

/** A part of the hotend against what is set: its own limit by the true temperature, the firmware's by the setpoint. */
function hotLine(p: Part, limitC: number, heat: Heat, rules: Rules): KnownLine {
  const { c, u90 } = against(p.role, heat)
  const allowed = limitC - guardOf('hotend', rules, heat.covered)
  return graded('nozzle temperature', 'part', p, c, allowed, u90, '', heat)
}

export function checkNozzle(n: FittedNozzle | null, op: OperatingPoint, demand: Demand, rules: Rules): Line[] {
  if (!n) return [line('nozzle', 'short', 'none fitted', null, null, null, '')]
  const part = nozzlePart(n)
  const out: Line[] = []
  if (op.nozzle !== null) out.push(hotLine(part, NOZZLE_LIMIT_C[n.material], op.nozzle, rules))
  if (demand.setpointsOnly) return out
  if (demand.filler === null) out.push(unknown('nozzle', 'the filler', part))
  else if (FILLER_ASKS_MOHS[demand.filler] > MOHS[n.material])
    out.push(line('nozzle', 'short', 'soft', part, FILLER_ASKS_MOHS[demand.filler], MOHS[n.material], ''))
  else {
    out.push(line('nozzle', 'ok', 'hard enough', part, FILLER_ASKS_MOHS[demand.filler], MOHS[n.material], ''))
    if (n.insert && isAbrasive(demand.filler)) out.push(line('nozzle insert', 'look', 'insert', part, null, null, ''))
  }
  if (demand.boreMinMm !== null) {
    if (n.boreMm < demand.boreMinMm - 1e-9)
      out.push(line('bore', 'short', 'too small', part, demand.boreMinMm, n.boreMm, 'mm'))
    else if (demand.boreGoodMm !== null && n.boreMm < demand.boreGoodMm - 1e-9)
      out.push(line('bore', 'look', 'possible', part, demand.boreGoodMm, n.boreMm, 'mm'))
    else out.push(line('bore', 'ok', 'recommended', part, demand.boreGoodMm ?? demand.boreMinMm, n.boreMm, 'mm'))
  } else if (demand.filler !== null && demand.filler !== 'none')
    out.push(unknown('bore', 'the smallest bore this filler passes', part))
  return out
}

/** A part in the air of its own place: its limit less the guard band against the air there. */
function inAir(key: 'tube heat' | 'chamber part', p: Part, op: OperatingPoint, rules: Rules): Line[] {
  const air = op.air[airPlaceOf(p) ?? 'outside']
  if (air === null) return [] // without a bed or a heater's setpoint nothing is heated, and that line is missing
  if (p.limitC === null)
    return air.c > rules.roomC
      ? [unknown(key, `what the ${p.name} ${key === 'tube heat' ? 'stands' : 'stand'}`, p, air.c)]
      : []
  const code = op.heater === null ? 'bed-heated' : 'heated'
  const allowed = p.limitC - guardOf('chamber', rules, air.covered)
  return [graded(key, code, p, air.c, allowed, air.u90, air.from)]
}

/**
 * Where a part meets the chamber's air; null for what stands outside. The feed tube and the walls meet it at the top.
 */
export function airPlaceOf(p: Part): AirPlace | null {
  if (p.role === 'feed tube' || p.role === 'enclosure') return 'high'
  return p.place === 'outside' ? null : p.place
}

/** The place of a part that stands in the air of a chamber; null for one that does not. */
export function standsAt(p: Part): AirPlace | null {
  const stands = zoneOf(p.role) === 'chamber' || p.role === 'enclosure' || p.role === 'feed tube'
  return stands && p.kind !== 'no feed tube' ? airPlaceOf(p) : null
}

/** The walls of the enclosure itself, and whether its map can be right. */
export function checkWalls(enclosure: Part | null, op: OperatingPoint, rules: Rules): Line[] {
  if (!enclosure) return []
  const { thetaLow, thetaHigh } = enclosure.details
  const out: Line[] = []
  if (thetaLow !== undefined && thetaHigh !== undefined && thetaLow < thetaHigh)
    out.push(line('chamber', 'look', 'bed the cooler', enclosure, null, null, ''))
  return enclosure.limitC === null ? out : [...out, ...inAir('chamber part', enclosure, op, rules)]
}

export function checkTube(tube: Part | null, op: OperatingPoint, demand: Demand, rules: Rules): Line[] {
  const out: Line[] = []
  if (!tube) {
    if (!demand.setpointsOnly && demand.filler !== null && demand.filler !== 'none')
      out.push(unknown('bend', 'the feed tube and its tightest bend'))
    return out
  }
  if (tube.kind === 'no feed tube') return out
  out.push(...inAir('tube heat', tube, op, rules))
  if (demand.setpointsOnly) return out
  if (demand.strainAtBreak === null) {
    if (demand.filler !== null && demand.filler !== 'none')
      out.push(unknown('bend', 'the strain at break of this filament', tube))
    return out
  }
  const bend = tube.details.bendMm
  if (bend === undefined) {
    out.push(unknown('bend', 'the tightest bend of the feed tube', tube))
    return out
  }
  const way = tube.details.bendWay ?? 'against'
  const need = tightestBend(demand.diameterMm, demand.strainAtBreak, demand.curlMm, way, rules.bendSafety)
  const fits =
    bendStrain(demand.diameterMm, bend, demand.curlMm, way) * rules.bendSafety <= demand.strainAtBreak * (1 + 1e-12)
  out.push(
    line(
      'bend',
      fits ? 'ok' : 'short',
      need === Infinity ? 'curl' : way,
      tube,
      need === Infinity ? null : need,
      bend,
      'mm',
    ),
  )
  return out
}

/**
 * A bed part against the bed. What the window asks is exact; a bed set hotter to warm the chamber is as uncertain as
 * the air it makes, so nobody rewires a bed for half a degree of it.
 */
function bedLine(p: Part, op: OperatingPoint, bed: Heat, demand: Demand, rules: Rules): Line {
  const allowed = p.limitC! - guardOf('bed', rules, bed.covered)
  const code = op.bedForChamber ? 'for the chamber' : 'part'
  const { c: asked, u90 } = against(p.role, bed)
  if (op.bedForChamber && demand.bedMinC! > allowed) return line('bed', 'short', code, p, asked, allowed)
  return graded('bed', code, p, asked, allowed, together(op.bedU90, u90), '', bed)
}

/** °C per count of a sensor at t; null when its reading is not described. */
export function readingC(sensor: Part, tC: number): number | null {
  const { element, r25Ohm, betaK, pullUpOhm, bits, countMicrovolt } = sensor.details
  try {
    if (element === 'ntc' && r25Ohm && betaK && pullUpOhm && bits)
      return ntcResolution(tC, { r25Ohm, betaK }, { pullUpOhm, bits })
    if (element === 'platinum' && r25Ohm && pullUpOhm && bits)
      return platinumResolution(tC, r25Ohm, { pullUpOhm, bits })
    if (element === 'type K' && countMicrovolt) return typeKResolution(tC, countMicrovolt)
  } catch {
    return null
  }
  return null
}

/**
 * Everything else: the parts of one group (one role; liner and heat break together). `role` tells which when it is
 * empty.
 */
export function checkGroup(
  role: Role,
  parts: readonly Part[],
  op: OperatingPoint,
  demand: Demand,
  rules: Rules,
): Line[] {
  const out: Line[] = []
  if (role === 'gears') {
    if (demand.setpointsOnly || demand.filler === null || !isAbrasive(demand.filler)) return out
    const g = parts[0]
    if (!g || g.details.hardened === undefined)
      out.push(unknown('gears', 'whether the drive gears are hardened', g ?? null))
    else
      out.push(
        line('gears', g.details.hardened ? 'ok' : 'short', g.details.hardened ? 'hardened' : 'soft', g, null, null, ''),
      )
    return out
  }
  if (role === 'dryer') {
    if (demand.setpointsOnly || !demand.dry) return out
    if (demand.dryMinC === null) return [unknown('dryer', 'how hot this filament is dried')]
    const best = furthest(parts)
    if (best)
      out.push(
        line(
          'dryer',
          best.details.reachC! >= demand.dryMinC ? 'ok' : 'short',
          'part',
          best,
          demand.dryMinC,
          best.details.reachC!,
        ),
      )
    else if (parts.length > 0) out.push(unknown('dryer', 'what the dryer reaches', parts[0]!, demand.dryMinC))
    else out.push(line('dryer', 'short', 'none', null, demand.dryMinC, null))
    return out
  }
  if (role === 'ventilation') {
    if (demand.setpointsOnly) return out
    const p = parts[0] ?? null
    if (demand.ventilation === null) return [unknown('ventilation', 'what ventilation this filament asks', p)]
    if (demand.ventilation === 'none') return out
    if (!p || p.details.level === undefined) return [unknown('ventilation', 'how the place is ventilated', p)]
    const asked = VENTILATION.indexOf(demand.ventilation),
      has = VENTILATION.indexOf(p.details.level)
    return [line('ventilation', has >= asked ? 'ok' : 'short', 'level', p, asked, has, '')]
  }
  const zone = zoneOf(role)
  if (zone === 'hotend') {
    if (parts.length === 0 && REQUIRED.includes(role))
      return [unknown('nozzle temperature', `the ${role}`, null, op.nozzle?.trueC ?? null)]
    for (const p of parts) {
      if (op.nozzle === null) continue
      if (p.limitC === null) {
        out.push(unknown('nozzle temperature', `what the ${p.name} stands`, p, op.nozzle.trueC))
        continue
      }
      const hot = hotLine(p, p.limitC, op.nozzle, rules)
      out.push(hot)
      if (p.role === 'sensor' && hot.status !== 'short') {
        const c = readingC(p, op.nozzle.trueC)
        if (c !== null)
          out.push(
            line('reading', c <= rules.coarseC ? 'ok' : 'look', 'resolution', p, rules.coarseC, c, '°C per count'),
          )
      }
    }
  } else if (zone === 'bed') {
    if (parts.length === 0) {
      if (REQUIRED.includes(role)) out.push(unknown('bed', `the ${role}`, null, op.bed?.trueC ?? null))
      if (role === 'sheet' && !demand.setpointsOnly) out.push(unknown('surface', 'the build surface'))
    }
    for (const p of parts) {
      if (op.bed !== null) {
        if (p.limitC === null) {
          if (!MAY_BE_COOL.has(role) && !(demand.exact && op.bed.setC <= rules.roomC))
            out.push(unknown('bed', `what the ${p.name} stands`, p, op.bed.trueC))
        } else out.push(bedLine(p, op, op.bed, demand, rules))
      }
      if (role === 'sheet' && !demand.setpointsOnly) {
        if (demand.surfaces === null || demand.surfaces.length === 0)
          out.push(unknown('surface', 'what this filament sticks to', p))
        else if (p.details.surface === undefined) out.push(unknown('surface', 'what the sheet is made of', p))
        else
          out.push(
            line(
              'surface',
              onSheet(demand.surfaces, p.details.surface).length > 0 ? 'ok' : 'short',
              'surface',
              p,
              null,
              null,
              '',
            ),
          )
      }
    }
  } else if (zone === 'chamber') {
    for (const p of parts) out.push(...inAir('chamber part', p, op, rules))
  }
  return out
}

/** What the demand itself does not say. */
export function checkDemand(demand: Demand): Line[] {
  const out: Line[] = []
  if (demand.nozzleMinC === null)
    out.push(
      unknown(
        'nozzle temperature',
        demand.exact ? 'a nozzle setpoint in the file' : 'the nozzle window of this filament',
      ),
    )
  if (demand.bedMinC === null && !demand.exact) out.push(unknown('bed', 'the bed window of this filament'))
  return out
}
