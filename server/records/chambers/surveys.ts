/** Surveys of chambers: stored as they were read, read with the checks of the sensors that count now. */
import { eq, sql, type SQL } from 'drizzle-orm'
import type { z } from 'zod'
import {
  placesOf,
  PRACTICE_TAU_S,
  surveyFound,
  surveyHolds,
  surveySources,
  TAU_S,
  type Surveyed,
  type SurveyFound,
  type SurveyState,
} from '#core/chamber'
import { heatAt, openingOf, type AirSource, type Part } from '#core/limits'
import { InputError } from '#core/numeric'
import type { ChamberLine, Chambers, SurveyLine } from '#shared/answers/chambers'
import type { ZoneLimit } from '#shared/answers/printers'
import type { surveySchema } from '#shared/entries/chambers'
import { foundOf } from '#shared/survey-reading'
import type { Connection } from '../../db/client'
import { iso, shopDay } from '../../db/iso'
import { stackCeilings, surveys } from '../../db/schema'
import { ask, notInFuture, refuseField } from '../entry/refusal'
import { refreshCeilings } from '../printers/ceilings'
import { listCutOutTests, listPlans, testsWanted } from './plans'
import { knownSensors, OF_THIS_SENSOR, type KnownSensors } from '../sensors/corrections'

type Entry = z.output<typeof surveySchema>

/** Parts that make the air: when one of them is changed, a survey by the bed or by a heater does not hold any more. */
const MAKES_AIR = {
  bed: ['enclosure', 'glazing', 'insulation', 'fans', 'bed heater', 'bed insulation', 'bed sensor'],
  heater: ['enclosure', 'glazing', 'insulation', 'fans', 'chamber heater', 'chamber sensor'],
} as const
const words = (of: readonly string[]) =>
  sql.join(
    of.map(w => sql`${w}`),
    sql`, `,
  )
/** What of survey `s` was changed since, as "fans, 3 Nov 2026". */
const CHANGED: SQL = sql`(select coalesce(json_agg(distinct a.name || ', ' || ${shopDay('c.occurred_at')}), '[]')
  from part_events e join standing_stack_changes c on c.id = e.change_id and c.kind = 'changed'
    and c.printer_id = s.printer_id and c.occurred_at > s.occurred_at join parts a on a.id = e.part_id
  where (s.chamber_set_c is null and a.role in (${words(MAKES_AIR.bed)}))
    or (s.chamber_set_c is not null and a.role in (${words(MAKES_AIR.heater)})))`

interface Row extends Record<string, unknown> {
  id: number
  printerId: number
  opening: SurveyState['opening']
  fan: boolean | null
  gapMm: number
  on: string
  atMs: number
  checkThen: string | null
}
type Stored = Row & Omit<SurveyLine, 'state' | keyof ReturnType<typeof made>>

const COLUMNS = sql`s.id::int, s.printer_id "printerId", s.opening, s.fan, s.gap_mm "gapMm", s.shielded, s.bed_c "bedC",
  s.chamber_set_c "chamberSetC", s.tau_s "tauS", s.probe_u_c "probeUC", s.size, s.times_s "timesS", s.room_c "roomC",
  s.probes, s.note, ${iso('s.occurred_at')} at, extract(epoch from s.occurred_at)::float8 * 1000 "atMs",
  ${shopDay('s.occurred_at')} "on"`

/**
 * What was set, in true degrees by the check of its sensor; as it was shown where the sensor was another one then, or
 * nobody has checked it: a prediction is made in the same kind of degrees.
 */
function made(row: Row & Pick<SurveyLine, 'bedC' | 'chamberSetC'>, known: KnownSensors | undefined) {
  const same = (zone: 'bed' | 'chamber') => !known || row.atMs >= known.since[zone]
  const by = (zone: 'bed' | 'chamber') => (known && same(zone) ? known.sensors[zone] : null)
  const bed = heatAt(by('bed'), row.bedC)
  const chamber = row.chamberSetC === null ? null : heatAt(by('chamber'), row.chamberSetC)
  return {
    bedTrueC: bed.trueC,
    chamberTrueC: chamber?.trueC ?? null,
    correctedBy: (chamber ?? bed).from,
    sameSensor: same(chamber ? 'chamber' : 'bed'),
  }
}

