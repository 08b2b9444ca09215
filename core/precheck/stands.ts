/**
 * How a job's file stands to its filament and its printer: one answer for the lines of the check and for what is wrong
 * with a print. °C. Common practice, no source.
 */
import { gradeOf, onSheet, type Grade } from '../limits'
import type { Sustained } from '../flow'
import { likeliest } from './profile'
import type { PrecheckFacts } from './types'

/** Part fan for nylon and everything hotter: off, at most half for bridges. */
export const FAN_MOST = 0.5
const SLOW_COOLED = /^(pa\d|ppa|abs|asa|pc|pps|peek|pei|ppsu|psu|liquid)/i
/** What a correction of a sensor may be off by rounding, °C. */
const SAME_C = 1e-6

type Side = 'under' | 'over' | null
const sideOf = (c: number, low: number, high: number): Side => {
  if (c < low - SAME_C) return 'under'
  return c > high + SAME_C ? 'over' : null
}

/** On which side of the filament's windows the setpoints lie, by what they make, and whose profile they look like. */
export interface SetpointsStand {
  nozzle: Side
  bed: Side
  like: string | null
}
/** Null where the file sets nothing or the filament has no window. °C; throws nothing, `precheck` checks the facts. */
export function setpointsStand(f: PrecheckFacts): SetpointsStand | null {
  const { made, material: m } = f
  if ((made.nozzleC === null && made.bedC === null) || m.nozzleMinC === null || m.nozzleMaxC === null) return null
  const nozzle = made.nozzleC === null ? null : sideOf(made.nozzleC, m.nozzleMinC, m.nozzleMaxC + f.nozzleOffsetC)
  const bed = made.bedC === null || m.beds.length === 0 ? null : sideOf(made.bedC, ...bedWindow(m.beds))
  const others = () =>
    likeliest(
      made,
      f.others.filter(o => o.name !== m.name),
      m.filler,
    )
  return { nozzle, bed, like: nozzle === null && bed === null ? null : others() }
}
/** The widest of the practices' beds, °C; at least one. */
export const bedWindow = (beds: readonly (readonly [number, number])[]): [number, number] => [
  Math.min(...beds.map(b => b[0])),
  Math.max(...beds.map(b => b[1])),
]

/** Whether the part fan blows more than this filament wants; null where the file does not say, or nothing is wanted. */
export function fanStands(f: Pick<PrecheckFacts, 'job' | 'material'>): 'high' | 'fine' | null {
  if (f.job.fanMax === null || !SLOW_COOLED.test(f.material.polymer)) return null
  return f.job.fanMax > FAN_MOST ? 'high' : 'fine'
}

/** How a peak flow stands to what a bench found that the nozzle sustains, mm³/s. */
export function flowStands(peakMm3S: number, s: Sustained): 'sustained' | 'not tried' | 'above' | 'perhaps' {
  const surelyMm3S = s.low80 ?? (s.reach === 'at least the highest tested' ? s.flowMm3S : 0)
  if (peakMm3S <= surelyMm3S) return 'sustained'
  if (s.reach === 'at least the highest tested' && peakMm3S > s.flowMm3S) return 'not tried'
  return s.high80 !== null && peakMm3S > s.high80 ? 'above' : 'perhaps'
}

/** How warm the chamber is for a filament that asks for one; null where it asks for none, or nothing tells. */
export function chamberStands(f: Pick<PrecheckFacts, 'material' | 'enclosed' | 'air'>): Grade | 'none here' | null {
  const { chamber, chamberMinC } = f.material
  if (chamber === 'indifferent' || chamberMinC === null) return null
  if (!f.enclosed) return 'none here'
  return f.air && gradeOf(f.air.coolestC - chamberMinC, f.air.u90)
}
/** How the air at the head, with the lid on, stands to the most that this filament takes; null where nothing tells. */
export function headStands(f: Pick<PrecheckFacts, 'material' | 'enclosed' | 'air'>): Grade | null {
  const most = f.material.chamberMaxC
  return most === null || !f.enclosed || f.air === null ? null : gradeOf(most - f.air.headC, f.air.u90)
}
/** The fitted sheets that this filament holds on; null where the sheet or the practice is not entered. */
export function sheetStands(f: Pick<PrecheckFacts, 'material' | 'fittedSurface'>) {
  if (f.fittedSurface === null || f.material.surfaces.length === 0) return null
  return onSheet(f.material.surfaces, f.fittedSurface)
}
