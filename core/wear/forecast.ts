/** Everything a technician is told about one nozzle, and the same for a whole fleet. */
import { need, needOne } from '../numeric'
import { BORE_MM, checkHistory, WEAR_KG } from './check'
import { rangeOf } from './crossing'
import { RowStore } from './layout'
import { brokenBy, massLife, wearAtRisks, type Life } from './life'
import { borePosterior, boreAt, lnKappa, pastLimit, type BorePosterior } from './posterior'
import { pooledPrior, sisterTerm, withoutTerm, type SisterTerm } from './pooling'
import { checkPrior } from './prior'
import { ACCEPTED_RISK, NOZZLE_MATERIALS, START_SIGMA, START_TIP_RATE, type NozzleMaterial } from './start-values'
import { tipLife, tipLossAt, tipPosterior, type TipPosterior } from './tip'
import type { BoreHistory, Law, LogNormalPrior, Range, TipHistory } from './types'

/**
 * What a forecast is worked out by; a stored one of another version is worked out again. Raise it with every change of
 * the model.
 */
export const WEAR_MODEL = 4

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

export type LawVerdict =
  | { preferred: Law; bayesFactor: number }
  | { preferred: null; reason: 'too few gauges' | 'the gauges cannot tell'; bayesFactor: number | null }

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
  /** Its bore was never read, and without a first gauge it may be past its limit more surely than is accepted. */
  needsFirstGauge: boolean
}

interface NamedLife {
  rule: 'bore' | 'tip' | 'mass'
  life: Life
}

function livesOf(rules: RetireRules, bore: BorePosterior, tip: TipPosterior): NamedLife[] {
  const lives: NamedLife[] = []
  if (rules.boreLimitMm !== null) lives.push({ rule: 'bore', life: boreLife(bore, rules.boreLimitMm) })
  if (rules.tipLossLimitMm !== null) lives.push({ rule: 'tip', life: tipLife(tip, rules.tipLossLimitMm) })
  if (rules.massLimitKg !== null) lives.push({ rule: 'mass', life: massLife(rules.massLimitKg) })
  return lives
}

/** Life in kg of wear mass under the rule "bore at most `limitMm` mm". */
export function boreLife(p: BorePosterior, limitMm: number): Life {
  return pastLimit(p, limitMm)
}

/** Prior of ln tip rate (mm per kg) from the start values alone. */
export function tipPrior(material: NozzleMaterial): LogNormalPrior {
  needOne('material', material, NOZZLE_MATERIALS)
  return { meanLn: Math.log(START_TIP_RATE[material]), sd: START_SIGMA }
}

function checkInput(input: NozzleInput): void {
  needOne('material', input.material, NOZZLE_MATERIALS)
  needOne('law', input.law, ['sliding', 'linear'])
  need('wearKg', input.wearKg, ...WEAR_KG, 'kg')
  if (input.rules.boreLimitMm !== null) need('boreLimitMm', input.rules.boreLimitMm, ...BORE_MM, 'mm')
  if (input.rules.tipLossLimitMm !== null) need('tipLossLimitMm', input.rules.tipLossLimitMm, 1e-4, 100, 'mm')
  if (input.rules.massLimitKg !== null) need('massLimitKg', input.rules.massLimitKg, 0, 1e6, 'kg')
  if (input.acceptedRisk !== undefined) need('acceptedRisk', input.acceptedRisk, 1e-6, 0.999)
}

/**
 * Forecast of one nozzle: bore in mm, life left in kg, chance of being past a limit, next gauge. Throws InputError for
 * impossible input. `store` may hold rows laid before for its law.
 */
export function forecast(input: NozzleInput, store?: RowStore): NozzleForecast {
  checkInput(input)
  const posterior = borePosterior(input.bore, input.prior, input.law, store)
  const tip = tipPosterior(input.tip, tipPrior(input.material))
  const named = livesOf(input.rules, posterior, tip)
  const lives = named.map(l => l.life)
  const risk = input.acceptedRisk ?? ACCEPTED_RISK
  const at = wearAtRisks(lives, [0.5, 0.1, 0.9, 0.025, 0.975, risk])
  const [median, low80, high80, low95, high95, due] = at.map(kg => Math.max(0, kg - input.wearKg)) as [
    number,
    number,
    number,
    number,
    number,
    number,
  ]
  return {
    bore: rangeOf(boreAt(posterior, input.wearKg)),
    tipLoss: rangeOf(tipLossAt(tip, input.wearKg)),
    kappa: mapRange(rangeOf(lnKappa(posterior)), Math.exp),
    leftKg: { median, low80, high80, low95, high95 },
    pastChance: brokenBy(lives, input.wearKg),
    nextGaugeKg: due,
    firstRule: firstOf(named, at[0]!),
    needsFirstGauge: input.bore.observations.length === 0 && brokenBy(lives, 0) >= risk,
  }
}

