/** Flow benches: begun, listed, and each with all that it tells. */
import { sql, type SQL } from 'drizzle-orm'
import type { z } from 'zod'
import { balanceFor, cellRefusal, compareBenches, levelOf, limitOf, nominalOf, planBench } from '#core/flow'
import { massG } from '#core/materials'
import { grams } from '#core/words'
import type { BenchPage, BenchRow } from '#shared/answers/flow'
import type { benchSchema } from '#shared/entries/flow'
import type { FieldProblem } from '#shared/problem'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { flowBenches } from '../../db/schema'
import { ask, notFound, notInFuture, refuseField, refuseFields } from '../entry/refusal'
import { struckOf, type Strike } from '../entry/struck'
import { headAt, PLACE_OF_HEAD } from '../printers/fittings'
import { benchOn } from './plan'
import { netMasses, sinceFirst, standingBenches, tells, type StandingBench } from './told'

/** Begins a bench: what it may heat is decided now, and its order is kept as it was told. */
export async function addBench(
  tx: Connection,
  b: z.output<typeof benchSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', b.occurredAt)
  const on = await benchOn(tx, b.headId, b.spoolId)
  if (on.notReady !== null) refuseField('headId', on.notReady)
  const fitted = await headAt(tx, b.headId, occurredAt)
  if (!fitted) refuseField('headId', `No nozzle was fitted at ${on.place} then`)
  const { densityGCm3, diameterMm } = on.filament
  if (densityGCm3 === null)
    refuseField(
      'spoolId',
      `${on.spool.tag} has no density, so a length has no mass. Enter the density of ${on.material.name} in Stores`,
    )
  const errors = b.temperaturesC.flatMap((c, i): FieldProblem[] => {
    const message = cellRefusal(c, on.limits)
    return message === null ? [] : [{ field: `temperaturesC.${i}`, message }]
  })
  if (errors.length > 0) refuseFields(errors)
  const { temperaturesC, flowsMm3S, repeats, lengthMm } = b
  const plan = planBench({ temperaturesC, flowsMm3S, repeats, lengthMm, diameterMm, densityGCm3 })
  const balance = balanceFor(b.balanceStepG, plan.blobG)
  if (!balance.isFine)
    ask(
      [
        {
          code: 'coarse-balance',
          field: 'balanceStepG',
          message:
            `A balance that reads to ${b.balanceStepG} g leaves ${(balance.share * 100).toFixed(1)} % of a blob of ` +
            `${grams(plan.blobG)} open; half a percent is wanted. Bench with it all the same?`,
        },
      ],
      b.confirmed,
    )
  const [row] = await tx
    .insert(flowBenches)
    .values({
      headId: b.headId,
      nozzleId: fitted.nozzleId,
      spoolId: b.spoolId,
      materialId: on.material.id,
      materialName: on.material.name,
      diameterMm,
      densityGCm3,
      lines: plan.lines.map(l => [l.temperatureC, l.flowMm3S, l.round] as [number, number, number]),
      lengthMm,
      balanceStepG: b.balanceStepG,
      accepted: b.accepted,
      stand: b.stand,
      tool: on.tool,
      note: b.note,
      occurredAt,
      personId,
    })
    .returning({ id: flowBenches.id })
  return row!
}

interface Head extends Record<string, unknown>, Strike {
  id: number
  nozzle: string
  place: string
  headId: number
  materialId: number
  material: string
  spool: string
  blobs: number
  weighed: number
  ended: BenchRow['ended']
  at: string
  person: string
}
const heads = (db: Connection, which: SQL) =>
  db.execute<Head>(sql`
    select e.id::int, n.tag nozzle, ${PLACE_OF_HEAD} place, e.head_id "headId", e.material_id "materialId",
      e.material_name material, s.tag spool, jsonb_array_length(e.lines) blobs,
      (select count(*)::int from standing_flow_blobs b where b.bench_id = e.id) weighed,
      (select d.outcome from endings d where d.target = 'flow bench' and d.target_id = e.id) ended,
      ${iso('e.occurred_at')} "at", w.name person, k.reason strike_reason, kw.name struck_by
    from flow_benches e join nozzles n on n.id = e.nozzle_id join spools s on s.id = e.spool_id
    join heads h on h.id = e.head_id join printers p on p.id = h.printer_id join people w on w.id = e.person_id
    left join strikes k on k.target = 'flow bench' and k.target_id = e.id left join people kw on kw.id = k.person_id
    where ${which} order by e.occurred_at desc, e.id desc limit 100`)

const rowOf = ({ strike_reason, struck_by, ...h }: Head, told: StandingBench | undefined): BenchRow => ({
  ...h,
  sustained: told?.result?.sustained ?? [],
  struck: struckOf({ strike_reason, struck_by }),
})

/** The latest hundred benches, struck ones among them. */
export async function listBenches(db: Connection): Promise<BenchRow[]> {
  const rows = await heads(db, sql`true`)
  if (rows.length === 0) return []
  const told = await standingBenches(db, sql`e.id >= ${Math.min(...rows.map(r => r.id))}`)
  return rows.map(r =>
    rowOf(
      r,
      told.find(t => t.id === r.id),
    ),
  )
}

