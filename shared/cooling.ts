/** What a cool-down is worked out from, for the page that plans it and the server that keeps it. */
import type { CoolDown } from '#core/cooling'
import { onSheet, surfaceText, type Stack } from '#core/limits'
import type { MaterialRow } from './answers/materials'
import { demandsOf } from './asking'
import { USUAL_DIAMETER_MM } from './filament'

/** The strictest of the practices that the printer can follow decides what is asked of the chamber. */
export function coolDownOf(
  stack: Stack,
  material: MaterialRow,
  is: { thicknessMm: number; bedC: number },
  roomC: number,
): CoolDown {
  const enclosed = stack.air.enclosure !== null
  const demands = demandsOf(material, USUAL_DIAMETER_MM).filter(d => enclosed || !d.enclosed)
  const level = (['needs', 'helps'] as const).find(l => demands.some(d => d.chamber === l)) ?? 'indifferent'
  const sheet = stack.groups.flatMap(g => g.parts).find(p => p.role === 'sheet')?.details.surface ?? null
  const used = sheet === null ? [] : demands.flatMap(d => onSheet(d.surfaces ?? [], sheet))
  return {
    polymer: material.polymer,
    glassC: material.values.find(v => v.key === 'glassC')?.value ?? null,
    chamber: level,
    enclosed,
    bedC: is.bedC,
    roomC,
    thicknessMm: is.thicknessMm,
    surface: used[0] ? surfaceText(used[0]) : sheet,
  }
}
