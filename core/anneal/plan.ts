/**
 * Annealing: ramp up, soak through, hold, ramp down. °C, hours, mm.
 * Soak-through: a plate of thickness 2L heated from both sides, first term of the series, θ = 4/π·exp(−π²/4·αt/L²) at
 * its middle (Incropera & DeWitt, section 5.5, Bi → ∞). Ramps and holds: common practice, no source.
 */
import { TIME_OUT_H } from '../drying'
import { need, needIfKnown } from '../numeric'

/** Thermal diffusivity of a printed polymer, m²/s; order of magnitude from memory. */
export const DIFFUSIVITY = 1.2e-7
/** Thermal diffusivity of dry sand, m²/s: 0.27 W/mK over 1515 kg/m³ × 800 J/kgK (Incropera & DeWitt, table A.3). */
export const SAND_DIFFUSIVITY = 2.2e-7
/** Share of the step still missing in the middle when the hold begins. */
const MISSING = 0.02

/** Thickest place of a part, mm. */
export const THICKNESS_MM = [1, 300] as const
/** Sand on each side of a part, mm. */
export const SAND_MM = [5, 200] as const

/**
 * Hours until the middle of a part of this thickness (1 to 300 mm) is within 2 % of the step. Sand around it (5 to 200
 * mm on each side; null when it lies free) counts by the root of its diffusivity, as dry sand and a polymer take up
 * heat about alike (√(k·ρ·c) is 570 and 630 W·√s/m²K); within 8 % of both layers worked out.
 *
 * @example
 * soakThroughH(20) // 0.39 (h; 4·ln(4/π/0.02)/π² · (0.01 m)²/1.2e-7 m²/s)
 */
export function soakThroughH(thicknessMm: number, sandMm: number | null = null): number {
  need('thicknessMm', thicknessMm, ...THICKNESS_MM, 'mm')
  needIfKnown('sandMm', sandMm, ...SAND_MM, 'mm')
  const halfM = (thicknessMm / 2 + (sandMm ?? 0) * Math.sqrt(DIFFUSIVITY / SAND_DIFFUSIVITY)) / 1000
  return (((Math.log(4 / Math.PI / MISSING) * 4) / Math.PI ** 2) * halfM * halfM) / DIFFUSIVITY / 3600
}

export interface Anneal {
  lowC: number
  highC: number
  lowH: number
  highH: number
}
/** What is put into the oven, and what it is to see: °C, h, °C an hour, mm; sandMm is null when the part lies free. */
export interface AnnealAim {
  atC: number
  holdH: number
  rampCPerH: number
  thicknessMm: number
  sandMm: number | null
}
export interface Oven {
  name: string
  ceilingC: number
  timeOutH: number | null
}
export type Phase = {
  name: 'heat up' | 'soak through' | 'hold' | 'cool down'
  fromC: number
  toC: number
  hours: number
}
export interface AnnealPlan {
  atC: number
  phases: Phase[]
  totalH: number
  /** School asks more than this oven gives: °C short, or 0. */
  shortC: number
  restarts: number
}

/**
 * Both schools of an anneal: the gentle end of the window for its longest hold, the hot end for its shortest; one where
 * the window has no width. °C 0 to 600, hours 0 to 1000.
 */
export function annealSchools(a: Anneal): { name: 'gentle' | 'hot'; atC: number; holdH: number }[] {
  for (const k of ['lowC', 'highC'] as const) need(k, a[k], 0, 600, '°C')
  for (const k of ['lowH', 'highH'] as const) need(k, a[k], 0, 1000, 'h')
  const gentle = { name: 'gentle' as const, atC: a.lowC, holdH: a.highH }
  return a.highC > a.lowC ? [gentle, { name: 'hot' as const, atC: a.highC, holdH: a.lowH }] : [gentle]
}

/**
 * Plan at `atC` °C (0 to 600) for `holdH` h from room temperature (−10 to 50 °C) and back, ramps in °C an hour, part
 * thickness 1 to 300 mm. Throws InputError for an oven below the room or a window upside down.
 *
 * @example
 * const oven = { name: 'oven', ceilingC: 200, timeOutH: null }
 * const aim = { atC: 80, holdH: 6, rampCPerH: 20, thicknessMm: 10, sandMm: null }
 * annealPlan(aim, oven, 20).phases.map(p => p.name) // ["heat up","soak through","hold","cool down"]
 */
export function annealPlan(aim: AnnealAim, oven: Oven, roomC: number): AnnealPlan {
  const { atC, holdH, rampCPerH } = aim
  need('atC', atC, 0, 600, '°C')
  need('roomC', roomC, -10, 50, '°C')
  if (oven.timeOutH !== null) need('timeOutH', oven.timeOutH, ...TIME_OUT_H, 'h')
  need('oven', oven.ceilingC, roomC + 1, 600, '°C')
  need('rampCPerH', rampCPerH, 1, 600, '°C an hour')
  need('holdH', holdH, 0, 200, 'h')
  const reached = Math.min(atC, oven.ceilingC)
  const ramp = Math.max(0, reached - roomC) / rampCPerH
  const phases: Phase[] = [
    { name: 'heat up', fromC: roomC, toC: reached, hours: ramp },
    { name: 'soak through', fromC: reached, toC: reached, hours: soakThroughH(aim.thicknessMm, aim.sandMm) },
    { name: 'hold', fromC: reached, toC: reached, hours: holdH },
    { name: 'cool down', fromC: reached, toC: roomC, hours: ramp },
  ]
  const totalH = phases.reduce((s, p) => s + p.hours, 0)
  const hot = totalH - ramp // what the time-out counts
  return {
    atC: reached,
    phases,
    totalH,
    shortC: Math.max(0, atC - oven.ceilingC),
    restarts: oven.timeOutH === null ? 0 : Math.max(0, Math.ceil(hot / oven.timeOutH) - 1),
  }
}

/** Where the plan stands after some hours, 0 or more: the phase, and the temperature in °C that the oven is to show. */
export function annealNow(p: AnnealPlan, hours: number): { phase: Phase | null; setC: number; leftH: number } {
  need('hours', hours, 0, 1e9, 'h')
  let t = hours
  for (const phase of p.phases) {
    if (t < phase.hours)
      return { phase, setC: phase.fromC + ((phase.toC - phase.fromC) * t) / phase.hours, leftH: p.totalH - hours }
    t -= phase.hours
  }
  return { phase: null, setC: p.phases[p.phases.length - 1]!.toC, leftH: 0 }
}
