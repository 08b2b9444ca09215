/** How a polymer is solid: in crystals that melt, or as a glass; common practice, no source. Temperatures in °C. */
import { needEach } from '../numeric'

/** Nothing amorphous is heated closer to its glass transition than this while it must keep its shape, °C. */
export const BELOW_GLASS_C = 5

/** The two transitions of a record, °C; null where none is entered. */
export interface Transitions {
  glassC: number | null
  meltC: number | null
}
export type Solid = 'semi-crystalline' | 'amorphous'

/**
 * Semi-crystalline when it has a melting point (−100 to 600 °C), amorphous when it only has a glass transition; null
 * when nothing is known. An amorphous polymer has no melting point to enter (common practice, no source).
 *
 * @example
 * solidOf({ glassC: 147, meltC: null }) // "amorphous"
 */
export function solidOf(t: Transitions): Solid | null {
  needEach(t, ['glassC', 'meltC'], -100, 600, '°C')
  if (t.meltC !== null) return 'semi-crystalline'
  return t.glassC === null ? null : 'amorphous'
}
