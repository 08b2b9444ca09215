/* eslint-disable max-lines -- one search, from what can be swapped to the cheapest set */
/**
 * Which swaps make it run, at the least cost. Exact: the nozzle decides for the hotend, lid, enclosure, heater and feed
 * tube for everything in the air; given those, the groups are independent and each takes its cheapest part that holds.
 * Cost is price plus working time; ties go to the plan that leaves fewer things to look at, then to less time, then to
 * fewer swaps. Proved against brute force in the tests.
 */
import { need } from '../numeric'
import { checkAsked, checkNozzleNumbers, checkPart, checkRules, MINUTES, PRICE } from './check'
import { isAbrasive, NOZZLE_LIMIT_C, NOZZLE_MINUTES, NOZZLE_PRICE, offsetC, MOHS } from './nozzles'
import { PRACTICE_AIR, type AirSource } from './air'
import { kindsOf, partOf } from './kinds'
import { checkDemand, checkGroup, checkNozzle, checkTube, checkWalls, isMakers, zoneOf } from './checks'
import type { HeadSensors } from './heat'
import { operatingPoint, type AirParts, type OperatingPoint } from './operating'
import { airParts, checkSetup, checkStack, nothingInside, stackOf, type Setup, type Stack } from './stack'
import {
  VERDICT_CLASSES,
  type Demand,
  type FittedNozzle,
  type Line,
  type Part,
  type Printer,
  type Role,
  type Rules,
  type Sensors,
  type VerdictClass,
  type Who,
} from './types'

export interface Swap {
  /** What is done, as an order: "Fit a hardened steel 0.6 nozzle (N-020)". */
  text: string
  role: Role | 'nozzle'
  remove: (number | string)[]
  /** Records from the shelf by id, or the kind's key for one to be bought. */
  add: (Part | FittedNozzle)[]
  fromShelf: boolean
  price: number
  /** False when nobody has entered what it costs: the price is a start value, good to weigh plans by, not to buy by. */
  priced: boolean
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
  /** The hotend's sensor kept with what is known of it, or another one that nobody has checked. */
  sensing: Sensing[]
  stack: Stack
  rules: Rules
  nozzles: Option<FittedNozzle | null>[]
  /** Same, without those that another matches in every respect; enough to tell what is possible. */
  nozzlesAtBest: Option<FittedNozzle | null>[]
  tubes: Option<Part | null>[]
  air: Option<AirParts>[]
  groups: { role: Role; hot: boolean; options: Option<Part[]>[] }[]
}

/** Which of a group's options go with this choice. */
interface Sensing {
  hotend: HeadSensors['hotend']
  goes: (role: Role, o: Option<Part[]>) => boolean
}
/** A check belongs to the sensor: whoever swaps it starts anew. Without a check there is nothing to choose. */
function sensingOf(known: HeadSensors['hotend']): Sensing[] {
  if (known === null) return [{ hotend: null, goes: () => true }]
  return [
    { hotend: known, goes: (role, o) => role !== 'sensor' || o.swap === null },
    { hotend: null, goes: (role, o) => role !== 'sensor' || o.swap !== null },
  ]
}
/** A chamber heater brings a sensor of its own, which nobody has checked. */
export const sensorsWith = (s: Stack, hotend: HeadSensors['hotend'], air: AirParts): HeadSensors => ({
  hotend,
  bed: s.sensors.bed,
  chamber: air.heater === s.air.heater ? s.sensors.chamber : null,
})

function costOf(price: number, minutes: number, rules: Rules): number {
  return price + (minutes / 60) * rules.labourPerHour
}
const byCost = (a: Option<unknown>, b: Option<unknown>) =>
  a.cost - b.cost ||
  (a.swap?.minutes ?? 0) - (b.swap?.minutes ?? 0) ||
  Number(a.swap !== null) - Number(b.swap !== null)

/** What a swap takes. */
type Work = Pick<Swap, 'fromShelf' | 'price' | 'priced' | 'minutes' | 'who' | 'after'>
/** Work on what is there: no part is bought. */
const work = (minutes: number, after: string): Work => ({
  fromShelf: false,
  price: 0,
  priced: true,
  minutes,
  who: 'technician',
  after,
})

