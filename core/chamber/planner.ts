/**
 * What becomes of an enclosure as it is planned: its air, what leaves where, how warm it is to touch, what it stands
 * with its heater stuck on, and which wall or gap matters most; each over the ways in which it may be (`fits.ts`). °C,
 * W, s.
 */
import { AIR_PLACES, type AirPlace } from '../limits'
import { InputError, need, needIfKnown } from '../numeric'
import {
  AS_DRAWN,
  checkPlan,
  heaterFor,
  PLAN_RANGES,
  resting,
  stiffness,
  stuckOn,
  ventFor,
  warmsIn,
  type EnclosurePlan,
  type Fit,
  type Steady,
} from './balance'
import { fitsOf, midOf, spanOf, type Fits, type FitWay, type Span, type WarmedUp } from './fits'
import { CONTACTS_S, burnsFromC, safeContactS, type Touched } from './touch'
import { WALL_MATERIALS, withMore, type Layer } from './walls'

export interface PlannedPart {
  name: string
  place: AirPlace
  /** Its limit less the guard band, °C. */
  allowedC: number
}
export interface Planning {
  /** The enclosure as it is, and as it would be. */
  now: EnclosurePlan
  then: EnclosurePlan
  /** Shares of the way from room to bed, and °C over a heater's setpoint, at each place. */
  map: Record<'bed' | 'heater', Record<AirPlace, number>>
  parts: readonly PlannedPart[]
  record: WarmedUp | null
  insideKg: number
}

/** The air at a place by the mean of near bed and top: in shares where the bed warms it, in degrees by a heater. */
export function placeC(
  map: Planning['map'],
  by: 'bed' | 'heater',
  place: AirPlace,
  meanC: number,
  roomC: number,
): number {
  need('meanC', meanC, -100, 1000, '°C')
  need('roomC', roomC, ...PLAN_RANGES.roomC, '°C')
  const at = map[by]
  const middle = (at.low + at.high) / 2
  if (by === 'heater') return meanC + at[place] - middle
  if (middle <= 0) return meanC
  return roomC + (at[place] / middle) * (meanC - roomC)
}
/** The mean air at which a place comes to `c`: `placeC` the other way round. */
export function meanAt(map: Planning['map'], by: 'bed' | 'heater', place: AirPlace, c: number, roomC: number): number {
  need('c', c, -100, 1000, '°C')
  need('roomC', roomC, ...PLAN_RANGES.roomC, '°C')
  const at = map[by]
  const middle = (at.low + at.high) / 2
  if (by === 'heater') return c - at[place] + middle
  if (middle <= 0) return c
  return roomC + (middle / Math.max(at[place], 1e-3)) * (c - roomC)
}

export interface TouchLine {
  name: string
  touched: Touched
  outsideC: Span
  /** The longest touch that does not burn at the hottest it may be, s; 0 where a brush of it may. */
  safeS: number
  /** From where a touch of 10 s burns, °C. */
  burnsFromC: number
}
export interface PlannedAir {
  by: 'bed' | 'heater'
  meanC: Span
  places: Record<AirPlace, Span>
  /** The state of each way, for the drawing. */
  ways: Record<FitWay, Steady | null>
  tauS: Span
  touch: TouchLine[]
  /** Parts, the tightest first: how much the air at its place leaves, °C. */
  parts: (PlannedPart & { airC: Span; spareC: Span })[]
}
export interface Stuck {
  heater: 'chamber heater' | 'bed'
  meanC: Span
  /** The cut-out opens first, at every way in which it may be; null without one. */
  cutOut: 'opens first' | 'may open' | 'never opens' | null
  /** What the air comes to before something stops it, and parts that do not stand that. */
  stopsC: number
  over: (PlannedPart & { airC: number })[]
}
export interface Matter {
  name: string
  kind: 'wall' | 'gaps' | 'vent'
  /** What leaves there, W, and its share of all. */
  w: Span
  share: number
  /** By how much the air would rise with 20 mm of mineral wool more there, or with it shut, °C. */
  gainC: Span
}
export interface Outcome {
  fits: Fits
  now: PlannedAir
  then: PlannedAir
  /** What to draw out so that the tightest part is safe however the heat is lost; null where there is none to keep. */
  keepSafe: { part: PlannedPart; meanC: number; fanLMin: Span; gapMm2: Span } | 'no air would do' | null
  stuck: Stuck
  matters: Matter[]
  /** Walls with something in them that feeds a fire. */
  fireLoad: { wall: string; materials: string[] }[]
}

