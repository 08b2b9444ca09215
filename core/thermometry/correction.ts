/**
 * What a checked sensor's reading means: true = shown + c, and only safely. Between the points of a check c is
 * interpolated; up to 20 °C outside them it keeps its nearest value. Further out nobody has checked: a correction that
 * tightens (the sensor reads low, so it is hotter than shown) keeps its nearest value, one that permits counts 0, and
 * the guard band of an unchecked sensor returns. A reference that did not see what the sensor sees (at the tip) can
 * only tighten, and takes nothing out of the guard band. °C. Common practice, no source.
 */
import { AT_MS, bisect, InputError, need, ONE_SIDED_90 } from '../numeric'
import type { CorrectionPoint } from './sensor-check'

/** So far outside its points a check still counts, °C. */
export const REACHES_C = 20

/** The corrections of one check, by shown temperature from cold to hot, and in words where it comes from. */
export interface CheckedAt {
  points: readonly CorrectionPoint[]
  from: string
}
/** What is known of one sensor on one input of a printer. */
export interface Correction {
  /** By a reference that saw what the sensor sees. */
  own: CheckedAt | null
  /** By one that reads low, and that is newer than `own`: it is at least so hot. */
  atLeast: CheckedAt | null
}

/**
 * What the checks of one sensor come to: the latest in its own place, and a newer one from where a reference reads low.
 * `atMs` in ms since 1970, `own` whether the reference saw what the sensor sees; checks without a point of which the
 * uncertainty is known give nothing, and an older one does not stand in for them. Null where neither gives anything.
 */
export function correctionFrom(
  checks: readonly { atMs: number; own: boolean; points: readonly CorrectionPoint[]; from: string }[],
): Correction | null {
  for (const c of checks) need('atMs', c.atMs, ...AT_MS, 'ms')
  const latest = (isOwn: boolean) =>
    checks
      .filter(c => c.own === isOwn)
      .reduce<(typeof checks)[number] | null>((a, b) => (a && a.atMs > b.atMs ? a : b), null)
  const [own, low] = [latest(true), latest(false)]
  const at = (c: CheckedAt | null): CheckedAt | null =>
    c && c.points.length > 0 ? { points: c.points, from: c.from } : null
  const out = { own: at(own), atLeast: low !== null && (own === null || low.atMs > own.atMs) ? at(low) : null }
  return out.own || out.atLeast ? out : null
}

/** What is added to a shown temperature. `covered`: the sensor's part of the guard band is checked here. */
export interface Corrected {
  cC: number
  /** U of the check, °C: 1.28 standard uncertainties; 0 where the whole guard band stands for it. */
  u90C: number
  covered: boolean
  from: string
}

const UNCHECKED: Corrected = { cC: 0, u90C: 0, covered: false, from: '' }

/** Any temperature that is set or shown, °C. */
const ANY_SHOWN_C = [-300, 20_000] as const

function checkPoints(points: readonly CorrectionPoint[]): void {
  if (points.length === 0) throw new InputError('points', 0, 'at least one point')
  points.forEach((p, i) => {
    need(`points.${i}.shownC`, p.shownC, ...ANY_SHOWN_C, '°C')
    need(`points.${i}.cC`, p.cC, -2000, 2000, '°C')
    need(`points.${i}.uC`, p.uC, 0, 1000, '°C')
    const before = points[i - 1]
    if (before && p.shownC <= before.shownC)
      throw new InputError(`points.${i}.shownC`, p.shownC, `above the point before, ${before.shownC} °C`)
  })
}

/**
 * c and u at a shown temperature. Between two points c lies between theirs; how it bends there nobody has seen, so
 * half their difference counts as limits (±a, a/√3), added to u by squares.
 */
function interpolated(points: readonly CorrectionPoint[], shownC: number): { cC: number; uC: number } {
  const [first, last] = [points[0]!, points.at(-1)!]
  if (shownC <= first.shownC) return first
  if (shownC >= last.shownC) return last
  const i = points.findIndex(p => p.shownC >= shownC)
  const [a, b] = [points[i - 1]!, points[i]!]
  if (shownC === b.shownC) return b
  const x = (shownC - a.shownC) / (b.shownC - a.shownC)
  return {
    cC: a.cC + x * (b.cC - a.cC),
    uC: Math.hypot(Math.max(a.uC, b.uC), Math.abs(b.cC - a.cC) / 2 / Math.sqrt(3)),
  }
}

/**
 * What a shown temperature is corrected by. Null: nobody has checked this sensor. Throws InputError.
 *
 * @example
 * const low = { own: { points: [{ shownC: 240, cC: 6, uC: 1 }], from: 'checked' }, atLeast: null }
 * correctionAt(low, 250).cC // 6 (°C; this sensor reads 6 °C low)
 */
