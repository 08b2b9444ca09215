/**
 * Thermocouples of types J, K, N and T: voltage at a temperature with the cold junction at 0 °C, and back. mV, °C.
 * Source: IEC 60584-1 / NIST Monograph 175 (ITS-90 reference functions); coefficients from memory, held against the
 * published tables and the published inverse polynomials in the tests.
 */
import { InputError, need, needOne } from '../numeric'

/** Types of thermocouples that shops have. */
export const THERMOCOUPLES = ['J', 'K', 'N', 'T'] as const
export type Thermocouple = (typeof THERMOCOUPLES)[number]

/** One piece of a reference function: up to `toC`, a sum of powers of t. */
interface Piece {
  toC: number
  c: readonly number[]
}

const PIECES: Record<Thermocouple, { fromC: number; pieces: readonly Piece[] }> = {
  J: {
    fromC: -210,
    pieces: [
      {
        toC: 760,
        c: [
          0, 5.038118785e-2, 3.047583693e-5, -8.568106572e-8, 1.3228195295e-10, -1.7052958337e-13, 2.0948090697e-16,
          -1.2538395336e-19, 1.5631725697e-23,
        ],
      },
      {
        toC: 1200,
        c: [2.9645625681e2, -1.4976127786, 3.1787103924e-3, -3.1847686701e-6, 1.5720819004e-9, -3.0691369056e-13],
      },
    ],
  },
  K: {
    fromC: -270,
    pieces: [
      {
        toC: 0,
        c: [
          0, 3.9450128025e-2, 2.3622373598e-5, -3.2858906784e-7, -4.9904828777e-9, -6.7509059173e-11, -5.7410327428e-13,
          -3.1088872894e-15, -1.0451609365e-17, -1.9889266878e-20, -1.6322697486e-23,
        ],
      },
      {
        toC: 1372,
        c: [
          -1.7600413686e-2, 3.8921204975e-2, 1.8558770032e-5, -9.9457592874e-8, 3.1840945719e-10, -5.6072844889e-13,
          5.6075059059e-16, -3.2020720003e-19, 9.7151147152e-23, -1.2104721275e-26,
        ],
      },
    ],
  },
  N: {
    fromC: -270,
    pieces: [
      {
        toC: 0,
        c: [
          0, 2.6159105962e-2, 1.0957484228e-5, -9.3841111554e-8, -4.6412039759e-11, -2.6303357716e-12,
          -2.2653438003e-14, -7.6089300791e-17, -9.3419667835e-20,
        ],
      },
      {
        toC: 1300,
        c: [
          0, 2.5929394601e-2, 1.571014188e-5, 4.3825627237e-8, -2.5261169794e-10, 6.4311819339e-13, -1.0063471519e-15,
          9.9745338992e-19, -6.0863245607e-22, 2.0849229339e-25, -3.0682196151e-29,
        ],
      },
    ],
  },
  T: {
    fromC: -270,
    pieces: [
      {
        toC: 0,
        c: [
          0, 3.8748106364e-2, 4.4194434347e-5, 1.1844323105e-7, 2.0032973554e-8, 9.0138019559e-10, 2.2651156593e-11,
          3.6071154205e-13, 3.8493939883e-15, 2.8213521925e-17, 1.4251594779e-19, 4.8768662286e-22, 1.079553927e-24,
          1.3945027062e-27, 7.9795153927e-31,
        ],
      },
      {
        toC: 400,
        c: [
          0, 3.8748106364e-2, 3.329222788e-5, 2.0618243404e-7, -2.1882256846e-9, 1.0996880928e-11, -3.0815758772e-14,
          4.547913529e-17, -2.7512901673e-20,
        ],
      },
    ],
  },
}

/** What type K adds above 0 °C: a0·exp(a1·(t − a2)²). */
const A0 = 0.1185976
const A1 = -1.183432e-4
const A2 = 126.9686

/** Where a type has a reference function, °C. */
export const thermocoupleRangeC = (type: Thermocouple): readonly [number, number] => {
  needOne('type', type, THERMOCOUPLES)
  return [PIECES[type].fromC, PIECES[type].pieces.at(-1)!.toC]
}

function pieceAt(type: Thermocouple, tC: number): readonly number[] {
  need('tC', tC, ...thermocoupleRangeC(type), '°C')
  return PIECES[type].pieces.find(p => tC <= p.toC)!.c
}

/**
 * Voltage in mV at t °C, cold junction at 0 °C. Throws InputError outside the range of its type.
 *
 * @example
 * thermocoupleMillivolt('K', 300) // 12.209 (mV; IEC 60584-1)
 */
export function thermocoupleMillivolt(type: Thermocouple, tC: number): number {
  const sum = pieceAt(type, tC).reduceRight((s, c) => s * tC + c, 0)
  return type === 'K' && tC > 0 ? sum + A0 * Math.exp(A1 * (tC - A2) ** 2) : sum
}

/** dE/dt in mV per °C at t °C: how much a degree is worth. Throws InputError outside the range of its type. */
export function thermocoupleSlope(type: Thermocouple, tC: number): number {
  const c = pieceAt(type, tC)
  let sum = 0
  for (let i = c.length - 1; i >= 1; i--) sum = sum * tC + i * c[i]!
  return type === 'K' && tC > 0 ? sum + A0 * 2 * A1 * (tC - A2) * Math.exp(A1 * (tC - A2) ** 2) : sum
}

/** Newton's method stops here, °C. */
const CLOSE_C = 1e-9
const MOST_STEPS = 200

/**
 * Temperature in °C of a voltage in mV measured against a cold junction at `coldC` °C: the junction's own voltage is
 * added, then the reference function is inverted by Newton's method kept between two bounds, to 1e-6 °C. Throws
 * InputError for a voltage that no temperature of its type makes, and for a cold junction outside −40 to 80 °C.
 *
 * @example
 * thermocoupleCelsius('K', 11.183, 25.6) // 300 (°C; 12.209 less the 1.026 of a cold junction at 25.6)
 */
export function thermocoupleCelsius(type: Thermocouple, millivolt: number, coldC: number): number {
  const [from, to] = thermocoupleRangeC(type)
  need('coldC', coldC, ...COLD_C, '°C')
  const cold = thermocoupleMillivolt(type, coldC)
  const [least, most] = [thermocoupleMillivolt(type, from), thermocoupleMillivolt(type, to)]
  const given = millivolt + cold
  // the ends as a table gives them, to the microvolt
  const e = Math.min(most, Math.max(least, given))
  if (!(Math.abs(e - given) < 0.0006))
    throw new InputError(
      'millivolt',
      millivolt,
      `${(least - cold).toFixed(3)} to ${(most - cold).toFixed(3)} mV (type ${type} with its cold junction at ` +
        `${coldC} °C)`,
    )
  let [low, high] = [from, to]
  let t = from + ((to - from) * (e - least)) / (most - least)
  for (let i = 0; i < MOST_STEPS; i++) {
    const over = thermocoupleMillivolt(type, t) - e
    if (over > 0) high = t
    else low = t
    const next = t - over / thermocoupleSlope(type, t)
    const then = next > low && next < high ? next : (low + high) / 2
    if (Math.abs(then - t) < CLOSE_C) return then
    t = then
  }
  return t
}

/** A cold junction: terminals in a room, °C. */
export const COLD_C = [-40, 80] as const
