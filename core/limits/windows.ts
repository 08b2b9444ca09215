/**
 * What filaments ask: facts of a material, practice sets with the conditions under which each school works, and the
 * demand that both make. Start values are common practice, no source, unless their basis says otherwise; every one is
 * editable in the app. Sets that disagree stand side by side.
 */
import { DRYING_C } from '../drying'
import { SETPOINT_C } from '../gcode'
import { needEach } from '../numeric'
import type { Filler } from '../wear'
import { ANY_C, checkAsked } from './check'
import type { Basis, ChamberLevel, Demand, Ventilation } from './types'

/** Facts of a material with their unit and what can be entered. */
export const VALUES = {
  nozzleMinC: { label: 'Nozzle, lowest', unit: '°C', min: 100, max: 550 },
  nozzleMaxC: { label: 'Nozzle, highest', unit: '°C', min: 100, max: 550 },
  lowestFlowC: { label: 'Lowest flow temperature', unit: '°C', min: 80, max: 550 },
  shortMaxC: { label: 'Short-time highest', unit: '°C', min: 100, max: 600 },
  swapC: { label: 'Swap temperature', unit: '°C', min: 100, max: 500 },
  dryHighestC: { label: 'Highest safe drying temperature', unit: '°C', min: DRYING_C[0], max: DRYING_C[1] },
  strainAtBreak: { label: 'Strain at break', unit: '%', min: 0.2, max: 500 },
  curlMm: { label: 'Radius it curls to off its spool', unit: 'mm', min: 20, max: 10_000 },
  boreMinMm: { label: 'Smallest possible bore', unit: 'mm', min: 0.1, max: 2 },
  boreGoodMm: { label: 'Recommended bore', unit: 'mm', min: 0.1, max: 2 },
  matrixGCm3: { label: 'Density of the polymer alone', unit: 'g/cm³', min: 0.5, max: 3 },
  glassC: { label: 'Glass transition', unit: '°C', min: -100, max: 400 },
  meltC: { label: 'Melting point', unit: '°C', min: 50, max: 500 },
  waterAt50: { label: 'Water of the polymer at 50 % humidity', unit: 'wt%', min: 0.001, max: 15 },
  diffusion80: { label: 'Diffusivity of water at 80 °C', unit: '10⁻¹¹ m²/s', min: 0.001, max: 1000 },
  diffusionEa: { label: 'Activation energy of diffusion', unit: 'kJ/mol', min: 5, max: 200 },
  usualWater: { label: 'Water it usually prints with, at most', unit: 'wt%', min: 0.0005, max: 10 },
  cleanWater: { label: 'Water it prints cleanly with, at most', unit: 'wt%', min: 0.0005, max: 10 },
  annealMinC: { label: 'Anneal, gentle', unit: '°C', min: 40, max: 350 },
  annealMaxC: { label: 'Anneal, hot', unit: '°C', min: 40, max: 350 },
  annealMinH: { label: 'Anneal, shortest hold', unit: 'h', min: 0.1, max: 100 },
  annealMaxH: { label: 'Anneal, longest hold', unit: 'h', min: 0.1, max: 100 },
  annealRamp: { label: 'Anneal, steepest ramp', unit: '°C an hour', min: 1, max: 300 },
} as const
export type ValueKey = keyof typeof VALUES
/** The facts of a material, in the order of a form. */
export const VALUE_KEYS = Object.keys(VALUES) as ValueKey[]
export interface Fact {
  value: number
  basis: Basis
  note: string
}
export type Facts = Partial<Record<ValueKey, Fact>>

export interface PracticeSet {
  name: string
  /** Under which conditions this school works. */
  conditions: string
  enclosed: boolean
  bedMinC: number | null
  bedMaxC: number | null
  chamber: ChamberLevel
  chamberMinC: number | null
  chamberMaxC: number | null
  dry: boolean
  dryMinC: number | null
  dryMaxC: number | null
  dryHoursMin: number | null
  dryHoursMax: number | null
  /** Sheet, or sheet with its adhesive: "PEI + glue stick". */
  surfaces: string[]
  basis: Basis
  note: string
}

/** What the limits need to know of a material. */
export interface Asking {
  name: string
  polymer: string
  filler: Filler
  ventilation: Ventilation | null
  facts: Partial<Record<ValueKey, number>>
}

/**
 * What a material asks under a practice set, on filament of a diameter in mm; temperatures in °C. A fact that is not
 * entered stays null.
 */
