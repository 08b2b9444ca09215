/** Thermocouple type K from 0 to 1372 °C, cold junction at 0 °C. Source: IEC 60584-1 / NIST Monograph 175 (ITS-90 reference function). */
import { need } from '../numeric'

const K = [-1.760041368600e-2, 3.892120497500e-2, 1.855877003200e-5, -9.945759287400e-8, 3.184094571900e-10, -5.607284488900e-13,
  5.607505905900e-16, -3.202072000300e-19, 9.715114715200e-23, -1.210472127500e-26]
const A0 = 0.1185976, A1 = -1.183432e-4, A2 = 126.9686

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
