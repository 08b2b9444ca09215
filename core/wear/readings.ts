/**
 * What gauges say of the bore: the log likelihood of every reading as a table over v, where v is what grows in a
 * straight line with wear mass (d³ for sliding wear, d for the straight line).
 *
 * A reading is of this bore with chance 1 − ε and a misreading with chance ε:
 *   value    (1 − ε)·N(value; d, u) + ε·B
 *   pins     (1 − ε)·[Φ((no-go − d)/u) − Φ((go − d)/u)] + ε·B      (two unmarked pins are one reading)
 * B is the probability of the same reading under a bore spread evenly over 0.2 to 2 × nominal (99 %) and over 0.05 to
 * 5 mm (1 %): a misread gauge widens the answer instead of deciding it, and no reading is ever impossible.
 *
 * A marked pin has one error β ~ N(0, u) for all its uses: given β it goes if d ≥ size + β. Each use is a reading with
 * an ε of its own, so the pin's likelihood is ∫ N(β) Π uses dβ. Between two neighbouring thresholds d − size the
 * product A is smooth in β; with the uses in order of wear,
 *   L = ∫ N·A_last dβ + Σ_k ∫_{−∞}^{d_k − size} N·(A_{k−1} − A_k) dβ,
 * where A_k is the product as it stands when the first k uses do not go. Each integral is a table over one v.
 *
 * A gauge study may tell how far the decision with a pin scatters, r. For unmarked pins it adds to u by squares. For a
 * marked pin each use is then soft, Φ((d − size − β)/r), and smooth in β, so that the integral is a sum over evenly
 * spaced β, each with a table for every use; where r is under a tenth of u it adds to u instead.
 *
 * Sources: Box & Tiao (1968), Biometrika 55, 119, for the mixture of good and bad readings; the shares are choices.
 */
import { fastNormalCdf, normalCdf } from '../numeric'
import type { BoreObservation, Law } from './types'

/** Log likelihood, or an integral over a pin's error, as a function of v: linear between places, constant beyond. */
export interface Look {
  /** Wear mass at the reading, kg. */
  wearKg: number
  low: number
  perUnit: number
  last: number
  at: Float64Array
  /** The place of its highest value; it falls off to either side. */
  peak: number
}

/** One marked pin: `whole` plus the tables of its uses is its likelihood. */
export interface MarkedPin {
  whole: number
  uses: Look[]
}

/** One marked pin whose uses are soft: for some errors of it ln of their weight and the tables of the uses. */
export type SoftPin = { lnWeight: number; uses: Look[] }[]

export interface Readings {
  looks: Look[]
  pins: MarkedPin[]
  softPins: SoftPin[]
}

const STEPS_PER_U = 26
const MOST_PLACES = 8192

/** ln of a marked pin's likelihood from the sum of its tables. */
export const lnPin = (sum: number) => Math.log(sum > 1e-300 ? sum : 1e-300)

/** Bores a misread gauge may have been of: shares and ends of two even spreads, mm. */
const broadOf = (nominalMm: number) =>
  [
    [0.99, 0.2 * nominalMm, 2 * nominalMm],
    [0.01, 0.05, 5],
  ] as const

/** ∫ Φ between two z, from the antiderivative zΦ(z) + φ(z). */
function cdfArea(z: number): number {
  return z * normalCdf(z) + Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)
}

/** Probability (density for a value, per mm) of a reading when it is a misreading. */
export function misreadChance(o: BoreObservation, nominalMm: number): number {
  let sum = 0
  for (const [share, low, high] of broadOf(nominalMm)) {
    const evenly = share / (high - low)
    if (o.kind !== 'pins') {
      sum += evenly * (normalCdf((high - o.valueMm) / o.uMm) - normalCdf((low - o.valueMm) / o.uMm))
      continue
    }
    const u = uOfPins(o)
    const below = (mm: number | null, none: number) =>
      mm === null ? none : u * (cdfArea((mm - low) / u) - cdfArea((mm - high) / u))
    sum += evenly * Math.max(0, below(o.noGoMm, high - low) - below(o.goMm, 0))
  }
  return sum
}

/** Share of the broad spread that lies below a bore. */
function broadBelow(mm: number, nominalMm: number): number {
  let sum = 0
  for (const [share, low, high] of broadOf(nominalMm))
    sum += share * Math.min(1, Math.max(0, (mm - low) / (high - low)))
  return sum
}

