/**
 * What a pin of a set measures by its certificates, so that gauges made with it count by the pin and not by the figure
 * on its box. mm, standard uncertainties (k = 1).
 *
 * Before its first certificate a pin is taken as that found it: nobody knows better. Between two certificates it lies
 * somewhere from one to the other, evenly likely: the middle, with |b − a|/√12 beside the worse of the two. After the
 * last it is as that found it. So one error of a pin is the error of all gauges made with it meanwhile.
 * Source: rectangular distribution of a quantity known by its bounds, JCGM 100:2008 (GUM), 4.3.7; that what was
 * measured since the last good certificate is in question is common practice, no source.
 */
import { AT_MS, need, needIfKnown } from '../numeric'
import { BORE_MM } from './check'

export interface PinCertificate {
  /** When the pin was measured, ms since 1970. */
  atMs: number
  sizeMm: number
  /** Standard uncertainty, mm. */
  uMm: number
}
export interface PinSize {
  sizeMm: number
  uMm: number
}

/** Standard uncertainty that a certificate of a pin can have, mm. */
export const PIN_CERTIFICATE_U_MM = [0.00001, 0.05] as const
/** A size typed for a pin is that pin's when it is within this of its nominal or of a certified size, mm. */
export const PIN_NEAR_MM = 0.006

/**
 * A pin at a moment, by its certificates in any order (sizes 0.01 to 5 mm); null without one.
 *
 * @example
 * const certificates = [0.42, 0.416].map((sizeMm, i) => ({ atMs: i, sizeMm, uMm: 0.001 }))
 * pinAt(certificates, 20) // {"sizeMm":0.416,"uMm":0.001}
 */
export function pinAt(certificates: readonly PinCertificate[], atMs: number): PinSize | null {
  need('atMs', atMs, ...AT_MS, 'ms')
  for (const c of certificates) {
    need('certificates.atMs', c.atMs, ...AT_MS, 'ms')
    need('certificates.sizeMm', c.sizeMm, ...BORE_MM, 'mm')
    need('certificates.uMm', c.uMm, ...PIN_CERTIFICATE_U_MM, 'mm')
  }
  const inTime = [...certificates].sort((a, b) => a.atMs - b.atMs)
  const before = inTime.filter(c => c.atMs <= atMs).at(-1)
  const after = inTime.find(c => c.atMs > atMs)
  const one = before ?? after
  if (one === undefined) return null
  if (before === undefined || after === undefined) return { sizeMm: one.sizeMm, uMm: one.uMm }
  const apart = Math.abs(after.sizeMm - before.sizeMm)
  return {
    sizeMm: (before.sizeMm + after.sizeMm) / 2,
    uMm: Math.hypot(Math.max(before.uMm, after.uMm), apart / Math.sqrt(12)),
  }
}

/** Whether a size that was typed (mm) can be this pin: its nominal or what a certificate found, within PIN_NEAR_MM. */
export function isOfPin(typedMm: number, nominalMm: number, certificates: readonly PinCertificate[]): boolean {
  need('typedMm', typedMm, ...BORE_MM, 'mm')
  need('nominalMm', nominalMm, ...BORE_MM, 'mm')
  return [nominalMm, ...certificates.map(c => c.sizeMm)].some(mm => Math.abs(typedMm - mm) <= PIN_NEAR_MM)
}

/**
 * What a pin counts as where a size (mm) was typed for it at a moment (ms since 1970): by its certificates; null where
 * it has none, or where the size is another pin's: then it counts as typed.
 */
export function countedPin(
  pin: { nominalMm: number; certificates: readonly PinCertificate[] },
  typedMm: number,
  atMs: number,
): PinSize | null {
  return isOfPin(typedMm, pin.nominalMm, pin.certificates) ? pinAt(pin.certificates, atMs) : null
}

/** The least that two pins of a reading differ by, so that one is the larger, mm. */
export const PINS_APART_MM = 0.0002

/** Whether two pins (mm) are a pair: the one that goes smaller than the one that does not. One alone needs no other. */
export function isPinPair(goMm: number | null, noGoMm: number | null): boolean {
  needIfKnown('goMm', goMm, ...BORE_MM, 'mm')
  needIfKnown('noGoMm', noGoMm, ...BORE_MM, 'mm')
  return goMm === null || noGoMm === null || noGoMm - goMm >= PINS_APART_MM
}
