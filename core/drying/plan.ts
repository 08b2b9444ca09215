/** Drying plans: how long in which dryer, what a cooler one leaves, and what must not be done. °C, hours, wt%. */
import { BELOW_GLASS_C, solidOf, type Transitions } from '../materials'
import { bisect, inverseNormal, need, needIfKnown } from '../numeric'
import { checkFilament, diffusivity, equilibriumWater, ratePerS, type Filament } from './filament'
import { hubCeilingC } from './hubs'
import { AIR_C, checkAir, dewPointRh, heatedRh, RH_PERCENT, STANDS_C } from './humidity'
import { checkWound, factorAt, type SpoolWater, type Wound } from './history'
import { meanAfter, meanWater, WATER_WT, type Moisture } from './shells'

/** Kinds of dryers: heated room air, dried air, thinned air, a heated bed, an oven. */
export const DRYER_KINDS = ['vented', 'desiccant', 'vacuum', 'bed under a cover', 'oven'] as const
export type DryerKind = (typeof DRYER_KINDS)[number]

export interface Dryer {
  kind: DryerKind
  ceilingC: number
  /** Firmware switches it off after so many hours; null when it does not. Never disabled: start it again. */
  timeOutH: number | null
}

/**
 * How hot anything may be dried or annealed, °C, and hours until a firmware switches off. The doors take theirs from
 * here.
 */
export const DRYING_C = [30, AIR_C[1]] as const
/** Hours until firmware switches a dryer or an oven off. */
export const TIME_OUT_H = [0.1, 200] as const
const DRYER_CEILING_C = [20, 600] as const

function checkDryer(d: Dryer): void {
  need('ceilingC', d.ceilingC, ...DRYER_CEILING_C, '°C')
  if (d.timeOutH !== null) need('timeOutH', d.timeOutH, ...TIME_OUT_H, 'h')
}

/** Dew point that a desiccant keeps, °C; common practice, no source. */
export const DESICCANT_DEW_C = -20

/** Share of the room's air that a vacuum dryer leaves; common practice, no source. */
export const VACUUM_SHARE = 0.1

/**
 * A spool under a cover on a heated bed is so far on the way from the room to the bed, with its 80 % range, until a
 * probe beside it says; common practice, no source. For drying only: hub and filament touch the bed itself.
 */
export const BED_SHARE = { usual: 0.75, low: 0.6, high: 0.9 }
/** Temperature of the spool in a dryer set to `setC`, °C, in a room of `roomC` °C: on a bed it is cooler than that. */
export function spoolTempC(kind: DryerKind, setC: number, roomC: number, share = BED_SHARE.usual): number {
  need('setC', setC, ...STANDS_C, '°C')
  need('roomC', roomC, ...STANDS_C, '°C')
  need('share', share, 0, 1)
  return kind === 'bed under a cover' ? roomC + share * (setC - roomC) : setC
}
/** Standard deviation of ln D that is not knowing how warm the spool on a bed is. */
function bedLnSd(kind: DryerKind, f: Filament, setC: number, roomC: number): number {
  if (kind !== 'bed under a cover') return 0
  const d = (share: number) => Math.log(diffusivity(f, spoolTempC(kind, setC, roomC, share)))
  return Math.abs(d(BED_SHARE.high) - d(BED_SHARE.low)) / (2 * Z80)
}

/**
 * Relative humidity in % inside a dryer at `airC`: heated room air, the same thinned by a pump, or air dried to the
 * desiccant's dew point.
 */
export function dryerRh(kind: DryerKind, airC: number, room: { airC: number; rh: number }): number {
  const heated = heatedRh(room.airC, room.rh, airC)
  if (kind === 'vacuum') return heated * VACUUM_SHARE
  return kind === 'desiccant' ? Math.min(heated, dewPointRh(DESICCANT_DEW_C, airC)) : heated
}

export interface DryingLimits extends Transitions {
  /** Highest safe drying temperature of the record; null when not entered. */
  dryHighestC: number | null
  hub: string
}

export type DryingReason = 'dryer' | 'filament' | 'glass transition' | 'hub' | 'unknown hub'
export interface Cap {
  atC: number
  reason: DryingReason
}

/**
 * The hottest that a spool may be dried, °C: amorphous filament below its glass transition, semi-crystalline as its
 * record says, the hub as it stands. Null when the record has no highest safe temperature and no glass transition
 * tells.
 */
export function safeCap(l: DryingLimits): Cap | null {
  return lowest(capsOf(l))
}

