/** How long a dry spool stays dry enough, and whether a planned print outlasts it. Hours; water in wt%. */
import { capital, listed } from '../words'
import { bisect, InputError, need } from '../numeric'
import { checkFilament, equilibriumWater, ratePerS, type Filament } from './filament'
import { meanAfter, meanWater, WATER_WT, type Moisture } from './shells'
import { checkAir } from './humidity'
import { checkWound, factorAt, type SpoolWater, type Wound } from './history'

export interface Air {
  airC: number
  rh: number
}

/** Hours until mean water passes `limit` upwards in this air; 0 when it is past already, Infinity when it never is. */
function hoursUntilWet(m: Moisture, f: Filament, air: Air, factor: number, limit: number): number {
  if (meanWater(m) >= limit) return 0
  const atAir = equilibriumWater(f, air.rh)
  if (atAir <= limit) return Infinity
  const perHour = (ratePerS(f, air.airC) / factor) * 3600
  const far = 12 / perHour // all but e⁻⁶⁹ of the way
  return bisect(h => meanAfter(m, atAir, perHour * h) >= limit, 0, far, 1e-4)
}

/** Strand (the pessimistic bound) and wound spool (the estimate). */
export interface DryTime {
  strandH: number
  woundH: number
}

/**
 * Hours that a spool stays below `limit` wt% in this air: as a single strand, and wound. 0 when it is past already,
 * Infinity when this air never wets it so far.
 */
export function dryTime(w: SpoolWater, f: Filament, air: Air, wound: Wound, limit = f.usual): DryTime {
  checkWound(wound)
  checkFilament(f)
  checkAir(air)
  need('limit', limit, ...WATER_WT, 'wt%')
  return {
    strandH: hoursUntilWet(w.strand, f, air, 1, limit),
    woundH: hoursUntilWet(w.wound, f, air, factorAt(wound, w.fill), limit),
  }
}

export type PrintDryness = 'dry' | 'outer turns' | 'outlasts' | 'wet'

/**
 * Will this spool stay dry for a print of `hours`? 'outer turns': the wound spool holds but a single strand would not,
 * so the outer turns may spit; 'outlasts': the print lasts longer than the spool stays dry; 'wet': it is past the limit
 * now.
 */
export function drynessFor(hours: number, t: DryTime): PrintDryness {
  need('hours', hours, 0, 1e6, 'h')
  checkDryTime(t)
  if (t.woundH <= 0) return 'wet'
  if (hours > t.woundH) return 'outlasts'
  return hours > t.strandH ? 'outer turns' : 'dry'
}

function checkDryTime(t: DryTime): void {
  for (const k of ['strandH', 'woundH'] as const) if (!(t[k] >= 0)) throw new InputError(k, t[k], '0 h or more')
}

/** What would let a print of `hours` stay dry: the dry box only where it helps, a split, or drying first. */
export function drynessFixes(hours: number, t: DryTime, inBox: DryTime | null): string {
  need('hours', hours, 0, 1e6, 'h')
  checkDryTime(t)
  if (inBox !== null) checkDryTime(inBox)
  const out: string[] = []
  if (inBox !== null && drynessFor(hours, inBox) === 'dry') out.push('feed it from the dry box')
  const part = Math.min(t.strandH, t.woundH)
  if (part >= 1) out.push(`split it into ${Math.ceil(hours / part)} parts with the spool kept dry between them`)
  out.push('dry the spool first')
  return capital(listed(out))
}
