/**
 * What one weighed blob is worth: gross less pan, with the balance's own doubt and the pan's drift.
 * Source: a reading rounded to a step d has the standard uncertainty d/√12 (JCGM 100:2008, F.2.2.1); a difference of
 * two readings √2 of that.
 */
import { InputError, need } from '../numeric'

/** Step of a balance, g. */
export const BALANCE_STEP_G = [0.0001, 10] as const
/** The empty pan as read, g; a little below nothing where it was not tared. */
export const PAN_G = [-5, 5000] as const
/** Pan and blob together, g. */
export const GROSS_G = [0, 6000] as const
/** A balance that is less sure of a blob than this share of it is named before the bench begins. */
export const MOST_BALANCE_SHARE = 0.005
/** The pan moved when it reads this many steps different. */
export const DRIFT_STEPS = 3
/** From here on it is another pan, and nothing drifted. */
const ANOTHER_PAN_STEPS = 50

/**
 * Standard uncertainty of a net mass, g, by the balance's step in g (0.0001 to 10): two rounded readings.
 *
 * @example
 * netUG(0.1) // 0.0408
 */
export function netUG(stepG: number): number {
  need('stepG', stepG, ...BALANCE_STEP_G, 'g')
  return (stepG * Math.SQRT2) / Math.sqrt(12)
}

/** Whether a balance is fine enough for blobs of a mass in g, and what its doubt is of one, as a share. */
export function balanceFor(stepG: number, blobG: number): { share: number; isFine: boolean; neededG: number } {
  need('blobG', blobG, 0.01, 1e4, 'g')
  const share = netUG(stepG) / blobG
  return { share, isFine: share <= MOST_BALANCE_SHARE, neededG: netUG(stepG) / MOST_BALANCE_SHARE }
}

/** One weighing as read: pan as it was read before it, g. */
export interface Weighed {
  grossG: number
  panG: number
}
/**
 * Net mass of a blob with its standard uncertainty, g. `nextPanG` is what the empty pan read when it was read next
 * (null: not yet): half of what it moved is taken off, and that half is doubt as well, evenly spread. A pan that reads
 * far off is another pan.
 */
export function netOf(w: Weighed, nextPanG: number | null, stepG: number): { massG: number; uG: number } {
  need('panG', w.panG, ...PAN_G, 'g')
  need('grossG', w.grossG, ...GROSS_G, 'g')
  if (nextPanG !== null) need('nextPanG', nextPanG, ...PAN_G, 'g')
  if (w.grossG <= w.panG) throw new InputError('grossG', w.grossG, `above the empty pan, ${w.panG} g`)
  const apart = nextPanG === null ? 0 : nextPanG - w.panG
  const moved = Math.abs(apart) > ANOTHER_PAN_STEPS * stepG ? 0 : apart
  const massG = w.grossG - w.panG - moved / 2
  return { massG, uG: Math.hypot(netUG(stepG), moved / 2 / Math.sqrt(3)) }
}

/** The pan moved by more than its rounding. g. */
export function panMoved(beforeG: number, nowG: number, stepG: number): boolean {
  need('panG', beforeG, ...PAN_G, 'g')
  need('panG', nowG, ...PAN_G, 'g')
  need('stepG', stepG, ...BALANCE_STEP_G, 'g')
  return Math.abs(nowG - beforeG) > DRIFT_STEPS * stepG * (1 + 1e-6)
}
