/**
 * What flow benches tell, from their standing weights: worked out anew at each asking, so that a blob that is struck
 * out or a measure that is added says so at once. One reading for the bench's page, the nozzle's page and the check.
 */
import { sql, type SQL } from 'drizzle-orm'
import {
  benchResult,
  droppedSince,
  netOf,
  sharesOf,
  sustainedFor,
  type BenchResult,
  type Blob,
  type Filament,
  type Shares,
  type Sustained,
} from '#core/flow'
import type { NozzleFlow } from '#shared/answers/flow'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { PLACE_OF_HEAD } from '../printers/fittings'

/** A bench with what stands of it. */
export interface StandingBench {
  id: number
  headId: number
  place: string
  nozzleId: number
  nozzle: string
  spoolId: number
  materialId: number
  material: string
  at: string
  accepted: number
  balanceStepG: number
  lines: [temperatureC: number, flowMm3S: number, round: number][]
  filament: Filament
  /** By line, with the net mass. */
  blobs: ReadonlyMap<number, { massG: number; uG: number }>
  shares: Shares | null
  result: BenchResult | null
}

interface Row extends Record<string, unknown> {
  id: string
  head_id: number
  place: string
  nozzle_id: number
  nozzle: string
  spool_id: number
  material_id: number
  material_name: string
  at: string
  accepted: number
  step: number
  lines: StandingBench['lines']
  length_mm: number
  diameter_mm: number
  density: number
}
interface Weight extends Record<string, unknown> {
  bench_id: string
  id: string
  line: number
  gross_g: number
  pan_g: number
  standing: boolean
}

/** Net masses of a bench in the order of weighing; what the pan read next tells how far it had drifted. */
export function netMasses(weights: readonly { id: number; grossG: number; panG: number }[], stepG: number) {
  return new Map(weights.map((w, i) => [w.id, netOf(w, weights[i + 1]?.panG ?? null, stepG)] as const))
}

/** Standing benches that a condition on `e` (the bench) picks, the oldest first, with what each tells. */
export async function standingBenches(db: Connection, which: SQL): Promise<StandingBench[]> {
  const rows = await db.execute<Row>(sql`
    select e.id, e.head_id, ${PLACE_OF_HEAD} place, e.nozzle_id, n.tag nozzle, e.spool_id, e.material_id,
      e.material_name, ${iso('e.occurred_at')} "at", e.accepted, e.balance_step_g step, e.lines, e.length_mm,
      e.diameter_mm, e.density_g_cm3 density
    from standing_flow_benches e join nozzles n on n.id = e.nozzle_id
    join heads h on h.id = e.head_id join printers p on p.id = h.printer_id
    where ${which} order by e.occurred_at, e.id`)
  if (rows.length === 0) return []
  const ids = sql.join(
    rows.map(r => sql`${r.id}::bigint`),
    sql`, `,
  )
  const [weights, measures] = await Promise.all([
    db.execute<Weight>(sql`
      select b.bench_id, b.id, b.line, b.gross_g, b.pan_g,
        not exists (select from strikes s where s.target = 'blob' and s.target_id = b.id) standing
      from flow_blobs b where b.bench_id in (${ids}) order by b.id`),
    db.execute<{ bench_id: string; callipers: number[] | null; told: number | null; fed: number | null }>(sql`
      select bench_id, callipers_mm callipers, told_mm told, fed_mm fed from standing_filament_measures
      where bench_id in (${ids}) order by id`),
  ])
  return rows.map(r => {
    const own = weights.filter(w => w.bench_id === r.id)
    const nets = netMasses(
      own.map(w => ({ id: Number(w.id), grossG: w.gross_g, panG: w.pan_g })),
      r.step,
    )
    const blobs = new Map(own.filter(w => w.standing).map(w => [w.line, nets.get(Number(w.id))!]))
    const measured = measures.filter(m => m.bench_id === r.id)
    const mark = measured.findLast(m => m.told !== null)
    const filament: Filament = {
      lengthMm: r.length_mm,
      diameterMm: r.diameter_mm,
      densityGCm3: r.density,
      callipersMm: measured.findLast(m => m.callipers !== null)?.callipers ?? null,
      mark: mark ? { toldMm: mark.told!, fedMm: mark.fed! } : null,
    }
    return {
      id: Number(r.id),
      headId: r.head_id,
      place: r.place,
      nozzleId: r.nozzle_id,
      nozzle: r.nozzle,
      spoolId: r.spool_id,
      materialId: r.material_id,
      material: r.material_name,
      at: r.at,
      accepted: r.accepted,
      balanceStepG: r.step,
      lines: r.lines,
      filament,
      blobs,
      ...toldBy(r.lines, blobs, filament, r.accepted),
    }
  })
}

