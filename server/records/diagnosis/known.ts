/**
 * What the shop's records hold of a case, gathered from every subject: the run as the check before it would take it,
 * and what was measured of nozzle, head and spool up to then. What cannot be gathered is not known; it takes no case
 * down.
 */
import { sql } from 'drizzle-orm'
import { cautionsFor } from '#core/cautions'
import { TESTS, type KnownFacts, type TestName, type TestRow } from '#core/diagnosis'
import { isPolyamide } from '#core/drying'
import type { FullScan } from '#core/gcode'
import type { FittedNozzle, Line } from '#core/limits'
import { InputError } from '#core/numeric'
import { hours } from '#core/words'
import type { MaterialRow } from '#shared/answers/materials'
import { countingChecks, stateOf as sensorStateOf } from '#shared/sensor-state'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso, shopDay } from '../../db/iso'
import { Refusal } from '../entry/refusal'
import { toldOf } from '../flow/benches'
import { standingBenches, tells } from '../flow/told'
import { factOf, listAskings } from '../materials/materials'
import { forecastNow } from '../nozzles/forecasts'
import { boreReading } from '../nozzles/history'
import { throughBefore } from '../prepare/changeovers'
import { gatherFacts, type Asked } from '../prepare/precheck-facts'
import { NOZZLE_JSON } from '../printers/stack-read'
import { sensorOfHead } from '../sensors/checks'
import { airAndFactor } from '../spools/factor'
import { spoolLogs, type SpoolLog } from '../spools/log'
import { stateOf } from '../spools/moisture'

/** A case as its records are looked up. */
export interface CaseOf extends Record<string, unknown> {
  id: number
  headId: number
  printerId: number
  nozzleId: number | null
  spoolId: number | null
  materialId: number | null
  runId: number | null
  /** When it was opened. */
  at: string
}

interface RunOf extends Record<string, unknown> {
  name: string
  endedAt: string
  hours: number | null
  tool: number
  setC: number | null
  bedSetC: number | null
  chamberSetC: number | null
  printsFrom: Asked['printsFrom'] | null
  scan: FullScan | null
}

const DAY = 86_400_000
/** Runs so long before a case say something of it, days. */
const LATELY = 14

/** What does not work out with what is stored is not known. */
async function known<T>(work: () => Promise<T>): Promise<T | null> {
  try {
    return await work()
  } catch (error) {
    if (error instanceof Refusal || error instanceof InputError) return null
    throw error
  }
}

/** Of what was measured, what was known at `asOf`: a case that is entered late does not rest on what came after it. */
export async function knownOf(db: Connection, c: CaseOf, asOf = new Date()): Promise<KnownFacts> {
  const run = c.runId === null ? null : await runOf(db, c)
  const until = run?.endedAt ?? c.at
  const gathered = await known(() => checkOf(db, c, run, until))
  const materials = await listAskings(db)
  return {
    check: gathered?.facts ?? null,
    bend: gathered && bendOf(gathered.lines),
    nozzle: await known(() => nozzleOf(db, c, asOf)),
    bench: await known(() => benchOf(db, c, asOf)),
    before: await known(() => beforeOf(db, c, until, materials)),
    ...(await spoolOf(db, c, until, materials)),
    z: await zOf(db, c, until),
    sinceFit: await sinceFitOf(db, c, until),
    sensor: await sensorOf(db, c, asOf),
    ...(await othersOf(db, c)),
  }
}

async function runOf(db: Connection, c: CaseOf): Promise<RunOf | null> {
  const [run] = await db.execute<RunOf>(sql`
    select r.name, ${iso('r.ended_at')} "endedAt", r.hours, t.tool,
      t.set_c "setC", r.bed_set_c "bedSetC", r.chamber_set_c "chamberSetC", k.prints_from "printsFrom", j.scan
    from runs r join run_tools t on t.run_id = r.id and t.head_id = ${c.headId}
    left join prechecks k on k.id = r.precheck_id left join jobs j on j.id = r.job_id
    where r.id = ${c.runId} order by t.tool limit 1`)
  return run ?? null
}