/** Parts that could take this role: on the shelf, then from the catalogue. */
function candidates(role: Role, headId: number | null, offers: Offers): (Work & { part: Part })[] {
  const out = []
  for (const k of kindsOf(role)) {
    const own = offers.prices[k.key]
    const minutes = own?.minutes ?? k.minutes
    for (const p of offers.shelf)
      if (p.kind === k.key)
        out.push({
          part: { ...p, headId },
          fromShelf: true,
          price: 0,
          priced: true,
          minutes,
          who: k.who,
          after: k.after ?? '',
        })
    if (k.price !== null)
      out.push({
        part: partOf(k.key, k.key, headId),
        fromShelf: false,
        price: own?.price ?? k.price,
        priced: own !== undefined,
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
  const add = (text: string, result: Part[], c: Work, added: Part[]) =>
    out.push({
      swap: { text, role, remove: parts.filter(p => !result.includes(p)).map(p => p.id), add: added, ...only(c) },
      result,
      cost: costOf(c.price, c.minutes, rules),
    })
  // what the maker says a machine may do is not raised by the shop
  if (role === 'firmware' && parts.some(isMakers)) return out
  if (role === 'sock' && parts.length > 0)
    add(
      'Take the sock off, cold',
      [],
      work(5, 'The bare block burns at a touch and the part fan cools it: retune the loop, keep the fan low.'),
      [],
    )
  for (const c of candidates(role, ON_HEAD.includes(role) ? headId : null, offers)) {
    if (role === 'dryer') {
      add(`Use a ${named(c)}${c.fromShelf ? ' from the shelf' : ''}`, [...parts, c.part], c, [c.part])
      continue
    }
    if (parts.some(p => p.kind === c.part.kind && p.limitC === c.part.limitC && p.place === c.part.place)) continue
    add(`${swapText(role, parts, named(c))}${c.fromShelf ? ' (on the shelf)' : ''}`, [c.part], c, [c.part])
  }
  return out.sort(byCost)
}

/** Of the shelf by its own name, of the catalogue by its kind. */
const named = (c: { part: Part; fromShelf: boolean }) => (c.fromShelf ? c.part.name : c.part.kind)
const only = ({ fromShelf, price, priced, minutes, who, after }: Work): Work => ({
  fromShelf,
  price,
  priced,
  minutes,
  who,
  after,
})

function swapText(role: Role, parts: readonly Part[], what: string): string {
  if (role === 'firmware') return `Raise the ${what.replace('ceiling ', 'ceiling to ')} °C`
  if (parts.some(p => p.role === 'liner')) return `Fit an ${what} and take the liner out`
  return parts.length > 0 ? `Replace ${parts.map(p => p.name).join(' and ')} by ${what}` : `Fit ${what}`
}

function nozzleOptions(stack: Stack, offers: Offers, rules: Rules): Option<FittedNozzle | null>[] {
  const out: Option<FittedNozzle | null>[] = [{ swap: null, result: stack.nozzle, cost: 0 }]
  const seen = new Set<string>()
  const add = (n: FittedNozzle, price: number, priced: boolean, minutes: number, fromShelf: boolean) => {
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
      priced,
      minutes,
      who: 'technician',
      after: 'Swap it hot; re-set Z before the next job.',
    }
    out.push({ swap, result: { ...n, headId: stack.headId }, cost: costOf(price, minutes, rules) })
  }
  for (const n of offers.nozzles)
    add(n, 0, true, offers.prices[`nozzle ${n.material}`]?.minutes ?? NOZZLE_MINUTES, true)
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
        own !== undefined,
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
        ...work(
          10,
          t.details.freedNeedsLidOff
            ? 'The tube leaves through the top, so the lid stays off: it costs chamber heat and layer adhesion.'
            : 'Check that it clears the frame at both ends of travel.',
        ),
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
        text: `Fit ${named(c)}${bend}${c.fromShelf ? ' (on the shelf)' : ''}`,
        role: 'feed tube',
        remove: t ? [t.id] : [],
        add: [c.part],
        ...only(c),
      },
      result: c.part,
      cost: costOf(c.price, c.minutes, rules),
    })
  }
  return out.sort(byCost)
}

