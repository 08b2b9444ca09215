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

/**
 * Log likelihood of one term as a table over v, where v is what grows in a straight line with the wear mass: d³ for
 * sliding wear, d for the straight line. Linear between 512 places from where it starts to matter to where it stops
 * (error under 0.001), constant beyond.
 */
interface LogTable { low: number, perUnit: number, at: Float64Array }
const PLACES = 512
const tables = new Map<string, LogTable>()

function tableOf(term: Term, law: Law): LogTable {
  const key = term.kind === 'value' ? `${law} v ${term.valueMm} ${term.uMm}` : `${law} ${term.lowMm} ${term.highMm} ${term.uMm}`
  const known = tables.get(key)
  if (known) return known
  const reach = 10 * term.uMm
  const [from, to] = term.kind === 'value'
    ? [term.valueMm - reach, term.valueMm + reach]
    : [(term.lowMm > -Infinity ? term.lowMm : term.highMm) - reach, (term.highMm < Infinity ? term.highMm : term.lowMm) + reach]
  const sliding = law === 'sliding'
  const low = sliding ? Math.max(0, from) ** 3 : from
  const high = sliding ? to ** 3 : to
  const at = Float64Array.from({ length: PLACES + 1 }, (_, i) => {
    const v = low + (high - low) * i / PLACES
    const d = sliding ? Math.cbrt(v) : v
    return term.kind === 'value'
      ? -0.5 * ((d - term.valueMm) / term.uMm) ** 2
      : Math.log(Math.max(FLOOR, fastNormalCdf((term.highMm - d) / term.uMm) - fastNormalCdf((term.lowMm - d) / term.uMm)))
  })
  if (tables.size >= 1000) tables.clear()
  const table = { low, perUnit: PLACES / (high - low), at }
  tables.set(key, table)
  return table
}

/**
 * Log likelihood at every (d0[i], κ = e^x[j]), stored at i·x.length + j. `d0` mm ascending, `x` ln(mm per kg).
 * Only differences between places mean anything.
 */
export function logLikelihood(history: BoreHistory, law: Law, d0: Float64Array, x: Float64Array): Float64Array {
  const n = d0.length, m = x.length
  const out = new Float64Array(n * m)
  const sliding = law === 'sliding'
  const rate = Float64Array.from(x, v => Math.exp(v) * (sliding ? CUBE_GROWTH : linearScale(history.nominalMm)))
  const start = Float64Array.from(d0, v => sliding ? v * v * v : v)
  const grown = new Float64Array(m)
  for (const term of termsOf(history.observations)) {
    if (term.kind === 'window' && term.lowWearKg !== term.highWearKg && term.lowMm !== -Infinity && term.highMm !== Infinity) {
      addPin(out, term, sliding, start, rate)
      continue
    }
    const { low, perUnit, at } = tableOf(term, law)
    const wear = term.kind === 'value' ? term.wearKg : term.lowMm !== -Infinity ? term.lowWearKg : term.highWearKg
    for (let j = 0; j < m; j++) grown[j] = rate[j]! * wear * perUnit
    for (let i = 0, k = 0; i < n; i++) {
      const s = (start[i]! - low) * perUnit
      for (let j = 0; j < m; j++, k++) {
        const t = s + grown[j]!
        if (t <= 0) out[k]! += at[0]!
        else if (t >= PLACES) out[k]! += at[PLACES]!
        else {
          const p = t | 0
          const a = at[p]!
          out[k]! += a + (t - p) * (at[p + 1]! - a)
        }
      }
    }
  }
  return out
}

/** A marked pin that went at one wear mass and did not at a smaller one: two bores decide, so no table serves. */
function addPin(out: Float64Array, t: Term & { kind: 'window' }, sliding: boolean, start: Float64Array, rate: Float64Array): void {
  const m = rate.length
  for (let i = 0, k = 0; i < start.length; i++) {
    for (let j = 0; j < m; j++, k++) {
      const low = start[i]! + rate[j]! * t.lowWearKg, high = start[i]! + rate[j]! * t.highWearKg
      const p = fastNormalCdf((t.highMm - (sliding ? Math.cbrt(high) : high)) / t.uMm) - fastNormalCdf((t.lowMm - (sliding ? Math.cbrt(low) : low)) / t.uMm)
      out[k]! += Math.log(p > FLOOR ? p : FLOOR)
    }
  }
}