/** The rule that is likeliest to be broken when it is as likely as not that one is. */
function firstOf(named: NamedLife[], medianKg: number): NozzleForecast['firstRule'] {
  if (named.length < 2) return named[0]?.rule ?? null
  const chances = named.map(l => l.life.chance(Math.min(medianKg, WEAR_KG[1])))
  return named[chances.indexOf(Math.max(...chances))]!.rule
}

/** Never fewer gauges than this before a law is preferred, and never a smaller Bayes factor. */
export const FEWEST_GAUGES = 5
/** Below this ratio no law is preferred (Kass and Raftery 1995: "not worth more than a bare mention"). */
export const LEAST_BAYES_FACTOR = 3

/** Which law the gauges prefer, by the ratio of marginal likelihoods under one κ prior (Kass & Raftery 1995). */
export function compareLaws(bore: BoreHistory, prior: LogNormalPrior): LawVerdict {
  checkHistory(bore)
  checkPrior(prior)
  const gauges = bore.observations.filter(o => o.wearKg > 0).length
  if (gauges < FEWEST_GAUGES) return { preferred: null, reason: 'too few gauges', bayesFactor: null }
  const ln = borePosterior(bore, prior, 'sliding').logEvidence - borePosterior(bore, prior, 'linear').logEvidence
  const bayesFactor = Math.exp(Math.abs(ln))
  if (bayesFactor <= LEAST_BAYES_FACTOR) return { preferred: null, reason: 'the gauges cannot tell', bayesFactor }
  return { preferred: ln > 0 ? 'sliding' : 'linear', bayesFactor }
}

export interface Band {
  wearKg: number
  range: Range
}

/** Bore in mm at each of the wear masses in kg, for drawing the 80 and 95 % bands. */
export function boreBands(posterior: BorePosterior, wearKg: number[]): Band[] {
  return wearKg.map(kg => ({ wearKg: kg, range: rangeOf(boreAt(posterior, kg)) }))
}

export type FleetNozzle = Omit<NozzleInput, 'prior'> & { key: string }
export interface FleetForecast {
  key: string
  forecast: NozzleForecast
  sisters: number
  prior: LogNormalPrior
}

/**
 * Forecasts of many nozzles, each with the prior of its sisters; calls back now and then so that the work can be
 * watched and stopped.
 */
export function fleetForecast(
  nozzles: FleetNozzle[],
  progress?: (done: number, of: number) => boolean | undefined,
): FleetForecast[] {
  const steps = nozzles.length * 2
  let done = 0
  const tick = () => (++done % 20 === 0 || done === steps) && progress?.(done, steps) === false
  const terms: (SisterTerm | null)[] = []
  const stores: RowStore[] = []
  const pools = new Map<NozzleMaterial, { sum: Float64Array; n: number }>()
  for (const n of nozzles) {
    const store = new RowStore(n.bore, 'sliding')
    stores.push(store)
    const term = sisterTerm(n.bore, n.material, store)
    terms.push(term)
    if (term) {
      const pool = pools.get(n.material) ?? { sum: new Float64Array(term.length), n: 0 }
      for (let k = 0; k < term.length; k++) pool.sum[k]! += term[k]!
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
    const others = pool && own ? withoutTerm(pool.sum, own) : (pool?.sum ?? null)
    const prior = pooledPrior(n.material, others, sisters)
    out.push({
      key: n.key,
      forecast: forecast({ ...n, prior }, n.law === 'sliding' ? stores[i] : undefined),
      sisters,
      prior,
    })
    stores[i] = null as never // its rows are not needed any more
    if (tick()) return out
  }
  return out
}

function mapRange(r: Range, f: (v: number) => number): Range {
  return { median: f(r.median), low80: f(r.low80), high80: f(r.high80), low95: f(r.low95), high95: f(r.high95) }
}
