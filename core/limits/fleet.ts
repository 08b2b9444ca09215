/**
 * Questions over the whole floor: the matrix, which printer to give to filled filament, what a change breaks elsewhere.
 */
import { need } from '../numeric'
import { checkAsked } from './check'
import { checkGroup } from './checks'
import {
  after,
  better,
  bestClass,
  classify,
  compile,
  failing,
  findChanges,
  NO_OFFERS,
  sensorsWith,
  type Compiled,
  type Found,
  type Offers,
  type Swap,
} from './changes'
import { operatingPoint } from './operating'
import { coupledLines } from './stack'
import type { Demand, Line, Printer, Rules, VerdictClass } from './types'

/** One filament with a demand per practice set. */
export interface Filament {
  name: string
  demands: Demand[]
}
export interface Cell {
  class: VerdictClass
  head: number
  demand: number
}

/** A head that takes a filament without any change. */
export interface AsItIs {
  printer: Printer
  headId: number
  class: 'runs' | 'just'
  demand: Demand
}
/**
 * Every head of the fleet that takes the filament as it is, those with room to spare first: before any swap is made.
 */
export function runsAsItIs(demands: readonly Demand[], printers: readonly (readonly Compiled[])[]): AsItIs[] {
  const out: AsItIs[] = []
  for (const heads of printers)
    for (const c of heads) {
      const best = bestClass([c], demands)
      if (best.class === 'runs' || best.class === 'just')
        out.push({ printer: c.printer, headId: c.stack.headId, class: best.class, demand: demands[best.demand]! })
    }
  return out.sort((a, b) => Number(better(b.class, a.class)) - Number(better(a.class, b.class)))
}

/** Class of every filament (rows) on every printer (columns). */
export function matrix(filaments: readonly Filament[], printers: readonly (readonly Compiled[])[]): Cell[][] {
  return filaments.map(f => printers.map(heads => bestClass(heads, f.demands)))
}

/** Every head of every printer, each worked out once. */
export const compileFleet = (printers: readonly Printer[], offers: Offers, rules: Rules): Compiled[][] =>
  printers.map(p => p.heads.map(h => compile(p, h.id, offers, rules)))

/**
 * What no swap cures: the requirements that stay short under every combination of nozzle, tube and enclosure, as they
 * stand in the combination that leaves the fewest; all of that one when none is common. Empty when something runs.
 */
export function blockersOf(c: Compiled, demand: Demand): Line[] {
  checkAsked(demand)
  let best: Line[] | null = null
  let common = null as Set<string> | null
  const name = (l: Line) => `${l.key} ${l.part?.role ?? ''}`
  const choices = c.sensing.flatMap(s => c.nozzles.map(n => ({ sensing: s, n })))
  for (const { sensing, n } of choices)
    for (const t of c.tubes)
      for (const a of c.air) {
        const sensors = sensorsWith(c.stack, sensing.hotend, a.result)
        const op = operatingPoint(n.result, a.result, demand, c.rules, sensors)
        const setup = { nozzle: n.result, tube: t.result, air: a.result, sensors }
        const left = coupledLines(setup, op, demand, c.rules).filter(l => failing(l, a.swap !== null))
        for (const g of c.groups) {
          let least: Line[] | null = null
          for (const o of g.options) {
            if (!sensing.goes(g.role, o)) continue
            const short = checkGroup(g.role, o.result, op, demand, c.rules).filter(l => failing(l, a.swap !== null))
            if (least === null || short.length < least.length) least = short
            if (short.length === 0) break
          }
          left.push(...least!)
        }
        const names = new Set([...left.map(name), ...left.map(l => String(l.key))])
        if (common) {
          for (const x of common) if (!names.has(x)) common.delete(x)
        } else common = names
        if (best === null || left.length < best.length) best = left
        if (best.length === 0) return best
      }
  const always = (best ?? []).filter(l => common!.has(name(l)) || common!.has(l.key))
  return always.length > 0 ? always : (best ?? [])
}

/** What the shop printed of one filled filament, kg, over the time looked at. */
export interface MixPart {
  filament: Filament
  kg: number
}
export interface Dedication {
  printer: Printer
  headId: number
  /** Share of the mix by mass that this printer cannot be made to run. */
  left: number
  leftOut: string[]
  found: Found | null
}

/** How many filaments of a mix are tried in every combination of their practice sets. */
const MOST_COMBINATIONS = 64

/**
 * Which head to give to filled filament: least of the mix left out, then fewest changes, then least cost. For each head
 * the practice sets that it can be made to run are tried together, the cheapest combination counts.
 */
export function dedicate(mix: readonly MixPart[], printers: readonly (readonly Compiled[])[]): Dedication[] {
  for (const m of mix) need('kg', m.kg, 0, 1e9, 'kg')
  const total = mix.reduce((s, m) => s + m.kg, 0)
  const out: Dedication[] = []
  for (const heads of printers)
    for (const c of heads) {
      let choices: Demand[][] = [[]]
      let left = 0
      const leftOut: string[] = []
      for (const m of mix) {
        const can = m.filament.demands.filter(d => {
          const k = classify(c, d)
          return better(k, 'cannot tell')
        })
        if (can.length === 0) {
          left += m.kg
          leftOut.push(m.filament.name)
          continue
        }
        choices = choices.flatMap(before => can.map(d => [...before, d])).slice(0, MOST_COMBINATIONS)
      }
      let found: Found | null = null
      if (choices[0]!.length > 0)
        for (const demands of choices) {
          const f = findChanges(c, demands)
          if (
            f &&
            (found === null ||
              f.swaps.length < found.swaps.length ||
              (f.swaps.length === found.swaps.length && f.cost < found.cost))
          )
            found = f
        }
      out.push({ printer: c.printer, headId: c.stack.headId, left: total > 0 ? left / total : 0, leftOut, found })
    }
  return out.sort(byDedication)
}
/** Order of dedications: least of the mix left out, fewest changes, least cost. */
export const byDedication = (a: Dedication, b: Dedication) =>
  a.left - b.left ||
  (a.found?.swaps.length ?? 99) - (b.found?.swaps.length ?? 99) ||
  (a.found?.cost ?? Infinity) - (b.found?.cost ?? Infinity)

export interface Consequences {
  airLow: [number | null, number | null]
  airHigh: [number | null, number | null]
  worse: { name: string; was: VerdictClass; is: VerdictClass }[]
}

/**
 * What the swaps do beside what they are for: the chamber air under this demand, and filaments that now fare worse
 * here.
 */
export function consequencesOf(
  printer: Printer,
  headId: number,
  swaps: readonly Swap[],
  demand: Demand,
  others: readonly Filament[],
  rules: Rules,
  offers: Offers = NO_OFFERS,
): Consequences {
  checkAsked(demand)
  const before = compile(printer, headId, offers, rules),
    then = compile(after(printer, headId, swaps), headId, offers, rules)
  const airOf = ({ stack: s }: Compiled) => operatingPoint(s.nozzle, s.air, demand, rules, s.sensors).air
  const [a, b] = [airOf(before), airOf(then)]
  const worse: Consequences['worse'] = []
  for (const f of others) {
    const was = bestClass([before], f.demands).class,
      is = bestClass([then], f.demands).class
    if (better(was, is)) worse.push({ name: f.name, was, is })
  }
  return { airLow: [a.low?.c ?? null, b.low?.c ?? null], airHigh: [a.high?.c ?? null, b.high?.c ?? null], worse }
}
