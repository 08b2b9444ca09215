/** The two wear laws in closed form. d, d0, nominal in mm; κ in mm per kg at a 0.4 mm bore; M in kg. */
import { need, needOne } from '../numeric'
import { BORE_MM, NOMINAL_MM, WEAR_KG } from './check'
import type { Law } from './types'

/** 3 × (0.4 mm)², mm²: d³ grows by this times κ·M. */
export const CUBE_GROWTH = 0.48

function checkLaw(law: Law, d0Mm: number, kappa: number, nominalMm: number): void {
  needOne('law', law, ['sliding', 'linear'])
  need('d0Mm', d0Mm, ...BORE_MM, 'mm')
  need('kappa', kappa, 1e-12, 1e9, 'mm per kg')
  need('nominalMm', nominalMm, ...NOMINAL_MM, 'mm')
}

/**
 * Bore in mm after wear mass M, kg. d0 0.01 to 5 mm, κ above 0, M 0 to 1e6 kg. Source: Archard (1953), J. Appl. Phys.
 * 24, 981, with sliding distance per kg going with 1/d².
 *
 * @example
 * boreAfter('sliding', 0.4, 0.01, 1, 0.4) // 0.4098 (mm; the cube root of 0.4³ + 3·0.01·0.4²·1)
 */
export function boreAfter(law: Law, d0Mm: number, kappa: number, wearKg: number, nominalMm: number): number {
  checkLaw(law, d0Mm, kappa, nominalMm)
  need('wearKg', wearKg, ...WEAR_KG, 'kg')
  return law === 'sliding'
    ? Math.cbrt(d0Mm ** 3 + CUBE_GROWTH * kappa * wearKg)
    : d0Mm + kappa * linearScale(nominalMm) * wearKg
}

/** Wear mass at which the bore reaches the limit, kg; negative when it began beyond it. */
export function wearToLimit(law: Law, d0Mm: number, kappa: number, limitMm: number, nominalMm: number): number {
  checkLaw(law, d0Mm, kappa, nominalMm)
  need('limitMm', limitMm, ...BORE_MM, 'mm')
  return law === 'sliding'
    ? (limitMm ** 3 - d0Mm ** 3) / (CUBE_GROWTH * kappa)
    : (limitMm - d0Mm) / (kappa * linearScale(nominalMm))
}

export function linearScale(nominalMm: number): number {
  return (0.4 / nominalMm) ** 2
}
