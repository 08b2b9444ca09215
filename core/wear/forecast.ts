/** Everything a technician is told about one nozzle, and the same for a whole fleet. */
import { brokenBy, wearAtRisk, type Life } from './life'
import { borePosterior, boreAt, boreLife, lnKappa, type BorePosterior, type GridSize } from './posterior'
import { pooledPrior, sisterTerm, type SisterTerm } from './pooling'
import { ACCEPTED_RISK, START_SIGMA, START_TIP_RATE, type NozzleMaterial } from './start-values'
import { tipLife, tipLossAt, tipPosterior } from './tip'
import type { BoreHistory, Law, LogNormalPrior, Range, TipHistory } from './types'

export interface RetireRules {
  /** Largest bore allowed, mm; null switches the rule off. */
  boreLimitMm: number | null
  /** Largest tip loss allowed, mm; null switches the rule off. */
  tipLossLimitMm: number | null
  /** Wear mass allowed, kg; null switches the rule off. */
  massLimitKg: number | null
}

export interface NozzleInput {
  material: NozzleMaterial
  law: Law
  bore: BoreHistory
  tip: TipHistory
  rules: RetireRules
  /** Wear mass so far, kg. */
  wearKg: number
  prior: LogNormalPrior
  /** Chance of being past the limit that makes a gauge due. Default 0.10. */
  acceptedRisk?: number
}

export type LawVerdict = { preferred: Law, bayesFactor: number } | { preferred: null, reason: 'too few gauges' | 'the gauges cannot tell', bayesFactor: number | null }

export interface NozzleForecast {
  /** Bore now, mm. */
  bore: Range
  /** Tip loss now, mm. */
  tipLoss: Range
  /** Rate, mm per kg at a 0.4 mm bore. */
  kappa: Range
  /** Wear mass left until the first rule is broken, kg, never below 0. */
  leftKg: Range
  /** Chance that a rule is broken already. */
  pastChance: number
  /** Wear mass until a gauge is due, kg; 0 = due now. */
  nextGaugeKg: number
  /** The rule that is likely to be broken first. */
  firstRule: 'bore' | 'tip' | 'mass' | null
}

export function livesOf(input: NozzleInput, posterior: BorePosterior): { rule: 'bore' | 'tip' | 'mass', life: Life }[] {
  const { rules } = input
  const lives: { rule: 'bore' | 'tip' | 'mass', life: Life }[] = []
  if (rules.boreLimitMm !== null) lives.push({ rule: 'bore', life: boreLife(posterior, rules.boreLimitMm) })
  if (rules.tipLossLimitMm !== null) lives.push({ rule: 'tip', life: tipLife(tipPosterior(input.tip, tipPrior(input.material)), rules.tipLossLimitMm) })
  if (rules.massLimitKg !== null) lives.push({ rule: 'mass', life: { kind: 'mass', kg: rules.massLimitKg } })
  return lives
}

export function tipPrior(material: NozzleMaterial): LogNormalPrior {
  return { meanLn: Math.log(START_TIP_RATE[material]), sd: START_SIGMA }
}

/** Forecast of one nozzle. Throws WearInputError for impossible input. */
export function forecast(input: NozzleInput, size?: GridSize): NozzleForecast {
  const posterior = borePosterior(input.bore, input.prior, input.law, size)
  const named = livesOf(input, posterior)
  const lives = named.map(l => l.life)
  const left = (p: number) => Math.max(0, wearAtRisk(lives, p) - input.wearKg)
  const kappa = lnKappa(posterior).range()
  let firstRule: NozzleForecast['firstRule'] = null
  let first = Infinity
  for (const l of named) {
    const median = wearAtRisk([l.life], 0.5)
    if (median < first) { first = median; firstRule = l.rule }
  }
  return {
    bore: boreAt(posterior, input.wearKg).range(),
    tipLoss: tipLossAt(tipPosterior(input.tip, tipPrior(input.material)), input.wearKg).range(),
    kappa: mapRange(kappa, Math.exp),
    leftKg: { median: left(0.5), low80: left(0.1), high80: left(0.9), low95: left(0.025), high95: left(0.975) },
    pastChance: brokenBy(lives, input.wearKg),
    nextGaugeKg: left(input.acceptedRisk ?? ACCEPTED_RISK),
    firstRule,
  }
}

/** Never fewer gauges than this before a law is preferred, and never a smaller Bayes factor. */
export const FEWEST_GAUGES = 5
export const LEAST_BAYES_FACTOR = 3

/** Which law the gauges prefer, by the ratio of marginal likelihoods under one κ prior (Kass & Raftery 1995). */
export function compareLaws(bore: BoreHistory, prior: LogNormalPrior): LawVerdict {
  const gauges = bore.observations.filter(o => o.wearKg > 0).length
  if (gauges < FEWEST_GAUGES) return { preferred: null, reason: 'too few gauges', bayesFactor: null }
  const ln = borePosterior(bore, prior, 'sliding').logEvidence - borePosterior(bore, prior, 'linear').logEvidence
  const bayesFactor = Math.exp(Math.abs(ln))
  if (bayesFactor <= LEAST_BAYES_FACTOR) return { preferred: null, reason: 'the gauges cannot tell', bayesFactor }
  return { preferred: ln > 0 ? 'sliding' : 'linear', bayesFactor }
}

export interface Band { wearKg: number, range: Range }

/** Bore at each of the wear masses given, for drawing the 80 and 95 % bands. */
export function boreBands(posterior: BorePosterior, wearKg: number[]): Band[] {
  return wearKg.map(kg => ({ wearKg: kg, range: boreAt(posterior, kg).range() }))
}

export type FleetNozzle = Omit<NozzleInput, 'prior'> & { key: string }
export interface FleetForecast { key: string, forecast: NozzleForecast, sisters: number, prior: LogNormalPrior }

/** Forecasts of many nozzles, each with the prior of its sisters; calls back now and then so that the work can be watched and stopped. */
export function fleetForecast(nozzles: FleetNozzle[], progress?: (done: number, of: number) => boolean | undefined): FleetForecast[] {
  const steps = nozzles.length * 2
  let done = 0
  const tick = () => (++done % 20 === 0 || done === steps) && progress?.(done, steps) === false
  const terms: (SisterTerm | null)[] = []
  const pools = new Map<NozzleMaterial, { sum: Float64Array | null, n: number }>()
  for (const n of nozzles) {
    const term = sisterTerm(n.bore, n.material)
    terms.push(term)
    if (term) {
      const pool = pools.get(n.material) ?? { sum: new Float64Array(term.length), n: 0 }
      term.forEach((v, k) => { pool.sum![k]! += v })
      pool.n++
      pools.set(n.material, pool)
    }
    if (tick()) return []
  }
  const out: FleetForecast[] = []
  for (const [i, n] of nozzles.entries()) {
    const pool = pools.get(n.material)
    const own = terms[i]
    const sisters = (pool?.n ?? 0) - (own ? 1 : 0)
    const prior = pooledPrior(n.material, pool?.sum ? pool.sum.map((v, k) => v - (own?.[k] ?? 0)) : null, sisters)
    out.push({ key: n.key, forecast: forecast({ ...n, prior }), sisters, prior })
    if (tick()) return out
  }
  return out
}

function mapRange(r: Range, f: (v: number) => number): Range {
  return { median: f(r.median), low80: f(r.low80), high80: f(r.high80), low95: f(r.low95), high95: f(r.high95) }
}