/** Every limit there is; none when nothing is known of the filament. */
function capsOf(l: DryingLimits): Cap[] {
  needIfKnown('dryHighestC', l.dryHighestC, 0, 600, '°C')
  const caps: Cap[] = []
  if (l.dryHighestC !== null) caps.push({ atC: l.dryHighestC, reason: 'filament' })
  if (solidOf(l) === 'amorphous') caps.push({ atC: l.glassC! - BELOW_GLASS_C, reason: 'glass transition' })
  if (caps.length === 0) return []
  const hub = hubCeilingC(l.hub)
  return [...caps, { atC: hub.limitC, reason: hub.known ? 'hub' : 'unknown hub' }]
}
const lowest = (caps: readonly Cap[]): Cap | null =>
  caps.length === 0 ? null : caps.reduce((a, b) => (b.atC < a.atC ? b : a))

/** Whether somebody must tell what the hub is made of before it is dried at `atC` °C. */
export function asksHub(atC: number, hub: string): boolean {
  need('atC', atC, 0, 600, '°C')
  const { limitC, known } = hubCeilingC(hub)
  return !known && atC > limitC
}

/**
 * Why a temperature (0 to 600 °C) must not be used for this spool in this dryer; null when it may, as far as is known:
 * a hub that nobody has told of is asked for (`asksHub`), not refused.
 */
export function dryingRefusal(atC: number, dryer: Pick<Dryer, 'ceilingC'>, l: DryingLimits): string | null {
  need('atC', atC, 0, 600, '°C')
  need('ceilingC', dryer.ceilingC, ...DRYER_CEILING_C, '°C')
  const cap = lowest(capsOf(l).filter(c => c.reason !== 'unknown hub'))
  if (cap === null)
    return 'No highest safe drying temperature is entered for this filament, and no glass transition tells one'
  if (atC > dryer.ceilingC) return `This dryer stops at ${dryer.ceilingC} °C`
  if (atC <= cap.atC) return null
  if (cap.reason === 'hub') return `The ${l.hub} hub sags above ${cap.atC} °C`
  return cap.reason === 'filament'
    ? `The filament stands ${cap.atC} °C when it is dried; hotter, the turns fuse`
    : `Its glass transition is near; above ${cap.atC} °C the turns fuse`
}

/**
 * Hours until mean water falls to `target` wt% at `atC` °C and `rh` %, slowed by a factor (1: a single strand);
 * Infinity when the equilibrium of the air is above it, 0 when it is there already. Throws InputError outside the
 * ranges.
 */
export function hoursToDry(m: Moisture, f: Filament, atC: number, rh: number, factor: number, target: number): number {
  need('target', target, ...WATER_WT, 'wt%')
  need('factor', factor, 0.1, 1000)
  checkFilament(f)
  need('atC', atC, ...STANDS_C, '°C')
  need('rh', rh, ...RH_PERCENT, '%')
  if (meanWater(m) <= target) return 0
  const atAir = equilibriumWater(f, rh)
  if (atAir >= target) return Infinity
  const perHour = (ratePerS(f, atC) / factor) * 3600
  return bisect(h => meanAfter(m, atAir, perHour * h) <= target, 0, 12 / perHour, 1e-4)
}

/** Hours to one mark. Infinity: never. */
export interface HoursTo {
  targetWt: number
  /** A single strand, the optimistic bound. */
  strandH: number
  /** By the model: wound spool with its heat-up, and its 80 % range. */
  modelH: number
  lowH: number
  highH: number
  /** What to set: the model's, and never less than the shortest hours of practice; 0 when it is there already. */
  planH: number
}
export interface DryingPlan {
  atC: number
  /** Which limit sets the temperature. */
  reason: DryingReason
  /** How warm the spool gets, °C: on a bed less than the bed. */
  spoolC: number
  rh: number
  /** What would stay in however long it dried, wt%. */
  leavesAtBestWt: number
  to: HoursTo
  clean: HoursTo
  /** How often the firmware switches off before the end. */
  restarts: number
  overDry: boolean
}

/** Longer than this hot, filled nylon gets brittle, h; common practice, no source. */
export const OVER_DRY_H = 24
/** The heat-up is known to a factor of two, 80 %; common practice, no source. */
const HEAT_UP_FACTOR = 2
const Z80 = inverseNormal(0.9)

