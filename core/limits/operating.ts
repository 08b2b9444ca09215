/**
 * The least that a demand asks of this stack: nozzle temperature with the conductivity offset, the coolest bed that
 * will do, and the air it makes at each place of the chamber. Every other check gets harder with each of these, so what
 * fails at this point fails everywhere. Air: passive θ = (T − room)/(bed − room); with a heater, setpoint plus offset.
 */
import { offsetC } from './nozzles'
import type { Demand, FittedNozzle, KnownLine, Line, LineKey, Part, Place, Rules, UnknownLine } from './types'

export interface AirParts {
  enclosure: Part | null
  lid: Part | null
  heater: Part | null
}

export interface OperatingPoint {
  nozzleC: number | null
  bedC: number | null
  /** True when the bed is set hotter than its window asks, to warm the chamber. */
  bedForChamber: boolean
  /** Setpoint of the chamber heater; null when it stays off. */
  heaterC: number | null
  air: Record<Place, number | null>
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
): KnownLine {
  return { key, status, part, asked, allowed, unit, code }
}
export function unknown(
  key: LineKey,
  missing: string,
  part: Part | null = null,
  asked: number | null = null,
): UnknownLine {
  return { key, status: 'unknown', missing, part, asked, unit: '°C', code: 'missing' }
}

export function operatingPoint(
  nozzle: FittedNozzle | null,
  air: AirParts,
  demand: Demand,
  rules: Rules,
): OperatingPoint {
  const out: OperatingPoint = {
    nozzleC: null,
    bedC: null,
    bedForChamber: false,
    heaterC: null,
    air: { low: null, high: null, bay: null, outside: rules.roomC },
    lines: [],
  }
  // without a nozzle the least that any would ask
  if (demand.nozzleMinC !== null)
    out.nozzleC = demand.nozzleMinC + (demand.exact || !nozzle ? 0 : offsetC(nozzle.material))
  out.bedC = demand.bedMinC ?? (demand.exact ? rules.roomC : null)
  const { enclosure, lid, heater } = air
  if (!enclosure) {
    out.air = { low: rules.roomC, high: rules.roomC, bay: rules.roomC, outside: rules.roomC }
    if (demand.enclosed) out.lines.push(line('enclosure', 'short', 'open frame', null, null, null, ''))
    if (demand.chamber === 'needs' && demand.chamberMinC !== null)
      out.lines.push(line('chamber', 'short', 'open frame', null, demand.chamberMinC, rules.roomC))
    else if (demand.chamber === 'helps' && demand.chamberMinC !== null)
      out.lines.push(
        line('chamber', 'look', demand.exact ? 'no heater' : 'would help', null, demand.chamberMinC, rules.roomC),
      )
    return out
  }
  if (demand.enclosed && !lid) out.lines.push(line('enclosure', 'short', 'lid off', enclosure, null, null, ''))
  const d = enclosure.details
  const low = lid ? d.thetaLow : d.openThetaLow,
    high = lid ? d.thetaHigh : d.openThetaHigh,
    bay = d.thetaBay
  const needs = demand.chamber === 'needs'
  const asked = demand.chamberMinC
  if (needs && asked === null) {
    out.lines.push(unknown('chamber', 'the chamber temperature this filament needs', enclosure))
    return out
  }
  if (heater && asked !== null && (needs || demand.exact)) {
    const offset = d.offsetLow
    if (offset === undefined && !demand.exact) {
      out.lines.push(unknown('chamber', 'the chamber map (air less setpoint, low)', enclosure, asked))
      return out
    }
    out.heaterC = demand.exact ? asked : asked - offset!
    const reach = heater.details.reachC
    if (reach === undefined) out.lines.push(unknown('chamber', 'what the chamber heater reaches', heater, asked))
    else
      out.lines.push(
        line(
          'chamber',
          out.heaterC <= reach - rules.guardChamberC ? 'ok' : 'short',
          lid ? 'heated' : 'lid off',
          heater,
          out.heaterC,
          reach - rules.guardChamberC,
        ),
      )
    if (!lid) out.lines.push(line('chamber', 'short', 'lid off', enclosure, asked, rules.roomC))
    out.air.low = offset === undefined ? null : out.heaterC + offset
    out.air.high = d.offsetHigh === undefined ? null : out.heaterC + d.offsetHigh
    out.air.bay = d.offsetBay === undefined ? null : out.heaterC + d.offsetBay
    return out
  }
  if (out.bedC === null) return out // the bed's own line says what is missing
  if (needs) {
    if (low === undefined || low <= 0) {
      out.lines.push(unknown('chamber', `the chamber map with the lid ${lid ? 'on' : 'off'}`, enclosure, asked))
      return out
    }
    if (demand.bedMaxC === null) {
      out.lines.push(unknown('chamber', 'the hottest bed this filament takes', enclosure, asked))
      return out
    }
    const forChamber = rules.roomC + (asked! - rules.roomC) / low
    if (forChamber > out.bedC) {
      out.bedC = forChamber
      out.bedForChamber = true
    }
    out.lines.push(
      line(
        'chamber',
        forChamber <= demand.bedMaxC ? 'ok' : 'short',
        lid ? 'bed-heated' : 'lid off',
        enclosure,
        asked,
        rules.roomC + low * (demand.bedMaxC - rules.roomC),
      ),
    )
  }
  const at = (theta: number | undefined) =>
    theta === undefined ? null : rules.roomC + theta * (out.bedC! - rules.roomC)
  out.air = { low: at(low), high: at(high), bay: at(bay), outside: rules.roomC }
  if (demand.chamber === 'helps' && asked !== null) {
    const holds = heater && lid ? (heater.details.reachC ?? null) : out.air.low
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
    if (out.air.low === null)
      out.lines.push(
        unknown('chamber', `the chamber map with the lid ${lid ? 'on' : 'off'}`, enclosure, demand.chamberMaxC),
      )
    else if (out.air.low > demand.chamberMaxC)
      out.lines.push(line('chamber', 'short', 'too warm', enclosure, demand.chamberMaxC, out.air.low))
  }
  return out
}