/** Touches that a technician makes: holding on for a moment. */
export const HOLD_S = CONTACTS_S[1]

/** A plan's rest in each way in which it may be, worked out once. */
function restsOf(p: EnclosurePlan): (f: Fit) => Steady {
  const known = new Map<Fit, Steady>()
  return f => {
    let state = known.get(f)
    if (!state) known.set(f, (state = resting(p, f)))
    return state
  }
}

type Rests = ReturnType<typeof restsOf>

function airOf(p: EnclosurePlan, q: Planning, fits: Fits, rests: Rests, restsNow: Rests): PlannedAir {
  const mid = midOf(fits)
  const states = fits.all.map(rests)
  const middle = rests(mid)
  const by = middle.heaterW > 0 ? 'heater' : 'bed'
  const meanC = spanOf(
    states.map(s => s.airC),
    middle.airC,
  )
  const at = (place: AirPlace): Span => ({
    low: placeC(q.map, by, place, meanC.low, p.roomC),
    mid: placeC(q.map, by, place, meanC.mid, p.roomC),
    high: placeC(q.map, by, place, meanC.high, p.roomC),
  })
  const places = { low: at('low'), high: at('high'), bay: at('bay') }
  // a record knows how fast it is; what is built next changes what leaves
  const tau = (f: Fit) =>
    q.record === null
      ? warmsIn(p, q.insideKg, rests(f).airC, f)
      : (q.record.tauS * stiffness(q.now, restsNow(f).airC, f)) / stiffness(p, rests(f).airC, f)
  const way = (f: Fit | null) => (f === null ? null : rests(f))
  return {
    by,
    meanC,
    places,
    ways: { walls: way(fits.ways.walls), gaps: way(fits.ways.gaps) },
    tauS: spanOf(fits.all.map(tau), tau(mid)),
    touch: p.walls.map((w, i) => {
      const outsideC = spanOf(
        states.map(s => s.losses.walls[i]!.outsideC),
        middle.losses.walls[i]!.outsideC,
      )
      const { touched } = WALL_MATERIALS[w.layers[w.layers.length - 1]!.material]
      const burns = burnsFromC(touched, HOLD_S)
      return { name: w.name, touched, outsideC, safeS: safeContactS(touched, outsideC.high), burnsFromC: burns }
    }),
    parts: q.parts
      .map(part => {
        const airC = places[part.place]
        const spareC = { low: part.allowedC - airC.high, mid: part.allowedC - airC.mid, high: part.allowedC - airC.low }
        return { ...part, airC, spareC }
      })
      .sort((a, b) => a.spareC.low - b.spareC.low),
  }
}

function stuckOf(q: Planning, fits: Fits): Stuck {
  const p = q.then
  const all = fits.all.map(f => stuckOn(p, f))
  const middle = stuckOn(p, midOf(fits))
  const meanC = spanOf(
    all.map(s => s.airC),
    middle.airC,
  )
  const by = middle.heater === 'bed' ? 'bed' : 'heater'
  let cutOut: Stuck['cutOut'] = null
  if (p.cutOutC !== null) {
    cutOut = 'never opens'
    if (meanC.low > p.cutOutC) cutOut = 'opens first'
    else if (meanC.high > p.cutOutC) cutOut = 'may open'
  }
  // a cut-out that surely opens is what it comes to; one that may not is no help
  const stopsC = cutOut === 'opens first' ? p.cutOutC! : Math.min(meanC.high, p.cutOutC ?? Infinity)
  const over = q.parts
    .map(part => ({ ...part, airC: placeC(q.map, by, part.place, stopsC, p.roomC) }))
    .filter(part => part.airC > part.allowedC)
    .sort((a, b) => b.airC - b.allowedC - (a.airC - a.allowedC))
  return { heater: middle.heater, meanC, cutOut, stopsC, over }
}

