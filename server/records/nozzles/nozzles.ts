/** The nozzle's page and the list in Inspect. */
import { grams, listed, mmNumber } from '#core/words'
import type { NozzleLine, NozzlePage, RecordLine } from '#shared/answers/nozzles'
import { asc, eq, sql, type SQL } from 'drizzle-orm'
import { compareLaws } from '#core/wear'
import { gaugeFoundWords, type GaugeFound } from '#shared/gauge-words'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso } from '../../db/iso'
import { gauges, nozzles, nozzleTypes, setups } from '../../db/schema'
import { forecastNow, refreshForecast } from './forecasts'
import { STALE_SHOWN } from './sisters'
import { countedPair, countedU, outweighedGauges, widerThanBore, type NozzleLog } from './history'
import { notFound, notInFuture, refuseField } from '../entry/refusal'
import type { z } from 'zod'
import type { nozzleSchema } from '#shared/entries/nozzles'
import { saveGauge } from './gauges'
import { unused } from '../entry/unused'
import { PLACE_OF_HEAD } from '../printers/fittings'
import { flowOfNozzle } from '../flow/told'
import { scatterAnswer, type MethodScatter } from '../studies/scatter'

/** Some by their ids, or those in service or retired. */
type Which = { ids: readonly number[] } | { retired: boolean; find?: string; after?: string | null; limit?: number }

function those(w: Which): SQL {
  if ('ids' in w) return idIn('n.id', w.ids)
  const like = `%${(w.find ?? '').replaceAll(/[%_\\]/g, c => `\\${c}`)}%`
  const found = w.find ? sql`and (n.tag ilike ${like} or y.name ilike ${like} or s.reason ilike ${like})` : sql``
  const later = w.after ? sql`and n.tag > ${w.after}` : sql``
  return sql`s.kind is ${w.retired ? sql`not distinct from` : sql`distinct from`} 'retire' ${found} ${later}`
}

/** Lines of nozzles by their tags; at most `limit`. */
export async function listNozzles(db: Connection, which: Which = { retired: false }): Promise<NozzleLine[]> {
  const most = !('retired' in which) || which.limit === undefined ? sql`` : sql`limit ${which.limit}`
  const rows = await db.execute<Record<string, unknown>>(sql`
    with last_jobs as (
      select p.id printer_id, (select sum(t.fibre_g) from run_tools t where t.run_id = r.id) fibre_g from printers p
      join lateral (select id from standing_runs r where r.printer_id = p.id order by r.ended_at desc, r.id desc
        limit 1) r on true)
    select n.id, n.tag, y.name type_name, y.material, y.nominal_bore_mm, s.kind, s.reason, h.id head_id,
    p.id printer_id, t.tag hotend,
      case when s.kind = 'fit' then ${PLACE_OF_HEAD} end place,
      f.fibre_g, f.left_kg, f.left_low_kg, f.left_high_kg, f.past_chance, f.next_gauge_kg, ${STALE_SHOWN} stale,
      s.abrasivity, s.material_name, j.fibre_g job_fibre_g, ${iso('s.last_gauged_at')} last_gauged_at
    from nozzles n join nozzle_types y on y.id = n.type_id join nozzle_stands s on s.nozzle_id = n.id
    left join forecasts f on f.nozzle_id = n.id
    left join heads h on h.id = s.head_id and s.kind = 'fit' left join printers p on p.id = h.printer_id
    left join last_jobs j on j.printer_id = p.id left join hotends t on t.id = s.hotend_id
    where ${those(which)} order by n.tag ${most}`)
  return rows.map(r => {
    const per = r.abrasivity === null ? null : 1 / (r.abrasivity as number)
    const kg = (v: unknown) => (per === null || v === null || (v as number) >= 1e9 ? null : (v as number) * per)
    return {
      id: r.id as number,
      tag: r.tag as string,
      typeName: r.type_name as string,
      material: r.material as NozzleLine['material'],
      nominalBoreMm: r.nominal_bore_mm as number,
      place: r.place as string | null,
      hotend: r.hotend as string | null,
      headId: r.head_id as number | null,
      printerId: r.printer_id as number | null,
      retired: r.kind === 'retire',
      retiredReason: r.kind === 'retire' ? (r.reason as string) : null,
      fibreG: (r.fibre_g as number | null) ?? 0,
      leftKg: kg(r.left_kg),
      leftLowKg: kg(r.left_low_kg),
      leftHighKg: kg(r.left_high_kg),
      pastChance: (r.past_chance as number | null) ?? 0,
      nextGaugeKg: kg(r.next_gauge_kg),
      jobFibreG: r.job_fibre_g as number | null,
      lastMaterial: r.material_name as string | null,
      lastGaugedAt: r.last_gauged_at as string | null,
      stale: (r.stale as boolean | null) ?? true,
    }
  })
}