function toldBy(
  lines: StandingBench['lines'],
  blobs: StandingBench['blobs'],
  filament: Filament,
  accepted: number,
): Pick<StandingBench, 'shares' | 'result'> {
  const list: Blob[] = lines.flatMap(([temperatureC, flowMm3S], i) => {
    const b = blobs.get(i)
    return b ? [{ temperatureC, flowMm3S, ...b }] : []
  })
  if (list.length === 0) return { shares: null, result: null }
  const shares = sharesOf(list, filament)
  return { shares, result: benchResult(shares, accepted) }
}

/**
 * What the latest telling bench of this nozzle, on this head, with this material says at a setpoint in °C, and the day
 * of it on the shop's clock; null where none does.
 */
export async function benchFor(
  db: Connection,
  of: { nozzleId: number; headId: number; materialId: number },
  setC: number | null,
): Promise<{ sustained: Sustained; on: string } | null> {
  if (setC === null) return null
  const all = await standingBenches(
    db,
    sql`e.nozzle_id = ${of.nozzleId} and e.head_id = ${of.headId} and e.material_id = ${of.materialId}`,
  )
  const latest = all.findLast(tells)
  const sustained = latest && sustainedFor(latest.result.sustained, setC)
  if (!sustained) return null
  const [day] = await db.execute<{ on: string }>(sql`
    select to_char(${latest.at}::timestamptz at time zone time_zone, 'YYYY-MM-DD') "on" from settings`)
  return { sustained, on: day!.on }
}

/** A bench that tells something. */
export type Telling = StandingBench & { shares: Shares; result: BenchResult }
export const tells = (b: StandingBench): b is Telling => b.shares !== null && b.result !== null

/** The nozzle's own first bench with this material on this head, and what came of it since; null where this is it. */
export function sinceFirst(all: readonly StandingBench[], now: Telling) {
  const first = all
    .filter(tells)
    .find(b => b.nozzleId === now.nozzleId && b.headId === now.headId && b.materialId === now.materialId)
  if (!first || first.id === now.id) return null
  const compared = droppedSince(first, now, now.filament.lengthMm)
  return compared && { id: first.id, at: first.at, compared }
}

/** What a nozzle sustains: its latest telling bench for each head and material, the latest first. */
export async function flowOfNozzle(db: Connection, nozzleId: number): Promise<NozzleFlow[]> {
  const all = await standingBenches(db, sql`e.nozzle_id = ${nozzleId}`)
  const seen = new Set<string>()
  return all
    .filter(tells)
    .reverse()
    .filter(b => {
      const key = `${b.headId} ${b.materialId}`
      return !seen.has(key) && seen.add(key)
    })
    .map(b => {
      const since = sinceFirst(all, b)
      const dropped = since?.compared.dropped
        ? { firstAt: since.at, difference: since.compared.difference, u: since.compared.u }
        : null
      const { headId, place, materialId, material, at, accepted } = b
      return {
        benchId: b.id,
        headId,
        place,
        materialId,
        material,
        at,
        accepted,
        sustained: b.result.sustained,
        dropped,
      }
    })
}
