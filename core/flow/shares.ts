/**
 * Delivered shares of a bench: weighed over nominal, cell by cell, each with its standard uncertainty: what the balance
 * leaves open, and how far blobs of one cell scatter.
 * Source of the pooled scatter: the variance within cells, with its degrees of freedom (JCGM 100:2008, H.3.6 in kind);
 * where there are few repeats it leans on START_SCATTER, common practice, no source.
 */
import { massG, DENSITY_G_CM3, DIAMETER_MM } from '../materials'
import { InputError, need } from '../numeric'
import { BENCH_C, BENCH_FLOW_MM3S, BLOB_MM } from './plan'

/** Blobs of one cell differ by this share where nothing was repeated, and what that is worth in repeats. */
export const START_SCATTER = { share: 0.005, degrees: 4 }
/** A diameter in mm that nobody measured, a density by its sheet and steps that nobody marked: standard, as shares. */
export const UNMEASURED = { diameterMm: 0.03, density: 0.01, steps: 0.015 }
/** A calliper in the shop, mm; a mark on the filament, mm; standard. Common practice, no source. */
export const CALLIPER_U_MM = 0.01
export const MARK_U_MM = 0.5
/** Places along the filament that are measured, and what each may read, mm. */
export const CALLIPER_PLACES = 3
/** A length that is marked and told to feed, and what went in, mm. */
export const MARK_MM = [50, 1000] as const

/** A weighed blob: setpoint °C, flow mm³/s, net mass and its standard uncertainty by the balance, g. */
export interface Blob {
  temperatureC: number
  flowMm3S: number
  massG: number
  uG: number
}
/** What the nominal mass rests on. */
export interface Filament {
  lengthMm: number
  /** By its record. */
  diameterMm: number
  densityGCm3: number
  /** Measured in three places, mm; null: not yet. */
  callipersMm: readonly number[] | null
  /** A length mark: what was told to feed and what went in, mm; null: not made. */
  mark: { toldMm: number; fedMm: number } | null
}

/** The nominal mass of a blob, g, with its standard uncertainty as a share of it: what all blobs share. */
export interface Nominal {
  massG: number
  share: number
  diameterMm: number
  /** What is fed of what is told. */
  steps: number
}
/** The nominal mass of a blob by what is known of the filament; lengths in mm, density in g/cm³. Throws InputError. */
export function nominalOf(f: Filament): Nominal {
  need('lengthMm', f.lengthMm, ...BLOB_MM, 'mm')
  const diameter = diameterOf(f)
  const steps = stepsOf(f.mark)
  return {
    massG: massG(f.lengthMm * steps.share, diameter.mm, f.densityGCm3),
    share: Math.hypot((2 * diameter.uMm) / diameter.mm, UNMEASURED.density, steps.u),
    diameterMm: diameter.mm,
    steps: steps.share,
  }
}

/** By the callipers where there are any: their mean, and how far the places differ. mm. */
function diameterOf(f: Filament): { mm: number; uMm: number } {
  need('diameterMm', f.diameterMm, ...DIAMETER_MM, 'mm')
  need('densityGCm3', f.densityGCm3, ...DENSITY_G_CM3, 'g/cm³')
  const places = f.callipersMm
  if (places === null) return { mm: f.diameterMm, uMm: UNMEASURED.diameterMm }
  if (places.length < CALLIPER_PLACES)
    throw new InputError('callipersMm', places.length, `${CALLIPER_PLACES} places at least`)
  for (const mm of places) need('callipersMm', mm, ...DIAMETER_MM, 'mm')
  const mean = places.reduce((a, b) => a + b, 0) / places.length
  const spread = Math.sqrt(places.reduce((t, mm) => t + (mm - mean) ** 2, 0) / (places.length - 1))
  return { mm: mean, uMm: Math.hypot(CALLIPER_U_MM, spread / Math.sqrt(places.length)) }
}

function stepsOf(mark: Filament['mark']): { share: number; u: number } {
  if (mark === null) return { share: 1, u: UNMEASURED.steps }
  need('mark.toldMm', mark.toldMm, ...MARK_MM, 'mm')
  need('mark.fedMm', mark.fedMm, mark.toldMm / 2, mark.toldMm * 2, 'mm')
  return { share: mark.fedMm / mark.toldMm, u: MARK_U_MM / mark.toldMm }
}

/** One cell: its delivered share with the uncertainty that it does not share with the others. */
export interface Cell {
  temperatureC: number
  flowMm3S: number
  /** Blobs that count. */
  blobs: number
  share: number
  u: number
}
export interface Shares {
  /** Coolest first, slowest first. */
  cells: Cell[]
  nominal: Nominal
  /** Scatter between blobs of one cell beyond the balance, as a share. */
  scatter: number
  /** Repeats that it rests on; 0: the start value alone. */
  degrees: number
}

/**
 * Shares of all cells that have a blob. Each is the mean of its blobs; u holds the balance and the scatter, pooled over
 * all cells, and not what they share (`nominal.share`). Throws InputError.
 *
 * @example
 * const filament = { lengthMm: 1000, diameterMm: 1.75, densityGCm3: 1.24, callipersMm: null, mark: null }
 * sharesOf([{ temperatureC: 220, flowMm3S: 8, massG: 2.95, uG: 0.004 }], filament).cells[0].share // 0.989
 */
export function sharesOf(blobs: readonly Blob[], filament: Filament): Shares {
  const nominal = nominalOf(filament)
  const groups = new Map<string, Blob[]>()
  for (const b of blobs) {
    need('temperatureC', b.temperatureC, ...BENCH_C, '°C')
    need('flowMm3S', b.flowMm3S, ...BENCH_FLOW_MM3S, 'mm³/s')
    need('massG', b.massG, 1e-6, 1e4, 'g')
    need('uG', b.uG, 1e-6, 1e3, 'g')
    const key = `${b.temperatureC} ${b.flowMm3S}`
    groups.set(key, [...(groups.get(key) ?? []), b])
  }
  const { scatter, degrees } = scatterOf([...groups.values()], nominal.massG)
  const cells = [...groups.values()].map(group => {
    const n = group.length
    const balance = Math.sqrt(mean(group.map(b => b.uG ** 2))) / nominal.massG
    return {
      temperatureC: group[0]!.temperatureC,
      flowMm3S: group[0]!.flowMm3S,
      blobs: n,
      share: mean(group.map(b => b.massG)) / nominal.massG,
      u: Math.hypot(balance, scatter) / Math.sqrt(n),
    }
  })
  cells.sort((a, b) => a.temperatureC - b.temperatureC || a.flowMm3S - b.flowMm3S)
  return { cells, nominal, scatter, degrees }
}

/** Variance within cells less what the balance alone makes, leaning on the start value by its degrees. */
function scatterOf(groups: readonly Blob[][], nominalG: number): { scatter: number; degrees: number } {
  let squares = 0
  let degrees = 0
  let balance = 0
  for (const group of groups) {
    if (group.length < 2) continue
    const middle = mean(group.map(b => b.massG))
    squares += group.reduce((t, b) => t + ((b.massG - middle) / nominalG) ** 2, 0)
    balance += (group.length - 1) * mean(group.map(b => (b.uG / nominalG) ** 2))
    degrees += group.length - 1
  }
  const { share, degrees: start } = START_SCATTER
  const own = Math.max(0, squares - balance)
  return { scatter: Math.sqrt((own + start * share ** 2) / (degrees + start)), degrees }
}
const mean = (v: readonly number[]) => v.reduce((a, b) => a + b, 0) / v.length
