/**
 * What may be said of how dry a spool is: dry by proof only. A box keeps water in as well as out, and nobody knows how
 * long a factory's bag had lain open, so a spool that was never dried is not known to be dry.
 */
import { InputError, needEach } from '../numeric'
import type { SpoolPlace } from './history'
import type { Marks } from './marks'
import { WATER_WT } from './shells'

/** `clean`: below both marks; `usual`: between them, most parts come out well; `wet`: above both. */
export type SpoolDryness = 'clean' | 'usual' | 'wet' | 'unknown'

/** What a spool may hold, wt%: if it came dry, if it came as wet as the room, and what the room's air would make. */
export interface WaterRange {
  lowWt: number
  highWt: number
  soakedWt: number
}

/**
 * How dry a spool is (water and marks in wt%). Wet is wet however it came. Dry is only what was dried, and holds so
 * little whatever it held before; or, once it is open, what usually prints at room humidity.
 */
export function spoolDryness(w: WaterRange, marks: Marks, place: SpoolPlace, dried: boolean): SpoolDryness {
  needEach(w, ['lowWt', 'highWt', 'soakedWt'], ...WATER_WT, 'wt%')
  needEach(marks, ['clean', 'usual'], ...WATER_WT, 'wt%')
  if (marks.usual < marks.clean) throw new InputError('usual', marks.usual, 'not below clean')
  if (w.lowWt > marks.usual) return 'wet'
  if (place === 'sealed' && !dried) return 'unknown'
  if (!dried) return w.soakedWt <= marks.usual && w.highWt <= marks.usual ? 'usual' : 'unknown'
  if (w.highWt <= marks.clean) return 'clean'
  return w.highWt <= marks.usual ? 'usual' : 'unknown'
}
