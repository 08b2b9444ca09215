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
  // one that cools down past it does not hold it, however warm it is now
  if (w.finalC < from || (w.finalC === from && w.startC < from)) return Infinity
  if (w.startC >= from) return 0
  return w.delayS + w.tauS * Math.log((w.finalC - w.startC) / (w.finalC - from))
}

const FEWEST = 8

/**
 * Fits a warm-up to readings (s, °C) in order of time. Dips of more than about three times the scatter (at least 1.5
 * °C) below the curve are dropped with their recovery, and so is a fall at the end that does not come back: a door that
 * stayed open, or the heaters switched off. Throws InputError for too few readings, times out of order, readings that
 * do not rise, or that lie so far off any such curve that it says nothing. A single reading far from both its
 * neighbours is left out.
 */
export function fitWarmUp(given: readonly Reading[]): FittedWarmUp {
  if (given.length < FEWEST) throw new InputError('readings', given.length, `at least ${FEWEST} readings`)
  given.forEach((r, i) => {
    if (!Number.isFinite(r.s) || !Number.isFinite(r.c))
      throw new InputError(`readings.${i}`, `${r.s}, ${r.c}`, 'numbers')
    if (i > 0 && r.s <= given[i - 1]!.s) throw new InputError(`readings.${i}`, r.s, `a time after ${given[i - 1]!.s} s`)
  })
  const readings = withoutSpikes(given)
  // not by spreading: a hundred thousand arguments overflow the stack
  const highest = readings.reduce((a, r) => Math.max(a, r.c), -Infinity)
  if (highest - readings[0]!.c < 3)
    throw new InputError('readings', `${(highest - readings[0]!.c).toFixed(1)} °C of rise`, 'a rise of at least 3 °C')
  // among means, so that scatter is no door
  const dips = dipsOf(thinned(readings))
  const kept = readings.filter(r => !dips.some(d => r.s >= d.fromS && r.s <= d.toS))
  if (kept.length < FEWEST)
    throw new InputError('readings', kept.length, `at least ${FEWEST} readings beside door openings`)
  const fit = oneFit(thinned(kept))
  const rmsC = Math.sqrt(kept.reduce((a, r) => a + (r.c - at(fit, r.s)) ** 2, 0) / kept.length)
  const noiseC = noiseOf(kept)
  if (rmsC > Math.max(OFF_C, OFF_NOISE * noiseC))
    throw new InputError(
      'readings',
      `readings ${rmsC.toFixed(1)} °C off any warm-up curve (they scatter ${noiseC.toFixed(1)} °C)`,
      'one warm-up from cold, heaters on, lid as it stays',
    )
  const last = kept[kept.length - 1]!
  return {
    ...fit,
    dips,
    used: kept.length,
    rmsC,
    reachedShare: (warmUpAt(fit, last.s) - fit.startC) / (fit.finalC - fit.startC),
  }
}

/** A single reading so far from both its neighbours is a fault of the sensor, °C. */
const SPIKE_C = 10
function withoutSpikes(readings: readonly Reading[]): Reading[] {
  return readings.filter((r, i) => {
    const [a, b] = [readings[i === 0 ? 2 : i - 1], readings[i === readings.length - 1 ? i - 2 : i + 1]]
    if (!a || !b) return true
    const off = (x: Reading) => r.c - x.c
    return !(Math.abs(off(a)) > SPIKE_C && Math.abs(off(b)) > SPIKE_C && Math.sign(off(a)) === Math.sign(off(b)))
  })
}

/** Further off than this, °C, and than so many times their own scatter, the curve does not describe the readings. */
const OFF_C = 1.2
const OFF_NOISE = 3

/** What readings scatter from one to the next, °C: by second differences, which a slow curve does not touch. */
function noiseOf(readings: readonly Reading[]): number {
  const bends = readings
    .slice(2)
    .map((r, i) => Math.abs(r.c - 2 * readings[i + 1]!.c + readings[i]!.c))
    .sort((a, b) => a - b)
  // of normal scatter the median is 0.6745 of √6 standard deviations
  return (bends[Math.floor(bends.length / 2)] ?? 0) / (0.6745 * Math.sqrt(6))
}

/** A curve of four numbers needs no more; the mean of neighbours scatters less. */
const ENOUGH = 400
function thinned(readings: readonly Reading[]): Reading[] {
  const each = Math.ceil(readings.length / ENOUGH)
  if (each === 1) return [...readings]
  const out: Reading[] = []
  for (let i = 0; i < readings.length; i += each) {
    const some = readings.slice(i, i + each)
    const mean = (k: 's' | 'c') => some.reduce((a, r) => a + r[k], 0) / some.length
    out.push({ s: mean('s'), c: mean('c') })
  }
  return out
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
  const deep = Math.max(1.5, 3 * (steps[Math.floor(steps.length / 2)] ?? 0))
  const end = readings.slice(-3)
  const endC = end.reduce((a, r) => a + r.c, 0) / end.length
  const dips: Dip[] = []
  let top = readings[0]!
  for (let i = 1; i < readings.length; i++) {
    const r = readings[i]!
    if (r.c >= top.c) {
      top = r
      continue
    }
    if (top.c - r.c < deep) continue
    let low = r
    let j = i
    while (j < readings.length && readings[j]!.c < top.c) {
      if (readings[j]!.c < low.c) low = readings[j]!
      j++
    }
    // a reading that was high by chance is never reached again, but the end is about there: no later fall counts
    if (j >= readings.length && top.c - endC < deep && top.c - low.c < 2 * deep) break
    // one that does not come back to where it was ends the record: a door left open, or switched off
    dips.push({ fromS: top.s + 1e-9, toS: readings[Math.min(j, readings.length - 1)]!.s })
    i = j
    top = readings[Math.min(j, readings.length - 1)]!
  }
  return dips
}
