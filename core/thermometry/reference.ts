/**
 * What a reference says the temperature is, and how sure that is: the sum by squares of its class or certificate, its
 * meter, its cold junction and its leads (GUM, JCGM 100: limits ±a count as a/√3). °C, mV, Ω; u is standard (k = 1).
 */
import { InputError, need, needIfKnown, needOne } from '../numeric'
import { leadError, platinumCelsius, platinumOhm, platinumSlope, WIRINGS, type Wiring } from './platinum'
import {
  COLD_C,
  THERMOCOUPLES,
  thermocoupleCelsius,
  thermocoupleRangeC,
  thermocoupleSlope,
  type Thermocouple,
} from './thermocouple'
import {
  PLATINUM_CLASSES,
  platinumTolerance,
  THERMOCOUPLE_CLASSES,
  thermocoupleTolerance,
  type PlatinumBuild,
  type PlatinumClass,
  type ThermocoupleClass,
} from './tolerance'

/** What the shop holds against a sensor. */
export const REFERENCE_KINDS = ['thermocouple', 'platinum', 'probe'] as const
export type ReferenceKind = (typeof REFERENCE_KINDS)[number]
/** What is read off: millivolts, ohms, or degrees that a meter has made of them. */
export const READ_IN = ['mV', 'Ω', '°C'] as const
export type ReadIn = (typeof READ_IN)[number]

/** A reference as the shop has it. What a kind does not have is null. */
export interface Reference {
  kind: ReferenceKind
  readsIn: ReadIn
  /** Thermocouple: its type and class. */
  type: Thermocouple | null
  coupleClass: ThermocoupleClass | null
  /** Platinum: R₀ in Ω, how it is made, its class, its wires, and both leads together as measured shorted. */
  r0Ohm: number | null
  build: PlatinumBuild | null
  platinumClass: PlatinumClass | null
  wires: Wiring | null
  leadOhm: number | null
  uLeadOhm: number | null
  /** Standard uncertainty by its certificate, °C; takes the place of its class. A probe needs one. */
  certificateUC: number | null
  /** What the meter may be off by, ±, in the unit of the reading. */
  meter: number
}

/** Standard uncertainty of a cold junction measured beside the terminals, °C; common practice, no source. */
export const COLD_JUNCTION_UC = 0.5
/** Ranges of a reference's numbers: Ω, °C. */
export const R0_OHM = [10, 10_000] as const
/** Both leads together, Ω. */
export const LEAD_OHM = [0, 100] as const
/** Standard uncertainty that a certificate may state, °C. */
export const CERTIFICATE_UC = [0.005, 20] as const
/** ± of a meter, in mV, Ω or °C. */
export const METER = [0, 20] as const
/** Readings in °C of a reference. */
export const REFERENCE_C = [-200, 1372] as const

/** One share of an uncertainty. */
export interface Share {
  what: string
  uC: number
}
/** What a reference says: `uC` null where nobody vouches for it (its class does not reach there). */
export interface Said {
  trueC: number
  uC: number | null
  budget: Share[]
}

const limits = (a: number) => a / Math.sqrt(3)

/** Refuses what is no reference. Throws InputError that names the field. */
export function checkReference(r: Reference): void {
  needOne('kind', r.kind, REFERENCE_KINDS)
  const units: Record<ReferenceKind, readonly ReadIn[]> = {
    thermocouple: ['mV', '°C'],
    platinum: ['Ω', '°C'],
    probe: ['°C'],
  }
  needOne('readsIn', r.readsIn, units[r.kind])
  need('meter', r.meter, ...METER, r.readsIn)
  needIfKnown('certificateUC', r.certificateUC, ...CERTIFICATE_UC, '°C')
  if (r.kind === 'thermocouple') {
    needOne('type', r.type, THERMOCOUPLES)
    if (r.coupleClass !== null) needOne('coupleClass', r.coupleClass, THERMOCOUPLE_CLASSES)
    if (r.certificateUC === null && r.coupleClass === null)
      throw new InputError('coupleClass', null, 'its class, or the uncertainty of its certificate')
  }
  if (r.kind === 'platinum') {
    need('r0Ohm', r.r0Ohm ?? NaN, ...R0_OHM, 'Ω')
    needOne('wires', r.wires, WIRINGS)
    if (r.platinumClass !== null) needOne('platinumClass', r.platinumClass, PLATINUM_CLASSES)
    if (r.certificateUC === null && (r.platinumClass === null || r.build === null))
      throw new InputError('platinumClass', null, 'its class and how it is made, or the uncertainty of its certificate')
    if (r.wires === 2 && r.leadOhm === null)
      throw new InputError('leadOhm', null, 'the resistance of both leads, measured with their ends shorted')
    needIfKnown('leadOhm', r.leadOhm, ...LEAD_OHM, 'Ω')
    needIfKnown('uLeadOhm', r.uLeadOhm, ...LEAD_OHM, 'Ω')
  }
  if (r.kind === 'probe' && r.certificateUC === null)
    throw new InputError('certificateUC', null, 'the standard uncertainty of its certificate')
}

