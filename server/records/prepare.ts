/** What Prepare and the Floor show of what is under way: spools in the air, dryings, soaks, anneals. */
import { sql } from 'drizzle-orm'
import type { FittedFactor } from '#core/drying'
import type { Connection } from '../db/client'
import { listChangeovers, throughFitted, type ChangeoverLine, type Through } from './changeovers'
import { listDryers, type DryerRow } from './dryings'
import {
  historyOf,
  spoolsAndAir,
  stateOf,
  type Air,
  type DryingLine,
  type SpoolHistory,
  type SpoolState,
} from './moisture'
import { notFound } from './refusal'
import { listSoaks, listWarmUps, type SoakLine, type WarmUpLine } from './soaks'
import { listSpools, spoolRemaining } from './spools'

export interface AnnealLine {
  id: number
  name: string
  material: string
  dryer: string
  atC: number
  holdH: number
  rampCPerH: number
  thicknessMm: number
  totalH: number
  from: string
  to: string | null
  outcome: string | null
  person: string
  note: string
  struck: string | null
}

export async function listAnneals(db: Connection): Promise<AnnealLine[]> {
  return await db.execute<AnnealLine & Record<string, unknown>>(sql`
    select a.id::int, a.name, m.name material, y.name dryer, a.at_c "atC", a.hold_h "holdH",
    a.ramp_c_per_h "rampCPerH", a.thickness_mm "thicknessMm", a.total_h "totalH", a.occurred_at "from",
    e.occurred_at "to", e.outcome, u.name person, a.note,
      (select s.reason from strikes s where s.target = 'anneal' and s.target_id = a.id) struck
    from anneals a join materials m on m.id = a.material_id join dryers y on y.id = a.dryer_id
    join people u on u.id = a.person_id left join endings e on e.target = 'anneal' and e.target_id = a.id
    order by a.occurred_at desc, a.id desc limit 60`)
}

export interface CheckOfRun {
  id: number
  name: string
  printer: string
  spool: string | null
  may: boolean
  at: string
  person: string
  run: number | null
}
async function listChecks(db: Connection): Promise<CheckOfRun[]> {
  return await db.execute<CheckOfRun & Record<string, unknown>>(sql`
    select c.id::int, c.name, p.name printer, s.tag spool, c.may, c.occurred_at at, u.name person,
    (select r.id::int from standing_runs r where r.precheck_id = c.id order by r.id limit 1) run
    from prechecks c join printers p on p.id = c.printer_id left join spools s on s.id = c.spool_id
    join people u on u.id = c.person_id order by c.occurred_at desc, c.id desc limit 20`)
}

export interface Prepare {
  spools: SpoolState[]
  dryers: DryerRow[]
  air: Air
  wound: FittedFactor
  soaks: SoakLine[]
  anneals: AnnealLine[]
  warmUps: WarmUpLine[]
  changeovers: ChangeoverLine[]
  through: Through[]
  checks: CheckOfRun[]
  at: string
}

export async function prepare(db: Connection): Promise<Prepare> {
  const [{ logs, air, wound }, left, dryers, soaks, anneals, warmUps, changeovers, through, checks] = await Promise.all(
    [
      spoolsAndAir(db),
      listSpools(db),
      listDryers(db),
      listSoaks(db),
      listAnneals(db),
      listWarmUps(db),
      listChangeovers(db),
      throughFitted(db),
      listChecks(db),
    ],
  )
  const now = Date.now()
  // a spool that is used up needs no state; its weighings still count
  const inUse = new Set(left.filter(s => s.left_g > 1).map(s => s.id))
  return {
    spools: logs.filter(s => inUse.has(s.id)).map(s => stateOf(s, air, wound, now)),
    dryers,
    air,
    wound,
    soaks,
    anneals,
    warmUps,
    changeovers,
    through,
    checks,
    at: new Date(now).toISOString(),
  }
}

export interface SpoolPage {
  state: SpoolState
  history: SpoolHistory
  dryings: DryingLine[]
  leftG: number
  tareG: number | null
  polymer: string
  filled: boolean
  limits: { dryHighestC: number | null; glassC: number | null; meltC: number | null }
  events: {
    id: number
    kind: string
    at: string
    grossG: number | null
    roomC: number | null
    rh: number | null
    atC: number | null
    hours: number | null
    note: string
    person: string
    struck: string | null
  }[]
  struckDryings: { id: number; from: string; dryer: string; reason: string }[]
  air: Air
  wound: FittedFactor
  at: string
}

export async function spoolPage(db: Connection, tag: string): Promise<SpoolPage> {
  const { logs, air, wound } = await spoolsAndAir(db)
  const log = logs.find(s => s.tag.toLowerCase() === tag.toLowerCase())
  if (!log) notFound('This spool')
  const now = Date.now()
  const events = await db.execute<SpoolPage['events'][number] & Record<string, unknown>>(sql`
    select e.id::int, e.kind, e.occurred_at at, e.gross_g "grossG", e.room_c "roomC", e.rh, e.at_c "atC",
    e.hours, e.note, u.name person, (select s.reason from strikes s where s.target = 'spool event'
    and s.target_id = e.id) struck
    from spool_events e join people u on u.id = e.person_id
    where e.spool_id = ${log.id} order by e.occurred_at desc, e.id desc limit 200`)
  const struckDryings = await db.execute<SpoolPage['struckDryings'][number] & Record<string, unknown>>(sql`
    select d.id::int, d.occurred_at "from", y.name dryer, s.reason from dryings d
    join dryers y on y.id = d.dryer_id join strikes s on s.target = 'drying' and s.target_id = d.id
    where d.spool_id = ${log.id}`)
  return {
    state: stateOf(log, air, wound, now),
    history: historyOf(log, air, now),
    dryings: log.dryings,
    leftG: (await spoolRemaining(db, log.id)).g,
    tareG: log.tareG,
    polymer: log.polymer,
    filled: log.fillerFraction > 0,
    limits: {
      dryHighestC: log.facts.dryHighestC ?? null,
      glassC: log.facts.glassC ?? null,
      meltC: log.facts.meltC ?? null,
    },
    events,
    struckDryings,
    air,
    wound,
    at: new Date(now).toISOString(),
  }
}