/** How much cooler than a lined one an enclosure must be, share of the way to the bed, for a lining to be proposed. */
const LINING_HELPS = 0.05
const UNMEASURED: readonly AirSource[] = []

/** What can be done about the air: lid, riser, vent, lining, a chamber heater, an enclosure around an open frame. */
function airOptions(printer: Printer, stack: Stack, offers: Offers, rules: Rules): Option<AirParts>[] {
  const { enclosure, lid, heater, map } = stack.air
  const out: Option<AirParts>[] = [{ swap: null, result: stack.air, cost: 0 }]
  const add = (
    text: string,
    role: Role,
    remove: readonly (Part | null)[],
    added: Part[],
    w: Work,
    parts: [enclosure: Part, lid: Part | null, heater: Part | null],
    measured: readonly AirSource[] = printer.air,
  ) => {
    const shelf = w.fromShelf ? ' (on the shelf)' : ''
    out.push({
      swap: { text: text + shelf, role, remove: remove.flatMap(p => (p ? [p.id] : [])), add: added, ...only(w) },
      result: airParts(...parts, measured),
      cost: costOf(w.price, w.minutes, rules),
    })
  }
  const kinds = (role: Role, of: (kind: string) => boolean) =>
    candidates(role, null, offers).filter(c => of(c.part.kind))
  const heaters = kinds('chamber heater', () => true)
  if (!enclosure || !map) {
    for (const c of kinds('enclosure', k => k !== 'lined enclosure')) {
      const on = partOf('lid')
      add(`Build an ${named(c)} around it`, 'enclosure', [lid], [c.part, on], c, [c.part, on, heater], UNMEASURED)
      for (const h of heater ? [] : heaters)
        add(
          `Build an ${named(c)} around it, with a ${named(h)}`,
          'enclosure',
          [lid],
          [c.part, on, h.part],
          {
            ...h,
            fromShelf: c.fromShelf && h.fromShelf,
            price: c.price + h.price,
            priced: c.priced && h.priced,
            minutes: c.minutes + h.minutes,
            after: `${c.after} ${h.after}`.trim(),
          },
          [c.part, on, h.part],
          UNMEASURED,
        )
    }
    return out.sort(byCost)
  }
  if (lid)
    add('Take the lid off', 'lid', [lid], [], work(2, 'Costs chamber heat and layer adhesion.'), [
      enclosure,
      null,
      heater,
    ])
  else {
    const on = offers.shelf.find(p => p.role === 'lid') ?? partOf('lid')
    add('Put the lid on', 'lid', [], [on], work(2, ''), [enclosure, on, heater])
  }
  if (lid?.details.opening === undefined)
    for (const c of kinds('lid', k => k !== 'lid'))
      add(
        c.part.details.opening === 'raised' ? 'Raise the lid on a riser' : 'Fit a regulated vent in the lid',
        'lid',
        [lid],
        [c.part],
        c,
        [enclosure, c.part, heater],
      )
  if (!heater && lid)
    for (const h of heaters) add(`Fit a ${named(h)}`, 'chamber heater', [], [h.part], h, [enclosure, lid, h.part])
  if (!heater && lid && map.bed.high.value < PRACTICE_AIR.shut.high - LINING_HELPS)
    for (const c of kinds('enclosure', k => k === 'lined enclosure'))
      add(`Line the ${enclosure.name}`, 'enclosure', [enclosure], [c.part], c, [c.part, lid, heater], UNMEASURED)
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
  const groups = stack.groups.map(g => ({
    role: g.role,
    hot: zoneOf(g.role) === 'hotend',
    options: groupOptions(g.role, g.parts, headId, offers, rules),
  }))
  return {
    printer,
    sensing: sensingOf(stack.sensors.hotend).filter(s => groups.every(g => g.options.some(o => s.goes(g.role, o)))),
    stack,
    rules,
    nozzles,
    nozzlesAtBest,
    tubes: tubeOptions(stack, offers, rules),
    air: airOptions(printer, stack, offers, rules),
    groups,
  }
}

