/**
 * The water in every spool: its log turned into the places it stood in, and carried through by the core. Nothing of it
 * is stored; a spool's state is worked out when it is asked for, and is the same in every process.
 */
import { FOR_GOOD_H } from '#core/words'
import type { DryingLine, ShopAir, SpoolHistory, SpoolState } from '#shared/answers/spools'
import { sql } from 'drizzle-orm'
import {
  AIR_C,
  dryerRh,
  dryTime,
  equilibriumWater,
  filamentOf,
  fitFactor,
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
  type FittedFactor,
  type SpoolPlace,
  type SpoolWater,
  type Stay,
  type Wound,
} from '#core/drying'
import type { ValueKey } from '#core/limits'
import { spoolFill, type SpoolMassFacts } from '#core/materials'
import { InputError } from '#core/numeric'
import { endsSpool, type SpoolKind } from '#shared/entries/spools'
import { filamentOfSpool, USUAL_TARE_G, type MaterialFacts, type SpoolFacts } from '#shared/filament'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { MASS_OF_SPOOL } from './mass'

export interface SpoolLog extends Record<string, unknown> {
  id: number
  tag: string
  materialId: number
  material: string
  polymer: string
  filler: string
  diameterMm: number
  fillerFraction: number
  mass: SpoolMassFacts
  hub: string
  /** What is entered of the spool itself, and what its material says. */
  own: SpoolFacts
  ofMaterial: MaterialFacts
  facts: Partial<Record<ValueKey, number>>
  events: {
    id: number
    kind: Exclude<SpoolKind, 'weighed'>
    at: string
    roomC: number | null
    rh: number | null
    atC: number | null
    hours: number | null
    printer: string | null
  }[]
  dryings: DryingLine[]
}

const LOG_QUERY = (where = sql`true`) => sql`
  select s.id, s.tag, s.material_id "materialId", m.name material, m.polymer, m.filler,
  s.diameter_mm "diameterMm", json_build_object('diameterMm', s.diameter_mm, 'densityGCm3', s.density_g_cm3,
  'fillerFraction', s.filler_fraction) own,
    json_build_object('densityGCm3', m.density_g_cm3, 'fillerFraction', m.filler_fraction) "ofMaterial",
    s.hub, ${MASS_OF_SPOOL} mass,
    coalesce((select json_object_agg(v.key, v.value) from material_values v where v.material_id = m.id), '{}') facts,
    coalesce((select json_agg(json_build_object('id', e.id, 'kind', e.kind, 'at', ${iso('e.occurred_at')}, 'roomC',
    e.room_c, 'rh', e.rh, 'atC', e.at_c, 'hours', e.hours, 'printer', (select p.name from heads h
    join printers p on p.id = h.printer_id where h.id = e.head_id)) order by e.occurred_at, e.id)
      from standing_spool_events e where e.spool_id = s.id and e.kind <> 'weighed'), '[]') events,
    coalesce((select json_agg(json_build_object('id', d.id, 'dryerId', d.dryer_id, 'dryer', y.name, 'kind',
    y.kind, 'timeOutH', y.time_out_h, 'setC', d.set_c, 'actualC', d.actual_c, 'plannedH', d.planned_h,
    'targetWt', d.target_wt,
        'from', ${iso('d.occurred_at')}, 'to',
        ${iso('d.ended_at')}, 'beforeG', d.gross_g, 'afterG', d.after_g, 'note', d.note,
        'person', u.name) order by d.occurred_at, d.id)
      from standing_dryings d join dryers y on y.id = d.dryer_id join people u on u.id = d.person_id
      where d.spool_id = s.id), '[]') dryings
  from spools s join materials m on m.id = s.material_id where ${where} order by s.tag`

async function shopAir(db: Connection): Promise<ShopAir> {
  const [s] = await db.execute<ShopAir & Record<string, unknown>>(
    sql`select room_c "roomC", room_rh "roomRh", dry_box_rh "dryBoxRh", ${iso('dry_box_read_at')} "dryBoxReadAt"
      from settings`,
  )
  return s!
}

export async function spoolLogs(db: Connection, where = sql`true`): Promise<SpoolLog[]> {
  const rows = await db.execute<SpoolLog>(LOG_QUERY(where))
  return rows.map(r => ({ ...r, fillerFraction: filamentOfSpool(r.own, r.ofMaterial).fillerFraction }))
}

