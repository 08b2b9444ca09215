/**
 * What is on a spool, g: one truth for every list. Weights that were given win over sums: the last weighing before the
 * moment, less what was printed since. Until the first weighing it is the mass on the label less what was printed.
 */
import { AT_MS, need, needIfKnown } from '../numeric'

/** A spool on a balance, with its empty weight, g; time in ms since 1970. */
export interface SpoolWeighing {
  at: number
  grossG: number
}
/** What a run took from it, g, at its end. */
export interface SpoolUse {
  at: number
  g: number
}
export interface SpoolMassFacts {
  /** Filament when it came, by its label. */
  netG: number
  /** Empty, g; null where nobody weighed that. */
  tareG: number | null
  weighings: readonly SpoolWeighing[]
  uses: readonly SpoolUse[]
}
export interface SpoolMass {
  g: number
  /** What it rests on: a weighing, weighings of a spool whose empty weight nobody knows, or the label alone. */
  by: 'weighing' | 'difference of weighings' | 'label'
}

const SPOOL_G = [0, 1e6] as const
function checkMassFacts(s: SpoolMassFacts): void {
  need('netG', s.netG, ...SPOOL_G, 'g')
  needIfKnown('tareG', s.tareG, ...SPOOL_G, 'g')
  for (const w of s.weighings) {
    need('at', w.at, ...AT_MS, 'ms')
    need('grossG', w.grossG, ...SPOOL_G, 'g')
  }
  for (const u of s.uses) {
    need('at', u.at, ...AT_MS, 'ms')
    need('g', u.g, ...SPOOL_G, 'g')
  }
}

/**
 * Filament on the spool at a moment (ms), after all that is logged when none is given, g; below 0 when more was printed
 * than there was. A spool without its empty weight starts from its label; between two weighings the difference counts,
 * not the sum of runs.
 *
 * @example
 * const spool = { netG: 1000, tareG: 200, weighings: [{ at: 5, grossG: 900 }], uses: [{ at: 7, g: 50 }] }
 * spoolMass(spool).g // 650 (g)
 */
export function spoolMass(s: SpoolMassFacts, at: number = AT_MS[1]): SpoolMass {
  checkMassFacts(s)
  need('at', at, ...AT_MS, 'ms')
  const used = (from: number, to: number) => s.uses.reduce((sum, u) => (u.at > from && u.at <= to ? sum + u.g : sum), 0)
  const weighings = s.weighings.filter(w => w.at <= at).sort((a, b) => a.at - b.at)
  const last = weighings[weighings.length - 1]
  if (last === undefined) return { g: s.netG - used(-Infinity, at), by: 'label' }
  const since = used(last.at, at)
  if (s.tareG !== null) return { g: last.grossG - s.tareG - since, by: 'weighing' }
  const first = weighings[0]!
  return {
    g: s.netG - used(-Infinity, first.at) - (first.grossG - last.grossG) - since,
    by: weighings.length > 1 ? 'difference of weighings' : 'label',
  }
}

/** More than its label on a new spool, as a share of it: what fillers and makers vary; common practice, no source. */
const OVER_LABEL = 0.04
/** Water that filament takes up at the most, as a share of its mass: wet nylon; common practice, no source. */
const MOST_WATER = 0.04
/** What a run's sum may be off, as a share of it; common practice, no source. */
const RUN_SUM_OFF = 0.1

export interface HeaviestSpool {
  /** With its spool, g. */
  grossG: number
  /** The weighing that it rests on; null when it is the label. */
  since: SpoolWeighing | null
  /** What was printed since then, g. */
  usedG: number
}

/**
 * The most that the spool can weigh at a moment (ms): the last weighing before it, or else its label and its empty
 * weight, less what was printed since, with room for water, the label and the sums of runs. Null when neither a
 * weighing nor an empty weight is known.
 *
 * @example
 * const spool = { netG: 1000, tareG: 200, weighings: [], uses: [] }
 * heaviestSpool(spool, 5).grossG // 1280 (g; 1000 · 1.08 + 200)
 */
export function heaviestSpool(s: SpoolMassFacts, at: number): HeaviestSpool | null {
  checkMassFacts(s)
  need('at', at, ...AT_MS, 'ms')
  const since = s.weighings.reduce<SpoolWeighing | null>(
    (last, w) => (w.at < at && (last === null || w.at >= last.at) ? w : last),
    null,
  )
  const usedG = s.uses.reduce((sum, u) => (u.at > (since?.at ?? -Infinity) && u.at <= at ? sum + u.g : sum), 0)
  const leaves = usedG * (1 - RUN_SUM_OFF)
  if (since !== null) {
    const filamentG = Math.min(s.netG, Math.max(0, since.grossG - (s.tareG ?? 0)))
    return { grossG: since.grossG - leaves + MOST_WATER * filamentG, since, usedG }
  }
  if (s.tareG === null) return null
  return { grossG: s.netG * (1 + OVER_LABEL + MOST_WATER) + s.tareG - leaves, since, usedG }
}

/** How full it is at a moment, 0 to 1, against the mass on its label (g). */
export function spoolFill(s: SpoolMassFacts, at: number): number {
  if (s.netG === 0) return 0
  return Math.min(1, Math.max(0, spoolMass(s, at).g / s.netG))
}
