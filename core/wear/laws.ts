/** The two wear laws in closed form. d, d0, nominal in mm; κ in mm per kg at a 0.4 mm bore; M in kg. */
import type { Law } from './types'

/** 3 × (0.4 mm)², mm²: d³ grows by this times κ·M. */
export const CUBE_GROWTH = 0.48

/** Bore after wear mass M. */
export function boreAfter(law: Law, d0Mm: number, kappa: number, wearKg: number, nominalMm: number): number {
  return law === 'sliding'
    ? Math.cbrt(d0Mm ** 3 + CUBE_GROWTH * kappa * wearKg)
    : d0Mm + kappa * linearScale(nominalMm) * wearKg
}

/** Wear mass at which the bore reaches the limit, kg; negative when it began beyond it. */
export function wearToLimit(law: Law, d0Mm: number, kappa: number, limitMm: number, nominalMm: number): number {
  return law === 'sliding'
    ? (limitMm ** 3 - d0Mm ** 3) / (CUBE_GROWTH * kappa)
    : (limitMm - d0Mm) / (kappa * linearScale(nominalMm))
}

export function linearScale(nominalMm: number): number { return (0.4 / nominalMm) ** 2 }
