/* eslint-disable max-lines -- one search, from what can be swapped to the cheapest set */
/**
 * Which swaps make it run, at the least cost. Exact: every combination of what couples the zones (nozzle, feed tube,
 * lid or enclosure) is tried; given that, the groups are independent and each takes its cheapest part that holds. Cost
 * is price plus working time; ties go to less time, then to fewer swaps. Proved against brute force in the tests.
 */
import { need } from '../numeric'
import { checkAsked, checkNozzleNumbers, checkPart, checkRules, MINUTES, PRICE } from './check'
import { isAbrasive, NOZZLE_LIMIT_C, NOZZLE_MINUTES, NOZZLE_PRICE, offsetC, MOHS } from './nozzles'
import { kindsOf, partOf } from './kinds'
import { checkDemand, checkGroup, checkNozzle, checkTube } from './checks'
import { operatingPoint, type AirParts, type OperatingPoint } from './operating'
import { checkSetup, checkStack, nothingInside, stackOf, type Setup, type Stack } from './stack'
import type { Demand, FittedNozzle, Line, Part, Printer, Role, Rules, VerdictClass, Who } from './types'

export interface Swap {
  /** What is done, as an order: "Fit a hardened steel 0.6 nozzle (N-020)". */
  text: string
  role: Role | 'nozzle'
  remove: (number | string)[]
  /** Records from the shelf by id, or the kind's key for one to be bought. */
  add: (Part | FittedNozzle)[]
  fromShelf: boolean
  price: number
  minutes: number
  who: Who
  after: string
}
export interface Option<T> {
  swap: Swap | null
  result: T
  cost: number
}

/** What the shop has on the shelf and pays. */
export interface Offers {
  shelf: readonly Part[]
  nozzles: readonly FittedNozzle[]
  /** Prices and minutes that differ from the catalogue's, by kind; nozzles as 'nozzle ' + material. */
  prices: Readonly<Record<string, { price: number; minutes: number }>>
}
/** Nothing on the shelf and no prices: only what the catalogue offers. */
export const NO_OFFERS: Offers = { shelf: [], nozzles: [], prices: {} }

function checkOffers(o: Offers): void {
  o.shelf.forEach(checkPart)
  o.nozzles.forEach(checkNozzleNumbers)
  for (const p of Object.values(o.prices)) {
    need('price', p.price, ...PRICE)
    need('minutes', p.minutes, ...MINUTES, 'min')
  }
}

export interface Compiled {
  printer: Printer
  stack: Stack
  rules: Rules
  nozzles: Option<FittedNozzle | null>[]
  /** Same, without those that another matches in every respect; enough to tell what is possible. */
  nozzlesAtBest: Option<FittedNozzle | null>[]
  tubes: Option<Part | null>[]
  air: Option<AirParts>[]
  groups: { role: Role; options: Option<Part[]>[] }[]
}

function costOf(price: number, minutes: number, rules: Rules): number {
  return price + (minutes / 60) * rules.labourPerHour
}
const byCost = (a: Option<unknown>, b: Option<unknown>) =>
  a.cost - b.cost ||
  (a.swap?.minutes ?? 0) - (b.swap?.minutes ?? 0) ||
  Number(a.swap !== null) - Number(b.swap !== null)

/** Parts that could take this role: on the shelf, then from the catalogue. */
function candidates(
  role: Role,
  headId: number | null,
  offers: Offers,
): { part: Part; fromShelf: boolean; price: number; minutes: number; who: Who; after: string }[] {
  const out = []
  for (const k of kindsOf(role)) {
    const own = offers.prices[k.key]
    const minutes = own?.minutes ?? k.minutes
    for (const p of offers.shelf)
      if (p.kind === k.key)
        out.push({ part: { ...p, headId }, fromShelf: true, price: 0, minutes, who: k.who, after: k.after ?? '' })
    if (k.price !== null)
      out.push({
        part: partOf(k.key, k.key, headId),
        fromShelf: false,
        price: own?.price ?? k.price,
        minutes,
        who: k.who,
        after: k.after ?? '',
      })
  }
  return out
}

const ON_HEAD: readonly Role[] = ['heater', 'sensor', 'heat break', 'block', 'sock', 'firmware', 'gears', 'feed tube']

