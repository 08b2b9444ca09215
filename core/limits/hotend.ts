/**
 * A hotend as one thing: block, break, liner, heater, sensor, sock and nozzle that are moved together, with all their
 * leads. What a printer is with another one on it, and whether that is quicker than changing parts. °C, minutes.
 * Source: common practice, no source; minutes are invented start values.
 */
import { compile, findChanges, type Offers, type Swap } from './changes'
import { checkNozzleNumbers, checkPart } from './check'
import type { Demand, FittedNozzle, Part, Printer, Role, Rules } from './types'

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

function checkHotend(h: Hotend): void {
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

export interface Instead {
  hotend: Hotend
  /** What has to be fitted beside it. */
  swaps: Swap[]
  /** All of it, minutes. */
  minutes: number
  /** What changing parts takes, minutes; null when no set of parts makes it run. */
  partsMinutes: number | null
}

/**
 * The hotend of the shelf with which a job runs sooner than by changing parts; null when there is none, or nothing on
 * the hotend has to be changed. Throws InputError for a demand, a part or a rule outside its range.
 */
export function hotendInstead(
  printer: Printer,
  headId: number,
  demand: Demand,
  offers: Offers,
  rules: Rules,
  hotends: readonly Hotend[],
): Instead | null {
  hotends.forEach(checkHotend)
  if (hotends.length === 0) return null
  const find = (p: Printer) => findChanges(compile(p, headId, offers, rules), [demand])
  const parts = find(printer)
  if (parts && !parts.swaps.some(s => s.role === 'nozzle' || isHotendRole(s.role))) return null
  let best: Instead | null = null
  for (const hotend of hotends) {
    const found = find(withHotend(printer, headId, hotend))
    // what is not known of it would stay not known
    if (found === null || (found.unknown && !parts?.unknown)) continue
    const minutes = hotendMinutes(printer, headId, hotend) + found.minutes
    if (minutes >= (best?.minutes ?? parts?.minutes ?? Infinity)) continue
    best = { hotend, swaps: found.swaps, minutes, partsMinutes: parts?.minutes ?? null }
  }
  return best
}
