/**
 * How a filament takes up and gives off water. D(T) = D80·exp(−Ea/R·(1/T − 1/353.15 K)); water at equilibrium rises
 * with relative humidity; fillers hold none. Start values: the polyamide's were chosen to agree with practice, the
 * others are orders of magnitude from memory; every one can be entered per material with its basis.
 */
import { MOST_FILLER } from '../materials'
import { need, needIfKnown } from '../numeric'
import { RH_PERCENT } from './humidity'
import { isPolyamide, marksOf } from './marks'
import { WATER_WT } from './shells'

export interface Filament {
  diameterMm: number
  /** Mass share of filler, 0 to 0.8. */
  fillerFraction: number
  /** Water of the polymer alone in air of 50 % relative humidity, wt%. */
  waterAt50: number
  /** Diffusivity of water at 80 °C, m²/s, and its activation energy, J/mol. */
  d80: number
  eaJMol: number
  /** Standard deviation of ln D: how well the constants are known. */
  lnSd: number
  /** Water of the compound up to which it prints without a trace of it, and up to which it usually prints, wt%. */
  clean: number
  usual: number
}

export interface Uptake {
  waterAt50: number
  d80: number
  eaKJMol: number
}
const uptake = (waterAt50: number, d80: number, eaKJMol: number): Uptake => ({ waterAt50, d80: d80 * 1e-11, eaKJMol })

/** Start values by polymer; D in m²/s. */
export const START_UPTAKE: Readonly<Record<string, Uptake>> = {
  'pa6': uptake(2.7, 1, 55),
  'pa12': uptake(0.7, 1, 55),
  'ppa': uptake(1.8, 0.5, 55),
  'pla': uptake(0.4, 5, 45),
  'petg': uptake(0.2, 2, 45),
  'abs': uptake(0.3, 4, 40),
  'asa': uptake(0.35, 4, 40),
  'pc': uptake(0.15, 6, 30),
  'tpu': uptake(0.5, 5, 40),
  'pekk': uptake(0.1, 1.5, 45),
  'pps': uptake(0.03, 2, 45),
  'peek': uptake(0.1, 1.5, 45),
  'pei': uptake(0.5, 2, 40),
  'ppsu': uptake(0.5, 2.5, 40),
  'psu': uptake(0.3, 2.5, 40),
  'liquid-crystal polyester': uptake(0.03, 0.3, 45),
}

/** Polymers that take up none: they are not dried. From memory. */
const NO_UPTAKE: readonly string[] = ['pp']
/** Whether a polymer takes up no water. */
export const takesNoWater = (polymer: string) => NO_UPTAKE.includes(polymer.trim().toLowerCase())

/** Facts as entered; what is missing comes from the polymer's start values. */
export interface UptakeFacts {
  waterAt50?: number | null
  d80E11?: number | null
  eaKJMol?: number | null
  clean?: number | null
  usual?: number | null
}

const LN_SD = { polyamide: 0.5, other: 0.9 }

/**
 * Filament of a material (filler share 0 to 0.8, diameter 0.5 to 5 mm), or null when neither its facts nor its polymer
 * tell how it takes up water and how much it prints with. Facts: wt% at 50 % humidity, D at 80 °C in 1e-11 m²/s,
 * activation energy in kJ/mol, both marks in wt% of the compound.
 */
