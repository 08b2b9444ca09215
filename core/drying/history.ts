/**
 * A spool's water through its whole history: one state for a single strand and one for the wound spool, carried through
 * every place it stood in. The single strand is the optimistic bound for drying and the pessimistic one for wet-out; on
 * the spool the turns shield each other, so its diffusivity is divided by the wound-spool factor. What a spool held
 * when it came nobody knows: the state is carried from as wet as the room's air, and the wound spool also from dry.
 * Times in ms, water wt%.
 */
import { AT_MS, InputError, inverseNormal, need } from '../numeric'
import { checkFilament, equilibriumWater, ratePerS, type Filament } from './filament'
import { checkAir, RH_PERCENT, STANDS_C } from './humidity'
import { carried, evenly, meanWater, type Moisture } from './shells'

/** Where a spool can stay, each with air of its own. */
export const PLACES_OF_SPOOL = ['sealed', 'room', 'dry box', 'dryer'] as const
export type SpoolPlace = (typeof PLACES_OF_SPOOL)[number]

/** Where a spool stood from one moment to another, and the air there. */
export interface Stay {
  from: number
  to: number
  place: SpoolPlace
  airC: number
  rh: number
  /** The driest that this air can have been, %, where nobody read its hygrometer; else the same. */
  rhLow?: number
  /** How full the spool was, 0 to 1. */
  fill: number
}

export interface Wound {
  /** D of a full wound spool is D of the strand divided by this; see `factorAt`. */
  factor: number
  /**
   * Standard deviation of its logarithm; once spools were weighed it includes what the diffusion constants are off by.
   */
  lnSd: number
  weighings: number
  /** Hours until a spool in a dryer is hot through; its water is taken as still until then. */
  heatUpH: number
}

/** Start values: twice as slow, 80 % between 1 and 4; common practice, no source. */
export const START_WOUND: Wound = { factor: 2, lnSd: Math.LN2 / inverseNormal(0.9), weighings: 0, heatUpH: 1.5 }

/**
 * What the water in a spool is worked out by; a kept stand of another version is worked out again. Raise it with every
 * change of the model or of its start values.
 */
export const DRYING_MODEL = 1

/** How full a spool may be said to be. */
export const FILL = [0, 1] as const
/**
 * How many times slower than a single strand a spool is that is filled to `fill` (0 to 1): a nearly empty one has few
 * turns that shield each other, so the logarithm goes with the fill. Common practice, no source.
 */
export function factorAt(w: Wound, fill: number): number {
  checkWound(w)
  need('fill', fill, ...FILL)
  return w.factor ** fill
}

export interface SpoolWater {
  strand: Moisture
  wound: Moisture
  /** The wound spool if it came dry: what it holds at least. */
  low: Moisture
  /** How full it is now, 0 to 1. */
  fill: number
  /** A drying lies behind it: the only proof of less water than it may have come with. */
  dried: boolean
  at: number
}
export interface TracePoint {
  at: number
  strand: number
  wound: number
  low: number
  place: SpoolPlace
}

/** What is wrong with a history, by its stay: overlaps, humidity outside 0 to 100 %, an end before its beginning. */
export function historyProblems(stays: readonly Stay[]): { index: number; message: string }[] {
  const out: { index: number; message: string }[] = []
  stays.forEach((s, index) => {
    if (!(s.rh >= RH_PERCENT[0] && s.rh <= RH_PERCENT[1]))
      out.push({ index, message: `Humidity ${s.rh} is not allowed; 0 to 100 %` })
    if (s.rhLow !== undefined && !(s.rhLow >= RH_PERCENT[0] && s.rhLow <= RH_PERCENT[1]))
      out.push({ index, message: `Humidity ${s.rhLow} is not allowed; 0 to 100 %` })
    if (!(s.airC >= STANDS_C[0] && s.airC <= STANDS_C[1]))
      out.push({ index, message: `Air of ${s.airC} is not allowed; ${STANDS_C[0]} to ${STANDS_C[1]} °C` })
    if (!(s.fill >= FILL[0] && s.fill <= FILL[1]))
      out.push({ index, message: `A fill of ${s.fill} is not allowed; 0 to 1` })
    if (!(s.from >= AT_MS[0] && s.to <= AT_MS[1])) out.push({ index, message: 'It has no time' })
    else if (!(s.to >= s.from)) out.push({ index, message: 'It ends before it begins' })
    else if (index > 0 && s.from < stays[index - 1]!.to)
      out.push({ index, message: 'It begins before the one before it has ended' })
  })
  return out
}

