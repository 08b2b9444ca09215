/** The scale of a set-up that stands, and whether it is to be read again: one rule for every screen. */
import { isScaleDue } from '#core/imaging'
import type { ScaleLine, SetupLine } from '#shared/answers/pictures'

/** The latest that is not struck out; null while there is none. */
export const scaleOf = (s: SetupLine): ScaleLine | null => s.scales.find(l => l.struck === null) ?? null

export function isDue(s: SetupLine): boolean {
  const scale = scaleOf(s)
  return scale !== null && isScaleDue(Date.parse(scale.at), Date.now(), s.dueDays)
}
