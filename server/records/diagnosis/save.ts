/** Cases are opened, added to and closed. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { answerOf, posterior, testsThatSpeakFor } from '#core/diagnosis'
import type { caseSchema, closingSchema, findingSchema } from '#shared/entries/diagnosis'
import type { Connection } from '../../db/client'
import { caseClosings, caseFindings, cases, spools } from '../../db/schema'
import { ask, notInFuture, refuseField } from '../entry/refusal'
import { spoolOn } from '../flow/plan'
import { keepBlob } from '../pictures/blobs'
import { headAt } from '../printers/fittings'
import { knownOf } from './known'
import { casesOf, clearedClogs, findingsOf, standingClosings, workedOut, type CaseRow } from './rows'

/** Opens a case with what was seen; nozzle, spool and filament are the run's, or what is on the head. */
export async function addCase(
  tx: Connection,
  c: z.output<typeof caseSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', c.occurredAt)
  const [head] = await tx.execute(sql`select id from heads where id = ${c.headId}`)
  if (!head) refuseField('headId', 'This head is not known')
  if (c.afterId !== null) {
    const [before] = await standingClosings(tx, sql`c.id = ${c.afterId}`)
    if (!before) refuseField('afterId', 'The case before is not known, or is not closed')
  }
  const on = c.runId === null ? await onHead(tx, c, occurredAt) : await ofRun(tx, c.headId, c.runId)
  const picture = c.picture === null ? null : await keepBlob(tx, 'picture', c.picture)
  const { headId, runId, afterId, note } = c
  const [row] = await tx
    .insert(cases)
    .values({ headId, runId, afterId, note, ...on, picture, occurredAt, personId })
    .returning({ id: cases.id })
  const found = (keys: readonly string[], state: string) =>
    keys.map(key => ({ caseId: row!.id, kind: 'sign' as const, key, state, occurredAt, personId }))
  await tx.insert(caseFindings).values([...found(c.seen, 'there'), ...found(c.not, 'not there')])
  return row!
}

interface On {
  nozzleId: number | null
  spoolId: number | null
  materialId: number | null
}
async function ofRun(tx: Connection, headId: number, runId: number): Promise<On> {
  const [tool] = await tx.execute<On & Record<string, unknown>>(sql`
    select nozzle_id "nozzleId", spool_id "spoolId", material_id "materialId" from standing_run_tools
    where run_id = ${runId} and head_id = ${headId} order by tool limit 1`)
  if (!tool) refuseField('runId', 'This run is not known there, or it is struck out')
  return tool
}
async function onHead(tx: Connection, c: z.output<typeof caseSchema>, at: Date): Promise<On> {
  const fitted = await headAt(tx, c.headId, at)
  const spoolId = c.spoolId ?? (await spoolOn(tx, c.headId))
  const [spool] = spoolId === null ? [] : await tx.select().from(spools).where(eq(spools.id, spoolId))
  if (spoolId !== null && !spool) refuseField('spoolId', 'This spool is not known')
  return { nozzleId: fitted?.nozzleId ?? null, spoolId, materialId: spool?.materialId ?? null }
}

/** A case that findings and closings may still be added to. */
async function openCase(tx: Connection, caseId: number): Promise<void> {
  const [row] = await tx.execute<{ struck: boolean; closed: boolean }>(sql`
    select exists (select from strikes s where s.target = 'case' and s.target_id = c.id) struck,
      exists (select from standing_case_closings l where l.case_id = c.id) closed
    from cases c where c.id = ${caseId} for no key update`)
  if (!row) refuseField('caseId', 'This case is not known')
  if (row.struck) refuseField('caseId', 'This case is struck out')
  if (row.closed) refuseField('caseId', 'This case is closed; strike out how it was closed to go on with it')
}

export async function saveFinding(
  tx: Connection,
  f: z.output<typeof findingSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', f.occurredAt)
  await openCase(tx, f.caseId)
  const [row] = await tx
    .insert(caseFindings)
    .values({ ...f, occurredAt, personId })
    .returning({ id: caseFindings.id })
  return row!
}

/** Closes a case; what was said of it is kept as it was, with what that rested on. */
export async function saveClosing(
  tx: Connection,
  c: z.output<typeof closingSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', c.occurredAt)
  await openCase(tx, c.caseId)
  const [of] = await casesOf(tx, sql`c.id = ${c.caseId}`)
  if (occurredAt.getTime() < Date.parse(of!.at)) refuseField('occurredAt', 'This is before the case was opened')
  const made = await workedOut(tx, of!, {
    facts: await knownOf(tx, of!, occurredAt),
    closed: await standingClosings(tx),
    clogs: await clearedClogs(tx),
    findings: await findingsOf(tx, sql`f.case_id = ${c.caseId}`),
  })
  if (c.known === 'by a test' && testsThatSpeakFor(c.cause, made.evidence.tests, made.start).length === 0)
    refuseField('known', `No test of this case speaks for ${c.cause}: make one, or say that it is assumed`)
  if (c.known === 'by a repair') await askAboutRepair(tx, of!, c)
  const before = answerOf(posterior(made.start, { ...made.evidence, tests: {} }))
  const { caseId, cause, known, how, note } = c
  const said = { start: made.start, told: made.told, answer: made.answer, ledBefore: before.order[0]!.cause }
  const [row] = await tx
    .insert(caseClosings)
    .values({ caseId, cause, known, how, note, said, occurredAt, personId })
    .returning({ id: caseClosings.id })
  return row!
}

/** A repair proves something when it printed well after it. */
async function askAboutRepair(tx: Connection, of: CaseRow, c: z.output<typeof closingSchema>): Promise<void> {
  const [well] = await tx.execute(sql`
    select r.id from standing_runs r join run_tools t on t.run_id = r.id where t.head_id = ${of.headId}
    and r.outcome = 'finished' and r.symptoms = '{}' and r.ended_at > ${of.at}::timestamptz limit 1`)
  if (!well)
    ask(
      [
        {
          code: 'no-run-since',
          field: 'known',
          message:
            `No good run is logged on ${of.place} since this case was opened. ` + 'Did it print well after the repair?',
        },
      ],
      c.confirmed,
    )
}
