/**
 * Runs: what a job pushed through which nozzle, saved with the facts as they stood, and what that did to the nozzle.
 */
import type { RunEffect, RunLine } from '#shared/answers/runs'
import { eq, inArray, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { stoppedAt, type FullScan } from '#core/gcode'
import { fibreMassG, lengthForMassMm, massG } from '#core/materials'
import { wearKg } from '#core/wear'
import { filamentOfSpool, readForAnother } from '#shared/filament'
import type { runSchema } from '#shared/entries/runs'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { forecasts, heads, jobs, materials, nozzles, printers, runs, runTools, spools } from '../../db/schema'
import { headAt } from '../printers/fittings'
import { fibreLeft, refreshForecast } from '../nozzles/forecasts'
import { saveJob } from './jobs'
import { ask, notFound, notInFuture, refuseField } from '../entry/refusal'
import { doubtsOfWeight, massOfSpool, notBelowEmpty } from '../spools/mass'
import { spoolRemaining } from '../spools/spools'
import { doubtsOfRun } from './doubts'

type Run = z.output<typeof runSchema>
type Tool = Run['tools'][number]

const ENTERED_AS = { job: 'job file', grams: 'grams', metres: 'metres', weights: 'spool weights' } as const

async function insertRun(
  tx: Connection,
  run: Run,
  personId: number,
): Promise<{ runId: number; rows: Awaited<ReturnType<typeof toolRow>>[]; nozzleIds: number[] }> {
  const endedAt = notInFuture('endedAt', run.endedAt)
  // two runs of one printer do not slip past each other: the second sees the first and is asked about
  const [printer] = await tx.select().from(printers).where(eq(printers.id, run.printerId)).for('no key update')
  if (!printer) notFound('This printer')
  const jobId = run.job ? (await saveJob(tx, run.job, personId)).id : run.jobId
  const scan = jobId === null ? null : await scanOf(tx, jobId)
  if (new Set(run.tools.map(t => t.tool)).size !== run.tools.length) refuseField('tools', 'Each tool number once')
  const questions: Question[] = []
  const rows = []
  for (const [i, tool] of run.tools.entries())
    rows.push(await toolRow(tx, run, tool, `tools.${i}`, scan, endedAt, questions))
  await askAboutSpools(tx, rows, questions)
  questions.push(...(await doubtsOfRun(tx, { hours: run.hours, endedAt }, rows)))
  ask(questions, run.confirmed)
  const enteredAs = ENTERED_AS[run.tools[0]!.amount.kind]
  const [saved] = await tx
    .insert(runs)
    .values({
      printerId: run.printerId,
      jobId,
      name: run.name,
      endedAt,
      hours: run.hours,
      outcome: run.outcome,
      stoppedKind: run.stopped?.kind ?? null,
      stoppedValue: run.stopped?.value ?? null,
      symptoms: run.symptoms,
      enteredAs,
      bedSetC: run.bedSetC ?? scan?.maxSetpointC.bed ?? null,
      chamberSetC: run.chamberSetC ?? scan?.maxSetpointC.chamber ?? null,
      precheckId: run.precheckId,
      note: run.note,
      personId,
    })
    .returning({ id: runs.id })
  const runId = saved!.id
  await tx.insert(runTools).values(rows.map(({ nozzle: _, fittedAt: _at, ...r }) => ({ ...r, runId })))
  const nozzleIds = [...new Set(rows.map(r => r.nozzleId))].sort((a, b) => a - b)
  return { runId, rows, nozzleIds }
}

/**
 * Stores a run and leaves what it did to its nozzles to the background job: for many runs at once (an import, the
 * demo), whose effects nobody waits for.
 */
export async function storeRun(tx: Connection, run: Run, personId: number): Promise<{ runId: number }> {
  const { runId, nozzleIds } = await insertRun(tx, run, personId)
  await tx.update(forecasts).set({ stale: true, moved: null }).where(inArray(forecasts.nozzleId, nozzleIds))
  return { runId }
}

/** Stores a run and says at once what it did to its nozzles. */
export async function saveRun(tx: Connection, run: Run, personId: number): Promise<RunEffect> {
  const { runId, rows, nozzleIds } = await insertRun(tx, run, personId)
  const effects: RunEffect['nozzles'] = []
  for (const nozzleId of nozzleIds) {
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
  return { runId, nozzles: effects }
}

const sum = (v: number[]) => v.reduce((a, b) => a + b, 0)

async function scanOf(tx: Connection, jobId: number): Promise<FullScan> {
  const [job] = await tx.select({ scan: jobs.scan }).from(jobs).where(eq(jobs.id, jobId))
  if (!job) notFound('This job')
  return job.scan
}

async function toolRow(
  tx: Connection,
  run: Run,
  tool: Tool,
  at: string,
  scan: FullScan | null,
  endedAt: Date,
  questions: Question[],
) {
  const [head] = await tx.select().from(heads).where(eq(heads.id, tool.headId))
  if (!head || head.printerId !== run.printerId) refuseField(`${at}.headId`, 'This head is not on that printer')
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, tool.nozzleId))
  if (!nozzle) refuseField(`${at}.nozzleId`, 'This nozzle is not known')
  const fitted = await headAt(tx, tool.headId, endedAt)
  if (fitted?.nozzleId !== tool.nozzleId)
    questions.push({
      code: `not-fitted:${tool.tool}`,
      field: `${at}.nozzleId`,
      message: fitted
        ? `${fitted.tag} was fitted there then, not ${nozzle.tag}. Log it for ${nozzle.tag} all the same?`
        : `No nozzle was fitted there then. Log it for ${nozzle.tag} all the same?`,
    })
  const { spool, material } = await filament(tx, tool, at)
  const {
    densityGCm3: density,
    diameterMm,
    fillerFraction: fraction,
  } = filamentOfSpool(spool, material, scan?.filamentDiameterMm ?? null)
  if (density === null && (tool.amount.kind === 'job' || tool.amount.kind === 'metres'))
    refuseField(
      `${at}.spoolId`,
      `${spool ? spool.tag : material.name} has no density, so a length has no mass. Enter the density of ` +
        `${material.name} in Stores, or log grams`,
    )
  const another = tool.amount.kind === 'job' ? readForAnother(spool, scan?.filamentDiameterMm ?? null) : null
  if (another) refuseField(`${at}.spoolId`, another)
  const { extrudedMm, extrudedG } = amountOf(run, tool, at, scan, diameterMm, density)
  const fibreG = fibreMassG(extrudedG, fraction)
  return {
    tool: tool.tool,
    headId: tool.headId,
    nozzleId: tool.nozzleId,
    nozzle: nozzle.tag,
    fittedAt: fitted?.nozzleId === tool.nozzleId ? fitted.at : null,
    materialId: material.id,
    spoolId: spool?.id ?? null,
    endedAt,
    extrudedMm,
    extrudedG,
    fibreG,
    wearKg: wearKg(extrudedG, fraction, material.abrasivity),
    setC: tool.setC ?? scan?.maxSetpointC.tools[String(tool.tool)] ?? null,
    peakFlowMm3S: scan?.toolFlow?.find(t => t.index === tool.tool)?.peak ?? null,
    densityGCm3: density,
    diameterMm,
    filler: material.filler,
    fillerFraction: fraction,
    abrasivity: material.abrasivity,
    materialName: material.name,
    ...(await weightsOf(tx, tool, at, endedAt, questions)),
  }
}

