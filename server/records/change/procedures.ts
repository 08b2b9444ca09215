/**
 * Procedures: begun with the steps worked out for this head, ticked one by one, ended once. What is shown comes from
 * these entries alone, so whoever opens it, on whatever device, finds it where it was left.
 */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import {
  byHand,
  lengthDoubt,
  missingBefore,
  progress,
  swapSteps,
  swapZ,
  valueFaults,
  waitState,
  waitWords,
  type Step,
  type SwapFacts,
  type Ticked,
  type Values,
} from '#core/procedures'
import { listed } from '#core/words'
import type { procedureSchema, tickSchema } from '#shared/entries/change'
import type { ProcedureLine, ProcedurePage, Tick } from '#shared/answers/change'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { idIn } from '../../db/ids'
import { iso } from '../../db/iso'
import { heads, nozzles, procedures, procedureTicks } from '../../db/schema'
import { ask, notFound, notInFuture, refuseField, refuseFields } from '../entry/refusal'
import { askAboutFitting } from '../printers/fittings'
import { swapFacts, swapOffer } from './swap'
import { underWay } from './under-way'

export type Procedure = typeof procedures.$inferSelect

/** Begins a swap; one printer has one procedure under way. */
export async function beginProcedure(
  tx: Connection,
  p: z.output<typeof procedureSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', p.occurredAt)
  const [head] = await tx.select().from(heads).where(eq(heads.id, p.headId))
  if (!head) refuseField('headId', 'This head is not known')
  await tx.execute(sql`select id from printers where id = ${head.printerId} for no key update`)
  const [under] = await underWay(tx, [head.printerId])
  if (under) refuseField('headId', `${under.title} is under way there: finish it, or stop it`)
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, p.nozzleId))
  if (!nozzle) refuseField('nozzleId', 'This nozzle is not known')
  const facts = await swapFacts(tx, p.headId, p.nozzleId)
  if (facts === null) {
    const offer = await swapOffer(tx, p.headId)
    refuseField(
      'nozzleId',
      offer.refusal?.says ?? `${nozzle.tag} is not on the shelf: it is fitted, retired, or taken for another head`,
    )
  }
  ask(await askAboutFitting(tx, nozzle, p.headId, occurredAt), p.confirmed)
  const title = `Swap on ${facts.place}: ${facts.old ? `${facts.old.tag} out, ` : ''}${facts.fresh.tag} in`
  const [row] = await tx
    .insert(procedures)
    .values({
      kind: p.kind,
      printerId: head.printerId,
      headId: p.headId,
      title,
      facts,
      steps: swapSteps(facts),
      note: p.note,
      occurredAt,
      personId,
    })
    .returning({ id: procedures.id })
  return row!
}

