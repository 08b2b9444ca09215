/** Dryings of a spool; it cannot be elsewhere meanwhile. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { asksHub, dryingRefusal, HUB_WORDS, HUBS, isPolyamide, OVER_DRY_H, UNKNOWN_HUB_C } from '#core/drying'
import type { dryingSchema } from '#shared/entries/prepare'
import type { Question } from '#shared/problem'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { dryings, spools } from '../../db/schema'
import { weighed } from '../spools/mass'
import { spoolLogs } from '../spools/log'
import { editRecord } from '../entry/edits'
import { ask, notInFuture, refuseField } from '../entry/refusal'
import { dryerOf } from './dryers'

/** A drying that lies in this stretch of time, or reaches into it; the spool cannot be elsewhere then. */
export async function dryingWithin(
  tx: Connection,
  spoolId: number,
  from: Date,
  to: Date,
): Promise<{ id: number; dryer: string; from: string; open: boolean } | null> {
  const [row] = await tx.execute<{ id: number; dryer: string; from: string; open: boolean }>(sql`
    select d.id::int, y.name dryer, ${iso('d.occurred_at')} "from",
    d.ended_at is null open from standing_dryings d join dryers y on y.id = d.dryer_id
    where d.spool_id = ${spoolId} and d.occurred_at < ${to.toISOString()} and (d.ended_at is null
    or d.ended_at > ${from.toISOString()}) order by d.occurred_at desc limit 1`)
  return row ?? null
}

/** An answer to the question for the hub is a fact of the spool, and is stored with it. */
const hubCode = (word: string) => `hub:${word}`
const hubQuestion = (tag: string, setC: number): Question => ({
  code: 'hub',
  field: 'setC',
  message: `What is the hub of ${tag} made of? At ${setC} °C some sag.`,
  choices: [
    ...HUB_WORDS.map(word => ({ code: hubCode(word), label: word, hint: `up to ${HUBS[word]} °C` })),
    {
      code: 'hub-not-known',
      label: 'Nobody knows: dry it cooler',
      hint: `${UNKNOWN_HUB_C} °C at most`,
      local: true,
    },
  ],
})

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
  const hub = spool!.hub || (HUB_WORDS.find(word => d.confirmed.includes(hubCode(word))) ?? '')
  const refusal = dryingRefusal(d.setC, dryer, {
    dryHighestC: log.facts.dryHighestC ?? null,
    glassC: log.facts.glassC ?? null,
    meltC: log.facts.meltC ?? null,
    hub,
  })
  if (refusal) refuseField('setC', refusal)
  const other = await dryingWithin(tx, d.spoolId, occurredAt, occurredAt)
  if (other) refuseField('occurredAt', `${log.tag} is in ${other.dryer} since ${other.from}. End that drying first`)
  const later = log.dryings.find(x => Date.parse(x.from) >= occurredAt.getTime())
  if (later)
    refuseField(
      'occurredAt',
      `A later drying of ${log.tag} is logged already, in ${later.dryer}. Strike that out first, or enter this ` +
        `one as dried elsewhere`,
    )
  const moved = log.events.find(x => Date.parse(x.at) > occurredAt.getTime())
  if (moved)
    refuseField(
      'occurredAt',
      `${log.tag} was “${moved.kind}” ${moved.at}, after this: begin the drying later, strike ` +
        `that out, or enter this one as dried elsewhere`,
    )
  const questions = await weighed(tx, d.spoolId, d.grossG, occurredAt)
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
  // a bare yes is no answer to what it is made of
  if (asksHub(d.setC, hub)) questions.push(hubQuestion(log.tag, d.setC))
  ask(
    questions,
    d.confirmed.filter(code => code !== 'hub'),
  )
  if (hub !== spool!.hub) await editRecord(tx, 'spools', spool!.id, spool!.version, { hub }, personId)
  const { confirmed: _, ...values } = d
  const [row] = await tx
    .insert(dryings)
    .values({ ...values, occurredAt, personId })
    .returning({ id: dryings.id })
  return { id: row!.id, until: new Date(occurredAt.getTime() + d.plannedH * 3_600_000).toISOString() }
}