export function demandOf(m: Asking, set: PracticeSet, diameterMm = 1.75): Demand {
  const f = m.facts
  const demand: Demand = {
    name: m.name,
    polymer: m.polymer,
    set: set.name,
    exact: false,
    setpointsOnly: false,
    nozzleMinC: f.nozzleMinC ?? null,
    nozzleMaxC: f.nozzleMaxC ?? null,
    bedMinC: set.bedMinC,
    bedMaxC: set.bedMaxC,
    chamber: set.chamber,
    chamberMinC: set.chamberMinC,
    chamberMaxC: set.chamberMaxC,
    enclosed: set.enclosed,
    dry: set.dry,
    dryMinC: set.dryMinC,
    surfaces: set.surfaces,
    filler: m.filler,
    boreMinMm: f.boreMinMm ?? null,
    boreGoodMm: f.boreGoodMm ?? null,
    strainAtBreak: f.strainAtBreak === undefined ? null : f.strainAtBreak / 100,
    curlMm: f.curlMm ?? null,
    diameterMm,
    ventilation: m.ventilation,
  }
  checkAsked(demand)
  return demand
}

export interface Setpoints {
  nozzleC: number | null
  bedC: number | null
  chamberC: number | null
}

/**
 * A job file's own setpoints, checked as they are: no conductivity offset, no window. With the material that goes
 * through, what that material asks beside temperatures (hardness, bore, bend, dryer ...) is checked too.
 */
export function demandOfJob(name: string, s: Setpoints, base: Demand | null): Demand {
  needEach(s, ['nozzleC', 'bedC', 'chamberC'], ...SETPOINT_C, '°C')
  const chamber = s.chamberC !== null && s.chamberC > 0
  const demand: Demand = {
    ...(base ?? {
      polymer: null,
      filler: null,
      boreMinMm: null,
      boreGoodMm: null,
      strainAtBreak: null,
      curlMm: null,
      diameterMm: 1.75,
      ventilation: null,
      surfaces: null,
      dry: false,
      dryMinC: null,
    }),
    name,
    set: base ? `${base.name}, ${base.set}` : '',
    exact: true,
    setpointsOnly: base === null,
    enclosed: false,
    nozzleMinC: s.nozzleC,
    nozzleMaxC: s.nozzleC,
    bedMinC: s.bedC,
    bedMaxC: s.bedC,
    chamber: chamber ? 'helps' : 'indifferent',
    chamberMinC: chamber ? s.chamberC : null,
    chamberMaxC: null,
  }
  checkAsked(demand)
  return demand
}

/** Pairs of facts of which the first is not above the second. */
export const ORDERED_FACTS: readonly (readonly [ValueKey, ValueKey])[] = [
  ['nozzleMinC', 'nozzleMaxC'],
  ['nozzleMaxC', 'shortMaxC'],
  ['boreMinMm', 'boreGoodMm'],
  ['cleanWater', 'usualWater'],
  ['annealMinC', 'annealMaxC'],
  ['annealMinH', 'annealMaxH'],
]

/** Where a set contradicts itself, each at its field; empty when it does not. Temperatures in °C, times in h. */
export function setProblems(s: Omit<PracticeSet, 'name' | 'basis'>): { field: keyof PracticeSet; message: string }[] {
  needEach(s, ['bedMinC', 'bedMaxC', 'chamberMinC', 'chamberMaxC', 'dryMinC', 'dryMaxC'], ...ANY_C, '°C')
  needEach(s, ['dryHoursMin', 'dryHoursMax'], 0, 1e4, 'h')
  const out: { field: keyof PracticeSet; message: string }[] = []
  const ordered = (a: number | null, b: number | null, field: keyof PracticeSet) => {
    if (a !== null && b !== null && a > b) out.push({ field, message: `Not below the lowest, ${a}` })
  }
  ordered(s.bedMinC, s.bedMaxC, 'bedMaxC')
  ordered(s.chamberMinC, s.chamberMaxC, 'chamberMaxC')
  ordered(s.dryMinC, s.dryMaxC, 'dryMaxC')
  ordered(s.dryHoursMin, s.dryHoursMax, 'dryHoursMax')
  if (s.chamber === 'needs' && s.chamberMinC === null)
    out.push({ field: 'chamberMinC', message: 'Enter the chamber temperature that is needed' })
  if (s.dry && s.dryMinC === null) out.push({ field: 'dryMinC', message: 'Enter how hot it is dried' })
  return out
}