export function filamentOf(
  polymer: string,
  fillerFraction: number,
  diameterMm: number,
  facts: UptakeFacts = {},
): Filament | null {
  const start = START_UPTAKE[polymer.trim().toLowerCase()]
  const waterAt50 = facts.waterAt50 ?? start?.waterAt50,
    d80 = facts.d80E11 != null ? facts.d80E11 * 1e-11 : start?.d80,
    ea = facts.eaKJMol ?? start?.eaKJMol
  if (waterAt50 === undefined || d80 === undefined || ea === undefined) return null
  need('diameterMm', diameterMm, 0.5, 5, 'mm')
  need('fillerFraction', fillerFraction, 0, 0.8)
  needIfKnown('d80E11', facts.d80E11, 1e-5, 1e4, '10⁻¹¹ m²/s')
  needIfKnown('eaKJMol', facts.eaKJMol, 0, 300, 'kJ/mol')
  checkUptake({ waterAt50, d80, eaJMol: ea * 1000 })
  const marks = marksOf(polymer, waterAt50 * (1 - fillerFraction), facts)
  if (marks === null) return null
  return {
    diameterMm,
    fillerFraction,
    waterAt50,
    d80,
    eaJMol: ea * 1000,
    lnSd: isPolyamide(polymer) ? LN_SD.polyamide : LN_SD.other,
    ...marks,
  }
}

const R = 8.314462618

/** Diffusivity in m²/s at 80 °C and its activation energy in J/mol, as far as anything is known of polymers. */
function checkDiffusion(f: Pick<Filament, 'd80' | 'eaJMol'>): void {
  need('d80', f.d80, 1e-16, 1e-7, 'm²/s')
  need('eaJMol', f.eaJMol, 0, 300_000, 'J/mol')
}
/** The same, and water at 50 % humidity in wt%. */
function checkUptake(f: Pick<Filament, 'd80' | 'eaJMol' | 'waterAt50'>): void {
  checkDiffusion(f)
  need('waterAt50', f.waterAt50, 0, 50, 'wt%')
}
/** All of a filament, for those who carry its water on. */
export function checkFilament(f: Filament): void {
  need('diameterMm', f.diameterMm, 0.5, 5, 'mm')
  need('fillerFraction', f.fillerFraction, 0, 0.8)
  checkUptake(f)
  need('lnSd', f.lnSd, 0, 5)
  need('clean', f.clean, ...WATER_WT, 'wt%')
  need('usual', f.usual, f.clean, WATER_WT[1], 'wt%')
}

/** Diffusivity in m²/s at −40 to 250 °C. */
export function diffusivity(f: Pick<Filament, 'd80' | 'eaJMol'>, celsius: number): number {
  need('celsius', celsius, -40, 250, '°C')
  checkDiffusion(f)
  return f.d80 * Math.exp((-f.eaJMol / R) * (1 / (celsius + 273.15) - 1 / 353.15))
}

/**
 * Rate D/a² per second at a temperature in °C (a: radius of the filament), which turns hours into the number that
 * diffusion goes by.
 */
export function ratePerS(f: Filament, celsius: number): number {
  checkFilament(f)
  return diffusivity(f, celsius) / (f.diameterMm / 2000) ** 2
}

/** Water of the filament in wt% when it has stood long in air of this relative humidity (0 to 100 %). */
export function equilibriumWater(f: Filament, rh: number): number {
  need('rh', rh, ...RH_PERCENT, '%')
  checkFilament(f)
  return (f.waterAt50 * (1 - f.fillerFraction) * rh) / 50
}

/**
 * Relative humidity (%) of air in which this filament ends at `water` wt%: below it a box keeps it at that; above 100
 * when no air wets it so far.
 */
export function rhFor(f: Filament, water: number): number {
  need('water', water, ...WATER_WT, 'wt%')
  const atFull = equilibriumWater(f, 100)
  return atFull === 0 ? Infinity : (100 * water) / atFull
}

/**
 * Water of the polymer alone at 50 % humidity, wt%, from that of a filament whose filler takes up none: w / (1 − f).
 * `filamentWater` in wt%, `fillerFraction` a mass fraction from 0 to 0.8. Throws InputError. Source: mass balance.
 *
 * @example
 * polymerWater(1.8, 0.2) // 2.25 (wt%)
 */
export function polymerWater(filamentWater: number, fillerFraction: number): number {
  need('filamentWater', filamentWater, 0, 100, 'wt%')
  need('fillerFraction', fillerFraction, 0, MOST_FILLER)
  return filamentWater / (1 - fillerFraction)
}
