/**
 * How hot a surface may be to touch: burn thresholds after ISO 13732-1 by material and time of contact, from memory;
 * the lower end where the standard gives a range. °C, s. The standard itself and local rules come first.
 */
import { need, needOne } from '../numeric'

/** What is touched: a film of paint counts as bare metal, to be safe. */
export const TOUCHED = ['metal', 'glass', 'plastic', 'wood'] as const
export type Touched = (typeof TOUCHED)[number]
/** Times of contact, s: a brush, holding on, a minute, leaning on it, all day. */
export const CONTACTS_S = [1, 10, 60, 600, 28_800] as const
/** From 10 min on all materials burn alike. */
const THRESHOLD_C: Record<Touched, readonly [number, number, number, number, number]> = {
  metal: [65, 55, 51, 48, 43],
  glass: [80, 66, 56, 48, 43],
  plastic: [85, 71, 60, 48, 43],
  wood: [110, 89, 60, 48, 43],
}

/**
 * The temperature from which a touch of so many seconds may burn, °C; between the times of the standard that of the
 * longer one. 0 to 28 800 s.
 *
 * @example
 * burnsFromC('glass', 60) // 56
 */
export function burnsFromC(what: Touched, contactS: number): number {
  needOne('what', what, TOUCHED)
  need('contactS', contactS, 0, CONTACTS_S[CONTACTS_S.length - 1]!, 's')
  return THRESHOLD_C[what][CONTACTS_S.findIndex(s => contactS <= s)]!
}

/** The longest contact that a surface at `surfaceC` does not burn by, s; 0 where a brush of it may. */
export function safeContactS(what: Touched, surfaceC: number): number {
  needOne('what', what, TOUCHED)
  need('surfaceC', surfaceC, -100, 1000, '°C')
  return CONTACTS_S.reduce((a, s, i) => (surfaceC < THRESHOLD_C[what][i]! ? s : a), 0)
}