async function dayOf(db: Connection, at: string): Promise<string> {
  const [day] = await db.execute<{ on: string }>(
    sql`select ${shopDay('x.at')} "on" from (select ${at}::timestamptz at) x`,
  )
  return day!.on
}

/** The check as it would have been before the run, with the nozzle of the case. */
async function checkOf(db: Connection, c: CaseOf, run: RunOf | null, until: string) {
  if (c.materialId === null) return null
  const [fitted] =
    c.nozzleId === null
      ? []
      : await db.execute<{ nozzle: FittedNozzle }>(sql`
          select ${NOZZLE_JSON} nozzle from nozzles n join nozzle_types y on y.id = n.type_id
          join heads h on h.id = ${c.headId} where n.id = ${c.nozzleId}`)
  const began = Date.parse(until) - (run?.hours ?? 0) * 3_600_000
  const set = { nozzleC: run?.setC ?? null, bedC: run?.bedSetC ?? null, chamberC: run?.chamberSetC ?? null }
  const asked: Asked = {
    printerId: c.printerId,
    headId: c.headId,
    spoolId: c.spoolId,
    materialId: c.materialId,
    printsFrom: run?.printsFrom ?? 'room',
    hours: run?.hours ?? null,
    name: run?.name ?? 'the print',
    // what was set at the printer stands over the file
    scan: run?.scan
      ? ({ ...run.scan, maxSetpointC: setOver(run.scan, run.tool, set) } as unknown as Asked['scan'])
      : null,
    tool: run?.tool ?? 0,
    setC: set,
  }
  return await gatherFacts(db, asked, new Date(began), fitted?.nozzle ?? null)
}
const setOver = (scan: FullScan, tool: number, set: NonNullable<Asked['setC']>): FullScan['maxSetpointC'] => ({
  ...scan.maxSetpointC,
  tools: { ...scan.maxSetpointC.tools, ...(set.nozzleC === null ? {} : { [String(tool)]: set.nozzleC }) },
  bed: set.bedC ?? scan.maxSetpointC.bed,
  chamber: set.chamberC ?? scan.maxSetpointC.chamber,
})

function bendOf(lines: readonly Line[]): KnownFacts['bend'] {
  const line = lines.find(l => l.key === 'bend')
  if (!line || line.status === 'unknown') return null
  const isTight = line.status !== 'ok'
  const { asked, allowed } = line
  const isKnown = asked !== null && allowed !== null
  const radii = isKnown ? ` (${Math.round(allowed)} mm; it stands ${Math.round(asked)})` : ''
  const stands = isTight ? 'tighter than this strand stands' : 'no tighter than this strand stands'
  return { isTight, says: `The path bends ${stands}${radii}.` }
}

async function nozzleOf(db: Connection, c: CaseOf, asOf: Date): Promise<KnownFacts['nozzle']> {
  if (c.nozzleId === null) return null
  const { log, input, forecast } = await forecastNow(db, c.nozzleId)
  const gauged = log.gauges.filter(g => boreReading(g, log.scatter) !== null).map(g => g.occurredAt.getTime())
  const last = Math.max(...gauged)
  // what was gauged later says what it was later
  if (last > asOf.getTime()) return null
  const { bore, tipLoss } = forecast
  return {
    tag: log.tag,
    boreMm: bore,
    boreLimitMm: input.rules.boreLimitMm,
    tipLossMm: tipLoss,
    tipLimitMm: input.rules.tipLossLimitMm,
    gaugedDaysAgo: gauged.length === 0 ? null : (Date.now() - last) / DAY,
    gaugedSince: gauged.length > 0 && last >= Date.parse(c.at),
  }
}