export async function nozzlePage(db: Connection, tag: string): Promise<NozzlePage> {
  const [found] = await db
    .select({ nozzle: nozzles, type: nozzleTypes })
    .from(nozzles)
    .innerJoin(nozzleTypes, eq(nozzleTypes.id, nozzles.typeId))
    .where(sql`lower(${nozzles.tag}) = lower(${tag})`)
    .orderBy(asc(nozzles.id))
  if (!found) notFound(`Nozzle ${tag}`)
  const { nozzle, type } = found
  const { log, input, forecast: now, sisters, prior, isStale } = await forecastNow(db, nozzle.id)
  const outweighed = outweighedGauges(log, prior)
  const pictured = log.gauges.some(g => g.setupId !== null) ? await picturesOf(db, nozzle.id) : []
  const setupOf = (id: number | null) => pictured.find(p => p.setupId === id)?.setup ?? null
  const [place] = await db.execute<{
    kind: string
    reason: string
    head_id: number
    head: string
    printer: string
    printer_id: number
    hotend: string | null
  }>(sql`
    select e.kind, e.reason, h.id head_id, h.name head, p.name printer, p.id printer_id, t.tag hotend
    from standing_fittings e left join heads h on h.id = e.head_id left join printers p on p.id = h.printer_id
    left join hotends t on t.id = e.hotend_id
    where e.nozzle_id = ${nozzle.id} order by e.occurred_at desc, e.id desc limit 1`)
  return {
    nozzle: {
      id: nozzle.id,
      tag: nozzle.tag,
      law: nozzle.law,
      wasUsed: nozzle.wasUsed,
      note: nozzle.note,
      version: nozzle.version,
    },
    type,
    place:
      place?.kind === 'fit'
        ? { headId: place.head_id, head: place.head, printer: place.printer, printerId: place.printer_id }
        : null,
    hotend: place?.hotend ?? null,
    retired: place?.kind === 'retire' ? place.reason : null,
    input,
    forecast: now,
    sisters,
    stale: isStale,
    laws: compareLaws(input.bore, prior),
    fibreG: log.fibreG,
    extrudedG: log.extrudedG,
    lastFilled: log.lastFilled,
    lastRun: log.lastRun,
    gaugePoints: log.gauges.map(g => ({
      id: g.id,
      kind: g.kind,
      wearKg: g.wearKg,
      ...countedPair(g, log.scatter),
      valueMm: g.valueMm,
      uMm: countedU(g, log.scatter) ?? g.uMm,
      tipMm: g.tipMm,
      shape: g.shape,
      setup: setupOf(g.setupId),
      blob: g.blob,
      picture: pictured.find(p => p.id === g.id)?.picture ?? null,
      at: g.occurredAt.toISOString(),
      outweighed: outweighed.has(g.id),
    })),
    flow: await flowOfNozzle(db, nozzle.id),
    scatter: scatterAnswer(log.scatter),
    wider: widerThanBore(log, prior).map(w => ({ ...w, setup: setupOf(Number(w.setup))! })),
    record: (await recordOf(db, nozzle.id)).map(line => {
      const g = line.kind === 'gauge' ? log.gauges.find(x => x.id === line.id) : undefined
      return g ? { ...line, detail: [line.detail, countedWords(g, log.scatter)].filter(Boolean).join('; ') } : line
    }),
  }
}

/** What the certificates of its pins make of a gauge; empty where they leave it as it was typed. */
function countedWords(g: NozzleLog['gauges'][number], scatter: MethodScatter): string {
  const counted = countedPair(g, scatter)
  const differs = (['goMm', 'noGoMm'] as const).filter(k => counted[k] !== g[k])
  if (differs.length === 0) return ''
  const of = { goMm: g.goPin, noGoMm: g.noGoPin }
  const says = differs.map(k => `${mmNumber(g[k]!)} counts as ${mmNumber(counted[k]!)} mm (pin ${of[k]!})`)
  return `by certificate ${listed(says, 'and')}`
}

/** A page of nozzles: those in service, or those that are retired, after a tag. */
export async function nozzlesAfter(
  db: Connection,
  q: { retired: boolean; find: string; after: string | null; limit: number },
): Promise<{ nozzles: NozzleLine[]; next: string | null }> {
  const found = await listNozzles(db, { ...q, limit: q.limit + 1 })
  const page = found.slice(0, q.limit)
  return { nozzles: page, next: found.length > q.limit ? page[page.length - 1]!.tag : null }
}

/** Retired nozzles that forms still offer in full: the latest. */
const LATEST_RETIRED = 60

/** What the shop is told of: every nozzle in service, and those retired last. */
export async function nozzlesOfShop(db: Connection): Promise<NozzleLine[]> {
  // first which they are: of those few the rest is looked up, instead of joined for all there ever were
  const told = await db.execute<{ id: number }>(sql`
    (select s.nozzle_id id from nozzle_stands s where s.kind = 'retire'
      order by s.since desc, s.nozzle_id desc limit ${LATEST_RETIRED})
    union all select s.nozzle_id from nozzle_stands s where s.kind is distinct from 'retire'`)
  return await listNozzles(db, { ids: told.map(r => r.id) })
}

/** What the pictures of a nozzle showed, with the names of their set-ups. */
const picturesOf = (db: Connection, nozzleId: number) =>
  db
    .select({ id: gauges.id, setupId: gauges.setupId, setup: setups.name, picture: gauges.picture })
    .from(gauges)
    .innerJoin(setups, eq(setups.id, gauges.setupId))
    .where(eq(gauges.nozzleId, nozzleId))

