/** Whose profile a job file's setpoints look like. */
import { SETPOINT_C } from '../gcode'
import { need, needEach } from '../numeric'
import type { WindowOfMaterial } from './types'

export function checkWindow(m: WindowOfMaterial): void {
  needEach(m, ['nozzleMinC', 'nozzleMaxC'], ...SETPOINT_C, '°C')
  for (const bed of m.beds) for (const c of bed) need('beds', c, ...SETPOINT_C, '°C')
}

/**
 * The material into whose windows the setpoints (°C) fall best; null when none takes them. Distance is from the middle,
 * in half widths.
 *
 * @example
 * const pla = { name: 'PLA', nozzleMinC: 190, nozzleMaxC: 220, beds: [[40, 60]] }
 * const pc = { name: 'PC', nozzleMinC: 260, nozzleMaxC: 300, beds: [[100, 120]] }
 * likeliest({ nozzleC: 270, bedC: 110 }, [pla, pc]) // "PC"
 */
export function likeliest(
  job: { nozzleC: number | null; bedC: number | null },
  materials: readonly WindowOfMaterial[],
): string | null {
  needEach(job, ['nozzleC', 'bedC'], ...SETPOINT_C, '°C')
  materials.forEach(checkWindow)
  let best: { name: string; far: number } | null = null
  for (const m of materials) {
    if (m.nozzleMinC === null || m.nozzleMaxC === null || job.nozzleC === null) continue
    const nozzle = off(job.nozzleC, m.nozzleMinC, m.nozzleMaxC)
    const bed = job.bedC === null || m.beds.length === 0 ? 0 : Math.min(...m.beds.map(([a, b]) => off(job.bedC!, a, b)))
    if (nozzle > 1 || bed > 1) continue
    if (best === null || nozzle + bed < best.far) best = { name: m.name, far: nozzle + bed }
  }
  return best?.name ?? null
}

const off = (v: number, low: number, high: number) => Math.abs(v - (low + high) / 2) / Math.max(2.5, (high - low) / 2)
