/**
 * Thermistors (NTC): the beta equation, Steinhart–Hart through three points, and the table that a firmware reads a
 * divider by. Ω, °C, K. Sources: Steinhart & Hart 1968, Deep-Sea Research 15, 497; beta equation: any text on
 * thermistors.
 */
import { bisect, InputError, need } from '../numeric'

const KELVIN = 273.15
/** Temperatures of a thermistor, °C. */
const NTC_C = [-50, 400] as const
/** Ohms of a thermistor anywhere in its range, Ω. */
const NTC_OHM = [0.1, 1e8] as const

export interface Divider {
  pullUpOhm: number
  bits: number
}

/** Refuses a divider that is none. Throws InputError. */
export function checkDivider(d: Divider): void {
  need('pullUpOhm', d.pullUpOhm, 10, 1e7, 'Ω')
  need('bits', d.bits, 6, 24, 'bits')
}

/** Resistance in Ω of an NTC with R at 25 °C and beta in K, at t °C (−50 to 400). */
export function ntcOhm(tC: number, r25Ohm: number, betaK: number): number {
  need('tC', tC, ...NTC_C, '°C')
  need('r25Ohm', r25Ohm, 100, 1e7, 'Ω')
  need('betaK', betaK, 1000, 6000, 'K')
  return r25Ohm * Math.exp(betaK * (1 / (tC + KELVIN) - 1 / (25 + KELVIN)))
}

/** Coefficients of 1/T = a + b·ln R + c·(ln R)³, T in K and R in Ω. */
export interface SteinhartHart {
  a: number
  b: number
  c: number
}

/** The same curve as a beta equation: c = 0. */
export function ofBeta(r25Ohm: number, betaK: number): SteinhartHart {
  need('r25Ohm', r25Ohm, 100, 1e7, 'Ω')
  need('betaK', betaK, 1000, 6000, 'K')
  return { a: 1 / (25 + KELVIN) - Math.log(r25Ohm) / betaK, b: 1 / betaK, c: 0 }
}

/**
 * Steinhart–Hart through three points (°C from −50 to 400, Ω from 0.1 to 1e8), at least 10 °C apart and falling in
 * resistance as they get hotter. Throws InputError that names the point.
 *
 * @example
 * steinhartHart([{ tC: 0, ohm: 32650 }, { tC: 25, ohm: 10000 }, { tC: 70, ohm: 1752 }]).b // 0.0002342 (per K)
 */
export function steinhartHart(points: readonly { tC: number; ohm: number }[]): SteinhartHart {
  if (points.length !== 3) throw new InputError('points', points.length, 'three points')
  points.forEach((p, i) => {
    need(`points.${i}.tC`, p.tC, ...NTC_C, '°C')
    need(`points.${i}.ohm`, p.ohm, ...NTC_OHM, 'Ω')
  })
  for (const [i, p] of points.entries()) {
    const before = points[i - 1]
    if (before === undefined) continue
    if (p.tC < before.tC + 10)
      throw new InputError(`points.${i}.tC`, p.tC, `at least 10 °C above the point before, ${before.tC} °C`)
    if (p.ohm >= before.ohm)
      throw new InputError(`points.${i}.ohm`, p.ohm, `under ${before.ohm} Ω: a thermistor falls as it gets hotter`)
  }
  const [l1, l2, l3] = points.map(p => Math.log(p.ohm)) as [number, number, number]
  const [y1, y2, y3] = points.map(p => 1 / (p.tC + KELVIN)) as [number, number, number]
  const g2 = (y2 - y1) / (l2 - l1)
  const g3 = (y3 - y1) / (l3 - l1)
  const c = (g3 - g2) / (l3 - l2) / (l1 + l2 + l3)
  const b = g2 - c * (l1 * l1 + l1 * l2 + l2 * l2)
  return { a: y1 - (b + l1 * l1 * c) * l1, b, c }
}

/** Temperature in °C of a resistance (0.1 to 1e8 Ω). Throws InputError where the curve gives none. */
export function ntcCelsius(s: SteinhartHart, ohm: number): number {
  need('ohm', ohm, ...NTC_OHM, 'Ω')
  const l = Math.log(ohm)
  const inverse = s.a + s.b * l + s.c * l ** 3
  if (!(inverse > 1e-4)) throw new InputError('ohm', ohm, 'a resistance inside the three points or near them')
  return 1 / inverse - KELVIN
}

/**
 * Resistance in Ω at t °C (−50 to 400) on a Steinhart–Hart curve: the one at which it falls as it gets hotter. Throws
 * InputError where the curve does not reach.
 */
export function ohmOf(s: SteinhartHart, tC: number): number {
  need('tC', tC, ...NTC_C, '°C')
  const wanted = 1 / (tC + KELVIN)
  const f = (l: number) => s.a + s.b * l + s.c * l ** 3 - wanted
  // where its slope changes sign: a cubic through three points turns somewhere, mostly far outside of them
  const turn = s.c === 0 ? Infinity : Math.sqrt(Math.max(0, -s.b / (3 * s.c)))
  const [low, high] = [Math.log(NTC_OHM[0]), Math.log(NTC_OHM[1])]
  const [from, to] = s.c < 0 ? [low, Math.min(high, turn)] : [Math.max(low, s.b < 0 ? turn : low), high]
  if (!(from < to) || f(from) > 0 || f(to) < 0)
    throw new InputError('tC', tC, 'a temperature inside the three points or near them')
  return Math.exp(bisect(l => f(l) > 0, from, to, 1e-13))
}

/** One line of a firmware's table: temperature, resistance, and the count its converter reads. */
export interface TableLine {
  tC: number
  ohm: number
  count: number
}

/**
 * The table a firmware looks a thermistor up in: from `fromC` to `toC` (−50 to 400 °C) in steps of `stepC` (1 to 50
 * °C), with the count of an n-bit converter on a divider, 2ⁿ·R/(R + R_p), the hottest first. Throws InputError.
 */
export function firmwareTable(
  s: SteinhartHart,
  d: Divider,
  range: { fromC: number; toC: number; stepC: number },
): TableLine[] {
  checkDivider(d)
  need('fromC', range.fromC, ...NTC_C, '°C')
  need('toC', range.toC, range.fromC, NTC_C[1], '°C')
  need('stepC', range.stepC, 1, 50, '°C')
  const out: TableLine[] = []
  for (let i = 0; range.toC - i * range.stepC >= range.fromC - 1e-9; i++) {
    const tC = range.toC - i * range.stepC
    const ohm = ohmOf(s, tC)
    out.push({ tC, ohm, count: (2 ** d.bits * ohm) / (ohm + d.pullUpOhm) })
  }
  return out
}