async function benchOf(db: Connection, c: CaseOf, asOf: Date): Promise<KnownFacts['bench']> {
  if (c.nozzleId === null || c.materialId === null) return null
  const all = await standingBenches(
    db,
    sql`e.head_id = ${c.headId} and e.material_id = ${c.materialId} and e.occurred_at <= ${asOf.toISOString()}`,
  )
  const own = all.filter(tells).findLast(b => b.nozzleId === c.nozzleId)
  if (!own) return null
  const told = toldOf(own, all)
  const verdicts = told.limit?.against.flatMap(a => a.compared ?? []) ?? []
  const alike = verdicts.some(v => v.verdict === 'better' || (v.verdict === 'no difference' && v.needs === null))
  return {
    on: await dayOf(db, own.at),
    dropped: told.dropped?.compared.dropped ?? null,
    level: told.level?.asks.kind ?? null,
    limit: told.limit?.limit ?? null,
    hotter: told.limit?.move?.verdict ?? null,
    alike: alike || verdicts.some(v => v.verdict === 'worse') ? alike : null,
    since: Date.parse(own.at) >= Date.parse(c.at),
  }
}

async function beforeOf(
  db: Connection,
  c: CaseOf,
  until: string,
  materials: readonly MaterialRow[],
): Promise<KnownFacts['before']> {
  if (c.nozzleId === null) return null
  const through = await throughBefore(db, c.nozzleId, until)
  return (
    through &&
    through.materialIds
      .flatMap(id => materials.find(m => m.id === id) ?? [])
      .map(m => ({ name: m.name, lowestFlowC: factOf(m, 'lowestFlowC') }))
      .sort((a, b) => (b.lowestFlowC ?? 0) - (a.lowestFlowC ?? 0))
  )
}

async function spoolOf(
  db: Connection,
  c: CaseOf,
  until: string,
  materials: readonly MaterialRow[],
): Promise<Pick<KnownFacts, 'spool' | 'dried'>> {
  if (c.spoolId === null) return { spool: null, dried: null }
  const [[log], { air, wound }] = await Promise.all([spoolLogs(db, idIn('s.id', [c.spoolId])), airAndFactor(db)])
  if (!log) return { spool: null, dried: null }
  const end = Date.parse(until)
  const state = stateOf(log, air, wound, end)
  const sinceH = state.since === null ? null : (end - Date.parse(state.since)) / 3_600_000
  const stood = sinceH === null ? '' : ` for ${hours(sinceH)}`
  const longest = materials
    .find(m => m.id === log.materialId)
    ?.sets.flatMap(s => (s.withdrawn ? [] : (s.dryHoursMax ?? [])))
  const asked = longest && longest.length > 0 && isPolyamide(log.polymer) ? Math.max(...longest) : null
  const driedH = lastDryingH(log, end)
  return {
    spool: {
      tag: log.tag,
      dryness: state.water?.dryness ?? 'unknown',
      takesNoWater: state.takesNoWater,
      place: `in the ${state.place}${stood}`,
    },
    dried: asked === null || driedH === null ? null : { hours: driedH, longestH: asked },
  }
}
/** Hours of the last drying that had ended by then, watched or entered afterwards; null where there is none. */
function lastDryingH(log: SpoolLog, end: number): number | null {
  const watched = log.dryings.flatMap(d => {
    if (d.to === null) return []
    const to = Date.parse(d.to)
    return [{ to, h: Math.min(d.timeOutH ?? Infinity, (to - Date.parse(d.from)) / 3_600_000) }]
  })
  const entered = log.events.flatMap(e =>
    e.kind === 'dried' && e.hours !== null ? [{ to: Date.parse(e.at), h: e.hours }] : [],
  )
  const last = [...watched, ...entered].filter(d => d.to <= end).sort((a, b) => b.to - a.to)[0]
  return last?.h ?? null
}

async function zOf(db: Connection, c: CaseOf, until: string): Promise<KnownFacts['z']> {
  const [row] = await db.execute<{ z: number | null; fitted: number | null }>(sql`
    select (select extract(epoch from max(z.occurred_at))::float8 * 1000 from standing_z_records z
        where z.head_id = ${c.headId} and z.why <> 'power-off' and z.occurred_at <= ${until}::timestamptz) z,
      (select extract(epoch from max(f.occurred_at))::float8 * 1000 from standing_fittings f
        where f.head_id = ${c.headId} and f.kind = 'fit' and f.occurred_at <= ${until}::timestamptz) fitted`)
  if (!row || row.z === null || row.fitted === null) return null
  const ago = (ms: number) => (Date.now() - ms) / DAY
  return { setDaysAgo: ago(row.z), fittedDaysAgo: ago(row.fitted) }
}