/** An enclosure in which no part is described, also one that is still to be built. */
const unknownInside = (c: Compiled, air: AirParts) => nothingInside({ ...c.stack, air })
const short = (lines: readonly Line[]) => lines.some(l => l.status === 'short')
const open = (lines: readonly Line[]) => lines.some(l => l.status === 'unknown')
/** A change to the air is made because it is expected to do: what is more likely short than not does not count. */
const below = (l: Line) => l.status === 'just' && l.asked !== null && l.allowed !== null && l.allowed < l.asked
/** Whether a line stands in the way of a plan. */
export const failing = (l: Line, airChanged: boolean) => l.status === 'short' || (airChanged && below(l))
function fails(lines: readonly Line[], airChanged: boolean): boolean {
  for (const l of lines) if (failing(l, airChanged)) return true
  return false
}
const looksIn = (lines: readonly Line[]) => lines.filter(l => l.status === 'look' || l.status === 'just').length

export interface Found {
  swaps: Swap[]
  cost: number
  price: number
  /** False when a price of it was entered by nobody. */
  priced: boolean
  minutes: number
  /** Lines that are fine only with a look. */
  looks: number
  unknown: boolean
  setup: Setup
  groups: { role: Role; parts: Part[] }[]
}

/** One half of a plan, with what it is weighed by. */
interface Half {
  swaps: Swap[]
  cost: number
  looks: number
  minutes: number
  unknown: boolean
  parts: Map<number, Part[]>
}
const FROM_NOTHING = (): Half => ({ swaps: [], cost: 0, looks: 0, minutes: 0, unknown: false, parts: new Map() })
function take(h: Half, o: Option<unknown>, lines: readonly Line[]): void {
  h.cost += o.cost
  h.looks += looksIn(lines)
  h.unknown ||= open(lines)
  if (!o.swap) return
  h.swaps.push(o.swap)
  h.minutes += o.swap.minutes
}
/** Cost, then what is left to look at, then time, then swaps; below 0 when a is the better. */
const weigh = (a: Half, b: Half) =>
  (Math.abs(a.cost - b.cost) > 1e-9 ? a.cost - b.cost : 0) ||
  a.looks - b.looks ||
  a.minutes - b.minutes ||
  a.swaps.length - b.swaps.length

/** The cheapest option of each group that holds; false when one has none. */
function takeGroups(
  h: Half,
  c: Compiled,
  hot: boolean,
  airChanged: boolean,
  goes: Sensing['goes'],
  linesOf: (role: Role, parts: readonly Part[]) => Line[],
): boolean {
  for (const [i, g] of c.groups.entries()) {
    if (g.hot !== hot) continue
    let best: { option: Option<Part[]>; lines: Line[]; looks: number } | null = null
    for (const option of g.options) {
      if (!goes(g.role, option)) continue
      if (best && option.cost > best.option.cost + 1e-9) break
      const lines = linesOf(g.role, option.result)
      if (fails(lines, airChanged)) continue
      const looks = looksIn(lines)
      if (best === null || looks < best.looks) best = { option, lines, looks }
    }
    if (!best) return false
    take(h, best.option, best.lines)
    h.parts.set(i, best.option.result)
  }
  return true
}

/**
 * Cheapest set of swaps after which no requirement of any of the demands is short; null when there is none. Facts that
 * are missing do not stand in its way, but `unknown` tells that some remain.
 */
