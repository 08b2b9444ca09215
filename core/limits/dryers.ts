/** The shop's dryers as parts that stand beside every printer. °C. */
import { DRYING_C, spoolTempC, type DryerKind } from '../drying'
import { need } from '../numeric'
import { partOf } from './kinds'
import type { Basis, Part } from './types'

/** A dryer as the shop describes it, °C. */
export interface ShopDryer {
  id: number
  name: string
  kind: DryerKind
  ceilingC: number
  basis: Basis
  note: string
}
const KIND_OF: Record<DryerKind, string> = {
  'vented': 'filament dryer, 70',
  'desiccant': 'filament dryer, 90',
  'vacuum': 'vacuum dryer',
  'bed under a cover': 'filament dryer, 55',
  'oven': 'drying oven, 160',
}

/**
 * A dryer as a part of a stack: what it reaches is what the spool in it reaches, which on a bed under a cover is less
 * than the bed; nothing is dried hotter than 200 °C, whatever an oven can. `roomC` in °C, the ceiling 20 to 600 °C.
 *
 * @example
 * const bed = { id: 1, name: 'bed', kind: 'bed under a cover', ceilingC: 103, basis: 'nameplate', note: '' }
 * shopDryer(bed, 23).details.reachC // 83 (°C; 0.75 of the way from 23 to 103)
 */
export function shopDryer(d: ShopDryer, roomC: number): Part {
  need('ceilingC', d.ceilingC, 20, 600, '°C')
  return {
    ...partOf(KIND_OF[d.kind], `dryer ${d.id}`),
    name: d.name,
    basis: d.basis,
    note: d.note,
    details: { reachC: spoolTempC(d.kind, Math.min(d.ceilingC, DRYING_C[1]), roomC) },
  }
}

/** Of several dryers the one that reaches furthest, of those whose reach is known; null when none is. */
export function furthest(dryers: readonly Part[]): Part | null {
  return dryers.reduce<Part | null>(
    (best, p) =>
      p.details.reachC !== undefined && (best === null || p.details.reachC > best.details.reachC!) ? p : best,
    null,
  )
}
