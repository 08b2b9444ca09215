/**
 * Likelihood of all bore observations on a grid of (d0, ln κ).
 *
 * A pin whose mark is known has one error for all its uses, so its uses bound that one error from both sides: with
 * bias β ~ N(0, u) of the pin of size s, "goes" means d ≥ s + β and "does not go" means d < s + β. Because the bore
 * only grows, the earliest "goes" and the latest "does not go" decide, and the pin contributes
 *   Φ((d_earliest go − s)/u) − Φ((d_latest no-go − s)/u).
 * A pin that went before it did not go contradicts the law; its uses then count as independent ones.
 * A pair of unmarked pins has one error: Φ((b − d)/u) − Φ((a − d)/u).
 */
import { fastNormalCdf } from '../numeric'
import { CUBE_GROWTH, linearScale } from './laws'
import type { BoreHistory, BoreObservation, Law } from './types'

/** A likelihood is never counted lower than this: one impossible reading must not silence the others. */
const FLOOR = 1e-12
/** Terms multiplied before the logarithm is taken; FLOOR to this power is still a double. */
const PER_LOG = 20

type Term =
  | { kind: 'value', wearKg: number, valueMm: number, uMm: number }
  /** Φ((high − d_high)/u) − Φ((low − d_low)/u), d at two wear masses (equal for one observation). */
  | { kind: 'window', lowMm: number, lowWearKg: number, highMm: number, highWearKg: number, uMm: number }

export function termsOf(observations: BoreObservation[]): Term[] {
  const terms: Term[] = []
  const pins = new Map<string, { mm: number, uMm: number, go: number, noGo: number, uses: { go: boolean, wearKg: number }[] }>()
  const use = (mark: string, mm: number, uMm: number, go: boolean, wearKg: number) => {
    const key = `${mark}\n${mm}`
    const pin = pins.get(key) ?? { mm, uMm, go: Infinity, noGo: -Infinity, uses: [] }
    pin.uses.push({ go, wearKg })
    if (go) pin.go = Math.min(pin.go, wearKg)
    else pin.noGo = Math.max(pin.noGo, wearKg)
    pins.set(key, pin)
  }
  for (const o of observations) {
    if (o.kind === 'value') { terms.push(o); continue }
    const goMarked = o.goMm !== null && !!o.goPin
    const noGoMarked = o.noGoMm !== null && !!o.noGoPin
    if (goMarked) use(o.goPin!, o.goMm!, o.uMm, true, o.wearKg)
    if (noGoMarked) use(o.noGoPin!, o.noGoMm!, o.uMm, false, o.wearKg)
    const low = goMarked ? null : o.goMm
    const high = noGoMarked ? null : o.noGoMm
    if (low !== null || high !== null)
      terms.push({ kind: 'window', lowMm: low ?? -Infinity, lowWearKg: o.wearKg, highMm: high ?? Infinity, highWearKg: o.wearKg, uMm: o.uMm })
  }
  for (const p of pins.values()) {
    if (p.go < p.noGo) {
      for (const u of p.uses) terms.push({
        kind: 'window', lowMm: u.go ? p.mm : -Infinity, lowWearKg: u.wearKg, highMm: u.go ? Infinity : p.mm, highWearKg: u.wearKg, uMm: p.uMm,
      })
    } else terms.push({
      kind: 'window',
      lowMm: p.go === Infinity ? -Infinity : p.mm, lowWearKg: p.go === Infinity ? 0 : p.go,
      highMm: p.noGo === -Infinity ? Infinity : p.mm, highWearKg: p.noGo === -Infinity ? 0 : p.noGo,
      uMm: p.uMm,
    })
  }
  return terms
}

/** Cube root by table over the range that the observations can tell apart; clamped beyond it. */
class CubeRoot {
  private readonly table = new Float64Array(2050)
  private readonly perUnit: number

  constructor(private readonly low: number, high: number) {
    this.perUnit = 2048 / (high - low)
    for (let i = 0; i < this.table.length; i++) this.table[i] = Math.cbrt(low + i / this.perUnit)
  }

  of(v: number): number {
    const t = (v - this.low) * this.perUnit
    if (t <= 0) return this.table[0]!
    if (t >= 2048) return this.table[2048]!
    const i = t | 0
    const a = this.table[i]!
    return a + (t - i) * (this.table[i + 1]! - a)
  }
}

/**
 * Log likelihood at every (d0[i], κ = e^x[j]), stored at i·x.length + j. `d0` mm ascending, `x` ln(mm per kg).
 * Only differences between places mean anything.
 */
export function logLikelihood(history: BoreHistory, law: Law, d0: Float64Array, x: Float64Array): Float64Array {
  const terms = termsOf(history.observations)
  const n = d0.length, m = x.length
  const out = new Float64Array(n * m)
  if (terms.length === 0) return out
  let top = Math.max(history.nominalMm * 1.5, d0[n - 1]!)
  for (const o of terms) for (const v of o.kind === 'value' ? [o.valueMm + 12 * o.uMm] : [o.lowMm + 12 * o.uMm, o.highMm + 12 * o.uMm]) if (Number.isFinite(v)) top = Math.max(top, v)
  const sliding = law === 'sliding'
  const root = new CubeRoot(Math.max(1e-6, d0[0]! - 1e-6) ** 3, top ** 3)
  const rate = Float64Array.from(x, v => Math.exp(v) * (sliding ? CUBE_GROWTH : linearScale(history.nominalMm)))
  const start = Float64Array.from(d0, v => sliding ? v * v * v : v)
  const product = new Float64Array(n * m).fill(1)
  let pending = 0
  const flush = () => {
    for (let k = 0; k < out.length; k++) { out[k]! += Math.log(product[k]!); product[k] = 1 }
    pending = 0
  }
  for (const t of terms) {
    if (t.kind === 'value') {
      const weight = -0.5 / (t.uMm * t.uMm)
      for (let i = 0, k = 0; i < n; i++) {
        const s = start[i]!
        for (let j = 0; j < m; j++, k++) {
          const grown = s + rate[j]! * t.wearKg
          const e = (sliding ? root.of(grown) : grown) - t.valueMm
          out[k]! += Math.max(-60, weight * e * e)
        }
      }
      continue
    }
    const perU = 1 / t.uMm
    const oneWear = t.lowWearKg === t.highWearKg
    const hasLow = t.lowMm !== -Infinity, hasHigh = t.highMm !== Infinity
    for (let i = 0, k = 0; i < n; i++) {
      const s = start[i]!
      for (let j = 0; j < m; j++, k++) {
        let d = 0
        let p = 1
        if (hasHigh) {
          const grown = s + rate[j]! * t.highWearKg
          d = sliding ? root.of(grown) : grown
          p = fastNormalCdf((t.highMm - d) * perU)
        }
        if (hasLow) {
          if (!hasHigh || !oneWear) {
            const grown = s + rate[j]! * t.lowWearKg
            d = sliding ? root.of(grown) : grown
          }
          p -= fastNormalCdf((t.lowMm - d) * perU)
        }
        product[k]! *= p > FLOOR ? p : FLOOR
      }
    }
    if (++pending === PER_LOG) flush()
  }
  if (pending > 0) flush()
  return out
}
