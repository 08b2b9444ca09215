/**
 * Section hatching by nozzle material, in drafting style: spacing and crossing tell the materials apart without colour.
 */
import type { NozzleMaterial } from '#core/wear'

export interface Hatch {
  size: number
  angle: number
  path: string
  width: number
}

export const HATCH: Record<NozzleMaterial, Hatch> = {
  'brass': { size: 8, angle: 45, path: 'M0 0V8', width: 1 },
  'plated copper': { size: 9, angle: 45, path: 'M0 0V9M3 0V4', width: 1 },
  'stainless steel': { size: 8, angle: 45, path: 'M0 0V8M2.5 0V8', width: 0.8 },
  'hardened steel': { size: 6, angle: -45, path: 'M0 0V6', width: 0.9 },
  'ruby tip': { size: 6, angle: 30, path: 'M0 0V6', width: 0.8 },
  'tungsten carbide': { size: 6, angle: 45, path: 'M0 0V6M0 3H6', width: 0.8 },
  'polycrystalline diamond': { size: 5, angle: 45, path: 'M0 0V5M0 2.5H5M2.5 0V5', width: 0.7 },
}