async function sinceFitOf(db: Connection, c: CaseOf, until: string): Promise<KnownFacts['sinceFit']> {
  if (c.nozzleId === null || c.runId === null) return null
  const [row] = await db.execute<{ fitted: boolean; before: number; good: number }>(sql`
    with fit as (select max(f.occurred_at) at from standing_fittings f where f.head_id = ${c.headId}
      and f.nozzle_id = ${c.nozzleId} and f.kind = 'fit' and f.occurred_at <= ${until}::timestamptz)
    select (select at from fit) is not null fitted, count(*)::int "before",
      count(*) filter (where r.outcome = 'finished' and r.symptoms = '{}')::int good
    from standing_runs r join run_tools t on t.run_id = r.id and t.head_id = ${c.headId}
      and t.nozzle_id = ${c.nozzleId}
    where r.id <> ${c.runId} and r.ended_at <= ${until}::timestamptz and r.ended_at > (select at from fit)`)
  return row?.fitted ? { isFirst: row.before === 0, goodBefore: row.good } : null
}

async function sensorOf(db: Connection, c: CaseOf, asOf: Date): Promise<KnownFacts['sensor']> {
  const sensor = await sensorOfHead(db, c.headId)
  if (!sensor) return null
  const checks = countingChecks(sensor)
  const last = checks.find(k => Date.parse(k.at) <= asOf.getTime())
  if (!last) return checks.length > 0 ? null : 'never'
  return {
    verdict: last.result.verdict,
    on: await dayOf(db, last.at),
    isDue: sensorStateOf(sensor).isDue,
    since: Date.parse(last.at) >= Date.parse(c.at),
  }
}

/** Runs that were logged before the case was opened: what came after may rest on what was put right. */
async function othersOf(db: Connection, c: CaseOf): Promise<Pick<KnownFacts, 'elsewhere' | 'onHead'>> {
  const [row] = await db.execute<{ eg: number; eb: number; hg: number; hb: number }>(sql`
    select count(distinct x.id) filter (where x.elsewhere and x.good)::int eg,
      count(distinct x.id) filter (where x.elsewhere and not x.good)::int eb,
      count(distinct x.id) filter (where x.here and x.good)::int hg,
      count(distinct x.id) filter (where x.here and not x.good)::int hb
    from (select r.id, r.outcome = 'finished' and r.symptoms = '{}' good,
        t.spool_id = ${c.spoolId}::int and t.head_id <> ${c.headId} elsewhere,
        t.head_id = ${c.headId} and t.nozzle_id = ${c.nozzleId}::int
          and t.spool_id is distinct from ${c.spoolId}::int here
      from standing_runs r join run_tools t on t.run_id = r.id
      where r.id is distinct from ${c.runId}::bigint and r.ended_at <= ${c.at}::timestamptz
        and r.ended_at > ${c.at}::timestamptz - ${LATELY} * interval '1 day') x`)
  const { eg, eb, hg, hb } = row!
  return {
    elsewhere: c.spoolId === null ? null : { good: eg, bad: eb },
    onHead: c.nozzleId === null || c.spoolId === null ? null : { good: hg, bad: hb },
  }
}

/** What can hurt at each test, with the filament and the setpoints of the case. */
export function cautionsOf(f: KnownFacts): Record<string, { key: string; hazard: string; what: string }[]> {
  const m = f.check?.material
  const nozzleC = f.check?.job.nozzleC ?? m?.nozzleMaxC ?? 250
  const moment = {
    polymers: m ? [m.polymer] : [],
    fillers: m ? [m.filler] : [],
    nozzleC,
    bedC: f.check?.job.bedC ?? null,
  }
  return Object.fromEntries(
    (Object.keys(TESTS) as TestName[]).map(name => {
      const { action }: TestRow = TESTS[name]
      const list = action === null ? [] : cautionsFor({ ...moment, action })
      return [name, list.map(({ key, hazard, what }) => ({ key, hazard, what }))]
    }),
  )
}
