/** What a measure of a bed says: one reading of it for the server's lists and for a form while it is typed. */
import { levelFound, levelVerdict, type Bed, type LevelFound, type LevelMeasured, type LevelVerdict } from '#core/level'
import { InputError } from '#core/numeric'

export interface LevelSeen {
  found: LevelFound
  verdict: LevelVerdict
}

/**
 * Null where something is missing or out of range, or the bed was described away from what was measured: one such
 * measure takes no list down. `bedC` and `jobC` in °C.
 */
export function seeLevel(
  m: LevelMeasured,
  bed: Bed,
  at: { bedC: number | null; jobC: number | null },
): LevelSeen | null {
  try {
    const found = levelFound(m, bed)
    return { found, verdict: levelVerdict(m, found, bed, { bedC: at.bedC ?? NaN, jobC: at.jobC }) }
  } catch (e) {
    if (e instanceof InputError) return null
    throw e
  }
}
