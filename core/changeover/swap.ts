/** Swapping a nozzle: how hot, and what happens to Z. Source: common practice, no source. */

export interface SwapTemperature {
  /** °C at which the old nozzle is turned; null when no material tells. */
  atC: number | null
  material: string | null
  /** False when the stack does not stand it: do not turn the nozzle, change the hotend. */
  allowed: boolean
}

/** The highest swap temperature among what went through since the last cleaning, against the hotend's ceiling in °C. */
export function swapTemperature(through: readonly { name: string, swapC: number | null }[], ceilingC: number | null): SwapTemperature {
  let hottest: { name: string, swapC: number } | null = null
  for (const m of through) {
    if (m.swapC === null) return { atC: null, material: m.name, allowed: false }
    if (hottest === null || m.swapC > hottest.swapC) hottest = { name: m.name, swapC: m.swapC }
  }
  if (hottest === null) return { atC: null, material: null, allowed: ceilingC !== null }
  return { atC: hottest.swapC, material: hottest.name, allowed: ceilingC !== null && hottest.swapC <= ceilingC }
}

/** Change of length in mm; above 0 the new nozzle reaches further and can touch the bed before Z is re-set. */
export function zChange(oldLengthMm: number, newLengthMm: number): { mm: number, canTouchBed: boolean } {
  const mm = newLengthMm - oldLengthMm
  return { mm, canTouchBed: mm > 0 }
}