/** Ranges of the wound-spool model: factor, spread of its logarithm, hours of heat-up. */
export function checkWound(w: Wound): void {
  need('factor', w.factor, 0.1, 1000)
  need('lnSd', w.lnSd, 0, 5)
  need('heatUpH', w.heatUpH, 0, 100, 'h')
  need('weighings', w.weighings, 0, 1e6)
}

/**
 * A spool that nobody dried yet, at a time in ms since 1970: at most as wet as the air (% relative humidity) it is
 * taken to have stood in, at least dry. Nobody knows how long it lay before it was sealed.
 */
export function newSpool(f: Filament, rh: number, at: number, fill = 1): SpoolWater {
  need('at', at, ...AT_MS, 'ms')
  need('fill', fill, ...FILL)
  const even = evenly(equilibriumWater(f, rh))
  return { strand: even, wound: even, low: evenly(0), fill, dried: false, at }
}

/**
 * State at the end of one stay (times in ms since 1970, air in °C and % relative humidity, fill 0 to 1). One that is
 * sealed, or ends before it begins, changes nothing but the time. Throws InputError outside the ranges.
 */
export function stayed(w: SpoolWater, f: Filament, s: Stay, wound: Wound): SpoolWater {
  checkWound(wound)
  need('from', s.from, ...AT_MS)
  need('to', s.to, ...AT_MS)
  checkAir(s)
  checkFilament(f)
  const seconds = (s.to - s.from) / 1000
  const dried = w.dried || (s.place === 'dryer' && seconds > 0)
  if (s.place === 'sealed' || seconds <= 0) return { ...w, fill: s.fill, dried, at: s.to }
  const rate = ratePerS(f, s.airC),
    atAir = equilibriumWater(f, s.rh)
  const hot = s.place === 'dryer' ? Math.max(0, seconds - wound.heatUpH * 3600) : seconds
  const wounds = (rate / factorAt(wound, s.fill)) * hot
  const driest = equilibriumWater(f, Math.min(s.rh, s.rhLow ?? s.rh))
  const next = { low: carried(w.low, driest, wounds), fill: s.fill, dried, at: s.to }
  // a box keeps a spool as it is; that it dried one that nobody dried is no proof
  const kept = s.place === 'dry box' && !dried && atAir < meanWater(w.wound)
  if (kept) return { ...next, strand: w.strand, wound: w.wound }
  return { ...next, strand: carried(w.strand, atAir, rate * seconds), wound: carried(w.wound, atAir, wounds) }
}

/** State after all stays, one after the other. Throws InputError when the history contradicts itself. */
export function throughHistory(start: SpoolWater, f: Filament, stays: readonly Stay[], wound: Wound): SpoolWater {
  const problem = historyProblems(stays)[0]
  if (problem) throw new InputError(`stays.${problem.index}`, stays[problem.index]!.place, problem.message)
  return stays.reduce((w, s) => stayed(w, f, s, wound), start)
}

/** The same as points for a drawing, `perStay` steps in each stay. */
export function trace(
  start: SpoolWater,
  f: Filament,
  stays: readonly Stay[],
  wound: Wound,
  perStay = 12,
): TracePoint[] {
  need('perStay', perStay, 1, 10_000)
  const out: TracePoint[] = []
  let w = start
  for (const s of stays) {
    const point = (x: SpoolWater) =>
      out.push({
        at: x.at,
        strand: meanWater(x.strand),
        wound: meanWater(x.wound),
        low: meanWater(x.low),
        place: s.place,
      })
    point({ ...w, at: s.from })
    if (s.place !== 'sealed')
      for (let i = 1; i < perStay; i++)
        // closer together at first
        point(stayed(w, f, { ...s, to: s.from + (s.to - s.from) * (i / perStay) ** 2 }, wound))
    w = stayed(w, f, s, wound)
    point(w)
  }
  return out
}