/** The latest so many of each printer. */
const MOST_SURVEYS = 20
/** The latest of each printer, of a table or view of surveys. */
const latest = (of: 'surveys' | 'standing_surveys') => sql`(select *,
  row_number() over (partition by printer_id order by occurred_at desc, id desc) nth from ${sql.raw(of)})`

/**
 * Surveys of the chambers as the limits take them, by printer: those that stand and of which nothing was changed. Which
 * of them counts for which place and state the core chooses.
 */
export async function surveyedAir(
  db: Connection,
  checks: ReadonlyMap<number, KnownSensors>,
): Promise<Map<number, AirSource[]>> {
  const rows = await db.execute<Stored>(sql`
    select * from (select ${COLUMNS}, ${CHANGED} changed from ${latest('standing_surveys')} s
      where s.nth <= ${MOST_SURVEYS}) x where json_array_length(x.changed) = 0 order by x."atMs" desc, x.id desc`)
  const known = new Map<number, Surveyed[]>()
  for (const r of rows) {
    const found = foundOf({ ...r, ...made(r, checks.get(r.printerId)) })
    const of = known.get(r.printerId) ?? []
    if (found) known.set(r.printerId, [...of, { found, state: stateOf(r), from: `its survey of ${r.on}` }])
  }
  return new Map([...known].map(([printerId, of]) => [printerId, surveySources(of)]))
}
const stateOf = ({ opening, fan, gapMm }: Row): SurveyState => ({ opening, fan, gapMm })

export async function chambersPage(db: Connection): Promise<Chambers> {
  const [chambers, plans, cutOutTests, testEvery, checks, rows] = await Promise.all([
    listChambers(db),
    listPlans(db),
    listCutOutTests(db),
    testsWanted(db),
    knownSensors(db),
    db.execute<Stored>(sql`
      select ${COLUMNS}, ${CHANGED} changed, w.name person,
        (select json_build_object('reason', k.reason, 'person', kw.name) from strikes k
          join people kw on kw.id = k.person_id where k.target = 'survey' and k.target_id = s.id) struck,
        (select ${shopDay('c.occurred_at')} from sensor_checks c
          where c.id = case when s.chamber_set_c is null then s.bed_check_id else s.chamber_check_id end) "checkThen"
      from ${latest('surveys')} s join people w on w.id = s.person_id
      where s.nth <= ${MOST_SURVEYS} order by s.occurred_at desc, s.id desc`),
  ])
  return {
    chambers,
    plans,
    cutOutTests,
    testEvery,
    surveys: rows.map(r => {
      const { opening: _o, fan: _f, gapMm: _g, on: _on, atMs: _at, ...line } = r
      return { ...line, state: stateOf(r), ...made(r, checks.get(r.printerId)) }
    }),
  }
}

async function listChambers(db: Connection, printerId?: number): Promise<ChamberLine[]> {
  const rows = await db.execute<
    Omit<ChamberLine, 'tauS' | 'tauFrom'> & Record<string, unknown> & { tauS: number | null; on: string | null }
  >(sql`
    select p.id "printerId", p.name printer, exists (select from part_places h join parts b on b.id = h.part_id
      where h.kind = 'fit' and h.printer_id = p.id and b.role = 'chamber heater') heated,
      (u.fit->>'tauS')::float8 "tauS", ${shopDay('u.occurred_at')} "on", (
        select json_build_object('bedC', b.bed_c, 'tauS', (b.fit->>'tauS')::float8,
          'on', ${shopDay('b.occurred_at')})
        from warm_ups b where b.printer_id = p.id and b.opening = 'shut' and b.chamber_set_c is null
          and not exists (select from strikes k where k.target = 'warm-up' and k.target_id = b.id)
        order by b.occurred_at desc, b.id desc limit 1) "byBed" from printers p
    left join lateral (select fit, occurred_at from standing_warm_ups u where u.printer_id = p.id
      order by u.occurred_at desc, u.id desc limit 1) u on true
    where not p.out_of_use ${printerId === undefined ? sql`` : sql`and p.id = ${printerId}`} and exists (
      select from part_places w join parts a on a.id = w.part_id
      where w.kind = 'fit' and w.printer_id = p.id and a.role = 'enclosure') order by p.id`)
  return rows.map(({ tauS, on, ...c }) => {
    const known = tauS !== null && tauS >= TAU_S[0] && tauS <= TAU_S[1]
    return known
      ? { ...c, tauS, tauFrom: `its warm-up of ${on}` }
      : { ...c, tauS: PRACTICE_TAU_S, tauFrom: 'practice, as no warm-up is recorded' }
  })
}

