/**
 * The torque that a nozzle stands: T = K·F·D, with F what the weaker of the nozzle's neck and the block's thread bears.
 * Sources: tensile stress area ISO 898-1; T = K·F·D with K 0.2 common practice; stripping by shear at 1/√3 of yield
 * (von Mises). An upper bound only: the maker's value always comes first.
 */
import { need, needIfKnown } from '../numeric'
import type { NozzleMaterial } from '../wear'

/**
 * Tensile stress area in mm² of a metric thread: π/4·((d₂ + d₃)/2)², diameter 1 to 68 mm, pitch in mm (ISO 898-1).
 *
 * @example
 * stressAreaMm2(6, 1) // 20.1 (mm², as ISO 898-1 lists for M6)
 */
export function stressAreaMm2(diameterMm: number, pitchMm: number): number {
  need('diameterMm', diameterMm, 1, 68)
  need('pitchMm', pitchMm, 0.2, diameterMm / 2)
  const d2 = diameterMm - 0.649519 * pitchMm
  const d3 = diameterMm - 1.226869 * pitchMm
  return (Math.PI / 4) * ((d2 + d3) / 2) ** 2
}

export interface Joint {
  /** Filament channel through the neck, mm. */
  channelMm: number
  /** Yield of nozzle and of block at the temperature it is tightened at, MPa. */
  nozzleYieldMPa: number
  blockYieldMPa: number
  /** Thread in engagement, mm. */
  engagedMm: number
  /** Share of yield that is allowed, and nut factor K. */
  share?: number
  nutFactor?: number
}

/**
 * Torque ceiling in N·m of an M6 × 1 nozzle and which part sets it: an upper bound, the maker's value comes first.
 * Channel 0 to 4.9 mm, yields 1 to 3000 MPa, engagement 1 to 20 mm. Throws InputError naming the field.
 */
export function torqueCeiling(j: Joint): { newtonMetre: number; part: 'nozzle neck' | 'block thread' } {
  const { share = 0.5, nutFactor = 0.2 } = j
  need('channelMm', j.channelMm, 0, 4.9)
  need('nozzleYieldMPa', j.nozzleYieldMPa, 1, 3000)
  need('blockYieldMPa', j.blockYieldMPa, 1, 3000)
  need('engagedMm', j.engagedMm, 1, 20)
  need('share', share, 0.05, 1)
  need('nutFactor', nutFactor, 0.05, 0.5)
  const neck = share * j.nozzleYieldMPa * (stressAreaMm2(6, 1) - (Math.PI / 4) * j.channelMm ** 2)
  const pitchDiameter = 6 - 0.649519
  const thread = (((share * j.blockYieldMPa) / Math.sqrt(3)) * Math.PI * pitchDiameter * j.engagedMm) / 2
  return {
    newtonMetre: nutFactor * Math.min(neck, thread) * 0.006,
    part: neck <= thread ? 'nozzle neck' : 'block thread',
  }
}

/** Yield in MPa near 250 °C, start values from memory: the nozzle by its body, and an aluminium block. */
export const HOT_YIELD_MPA: Record<
  'brass' | 'copper' | 'steel' | 'carbide' | 'aluminium block' | 'copper block',
  number
> = {
  'brass': 140,
  'copper': 180,
  'steel': 400,
  'carbide': 600,
  'aluminium block': 90,
  'copper block': 180,
}

/** What the thread of a nozzle is cut in: the body of an insert is brass. */
export function bodyOf(n: { material: NozzleMaterial; insert: boolean }): 'brass' | 'copper' | 'steel' | 'carbide' {
  if (n.material === 'brass' || n.insert) return 'brass'
  if (n.material === 'plated copper') return 'copper'
  return n.material === 'tungsten carbide' || n.material === 'polycrystalline diamond' ? 'carbide' : 'steel'
}

/** A maker's torque that a nozzle may have, N·m. */
export const MAKERS_NM = [0.1, 10] as const
/** Thread of a nozzle in its block, mm; common practice, no source. */
const ENGAGED_MM = 5
/** Of a channel that is entered wider than an M6 neck can be, this much is believed, mm. */
const WIDEST_MM = 4.9

/**
 * The most that a nozzle is tightened with, hot, N·m: the least of its neck, the block's thread and the maker's value
 * (null: none is entered). A block that is not described counts as aluminium, the weaker. Channel in mm.
 *
 * @example
 * torqueFor({ material: 'brass', insert: false, channelMm: 2, makerNm: 1 }, null).by // "maker"
 */
export function torqueFor(
  n: { material: NozzleMaterial; insert: boolean; channelMm: number; makerNm: number | null },
  blockKind: string | null,
): { newtonMetre: number; by: 'maker' | 'nozzle neck' | 'block thread' } {
  needIfKnown('makerNm', n.makerNm, ...MAKERS_NM, 'N·m')
  need('channelMm', n.channelMm, 0, 10, 'mm')
  const metal = torqueCeiling({
    channelMm: Math.min(WIDEST_MM, n.channelMm),
    nozzleYieldMPa: HOT_YIELD_MPA[bodyOf(n)],
    blockYieldMPa: HOT_YIELD_MPA[blockKind?.includes('copper') ? 'copper block' : 'aluminium block'],
    engagedMm: ENGAGED_MM,
  })
  return n.makerNm !== null && n.makerNm <= metal.newtonMetre
    ? { newtonMetre: n.makerNm, by: 'maker' }
    : { newtonMetre: metal.newtonMetre, by: metal.part }
}
