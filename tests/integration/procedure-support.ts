/** A swap walked through as a technician would, step by step. */
import type { Step } from '#core/procedures'
import { procedureSchema, tickSchema } from '#shared/entries/change'
import { endingSchema } from '#shared/entries/log'
import type { Database } from '../../server/db/client'
import { beginProcedure } from '../../server/records/change/begin'
import { procedurePage } from '../../server/records/change/procedures'
import { saveTick } from '../../server/records/change/ticks'
import { saveEnding } from '../../server/records/entry/endings'
import { ago } from './support'

export const begin = (db: Database, headId: number, nozzleId: number, more: object = {}) =>
  db.transaction(tx =>
    beginProcedure(tx, procedureSchema.parse({ kind: 'swap', headId, nozzleId, occurredAt: ago(0), ...more }), 1),
  )

/** What is entered at a step where something must be. */
const ENTERED: Record<string, Record<string, string | number>> = {
  z: { zWay: 'larger is higher', zBeforeMm: -1.2, zAfterMm: -1.21 },
}
export function tickOf(procedureId: number, step: Step, more: object = {}) {
  const values = { ...ENTERED[step.key] }
  if (!step.fields.some(f => f.key === 'zWay')) delete values.zWay
  const purged = step.fields.find(f => f.key === 'material')
  if (purged?.kind === 'choice') values.material = purged.choices[0]!.value
  return tickSchema.parse({
    procedureId,
    step: step.key,
    values,
    reading: step.wait && { c: step.wait.setC },
    occurredAt: ago(0),
    ...more,
  })
}

/** Ticks what is left; answers the steps. */
export async function walk(db: Database, id: number, personId = 1): Promise<Step[]> {
  const { steps, ticks } = await procedurePage(db, id)
  const done = ticks.filter(t => t.struck === null).map(t => t.step)
  for (const s of steps.filter(x => !done.includes(x.key)))
    await db.transaction(tx => saveTick(tx, tickOf(id, s, { confirmed: ['far-zAfterMm'] }), personId))
  return steps
}

export const end = (db: Database, targetId: number, more: object = {}, personId = 1) =>
  db.transaction(tx =>
    saveEnding(tx, endingSchema.parse({ target: 'procedure', targetId, occurredAt: ago(0), ...more }), personId),
  )