function resultOf(r: Record<string, unknown>): string {
  if (r.kind === 'gauge') return gaugeFoundWords(found(r.data as Record<string, unknown>))
  if (r.kind !== 'run') return ''
  return `${grams(r.extruded_g as number)} → ${r.fibre_g === 0 ? 'no fibre' : `${grams(r.fibre_g as number)} fibre`}`
}

/** The latest 200 entries of a nozzle, newest first, struck ones included, with the standing fibre total at each. */
async function recordOf(db: Connection, nozzleId: number): Promise<RecordLine[]> {
  const rows = await db.execute<Record<string, unknown>>(sql`
    with entries as (
      select 'run' kind, t.run_id id, t.ended_at at, r.recorded_at, r.person_id, r.name title,
      p.name || ', ' || t.material_name detail,
        t.extruded_g, t.fibre_g, null::jsonb data, r.outcome, 'run' target, true again
      from run_tools t join runs r on r.id = t.run_id join printers p on p.id = r.printer_id
      where t.nozzle_id = ${nozzleId}
      union all
      select 'gauge', g.id, g.occurred_at, g.recorded_at, g.person_id, case g.kind
      when 'receipt' then 'Receipt gauge' else 'Gauge' end, g.note, null, null, to_jsonb(g) - 'picture', null, 'gauge',
      true
      from gauges g where g.nozzle_id = ${nozzleId}
      union all
      select 'fitting', f.id, f.occurred_at, f.recorded_at, f.person_id, case f.kind
      when 'fit' then 'Fitted to ' || p.name when 'remove' then coalesce('Removed from ' || p.name, 'At the bench')
      else 'Retired' end,
      f.reason, null, null, null, null, 'fitting', f.kind = 'fit' and f.change_id is null
      from fittings f left join heads h on h.id = f.head_id left join printers p on p.id = h.printer_id
      where f.nozzle_id = ${nozzleId}
    )
    select e.kind, e.id, ${iso('e.at')} at, ${iso('e.recorded_at')} recorded_at, e.title, e.detail, e.extruded_g,
      e.fibre_g, e.data, e.outcome, e.again, w.name person, s.reason strike_reason, ${iso('s.recorded_at')} struck_at,
      sw.name struck_by,
      sum(case when s.id is null then e.fibre_g end) over (order by e.at, e.recorded_at, e.kind desc, e.id) total_g
    from entries e join people w on w.id = e.person_id left join strikes s on s.target = e.target
    and s.target_id = e.id left join people sw on sw.id = s.person_id
    order by e.at desc, e.recorded_at desc, e.kind, e.id desc limit 200`)
  return rows.map(r => ({
    kind: r.kind as RecordLine['kind'],
    id: Number(r.id),
    at: r.at as string,
    recordedAt: r.recorded_at as string,
    person: r.person as string,
    title: r.title as string,
    detail: `${r.detail as string}${r.outcome === 'failed' ? ', failed' : ''}`,
    result: resultOf(r),
    fibreG: (r.total_g as number | null) ?? 0,
    again: r.again as boolean,
    struck:
      r.strike_reason === null
        ? null
        : { reason: r.strike_reason as string, person: r.struck_by as string, at: r.struck_at as string },
  }))
}

const found = (g: Record<string, unknown>): GaugeFound => ({
  valueMm: g.value_mm as number | null,
  uMm: g.u_mm as number | null,
  goMm: g.go_mm as number | null,
  noGoMm: g.no_go_mm as number | null,
  tipMm: g.tip_mm as number | null,
  shape: g.shape as string[],
})

/** A nozzle with its receipt gauge, if there is one, in the same breath. */
export async function addNozzle(
  tx: Connection,
  n: Omit<z.output<typeof nozzleSchema>, 'howMany'>,
  personId: number,
): Promise<{ id: number; tag: string }> {
  notInFuture('receivedAt', n.receivedAt)
  await unused(tx, nozzles, 'tag', n.tag, 'a nozzle')
  const [type] = await tx.select().from(nozzleTypes).where(eq(nozzleTypes.id, n.typeId))
  if (!type) refuseField('typeId', 'This nozzle type is not known')
  const [row] = await tx
    .insert(nozzles)
    .values({ tag: n.tag, typeId: n.typeId, wasUsed: n.wasUsed, note: n.note, createdBy: personId })
    .returning({ id: nozzles.id, tag: nozzles.tag })
  const r = n.receipt
  if (r && (r.goMm !== null || r.noGoMm !== null || r.valueMm !== null || r.tipMm !== null)) {
    await saveGauge(
      tx,
      {
        nozzleId: row!.id,
        occurredAt: n.receivedAt,
        ...r,
        goPin: null,
        noGoPin: null,
        tipUMm: null,
        shape: [],
        picture: null,
        note: 'receipt gauge',
        confirmed: n.confirmed,
      },
      personId,
      'receipt',
    )
  } else await refreshForecast(tx, row!.id)
  return row!
}
