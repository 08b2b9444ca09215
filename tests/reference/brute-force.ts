/* eslint-disable max-lines -- a program of its own, apart from the core */
/**
 * The wear posterior by brute force, to hold the real one against: own code, own box, no table, no cleverness. Every
 * (ln κ, d0) of a fine grid gets its prior times its likelihood; bores and lives are counted into narrow bins.
 * Only the model is shared (docs/wear.md). Nothing here imports the core.
 */
export type Reading =
  | {
      kind: 'pins'
      wearKg: number
      goMm: number | null
      noGoMm: number | null
      uMm: number
      goPin?: string
      noGoPin?: string
    }
  | { kind: 'value'; wearKg: number; valueMm: number; uMm: number }

export interface Case {
  law: 'sliding' | 'linear'
  nominalMm: number
  wasUsed: boolean
  readings: Reading[]
  prior: { meanLn: number; sd: number }
  misread: number
  otherBore: number
  nowKg: number
  limitMm: number
}

export interface Counted {
  bore: number[]
  life: number[]
  past: number
  /** Share of the bore up to a value, and of lives up to a wear mass. */
  boreShare: (mm: number) => number
  lifeShare: (kg: number) => number
}
export const QUANTILES = [0.025, 0.1, 0.5, 0.9, 0.975]

/** Φ by the complementary error function's continued fraction and series (Abramowitz & Stegun 7.1.5 and 7.1.14). */
function phi(z: number): number {
  const x = Math.abs(z) / Math.SQRT2
  let upper: number
  if (x < 2) {
    let term = x
    let sum = x
    for (let n = 1; n < 60 && Math.abs(term) > 1e-17; n++) {
      term *= -(x * x) / n
      sum += term / (2 * n + 1)
    }
    upper = 0.5 - sum / Math.sqrt(Math.PI)
  } else {
    let f = x
    for (let n = 40; n >= 1; n--) f = x + n / 2 / f
    upper = Math.exp(-x * x) / f / Math.sqrt(Math.PI) / 2
  }
  return z > 0 ? 1 - upper : upper
}
const PHI = Float64Array.from({ length: 40_001 }, (_, i) => phi(-10 + i / 2000))
/** The same from a table, to 1e-8. */
function cdf(z: number): number {
  if (z <= -10) return 0
  if (z >= 10) return 1
  const t = (z + 10) * 2000
  const i = Math.floor(t)
  return PHI[i]! + (t - i) * (PHI[i + 1]! - PHI[i]!)
}

/** Share below b of a bore spread as a misread one. */
function evenBelow(b: number, nominal: number): number {
  return (
    0.99 * Math.min(1, Math.max(0, (b - 0.2 * nominal) / (1.8 * nominal))) +
    0.01 * Math.min(1, Math.max(0, (b - 0.05) / 4.95))
  )
}

/** Probability of the reading under the even spread, summed over a fine grid of bores. */
function evenChance(r: Reading, nominal: number): number {
  let sum = 0
  for (const [share, low, high] of [
    [0.99, 0.2 * nominal, 2 * nominal],
    [0.01, 0.05, 5],
  ] as const) {
    const n = 40_000
    let part = 0
    for (let i = 0; i < n; i++) {
      const d = low + ((high - low) * (i + 0.5)) / n
      if (r.kind === 'value') part += Math.exp(-0.5 * ((d - r.valueMm) / r.uMm) ** 2) / (r.uMm * Math.sqrt(2 * Math.PI))
      else
        part +=
          (r.noGoMm === null ? 1 : cdf((r.noGoMm - d) / r.uMm)) - (r.goMm === null ? 0 : cdf((r.goMm - d) / r.uMm))
    }
    sum += (share * part) / n
  }
  return sum
}

interface Pin {
  mm: number
  uMm: number
  uses: { go: boolean; wearKg: number }[]
}

/** A pin's error is taken in quarters of its uncertainty, eight whole ones either way: the share in each. */
const QUARTERS = 64
const SHARE_OF_QUARTER = Float64Array.from({ length: QUARTERS }, (_, i) => cdf((i - 31) / 4) - cdf((i - 32) / 4))
const cuts = new Float64Array(1000)

