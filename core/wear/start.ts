/**
 * What the bore may have been at the start: as recorded, or, with a small chance, any other standard bore. A nozzle
 * recorded as another size than it is happens in every shop and is just what a gauge should catch.
 * Source: common practice, no source; the shares are choices, see docs/wear.md.
 */
import { need } from '../numeric'
import { NOMINAL_MM } from './check'
import { CUBE_GROWTH, linearScale } from './laws'
import type { BoreHistory, Doubt, Law } from './types'

/** Bores that nozzles are sold with, mm (common practice, no source). */
export const STANDARD_BORES_MM = [0.2, 0.25, 0.3, 0.35, 0.4, 0.5, 0.6, 0.8, 1.0, 1.2] as const
/** Spread of a new bore about its nominal, mm, one standard deviation. */
export const NEW_BORE_U_MM = 0.01
/** A nozzle that came used: 5 % wider than nominal, give or take as much. */
export const USED_GROWTH = 0.05
/**
 * Of a hundred readings three are of another pin, a slipped digit or another nozzle; of a hundred nozzles three are
 * recorded with another bore.
 */
export const DOUBT: Doubt = { misread: 0.03, otherBore: 0.03 }

export interface StartPart {
  weight: number
  meanMm: number
  uMm: number
}

/** The parts of the start's distribution; the recorded bore first, weights adding up to 1. */
export function startOf(h: Pick<BoreHistory, 'nominalMm' | 'wasUsed' | 'doubt'>): StartPart[] {
  const { otherBore } = h.doubt ?? DOUBT
  need('nominalMm', h.nominalMm, ...NOMINAL_MM, 'mm')
  need('otherBore', otherBore, 0, 0.5)
  const recorded = h.wasUsed
    ? { meanMm: h.nominalMm * (1 + USED_GROWTH), uMm: h.nominalMm * USED_GROWTH }
    : { meanMm: h.nominalMm, uMm: NEW_BORE_U_MM }
  if (otherBore === 0) return [{ weight: 1, ...recorded }]
  const others = STANDARD_BORES_MM.filter(b => Math.abs(b - h.nominalMm) > 1e-9)
  return [
    { weight: 1 - otherBore, ...recorded },
    ...others.map(b => ({ weight: otherBore / others.length, meanMm: b, uMm: NEW_BORE_U_MM })),
  ]
}

/** How far from its mean, in standard deviations, a part of the start is looked for. */
const REACH = 9
/** Log density where there is none worth the name. */
export const NOTHING = -700
const STEP_MM = 0.0002

/**
 * The start's log density over v, where v is what grows in a straight line with wear: d³ for sliding wear, d for the
 * straight line (see `laws.ts`). A table over d, with the highest value of every run of places for quick bounds.
 */
export class Start {
  readonly lowV: number
  readonly highV: number
  private readonly sliding: boolean
  private readonly lowMm: number
  private readonly highMm: number
  /** most[k][i]: the highest of the 2^k places from i on; most[0] is the table itself. */
  private readonly most: Float64Array[] = []

  constructor(parts: readonly StartPart[], law: Law) {
    this.sliding = law === 'sliding'
    this.lowMm = Math.max(0.02, Math.min(...parts.map(p => p.meanMm - REACH * p.uMm)))
    this.highMm = Math.max(...parts.map(p => p.meanMm + REACH * p.uMm))
    this.lowV = this.toV(this.lowMm)
    this.highV = this.toV(this.highMm)
    const places = Math.ceil((this.highMm - this.lowMm) / STEP_MM) + 1
    const table = new Float64Array(places)
    for (let i = 0; i < places; i++) {
      const d = this.lowMm + i * STEP_MM
      let sum = 0
      for (const p of parts) {
        const z = (d - p.meanMm) / p.uMm
        if (z < REACH && z > -REACH) sum += (p.weight / (p.uMm * Math.sqrt(2 * Math.PI))) * Math.exp(-0.5 * z * z)
      }
      table[i] = sum < 1e-300 ? NOTHING : Math.log(this.sliding ? sum / (3 * d * d) : sum)
    }
    this.most.push(table)
    for (let run = 1; 2 * run <= places; run *= 2) {
      const shorter = this.most[this.most.length - 1]!
      this.most.push(
        Float64Array.from({ length: places - 2 * run + 1 }, (_, i) => Math.max(shorter[i]!, shorter[i + run]!)),
      )
    }
  }

  private toV(mm: number): number {
    return this.sliding ? mm ** 3 : mm
  }

  private toMm(v: number): number {
    return this.sliding ? Math.cbrt(v) : v
  }

  /** Log density at v. */
  logAt(v: number): number {
    if (v <= this.lowV || v >= this.highV) return NOTHING
    const table = this.most[0]!
    const t = (this.toMm(v) - this.lowMm) / STEP_MM
    const i = t | 0
    const a = table[i]!
    return i + 1 < table.length ? a + (t - i) * (table[i + 1]! - a) : a
  }

  /** No log density between two v is above this. */
  logAtMost(fromV: number, toV: number): number {
    if (toV <= this.lowV || fromV >= this.highV) return NOTHING
    const from = fromV <= this.lowV ? 0 : ((this.toMm(fromV) - this.lowMm) / STEP_MM) | 0
    const last = this.most[0]!.length - 1
    const to = toV >= this.highV ? last : Math.min(last, (((this.toMm(toV) - this.lowMm) / STEP_MM) | 0) + 1)
    const k = 31 - Math.clz32(to - from + 1)
    const row = this.most[k]!
    return Math.max(row[from]!, row[to - (1 << k) + 1]!)
  }
}

const known = new Map<string, Start>()

/** The start of a history, made once for all nozzles that share it. */
export function startDensity(h: Pick<BoreHistory, 'nominalMm' | 'wasUsed' | 'doubt'>, law: Law): Start {
  const key = `${law} ${h.nominalMm} ${h.wasUsed} ${(h.doubt ?? DOUBT).otherBore}`
  let start = known.get(key)
  if (!start) {
    if (known.size >= 50) known.clear()
    start = new Start(startOf(h), law)
    known.set(key, start)
  }
  return start
}

/** Growth of v per kg of wear at κ = 1. */
export function growthPerKg(law: Law, nominalMm: number): number {
  return law === 'sliding' ? CUBE_GROWTH : linearScale(nominalMm)
}
