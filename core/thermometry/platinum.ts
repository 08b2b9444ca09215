/**
 * Platinum resistance sensors: Callendar–Van Dusen, and its inverse. Ω, °C. Source: IEC 60751 (coefficients and
 * ranges).
 */
import { InputError, need } from '../numeric'

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
/** Where the function holds, °C. */
const ALL_C = [-200, 850] as const

/** Resistance over R₀. */
function ratio(tC: number): number {
  const cubic = tC < 0 ? CVD_C * (tC - 100) * tC ** 3 : 0
  return 1 + CVD_A * tC + CVD_B * tC * tC + cubic
}
const ratioSlope = (tC: number) => CVD_A + 2 * CVD_B * tC + (tC < 0 ? CVD_C * (4 * tC ** 3 - 300 * tC ** 2) : 0)

/**
 * Resistance in Ω at t °C (−200 to 850) of a sensor with R₀ Ω at 0 °C (100 for Pt100, 1000 for Pt1000). Throws
 * InputError.
 *
 * @example
 * platinumOhm(100, 100) // 138.51 (Ω; IEC 60751)
 */
export function platinumOhm(tC: number, r0Ohm = 100): number {
  need('tC', tC, ...ALL_C, '°C')
  need('r0Ohm', r0Ohm, 1, 100_000, 'Ω')
  return r0Ohm * ratio(tC)
}

/** dR/dt in Ω per °C, for t from −200 to 850 °C. */
export function platinumSlope(tC: number, r0Ohm = 100): number {
  need('tC', tC, ...ALL_C, '°C')
  need('r0Ohm', r0Ohm, 1, 100_000, 'Ω')
  return r0Ohm * ratioSlope(tC)
}

/**
 * Temperature in °C of a resistance in Ω: the quadratic solved above 0 °C, Newton's method below. Throws InputError for
 * ohms that no temperature from −200 to 850 °C makes; when they would suit the other usual element, it says so.
 *
 * @example
 * platinumCelsius(212.05, 100) // 300 (°C; IEC 60751)
 */
export function platinumCelsius(ohm: number, r0Ohm = 100): number {
  need('r0Ohm', r0Ohm, 1, 100_000, 'Ω')
  const [least, most] = [r0Ohm * ratio(ALL_C[0]), r0Ohm * ratio(ALL_C[1])]
  if (!(ohm >= least && ohm <= most)) {
    const other = [100, 1000].find(r => r !== r0Ohm && ohm >= r * ratio(-50) && ohm <= r * ratio(500))
    const perhaps = other === undefined ? '' : `; is it a Pt${other}?`
    throw new InputError('ohm', ohm, `${least.toFixed(1)} to ${most.toFixed(1)} Ω${perhaps}`)
  }
  const r = ohm / r0Ohm
  let t = (-CVD_A + Math.sqrt(CVD_A ** 2 - 4 * CVD_B * (1 - r))) / (2 * CVD_B)
  if (t < 0) for (let i = 0; i < 6; i++) t -= (ratio(t) - r) / ratioSlope(t)
  return t
}

/** How a platinum sensor is wired. With two wires their resistance is read as temperature. */
export const WIRINGS = [2, 3, 4] as const
export type Wiring = (typeof WIRINGS)[number]

/** How much of a lead's resistance three wires leave in the reading: leads are never quite alike. Common practice. */
export const THREE_WIRE_LEAVES = 0.02

/**
 * What leads add to a reading, Ω, and its standard uncertainty, Ω: with two wires all of both leads (the shop measures
 * them shorted, or guesses), with three what differs between them, with four nothing. `leadOhm` (0 to 100 Ω) of both
 * leads together and `uLeadOhm` (0 to 100 Ω) as measured.
 */
export function leadError(wires: Wiring, leadOhm: number, uLeadOhm: number): { ohm: number; uOhm: number } {
  need('leadOhm', leadOhm, 0, 100, 'Ω')
  need('uLeadOhm', uLeadOhm, 0, 100, 'Ω')
  need('wires', wires, 2, 4)
  if (wires === 2) return { ohm: leadOhm, uOhm: uLeadOhm }
  return { ohm: 0, uOhm: wires === 3 ? leadOhm * THREE_WIRE_LEAVES : 0 }
}