/** A marked pin: its error split at every use's threshold and every quarter of its uncertainty. */
function pinLikelihood(pin: Pin, bores: Float64Array, misread: number, nominal: number): number {
  const { mm, uMm, uses } = pin
  const n = uses.length
  for (let k = 0; k < n; k++) {
    let at = k
    const cut = bores[k]! - mm
    while (at > 0 && cuts[at - 1]! > cut) {
      cuts[at] = cuts[at - 1]!
      at--
    }
    cuts[at] = cut
  }
  let sum = 0
  let next = 0
  for (let i = 0; i < QUARTERS; i++) {
    let a = ((i - 32) / 4) * uMm
    const end = a + uMm / 4
    while (next < n && cuts[next]! <= a) next++
    if (next === n || cuts[next]! >= end) {
      sum += SHARE_OF_QUARTER[i]! * goesWith(pin, bores, mm + a + uMm / 8, misread, nominal)
      continue
    }
    while (a < end) {
      const b = next < n && cuts[next]! < end ? cuts[next++]! : end
      if (b > a) sum += (cdf(b / uMm) - cdf(a / uMm)) * goesWith(pin, bores, mm + (a + b) / 2, misread, nominal)
      a = b
    }
  }
  return sum
}

/** The chance of all uses of a pin that is really so large. */
function goesWith(pin: Pin, bores: Float64Array, sizeMm: number, misread: number, nominal: number): number {
  const even = evenBelow(sizeMm, nominal)
  let p = 1
  for (let k = 0; k < pin.uses.length; k++) {
    const go = pin.uses[k]!.go
    p *= (1 - misread) * (bores[k]! >= sizeMm === go ? 1 : 0) + misread * (go ? 1 - even : even)
  }
  return p
}

const BORES = [0.2, 0.25, 0.3, 0.35, 0.4, 0.5, 0.6, 0.8, 1.0, 1.2]
const BIN_MM = 2e-6
const BORE_BINS = 4_000_000
const SPREAD = 8
/** Places within a row's width, spread as evenly as can be. */
const ASIDE = Float64Array.from({ length: SPREAD }, (_, s) => ((s * 0.618034) % 1) - 0.5)
const LIFE_LOW = -25
const LIFE_BIN = 1e-5
const LIFE_BINS = 5_000_000

