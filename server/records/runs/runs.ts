/**
 * Runs: what a job pushed through which nozzle, saved with the facts as they stood, and what that did to the nozzle.
 */
import type { RunEffect, RunLine } from '#shared/answers/runs'
import { inArray, sql } from 'drizzle-orm'
import { readSurface, surfaceText } from '#core/limits'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { insertEntries, insertMany } from '../../db/many'
import { forecasts, runs, runTools } from '../../db/schema'
import { ask } from '../entry/refusal'
import { fibreLeft, refreshForecast } from '../nozzles/forecasts'
import { runFacts, tookIn } from './facts'
import { saveJob } from './jobs'
import { passedThrough, type Passed, type Run } from './passed'

const ENTERED_AS = { job: 'job file', grams: 'grams', metres: 'metres', weights: 'spool weights' } as const

/** Runs that were taken in, each with what went through. */
export interface TakenIn {
  run: Run
  jobId: number | null
  passed: Passed
}

/** Checks runs one after the other, each as if those before it were logged. */
async function takeIn(tx: Connection, all: readonly Run[], personId: number): Promise<TakenIn[]> {
  const jobIds: (number | null)[] = []
  for (const run of all) jobIds.push(run.job ? (await saveJob(tx, run.job, personId)).id : run.jobId)
  const named = all.map((run, i) => ({ ...run, endedAt: new Date(run.endedAt), jobId: jobIds[i]! }))
  const facts = await runFacts(tx, named)
  return all.map((run, i) => {
    const jobId = jobIds[i]!
    const passed = passedThrough(run, jobId, facts)
    ask(passed.questions, run.confirmed)
    tookIn(facts, { ...run, endedAt: passed.endedAt }, passed.rows)
    return { run, jobId, passed }
  })
}

/** Stores runs that were taken in; answers their ids in the same order. */
export async function insertRuns(tx: Connection, taken: readonly TakenIn[], personId: number): Promise<number[]> {
  const ids = await insertEntries(
    tx,
    runs,
    taken.map(t => runRow(t, personId)),
  )
  const rows = taken.flatMap(({ passed }, i) =>
    passed.rows.map(({ nozzle: _, fittedAt: _at, ...r }) => ({ ...r, runId: ids[i]! })),
  )
  await insertMany(tx, runTools, rows)
  return ids
}
/** As the list of surfaces writes it, where it is one of them. */
function surfaceOf(said: string | null): string | null {
  const known = said === null ? null : readSurface(said)
  return known === null ? said : surfaceText(known)
}
const runRow = ({ run, jobId, passed: { endedAt, scan } }: TakenIn, personId: number) => ({
  printerId: run.printerId,
  jobId,
  name: run.name,
  endedAt,
  hours: run.hours,
  outcome: run.outcome,
  stoppedKind: run.stopped?.kind ?? null,
  stoppedValue: run.stopped?.value ?? null,
  symptoms: run.symptoms,
  enteredAs: ENTERED_AS[run.tools[0]!.amount.kind],
  bedSetC: run.bedSetC ?? scan?.maxSetpointC.bed ?? null,
  chamberSetC: run.chamberSetC ?? scan?.maxSetpointC.chamber ?? null,
  surface: surfaceOf(run.surface),
  precheckId: run.precheckId,
  note: run.note,
  personId,
})

/** The nozzles of runs, each once, in the order in which they are locked. */
export const nozzlesOf = (taken: readonly TakenIn[]): number[] =>
  [...new Set(taken.flatMap(t => t.passed.rows.map(r => r.nozzleId)))].sort((a, b) => a - b)

/**
 * Stores a run and leaves what it did to its nozzles to the background job: for many runs at once (the demo), whose
 * effects nobody waits for.
 */
export async function storeRun(tx: Connection, run: Run, personId: number): Promise<{ runId: number }> {
  const taken = await takeIn(tx, [run], personId)
  const [runId] = await insertRuns(tx, taken, personId)
  await tx
    .update(forecasts)
    .set({ stale: true, moved: null })
    .where(inArray(forecasts.nozzleId, nozzlesOf(taken)))
  return { runId: runId! }
}

/** Stores runs, works each nozzle out once, and says what they did to it. */
export async function saveRuns(
  tx: Connection,
  all: readonly Run[],
  personId: number,
): Promise<{ runIds: number[]; nozzles: RunEffect['nozzles'] }> {
  const taken = await takeIn(tx, all, personId)
  const runIds = await insertRuns(tx, taken, personId)
  const rows = taken.flatMap(t => t.passed.rows)
  const effects: RunEffect['nozzles'] = []
  for (const nozzleId of nozzlesOf(taken)) {
    const { log, forecast } = await refreshForecast(tx, nozzleId)
    const mine = rows.filter(r => r.nozzleId === nozzleId)
    const last = log.lastFilled
    effects.push({
      tag: log.tag,
      fibreG: sum(mine.map(r => r.fibreG)),
      extrudedG: sum(mine.map(r => r.extrudedG)),
      leftFibreKg: last && fibreLeft(forecast.leftKg, last.abrasivity),
      leftMaterial: last?.material ?? null,
      pastChance: forecast.pastChance,
    })
  }
  return { runIds, nozzles: effects }
}

/** Stores a run and says at once what it did to its nozzles. */
export async function saveRun(tx: Connection, run: Run, personId: number): Promise<RunEffect> {
  const { runIds, nozzles } = await saveRuns(tx, [run], personId)
  return { runId: runIds[0]!, nozzles }
}

const sum = (v: number[]) => v.reduce((a, b) => a + b, 0)

/** Runs, newest first; `before` is the cursor of the page before (its last run's id and time). */
export async function listRuns(
  db: Connection,
  limit: number,
  before: { at: string; id: number } | null,
): Promise<{ runs: RunLine[]; next: string | null }> {
  const rows = await db.execute<RunLine & Record<string, unknown>>(sql`
    select r.id::int id, r.name, p.name printer, ${iso('r.ended_at')} "endedAt", r.hours, r.outcome, r.symptoms,
    r.surface, r.entered_as "enteredAs", w.name person, r.note,
      r.stopped_kind "stoppedKind", r.stopped_value "stoppedValue",
      (select json_agg(json_build_object('tool', t.tool, 'nozzle', n.tag, 'spool', s.tag, 'material',
      t.material_name, 'extrudedG', t.extruded_g, 'fibreG', t.fibre_g, 'setC', t.set_c) order by t.tool)
        from run_tools t join nozzles n on n.id = t.nozzle_id left join spools s on s.id = t.spool_id
        where t.run_id = r.id) tools,
      (select json_build_object('reason', k.reason, 'person', kw.name) from strikes k
      join people kw on kw.id = k.person_id where k.target = 'run' and k.target_id = r.id) struck
    from runs r join printers p on p.id = r.printer_id join people w on w.id = r.person_id
    where ${before === null ? sql`true` : sql`(r.ended_at, r.id) < (${before.at}::timestamptz, ${before.id})`}
    order by r.ended_at desc, r.id desc limit ${limit + 1}`)
  const runs = rows.slice(0, limit)
  const last = runs[runs.length - 1]
  return { runs, next: rows.length > limit && last ? `${last.endedAt}~${last.id}` : null }
}
