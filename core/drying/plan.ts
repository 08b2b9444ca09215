/** Drying plans: how long in which dryer, what a cooler one leaves, and what must not be done. °C, hours, wt%. */
import { bisect, inverseNormal, need, needEach, needIfKnown } from '../numeric'
import { checkFilament, equilibriumWater, ratePerS, type Filament } from './filament'
import { hubCeilingC } from './hubs'
import { AIR_C, checkAir, dewPointRh, heatedRh, RH_PERCENT, STANDS_C } from './humidity'
import { checkWound, type SpoolWater, type Wound } from './history'
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

function checkLimits(l: DryingLimits): void {
  needIfKnown('dryHighestC', l.dryHighestC, 0, 600, '°C')
  needEach(l, ['glassC', 'meltC'], -100, 600, '°C')
}

/** Dew point that a desiccant keeps, °C; common practice, no source. */
export const DESICCANT_DEW_C = -20

/** Share of the room's air that a vacuum dryer leaves; common practice, no source. */
export const VACUUM_SHARE = 0.1

/**
 * Relative humidity in % inside a dryer at `airC`: heated room air, the same thinned by a pump, or air dried to the
 * desiccant's dew point.
 */
export function dryerRh(kind: DryerKind, airC: number, room: { airC: number; rh: number }): number {
  const heated = heatedRh(room.airC, room.rh, airC)
  if (kind === 'vacuum') return heated * VACUUM_SHARE
  return kind === 'desiccant' ? Math.min(heated, dewPointRh(DESICCANT_DEW_C, airC)) : heated
}

export interface DryingLimits {
  /** Highest safe drying temperature of the record; null when not entered. */
  dryHighestC: number | null
  glassC: number | null
  meltC: number | null
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
  checkLimits(l)
  const caps: Cap[] = []
  if (l.dryHighestC !== null) caps.push({ atC: l.dryHighestC, reason: 'filament' })
  if (l.meltC === null && l.glassC !== null) caps.push({ atC: l.glassC - 5, reason: 'glass transition' })
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

export interface DryingPlan {
  atC: number
  /** Which limit sets the temperature. */
  reason: DryingReason
  rh: number
  /** What would stay in however long it dried, wt%. */
  leavesAtBestWt: number
  /**
   * Hours to the target: single strand (optimistic), wound spool with its heat-up, and its 80 % range. Infinity: never.
   */
  strandH: number
  woundH: number
  lowH: number
  highH: number
  /** How often the firmware switches off before the end. */
  restarts: number
  overDry: boolean
}

/** Longer than this hot, filled nylon gets brittle, h; common practice, no source. */
export const OVER_DRY_H = 24

/**
 * Plan to `target` wt% for a dryer at its best allowed temperature, or at `asked` °C when given and allowed (see
 * dryingRefusal): hours by the single strand and by the wound spool, with an 80 % range. Null when no temperature is
 * known to be safe. Throws InputError outside the ranges.
 */
export function dryingPlan(
  w: SpoolWater,
  f: Filament,
  dryer: Dryer,
  room: { airC: number; rh: number },
  l: DryingLimits,
  wound: Wound,
  target: number,
  brittle: boolean,
  asked: number | null = null,
): DryingPlan | null {
  need('target', target, ...WATER_WT, 'wt%')
  checkDryer(dryer)
  checkWound(wound)
  checkFilament(f)
  checkAir(room)
  if (asked !== null) need('asked', asked, 0, 600, '°C')
  const cap = safeCap(l)
  if (cap === null) return null
  const best: Cap = dryer.ceilingC < cap.atC ? { atC: dryer.ceilingC, reason: 'dryer' } : cap
  const atC = Math.min(AIR_C[1], asked === null ? best.atC : Math.min(asked, best.atC))
  const rh = dryerRh(dryer.kind, atC, room)
  const strandH = hoursToDry(w.strand, f, atC, rh, 1, target)
  const bare = hoursToDry(w.wound, f, atC, rh, wound.factor, target)
  // time goes as 1/D, so the range is exact
  const spread = Math.exp(inverseNormal(0.9) * (wound.weighings > 0 ? wound.lnSd : Math.hypot(wound.lnSd, f.lnSd)))
  const woundH = bare === 0 ? 0 : bare + wound.heatUpH
  return {
    atC,
    reason: best.reason,
    rh,
    leavesAtBestWt: equilibriumWater(f, rh),
    strandH,
    woundH,
    lowH: bare === 0 ? 0 : bare / spread + wound.heatUpH,
    highH: bare === 0 ? 0 : bare * spread + wound.heatUpH,
    restarts:
      dryer.timeOutH === null || !Number.isFinite(woundH) ? 0 : Math.max(0, Math.ceil(woundH / dryer.timeOutH) - 1),
    overDry: brittle && Number.isFinite(woundH) && woundH > OVER_DRY_H,
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
  const atAir = equilibriumWater(f, dryerRh(kind, atC, room)),
    perHour = ratePerS(f, atC) * 3600
  return {
    strand: meanAfter(w.strand, atAir, perHour * hours),
    wound: meanAfter(w.wound, atAir, (perHour / wound.factor) * Math.max(0, hours - wound.heatUpH)),
  }
}
