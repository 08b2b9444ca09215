/** Dryers, dryings, soaks and anneals: what is started, and how it ended. */
import { and, asc, eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { annealPlan } from '#core/anneal'
import { dryingRefusal, isPolyamide, OVER_DRY_H } from '#core/drying'
import type { annealSchema, dryerSchema, dryingSchema, endingSchema, soakSchema } from '#shared/entries'
import type { Question } from '#shared/problem'
import type { Connection } from '../db/client'
import { anneals, dryers, dryings, endings, materials, printers, soaks, spools } from '../db/schema'
import { spoolLogs } from './moisture'
import { ask, notFound, notInFuture, refuseField } from './refusal'
import { unused } from './unused'

export async function addDryer(
  tx: Connection,
  d: z.output<typeof dryerSchema>,
  personId: number,
): Promise<{ id: number }> {
  await unused(tx, dryers, 'name', d.name, 'a dryer')
  const [row] = await tx
    .insert(dryers)
    .values({ ...d, createdBy: personId })
    .returning({ id: dryers.id })
  return row!
}
export async function listDryers(db: Connection) {
  return await db.select().from(dryers).orderBy(asc(dryers.id))
}
export type DryerRow = Awaited<ReturnType<typeof listDryers>>[number]

async function dryerOf(tx: Connection, id: number): Promise<DryerRow> {
  const [dryer] = await tx.select().from(dryers).where(eq(dryers.id, id))
  if (!dryer || dryer.withdrawn) refuseField('dryerId', 'This dryer is not known')
  return dryer
}

/** A drying that lies in this stretch of time, or reaches into it; the spool cannot be elsewhere then. */
export async function dryingWithin(
  tx: Connection,
  spoolId: number,
  from: Date,
  to: Date,
): Promise<{ id: number; dryer: string; from: string; open: boolean } | null> {
  const [row] = await tx.execute<{ id: number; dryer: string; from: string; open: boolean }>(sql`
    select d.id::int, y.name dryer, to_char(d.occurred_at, 'YYYY-MM-DD HH24:MI') "from",
    d.ended_at is null open from standing_dryings d join dryers y on y.id = d.dryer_id
    where d.spool_id = ${spoolId} and d.occurred_at < ${to.toISOString()} and (d.ended_at is null
    or d.ended_at > ${from.toISOString()}) order by d.occurred_at desc limit 1`)
  return row ?? null
}

export async function saveDrying(
  tx: Connection,
  d: z.output<typeof dryingSchema>,
  personId: number,
): Promise<{ id: number; until: string }> {
  const occurredAt = notInFuture('occurredAt', d.occurredAt)
  // two dryings of one spool do not slip past each other
  await tx.execute(sql`select id from spools where id = ${d.spoolId} for no key update`)
  const [log] = await spoolLogs(tx, sql`s.id = ${d.spoolId}`)
  if (!log) refuseField('spoolId', 'This spool is not known')
  const dryer = await dryerOf(tx, d.dryerId)
  const [spool] = await tx.select().from(spools).where(eq(spools.id, d.spoolId))
  const refusal = dryingRefusal(d.setC, dryer, {
    dryHighestC: log.facts.dryHighestC ?? null,
    glassC: log.facts.glassC ?? null,
    meltC: log.facts.meltC ?? null,
    hub: spool!.hub,
  })
  if (refusal) refuseField('setC', refusal)
  if (d.grossG !== null && spool!.tareG !== null && d.grossG < spool!.tareG)
    refuseField('grossG', `Less than the empty spool (${spool!.tareG} g)`)
  const other = await dryingWithin(tx, d.spoolId, occurredAt, occurredAt)
  if (other) refuseField('occurredAt', `${log.tag} is in ${other.dryer} since ${other.from}. End that drying first`)
  const later = log.dryings.find(x => Date.parse(x.from) >= occurredAt.getTime())
  if (later)
    refuseField(
      'occurredAt',
      `A later drying of ${log.tag} is logged already, in ${later.dryer}. Strike that out first, or enter this ` +
        `one as dried elsewhere`,
    )
  const questions: Question[] = []
  if (dryer.kind === 'bed under a cover')
    questions.push({
      code: 'attended',
      field: 'dryerId',
      message:
        'A bed as a dryer: the spool on a spacer, under a cover that does not burn, attended, the time-out left ' +
        'on. Is it so?',
    })
  if (d.plannedH > OVER_DRY_H && log.fillerFraction > 0 && isPolyamide(log.polymer))
    questions.push({
      code: 'over-dry',
      field: 'plannedH',
      message: `More than ${OVER_DRY_H} h makes filled nylon brittle. Dry it so long all the same?`,
    })
  ask(questions, d.confirmed)
  const { confirmed: _, ...values } = d
  const [row] = await tx
    .insert(dryings)
    .values({ ...values, occurredAt, personId })
    .returning({ id: dryings.id })
  return { id: row!.id, until: new Date(occurredAt.getTime() + d.plannedH * 3_600_000).toISOString() }
}

const STARTED = { drying: dryings, soak: soaks, anneal: anneals } as const

export async function saveEnding(
  tx: Connection,
  e: z.output<typeof endingSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', e.occurredAt)
  const [started] = await tx.execute<{ occurred_at: string; spool_id: number | null }>(
    sql`select occurred_at${e.target === 'drying' ? sql`, spool_id` : sql`, null::int spool_id`}
      from ${STARTED[e.target]} where id = ${e.targetId} for no key update`,
  )
  if (!started) notFound(`This ${e.target}`)
  const [struck] = await tx.execute(
    sql`select id from strikes where target = ${e.target} and target_id = ${e.targetId}`,
  )
  if (struck) refuseField('targetId', `This ${e.target} is struck out`)
  const [ended] = await tx
    .select()
    .from(endings)
    .where(and(eq(endings.target, e.target), eq(endings.targetId, e.targetId)))
  if (ended) refuseField('targetId', `This ${e.target} has ended already`)
  if (occurredAt.getTime() < new Date(started.occurred_at).getTime())
    refuseField('occurredAt', 'This is before it began')
  if (started.spool_id !== null && e.grossG !== null) await askAboutWeights(tx, e, started.spool_id)
  const { confirmed: _, ...values } = e
  const [row] = await tx
    .insert(endings)
    .values({ ...values, occurredAt, personId })
    .returning({ id: endings.id })
  return row!
}

/** A spool that got heavier in a dryer, or lost more than it can hold, was not weighed right. */
async function askAboutWeights(tx: Connection, e: z.output<typeof endingSchema>, spoolId: number): Promise<void> {
  const [d] = await tx.select().from(dryings).where(eq(dryings.id, e.targetId))
  const [spool] = await tx.select().from(spools).where(eq(spools.id, spoolId))
  if (spool!.tareG !== null && e.grossG! < spool!.tareG)
    refuseField('grossG', `Less than the empty spool (${spool!.tareG} g)`)
  if (d!.grossG === null) return
  const lost = d!.grossG - e.grossG!
  if (lost < -1)
    ask(
      [
        {
          code: 'heavier',
          field: 'grossG',
          message: `It weighs ${(-lost).toFixed(1)} g more than before it was dried (${d!.grossG} g). Is that right?`,
        },
      ],
      e.confirmed,
    )
  if (lost > 0.08 * d!.grossG)
    ask(
      [
        {
          code: 'lost-much',
          field: 'grossG',
          message: `It lost ${lost.toFixed(0)} g, more water than filament holds. Was some of it printed meanwhile?`,
        },
      ],
      e.confirmed,
    )
}

export async function saveSoak(
  tx: Connection,
  s: z.output<typeof soakSchema>,
  personId: number,
): Promise<{ id: number; until: string }> {
  const occurredAt = notInFuture('occurredAt', s.occurredAt)
  const [printer] = await tx.select().from(printers).where(eq(printers.id, s.printerId)).for('no key update')
  if (!printer) refuseField('printerId', 'This printer is not known')
  const [open] = await tx.execute<{ id: number }>(
    sql`select id::int from standing_soaks where printer_id = ${s.printerId} and ended_at is null
      and occurred_at > now() - interval '12 hours' order by occurred_at desc limit 1`,
  )
  if (open)
    ask(
      [
        {
          code: 'soaking',
          field: 'printerId',
          message: `${printer.name} is soaking already. End that soak and start this one?`,
        },
      ],
      s.confirmed,
    )
  if (open)
    await tx.insert(endings).values({
      target: 'soak',
      targetId: open.id,
      outcome: 'stopped early',
      occurredAt,
      personId,
      note: 'another was started',
    })
  const { confirmed: _, ...values } = s
  const [row] = await tx
    .insert(soaks)
    .values({ ...values, occurredAt, personId })
    .returning({ id: soaks.id })
  return { id: row!.id, until: new Date(occurredAt.getTime() + s.minutes * 60_000).toISOString() }
}

export async function saveAnneal(
  tx: Connection,
  a: z.output<typeof annealSchema>,
  personId: number,
): Promise<{ id: number; until: string }> {
  const occurredAt = notInFuture('occurredAt', a.occurredAt)
  const [material] = await tx.select().from(materials).where(eq(materials.id, a.materialId))
  if (!material) refuseField('materialId', 'This material is not known')
  const dryer = await dryerOf(tx, a.dryerId)
  if (a.atC > dryer.ceilingC) refuseField('atC', `${dryer.name} stops at ${dryer.ceilingC} °C`)
  const [melt] = await tx.execute<{ value: number }>(
    sql`select value from material_values where material_id = ${a.materialId} and key = 'meltC'`,
  )
  if (melt && a.atC > melt.value - 20) refuseField('atC', `${material.name} melts at ${melt.value} °C`)
  const { room_c } = (await tx.execute<{ room_c: number }>(sql`select room_c from settings`))[0]!
  const plan = annealPlan(a.atC, a.holdH, a.rampCPerH, a.thicknessMm, dryer, room_c)
  const { confirmed: _, ...values } = a
  const [row] = await tx
    .insert(anneals)
    .values({ ...values, totalH: plan.totalH, occurredAt, personId })
    .returning({ id: anneals.id })
  return { id: row!.id, until: new Date(occurredAt.getTime() + plan.totalH * 3_600_000).toISOString() }
}
