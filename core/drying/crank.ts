/**
 * Uptake of a long cylinder with constant diffusivity whose surface is brought to a new concentration at once.
 * Source: Crank, The Mathematics of Diffusion, chapter 5 (series 5.23 and short-time form).
 */
import { need } from '../numeric'
import { zerosOfJ0 } from './bessel'

const ZEROS = zerosOfJ0(120)

/** M(t)/M∞ for x = D·t/a² (no unit, 0 or more): 0 at the start, 1 in the end. */
export function crankUptake(x: number): number {
  need('x', x, 0, Infinity, '(D·t/a²)')
  if (x === 0) return 0
  if (x < 0.002) return shortTimeUptake(x) // the series would need thousands of terms
  let left = 0
  for (const a of ZEROS) left += (4 / (a * a)) * Math.exp(-a * a * x)
  return 1 - left
}

/** The short-time form 4/√π·√x − x − x^1.5/(3√π), good to 1e-4 up to x = 0.05. */
export function shortTimeUptake(x: number): number {
  need('x', x, 0, 1, '(D·t/a²)')
  return (4 / Math.sqrt(Math.PI)) * Math.sqrt(x) - x - x ** 1.5 / (3 * Math.sqrt(Math.PI))
}
