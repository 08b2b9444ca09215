/**
 * The water in every spool: its log turned into the places it stood in, and carried through by the core. Where a spool
 * stood after its last event is kept (stands.ts); its state is worked out when it is asked for.
 */
import {
  AIR_C,
  dryerRh,
  dryTime,
  equilibriumWater,
  meanWater,
  newSpool,
  rhFor,
  spoolDryness,
  spoolTempC,
  START_WOUND,
  takesNoWater,
  throughHistory,
  wetVerdict,
  type DryTime,
  type Filament,
  type SpoolPlace,
  type SpoolWater,
  type Stay,
  type Wound,
} from '#core/drying'
import { spoolFill } from '#core/materials'
import { InputError } from '#core/numeric'
import { FOR_GOOD_H } from '#core/words'
import type { DryingLine, ShopAir, SpoolHistory, SpoolState } from '#shared/answers/spools'
import { endsSpool, type SpoolKind } from '#shared/choices'
import { uptakeOfSpool, type SpoolLog } from './log'

/** Hours of a drying that only says "dried": the usual; common practice, no source. */
const USUAL_DRYING = { atC: 70, hours: 8 }

/** Air of the dry box: as entered with the spool, else the shop's; a start value that nobody read proves nothing. */
const boxAir = (entered: number | null, air: ShopAir): Pick<Stay, 'place' | 'rh' | 'rhLow'> => ({
  place: 'dry box',
  rh: entered ?? air.dryBoxRh,
  ...(entered === null && air.dryBoxReadAt === null ? { rhLow: 0 } : {}),
})

/**
 * The log as stays one after the other, up to `until`. Before it is opened a spool is sealed; out of a dryer it stands
 * in the room until it is put elsewhere; a dryer that timed out is a warm room.
 */
export function staysOf(s: SpoolLog, air: ShopAir, until: number): Stay[] {
  type Mark = Pick<Stay, 'place' | 'airC' | 'rh' | 'rhLow'> & { at: number }
  const marks: Mark[] = []
  const room = { airC: air.roomC, rh: air.roomRh }
  for (const d of s.dryings) {
    const from = Date.parse(d.from),
      // a probe beside the spool says more than what the dryer was set to
      airC = d.actualC ?? spoolTempC(d.kind, d.setC, air.roomC)
    const off = d.timeOutH === null ? Infinity : from + d.timeOutH * 3_600_000
    const to = d.to === null ? Infinity : Date.parse(d.to)
    marks.push({ at: from, place: 'dryer', airC, rh: dryerRh(d.kind, airC, room) })
    if (Math.min(off, to) <= until) marks.push({ at: Math.min(off, to), place: 'room', ...room })
  }
  for (const e of s.events) {
    const at = Date.parse(e.at),
      airC = e.roomC ?? air.roomC
    if (e.kind === 'dried') {
      // entered afterwards: it ended then
      const atC = e.atC ?? Math.min(USUAL_DRYING.atC, s.facts.dryHighestC ?? USUAL_DRYING.atC),
        hours = e.hours ?? USUAL_DRYING.hours
      marks.push(
        { at: at - hours * 3_600_000, place: 'dryer', airC: atC, rh: dryerRh('vented', atC, room) },
        { at, place: 'room', ...room },
      )
    } else
      marks.push(
        e.kind === 'in' ? { at, airC, ...boxAir(e.rh, air) } : { at, place: 'room', airC, rh: e.rh ?? air.roomRh },
      )
  }
  // nobody prints from a sealed spool: what was printed before anything else was logged came out of an open one
  const printed = s.mass.uses.reduce((first, u) => Math.min(first, u.at), Infinity)
  if (printed < marks.reduce((first, m) => Math.min(first, m.at), Infinity))
    marks.push({ at: printed, place: 'room', ...room })
  marks.sort((a, b) => a.at - b.at) // at one instant: out of the dryer first, then where it was put
  return marks.flatMap((m, i) => {
    const to = Math.min(until, marks[i + 1]?.at ?? until)
    if (!(m.at < until && to > m.at)) return []
    const { at, ...air } = m
    return [{ ...air, from: at, to, fill: spoolFill(s.mass, at) }]
  })
}

/** State before anything is known: between dry and as wet as the shop's air, from when the log begins. */
export function startOf(s: SpoolLog, f: Filament, air: ShopAir, stays: readonly Stay[], until: number): SpoolWater {
  const at = stays[0]?.from ?? until
  return newSpool(f, air.roomRh, at, spoolFill(s.mass, at))
}

/**
 * An entry of the log that no computation takes (it was let in before the doors knew the ranges), in words; null when
 * all is fine.
 */
export function problemOf(s: SpoolLog, air: ShopAir, until: number): string | null {
  const hot = (c: number | null) => c !== null && !(c >= AIR_C[0] && c <= AIR_C[1])
  const d = s.dryings.find(x => hot(x.actualC ?? x.setC))
  if (d) return `The drying of ${d.from} is logged at ${d.actualC ?? d.setC} °C, which cannot be; strike it out`
  const e = s.events.find(x => hot(x.atC) || hot(x.roomC))
  if (e) return `"${e.kind}" of ${e.at} is logged at ${e.atC ?? e.roomC} °C, which cannot be; strike it out`
  try {
    const f = uptakeOfSpool(s)
    const stays = staysOf(s, air, until)
    if (f) throughHistory(startOf(s, f, air, stays, until), f, stays, START_WOUND)
    return null
  } catch (error) {
    if (error instanceof InputError) return `Its log or its material cannot be worked with: ${error.message}`
    throw error
  }
}

/**
 * A spool after its last event: all that its state at a later moment is worked out from. What is kept of it in the
 * database is this, in JSON.
 */
