/** Swapping a nozzle: how hot, and what happens to Z. Source: common practice, no source. */
import { need } from '../numeric'

/** Any temperature of a hotend, °C. */
export const HOTEND_C = [0, 600] as const

export interface SwapTemperature {
  /** °C at which the old nozzle is turned; null when no material tells. */
  atC: number | null
  material: string | null
  /** False when the stack does not stand it: do not turn the nozzle, change the hotend. */
  allowed: boolean
}

/** The highest swap temperature among what went through since the last cleaning, against the hotend's ceiling in °C. */
export function swapTemperature(
  through: readonly { name: string; swapC: number | null }[],
  ceilingC: number | null,
): SwapTemperature {
  if (ceilingC !== null) need('ceilingC', ceilingC, ...HOTEND_C, '°C')
  let hottest: { name: string; swapC: number } | null = null
  for (const m of through) {
    if (m.swapC === null) return { atC: null, material: m.name, allowed: false }
    need('swapC', m.swapC, ...HOTEND_C, '°C')
    if (hottest === null || m.swapC > hottest.swapC) hottest = { name: m.name, swapC: m.swapC }
  }
  if (hottest === null) return { atC: null, material: null, allowed: ceilingC !== null }
  return { atC: hottest.swapC, material: hottest.name, allowed: ceilingC !== null && hottest.swapC <= ceilingC }
}

/**
 * Change of length in mm, lengths 1 to 100; above 0 the new nozzle reaches further and can touch the bed before Z is
 * re-set.
 */
export function zChange(oldLengthMm: number, newLengthMm: number): { mm: number; canTouchBed: boolean } {
  need('oldLengthMm', oldLengthMm, 1, 100, 'mm')
  need('newLengthMm', newLengthMm, 1, 100, 'mm')
  const mm = newLengthMm - oldLengthMm
  return { mm, canTouchBed: mm > 0 }
}
