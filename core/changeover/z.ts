/** Where the head must stop with another nozzle. mm. Source: common practice, no source. */
import { need } from '../numeric'

/** Which way a printer's Z number counts: of two numbers the larger one leaves more room under the nozzle, or less. */
export const Z_WAYS = ['larger is higher', 'larger is lower'] as const
export type ZWay = (typeof Z_WAYS)[number]
/** Any Z number that a printer shows, mm. */
export const Z_MM = [-60, 60] as const
/** So far above where it should stop the first approach ends, mm. */
export const APPROACH_MM = 1
/** A change of length that nobody sets, mm. */
const SAME_MM = 0.005

/** What a change of length (mm, new less old) means at the printer, in words that cannot be read the wrong way. */
export function zWords(mm: number): string {
  need('mm', mm, -100, 100, 'mm')
  if (Math.abs(mm) < SAME_MM) return 'Both are as long: the head stops where it did.'
  const by = `${Math.abs(mm).toFixed(2)} mm`
  return mm > 0
    ? `The new one is ${by} longer: the head must stop ${by} higher.`
    : `The new one is ${by} shorter: the head must stop ${by} lower.`
}

/**
 * The printer's own Z number for a change of length, mm: what is expected, and what is set for the first approach,
 * which ends 1 mm higher. Z number -60 to 60, change -100 to 100.
 *
 * @example
 * zNumbers(-1.2, 0.5, 'larger is higher').startMm // 0.3 (mm; expected is -0.7)
 */
export function zNumbers(beforeMm: number, changeMm: number, way: ZWay): { expectedMm: number; startMm: number } {
  need('beforeMm', beforeMm, ...Z_MM, 'mm')
  need('changeMm', changeMm, -100, 100, 'mm')
  const up = way === 'larger is higher' ? 1 : -1
  const to = (mm: number) => Number((beforeMm + up * mm).toFixed(3))
  return { expectedMm: to(changeMm), startMm: to(changeMm + APPROACH_MM) }
}
