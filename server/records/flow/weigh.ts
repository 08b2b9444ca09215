/** Blobs of a bench weighed one by one, what is measured of its filament, and its end, which logs it as a run. */
import { sql } from 'drizzle-orm'
import type { z } from 'zod'
import { blobSeconds, nominalOf, panMoved, PRIME_MM, PRIME_MM3S } from '#core/flow'
import { massG } from '#core/materials'
import { grams, percent } from '#core/words'
import type { BlobEffect } from '#shared/answers/flow'
import type { blobSchema, filamentMeasureSchema } from '#shared/entries/flow'
import { runSchema } from '#shared/entries/runs'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { filamentMeasures, flowBenchRuns, flowBlobs } from '../../db/schema'
import { ask, notInFuture, refuseField } from '../entry/refusal'
import { saveRun } from '../runs/runs'
import { standingBenches, type StandingBench } from './told'

/** A bench that may still be weighed into; the second of two at once sees what the first left. */
async function openBench(tx: Connection, benchId: number): Promise<StandingBench> {
  await tx.execute(sql`select id from flow_benches where id = ${benchId} for no key update`)
  const [bench] = await standingBenches(tx, sql`e.id = ${benchId}`)
  if (!bench) refuseField('benchId', 'This bench is not known, or struck out')
  return bench
}
async function refuseEnded(tx: Connection, benchId: number): Promise<void> {
  const [ended] = await tx.execute(sql`select id from endings where target = 'flow bench' and target_id = ${benchId}`)
  if (ended) refuseField('benchId', 'This bench has ended and is logged as a run; begin another')
}

/** A share outside these is a slip of the hand until somebody says otherwise. */
const LIKELY_SHARE = [0.4, 1.15] as const

export async function saveBlob(tx: Connection, b: z.output<typeof blobSchema>, personId: number): Promise<BlobEffect> {
  const occurredAt = notInFuture('occurredAt', b.occurredAt)
  const bench = await openBench(tx, b.benchId)
  await refuseEnded(tx, b.benchId)
  if (b.line >= bench.lines.length) refuseField('line', `This bench has ${bench.lines.length} blobs`)
  if (bench.blobs.has(b.line))
    refuseField('line', `Blob ${b.line + 1} is weighed already; strike that out to repeat it`)
  const [before] = await tx.execute<{ pan_g: number }>(sql`
    select pan_g from flow_blobs where bench_id = ${b.benchId} order by id desc limit 1`)
  const nominalG = nominalOf(bench.filament).massG
  const questions: Question[] = []
  if (before && panMoved(before.pan_g, b.panG, bench.balanceStepG))
    questions.push({
      code: 'pan',
      field: 'panG',
      message: `The empty pan read ${before.pan_g} g before and ${b.panG} g now. Is that right?`,
    })
  const share = (b.grossG - b.panG) / nominalG
  if (share < LIKELY_SHARE[0] || share > LIKELY_SHARE[1])
    questions.push({
      code: 'far-off',
      field: 'grossG',
      message:
        `${grams(b.grossG - b.panG)} is ${percent(share)} of the ${grams(nominalG)} that was told to come out. ` +
        `Is it blob ${b.line + 1}, whole, and is the pan taken off?`,
    })
  ask(questions, b.confirmed)
  const [row] = await tx
    .insert(flowBlobs)
    .values({
      benchId: b.benchId,
      line: b.line,
      grossG: b.grossG,
      panG: b.panG,
      note: b.note,
      occurredAt,
      personId,
    })
    .returning({ id: flowBlobs.id })
  return {
    id: row!.id,
    massG: b.grossG - b.panG,
    share,
    left: bench.lines.length - bench.blobs.size - 1,
  }
}

export async function saveFilamentMeasure(
  tx: Connection,
  m: z.output<typeof filamentMeasureSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', m.occurredAt)
  const bench = await openBench(tx, m.benchId)
  const { diameterMm } = bench.filament
  const far = (m.callipersMm ?? []).find(mm => Math.abs(mm - diameterMm) > 0.15)
  if (far !== undefined)
    ask(
      [
        {
          code: 'another-filament',
          field: 'callipersMm',
          message: `${far} mm is far from the ${diameterMm} mm of this spool. Is it the same filament?`,
        },
      ],
      m.confirmed,
    )
  const [row] = await tx
    .insert(filamentMeasures)
    .values({
      benchId: m.benchId,
      callipersMm: m.callipersMm,
      toldMm: m.mark?.toldMm ?? null,
      fedMm: m.mark?.fedMm ?? null,
      note: m.note,
      occurredAt,
      personId,
    })
    .returning({ id: filamentMeasures.id })
  return row!
}

interface Ended extends Record<string, unknown> {
  printer_id: number
  tool: number | null
  /** All that was weighed, struck out and repeated ones too: it went through the nozzle. */
  weighed_g: number | null
  weighed: number[]
  at: string
}

/** A bench is a run like any other: what was weighed went off the spool and through the nozzle. */
export async function logBenchAsRun(
  tx: Connection,
  benchId: number,
  end: { outcome: 'done' | 'stopped early'; note: string; confirmed: string[] },
  personId: number,
): Promise<void> {
  const [bench] = await standingBenches(tx, sql`e.id = ${benchId}`)
  if (!bench) refuseField('targetId', 'This bench is not known, or struck out')
  const left = bench.lines.length - bench.blobs.size
  if (end.outcome === 'done' && left > 0)
    refuseField('outcome', `${left} of ${bench.lines.length} blobs are not weighed; end it early, or weigh them`)
  const [e] = await tx.execute<Ended>(sql`
    select h.printer_id, b.tool, sum(w.gross_g - w.pan_g) weighed_g,
      coalesce(json_agg(w.line) filter (where w.id is not null), '[]') weighed, ${iso('max(w.occurred_at)')} "at"
    from flow_benches b join heads h on h.id = b.head_id left join flow_blobs w on w.bench_id = b.id
    where b.id = ${benchId} group by h.printer_id, b.id`)
  if (e!.weighed_g === null) return // nothing came out that anybody weighed
  const { diameterMm, densityGCm3, lengthMm } = bench.filament
  const through = e!.weighed.map(line => bench.lines[line]!)
  const temperatures = [...new Set(through.map(([c]) => c))]
  const seconds =
    through.reduce((t, [, flow]) => t + blobSeconds(flow, lengthMm, diameterMm), 0) +
    temperatures.length * blobSeconds(PRIME_MM3S, PRIME_MM, diameterMm)
  const { runId } = await saveRun(
    tx,
    runSchema.parse({
      printerId: e!.printer_id,
      name: `Flow bench of ${bench.nozzle}`,
      endedAt: e!.at, // the nozzle that was there then
      hours: Number((seconds / 3600).toFixed(2)),
      outcome: 'finished',
      tools: [
        {
          tool: e!.tool ?? 0,
          headId: bench.headId,
          nozzleId: bench.nozzleId,
          spoolId: bench.spoolId,
          amount: {
            kind: 'grams',
            grams: e!.weighed_g + temperatures.length * massG(PRIME_MM, diameterMm, densityGCm3),
          },
          setC: Math.max(...temperatures),
        },
      ],
      note: end.note,
      confirmed: end.confirmed,
    }),
    personId,
  )
  await tx.insert(flowBenchRuns).values({ benchId, runId })
}
