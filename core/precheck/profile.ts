/** Whose profile a job file's setpoints look like. */
import { SETPOINT_C } from '../gcode'
import { need, needEach } from '../numeric'
import type { WindowOfMaterial } from './types'

export function checkWindow(m: WindowOfMaterial): void {
  needEach(m, ['nozzleMinC', 'nozzleMaxC'], ...SETPOINT_C, '°C')
  for (const bed of m.beds) for (const c of bed) need('beds', c, ...SETPOINT_C, '°C')
}

/** Fits this much worse than the best, in half widths, still count as alike. */
const ALIKE = 0.1

/**
 * The material into whose windows the setpoints (°C) fall best; null when none takes them. Distance is from the middle,
 * in half widths. Of several that fit alike it is the one with the same filler as was meant: who takes the wrong
 * profile takes one for a filament of the same kind.
 *
 * @example
 * const pla = { name: 'PLA', filler: 'none', nozzleMinC: 190, nozzleMaxC: 220, beds: [[40, 60]] }
 * const pc = { name: 'PC', filler: 'none', nozzleMinC: 260, nozzleMaxC: 300, beds: [[100, 120]] }
 * likeliest({ nozzleC: 270, bedC: 110 }, [pla, pc], 'none') // "PC"
 */
export function likeliest(
  job: { nozzleC: number | null; bedC: number | null },
  materials: readonly WindowOfMaterial[],
  filler: string,
): string | null {
  needEach(job, ['nozzleC', 'bedC'], ...SETPOINT_C, '°C')
  materials.forEach(checkWindow)
  const fits: { m: WindowOfMaterial; far: number }[] = []
  for (const m of materials) {
    if (m.nozzleMinC === null || m.nozzleMaxC === null || job.nozzleC === null) continue
    const nozzle = off(job.nozzleC, m.nozzleMinC, m.nozzleMaxC)
    const bed = job.bedC === null || m.beds.length === 0 ? 0 : Math.min(...m.beds.map(([a, b]) => off(job.bedC!, a, b)))
    if (nozzle <= 1 && bed <= 1) fits.push({ m, far: nozzle + bed })
  }
  const best = Math.min(...fits.map(f => f.far))
  const alike = fits.filter(f => f.far <= best + ALIKE).map(f => f.m)
  return (alike.find(m => m.filler === filler) ?? alike.find(m => m.filler === 'none') ?? alike[0])?.name ?? null
}

const off = (v: number, low: number, high: number) => Math.abs(v - (low + high) / 2) / Math.max(2.5, (high - low) / 2)