/** Weights of the spool are weighings like any other: what they say of its mass wins over sums. */
async function weightsOf(tx: Connection, tool: Tool, at: string, endedAt: Date, questions: Question[]) {
  const a = tool.amount
  if (a.kind !== 'weights' || tool.spoolId === null) return { beforeG: null, afterG: null }
  const spool = await massOfSpool(tx, tool.spoolId)
  questions.push(...doubtsOfWeight(spool, a.beforeG, endedAt, `${at}.amount.beforeG`))
  notBelowEmpty(spool.mass, a.afterG, `${at}.amount.afterG`) // lighter than before, so never too heavy
  return { beforeG: a.beforeG, afterG: a.afterG }
}

async function filament(tx: Connection, tool: Tool, at: string) {
  const [spool] = tool.spoolId === null ? [] : await tx.select().from(spools).where(eq(spools.id, tool.spoolId))
  if (tool.spoolId !== null && !spool) refuseField(`${at}.spoolId`, 'This spool is not known')
  const [material] = await tx
    .select()
    .from(materials)
    .where(eq(materials.id, spool?.materialId ?? tool.materialId!))
  if (!material) refuseField(`${at}.materialId`, 'This material is not known')
  return { spool: spool ?? null, material }
}

interface Amount {
  extrudedMm: number | null
  extrudedG: number
}

