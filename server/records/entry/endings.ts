/**
 * How what was started ended, each once: a drying, a soak, an anneal; a procedure with what it writes; a printer back
 * in service; a note that is read.
 */
import { and, eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { endingSchema } from '#shared/entries/log'
import type { EndingTarget } from '#shared/logs'
import type { Connection } from '../../db/client'
import {
  anneals,
  coolDowns,
  dryings,
  endings,
  flowBenches,
  procedures,
  serviceTags,
  shiftNotes,
  soaks,
} from '../../db/schema'
import { logBenchAsRun } from '../flow/weigh'
import { writeEnd } from '../change/finish'
import { endable } from '../change/ticks'
import { refuseOwnNote, refuseUnproved } from '../change/service'
import { weighed } from '../spools/mass'
import { ask, notFound, notInFuture, refuseField } from './refusal'

const STARTED = {
  'drying': dryings,
  'soak': soaks,
  'anneal': anneals,
  'cool-down': coolDowns,
  'procedure': procedures,
  'flow bench': flowBenches,
  'out of service': serviceTags,
  'shift note': shiftNotes,
} as const satisfies Record<EndingTarget, unknown>
/** As they are named to a person. */
const THING: Partial<Record<EndingTarget, string>> = {
  'out of service': 'tag',
  'shift note': 'note',
  'flow bench': 'bench',
}

export async function saveEnding(
  tx: Connection,
  e: z.output<typeof endingSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', e.occurredAt)
  const thing = THING[e.target] ?? e.target
  const [started] = await tx.execute<{ occurred_at: string; spool_id: number | null }>(
    sql`select occurred_at${e.target === 'drying' ? sql`, spool_id` : sql`, null::int spool_id`}
      from ${STARTED[e.target]} where id = ${e.targetId} for no key update`,
  )
  if (!started) notFound(`This ${thing}`)
  const [struck] = await tx.execute(
    sql`select id from strikes where target = ${e.target} and target_id = ${e.targetId}`,
  )
  if (struck) refuseField('targetId', `This ${thing} is struck out`)
  const [ended] = await tx
    .select()
    .from(endings)
    .where(and(eq(endings.target, e.target), eq(endings.targetId, e.targetId)))
  if (ended) refuseField('targetId', `This ${thing} has ended already`)
  if (occurredAt.getTime() < new Date(started.occurred_at).getTime())
    refuseField('occurredAt', 'This is before it began')
  if (started.spool_id !== null && e.grossG !== null) await askAboutWeights(tx, e, started.spool_id, occurredAt)
  if (e.target === 'out of service') await refuseUnproved(tx, e)
  if (e.target === 'shift note') await refuseOwnNote(tx, e.targetId, personId)
  if (e.target === 'procedure') {
    const { outcome, note, confirmed } = e
    const procedure = await endable(tx, e.targetId, outcome)
    await writeEnd(tx, procedure, { outcome, note, at: occurredAt, confirmed }, personId)
  }
  if (e.target === 'flow bench') await logBenchAsRun(tx, e.targetId, e, personId)
  const { confirmed: _, ...values } = e
  const [row] = await tx
    .insert(endings)
    .values({ ...values, occurredAt, personId })
    .returning({ id: endings.id })
  return row!
}

/** A spool that got heavier in a dryer, or lost more than it can hold, was not weighed right. */
async function askAboutWeights(
  tx: Connection,
  e: z.output<typeof endingSchema>,
  spoolId: number,
  at: Date,
): Promise<void> {
  const [d] = await tx.select().from(dryings).where(eq(dryings.id, e.targetId))
  const questions = await weighed(tx, spoolId, e.grossG, at)
  const lost = d!.grossG === null ? null : d!.grossG - e.grossG!
  if (lost !== null && lost < -1 && questions.length === 0)
    questions.push({
      code: 'heavier',
      field: 'grossG',
      message: `It weighs ${(-lost).toFixed(1)} g more than before it was dried (${d!.grossG} g). Is that right?`,
    })
  if (lost !== null && lost > 0.08 * d!.grossG!)
    questions.push({
      code: 'lost-much',
      field: 'grossG',
      message: `It lost ${lost.toFixed(0)} g, more water than filament holds. Was some of it printed meanwhile?`,
    })
  ask(questions, e.confirmed)
}
