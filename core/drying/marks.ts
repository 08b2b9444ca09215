/**
 * The two marks of a filament's water, wt% of the compound: up to *clean* it prints without a trace of water, up to
 * *usually prints* most parts come out well. Start values of *clean* are what moulders dry to, from memory; *usually
 * prints* is common practice, no source. Both can be entered per material with a basis.
 */
import { InputError, needIfKnown } from '../numeric'
import { WATER_WT } from './shells'

export interface Marks {
  clean: number
  /** Never below clean. */
  usual: number
}

/** What moulders dry to, wt% of the compound; from memory. */
export const CLEAN_WT: Readonly<Record<string, number>> = {
  'pa6': 0.2,
  'pa12': 0.1,
  'ppa': 0.1,
  'pc': 0.02,
  'pei': 0.02,
  'psu': 0.05,
  'ppsu': 0.05,
  'pet': 0.02,
  'petg': 0.04,
  'peek': 0.02,
  'pekk': 0.02,
  'pps': 0.02,
  'liquid-crystal polyester': 0.01,
  'abs': 0.1,
  'asa': 0.1,
  'pla': 0.025,
  'tpu': 0.03,
}
/** Ordinary room air does these little harm: a look where the others stop. */
const ROOM_DRY: readonly string[] = ['pla', 'petg', 'abs', 'asa']
const FORGIVING: readonly string[] = [...ROOM_DRY, 'tpu']

/** Share of the water at 50 % humidity that nylon usually prints with; agrees with 5 to 6 h in humid air. */
const NYLON_SHARE = 0.25
const NYLON_ON_CLEAN = 1.5
/** In a room a little above 50 % they still print. */
const ROOM_SHARE = 1.1
const OTHERS_ON_CLEAN = 2.5

const key = (polymer: string) => polymer.trim().toLowerCase()
/** Nylons of every kind, PPA among them: the best known uptake, and brittle when filled and dried too long. */
export const isPolyamide = (polymer: string) => /^p(a\d|pa)/i.test(polymer.trim())

/** What is too wet is stopped, or only looked at where wet filament spits and strings but does no harm. */
export const wetVerdict = (polymer: string): 'stop' | 'look' => (FORGIVING.includes(key(polymer)) ? 'look' : 'stop')

/**
 * Marks of a filament that holds `waterAt50` wt% of its compound in air of 50 %: as entered (wt%), else by its polymer.
 * Of one entered alone the other follows, never crossing it. Null when neither entry nor polymer tells. Throws
 * InputError when *usually prints* is entered below *clean*.
 *
 * @example
 * marksOf('PC', 0.15).usual // 0.05 (wt%)
 */
export function marksOf(
  polymer: string,
  waterAt50: number,
  entered: { clean?: number | null; usual?: number | null } = {},
): Marks | null {
  needIfKnown('waterAt50', waterAt50, ...WATER_WT, 'wt%')
  needIfKnown('clean', entered.clean, ...WATER_WT, 'wt%')
  needIfKnown('usual', entered.usual, ...WATER_WT, 'wt%')
  const start = CLEAN_WT[key(polymer)]
  const enteredUsual = entered.usual ?? null
  if (entered.clean != null && enteredUsual !== null && enteredUsual < entered.clean)
    throw new InputError('usual', enteredUsual, `${entered.clean} or more: what usually prints is no drier than clean`)
  const clean = entered.clean ?? start ?? (enteredUsual === null ? undefined : enteredUsual / OTHERS_ON_CLEAN)
  if (clean === undefined) return null
  if (enteredUsual !== null) return { clean: Math.min(clean, enteredUsual), usual: enteredUsual }
  return { clean, usual: Math.max(clean, usualStart(polymer, waterAt50, clean)) }
}

function usualStart(polymer: string, waterAt50: number, clean: number): number {
  if (isPolyamide(polymer)) return Math.max(NYLON_SHARE * waterAt50, NYLON_ON_CLEAN * clean)
  return ROOM_DRY.includes(key(polymer)) ? ROOM_SHARE * waterAt50 : OTHERS_ON_CLEAN * clean
}