export function findChanges(c: Compiled, demands: readonly Demand[]): Found | null {
  demands.forEach(checkAsked)
  // the hotend asks for nothing of the air, the air for nothing of the hotend: each half by itself
  let hot: { half: Half; nozzle: FittedNozzle | null; sensing: Sensing } | null = null
  for (const n of c.nozzles)
    for (const sensing of c.sensing) {
      if (hot && n.cost > hot.half.cost + 1e-9) continue
      const sensors = sensorsWith(c.stack, sensing.hotend, c.stack.air)
      const ops = demands.map(d => operatingPoint(n.result, c.stack.air, d, c.rules, sensors))
      const half = FROM_NOTHING()
      const lines = demands.flatMap((d, i) => checkNozzle(n.result, ops[i]!, d, c.rules))
      if (short(lines)) continue
      take(half, n, lines)
      const holds = takeGroups(half, c, true, false, sensing.goes, (role, parts) =>
        demands.flatMap((d, i) => checkGroup(role, parts, ops[i]!, d, c.rules)),
      )
      if (holds && (hot === null || weigh(half, hot.half) < 0)) hot = { half, nozzle: n.result, sensing }
    }
  if (!hot) return null
  let around: { half: Half; tube: Part | null; air: AirParts } | null = null
  for (const a of c.air) {
    const sensors = sensorsWith(c.stack, hot.sensing.hotend, a.result)
    const ops = demands.map(d => operatingPoint(null, a.result, d, c.rules, sensors))
    const lines = ops.flatMap(op => [...op.lines, ...checkWalls(a.result.enclosure, op, c.rules)])
    const changed = a.swap !== null
    if (fails(lines, changed)) continue
    const groups = FROM_NOTHING()
    take(groups, a, lines)
    if (around && groups.cost > around.half.cost + 1e-9) continue
    const holds = takeGroups(groups, c, false, changed, hot.sensing.goes, (role, parts) =>
      demands.flatMap((d, i) => checkGroup(role, parts, ops[i]!, d, c.rules)),
    )
    if (!holds) continue
    for (const t of c.tubes) {
      if (!goTogether(t, a, c.stack)) continue
      const tube = demands.flatMap((d, i) => checkTube(t.result, ops[i]!, d, c.rules))
      if (fails(tube, changed)) continue
      const half = { ...groups, swaps: [...groups.swaps] }
      take(half, t, tube)
      if (unknownInside(c, a.result)) half.unknown = true
      if (around === null || weigh(half, around.half) < 0) around = { half, tube: t.result, air: a.result }
    }
  }
  if (!around) return null
  const swaps = [...hot.half.swaps, ...around.half.swaps]
  return {
    swaps,
    cost: hot.half.cost + around.half.cost,
    price: swaps.reduce((s, w) => s + w.price, 0),
    priced: swaps.every(w => w.priced),
    minutes: hot.half.minutes + around.half.minutes,
    looks: hot.half.looks + around.half.looks,
    unknown: hot.half.unknown || around.half.unknown || demands.some(d => open(checkDemand(d))),
    setup: {
      nozzle: hot.nozzle,
      tube: around.tube,
      air: around.air,
      sensors: sensorsWith(c.stack, hot.sensing.hotend, around.air),
    },
    groups: c.groups.map((g, i) => ({ role: g.role, parts: (hot.half.parts.get(i) ?? around.half.parts.get(i))! })),
  }
}

