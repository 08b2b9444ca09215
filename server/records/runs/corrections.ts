/**
 * A correction that reaches back: runs that were logged with what is now said to have been wrong (the material of a
 * spool, a fibre share) are struck out and entered again as they are with what is right, all of them or none.
 */
import { sql } from 'drizzle-orm'
import { grams } from '#core/words'
import { EARLIER_RUNS } from '#shared/entries/edits'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso } from '../../db/iso'
import { refreshForecast } from '../nozzles/forecasts'
import { runFacts } from './facts'
import { passedThrough, type Run } from './passed'
import { insertRuns, nozzlesOf, type TakenIn } from './runs'

interface LoggedTool {
  tool: number
  headId: number
  nozzleId: number
  spoolId: number | null
  materialId: number
  extrudedMm: number | null
  extrudedG: number
  fibreG: number
  wearKg: number
  setC: number | null
  diameterMm: number
  materialName: string
  beforeG: number | null
  afterG: number | null
}
interface LoggedRun extends Record<string, unknown> {
  id: number
  printerId: number
  jobId: number | null
  name: string
  endedAt: string
  hours: number | null
  outcome: Run['outcome']
  stopped: Run['stopped']
  symptoms: Run['symptoms']
  enteredAs: string
  bedSetC: number | null
  chamberSetC: number | null
  precheckId: number | null
  note: string
  tools: LoggedTool[]
}
export type RestsOn = { spoolId: number } | { materialId: number }

/** Runs that stand and were printed from a spool, or with a material. */
async function runsOn(tx: Connection, on: RestsOn): Promise<LoggedRun[]> {
  const [column, id] = 'spoolId' in on ? ['spool_id', on.spoolId] : ['material_id', on.materialId]
  return await tx.execute<LoggedRun>(sql`
    select r.id::int, r.printer_id "printerId", r.job_id::int "jobId", r.name, ${iso('r.ended_at')} "endedAt", r.hours,
      r.outcome, case when r.stopped_kind is not null then json_build_object('kind', r.stopped_kind, 'value',
      r.stopped_value) end stopped, r.symptoms, r.entered_as "enteredAs", r.bed_set_c "bedSetC",
      r.chamber_set_c "chamberSetC", r.precheck_id::int "precheckId", r.note,
      (select json_agg(json_build_object('tool', t.tool, 'headId', t.head_id, 'nozzleId', t.nozzle_id,
        'spoolId', t.spool_id, 'materialId', t.material_id, 'extrudedMm', t.extruded_mm, 'extrudedG', t.extruded_g,
        'fibreG', t.fibre_g, 'wearKg', t.wear_kg, 'setC', t.set_c, 'diameterMm', t.diameter_mm,
        'materialName', t.material_name, 'beforeG', t.before_g, 'afterG', t.after_g) order by t.tool)
        from run_tools t where t.run_id = r.id) tools
    from standing_runs r where r.id in (select run_id from standing_run_tools where ${sql.raw(column!)} = ${id})
    order by r.ended_at, r.id`)
}

/** What was known of the amount: it stays, and what is worked out from it may be something else now. */
function amountOf(r: LoggedRun, t: LoggedTool): Run['tools'][number]['amount'] {
  if (t.beforeG !== null && t.afterG !== null) return { kind: 'weights', beforeG: t.beforeG, afterG: t.afterG }
  const isLength = r.enteredAs === 'job file' || r.enteredAs === 'metres'
  if (isLength && t.extrudedMm !== null) return { kind: 'metres', metres: t.extrudedMm / 1000 }
  return { kind: 'grams', grams: t.extrudedG }
}
const runOf = (r: LoggedRun): Run => ({
  ...r,
  job: null,
  tools: r.tools.map(t => ({
    tool: t.tool,
    headId: t.headId,
    nozzleId: t.nozzleId,
    spoolId: t.spoolId,
    materialId: t.materialId,
    setC: t.setC,
    amount: amountOf(r, t),
  })),
  confirmed: [],
})

