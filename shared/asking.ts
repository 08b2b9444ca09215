/** Between a stored material and the limits: what it asks. Used by the screens and by the server alike. */
import {
  demandOf,
  VALUE_KEYS,
  type Asking,
  type Demand,
  type PracticeSet,
  type ValueKey,
  type Ventilation,
} from '#core/limits'
import type { Filler } from '#core/wear'

export interface MaterialLike {
  name: string
  polymer: string
  filler: Filler
  ventilation: Ventilation | null
  values: readonly { key: ValueKey; value: number }[]
  sets: readonly (PracticeSet & { withdrawn: boolean })[]
}

/** The shortest drying that a practice of the material gives, h; null when none gives one. */
export function shortestDryH(sets: readonly (PracticeSet & { withdrawn: boolean })[]): number | null {
  const given = sets.flatMap(s => (s.withdrawn || !s.dry || s.dryHoursMin === null ? [] : [s.dryHoursMin]))
  return given.length === 0 ? null : Math.min(...given)
}

/** Stands in for a material of which no practice is known: everything it asks is a missing fact. */
export const NO_SET: PracticeSet = {
  name: 'no practice entered',
  conditions: '',
  enclosed: false,
  bedMinC: null,
  bedMaxC: null,
  chamber: 'indifferent',
  chamberMinC: null,
  chamberMaxC: null,
  dry: true,
  dryMinC: null,
  dryMaxC: null,
  dryHoursMin: null,
  dryHoursMax: null,
  surfaces: [],
  basis: 'practice',
  note: '',
}

export function askingOf(m: MaterialLike): Asking {
  const facts: Asking['facts'] = {}
  for (const v of m.values) if (VALUE_KEYS.includes(v.key)) facts[v.key] = v.value
  return { name: m.name, polymer: m.polymer, filler: m.filler, ventilation: m.ventilation, facts }
}
export const setsOf = (m: MaterialLike): PracticeSet[] => {
  const s = m.sets.filter(x => !x.withdrawn)
  return s.length > 0 ? s : [NO_SET]
}
export const demandsOf = (m: MaterialLike, diameterMm = 1.75): Demand[] =>
  setsOf(m).map(s => demandOf(askingOf(m), s, diameterMm))