export function correctionAt(c: Correction | null, shownC: number): Corrected {
  need('shownC', shownC, ...ANY_SHOWN_C, '°C')
  if (c === null) return UNCHECKED
  const own = c.own ? byOwn(c.own, shownC) : UNCHECKED
  if (c.atLeast === null) return own
  checkPoints(c.atLeast.points)
  const leastC = Math.max(0, interpolated(c.atLeast.points, shownC).cC)
  // hotter than the last check can explain: what that one took out of the guard band does not hold any more
  return leastC > own.cC + own.u90C ? { cC: leastC, u90C: 0, covered: false, from: c.atLeast.from } : own
}

function byOwn({ points, from }: CheckedAt, shownC: number): Corrected {
  checkPoints(points)
  const at = interpolated(points, shownC)
  const inside = shownC >= points[0]!.shownC - REACHES_C && shownC <= points.at(-1)!.shownC + REACHES_C
  if (inside) return { cC: at.cC, u90C: ONE_SIDED_90 * at.uC, covered: true, from }
  return at.cC > 0 ? { cC: at.cC, u90C: 0, covered: false, from } : UNCHECKED
}

/** Where a correction bends or jumps, °C shown. */
function bends(c: Correction): number[] {
  for (const of of [c.own, c.atLeast]) if (of) checkPoints(of.points)
  const own = c.own?.points ?? []
  const ends = own.length === 0 ? [] : [own[0]!.shownC - REACHES_C, own.at(-1)!.shownC + REACHES_C]
  return [...new Set([...own.map(p => p.shownC), ...ends, ...(c.atLeast?.points ?? []).map(p => p.shownC)])].sort(
    (a, b) => a - b,
  )
}

/** Beside a jump, °C. */
const BESIDE_C = 1e-7

/**
 * The lowest set temperature from `fromC` to `toC` at which `of(set)` is more than `limit`; `toC` where it never is.
 * `of` may jump where the correction does and rises in between. °C.
 */
export function firstAbove(
  c: Correction | null,
  of: (setC: number) => number,
  limit: number,
  fromC: number,
  toC: number,
): number {
  need('fromC', fromC, ...ANY_SHOWN_C, '°C')
  need('toC', toC, fromC, ANY_SHOWN_C[1], '°C')
  need('limit', limit, -1e6, 1e6)
  const inner = (c ? bends(c) : []).filter(b => b > fromC && b < toC)
  const edges = [fromC, ...inner, toC]
  for (let i = 1; i < edges.length; i++) {
    const [a, b] = [edges[i - 1]!, edges[i]!]
    if (of(a + BESIDE_C) > limit) return a
    if (of(b - BESIDE_C) > limit) return crossing(s => of(s) - limit, a, b)
  }
  return toC
}

/** Where a rising function crosses 0 between a and b: by chords (Illinois), at once where it is straight. */
function crossing(f: (x: number) => number, from: number, to: number): number {
  let [a, b] = [from + BESIDE_C, to - BESIDE_C]
  let [fa, fb] = [f(a), f(b)]
  let side = 0
  for (let i = 0; i < 100; i++) {
    const x = b - (fb * (b - a)) / (fb - fa)
    const fx = f(x)
    if (Math.abs(fx) < 1e-11 || b - a < 1e-10) return x
    if (fx > 0) {
      ;[b, fb] = [x, fx]
      if (side === 1) fa /= 2
      side = 1
    } else {
      ;[a, fa] = [x, fx]
      if (side === -1) fb /= 2
      side = -1
    }
  }
  return bisect(x => f(x) > 0, a, b, 1e-10)
}

/** What is set for a true temperature, °C: the lowest setpoint that is believed to reach it. */
export function setFor(c: Correction | null, wantedC: number): number {
  need('wantedC', wantedC, ...ANY_SHOWN_C, '°C')
  if (c === null) return wantedC
  const [from, to] = [Math.max(ANY_SHOWN_C[0], wantedC - 200), wantedC + 200]
  const set = firstAbove(c, s => s + correctionAt(c, s).cC, wantedC, from, to)
  // to the hundredth: nobody sets finer, and what was whole stays whole
  const rounded = Math.round(set * 100) / 100
  const near = Math.abs(rounded - set) < 1e-6 ? rounded : set
  // the last setting that a check covers belongs to it: what is wanted is made just above
  return near + correctionAt(c, near).cC < wantedC - 1e-6 ? Math.floor(near * 100 + 1) / 100 : near
}
