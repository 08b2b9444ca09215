/**
 * Strike out and enter again: what was entered, as it was sent, for the form to start from; and the strike that goes
 * with the entry that takes its place, in one transaction.
 */
import { eq, sql } from 'drizzle-orm'
import type { Entered, EnteredKind, EnteredOf } from '#shared/answers/again'
import type { Connection } from '../../db/client'
import { fittings, gauges, people, sensorChecks, spoolEvents } from '../../db/schema'
import { blobBase64 } from '../pictures/blobs'
import { jobPage } from '../runs/jobs'
import { loggedRuns, runOf } from '../runs/logged'
import { notFound, Refusal } from './refusal'
import { saveStrike } from './strikes'

/** What an entry carries that takes the place of another. */
export interface Replacing {
  replaces: { id: number; reason: string } | null
  confirmed: string[]
}

/** Strikes out what an entry takes the place of; what is refused of that is said at `replaces`. */
export async function strikeReplaced(
  tx: Connection,
  target: EnteredKind,
  { replaces, confirmed }: Replacing,
  personId: number,
): Promise<void> {
  if (replaces === null) return
  try {
    await saveStrike(tx, { target, targetId: replaces.id, reason: replaces.reason, confirmed }, personId)
  } catch (error) {
    if (!(error instanceof Refusal) || !error.problem.errors) throw error
    const errors = error.problem.errors.map(e => ({ ...e, field: 'replaces.reason' }))
    throw new Refusal({ ...error.problem, errors })
  }
}

/** What is asked and struck is of the entry that is made now. */
const NEW = { confirmed: [], replaces: null }
interface Row {
  id: number
  personId: number
  recordedAt: Date
  occurredAt: Date
}
/** What was sent of a row, without what the log added. */
function sentOf<T extends Row>(row: T) {
  const { id: _id, personId: _by, recordedAt: _at, occurredAt, ...sent } = row
  return { ...sent, occurredAt: occurredAt.toISOString(), ...NEW }
}

/** An entry and who made it. */
async function whose<T extends Row>(db: Connection, rows: Promise<T[]>): Promise<{ entry: T; person: string } | null> {
  const [entry] = await rows
  if (!entry) return null
  const [by] = await db.select({ name: people.name }).from(people).where(eq(people.id, entry.personId))
  return { entry, person: by!.name }
}

async function runAs(db: Connection, id: number): Promise<EnteredOf<'run'> | null> {
  const [run] = await loggedRuns(db, sql`r.id = ${id}`)
  if (!run) return null
  const ofFile = run.enteredAs === 'job file' && run.jobId !== null
  const sent = runOf(run)
  const tools = sent.tools.map(t => ({
    ...t,
    materialId: t.spoolId === null ? t.materialId : null,
    amount: ofFile ? ({ kind: 'job' } as const) : t.amount,
  }))
  // a file goes with its run, so that another can be dropped instead
  const job = ofFile ? ((await jobPage(db, run.jobId!)) as unknown as EnteredOf<'run'>['body']['job']) : null
  const body = { ...sent, ...NEW, job, jobId: job ? null : run.jobId, tools }
  return { kind: 'run', id, at: run.endedAt, person: run.person, body }
}

async function gaugeAs(db: Connection, id: number): Promise<EnteredOf<'gauge'> | null> {
  const found = await whose(db, db.select().from(gauges).where(eq(gauges.id, id)).execute())
  if (!found) return null
  const { setupId, uSharedMm, picture, blob, kind: _, ...g } = sentOf(found.entry)
  const body: EnteredOf<'gauge'>['body'] = {
    ...g,
    shape: g.shape as EnteredOf<'gauge'>['body']['shape'],
    // of pins it was worked out, not entered
    uMm: g.valueMm === null ? null : g.uMm,
    picture:
      picture === null || blob === null
        ? null
        : {
            ...{ ...picture, setupId: setupId!, uSharedMm: uSharedMm! },
            crop: { ...picture.crop, base64: await blobBase64(db, blob) },
          },
  }
  return { kind: 'gauge', id, at: g.occurredAt, person: found.person, body }
}

async function spoolEventAs(db: Connection, id: number): Promise<EnteredOf<'spool event'> | null> {
  const found = await whose(db, db.select().from(spoolEvents).where(eq(spoolEvents.id, id)).execute())
  if (!found) return null
  const body = sentOf(found.entry)
  return { kind: 'spool event', id, at: body.occurredAt, person: found.person, body }
}

async function sensorCheckAs(db: Connection, id: number): Promise<EnteredOf<'sensor check'> | null> {
  const found = await whose(db, db.select().from(sensorChecks).where(eq(sensorChecks.id, id)).execute())
  if (!found) return null
  const { reference: _, partId: _part, ...body } = sentOf(found.entry)
  const points = body.points.map(p => ({ ...p, coldC: p.coldC ?? null, swingC: p.swingC ?? 0 }))
  return { kind: 'sensor check', id, at: body.occurredAt, person: found.person, body: { ...body, points } }
}

async function fittingAs(db: Connection, id: number): Promise<EnteredOf<'fitting'> | null> {
  const found = await whose(db, db.select().from(fittings).where(eq(fittings.id, id)).execute())
  // one that moved with its hotend was not entered by itself
  if (!found || found.entry.changeId !== null) return null
  const { hotendId: _, changeId: _change, ...body } = sentOf(found.entry)
  return { kind: 'fitting', id, at: body.occurredAt, person: found.person, body }
}

const READ: { [K in EnteredKind]: (db: Connection, id: number) => Promise<EnteredOf<K> | null> } = {
  'run': runAs,
  'gauge': gaugeAs,
  'spool event': spoolEventAs,
  'sensor check': sensorCheckAs,
  'fitting': fittingAs,
}

/** An entry as it was sent; what was not entered by itself is not known here. */
export async function enteredAs(db: Connection, kind: EnteredKind, id: number): Promise<Entered> {
  return (await READ[kind](db, id)) ?? notFound(`This ${kind}`)
}
