/** Steps that are done: in their order, once each, with what was entered, read or proved; and what may be ended. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import {
  byHand,
  clogDoubt,
  lengthDoubt,
  missingBefore,
  progress,
  roomDoubt,
  swapZ,
  unproved,
  valueFaults,
  waitState,
  waitWords,
  type ClogFacts,
  type HotendFacts,
  type Step,
  type SwapFacts,
  type Ticked,
  type Values,
} from '#core/procedures'
import { listed } from '#core/words'
import type { tickSchema } from '#shared/entries/change'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { procedures, procedureTicks } from '../../db/schema'
import { ask, notInFuture, refuseField, refuseFields } from '../entry/refusal'
import { keepBlob } from '../pictures/blobs'
import { proofOf } from './proofs'

export type Procedure = typeof procedures.$inferSelect

/** What a swap was worked out from; null for another kind. */
export const swapOf = (p: Pick<Procedure, 'kind' | 'facts'>): SwapFacts | null =>
  p.kind === 'swap' ? (p.facts as SwapFacts) : null

/** What a change of a hotend was worked out from; null for another kind. */
export const hotendOf = (p: Pick<Procedure, 'kind' | 'facts'>): HotendFacts | null =>
  p.kind === 'hotend' ? (p.facts as HotendFacts) : null

/** What the clearing of a clog was worked out from; null for another kind. */
export const clogOf = (p: Pick<Procedure, 'kind' | 'facts'>): ClogFacts | null =>
  p.kind === 'clog' ? (p.facts as ClogFacts) : null

/** Ticks as they stand, in their order. */
export async function standingTicks(db: Connection, procedureId: number) {
  return await db.execute<Ticked & { id: number; at: string; by: string; personId: number } & Record<string, unknown>>(
    sql`select t.id::int, t.step, t.entered "values", ${iso('t.occurred_at')} at, u.name "by", t.person_id "personId"
      from standing_procedure_ticks t join people u on u.id = t.person_id where t.procedure_id = ${procedureId}
      order by t.id`,
  )
}
/** All that was entered so far. */
const entered = (ticks: readonly Ticked[]): Values => Object.assign({}, ...ticks.map(t => t.values)) as Values

/** The procedure while it is open; it is locked until the entry is through. */
async function openProcedure(tx: Connection, id: number): Promise<Procedure> {
  const [row] = await tx.select().from(procedures).where(eq(procedures.id, id)).for('no key update')
  if (!row) refuseField('procedureId', 'This procedure is not known')
  const [ended] = await tx.execute<{ outcome: string | null; struck: boolean }>(sql`
    select (select outcome from endings where target = 'procedure' and target_id = ${id}) outcome,
      exists (select from strikes where target = 'procedure' and target_id = ${id}) struck`)
  if (ended!.struck) refuseField('procedureId', 'This procedure is struck out')
  if (ended!.outcome !== null)
    refuseField('procedureId', `This procedure has ended: ${ended!.outcome === 'done' ? 'ready' : 'stopped'}`)
  return row
}

/** What is asked before a step is taken as entered: of the fields that it has. */
function doubtsOfTick(p: Procedure, step: Step, values: Values): Question[] {
  const swap = swapOf(p)
  const hotend = hotendOf(p)
  const doubts = {
    ...(swap && { lengthMm: lengthDoubt(swap, values), zAfterMm: swapZ(swap, values).far }),
    ...(hotend && { showsC: roomDoubt(hotend, values) }),
    ...(clogOf(p) && { clearedBy: clogDoubt(values) }),
  }
  return Object.entries(doubts).flatMap(([field, message]) =>
    message !== null && step.fields.some(f => f.key === field)
      ? [{ code: `far-${field}`, field: `values.${field}`, message }]
      : [],
  )
}

