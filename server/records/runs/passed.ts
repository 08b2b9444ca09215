/** What went through which nozzle in a run: worked out from what the shop knows, or refused, or asked about. */
import type { z } from 'zod'
import { stoppedAt, type FullScan } from '#core/gcode'
import { fibreMassG, lengthForMassMm, massG } from '#core/materials'
import { wearKg } from '#core/wear'
import { filamentOfSpool, readForAnother } from '#shared/filament'
import type { runSchema } from '#shared/entries/runs'
import type { Question } from '#shared/problem'
import { notFound, notInFuture, refuseField } from '../entry/refusal'
import { doubtOfUse, doubtsOfWeight, notBelowEmpty } from '../spools/mass'
import { doubtsOfRun } from './doubts'
import type { RunFacts } from './facts'

/** A run as it is sent, without what it takes the place of. */
export type Run = Omit<z.output<typeof runSchema>, 'replaces'>
type Tool = Run['tools'][number]

/** Rows of a run and what is asked about it; `jobId` is that of its job, stored or new. */
export function passedThrough(run: Run, jobId: number | null, facts: RunFacts) {
  const endedAt = notInFuture('endedAt', run.endedAt)
  if (!facts.printers.has(run.printerId)) notFound('This printer')
  const scan = jobId === null ? null : (facts.scans.get(jobId) ?? notFound('This job'))
  if (new Set(run.tools.map(t => t.tool)).size !== run.tools.length) refuseField('tools', 'Each tool number once')
  const questions: Question[] = []
  const rows = run.tools.map((tool, i) => toolRow(run, tool, `tools.${i}`, { scan, endedAt, facts, questions }))
  askAboutSpools(rows, endedAt, facts, questions)
  questions.push(...doubtsOfRun(facts, { hours: run.hours, endedAt }, rows))
  return { endedAt, scan, rows, questions }
}
export type Passed = ReturnType<typeof passedThrough>

interface Around {
  scan: FullScan | null
  endedAt: Date
  facts: RunFacts
  questions: Question[]
}

function toolRow(run: Run, tool: Tool, at: string, around: Around) {
  const { scan, endedAt, facts, questions } = around
  const head = facts.heads.get(tool.headId)
  if (!head || head.printerId !== run.printerId) refuseField(`${at}.headId`, 'This head is not on that printer')
  const tag = facts.nozzles.get(tool.nozzleId) ?? refuseField(`${at}.nozzleId`, 'This nozzle is not known')
  const fitted = facts.fittedAt(tool.headId, endedAt)
  if (fitted?.nozzleId !== tool.nozzleId)
    questions.push({
      code: `not-fitted:${tool.tool}`,
      field: `${at}.nozzleId`,
      message: fitted
        ? `${fitted.tag} was fitted there then, not ${tag}. Log it for ${tag} all the same?`
        : `No nozzle was fitted there then. Log it for ${tag} all the same?`,
    })
  const { spool, material } = filament(tool, at, facts)
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
    nozzle: tag,
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
    ...weightsOf(tool, at, around),
  }
}

/** Weights of the spool are weighings like any other: what they say of its mass wins over sums. */
function weightsOf(tool: Tool, at: string, { endedAt, facts, questions }: Around) {
  const a = tool.amount
  const spool = tool.spoolId === null ? undefined : facts.masses.get(tool.spoolId)
  if (a.kind !== 'weights' || !spool) return { beforeG: null, afterG: null }
  questions.push(...doubtsOfWeight(spool, a.beforeG, endedAt, `${at}.amount.beforeG`))
  notBelowEmpty(spool.mass, a.afterG, `${at}.amount.afterG`) // lighter than before, so never too heavy
  return { beforeG: a.beforeG, afterG: a.afterG }
}

function filament(tool: Tool, at: string, facts: RunFacts) {
  const spool = tool.spoolId === null ? undefined : facts.spools.get(tool.spoolId)
  if (tool.spoolId !== null && !spool) refuseField(`${at}.spoolId`, 'This spool is not known')
  const material = facts.materials.get(spool?.materialId ?? tool.materialId!)
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

/** Whether there was so much on each spool. */
function askAboutSpools(
  rows: readonly { spoolId: number | null; extrudedG: number }[],
  endedAt: Date,
  facts: RunFacts,
  questions: Question[],
): void {
  for (const spoolId of new Set(rows.map(r => r.spoolId))) {
    if (spoolId === null) continue
    const used = rows.reduce((g, r) => (r.spoolId === spoolId ? g + r.extrudedG : g), 0)
    const field = `tools.${rows.findIndex(r => r.spoolId === spoolId)}.amount`
    const doubt = doubtOfUse(facts.masses.get(spoolId)!, used, endedAt)
    if (doubt) questions.push({ code: `over-spool:${spoolId}`, field, message: doubt })
  }
}