interface Said extends Record<string, unknown>, Strike {
  id: number
  at: string
  person: string
  note: string
}
interface BlobRow extends Said {
  line: number
  grossG: number
  panG: number
}
interface MeasureRow extends Said {
  callipersMm: number[] | null
  toldMm: number | null
  fedMm: number | null
}

/** One bench with everything it tells. */
export async function benchPage(db: Connection, id: number): Promise<BenchPage> {
  const [head] = await heads(db, sql`e.id = ${id}`)
  if (!head) notFound('This bench')
  const [[b], blobs, measures, [run]] = await Promise.all([
    db
      .select()
      .from(flowBenches)
      .where(sql`id = ${id}`),
    db.execute<BlobRow>(sql`
      select b.id::int, b.line, b.gross_g "grossG", b.pan_g "panG", ${iso('b.occurred_at')} "at", w.name person, b.note,
        k.reason strike_reason, kw.name struck_by
      from flow_blobs b join people w on w.id = b.person_id
      left join strikes k on k.target = 'blob' and k.target_id = b.id left join people kw on kw.id = k.person_id
      where b.bench_id = ${id} order by b.id`),
    db.execute<MeasureRow>(sql`
      select m.id::int, m.callipers_mm "callipersMm", m.told_mm "toldMm", m.fed_mm "fedMm",
        ${iso('m.occurred_at')} "at", w.name person, m.note, k.reason strike_reason, kw.name struck_by
      from filament_measures m join people w on w.id = m.person_id
      left join strikes k on k.target = 'filament measure' and k.target_id = m.id
      left join people kw on kw.id = k.person_id where m.bench_id = ${id} order by m.id`),
    db.execute<{ id: number; grams: number; struck: boolean }>(sql`
      select r.id::int, (select sum(t.extruded_g) from run_tools t where t.run_id = r.id) grams,
        exists (select from strikes s where s.target = 'run' and s.target_id = r.id) struck
      from flow_bench_runs f join runs r on r.id = f.run_id where f.bench_id = ${id}`),
  ])
  const all = await standingBenches(db, sql`e.head_id = ${b!.headId} and e.material_id = ${b!.materialId}`)
  const own = all.find(t => t.id === id)
  const nets = netMasses(blobs, b!.balanceStepG)
  const blobOf = ({ strike_reason: _, struck_by: _by, line: _l, ...r }: BlobRow) => ({ ...r, ...nets.get(r.id)! })
  const standing = new Map(blobs.filter(r => r.strike_reason === null).map(r => [r.line, r]))
  return {
    ...rowOf(head, own),
    nozzleId: b!.nozzleId,
    spoolId: b!.spoolId,
    lengthMm: b!.lengthMm,
    diameterMm: b!.diameterMm,
    densityGCm3: b!.densityGCm3,
    balanceStepG: b!.balanceStepG,
    nominalG: own ? nominalOf(own.filament).massG : massG(b!.lengthMm, b!.diameterMm, b!.densityGCm3),
    accepted: b!.accepted,
    stand: b!.stand,
    tool: b!.tool,
    note: b!.note,
    lines: b!.lines.map(([temperatureC, flowMm3S, round], i) => {
      const r = standing.get(i)
      return { temperatureC, flowMm3S, round, blob: r ? blobOf(r) : null }
    }),
    struckBlobs: blobs
      .filter(r => r.strike_reason !== null)
      .map(r => ({ ...blobOf(r), line: r.line, struck: struckOf(r) })),
    measures: measures.map(m => ({
      id: m.id,
      callipersMm: m.callipersMm,
      mark: m.toldMm === null ? null : { toldMm: m.toldMm, fedMm: m.fedMm! },
      at: m.at,
      person: m.person,
      note: m.note,
      struck: struckOf(m),
    })),
    ...toldOf(own, all),
    run: run ?? null,
  }
}

export type Told = Pick<BenchPage, 'scatter' | 'degrees' | 'result' | 'level' | 'limit' | 'beside' | 'dropped'>
const NOTHING: Told = { scatter: 0, degrees: 0, result: null, level: null, limit: null, beside: [], dropped: null }

/** What it tells by itself, beside other nozzles with the same lot, and against the nozzle's first bench here. */
export function toldOf(own: StandingBench | undefined, all: readonly StandingBench[]): Told {
  if (!own?.shares) return NOTHING
  const { shares, result, filament, accepted } = own
  const { scatter, degrees } = shares
  if (!tells(own)) return { ...NOTHING, scatter, degrees }
  const others = all.filter(tells).filter(o => o.spoolId === own.spoolId && o.nozzleId !== own.nozzleId)
  // of each other nozzle the latest
  const beside = others.filter((o, i) => others.findLastIndex(x => x.nozzleId === o.nozzleId) === i)
  const { lengthMm } = filament
  return {
    scatter,
    degrees,
    result,
    level: levelOf(own.result, filament),
    limit: limitOf(
      { shares, result: own.result, lengthMm },
      beside.map(o => ({ nozzle: o.nozzle, shares: o.shares, result: o.result })),
      accepted,
    ),
    beside: beside.map(o => ({
      id: o.id,
      nozzle: o.nozzle,
      at: o.at,
      compared: compareBenches(o.shares, shares, lengthMm),
    })),
    dropped: sinceFirst(all, own),
  }
}