function groupOptions(role: Role, parts: Part[], headId: number, offers: Offers, rules: Rules): Option<Part[]>[] {
  const out: Option<Part[]>[] = [{ swap: null, result: parts, cost: 0 }]
  const add = (
    text: string,
    result: Part[],
    c: { fromShelf: boolean; price: number; minutes: number; who: Who; after: string },
    added: Part[],
  ) =>
    out.push({
      swap: { text, role, remove: parts.filter(p => !result.includes(p)).map(p => p.id), add: added, ...c },
      result,
      cost: costOf(c.price, c.minutes, rules),
    })
  if (role === 'sock' && parts.length > 0)
    add(
      'Take the sock off',
      [],
      {
        fromShelf: false,
        price: 0,
        minutes: 5,
        who: 'technician',
        after: 'The part fan cools the bare block: retune the loop, keep the fan low.',
      },
      [],
    )
  for (const c of candidates(role, ON_HEAD.includes(role) ? headId : null, offers)) {
    if (role === 'dryer') {
      add(`Use a ${c.part.name}${c.fromShelf ? ' from the shelf' : ''}`, [...parts, c.part], c, [c.part])
      continue
    }
    if (parts.some(p => p.kind === c.part.kind && p.limitC === c.part.limitC && p.place === c.part.place)) continue
    add(`${swapText(role, parts, c.part.name)}${c.fromShelf ? ' (on the shelf)' : ''}`, [c.part], c, [c.part])
  }
  return out.sort(byCost)
}

function swapText(role: Role, parts: readonly Part[], what: string): string {
  if (role === 'firmware') return `Raise the ${what.replace('ceiling ', 'ceiling to ')} °C`
  if (parts.some(p => p.role === 'liner')) return `Fit an ${what} and take the liner out`
  return parts.length > 0 ? `Replace ${parts.map(p => p.name).join(' and ')} by ${what}` : `Fit ${what}`
}

function nozzleOptions(stack: Stack, offers: Offers, rules: Rules): Option<FittedNozzle | null>[] {
  const out: Option<FittedNozzle | null>[] = [{ swap: null, result: stack.nozzle, cost: 0 }]
  const seen = new Set<string>()
  const add = (n: FittedNozzle, price: number, minutes: number, fromShelf: boolean) => {
    const alike = `${n.material} ${n.boreMm} ${n.insert}`
    if (seen.has(alike)) return
    seen.add(alike)
    const swap: Swap = {
      text: `Fit a ${n.material} ${n.boreMm} nozzle${n.tag ? ` (${n.tag}, on the shelf)` : ''}`,
      role: 'nozzle',
      remove: stack.nozzle ? [stack.nozzle.id] : [],
      add: [{ ...n, headId: stack.headId }],
      fromShelf,
      price,
      minutes,
      who: 'technician',
      after: 'Swap it hot; re-set Z before the next job.',
    }
    out.push({ swap, result: { ...n, headId: stack.headId }, cost: costOf(price, minutes, rules) })
  }
  for (const n of offers.nozzles) add(n, 0, offers.prices[`nozzle ${n.material}`]?.minutes ?? NOZZLE_MINUTES, true)
  for (const material of ['hardened steel', 'tungsten carbide'] as const)
    for (const boreMm of [0.4, 0.6, 0.8]) {
      const own = offers.prices[`nozzle ${material}`]
      add(
        {
          id: `${material} ${boreMm}`,
          tag: '',
          material,
          boreMm,
          insert: false,
          lengthMm: stack.nozzle?.lengthMm ?? 12.5,
          headId: null,
          price: own?.price ?? NOZZLE_PRICE[material],
        },
        own?.price ?? NOZZLE_PRICE[material],
        own?.minutes ?? NOZZLE_MINUTES,
        false,
      )
    }
  return out.sort(byCost)
}