/** The printer as it would be after the swaps, for a what-if. Swaps of other heads' parts leave this head alone. */
export function after(printer: Printer, headId: number, swaps: readonly Swap[]): Printer {
  let { parts, dryers } = printer
  let nozzle: FittedNozzle | null | undefined
  for (const s of swaps) {
    if (s.role === 'nozzle') {
      nozzle = s.add[0] as FittedNozzle
      continue
    }
    if (s.role === 'dryer') {
      dryers = [...dryers, ...(s.add as Part[])]
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
  // what was measured in one enclosure says nothing of another
  const air = swaps.some(s => s.role === 'enclosure') ? [] : printer.air
  return {
    ...printer,
    ...(printer.sensors && { sensors: sensorsAfter(printer.sensors, headId, swaps) }),
    parts,
    air,
    dryers,
    heads: printer.heads.map(h => (h.id === headId && nozzle !== undefined ? { ...h, nozzle } : h)),
  }
}

/** A new sensor, and one that comes with a chamber heater, is unchecked. */
function sensorsAfter(s: Sensors, headId: number, swaps: readonly Swap[]): Sensors {
  const swapped = (role: Role) => swaps.some(w => w.role === role)
  return {
    heads: swapped('sensor') ? { ...s.heads, [headId]: null } : s.heads,
    bed: swapped('bed sensor') ? null : s.bed,
    chamber: swapped('chamber heater') ? null : s.chamber,
  }
}

export interface Verdict {
  class: VerdictClass
  lines: Line[]
  demand: Demand
  headId: number
  /** What is set, °C: nozzle, bed and chamber heater. */
  nozzleC: number | null
  bedC: number | null
  heaterC: number | null
  bedForChamber: boolean
}

/**
 * The class of one demand on one head. Missing facts are never a pass; a known no is a no, whatever else is missing;
 * what no swap cures is "cannot". Stops at the first shortfall, because the matrix asks for thousands of these.
 */
export function classify(c: Compiled, demand: Demand): VerdictClass {
  checkAsked(demand)
  const { op, lines } = checkSetup(c.stack, demand, c.rules)
  if (short(lines)) return feasible(c, demand) ? 'changes' : 'cannot'
  let missing = open(lines) || open(checkDemand(demand)) || nothingInside(c.stack)
  let just = lines.some(l => l.status === 'just')
  for (const g of c.stack.groups) {
    const gl = checkGroup(g.role, g.parts, op, demand, c.rules)
    if (short(gl)) return feasible(c, demand) ? 'changes' : 'cannot'
    missing ||= open(gl)
    just ||= gl.some(l => l.status === 'just')
  }
  if (missing) return 'cannot tell'
  return just ? 'just' : 'runs'
}

/** Whether some swaps cure every shortfall: the two halves of `findChanges`, without their cost. */
function feasible(c: Compiled, demand: Demand): boolean {
  const hot = c.sensing.some(sensing => {
    const known = new Map<number | undefined, boolean>()
    const sensors = sensorsWith(c.stack, sensing.hotend, c.stack.air)
    return (demand.filler !== null && isAbrasive(demand.filler) ? c.nozzlesAtBest : c.nozzles).some(n => {
      const op = operatingPoint(n.result, c.stack.air, demand, c.rules, sensors)
      if (short(checkNozzle(n.result, op, demand, c.rules))) return false
      const asked = op.nozzle?.setC
      let holds = known.get(asked)
      if (holds === undefined) known.set(asked, (holds = allHold(c, true, false, sensing.goes, op, demand)))
      return holds
    })
  })
  return (
    hot &&
    c.air.some(a => {
      const op = operatingPoint(null, a.result, demand, c.rules, sensorsWith(c.stack, null, a.result))
      const changed = a.swap !== null
      if (fails(op.lines, changed) || fails(checkWalls(a.result.enclosure, op, c.rules), changed)) return false
      const tube = c.tubes.some(
        t => goTogether(t, a, c.stack) && !fails(checkTube(t.result, op, demand, c.rules), changed),
      )
      return tube && allHold(c, false, changed, () => true, op, demand)
    })
  )
}

/** Whether every group of a half has an option that holds at this operating point. */
function allHold(
  c: Compiled,
  hot: boolean,
  airChanged: boolean,
  goes: Sensing['goes'],
  op: OperatingPoint,
  demand: Demand,
): boolean {
  for (const g of c.groups) {
    if (g.hot !== hot) continue
    let holds = false
    for (const o of g.options) {
      holds = goes(g.role, o) && !fails(checkGroup(g.role, o.result, op, demand, c.rules), airChanged)
      if (holds) break
    }
    if (!holds) return false
  }
  return true
}

/** The demand on this head with all its lines. */
export function judge(c: Compiled, demand: Demand): Verdict {
  const { op, lines } = checkStack(c.stack, demand, c.rules)
  return {
    class: classify(c, demand),
    lines,
    demand,
    headId: c.stack.headId,
    nozzleC: op.nozzle?.setC ?? null,
    bedC: op.bed?.setC ?? null,
    heaterC: op.heater?.setC ?? null,
    bedForChamber: op.bedForChamber,
  }
}

/** Whether one class is better than another: runs, just, after changes, cannot tell, cannot. */
export const better = (a: VerdictClass, b: VerdictClass) => VERDICT_CLASSES.indexOf(a) < VERDICT_CLASSES.indexOf(b)

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