function tabulate(
  law: Law,
  wearKg: number,
  fromMm: number,
  toMm: number,
  stepMm: number,
  f: (mm: number) => number,
): Look {
  const sliding = law === 'sliding'
  const start = Math.max(fromMm, 1e-3)
  const low = sliding ? start ** 3 : start
  const high = sliding ? toMm ** 3 : toMm
  const step = sliding ? 3 * Math.max(start, 0.3 * toMm) ** 2 * stepMm : stepMm
  const last = Math.min(MOST_PLACES, Math.max(16, Math.ceil((high - low) / step)))
  const table = new Float64Array(last + 1)
  let peak = 0
  for (let i = 0; i <= last; i++) {
    const v = low + ((high - low) * i) / last
    table[i] = f(sliding ? Math.cbrt(v) : v)
    if (table[i]! > table[peak]!) peak = i
  }
  return { wearKg, low, perUnit: last / (high - low), last, at: table, peak }
}

/** Uncertainty of one reading by pins, mm: of the pins and of the decision. */
export const uOfPins = (o: BoreObservation & { kind: 'pins' }) => Math.hypot(o.uMm, o.uRandomMm ?? 0)

/** Tables are the same for many nozzles: pins come in steps. */
const known = new Map<string, Look>()

function lookOf(o: Exclude<BoreObservation, { kind: 'picture' }>, law: Law, nominalMm: number, misread: number): Look {
  const key =
    o.kind === 'value'
      ? `${law} ${nominalMm} ${misread} = ${o.valueMm} ${o.uMm}`
      : `${law} ${nominalMm} ${misread} ${o.goMm} ${o.noGoMm} ${o.uMm}`
  let look = known.get(key)
  if (!look) {
    if (known.size >= 1000) known.clear()
    look = o.kind === 'value' ? valueLook(o, law, nominalMm, misread) : pinLook(o, law, nominalMm, misread)
    known.set(key, look)
  }
  return { ...look, wearKg: o.wearKg }
}

function valueLook(o: BoreObservation & { kind: 'value' }, law: Law, nominalMm: number, misread: number): Look {
  const top = (1 - misread) / (o.uMm * Math.sqrt(2 * Math.PI))
  const bad = misread * misreadChance(o, nominalMm)
  // as far as the good part still counts beside the bad one
  const reach = misread === 0 ? 37 : Math.sqrt(2 * Math.log(Math.max(Math.E ** 8, top / (bad * 1e-7))))
  const f = (d: number) => Math.log(Math.max(1e-300, top * Math.exp(-0.5 * ((d - o.valueMm) / o.uMm) ** 2) + bad))
  return tabulate(law, 0, o.valueMm - reach * o.uMm, o.valueMm + reach * o.uMm, o.uMm / STEPS_PER_U, f)
}

function pinLook(o: BoreObservation & { kind: 'pins' }, law: Law, nominalMm: number, misread: number): Look {
  const reach = misread === 0 ? 37 : 7
  const phi = misread === 0 ? normalCdf : fastNormalCdf
  const bad = misread * misreadChance(o, nominalMm)
  const f = (d: number) => {
    const a = o.goMm === null ? -Infinity : (o.goMm - d) / o.uMm
    const b = o.noGoMm === null ? Infinity : (o.noGoMm - d) / o.uMm
    // in the tail where both are small, so that nothing cancels
    const good = a > 0 ? tail(phi, a) - tail(phi, b) : below(phi, b) - below(phi, a)
    return Math.log(Math.max(1e-300, (1 - misread) * good + bad))
  }
  return tabulate(
    law,
    0,
    (o.goMm ?? o.noGoMm!) - reach * o.uMm,
    (o.noGoMm ?? o.goMm!) + reach * o.uMm,
    o.uMm / STEPS_PER_U,
    f,
  )
}
const below = (phi: (z: number) => number, z: number) => {
  if (z === Infinity) return 1
  return z === -Infinity ? 0 : phi(z)
}
const tail = (phi: (z: number) => number, z: number) => (z === Infinity ? 0 : phi(-z))

interface Use {
  go: boolean
  wearKg: number
}