function uptakeOfSpool(s: SpoolLog): Filament | null {
  return filamentOf(s.polymer, s.fillerFraction, s.diameterMm, {
    waterAt50: s.facts.waterAt50,
    d80E11: s.facts.diffusion80,
    eaKJMol: s.facts.diffusionEa,
    clean: s.facts.cleanWater,
    usual: s.facts.usualWater,
  })
}

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
function staysOf(s: SpoolLog, air: ShopAir, until: number): Stay[] {
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
function startOf(s: SpoolLog, f: Filament, air: ShopAir, stays: readonly Stay[], until: number): SpoolWater {
  const at = stays[0]?.from ?? until
  return newSpool(f, air.roomRh, at, spoolFill(s.mass, at))
}

/** Least uncertainty of a weight difference, g: twice a balance of 1 g resolution, rectangular. */
const WEIGHING_U_G = 0.6

/** The latest weighed dryings are enough to know the factor, and keep the reading quick when there are hundreds. */
const WEIGHINGS = 12

/** The shop's own wound-spool factor, from the latest dryings that were weighed before and after. */
function shopFactor(logs: readonly SpoolLog[], air: ShopAir): FittedFactor {
  const weighed = logs
    .flatMap(s => {
      if (!s.dryings.some(d => d.afterG !== null) || problemOf(s, air, Date.now()) !== null) return []
      const f = uptakeOfSpool(s)
      return f === null
        ? []
        : s.dryings.flatMap(d =>
            d.beforeG === null || d.afterG === null || d.to === null
              ? []
              : [
                  {
                    s,
                    f,
                    from: Date.parse(d.from),
                    to: Date.parse(d.to),
                    beforeG: d.beforeG,
                    lostG: d.beforeG - d.afterG,
                  },
                ],
          )
    })
    .sort((a, b) => b.to - a.to)
    .slice(0, WEIGHINGS)
  return fitFactor(
    weighed.map(({ s, f, from, to, beforeG, lostG }) => {
      const before = staysOf(s, air, from)
      const stay = staysOf(s, air, to).filter(x => x.from >= from)
      const filamentG = beforeG - (s.mass.tareG ?? USUAL_TARE_G)
      const expectedG = (factor: number) => {
        const wound: Wound = { ...START_WOUND, factor }
        const state = throughHistory(startOf(s, f, air, before, from), f, before, wound)
        return (filamentG / 100) * (meanWater(state.wound) - meanWater(throughHistory(state, f, stay, wound).wound))
      }
      return { lostG, uG: WEIGHING_U_G, expectedG }
    }),
  )
}

/** What every state of a spool rests on: all logs, the shop's air, and the factor that they make. */
export async function spoolsAndAir(db: Connection): Promise<{ logs: SpoolLog[]; air: ShopAir; wound: FittedFactor }> {
  const [logs, air] = await Promise.all([spoolLogs(db), shopAir(db)])
  return { logs, air, wound: shopFactor(logs, air) }
}

/**
 * An entry of the log that no computation takes (it was let in before the doors knew the ranges), in words; null when
 * all is fine.
 */
function problemOf(s: SpoolLog, air: ShopAir, until: number): string | null {
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

export function stateOf(s: SpoolLog, air: ShopAir, wound: Wound, now: number): SpoolState {
  const problem = problemOf(s, air, now)
  const f = problem === null ? uptakeOfSpool(s) : null
  const stays = problem === null ? staysOf(s, air, now) : []
  const last = stays[stays.length - 1]
  const open = s.dryings.find(d => d.to === null) ?? null
  const lastEvent = s.events[s.events.length - 1]
  const place: SpoolPlace = last?.place ?? 'sealed'
  let since = last?.from ?? null
  for (let i = stays.length - 1; i > 0 && stays[i - 1]!.place === place; i--) since = stays[i - 1]!.from
  return {
    id: s.id,
    tag: s.tag,
    materialId: s.materialId,
    material: s.material,
    hub: s.hub,
    place,
    ended: lastEvent && endsSpool(lastEvent.kind) ? lastEvent.kind : null,
    since: since === null ? null : new Date(since).toISOString(),
    problem,
    printer: place === 'room' && lastEvent?.kind === 'loaded' ? lastEvent.printer : null,
    water:
      f && waterOf(s.polymer, place, throughHistory(startOf(s, f, air, stays, now), f, stays, wound), f, air, wound),
    takesNoWater: takesNoWater(s.polymer),
    drying: open,
  }
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
