/**
 * A setpoint and what it makes: the one place where a sensor's check meets the limits. Part limits, the air and what is
 * reached go by the true temperature (setpoint + c); what the firmware allows goes by the setpoint itself; advice is
 * the wanted temperature less c. °C. Common practice, no source.
 */
import { correctionAt, setFor, type Correction } from '../thermometry'
import type { Zone } from './checks'
import type { Part, Printer, Rules, Sensors } from './types'

/** `u90C`: U of the check, 0 where the whole guard band stands for the sensor; `covered`: it is checked there. */
export interface Heat {
  setC: number
  trueC: number
  u90C: number
  covered: boolean
  /** In words, empty without a check: "its check of 3 Nov". */
  from: string
}

/** Sensors that decide at one head. */
export type HeadSensors = Record<Zone, Correction | null>
const UNCHECKED: Sensors = { heads: {}, bed: null, chamber: null }
/** What is known of a printer's sensors, also where nobody has checked any. */
export const knownOf = (printer: Printer): Sensors => printer.sensors ?? UNCHECKED

/** What is known of the sensors of one head, its bed and its chamber. */
export function sensorsOf(printer: Printer, headId: number): HeadSensors {
  const { heads, bed, chamber } = knownOf(printer)
  return { hotend: heads[headId] ?? null, bed, chamber }
}

/** What a setpoint makes. */
export function heatAt(c: Correction | null, setC: number): Heat {
  // nobody has checked: asked a hundred thousand times a second, by those who checked their numbers
  if (c === null) return { setC, trueC: setC, u90C: 0, covered: false, from: '' }
  const { cC, u90C, covered, from } = correctionAt(c, setC)
  return { setC, trueC: setC + cC, u90C, covered, from }
}
/** What is set to make a temperature. Where nothing set makes it exactly, the next that is hotter. */
export const heatFor = (c: Correction | null, wantedC: number): Heat =>
  heatAt(c, c === null ? wantedC : setFor(c, wantedC))
/** Two uncertainties by squares; one of them mostly is not there, and squares and roots take their time. */
export const together = (a: number, b: number) => (b === 0 ? Math.abs(a) : Math.hypot(a, b))
/** A heater that is off: as warm as the room, by nobody's sensor. */
export const unheated = (roomC: number): Heat => ({ setC: roomC, trueC: roomC, u90C: 0, covered: false, from: '' })

/**
 * What a heater is asked for where its limit is what it reaches: nobody knows whether that was read off a display, so
 * the setpoint and what it makes must both be within.
 */
export const reached = (heat: Heat) => Math.max(heat.setC, heat.trueC)

/** What a setpoint is against the limit of a part of hotend or bed, with its U: the firmware's goes by what is set. */
export function against(role: Part['role'], heat: Heat): { c: number; u90: number } {
  if (role === 'firmware') return { c: heat.setC, u90: 0 }
  return { c: role === 'bed heater' ? reached(heat) : heat.trueC, u90: heat.u90C }
}

/** Whether a setpoint is worth telling from what it makes: less is no more than a display swings. */
export const differs = (heat: Heat) => Math.abs(heat.trueC - heat.setC) >= 0.05

/** The band never falls under what stands for overshoot, gradient and ageing, °C. */
export const GUARD_FLOOR_C: Record<Zone, number> = { hotend: 5, bed: 3, chamber: 3 }

/** The guard band of a zone, °C; less the sensor's part of it where a check covers that. */
export function guardOf(zone: Zone, r: Rules, covered = false): number {
  if (covered) return checkedGuard(zone, r)
  if (zone === 'hotend') return r.guardHotendC
  return zone === 'bed' ? r.guardBedC : r.guardChamberC
}
function checkedGuard(zone: Zone, r: Rules): number {
  const checked = { hotend: r.guardHotendCheckedC, bed: r.guardBedCheckedC, chamber: r.guardChamberCheckedC }[zone]
  return Math.max(GUARD_FLOOR_C[zone], Math.min(guardOf(zone, r), checked))
}
