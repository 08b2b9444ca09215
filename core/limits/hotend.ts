/**
 * A hotend as one thing: block, break, liner, heater, sensor, sock and nozzle that are moved together, with all their
 * leads. What a printer is with another one on it, and how long that takes. °C, minutes.
 * Source: common practice, no source; minutes are invented start values.
 */
import { checkNozzleNumbers, checkPart } from './check'
import type { FittedNozzle, Part, Printer, Role } from './types'

/** Roles of the parts that go along when a hotend is moved; firmware, gears and feed tube stay with the printer. */
export const HOTEND_ROLES = [
  'heater',
  'sensor',
  'liner',
  'heat break',
  'block',
  'sock',
  'other hotend part',
] as const satisfies readonly Role[]
/** Whether a part of this role goes along with its hotend. */
export const isHotendRole = (role: Part['role']): boolean => (HOTEND_ROLES as readonly string[]).includes(role)

export interface Hotend {
  id: number
  tag: string
  /** Their `headId` is null while it is on the shelf. */
  parts: readonly Part[]
  nozzle: FittedNozzle | null
}

/** Throws InputError for a part or a nozzle outside its range. */
export function checkHotend(h: Hotend): void {
  h.parts.forEach(checkPart)
  if (h.nozzle) checkNozzleNumbers(h.nozzle)
}

/** One hotend for another, wired ready: cool, plugs, loop, proofs, level, Z; a start value, minutes. */
export const HOTEND_MINUTES = 60
/** More for a sensor of another type: its type and ceiling in the firmware; a start value, minutes. */
export const SENSOR_TYPE_MINUTES = 20

/** What a sensor's type is to the firmware: its element, with the numbers of its curve. */
const typeOf = ({ details: { element, r25Ohm, betaK } }: Part) =>
  element === undefined ? null : `${element} ${r25Ohm ?? ''} ${element === 'ntc' ? (betaK ?? '') : ''}`

/** Whether the firmware reads this sensor as it read the one before; null where either is not described well enough. */
export function sameSensor(was: Part | null, is: Part | null): boolean | null {
  for (const p of [was, is]) if (p) checkPart(p)
  const [a, b] = [was && typeOf(was), is && typeOf(is)]
  return a === null || b === null ? null : a === b
}

const sensorIn = (parts: readonly Part[]) => parts.find(p => p.role === 'sensor') ?? null
const hotendOn = (printer: Printer, headId: number) =>
  printer.parts.filter(p => p.headId === headId && isHotendRole(p.role))

/** Minutes to put it on this head in place of what is there. Throws InputError for a part outside its range. */
export function hotendMinutes(printer: Printer, headId: number, hotend: Hotend): number {
  checkHotend(hotend)
  const same = sameSensor(sensorIn(hotendOn(printer, headId)), sensorIn(hotend.parts))
  return HOTEND_MINUTES + (same === true ? 0 : SENSOR_TYPE_MINUTES)
}

/** The printer with this hotend on a head; nobody has checked its sensor there. */
export function withHotend(printer: Printer, headId: number, hotend: Hotend): Printer {
  const off = hotendOn(printer, headId)
  return {
    ...printer,
    parts: [...printer.parts.filter(p => !off.includes(p)), ...hotend.parts.map(p => ({ ...p, headId }))],
    heads: printer.heads.map(h =>
      h.id === headId ? { ...h, nozzle: hotend.nozzle && { ...hotend.nozzle, headId } } : h,
    ),
    ...(printer.sensors && { sensors: { ...printer.sensors, heads: { ...printer.sensors.heads, [headId]: null } } }),
  }
}