/** Ticks as they stand, in their order. */
async function standingTicks(db: Connection, procedureId: number) {
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
  const doubts = { lengthMm: lengthDoubt(p.facts, values), zAfterMm: swapZ(p.facts, values).far }
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
  const faults = valueFaults(step, t.values)
  if (faults.length > 0) refuseFields(faults.map(f => ({ ...f, field: `values.${f.field}` })))
  const read = readOf(step, t, occurredAt)
  ask(doubtsOfTick(p, step, { ...entered(ticks), ...t.values }), t.confirmed)
  const [again] = await tx.execute<{ n: number }>(
    sql`select count(*)::int n from procedure_ticks where procedure_id = ${p.id} and step = ${t.step}`,
  )
  const [row] = await tx
    .insert(procedureTicks)
    .values({
      procedureId: p.id,
      step: t.step,
      again: again!.n,
      entered: t.values,
      ...read,
      note: t.note,
      occurredAt,
      personId,
    })
    .returning({ id: procedureTicks.id })
  return { id: row!.id, title: step.title, already: null, ...count(1) }
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

interface Row extends Record<string, unknown> {
  id: number
  kind: Procedure['kind']
  title: string
  printer: string
  printerId: number
  headId: number | null
  begunAt: string
  by: string
  note: string
  steps: Step[]
  facts: SwapFacts
  ended: ProcedureLine['ended']
  struck: string | null
}

async function rowsOf(db: Connection, which: ReturnType<typeof sql>): Promise<Row[]> {
  return await db.execute<Row>(sql`
    select p.id::int, p.kind, p.title, r.name printer, p.printer_id "printerId", p.head_id "headId",
      ${iso('p.occurred_at')} "begunAt", u.name "by", p.note, p.steps, p.facts,
      (select json_build_object('outcome', n.outcome, 'at', ${iso('n.occurred_at')}, 'by', w.name, 'note', n.note)
        from endings n join people w on w.id = n.person_id where n.target = 'procedure' and n.target_id = p.id) ended,
      (select s.reason from strikes s where s.target = 'procedure' and s.target_id = p.id) struck
    from procedures p join printers r on r.id = p.printer_id join people u on u.id = p.person_id
    where ${which} order by p.occurred_at desc, p.id desc limit 60`)
}

async function ticksOf(db: Connection, ids: readonly number[]): Promise<Map<number, Tick[]>> {
  const out = new Map<number, Tick[]>(ids.map(id => [id, []]))
  const rows = await db.execute<Tick & { procedureId: number } & Record<string, unknown>>(sql`
    select t.id::int, t.procedure_id::int "procedureId", t.step, ${iso('t.occurred_at')} at, u.name "by",
      t.entered "values", t.read_c "readC", t.read_by "readBy",
      (select s.reason from strikes s where s.target = 'procedure tick' and s.target_id = t.id) struck
    from procedure_ticks t join people u on u.id = t.person_id where ${idIn('t.procedure_id', ids)} order by t.id`)
  for (const { procedureId, ...t } of rows) out.get(procedureId)!.push(t)
  return out
}

function lineOf(r: Row, ticks: readonly Tick[]): ProcedureLine {
  const standing = ticks.filter(t => t.struck === null)
  const { done, of, open } = progress(r.steps, standing)
  const last = standing.at(-1)
  const { id, kind, title, printer, printerId, headId, begunAt, by, ended, struck } = r
  return {
    ...{ id, kind, title, printer, printerId, headId, begunAt, by, ended, struck, done, of },
    next: open[0]?.title ?? null,
    lastAt: last?.at ?? begunAt,
    lastBy: last?.by ?? by,
  }
}

/** Those under way, and the latest that ended. */
export async function listProcedures(db: Connection): Promise<ProcedureLine[]> {
  const rows = await rowsOf(db, sql`true`)
  const ticks = await ticksOf(
    db,
    rows.map(r => r.id),
  )
  return rows.map(r => lineOf(r, ticks.get(r.id)!))
}

export async function procedurePage(db: Connection, id: number): Promise<ProcedurePage> {
  const [row] = await rowsOf(db, sql`p.id = ${id}`)
  if (!row) notFound('This procedure')
  const ticks = (await ticksOf(db, [id])).get(id)!
  const open = row.ended === null && row.struck === null
  return {
    ...lineOf(row, ticks),
    facts: row.facts,
    steps: row.steps,
    ticks,
    changed: open ? await changedSince(db, row) : [],
    note: row.note,
  }
}

/** What a procedure was worked out from and is so no longer. */
async function changedSince(db: Connection, row: Row): Promise<string[]> {
  const { facts: was } = row
  const is = await swapFacts(db, row.headId!, was.fresh.id)
  if (is === null) return [`${was.fresh.tag} is not on the shelf any more, or the nozzle may not be turned now.`]
  const out: string[] = []
  if ((is.old?.id ?? null) !== (was.old?.id ?? null))
    out.push(`${is.old ? `${is.old.tag} is logged as fitted there now` : 'No nozzle is logged as fitted there now'}.`)
  if (is.turn.setC !== was.turn.setC) out.push(`It is turned at ${is.turn.setC} °C now, not at ${was.turn.setC} °C.`)
  if (is.torque.newtonMetre < was.torque.newtonMetre - 0.05)
    out.push(`It stands ${is.torque.newtonMetre.toFixed(1)} N·m now, not ${was.torque.newtonMetre.toFixed(1)} N·m.`)
  const most = (r: SwapFacts['resnug']) => r?.setC ?? 0
  if (most(is.resnug) < most(was.resnug)) out.push('The hottest coming job is cooler than it was when this began.')
  return out
}
