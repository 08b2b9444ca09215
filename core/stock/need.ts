/**
 * How many nozzles will be wanted within a time, by the forecasts of those that are fitted. On each head the fitted
 * nozzle ends when what it has left has gone through it, then the next one of its type begins:
 *   P(at least k) = P(S_k ≤ H·rate),  S_1 = what is left,  S_k = S_{k−1} + a life,
 * by convolution over a grid of the wear mass that will go through; heads are independent. What is left is log-normal
 * through its middle and its 80 % range, each side with its own spread.
 * Source: renewal theory, Cox (1962), Renewal Theory, ch. 3; grid and the two-sided spread are choices.
 */
import { CHANCE, InputError, inverseNormal, need, normalCdf } from '../numeric'
import { medianLifeKg, type Life } from '../life'

/** A head that takes nozzles of the type. */
export interface HeadWear {
  /** What its nozzle has left, kg of wear mass: middle and 80 % range; all three Infinity where nothing ends it. */
  leftKg: { median: number; low80: number; high80: number }
  /** Wear mass that goes through it a day, kg. */
  kgPerDay: number
  /** Life of a new one, kg of wear mass; null where nothing tells. */
  life: Life | null
}

/** Days ahead that can be asked for. */
export const AHEAD_DAYS = [1, 365] as const
/** How sure what is ordered is to be enough, unless another is asked for; a choice. */
export const ENOUGH_SURE = 0.8
const KG_PER_DAY = [0, 1e4] as const
const LEFT_KG = [0, 1e12] as const
/** Cells of the grid, and the most nozzles of a head that are counted. */
const CELLS = 240
const MOST_EACH = 12
const Z90 = inverseNormal(0.9)

/**
 * Chances that 0, 1, 2 … nozzles are wanted within so many days (1 to 365), together 1.
 *
 * @example
 * needChances([{ leftKg: { median: 1, low80: 0.5, high80: 2 }, kgPerDay: 0.1, life: null }], 10) // [0.5,0.5]
 */
export function needChances(heads: readonly HeadWear[], days: number): number[] {
  need('days', days, ...AHEAD_DAYS, 'days')
  let all = [1]
  for (const h of heads) all = convolved(all, chancesOf(h, days))
  return all
}

/**
 * The fewest that are enough with chance `sure` (0.5 to 0.999): "two within 60 days, 80 % sure". Chances from
 * `needChances`.
 *
 * @example
 * enoughFor([0.1, 0.5, 0.3, 0.1], 0.8) // 2
 */
export function enoughFor(chances: readonly number[], sure: number): number {
  need('sure', sure, 0.5, 0.999)
  for (const [n, p] of chances.entries()) need(`chances.${n}`, p, ...CHANCE)
  let sum = 0
  for (const [n, p] of chances.entries()) {
    sum += p
    if (sum >= sure - 1e-9) return n
  }
  return chances.length
}

function chancesOf(h: HeadWear, days: number): number[] {
  need('kgPerDay', h.kgPerDay, ...KG_PER_DAY, 'kg')
  for (const k of ['median', 'low80', 'high80'] as const)
    if (h.leftKg[k] !== Infinity) need(`leftKg.${k}`, h.leftKg[k], ...LEFT_KG, 'kg')
  const { low80, median, high80 } = h.leftKg
  if (low80 > median) throw new InputError('leftKg.low80', low80, `at most the middle of ${median} kg`)
  if (high80 < median) throw new InputError('leftKg.high80', high80, `at least the middle of ${median} kg`)
  if (h.life !== null) medianLifeKg(h.life) // refuses a life that is none
  const reach = h.kgPerDay * days
  if (reach === 0 || h.leftKg.median === Infinity) return [1]
  const step = reach / CELLS
  const first = cells(kg => leftCdf(h.leftKg, kg), step)
  // P(at least k), by the end of the grid; of a type without a known life one replacement is all that is counted
  const atLeast = [1, sum(first)]
  if (h.life !== null) {
    const life = h.life
    const one = halved(cells(kg => lifeCdf(life, kg), step))
    let ends = first
    while (atLeast.length <= MOST_EACH && atLeast.at(-1)! > 1e-6) {
      ends = convolvedWithin(ends, one)
      atLeast.push(sum(ends))
    }
  }
  return atLeast.map((p, k) => p - (atLeast[k + 1] ?? 0))
}

/** Chance that what is left has gone by then: its two halves meet at the median. */
function leftCdf({ median, low80, high80 }: HeadWear['leftKg'], kg: number): number {
  if (kg <= 0) return 0
  if (median <= 0) return 1
  const end = kg < median ? low80 : high80
  if (end === Infinity) return 0.5
  const spread = Math.abs(Math.log(Math.max(end, 1e-12) / median)) / Z90
  if (spread === 0) return kg < median ? 0 : 1
  return normalCdf(Math.log(kg / median) / spread)
}

/** Chance that a life is no longer than that. */
function lifeCdf(life: Life, kg: number): number {
  if (kg <= 0) return 0
  if ('scale' in life) return -Math.expm1(-((kg / life.scale) ** life.shape))
  return life.sd === 0 ? Number(Math.log(kg) >= life.meanLn) : normalCdf((Math.log(kg) - life.meanLn) / life.sd)
}

/** The chance that falls into each cell of the grid. */
function cells(cdf: (kg: number) => number, step: number): Float64Array {
  const out = new Float64Array(CELLS)
  let before = cdf(0)
  for (let i = 0; i < CELLS; i++) {
    const edge = cdf((i + 1) * step)
    out[i] = edge - before
    before = edge
  }
  return out
}
const sum = (list: Float64Array) => list.reduce((s, p) => s + p, 0)

/** Two that lie evenly within their cells add up to one cell as often as to the next: one of them spread over both. */
const halved = (list: Float64Array) => list.map((p, i) => (p + (list[i - 1] ?? 0)) / 2)

/** Sums of two within the grid, the second one `halved`. */
function convolvedWithin(a: Float64Array, b: Float64Array): Float64Array {
  const out = new Float64Array(CELLS)
  for (let i = 0; i < CELLS; i++) {
    const p = a[i]!
    if (p !== 0) for (let j = 0; i + j < CELLS; j++) out[i + j]! += p * b[j]!
  }
  return out
}

function convolved(a: readonly number[], b: readonly number[]): number[] {
  const out = new Array<number>(a.length + b.length - 1).fill(0)
  for (const [i, p] of a.entries()) for (const [j, q] of b.entries()) out[i + j]! += p * q
  return out
}
