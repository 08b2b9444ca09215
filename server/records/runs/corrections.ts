/**
 * A correction that reaches back: runs that were logged with what is now said to have been wrong (the material of a
 * spool, a fibre share) are struck out and entered again as they are with what is right, all of them or none.
 */
import { sql } from 'drizzle-orm'
import { grams } from '#core/words'
import { EARLIER_RUNS } from '#shared/choices'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { refreshForecast } from '../nozzles/forecasts'
import { runFacts } from './facts'
import { loggedRuns, runOf, type LoggedRun } from './logged'
import { passedThrough } from './passed'
import { insertRuns, nozzlesOf, type TakenIn } from './runs'

export type RestsOn = { spoolId: number } | { materialId: number }

/** Runs that stand and were printed from a spool, or with a material. */
async function runsOn(tx: Connection, on: RestsOn): Promise<LoggedRun[]> {
  const [column, id] = 'spoolId' in on ? ['spool_id', on.spoolId] : ['material_id', on.materialId]
  return await loggedRuns(tx, sql`r.id in (select run_id from standing_run_tools where ${sql.raw(column!)} = ${id})`)
}

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
  await keepBenches(
    tx,
    ids.map((id, i) => [id, fresh[i]!]),
  )
  for (const nozzleId of nozzlesOf(taken)) await refreshForecast(tx, nozzleId)
}

/** What was a bench's blobs is a bench's again: pairs of the run that was, and the one in its place. */
export async function keepBenches(tx: Connection, pairs: [was: number, is: number][]): Promise<void> {
  await tx.execute(sql`insert into flow_bench_runs (bench_id, run_id)
    select f.bench_id, (p->>1)::bigint from jsonb_array_elements(${JSON.stringify(pairs)}::jsonb) p
    join flow_bench_runs f on f.run_id = (p->>0)::bigint`)
}
