/** What is known of a thing by its name alone, to start from: its maker's sheet says more. */
import { startWindow } from '../limits'
import { compositeDensity, FILLER_DENSITY, MOST_FILLER } from '../materials'
import { need } from '../numeric'
import { NOMINAL_MM, NOZZLE_MATERIALS, START_ABRASIVITY, type Filler, type NozzleMaterial } from '../wear'
import type { StartWindow } from '../limits'

/** How fillers are written at the end of a filament's name; common practice, no source. */
const FILLED: Readonly<Record<string, Filler>> = { CF: 'carbon fibre', GF: 'glass fibre' }

export interface NamedFilament {
  polymer: string
  filler: Filler
  /** Mass fraction of the filler; null where the name says the filler without its share. */
  fillerFraction: number | null
}
/**
 * Polymer, filler and share from a generic name: PA6-CF20 is PA6 with 20 wt% carbon fibre, PETG is PETG. What is no
 * such name is taken for an unfilled polymer.
 */
export function filamentOfName(name: string): NamedFilament {
  const m = /^(.*?)[\s-]*(CF|GF)[\s-]*(\d{1,2})?\s*%?$/i.exec(name.trim())
  if (!m || m[1] === '') return { polymer: name.trim(), filler: 'none', fillerFraction: 0 }
  const share = m[3] === undefined ? null : Number(m[3]) / 100
  return {
    polymer: m[1]!.trim(),
    filler: FILLED[m[2]!.toUpperCase()]!,
    fillerFraction: share !== null && share > 0 && share <= MOST_FILLER ? share : null,
  }
}

export interface StartMaterial {
  abrasivity: number
  /** g/cm³; null where polymer or filler has no density to start from. */
  densityGCm3: number | null
  window: StartWindow | null
}
/** Start values of a filament of this polymer with this share of filler (0 to 0.8). */
export function startMaterial(polymer: string, filler: Filler, fillerFraction: number): StartMaterial {
  need('fillerFraction', fillerFraction, 0, MOST_FILLER)
  const window = startWindow(polymer, filler)
  const matrix = window?.facts.matrixGCm3?.value ?? null
  const fillerGCm3 = FILLER_DENSITY[filler]
  let densityGCm3: number | null = null
  if (matrix !== null && filler === 'none') densityGCm3 = matrix
  else if (matrix !== null && fillerGCm3 !== undefined)
    densityGCm3 = Number(compositeDensity(matrix, fillerGCm3, fillerFraction).toPrecision(4))
  return { abrasivity: START_ABRASIVITY[filler], densityGCm3, window }
}

/** Material and nominal bore in mm from a generic name: "hardened steel 0.4"; null where it names no such thing. */
export function nozzleTypeOfName(name: string): { material: NozzleMaterial; boreMm: number } | null {
  const m = /^(.+?)[\s,]+(?:⌀\s*)?(\d(?:[.,]\d{1,2})?)\s*(?:mm)?$/.exec(name.trim().toLowerCase())
  const material = NOZZLE_MATERIALS.find(x => x === m?.[1])
  return material ? { material, boreMm: Number(m![2]!.replace(',', '.')) } : null
}

/** Dimensions in mm of a nozzle with this bore (0.05 to 3 mm), to start from: common practice, no source. */
export function startNozzle(boreMm: number) {
  need('boreMm', boreMm, ...NOMINAL_MM, 'mm')
  return {
    lengthMm: 12.5,
    coneDeg: 60,
    tipFlatMm: Math.max(1, 2 * boreMm),
    landMm: Math.max(0.8, 2 * boreMm),
    inletMm: Math.max(2, boreMm + 0.5),
  }
}