function tubeOptions(stack: Stack, offers: Offers, rules: Rules): Option<Part | null>[] {
  const t = stack.tube
  const out: Option<Part | null>[] = [{ swap: null, result: t, cost: 0 }]
  if (t?.details.freedBendMm !== undefined) {
    const freed: Part = { ...t, details: { ...t.details, bendMm: t.details.freedBendMm, freedBendMm: undefined } }
    out.push({
      swap: {
        text: `Free the feed tube from its chain (bend ${t.details.freedBendMm} mm)`,
        role: 'feed tube',
        remove: [t.id],
        add: [freed],
        fromShelf: false,
        price: 0,
        minutes: 10,
        who: 'technician',
        after: t.details.freedNeedsLidOff
          ? 'The tube leaves through the top, so the lid stays off: it costs chamber heat and layer adhesion.'
          : 'Check that it clears the frame at both ends of travel.',
      },
      result: freed,
      cost: costOf(0, 10, rules),
    })
  }
  for (const c of candidates('feed tube', stack.headId, offers)) {
    if (t && t.kind === c.part.kind && t.details.bendMm === c.part.details.bendMm) continue
    const bend = c.part.details.bendMm ? `, tightest bend ${c.part.details.bendMm} mm` : ''
    out.push({
      swap: {
        text: `Fit ${c.part.name}${bend}${c.fromShelf ? ' (on the shelf)' : ''}`,
        role: 'feed tube',
        remove: t ? [t.id] : [],
        add: [c.part],
        ...c,
      },
      result: c.part,
      cost: costOf(c.price, c.minutes, rules),
    })
  }
  return out.sort(byCost)
}

function airOptions(stack: Stack, offers: Offers, rules: Rules): Option<AirParts>[] {
  const { enclosure, lid, heater } = stack.air
  const out: Option<AirParts>[] = [{ swap: null, result: stack.air, cost: 0 }]
  if (enclosure && lid)
    out.push({
      swap: {
        text: 'Take the lid off',
        role: 'lid',
        remove: [lid.id],
        add: [],
        fromShelf: false,
        price: 0,
        minutes: 2,
        who: 'technician',
        after: 'Costs chamber heat and layer adhesion.',
      },
      result: { enclosure, lid: null, heater },
      cost: costOf(0, 2, rules),
    })
  if (enclosure && !lid) {
    const on = offers.shelf.find(p => p.role === 'lid') ?? partOf('lid')
    out.push({
      swap: {
        text: 'Put the lid on',
        role: 'lid',
        remove: [],
        add: [on],
        fromShelf: true,
        price: 0,
        minutes: 2,
        who: 'technician',
        after: '',
      },
      result: { enclosure, lid: on, heater },
      cost: costOf(0, 2, rules),
    })
  }
  if (!enclosure)
    for (const c of candidates('enclosure', null, offers)) {
      const on = partOf('lid')
      out.push({
        swap: {
          text: `Build an ${c.part.name} around it${c.fromShelf ? ' (on the shelf)' : ''}`,
          role: 'enclosure',
          remove: [],
          add: [c.part, on],
          ...c,
        },
        result: { enclosure: c.part, lid: on, heater },
        cost: costOf(c.price, c.minutes, rules),
      })
    }
  return out.sort(byCost)
}

/** The lid must be off for a tube that leaves through the top. */
function goTogether(tube: Option<Part | null>, air: Option<AirParts>, stack: Stack): boolean {
  const freed = tube.swap !== null && tube.result !== null && tube.result.id === stack.tube?.id
  return !(freed && stack.tube!.details.freedNeedsLidOff && air.result.enclosure && air.result.lid)
}

/**
 * All that could be fitted to one head, worked out once for many demands. Money in the shop's currency, time in
 * minutes. Throws InputError for prices and rules outside their ranges.
 */
export function compile(printer: Printer, headId: number, offers: Offers, rules: Rules): Compiled {
  checkRules(rules)
  checkOffers(offers)
  const stack = stackOf(printer, headId)
  const nozzles = nozzleOptions(stack, offers, rules)
  const as = (n: FittedNozzle | null) =>
    n && [MOHS[n.material], -offsetC(n.material), NOZZLE_LIMIT_C[n.material], n.boreMm]
  const nozzlesAtBest = nozzles.filter(
    (o, i) =>
      !nozzles.some((b, k) => {
        if (k === i) return false
        const x = as(o.result),
          y = as(b.result)
        if (!x) return y !== null
        return y !== null && y.every((v, j) => v >= x[j]!) && (y.some((v, j) => v > x[j]!) || k < i)
      }),
  )
  return {
    printer,
    stack,
    rules,
    nozzles,
    nozzlesAtBest,
    tubes: tubeOptions(stack, offers, rules),
    air: airOptions(stack, offers, rules),
    groups: stack.groups.map(g => ({ role: g.role, options: groupOptions(g.role, g.parts, headId, offers, rules) })),
  }
}