/**
 * The temperature that a reading means, with its budget. `reading` in the unit of the reference; `coldC` (−40 to 80 °C)
 * is needed for millivolts. Throws InputError that names `reading` or `coldC` for what no such reference can read:
 * millivolts outside its type, ohms of another element, a cold junction that is none.
 *
 * @example
 * const couple = { kind: 'thermocouple', readsIn: 'mV', type: 'K', coupleClass: 1, r0Ohm: null, build: null,
 *   platinumClass: null, wires: null, leadOhm: null, uLeadOhm: null, certificateUC: null, meter: 0.01 }
 * referenceSays(couple, 11.183, 25.6).trueC // 300 (°C)
 */
export function referenceSays(r: Reference, reading: number, coldC: number | null): Said {
  checkReference(r)
  if (r.kind === 'thermocouple') return coupleSays(r, reading, coldC)
  if (r.kind === 'platinum') return platinumSays(r, reading)
  need('reading', reading, ...REFERENCE_C, '°C')
  return said(reading, [
    { what: 'its certificate', uC: r.certificateUC! },
    { what: 'its display', uC: limits(r.meter) },
  ])
}

function said(trueC: number, budget: (Share | null)[]): Said {
  const known = budget.filter(s => s !== null).filter(s => s.uC > 0)
  return { trueC, uC: budget.includes(null) ? null : Math.hypot(...known.map(s => s.uC)), budget: known }
}

/** The share of a class or a certificate; null where the class does not reach. */
function vouched(r: Reference, toleranceC: number | null): Share | null {
  if (r.certificateUC !== null) return { what: 'its certificate', uC: r.certificateUC }
  return toleranceC === null ? null : { what: 'its class', uC: limits(toleranceC) }
}

function coupleSays(r: Reference, reading: number, coldC: number | null): Said {
  const type = r.type!
  const millivolts = r.readsIn === 'mV'
  needIfKnown('coldC', coldC, ...COLD_C, '°C')
  if (millivolts && coldC === null)
    throw new InputError('coldC', null, 'the temperature of its cold junction, measured beside the terminals')
  let tC: number
  try {
    tC = millivolts ? thermocoupleCelsius(type, reading, coldC!) : reading
    need('reading', tC, ...thermocoupleRangeC(type), '°C')
  } catch (e) {
    throw e instanceof InputError ? new InputError('reading', reading, e.allowed) : e
  }
  const slope = thermocoupleSlope(type, tC)
  // a meter that shows degrees has a cold junction too, warm or not
  const cold = (COLD_JUNCTION_UC * thermocoupleSlope(type, coldC ?? 23)) / slope
  return said(tC, [
    vouched(r, r.coupleClass && thermocoupleTolerance(type, r.coupleClass, tC)),
    { what: 'its meter', uC: limits(millivolts ? r.meter / slope : r.meter) },
    { what: 'its cold junction', uC: cold },
  ])
}

function platinumSays(r: Reference, reading: number): Said {
  const [r0, lead] = [r.r0Ohm!, leadError(r.wires!, r.leadOhm ?? 0, r.uLeadOhm ?? 0)]
  let tC: number
  try {
    const ohm = r.readsIn === 'Ω' ? reading : platinumOhm(reading, r0)
    tC = platinumCelsius(ohm - lead.ohm, r0)
  } catch (e) {
    throw e instanceof InputError ? new InputError('reading', reading, e.allowed) : e
  }
  const slope = platinumSlope(tC, r0)
  return said(tC, [
    vouched(r, r.platinumClass && r.build && platinumTolerance(r.platinumClass, r.build, tC)),
    { what: 'its meter', uC: limits(r.readsIn === 'Ω' ? r.meter / slope : r.meter) },
    { what: 'its leads', uC: lead.uOhm / slope },
  ])
}
