/**
 * How far off a sensor of a class may be, °C. Outside the range a class is specified for nobody vouches for it: null,
 * "cannot tell". Sources: IEC 60751 (platinum; classes and their ranges), IEC 60584-1 (thermocouples; from memory for
 * classes 3 and type T).
 */
import { need, needOne } from '../numeric'
import type { Thermocouple } from './thermocouple'
import { PT_FILM_RANGE_C, PT_WIRE_RANGE_C } from './platinum'

/** Classes of platinum sensors, IEC 60751. */
export const PLATINUM_CLASSES = ['AA', 'A', 'B', 'C'] as const
export type PlatinumClass = (typeof PLATINUM_CLASSES)[number]
/** Wound wire or a film on ceramic. */
export const PLATINUM_BUILDS = ['wire', 'film'] as const
export type PlatinumBuild = (typeof PLATINUM_BUILDS)[number]
/** Classes of thermocouples, IEC 60584-1. */
export const THERMOCOUPLE_CLASSES = [1, 2, 3] as const
export type ThermocoupleClass = (typeof THERMOCOUPLE_CLASSES)[number]

type Range = readonly [number, number]

const PLATINUM: Record<PlatinumClass, { fixedC: number; share: number } & Record<PlatinumBuild, Range>> = {
  AA: { fixedC: 0.1, share: 0.0017, wire: [-50, 250], film: [0, 150] },
  A: { fixedC: 0.15, share: 0.002, wire: [-100, 450], film: [-30, 300] },
  B: { fixedC: 0.3, share: 0.005, wire: PT_WIRE_RANGE_C, film: PT_FILM_RANGE_C },
  C: { fixedC: 0.6, share: 0.01, wire: [-196, 600], film: [-50, 600] },
}

/** The larger of both: a fixed part, and a share of the temperature. Null where a type has no such class. */
const COUPLES: Record<
  Thermocouple,
  Record<ThermocoupleClass, { leastC: number; share: number; range: Range } | null>
> = {
  J: {
    1: { leastC: 1.5, share: 0.004, range: [-40, 750] },
    2: { leastC: 2.5, share: 0.0075, range: [-40, 750] },
    3: null,
  },
  K: {
    1: { leastC: 1.5, share: 0.004, range: [-40, 1000] },
    2: { leastC: 2.5, share: 0.0075, range: [-40, 1200] },
    3: { leastC: 2.5, share: 0.015, range: [-200, 40] },
  },
  N: {
    1: { leastC: 1.5, share: 0.004, range: [-40, 1000] },
    2: { leastC: 2.5, share: 0.0075, range: [-40, 1200] },
    3: { leastC: 2.5, share: 0.015, range: [-200, 40] },
  },
  T: {
    1: { leastC: 0.5, share: 0.004, range: [-40, 350] },
    2: { leastC: 1, share: 0.0075, range: [-40, 350] },
    3: { leastC: 1, share: 0.015, range: [-200, 40] },
  },
}

/** Any temperature a class is asked about, °C. */
const ASKED_C = [-300, 2000] as const

/**
 * ± °C at t °C (−300 to 2000) of a platinum sensor of a class; null outside the range it is specified for.
 *
 * @example
 * platinumTolerance('B', 'film', 300) // 1.8 (°C; 0.30 + 0.005·300)
 */
export function platinumTolerance(is: PlatinumClass, build: PlatinumBuild, tC: number): number | null {
  needOne('class', is, PLATINUM_CLASSES)
  needOne('build', build, PLATINUM_BUILDS)
  need('tC', tC, ...ASKED_C, '°C')
  const c = PLATINUM[is]
  const [from, to] = c[build]
  return tC >= from && tC <= to ? c.fixedC + c.share * Math.abs(tC) : null
}

/** ± °C at t °C (−300 to 2000) of a thermocouple; null outside the range of its class, or where there is none. */
export function thermocoupleTolerance(type: Thermocouple, is: ThermocoupleClass, tC: number): number | null {
  needOne('class', is, THERMOCOUPLE_CLASSES)
  need('tC', tC, ...ASKED_C, '°C')
  const c = COUPLES[type][is]
  return c && tC >= c.range[0] && tC <= c.range[1] ? Math.max(c.leastC, c.share * Math.abs(tC)) : null
}

/** What a sensor is allowed to be off by: its class, or ± °C from a data sheet or the shop's own rule. */
export type Allowed =
  | { by: 'platinum'; class: PlatinumClass; build: PlatinumBuild }
  | { by: 'thermocouple'; type: Thermocouple; class: ThermocoupleClass }
  | { by: 'data sheet' | 'guard band'; plusMinusC: number }

/** ± °C that is allowed at t °C (−300 to 2000); null where nobody vouches for it. Throws InputError. */
export function allowedAt(a: Allowed, tC: number): number | null {
  if (a.by === 'platinum') return platinumTolerance(a.class, a.build, tC)
  if (a.by === 'thermocouple') return thermocoupleTolerance(a.type, a.class, tC)
  need('plusMinusC', a.plusMinusC, ...ALLOWED_C, '°C')
  need('tC', tC, ...ASKED_C, '°C')
  return a.plusMinusC
}

/** What may be entered as allowed, ± °C. */
export const ALLOWED_C = [0.1, 50] as const