/** An enclosure in which no part is described, also one that is still to be built. */
const unknownInside = (c: Compiled, air: AirParts) => nothingInside({ ...c.stack, air })
const short = (lines: readonly Line[]) => lines.some(l => l.status === 'short')
const open = (lines: readonly Line[]) => lines.some(l => l.status === 'unknown')

export interface Found {
  swaps: Swap[]
  cost: number
  price: number
  minutes: number
  unknown: boolean
  setup: Setup
  groups: { role: Role; parts: Part[] }[]
}

/**
 * Cheapest set of swaps after which no requirement of any of the demands is short; null when there is none. Facts that
 * are missing do not stand in its way, but `unknown` tells that some remain.
 */
export function findChanges(c: Compiled, demands: readonly Demand[]): Found | null {
  demands.forEach(checkAsked)
  let best: Found | null = null
  for (const n of c.nozzles)
    for (const t of c.tubes)
      for (const a of c.air) {
        if (!goTogether(t, a, c.stack)) continue
        const coupled = n.cost + t.cost + a.cost
        if (best && coupled > best.cost) continue
        const ops = demands.map(d => operatingPoint(n.result, a.result, d, c.rules))
        let missing = unknownInside(c, a.result)
        let fails = false
        for (const [i, d] of demands.entries()) {
          const lines = [
            ...ops[i]!.lines,
            ...checkNozzle(n.result, ops[i]!, d, c.rules),
            ...checkTube(t.result, ops[i]!, d, c.rules),
          ]
          if (short(lines)) {
            fails = true
            break
          }
          missing ||= open(lines) || open(checkDemand(d))
        }
        if (fails) continue
        const chosen: Option<Part[]>[] = []
        for (const g of c.groups) {
          const holds = g.options.find(o =>
            demands.every((d, i) => !short(checkGroup(g.role, o.result, ops[i]!, d, c.rules))),
          )
          if (!holds) {
            fails = true
            break
          }
          missing ||= demands.some((d, i) => open(checkGroup(g.role, holds.result, ops[i]!, d, c.rules)))
          chosen.push(holds)
        }
        if (fails) continue
        const swaps = [n, t, a, ...chosen].map(o => o.swap).filter(s => s !== null)
        const found = {
          swaps,
          cost: coupled + chosen.reduce((s, o) => s + o.cost, 0),
          price: swaps.reduce((s, w) => s + w.price, 0),
          minutes: swaps.reduce((s, w) => s + w.minutes, 0),
          unknown: missing,
          setup: { nozzle: n.result, tube: t.result, air: a.result },
          groups: c.groups.map((g, i) => ({ role: g.role, parts: chosen[i]!.result })),
        }
        if (
          !best ||
          found.cost < best.cost - 1e-9 ||
          (found.cost < best.cost + 1e-9 &&
            (found.minutes < best.minutes ||
              (found.minutes === best.minutes && found.swaps.length < best.swaps.length)))
        )
          best = found
      }
  return best
}

/** The printer as it would be after the swaps, for a what-if. Swaps of other heads' parts leave this head alone. */
export function after(printer: Printer, headId: number, swaps: readonly Swap[]): Printer {
  let parts = printer.parts
  let nozzle: FittedNozzle | null | undefined
  for (const s of swaps) {
    if (s.role === 'nozzle') {
      nozzle = s.add[0] as FittedNozzle
      continue
    }
    parts = [...parts.filter(p => !s.remove.includes(p.id)), ...(s.add as Part[])]
    if (
      s.role === 'feed tube' &&
      (s.add[0] as Part).details.freedNeedsLidOff &&
      s.remove.includes((s.add[0] as Part).id)
    )
      parts = parts.filter(p => p.role !== 'lid')
  }
  return {
    ...printer,
    parts,
    heads: printer.heads.map(h => (h.id === headId && nozzle !== undefined ? { ...h, nozzle } : h)),
  }
}

export interface Verdict {
  class: VerdictClass
  lines: Line[]
  demand: Demand
  headId: number
  bedC: number | null
  heaterC: number | null
  bedForChamber: boolean
}

/**
 * The class of one demand on one head: missing facts are never a pass, and what no swap cures is "cannot". Stops at the
 * first shortfall, because the matrix asks for thousands of these.
 */
