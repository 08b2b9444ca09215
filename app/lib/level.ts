/** What a measure of a bed says while it is typed, and in which words it is shown. */
import { levelFound, levelVerdict, type Bed, type LevelFound, type LevelMeasured, type LevelVerdict } from '#core/level'
import { InputError } from '#core/numeric'

export interface LevelSeen {
  found: LevelFound
  verdict: LevelVerdict
}

/** Null while something is missing or out of range: the form says what. */
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
