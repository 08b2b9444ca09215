/**
 * Going from one filament to another on the same head: the temperature at which both flow, and how much to push
 * through. Sources: temperature margin, slowness and melt volume common practice, no source; washout of a well-mixed
 * vessel, C = exp(−V/V_m), any text on chemical reactors (e.g. Levenspiel, Chemical Reaction Engineering).
 */
import { need, needIfKnown } from '../numeric'
import { correctionAt, type Correction } from '../thermometry'
import { setWhole } from './set-whole'

export interface Flowing {
  name: string
  lowestFlowC: number | null
  shortMaxC: number | null
  /** Whether the shop has a spool of it; what it has is asked for first. */
  atHand?: boolean
}

/** Above the lowest flow temperature of the old filament, °C. */
export const PURGE_ABOVE_C = 10

export type Step = { from: string; to: string; atC: number }
export type Purge =
  | { kind: 'direct'; steps: Step[] }
  /** Windows do not meet: through filaments between, one after the other. */
  | { kind: 'through'; via: string[]; steps: Step[] }
  | { kind: 'none'; why: 'windows' | 'ceiling'; neededC: number; allowedC: number }
  | { kind: 'cannot tell'; missing: string }

/** Where both flow: the old one's lowest flow temperature + 10 °C, or the new one's own lowest if that is hotter. */
const between = (from: Flowing, to: Flowing) => Math.max(from.lowestFlowC! + PURGE_ABOVE_C, to.lowestFlowC!)
/** Purge temperature from one to another, when both and the hotend stand it. */
function oneStep(from: Flowing, to: Flowing, ceilingC: number): number | null {
  const atC = between(from, to)
  return atC <= to.shortMaxC! && atC <= from.shortMaxC! && atC <= ceilingC ? atC : null
}

const missingOf = (m: Flowing) => {
  if (m.lowestFlowC === null) return `the lowest flow temperature of ${m.name}`
  return m.shortMaxC === null ? `the short-time highest temperature of ${m.name}` : null
}

/** Any temperature a melt may have, °C. */
const FLOW_C = [0, 600] as const

function checkFlowing(m: Flowing): void {
  if (m.lowestFlowC !== null) need('lowestFlowC', m.lowestFlowC, ...FLOW_C, '°C')
  if (m.shortMaxC !== null) need('shortMaxC', m.shortMaxC, ...FLOW_C, '°C')
}

/**
 * How to purge, on a hotend of this ceiling in °C (null: not known). `others` may stand between, one after the other:
 * of all chains the one with the fewest filaments that the shop has no spool of, then the fewest steps, then the least
 * heat.
 *
 * @example
 * const pc = { name: 'PC', lowestFlowC: 250, shortMaxC: 320 }
 * const pla = { name: 'PLA', lowestFlowC: 190, shortMaxC: 260 }
 * purge(pc, pla, 300).steps[0].atC // 260 (°C)
 */
export function purge(from: Flowing, to: Flowing, ceilingC: number | null, others: readonly Flowing[] = []): Purge {
  for (const m of [from, to, ...others]) checkFlowing(m)
  if (ceilingC !== null) need('ceilingC', ceilingC, ...FLOW_C, '°C')
  const missing = missingOf(from) ?? missingOf(to) ?? (ceilingC === null ? 'the ceiling of the hotend' : null)
  if (missing !== null || ceilingC === null) return { kind: 'cannot tell', missing: missing! }
  const way = chain(from, to, ceilingC, others)
  if (way === null) {
    const neededC = between(from, to)
    if (neededC > ceilingC) return { kind: 'none', why: 'ceiling', neededC, allowedC: ceilingC }
    return { kind: 'none', why: 'windows', neededC, allowedC: Math.min(to.shortMaxC!, from.shortMaxC!) }
  }
  if (way.length === 1) return { kind: 'direct', steps: way }
  return { kind: 'through', via: way.slice(0, -1).map(s => s.to), steps: way }
}