/**
 * Millimetres and grams that went through, from the job, grams, metres or the spool's weights; less for a job that
 * stopped.
 */
function amountOf(
  run: Run,
  tool: Tool,
  at: string,
  scan: FullScan | null,
  diameterMm: number,
  density: number | null,
): Amount {
  const a = tool.amount
  const ofMass = (g: number): Amount => ({
    extrudedG: g,
    extrudedMm: density === null ? null : lengthForMassMm(g, diameterMm, density),
  })
  // a length is refused without a density
  const ofLength = (mm: number): Amount => ({ extrudedMm: mm, extrudedG: massG(mm, diameterMm, density!) })
  if (a.kind === 'grams') return ofMass(a.grams)
  if (a.kind === 'weights') return ofMass(a.beforeG - a.afterG)
  if (a.kind === 'metres') return ofLength(a.metres * 1000)
  if (!scan) refuseField(`${at}.amount`, 'Choose the job file, or enter grams, metres or spool weights')
  const planned = scan.tools.find(t => t.index === tool.tool)
  if (!planned) refuseField(`${at}.tool`, `The job has no tool ${tool.tool}`)
  // a weighed print is shared among the tools as the whole job would have been
  if (run.stopped?.kind === 'weighed') return ofMass((run.stopped.value * planned.extrudedMm) / scan.totalExtrudedMm!)
  if (!run.stopped) return ofLength(planned.extrudedMm)
  if (!scan.profile) refuseField('stopped', 'This scan keeps no 1 % steps; weigh the print instead')
  const stop = run.stopped.kind === 'percent' ? { percent: run.stopped.value } : { heightMm: run.stopped.value }
  return ofLength(
    stoppedAt({ tools: scan.tools, profile: scan.profile }, stop).tools.find(t => t.index === tool.tool)!.extrudedMm,
  )
}

async function askAboutSpools(
  tx: Connection,
  rows: { spoolId: number | null; extrudedG: number }[],
  questions: Question[],
): Promise<void> {
  for (const spoolId of new Set(rows.map(r => r.spoolId))) {
    if (spoolId === null) continue
    const used = sum(rows.filter(r => r.spoolId === spoolId).map(r => r.extrudedG))
    const left = await spoolRemaining(tx, spoolId)
    if (used > left.g + 0.5)
      questions.push({
        code: `over-spool:${spoolId}`,
        field: `tools.${rows.findIndex(r => r.spoolId === spoolId)}.amount`,
        message:
          `${used.toFixed(0)} g is more than the ${Math.max(0, left.g).toFixed(0)} g left on ` +
          `${left.tag}. Is that right?`,
      })
  }
}

/** Runs, newest first; `before` is the cursor of the page before (its last run's id and time). */
export async function listRuns(
  db: Connection,
  limit: number,
  before: { at: string; id: number } | null,
): Promise<{ runs: RunLine[]; next: string | null }> {
  const rows = await db.execute<RunLine & Record<string, unknown>>(sql`
    select r.id::int id, r.name, p.name printer, ${iso('r.ended_at')} "endedAt", r.hours, r.outcome, r.symptoms,
    r.entered_as "enteredAs", w.name person, r.note,
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
