/** When a nozzle is due: for a gauge, for retirement, for a harder one. */
import { CHANCE, need, needEach } from '../numeric'
import type { NozzleMaterial } from '../wear'
import { capital, chance, kg, listed } from '../words'
import { ANY, weightOf, type Due } from './due'

/** Above this chance a nozzle is rather past its limit than not. */
export const PROBABLY_PAST = 0.5
/** A gauge that falls due within so many jobs like the last is done after this one. */
export const JOBS_AHEAD = 1.5
/** What was seen at the last gauge that ends a nozzle, whatever its bore. */
export const BROKEN: readonly string[] = ['loose insert', 'cracked body', 'cracked plating', 'chipped']
const SOFT: readonly NozzleMaterial[] = ['brass', 'plated copper']

export interface NozzleFacts {
  tag: string
  material: NozzleMaterial
  /** Bore at which it is retired, mm; null without such a rule. */
  limitMm: number | null
  /** Fibre that has gone through, g. */
  fibreG: number
  /** Chance that it is past a limit, 0 to 1. */
  pastChance: number
  /** Fibre until a gauge is due, kg; null when that is not known. */
  nextGaugeKg: number | null
  /** Fibre of the last job on its printer, g; null before any. */
  jobFibreG: number | null
  /** Last filled filament; null before any. */
  lastMaterial: string | null
  /** What the last gauge saw. */
  shape: readonly string[]
  /** It was gauged since its last run: another gauge tells nothing new. */
  gaugedSince: boolean
}

/**
 * Why a nozzle is not fitted without asking: what its last gauge saw, or that it is rather past its limit than not;
 * null when neither. The same rule stops it on the Floor. `pastChance` 0 to 1, `limitMm` in mm.
 */
export function wornOut(n: Pick<NozzleFacts, 'limitMm' | 'pastChance' | 'shape'>): string | null {
  checkWorn(n)
  const broken = n.shape.filter(s => BROKEN.includes(s))
  if (broken.length > 0) return `last gauge found: ${listed(broken, 'and')}`
  return n.pastChance > PROBABLY_PAST ? pastWords(n) : null
}
function checkWorn(n: Pick<NozzleFacts, 'limitMm' | 'pastChance'>): void {
  need('pastChance', n.pastChance, ...CHANCE)
  needEach(n, ['limitMm'], ...ANY, 'mm')
}
function pastWords(n: Pick<NozzleFacts, 'limitMm' | 'pastChance'>): string {
  const limit = n.limitMm === null ? 'its limit' : `${n.limitMm.toFixed(2)} mm`
  return `${chance(n.pastChance)} chance that it is past ${limit}`
}

export type GaugeDue = 'now' | 'before a filled job' | 'after this job'

/**
 * When the next gauge is due, the one rule for the Floor, the list and the nozzle's own page; null while none is.
 * `acceptedRisk` is the chance of being past the limit from which the shop wants a gauge, 0 to 1. Masses in kg and g of
 * fibre as in `NozzleFacts`.
 *
 * @example
 * gaugeDue({ pastChance: 0.3, nextGaugeKg: 1, jobFibreG: 100 }, 0.1) // "before a filled job"
 */
export function gaugeDue(
  n: Pick<NozzleFacts, 'pastChance' | 'nextGaugeKg' | 'jobFibreG'>,
  acceptedRisk: number,
): GaugeDue | null {
  need('pastChance', n.pastChance, ...CHANCE)
  need('acceptedRisk', acceptedRisk, 0, 1)
  needEach(n, ['nextGaugeKg', 'jobFibreG'], ...ANY)
  if (n.pastChance > PROBABLY_PAST) return 'now'
  if (n.pastChance >= acceptedRisk) return 'before a filled job'
  const soon = n.nextGaugeKg !== null && n.jobFibreG !== null && n.nextGaugeKg * 1000 < n.jobFibreG * JOBS_AHEAD
  return soon ? 'after this job' : null
}

/**
 * What is due at one nozzle, by `gaugeDue` and by what its last gauge saw; `headId` is the head it sits on,
 * `acceptedRisk` 0 to 1.
 */
export function dueOfNozzle(n: NozzleFacts, headId: number, acceptedRisk: number): Due[] {
  checkWorn(n)
  need('fibreG', n.fibreG, ...ANY, 'g')
  const out: Due[] = []
  const at = { about: n.tag, station: 'inspect' } as const
  const gauge = { ...at, open: `/inspect/${n.tag}?gauge=1` }
  const past = pastWords(n)
  const through = kg(n.fibreG / 1000)
  const broken = n.shape.filter(s => BROKEN.includes(s))
  const swap = { about: n.tag, station: 'change', action: 'Swap it', open: `/change/swap?head=${headId}` } as const
  if (broken.length > 0)
    out.push({
      ...swap,
      mark: 'stop',
      reason: `Last gauge found: ${listed(broken, 'and')}.`,
      weight: weightOf(92),
    })
  switch (gaugeDue(n, acceptedRisk)) {
    case 'now':
      out.push({
        // the gauge has said it: replace
        ...(n.gaugedSince ? swap : { ...gauge, action: 'Gauge it before the next job' }),
        mark: 'stop',
        reason: `${past} after ${through} of fibre.`,
        weight: weightOf(60, n.pastChance, 30),
      })
      break
    case 'before a filled job':
      out.push({
        ...gauge,
        mark: 'look',
        reason: `${through} fibre through; ${past}.`,
        action: 'Gauge it before the next filled job',
        weight: weightOf(30, n.pastChance, 60),
      })
      break
    case 'after this job':
      out.push({
        ...gauge,
        mark: 'look',
        reason: `Gauge due in ${kg(n.nextGaugeKg)} of fibre; a job like the last takes ${kg(n.jobFibreG! / 1000)}.`,
        action: 'Gauge it after this job',
        weight: weightOf(28),
      })
      break
    case null:
      if (SOFT.includes(n.material) && n.lastMaterial !== null)
        out.push({
          mark: 'look',
          about: n.tag,
          reason: `${capital(n.material)} wears fast with ${n.lastMaterial}.`,
          action: 'Fit a hard nozzle',
          station: 'stores',
          open: `/stores?fit=${headId}`,
          weight: weightOf(25),
        })
  }
  return out
}
