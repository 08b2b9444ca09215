/**
 * Thermocouple type K from 0 to 1372 °C, cold junction at 0 °C. Source: IEC 60584-1 / NIST Monograph 175 (ITS-90
 * reference function).
 */
import { need } from '../numeric'

const K = [
  -1.7600413686e-2, 3.8921204975e-2, 1.8558770032e-5, -9.9457592874e-8, 3.1840945719e-10, -5.6072844889e-13,
  5.6075059059e-16, -3.2020720003e-19, 9.7151147152e-23, -1.2104721275e-26,
]
const A0 = 0.1185976,
  A1 = -1.183432e-4,
  A2 = 126.9686

/** Voltage in mV at t °C. Throws InputError outside 0 to 1372. */
export function typeKMillivolt(tC: number): number {
  need('tC', tC, 0, 1372, '°C')
  const sum = K.reduceRight((s, c) => s * tC + c, 0)
  return sum + A0 * Math.exp(A1 * (tC - A2) ** 2)
}

/** dE/dt in mV per °C. */
export function typeKSlope(tC: number): number {
  need('tC', tC, 0, 1372, '°C')
  let sum = 0
  for (let i = K.length - 1; i >= 1; i--) sum = sum * tC + i * K[i]!
  return sum + A0 * 2 * A1 * (tC - A2) * Math.exp(A1 * (tC - A2) ** 2)
}
