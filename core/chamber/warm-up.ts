/**
 * Warm-up of a chamber: T(t) = T∞ − (T∞ − T0)·exp(−(t − t_d)/τ) for t > t_d, T0 before. Fitted by least squares; a door
 * that was opened shows as a dip, which is dropped. Times in s, temperatures in °C. First-order response: common
 * textbook form.
 */
import { InputError, leastSquares, need } from '../numeric'

export interface Reading {
  s: number
  c: number
}
export interface WarmUp {
  startC: number
  finalC: number
  tauS: number
  delayS: number
}
export interface Dip {
  fromS: number
  toS: number
}
export interface FittedWarmUp extends WarmUp {
  rmsC: number
  used: number
  dips: Dip[]
  reachedShare: number
}

/** Air of any chamber, °C. */
export const CHAMBER_C = [-40, 400] as const

function checkWarmUp(w: WarmUp): void {
  need('startC', w.startC, -100, 1000, '°C')
  need('finalC', w.finalC, -100, 1e6, '°C')
  need('tauS', w.tauS, 1e-9, 1e12, 's')
  need('delayS', w.delayS, -1e9, 1e9, 's')
}

/**
 * Temperature in °C after s seconds.
 *
 * @example
 * warmUpAt({ startC: 20, finalC: 70, tauS: 1200, delayS: 0 }, 1200) // 51.6 (20 + 50·(1 − 1/e))
 */
export function warmUpAt(w: WarmUp, s: number): number {
  checkWarmUp(w)
  need('s', s, -1e9, 1e12, 's')
  return at(w, s)
}

/** The curve itself; the fit tries values outside any range. */
function at(w: WarmUp, s: number): number {
  return s <= w.delayS ? w.startC : w.finalC - (w.finalC - w.startC) * Math.exp(-(s - w.delayS) / w.tauS)
}

/**
 * Seconds until it holds within `withinC` °C (0 to 100) of `targetC` for good; Infinity when it never gets there.
 *
 * @example
 * timeToHold({ startC: 20, finalC: 70, tauS: 1200, delayS: 60 }, 60) // 1773 (s; 60 + 1200·ln(50/12))
 */
export function timeToHold(w: WarmUp, targetC: number, withinC = 2): number {
  checkWarmUp(w)
  need('targetC', targetC, ...CHAMBER_C, '°C')
  need('withinC', withinC, 0, 100, '°C')
  const from = targetC - withinC
  if (w.startC >= from) return 0
  if (w.finalC <= from) return Infinity
  return w.delayS + w.tauS * Math.log((w.finalC - w.startC) / (w.finalC - from))
}

const FEWEST = 8

/**
 * Fits a warm-up to readings (s, °C) in order of time. Dips of more than about three times the scatter (at least 1.5
 * °C) below the curve are dropped with their recovery, and the rest is fitted again. Throws InputError for too few
 * readings, times out of order, or readings that do not rise.
 */
export function fitWarmUp(readings: readonly Reading[]): FittedWarmUp {
  if (readings.length < FEWEST) throw new InputError('readings', readings.length, `at least ${FEWEST} readings`)
  readings.forEach((r, i) => {
    if (!Number.isFinite(r.s) || !Number.isFinite(r.c))
      throw new InputError(`readings.${i}`, `${r.s}, ${r.c}`, 'numbers')
    if (i > 0 && r.s <= readings[i - 1]!.s)
      throw new InputError(`readings.${i}`, r.s, `a time after ${readings[i - 1]!.s} s`)
  })
  const highest = Math.max(...readings.map(r => r.c))
  if (highest - readings[0]!.c < 3)
    throw new InputError('readings', `${(highest - readings[0]!.c).toFixed(1)} °C of rise`, 'a rise of at least 3 °C')
  const dips = dipsOf(readings)
  const kept = readings.filter(r => !dips.some(d => r.s >= d.fromS && r.s <= d.toS))
  if (kept.length < FEWEST)
    throw new InputError('readings', kept.length, `at least ${FEWEST} readings beside door openings`)
  const fit = oneFit(kept)
  const residuals = kept.map(r => r.c - at(fit, r.s))
  const last = readings[readings.length - 1]!
  return {
    ...fit,
    dips,
    used: kept.length,
    rmsC: Math.sqrt(residuals.reduce((a, r) => a + r * r, 0) / kept.length),
    reachedShare: (warmUpAt(fit, last.s) - fit.startC) / (fit.finalC - fit.startC),
  }
}

function oneFit(readings: readonly Reading[]): WarmUp {
  const first = readings[0]!,
    last = readings[readings.length - 1]!
  const span = last.s - first.s
  const lowest = Math.min(...readings.slice(0, 5).map(r => r.c))
  let best: { w: WarmUp; ss: number } | null = null
  for (const tau of [span / 8, span / 4, span / 2, span * 2])
    for (const delay of [0, span * 0.08]) {
      // a few starts: the delay has local valleys
      const of = (p: readonly number[]): WarmUp => ({
        startC: p[0]!,
        finalC: p[1]!,
        tauS: Math.exp(p[2]!),
        delayS: first.s + span * Math.abs(p[3]!),
      })
      const r = leastSquares(
        p => readings.map(x => x.c - at(of(p), x.s)),
        [lowest, last.c + (last.c - lowest) * 0.1, Math.log(tau), delay / span],
        { steps: 120, tolerance: 1e-10 },
      )
      const w = of(r.parameters)
      if (
        Number.isFinite(r.sumOfSquares) &&
        w.finalC > w.startC &&
        w.tauS < span * 50 &&
        (best === null || r.sumOfSquares < best.ss)
      )
        best = { w, ss: r.sumOfSquares }
    }
  if (best === null) throw new InputError('readings', 'no rise towards an end', 'readings of a chamber that warms up')
  return best.w
}

/**
 * A door lets the air fall faster than a chamber cools by itself: from the fall to where it is back at the value
 * before.
 */
function dipsOf(readings: readonly Reading[]): Dip[] {
  const steps = readings
    .slice(1)
    .map((r, i) => Math.abs(r.c - readings[i]!.c))
    .sort((a, b) => a - b)
  const scatter = Math.max(0.5, 3 * (steps[Math.floor(steps.length / 2)] ?? 0))
  const dips: Dip[] = []
  let top = readings[0]!
  for (let i = 1; i < readings.length; i++) {
    const r = readings[i]!
    if (r.c >= top.c) {
      top = r
      continue
    }
    if (top.c - r.c < Math.max(1.5, scatter)) continue
    // it is one only if it comes back up; a chamber that is switched off does not
    let low = r
    let j = i
    while (j < readings.length && readings[j]!.c < top.c) {
      if (readings[j]!.c < low.c) low = readings[j]!
      j++
    }
    if (j >= readings.length && readings[j - 1]!.c - low.c < 0.5 * (top.c - low.c)) break
    dips.push({ fromS: top.s + 1e-9, toS: readings[Math.min(j, readings.length - 1)]!.s })
    i = j
    top = readings[Math.min(j, readings.length - 1)]!
  }
  return dips
}
