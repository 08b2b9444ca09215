/** Platinum resistance sensors: Callendar–Van Dusen. Source: IEC 60751 (coefficients and ranges). */
import { need } from '../numeric'

/** Coefficient A of IEC 60751, per °C. */
export const CVD_A = 3.9083e-3
/** Coefficient B of IEC 60751, per °C². */
export const CVD_B = -5.775e-7
/** Coefficient C of IEC 60751, per °C⁴, below 0 °C. */
export const CVD_C = -4.183e-12
/** Where class B holds, °C: films and wire windings (IEC 60751). Outside, nobody vouches for the reading. */
export const PT_FILM_RANGE_C = [-50, 500] as const
/** Where a wire-wound sensor of class B is specified, °C (IEC 60751). */
export const PT_WIRE_RANGE_C = [-196, 600] as const

/**
 * Resistance in Ω at t °C (−200 to 850) of a sensor with R₀ Ω at 0 °C (100 for Pt100, 1000 for Pt1000). Throws
 * InputError.
 *
 * @example
 * platinumOhm(100, 100) // 138.51 (Ω; IEC 60751)
 */
export function platinumOhm(tC: number, r0Ohm = 100): number {
  need('tC', tC, -200, 850, '°C')
  need('r0Ohm', r0Ohm, 1, 100_000, 'Ω')
  const cubic = tC < 0 ? CVD_C * (tC - 100) * tC ** 3 : 0
  return r0Ohm * (1 + CVD_A * tC + CVD_B * tC * tC + cubic)
}

/** dR/dt in Ω per °C, for t from 0 to 850 °C. */
export function platinumSlope(tC: number, r0Ohm = 100): number {
  need('tC', tC, 0, 850, '°C')
  need('r0Ohm', r0Ohm, 1, 100_000, 'Ω')
  return r0Ohm * (CVD_A + 2 * CVD_B * tC)
}