export async function saveTick(tx: Connection, t: z.output<typeof tickSchema>, personId: number) {
  const occurredAt = notInFuture('occurredAt', t.occurredAt)
  const p = await openProcedure(tx, t.procedureId)
  const step = p.steps.find(s => s.key === t.step)
  if (!step) refuseField('step', 'This procedure has no such step')
  const ticks = await standingTicks(tx, p.id)
  const before = ticks.find(x => x.step === t.step)
  const count = (more: number) => ({ done: progress(p.steps, ticks).done + more, of: p.steps.length })
  // whoever was first has done it; the other hand is told so
  if (before) return { id: before.id, title: step.title, already: { by: before.by, at: before.at }, ...count(0) }
  const missing = missingBefore(p.steps, ticks, t.step)
  if (missing.length > 0) refuseField('step', `First: ${missing[0]!.title}`)
  const values = { ...t.values, ...(await keepPhotos(tx, step, t.photos)) }
  const faults = valueFaults(step, values)
  if (faults.length > 0) refuseFields(faults.map(f => ({ ...f, field: `values.${f.field}` })))
  const read = readOf(step, t, occurredAt)
  if (step.proof !== null && (await proofOf(tx, p, step.proof, ticks)) === null)
    refuseField('step', `${unproved(step.proof)}: a tick alone is no proof`)
  ask(doubtsOfTick(p, step, { ...entered(ticks), ...values }), t.confirmed)
  const [again] = await tx.execute<{ n: number }>(
    sql`select count(*)::int n from procedure_ticks where procedure_id = ${p.id} and step = ${t.step}`,
  )
  const [row] = await tx
    .insert(procedureTicks)
    .values({
      procedureId: p.id,
      step: t.step,
      again: again!.n,
      entered: values,
      ...read,
      note: t.note,
      occurredAt,
      personId,
    })
    .returning({ id: procedureTicks.id })
  return { id: row!.id, title: step.title, already: null, ...count(1) }
}

/** Pictures of a step, kept by the hash of their bytes; nothing else stands in such a field. */
async function keepPhotos(tx: Connection, step: Step, photos: Record<string, string>): Promise<Values> {
  const asked = step.fields.filter(f => f.kind === 'photo').map(f => f.key)
  const unasked = Object.keys(photos).find(k => !asked.includes(k))
  if (unasked !== undefined) refuseField(`photos.${unasked}`, 'This step asks no such picture')
  const kept: Record<string, string | null> = {}
  for (const key of asked)
    kept[key] = photos[key] === undefined ? null : await keepBlob(tx, `values.${key}`, photos[key])
  return kept
}

/** What the heater of a wait showed: told by the printer within the last seconds, or read there by a person. */
function readOf(step: Step, t: z.output<typeof tickSchema>, at: Date) {
  if (step.wait === null) {
    if (t.reading !== null) refuseField('reading', 'This step waits for no heater')
    return { readC: null, readBy: null }
  }
  const { reading } = t
  if (reading === null) refuseField('reading', 'Say what the printer shows')
  const state =
    reading.at === null
      ? byHand(step.wait, reading.c)
      : waitState(step.wait, { c: reading.c, atMs: Date.parse(reading.at) }, at.getTime())
  if (state.kind !== 'there') refuseField('reading', waitWords(step.wait, state))
  return { readC: reading.c, readBy: reading.at === null ? ('person' as const) : ('printer' as const) }
}

/** Refuses to strike out a tick that another rests on, or one of a procedure that has ended. */
export async function refuseTickThatOthersRestOn(tx: Connection, tickId: number): Promise<void> {
  const [t] = await tx.select().from(procedureTicks).where(eq(procedureTicks.id, tickId))
  const p = await openProcedure(tx, t!.procedureId)
  const ticks = await standingTicks(tx, p.id)
  const without = ticks.filter(x => x.id !== tickId)
  const resting = without.filter(x => missingBefore(p.steps, without, x.step).some(s => s.key === t!.step))
  const title = (key: string) => p.steps.find(s => s.key === key)?.title ?? key
  if (resting.length > 0) refuseField('targetId', `Take back first: ${title(resting.at(-1)!.step)}`)
}

/** A procedure with ticks is stopped, not struck out. */
export async function refuseProcedureWithTicks(tx: Connection, id: number): Promise<void> {
  const ticks = await standingTicks(tx, id)
  if (ticks.length > 0) refuseField('targetId', 'Steps of it are done: stop it and say why, or take the ticks back')
}

/** A procedure that may be ended as asked, with its ticks; refuses while a step is missing. */
export async function endable(tx: Connection, id: number, outcome: 'done' | 'stopped early') {
  const p = await openProcedure(tx, id)
  const ticks = await standingTicks(tx, id)
  const { missing } = progress(p.steps, ticks)
  if (outcome === 'done' && missing.length > 0)
    refuseField(
      'targetId',
      `Not done yet: ${listed(
        missing.slice(0, 4).map(s => s.title),
        'and',
      )}`,
    )
  return { p, ticks, values: entered(ticks) }
}
export type Endable = Awaited<ReturnType<typeof endable>>