const MORE_WOOL: Layer = { material: 'mineral wool', mm: 20 }
function mattersOf(q: Planning, fits: Fits, restsThen: Rests): Matter[] {
  const p = { ...q.then, heaterSetC: null }
  const mids = [fits.ways.walls, fits.ways.gaps].filter(f => f !== null)
  const some = mids.length > 0 ? mids : [AS_DRAWN]
  const rests = q.then.heaterSetC === null ? restsThen : restsOf(p)
  const states = some.map(rests)
  const gain = (other: EnclosurePlan, fit: (f: Fit) => Fit = f => f) => {
    const by = some.map((f, i) => resting(other, fit(f)).airC - states[i]!.airC)
    return spanOf(by, by[0]!)
  }
  const line = (name: string, kind: Matter['kind'], w: (s: Steady) => number, gainC: Span): Matter => {
    const all = states.map(w)
    return { name, kind, w: spanOf(all, all[0]!), share: all[0]! / states[0]!.losses.totalW, gainC }
  }
  const walls = p.walls.map((wall, i) => {
    const more = { ...p, walls: p.walls.map((x, k) => (k === i ? { ...x, layers: withMore(x.layers, MORE_WOOL) } : x)) }
    return line(wall.name, 'wall', s => s.losses.walls[i]!.w, gain(more))
  })
  const shut = gain({ ...p, gapMm2: 0 }, f => ({ ...f, moreGapMm2: 0 }))
  const out = [...walls, line('gaps', 'gaps', s => s.losses.gapsW, shut)]
  if (p.ventLMin > 0) out.push(line('vent', 'vent', s => s.losses.ventW, gain({ ...p, ventLMin: 0 })))
  return out.sort((a, b) => b.gainC.high - a.gainC.high)
}

function safeVent(q: Planning, fits: Fits, then: PlannedAir): Outcome['keepSafe'] {
  const p = q.then
  if (q.parts.length === 0 || then.by === 'heater') return null
  const part = q.parts
    .map(x => ({ x, meanC: meanAt(q.map, 'bed', x.place, x.allowedC, p.roomC) }))
    .reduce((a, b) => (b.meanC < a.meanC ? b : a))
  if (part.meanC <= p.roomC + 1) return 'no air would do'
  const all = [midOf(fits), ...fits.all].map(f => ventFor(p, part.meanC, f))
  if (all.some(v => v === null)) return 'no air would do'
  const known = all.filter(v => v !== null)
  return {
    part: part.x,
    meanC: part.meanC,
    fanLMin: spanOf(
      known.map(v => v.fanLMin),
      known[0]!.fanLMin,
    ),
    gapMm2: spanOf(
      known.map(v => v.gapMm2),
      known[0]!.gapMm2,
    ),
  }
}

/**
 * All that a plan comes to. Throws InputError at the field, as `then.walls.0.layers.1.mm`.
 */
export function planOutcome(q: Planning): Outcome {
  for (const [k, p] of [
    ['now', q.now],
    ['then', q.then],
  ] as const)
    try {
      checkPlan(p)
    } catch (e) {
      throw e instanceof InputError ? new InputError(`${k}.${e.field}`, e.given, e.allowed) : e
    }
  need('insideKg', q.insideKg, ...PLAN_RANGES.insideKg, 'kg')
  for (const by of ['bed', 'heater'] as const)
    for (const place of AIR_PLACES) need(`map.${by}.${place}`, q.map[by][place], -150, 150)
  q.parts.forEach((part, i) => needIfKnown(`parts.${i}.allowedC`, part.allowedC, -100, 1500, '°C'))
  const fits = fitsOf(q.now, q.record)
  const [restsNow, restsThen] = [restsOf(q.now), restsOf(q.then)]
  const then = airOf(q.then, q, fits, restsThen, restsNow)
  return {
    fits,
    now: airOf(q.now, q, fits, restsNow, restsNow),
    then,
    keepSafe: safeVent(q, fits, then),
    stuck: stuckOf(q, fits),
    matters: mattersOf(q, fits, restsThen),
    fireLoad: q.then.walls.flatMap(w => {
      const materials = [...new Set(w.layers.filter(l => WALL_MATERIALS[l.material].burns).map(l => l.material))]
      return materials.length > 0 ? [{ wall: w.name, materials }] : []
    }),
  }
}

/** What a chamber heater must bring for a mean of `targetC`, over the ways in which it may be, W. */
export function powerFor(p: EnclosurePlan, fits: Fits, targetC: number): Span {
  return spanOf(
    fits.all.map(f => heaterFor(p, targetC, f)),
    heaterFor(p, targetC, midOf(fits)),
  )
}
