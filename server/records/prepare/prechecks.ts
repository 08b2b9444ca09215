/** The check before a run: the lines made by the core of the facts, stored with the answers. */
import type { CheckOfRun, PrecheckAnswer, StoredCheck } from '#shared/answers/prepare'
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { cautionsFor, printing } from '#core/cautions'
import { precheck, verdictOf, type CheckKey } from '#core/precheck'
import type { precheckSchema } from '#shared/entries/prepare'
import { jobSchema } from '#shared/entries/runs'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { prechecks } from '../../db/schema'
import { jobOfContent, saveJob } from '../runs/jobs'
import { notFound, notInFuture, Refusal } from '../entry/refusal'
import { gatherFacts } from './precheck-facts'

type Precheck = z.output<typeof precheckSchema>

const SEVERAL: readonly string[] = ['ready', 'limits', 'own', 'after'] satisfies CheckKey[]

export async function makePrecheck(db: Connection, q: Precheck, now = new Date()): Promise<PrecheckAnswer> {
  const { facts, material, stack, demand, rules } = await gatherFacts(db, q, now)
  const lines = precheck(facts)
  return {
    lines,
    // where there are several of a kind they differ by their words alone
    seen: lines.map(l => `${l.key}:${l.status}${SEVERAL.includes(l.key) ? `:${l.says}` : ''}`),
    cautions: cautionsFor(printing(stack, demand, rules)).map(({ key, hazard, what }) => ({ key, hazard, what })),
    material: material.name,
    hours: facts.job.hours,
    massG: facts.job.massG,
  }
}

export async function savePrecheck(
  tx: Connection,
  q: Precheck,
  personId: number,
): Promise<{ id: number; may: boolean }> {
  const occurredAt = notInFuture('occurredAt', q.occurredAt)
  const made = await makePrecheck(tx, q)
  if (q.seen !== null && q.seen.join() !== made.seen.join())
    throw new Refusal({
      type: 'urn:iron-nozzle:field',
      status: 422,
      title: 'Something changed since you looked: check the lines again',
      errors: [{ field: 'seen', message: 'Something changed since you looked: check the lines again' }],
    })
  const { may } = verdictOf(made.lines, q.answers)
  // the file itself stays where it was read: what it holds is kept, so that its run can be logged from any screen
  const job = jobSchema.safeParse(q)
  if (job.success) await saveJob(tx, job.data, personId)
  const [row] = await tx
    .insert(prechecks)
    .values({
      printerId: q.printerId,
      headId: q.headId,
      spoolId: q.spoolId,
      materialId: q.materialId,
      name: q.name,
      contentSha256: q.contentSha256,
      hours: made.hours,
      printsFrom: q.printsFrom,
      tool: q.tool,
      setC: q.setC,
      lines: made.lines,
      answers: q.answers,
      may,
      note: q.note,
      occurredAt,
      personId,
    })
    .returning({ id: prechecks.id })
  return { id: row!.id, may }
}

export async function precheckPage(db: Connection, id: number): Promise<StoredCheck> {
  const [row] = await db.select().from(prechecks).where(eq(prechecks.id, id))
  if (!row) notFound('This check')
  const [names] = await db.execute<{
    printer: string
    head: string
    spool: string | null
    material: string
    person: string
    run: number | null
  }>(sql`
    select p.name printer, h.name head, s.tag spool, m.name material, u.name person, (select r.id::int
    from standing_runs r where r.precheck_id = ${id} order by r.id limit 1) run
    from prechecks c join printers p on p.id = c.printer_id join heads h on h.id = c.head_id
    left join spools s on s.id = c.spool_id join materials m on m.id = c.material_id
    join people u on u.id = c.person_id where c.id = ${id}`)
  // the job goes along when the shop has it, so that the run can be logged from the check
  const job = row.contentSha256 === null ? null : await jobOfContent(db, row.contentSha256)
  return { ...row, ...names!, occurredAt: row.occurredAt.toISOString(), job }
}

export async function listChecks(db: Connection): Promise<CheckOfRun[]> {
  return await db.execute<CheckOfRun & Record<string, unknown>>(sql`
    select c.id::int, c.name, p.name printer, s.tag spool, c.may, ${iso('c.occurred_at')} at, u.name person,
    (select r.id::int from standing_runs r where r.precheck_id = c.id order by r.id limit 1) run
    from prechecks c join printers p on p.id = c.printer_id left join spools s on s.id = c.spool_id
    join people u on u.id = c.person_id order by c.occurred_at desc, c.id desc limit 20`)
}