function pinOf(sizeMm: number, uMm: number, uses: Use[], law: Law, nominalMm: number, misread: number): MarkedPin {
  uses.sort((a, b) => a.wearKg - b.wearKg)
  const n = uses.length
  const reach = 8
  const grid = tabulate(law, 0, sizeMm - reach * uMm, sizeMm + reach * uMm, uMm / STEPS_PER_U, () => 0)
  const mm = (i: number) => {
    const v = grid.low + i / grid.perUnit
    return law === 'sliding' ? Math.cbrt(v) : v
  }
  const tables = uses.map(() => new Float64Array(grid.last + 1))
  const rest = new Float64Array(n + 1)
  let whole = 0
  let before = 0
  for (let i = 0; i <= grid.last; i++) {
    const upTo = i === grid.last ? 1 : fastNormalCdf((mm(i) - sizeMm) / uMm)
    const mass = upTo - before
    before = upTo
    const bad = misread * broadBelow(i === 0 ? mm(0) : mm(i - 0.5), nominalMm)
    // chances of each use given this error, when the pin truly goes and when it truly does not
    const good = 1 - misread
    const goSaid = misread - bad
    rest[n] = 1
    for (let k = n - 1; k >= 0; k--) rest[k] = rest[k + 1]! * (uses[k]!.go ? good + goSaid : bad)
    let first = 1
    let product = rest[0]!
    for (let k = 0; k < n; k++) {
      first *= uses[k]!.go ? goSaid : good + bad
      const next = first * rest[k + 1]!
      const table = tables[k]!
      table[i] = (i === 0 ? 0 : table[i - 1]!) + mass * (product - next)
      product = next
    }
    whole += mass * product
  }
  const looks = tables.map((table, k) => ({
    ...grid,
    at: table,
    wearKg: uses[k]!.wearKg,
    peak: uses[k]!.go ? grid.last : 0,
  }))
  return { whole, uses: looks }
}

/** Below this share of u the scatter of a decision adds to it. */
const SOFT_FROM = 0.1
/** Places of β: this many scatters apart, and no more of u; as far out as they count. */
const APART_OF_R = 1.3
const APART_OF_U = 0.5
const OUT_TO_U = 5

function softPinOf(
  sizeMm: number,
  uMm: number,
  randomMm: number,
  uses: Use[],
  law: Law,
  nominalMm: number,
  misread: number,
): SoftPin {
  const step = Math.min(APART_OF_R * randomMm, APART_OF_U * uMm)
  const last = Math.ceil((OUT_TO_U * uMm) / step)
  const out: SoftPin = []
  for (let i = -last; i <= last; i++) {
    const error = i * step
    const at = sizeMm + error
    const lnWeight = Math.log(step / (uMm * Math.sqrt(2 * Math.PI))) - 0.5 * (error / uMm) ** 2
    const looks = uses.map(({ go, wearKg }) => {
      const pair = { goMm: go ? at : null, noGoMm: go ? null : at }
      return lookOf({ kind: 'pins', wearKg, ...pair, uMm: randomMm }, law, nominalMm, misread)
    })
    out.push({ lnWeight, uses: looks })
  }
  return out
}

/** Every reading of a history as tables. */
export function readingsOf(
  observations: readonly BoreObservation[],
  law: Law,
  nominalMm: number,
  misread: number,
): Readings {
  const looks: Look[] = []
  const pins = new Map<string, { mm: number; uMm: number; randomMm: number; uses: Use[] }>()
  const use = (mark: string, mm: number, o: BoreObservation & { kind: 'pins' }, go: boolean, uMm = o.uMm) => {
    const key = `${mark}\n${mm}`
    const pin = pins.get(key) ?? { mm, uMm: 0, randomMm: 0, uses: [] }
    pin.uMm = Math.max(pin.uMm, uMm) // one pin, one error: its least sure entry counts
    pin.randomMm = Math.max(pin.randomMm, o.uRandomMm ?? 0)
    pin.uses.push({ go, wearKg: o.wearKg })
    pins.set(key, pin)
  }
  for (const o of observations) {
    if (o.kind === 'picture') continue // see pictures.ts
    if (o.kind === 'value') {
      looks.push(lookOf(o, law, nominalMm, misread))
      continue
    }
    const goMarked = o.goMm !== null && !!o.goPin
    const noGoMarked = o.noGoMm !== null && !!o.noGoPin
    if (goMarked) use(o.goPin!, o.goMm!, o, true, o.goUMm)
    if (noGoMarked) use(o.noGoPin!, o.noGoMm!, o, false, o.noGoUMm)
    const goMm = goMarked ? null : o.goMm
    const noGoMm = noGoMarked ? null : o.noGoMm
    if (goMm !== null || noGoMm !== null)
      looks.push(lookOf({ kind: 'pins', wearKg: o.wearKg, goMm, noGoMm, uMm: uOfPins(o) }, law, nominalMm, misread))
  }
  const isSoft = (p: { uMm: number; randomMm: number }) => p.randomMm >= SOFT_FROM * p.uMm
  const all = [...pins.values()]
  return {
    looks,
    pins: all
      .filter(p => !isSoft(p))
      .map(p => pinOf(p.mm, Math.hypot(p.uMm, p.randomMm), p.uses, law, nominalMm, misread)),
    softPins: all.filter(isSoft).map(p => softPinOf(p.mm, p.uMm, p.randomMm, p.uses, law, nominalMm, misread)),
  }
}