/**
 * The same on a head whose sensor may be off: its ceiling is a setpoint, and what is answered are setpoints too.
 * `sensor` is what checks found of it, null where nobody has checked. °C.
 */
export function purgeOn(
  sensor: Correction | null,
  ceilingSetC: number | null,
  from: Flowing,
  to: Flowing,
  others: readonly Flowing[] = [],
): Purge {
  needIfKnown('ceilingC', ceilingSetC, ...FLOW_C, '°C')
  const ceilingC = ceilingSetC === null ? null : ceilingSetC + correctionAt(sensor, ceilingSetC).cC
  const way = purge(from, to, ceilingC, others)
  const set = (c: number) => setWhole(sensor, c, ceilingSetC)
  if (way.kind === 'cannot tell') return way
  if (way.kind === 'none') return { ...way, neededC: set(way.neededC), allowedC: set(way.allowedC) }
  return { ...way, steps: way.steps.map(s => ({ ...s, atC: set(s.atC) })) }
}

interface Way {
  steps: Step[]
  /** Filaments between that the shop has no spool of. */
  bought: number
  hottestC: number
}
const better = (a: Way, b: Way | undefined) =>
  b === undefined ||
  a.bought < b.bought ||
  (a.bought === b.bought &&
    (a.steps.length < b.steps.length || (a.steps.length === b.steps.length && a.hottestC < b.hottestC)))

/** Best chain, by working from the old filament outwards until nothing gets better; null when there is none. */
function chain(from: Flowing, to: Flowing, ceilingC: number, others: readonly Flowing[]): Step[] | null {
  const middle = others.filter(o => missingOf(o) === null && o.name !== from.name && o.name !== to.name)
  const best = new Map<string, Way>([[from.name, { steps: [], bought: 0, hottestC: -Infinity }]])
  let reached: Flowing[] = [from]
  while (reached.length > 0) {
    const next: Flowing[] = []
    for (const a of reached)
      for (const b of [to, ...middle]) {
        const atC = a === to ? null : oneStep(a, b, ceilingC)
        if (atC === null) continue
        const so = best.get(a.name)!
        const way: Way = {
          steps: [...so.steps, { from: a.name, to: b.name, atC }],
          bought: so.bought + (b === to || b.atHand ? 0 : 1),
          hottestC: Math.max(so.hottestC, atC),
        }
        if (!better(way, best.get(b.name))) continue
        best.set(b.name, way)
        next.push(b)
      }
    reached = next
  }
  return best.get(to.name)?.steps ?? null
}

/**
 * Melt that stands in a hotend, mm³, and how many times slower than a well-mixed vessel it washes out; common practice,
 * no source.
 */
export const START_MELT_MM3 = { 'standard': 65, 'high flow': 160 } as const
/** So many times slower than a well-mixed vessel a hotend washes out; common practice, no source. */
export const SLOWNESS = 3

/**
 * Volume in mm³, and length in mm of filament, to push through until `left` of the old filament stays (0.01: 1 %). Melt
 * 5 to 2000 mm³, diameter 0.5 to 5 mm.
 *
 * @example
 * washout(65, 1.75).volumeMm3 // 898 (mm³; ln 100 · 65 · 3)
 */
export function washout(
  meltMm3: number,
  diameterMm: number,
  left = 0.01,
  slowness = SLOWNESS,
): { volumeMm3: number; lengthMm: number } {
  need('meltMm3', meltMm3, 5, 2000, 'mm³')
  need('diameterMm', diameterMm, 0.5, 5, 'mm')
  need('left', left, 1e-6, 0.999)
  need('slowness', slowness, 1, 20)
  const volumeMm3 = -Math.log(left) * meltMm3 * slowness
  return { volumeMm3, lengthMm: volumeMm3 / ((Math.PI / 4) * diameterMm ** 2) }
}