/** A run as it is logged, and as it would be. */
interface Correction {
  was: LoggedRun
  is: TakenIn
}

/** Runs that would be others if they were entered today. What was asked when they were logged is not asked again. */
export async function correctionsOf(tx: Connection, on: RestsOn): Promise<Correction[]> {
  const logged = await runsOn(tx, on)
  if (logged.length === 0) return []
  const all = logged.map(runOf)
  const facts = await runFacts(
    tx,
    all.map(run => ({ ...run, endedAt: new Date(run.endedAt) })),
  )
  return logged.flatMap((was, i) => {
    const run = all[i]!
    const passed = passedThrough(run, run.jobId, facts)
    const isOther = passed.rows.some((row, k) => {
      const t = was.tools[k]!
      const figures = [row.extrudedG - t.extrudedG, row.fibreG - t.fibreG, row.wearKg - t.wearKg]
      return row.materialId !== t.materialId || figures.some(d => Math.abs(d) > LEAST)
    })
    return isOther ? [{ was, is: { run, jobId: run.jobId, passed } }] : []
  })
}
/** Less than binary figures differ by is no difference, g and kg. */
const LEAST = 1e-9

const MOST_NAMED = 40
const fibre = (rows: readonly { fibreG: number }[]) => rows.reduce((g, r) => g + r.fibreG, 0)
const materials = (rows: readonly { materialName: string }[]) => [...new Set(rows.map(r => r.materialName))].join(', ')

/** What is asked where runs were logged with what is corrected: each of them, as it is and as it would be. */
export function questionOf(corrections: readonly Correction[], field: string): Question {
  const n = corrections.length
  const items = corrections.slice(0, MOST_NAMED).map(({ was, is }) => {
    const [before, after] = [was.tools, is.passed.rows]
    return (
      `${was.endedAt} ${was.name}: ${materials(before)}, ${grams(fibre(before))} fibre → ` +
      `${materials(after)}, ${grams(fibre(after))} fibre`
    )
  })
  return {
    code: 'earlier-runs',
    field,
    message: `${n} ${n === 1 ? 'run was' : 'runs were'} logged with what is corrected here. What was it then?`,
    items: n > MOST_NAMED ? [...items, `and ${n - MOST_NAMED} more`] : items,
    choices: [
      {
        code: EARLIER_RUNS.correct,
        label: `It was so then too: strike ${n === 1 ? 'that run' : `these ${n} runs`} out and enter as it was`,
        hint: 'Forecasts and what is left on spools follow',
      },
      { code: EARLIER_RUNS.keep, label: 'It is so from now on: what is logged stays' },
    ],
  }
}
export const isToCorrect = (confirmed: readonly string[]): boolean => confirmed.includes(EARLIER_RUNS.correct)

/** Strikes them out and enters them again; each nozzle is worked out once. */
export async function correct(
  tx: Connection,
  corrections: readonly Correction[],
  reason: string,
  personId: number,
): Promise<void> {
  const ids = corrections.map(c => c.was.id)
  await tx.execute(sql`insert into strikes (target, target_id, reason, person_id)
    select 'run', r.id, ${reason}, ${personId} from runs r where ${idIn('r.id', ids)} order by r.id`)
  const taken = corrections.map(c => c.is)
  const fresh = await insertRuns(tx, taken, personId)
  // what was a bench's blobs is a bench's again
  const pairs = JSON.stringify(ids.map((id, i) => [id, fresh[i]]))
  await tx.execute(sql`insert into flow_bench_runs (bench_id, run_id)
    select f.bench_id, (p->>1)::bigint from jsonb_array_elements(${pairs}::jsonb) p
    join flow_bench_runs f on f.run_id = (p->>0)::bigint`)
  for (const nozzleId of nozzlesOf(taken)) await refreshForecast(tx, nozzleId)
}