export interface SpoolStand {
  place: SpoolPlace
  since: number | null
  problem: string | null
  /** The last event that is no weighing. */
  event: SpoolKind | null
  headId: number | null
  drying: DryingLine | null
  polymer: string
  /** Its filament, the water in it when the stay began that it is in now, and that stay; null where nothing tells. */
  water: { filament: Filament; start: SpoolWater; stay: Stay | null } | null
  /** When it was worked out, and until when it holds without a new entry: a dryer may switch itself off. */
  from: number
  until: number | null
}

/** The stand at a moment; it holds for every later one before `until` and before the next entry. */
export function standOf(s: SpoolLog, air: ShopAir, wound: Wound, now: number): SpoolStand {
  const problem = problemOf(s, air, now)
  const f = problem === null ? uptakeOfSpool(s) : null
  const stays = problem === null ? staysOf(s, air, now) : []
  const last = stays[stays.length - 1]
  const lastEvent = s.events[s.events.length - 1]
  const place: SpoolPlace = last?.place ?? 'sealed'
  let since = last?.from ?? null
  for (let i = stays.length - 1; i > 0 && stays[i - 1]!.place === place; i--) since = stays[i - 1]!.from
  return {
    place,
    since,
    problem,
    event: lastEvent?.kind ?? null,
    headId: lastEvent?.headId ?? null,
    drying: s.dryings.find(d => d.to === null) ?? null,
    polymer: s.polymer,
    water: f && {
      filament: f,
      start: throughHistory(startOf(s, f, air, stays, now), f, stays.slice(0, -1), wound),
      stay: last ?? null,
    },
    from: now,
    until: nextMark(s, now),
  }
}

/** The next moment of its log: a dryer that switches itself off, or what a clock that is ahead has entered. */
function nextMark(s: SpoolLog, now: number): number | null {
  const ofDryings = s.dryings.flatMap(d => [
    Date.parse(d.from),
    ...(d.to === null ? [] : [Date.parse(d.to)]),
    ...(d.timeOutH === null ? [] : [Date.parse(d.from) + d.timeOutH * 3_600_000]),
  ])
  const later = [...ofDryings, ...s.events.map(e => Date.parse(e.at))].filter(at => at >= now)
  return later.length === 0 ? null : Math.min(...later)
}

/** The state of a spool at a moment, from its stand. */
export function stateFrom(
  spool: Pick<SpoolLog, 'id' | 'tag' | 'materialId' | 'material' | 'hub'> & { printer: string | null },
  stand: SpoolStand,
  air: ShopAir,
  wound: Wound,
  now: number,
): SpoolState {
  const { place, since, problem, event, drying, polymer, water } = stand
  const { id, tag, materialId, material, hub, printer } = spool
  return {
    id,
    tag,
    materialId,
    material,
    hub,
    place,
    ended: event !== null && endsSpool(event) ? event : null,
    since: since === null ? null : new Date(since).toISOString(),
    problem,
    printer: place === 'room' && event === 'loaded' ? printer : null,
    water: water && waterOf(polymer, place, waterAt(water, wound, now), water.filament, air, wound),
    takesNoWater: takesNoWater(polymer),
    drying,
  }
}

/** The water at a moment: on from where the stay began that the spool is in. */
function waterAt({ filament, start, stay }: NonNullable<SpoolStand['water']>, wound: Wound, now: number): SpoolWater {
  if (stay === null) return { ...start, at: now }
  return throughHistory(start, filament, [{ ...stay, to: now }], wound)
}

export function stateOf(s: SpoolLog, air: ShopAir, wound: Wound, now: number): SpoolState {
  const printer = s.events[s.events.length - 1]?.printer ?? null
  return stateFrom({ ...s, printer }, standOf(s, air, wound, now), air, wound, now)
}

function waterOf(
  polymer: string,
  place: SpoolPlace,
  w: SpoolWater,
  f: Filament,
  air: ShopAir,
  wound: Wound,
): NonNullable<SpoolState['water']> {
  const at = (rh: number, limit: number) => finite(dryTime(w, f, { airC: air.roomC, rh }, wound, limit))
  const [high, low, soaked] = [meanWater(w.wound), meanWater(w.low), equilibriumWater(f, air.roomRh)]
  return {
    strand: meanWater(w.strand),
    wound: high,
    low,
    clean: f.clean,
    usual: f.usual,
    soaked,
    dried: w.dried,
    dryness: spoolDryness({ lowWt: low, highWt: high, soakedWt: soaked }, f, place, w.dried),
    verdict: wetVerdict(polymer),
    inRoom: at(air.roomRh, f.usual),
    inBox: at(air.dryBoxRh, f.usual),
    cleanInRoom: at(air.roomRh, f.clean),
    cleanInBox: at(air.dryBoxRh, f.clean),
    boxUsualRh: Math.min(100, rhFor(f, f.usual)),
    boxCleanRh: Math.min(100, rhFor(f, f.clean)),
  }
}

const finite = (t: DryTime): DryTime => ({
  strandH: Math.min(FOR_GOOD_H, t.strandH),
  woundH: Math.min(FOR_GOOD_H, t.woundH),
})

export function spoolHistoryOf(s: SpoolLog, air: ShopAir, now: number): SpoolHistory {
  const fillAt = (at: number) => spoolFill(s.mass, at)
  if (problemOf(s, air, now) !== null)
    return { filament: null, stays: [], start: now, soakedRh: air.roomRh, fill: fillAt(now) }
  const stays = staysOf(s, air, now)
  const start = stays[0]?.from ?? now
  return { filament: uptakeOfSpool(s), stays, start, soakedRh: air.roomRh, fill: fillAt(start) }
}