/** What a plan is made for. */
export interface DryingAim {
  targetWt: number
  /** The shortest hours that a practice of this material gives; null when there is none. */
  practiceH: number | null
  /** Gets brittle when it is dried too long. */
  brittle: boolean
  /** °C, where it is not the hottest that is allowed. */
  askedC?: number | null
}

/**
 * Plan to a target and to *clean* (wt%) for a dryer at its best allowed temperature, or at the one asked for when it is
 * allowed (see dryingRefusal): hours by the single strand and by the wound spool, with an 80 % range, never less than
 * the shortest of practice. Null when no temperature is known to be safe. Throws InputError outside the ranges.
 */
export function dryingPlan(
  w: SpoolWater,
  f: Filament,
  dryer: Dryer,
  room: { airC: number; rh: number },
  l: DryingLimits,
  wound: Wound,
  aim: DryingAim,
): DryingPlan | null {
  need('targetWt', aim.targetWt, ...WATER_WT, 'wt%')
  needIfKnown('practiceH', aim.practiceH, 0, 1000, 'h')
  needIfKnown('askedC', aim.askedC, 0, 600, '°C')
  checkDryer(dryer)
  checkWound(wound)
  checkFilament(f)
  checkAir(room)
  const asked = aim.askedC ?? null
  const cap = safeCap(l)
  if (cap === null) return null
  const best: Cap = dryer.ceilingC < cap.atC ? { atC: dryer.ceilingC, reason: 'dryer' } : cap
  const atC = Math.min(AIR_C[1], asked === null ? best.atC : Math.min(asked, best.atC))
  const spoolC = spoolTempC(dryer.kind, atC, room.airC)
  const rh = dryerRh(dryer.kind, spoolC, room)
  // a weighed factor has taken up what the constants are off by
  const factorSd = wound.weighings > 0 ? wound.lnSd : Math.hypot(wound.lnSd * w.fill, f.lnSd)
  const lnSd = Math.hypot(factorSd, bedLnSd(dryer.kind, f, atC, room.airC))
  const hoursTo = (targetWt: number): HoursTo => {
    const bare = hoursToDry(w.wound, f, spoolC, rh, factorAt(wound, w.fill), targetWt)
    const strandH = hoursToDry(w.strand, f, spoolC, rh, 1, targetWt)
    if (bare === 0 || bare === Infinity)
      return { targetWt, strandH, modelH: bare, lowH: bare, highH: bare, planH: bare }
    const modelH = bare + wound.heatUpH
    // time goes as 1/D, so each part's range is exact; the two are independent
    const spread = Math.exp(Z80 * lnSd)
    const lowH = modelH - Math.hypot(bare - bare / spread, wound.heatUpH - wound.heatUpH / HEAT_UP_FACTOR)
    const highH = modelH + Math.hypot(bare * spread - bare, wound.heatUpH * HEAT_UP_FACTOR - wound.heatUpH)
    return { targetWt, strandH, modelH, lowH, highH, planH: Math.max(modelH, aim.practiceH ?? 0) }
  }
  const to = hoursTo(aim.targetWt)
  return {
    atC,
    reason: best.reason,
    spoolC,
    rh,
    leavesAtBestWt: equilibriumWater(f, rh),
    to,
    clean: hoursTo(f.clean),
    restarts:
      dryer.timeOutH === null || !Number.isFinite(to.planH) ? 0 : Math.max(0, Math.ceil(to.planH / dryer.timeOutH) - 1),
    overDry: aim.brittle && Number.isFinite(to.planH) && to.planH > OVER_DRY_H,
  }
}

/** Water in wt% left after drying at `atC` °C for `hours` (0 or more): what a rule of a school does by the model. */
export function leftAfter(
  w: SpoolWater,
  f: Filament,
  kind: DryerKind,
  atC: number,
  hours: number,
  room: { airC: number; rh: number },
  wound: Wound,
): { strand: number; wound: number } {
  need('hours', hours, 0, 1e6, 'h')
  need('atC', atC, ...STANDS_C, '°C')
  checkAir(room)
  checkWound(wound)
  const spoolC = spoolTempC(kind, atC, room.airC)
  const atAir = equilibriumWater(f, dryerRh(kind, spoolC, room)),
    perHour = ratePerS(f, spoolC) * 3600
  return {
    strand: meanAfter(w.strand, atAir, perHour * hours),
    wound: meanAfter(w.wound, atAir, (perHour / factorAt(wound, w.fill)) * Math.max(0, hours - wound.heatUpH)),
  }
}