/** The check of a printer's own sensor that counts now. */
async function checkOf(tx: Connection, printerId: number, zone: 'bed' | 'chamber'): Promise<number | null> {
  const [row] = await tx.execute<{ id: number }>(sql`
    select c.id::int from standing_sensor_checks c where c.printer_id = ${printerId} and c.zone = ${zone}
      and ${OF_THIS_SENSOR} order by c.occurred_at desc, c.id desc limit 1`)
  return row?.id ?? null
}

export async function saveSurvey(
  tx: Connection,
  { confirmed, state, ...s }: Entry,
  personId: number,
): Promise<{
  id: number
  by: SurveyFound['by']
  places: ReturnType<typeof placesOf>
  before: ZoneLimit[]
  after: ZoneLimit[]
}> {
  const occurredAt = notInFuture('occurredAt', s.occurredAt)
  const [chamber] = await listChambers(tx, s.printerId)
  if (!chamber) refuseField('printerId', 'This printer has no enclosure')
  if (s.chamberSetC !== null && !chamber.heated) refuseField('chamberSetC', 'This printer has no chamber heater')
  const { tauS } = chamber
  const found = read({ ...s, tauS })
  ask(doubts(found), confirmed)
  const [bedCheckId, chamberCheckId] = [
    await checkOf(tx, s.printerId, 'bed'),
    await checkOf(tx, s.printerId, 'chamber'),
  ]
  const [kept] = await tx.select().from(stackCeilings).where(eq(stackCeilings.printerId, s.printerId))
  const [row] = await tx
    .insert(surveys)
    .values({ ...s, ...state, tauS, bedCheckId, chamberCheckId, occurredAt, personId })
    .returning({ id: surveys.id })
  const [after] = await refreshCeilings(tx, [s.printerId])
  const inAir = (l: ZoneLimit) => l.zone !== 'hotend'
  return {
    id: row!.id,
    by: found.by,
    places: placesOf(found),
    before: kept!.limits.filter(inAir),
    after: after!.filter(inAir),
  }
}

/** What the core makes of it as it was shown; what it refuses is refused at its field. */
function read(s: Parameters<typeof surveyFound>[0]): SurveyFound {
  try {
    return surveyFound(s)
  } catch (e) {
    if (e instanceof InputError) refuseField(e.field, `Enter ${e.allowed}`)
    throw e
  }
}

/** Probes that do not count are asked about, each by its name, before the survey is kept without them. */
function doubts(found: SurveyFound) {
  const away = found.probes.filter(p => p.value === null)
  if (away.length === 0) return []
  return [
    {
      code: 'not-steady',
      field: 'probes',
      message:
        (away.length === found.probes.length ? 'No probe counts yet' : 'Not every probe counts') +
        ', so the limits take nothing from those. Keep the survey all the same?',
      items: away.map(p => `${p.probe.name}: ${p.odd ? 'no air can be so' : p.steady.state}`),
    },
  ]
}

/** Enclosed printers with how many days ago the last survey was made that still holds; null where none does. */
export async function lastSurveys(db: Connection): Promise<{ printer: string; days: number | null }[]> {
  type Last = SurveyState & { printerId: number; days: number; changed: string[]; lid: Pick<Part, 'details'> | null }
  const [chambers, rows] = await Promise.all([
    listChambers(db),
    db.execute<Last & Record<string, unknown>>(sql`
      select s.printer_id "printerId", s.opening, s.fan, s.gap_mm "gapMm",
        extract(epoch from now() - s.occurred_at)::float8 / 86400 "days", ${CHANGED} changed,
        (select json_build_object('details', a.details) from part_places h join parts a on a.id = h.part_id
          where h.kind = 'fit' and h.printer_id = s.printer_id and a.role = 'lid' limit 1) lid
      from ${latest('standing_surveys')} s where s.nth <= ${MOST_SURVEYS} order by s.occurred_at desc, s.id desc`),
  ])
  return chambers.map(c => ({
    printer: c.printer,
    days: rows.find(r => r.printerId === c.printerId && surveyHolds(r, r.changed, openingOf(r.lid)))?.days ?? null,
  }))
}