export function classify(c: Compiled, demand: Demand): VerdictClass {
  checkAsked(demand)
  const { op, lines } = checkSetup(c.stack, demand, c.rules)
  if (!short(lines)) {
    let missing = open(lines) || open(checkDemand(demand)) || nothingInside(c.stack)
    let fails = false
    for (const g of c.stack.groups) {
      const gl = checkGroup(g.role, g.parts, op, demand, c.rules)
      if (short(gl)) {
        fails = true
        break
      }
      missing ||= open(gl)
    }
    if (!fails) return missing ? 'cannot tell' : 'runs'
  }
  return feasible(c, demand)
}

function feasible(c: Compiled, demand: Demand): VerdictClass {
  let told: VerdictClass = 'cannot'
  const unsaid = open(checkDemand(demand))
  const known = new Map<string, 'short' | 'unknown' | 'ok'>()
  for (const n of demand.filler !== null && isAbrasive(demand.filler) ? c.nozzlesAtBest : c.nozzles) {
    for (const a of c.air) {
      const op = operatingPoint(n.result, a.result, demand, c.rules)
      if (short(op.lines)) continue
      const lines = checkNozzle(n.result, op, demand, c.rules)
      if (short(lines)) continue
      const at = `${op.nozzleC} ${op.bedC} ${op.heaterC} ${op.air.low} ${op.air.high} ${op.air.bay}`
      let groups = known.get(at)
      if (!groups) known.set(at, (groups = bestOfGroups(c, op, demand)))
      if (groups === 'short') continue
      let missing = unsaid || open(op.lines) || open(lines) || groups === 'unknown' || unknownInside(c, a.result)
      let fails = true
      for (const t of c.tubes) {
        if (!goTogether(t, a, c.stack)) continue
        const tl = checkTube(t.result, op, demand, c.rules)
        if (short(tl)) continue
        fails = false
        missing ||= open(tl)
        break
      }
      if (fails) continue
      if (!missing) return 'changes'
      told = 'cannot tell'
    }
  }
  return told
}

/** Whether every group has an option that holds here, the cheapest one counting. */
function bestOfGroups(c: Compiled, op: OperatingPoint, demand: Demand): 'short' | 'unknown' | 'ok' {
  let missing = false
  for (const g of c.groups) {
    let holds = false
    for (const o of g.options) {
      const gl = checkGroup(g.role, o.result, op, demand, c.rules)
      if (short(gl)) continue
      holds = true
      missing ||= open(gl)
      break
    }
    if (!holds) return 'short'
  }
  return missing ? 'unknown' : 'ok'
}

/** The demand on this head with all its lines. */
export function judge(c: Compiled, demand: Demand): Verdict {
  const { op, lines } = checkStack(c.stack, demand, c.rules)
  return {
    class: classify(c, demand),
    lines,
    demand,
    headId: c.stack.headId,
    bedC: op.bedC,
    heaterC: op.heaterC,
    bedForChamber: op.bedForChamber,
  }
}

const RANK: Record<VerdictClass, number> = { 'runs': 0, 'changes': 1, 'cannot tell': 2, 'cannot': 3 }
/** Whether one class is better than another: runs, after changes, cannot tell, cannot. */
export const better = (a: VerdictClass, b: VerdictClass) => RANK[a] < RANK[b]

/**
 * Best class over a printer's heads and the demands of one filament's practice sets; the practice that fits the
 * printer's kind is tried first.
 */
export function bestClass(
  heads: readonly Compiled[],
  demands: readonly Demand[],
): { class: VerdictClass; head: number; demand: number } {
  let best: { class: VerdictClass; head: number; demand: number } | null = null
  for (const h of heads.keys())
    for (const d of fittingFirst(heads[h]!.stack.air.enclosure !== null, demands)) {
      const cls = classify(heads[h]!, demands[d]!)
      if (best === null || better(cls, best.class)) best = { class: cls, head: h, demand: d }
      if (cls === 'runs') return best
    }
  return best ?? { class: 'cannot tell', head: 0, demand: 0 }
}

function fittingFirst(enclosed: boolean, demands: readonly Demand[]): number[] {
  const all = [...demands.keys()]
  return all.some(d => demands[d]!.enclosed !== enclosed)
    ? [...all.filter(d => demands[d]!.enclosed === enclosed), ...all.filter(d => demands[d]!.enclosed !== enclosed)]
    : all
}