export function bruteForce(c: Case, rows = 1500, steps = 12): Counted {
  const growth = c.law === 'sliding' ? 0.48 : (0.4 / c.nominalMm) ** 2
  const boreAt = (d0: number, kappa: number, kg: number) =>
    c.law === 'sliding' ? Math.cbrt(d0 ** 3 + growth * kappa * kg) : d0 + growth * kappa * kg
  const startOf = (d: number, kappa: number, kg: number) =>
    c.law === 'sliding' ? Math.cbrt(Math.max(0, d ** 3 - growth * kappa * kg)) : d - growth * kappa * kg
  const others = BORES.filter(b => Math.abs(b - c.nominalMm) > 1e-9)
  const recorded = c.wasUsed
    ? { w: 1 - c.otherBore, m: 1.05 * c.nominalMm, s: 0.05 * c.nominalMm }
    : { w: 1 - c.otherBore, m: c.nominalMm, s: 0.01 }
  const parts = [
    recorded,
    ...(c.otherBore > 0 ? others.map(b => ({ w: c.otherBore / others.length, m: b, s: 0.01 })) : []),
  ]
  const start = (d: number) => {
    let sum = 0
    for (const p of parts) {
      const z = (d - p.m) / p.s
      if (z < 9.5 && z > -9.5) sum += (p.w / p.s) * Math.exp(-0.5 * z * z)
    }
    return sum
  }
  const singles: { r: Reading; even: number }[] = []
  const pins = new Map<string, Pin>()
  for (const r of c.readings) {
    if (r.kind === 'pins') {
      const mark = (name: string | undefined, mm: number | null, go: boolean) => {
        if (!name || mm === null) return mm
        const pin = pins.get(`${name} ${mm}`) ?? { mm, uMm: r.uMm, uses: [] }
        pin.uses.push({ go, wearKg: r.wearKg })
        pins.set(`${name} ${mm}`, pin)
        return null
      }
      const rest: Reading = {
        kind: 'pins',
        wearKg: r.wearKg,
        uMm: r.uMm,
        goMm: mark(r.goPin, r.goMm, true),
        noGoMm: mark(r.noGoPin, r.noGoMm, false),
      }
      if (rest.goMm !== null || rest.noGoMm !== null) singles.push({ r: rest, even: evenChance(rest, c.nominalMm) })
    } else singles.push({ r, even: evenChance(r, c.nominalMm) })
  }
  const bores = new Float64Array(1000)
  let reference = -Infinity
  // no reading can say more than this; what cannot come within e^-45 of the best found is not reckoned to its end
  const most = singles.reduce(
    (sum, { r }) => sum + (r.kind === 'value' ? Math.max(0, -Math.log(r.uMm * Math.sqrt(2 * Math.PI))) : 0),
    0,
  )
  const likelihood = (d0: number, kappa: number, least: number) => {
    let ln = 0
    let ahead = most
    for (const { r, even } of singles) {
      if (ln + ahead < least) return -Infinity
      if (r.kind === 'value') ahead -= Math.max(0, -Math.log(r.uMm * Math.sqrt(2 * Math.PI)))
      const d = boreAt(d0, kappa, r.wearKg)
      let good: number
      if (r.kind === 'value') good = Math.exp(-0.5 * ((d - r.valueMm) / r.uMm) ** 2) / (r.uMm * Math.sqrt(2 * Math.PI))
      else
        good = (r.noGoMm === null ? 1 : cdf((r.noGoMm - d) / r.uMm)) - (r.goMm === null ? 0 : cdf((r.goMm - d) / r.uMm))
      ln += Math.log(Math.max(1e-300, (1 - c.misread) * good + c.misread * even))
    }
    for (const pin of pins.values()) {
      if (ln < least) return -Infinity
      pin.uses.forEach((u, k) => {
        bores[k] = boreAt(d0, kappa, u.wearKg)
      })
      ln += Math.log(Math.max(1e-300, pinLikelihood(pin, bores, c.misread, c.nominalMm)))
    }
    return ln
  }
  /** d0 places of one row: about every start and every reading, as finely as each is wide. */
  const placesFor = (kappa: number) => {
    const out: number[] = []
    const about = (m: number, s: number) => {
      for (let k = -9 * steps; k <= 9 * steps; k++) {
        const d = m + (k / steps) * s
        if (d > 0.02) out.push(d)
      }
    }
    for (const p of parts) about(p.m, p.s)
    const edges = new Map<string, [number, number]>()
    for (const r of c.readings) {
      const ends = r.kind === 'value' ? [r.valueMm] : [r.goMm, r.noGoMm].filter(v => v !== null)
      for (const e of ends) {
        const d = startOf(e, kappa, r.wearKg)
        if (d > 0.02) edges.set(`${Math.round(d / (r.uMm * 2))} ${r.uMm}`, [d, r.uMm])
      }
    }
    for (const [d, u] of edges.values()) about(d, u)
    return Float64Array.from(out).sort()
  }
  const row = (x: number, each: (d0: number, ln: number, width: number) => void) => {
    const kappa = Math.exp(x)
    const lnPrior = -0.5 * ((x - c.prior.meanLn) / c.prior.sd) ** 2
    const d = placesFor(kappa)
    for (let i = 0; i < d.length; i++) {
      const width = ((d[i + 1] ?? d[i]!) - (d[i - 1] ?? d[i]!)) / 2
      const s = start(d[i]!)
      if (width <= 0) continue
      const ln = lnPrior + Math.log(s)
      each(d[i]!, s < 1e-290 ? -Infinity : ln + likelihood(d[i]!, kappa, reference - 45 - ln), width)
    }
  }
  // where along ln κ the weight lies: a first look over nine standard deviations either way
  const low = c.prior.meanLn - 9 * c.prior.sd
  const high = c.prior.meanLn + 9 * c.prior.sd
  let spans: [number, number][] = [[low, high]]
  for (let look = 0; look < 3; look++) {
    const n = Math.max(300, Math.round(rows / 4))
    const length = spans.reduce((s, [a, b]) => s + b - a, 0)
    const found: { x: number; h: number; ln: number }[] = []
    for (const [a, b] of spans) {
      const k = Math.max(8, Math.round((n * (b - a)) / length))
      for (let i = 0; i < k; i++) {
        const x = a + ((b - a) * (i + 0.5)) / k
        let best = -Infinity
        let sum = 0
        row(x, (_d, ln, width) => {
          if (ln === -Infinity) return
          if (ln > reference) reference = ln
          if (ln > best) {
            sum = sum * Math.exp(best - ln) + width
            best = ln
          } else sum += width * Math.exp(ln - best)
        })
        if (best > -Infinity) found.push({ x, h: (b - a) / k, ln: best + Math.log(sum * ((b - a) / k)) })
      }
    }
    const top = found.reduce((m, f) => Math.max(m, f.ln), -Infinity)
    const next: [number, number][] = []
    for (const f of found)
      if (f.ln > top - 18) {
        const last = next[next.length - 1]
        const from = Math.max(low, f.x - 1.5 * f.h)
        const to = Math.min(high, f.x + 1.5 * f.h)
        if (last && from <= last[1]) last[1] = Math.max(last[1], to)
        else next.push([from, to])
      }
    spans = next
  }
  // then all of it
  const bore = new Float64Array(BORE_BINS)
  const life = new Float64Array(LIFE_BINS + 2)
  const length = spans.reduce((s, [a, b]) => s + b - a, 0)
  let total = 0
  for (const [a, b] of spans) {
    const k = Math.max(20, Math.round((rows * (b - a)) / length))
    for (let i = 0; i < k; i++) {
      const x = a + ((b - a) * (i + 0.5)) / k
      const kappas = ASIDE.map(aside => Math.exp(x + (aside * (b - a)) / k))
      let fromD = NaN
      let fromLn = -Infinity
      row(x, (d0, ln) => {
        const h = d0 - fromD
        if (h > 0 && Math.min(ln, fromLn) > -Infinity) {
          // straight in its logarithm between two places
          for (let s = 0; s < SPREAD; s++) {
            const t = (s + 0.5) / SPREAD
            const w = (Math.exp(fromLn + t * (ln - fromLn) - reference) * h * (b - a)) / k / SPREAD
            const d = fromD + t * h
            const kappa = kappas[s]!
            total += w
            bore[Math.min(BORE_BINS - 1, Math.floor(boreAt(d, kappa, c.nowKg) / BIN_MM))]! += w
            const room = c.law === 'sliding' ? c.limitMm ** 3 - d ** 3 : c.limitMm - d
            const lnKg = room > 0 ? Math.log(room / (growth * kappa)) : -Infinity
            life[room > 0 ? Math.min(LIFE_BINS + 1, Math.max(1, 1 + Math.floor((lnKg - LIFE_LOW) / LIFE_BIN))) : 0]! +=
              w
          }
        }
        fromD = d0
        fromLn = ln
      })
    }
  }
  const quantile = (bins: Float64Array, p: number) => {
    let sum = 0
    for (let i = 0; i < bins.length; i++) {
      const next = sum + bins[i]!
      if (next >= p * total) return i + (p * total - sum) / bins[i]!
      sum = next
    }
    return bins.length
  }
  const share = (bins: Float64Array, to: number) => {
    let sum = 0
    for (let i = 0; i < Math.min(to, bins.length); i++) sum += bins[i]!
    return sum / total
  }
  const lifeBin = (kg: number) => 1 + (Math.log(kg) - LIFE_LOW) / LIFE_BIN
  return {
    bore: QUANTILES.map(p => quantile(bore, p) * BIN_MM),
    life: QUANTILES.map(p => {
      const b = quantile(life, p)
      return b < 1 ? 0 : Math.exp(LIFE_LOW + (b - 1) * LIFE_BIN)
    }),
    past: share(life, c.nowKg > 0 ? lifeBin(c.nowKg) : 1),
    boreShare: mm => share(bore, mm / BIN_MM),
    lifeShare: kg => share(life, lifeBin(kg)),
  }
}
