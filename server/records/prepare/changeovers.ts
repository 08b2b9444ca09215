/** What a nozzle was purged from and to, and what stands in it now. */
import { purgeOn } from '#core/changeover'
import type { Correction } from '#core/thermometry'
import type { MaterialRow } from '#shared/answers/materials'
import type { ChangeoverLine, Through } from '#shared/answers/prepare'
import { eq, sql, type SQL } from 'drizzle-orm'
import type { z } from 'zod'
import type { changeoverSchema } from '#shared/entries/prepare'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { changeovers, nozzles } from '../../db/schema'
import { factOf } from '../materials/materials'
import { headAt } from '../printers/fittings'
import { ask, notInFuture, refuseField } from '../entry/refusal'

export async function saveChangeover(
  tx: Connection,
  c: z.output<typeof changeoverSchema>,
  personId: number,
): Promise<{ id: number; tag: string }> {
  const occurredAt = notInFuture('occurredAt', c.occurredAt)
  const [nozzle] = await tx.select().from(nozzles).where(eq(nozzles.id, c.nozzleId))
  if (!nozzle) refuseField('nozzleId', 'This nozzle is not known')
  const fitted = await headAt(tx, c.headId, occurredAt)
  if (fitted?.nozzleId !== c.nozzleId)
    ask(
      [
        {
          code: 'not-fitted',
          field: 'nozzleId',
          message: fitted
            ? `${fitted.tag} was fitted there then, not ${nozzle.tag}. Log it for ${nozzle.tag} all the same?`
            : `No nozzle was fitted there then. Log it for ${nozzle.tag} all the same?`,
        },
      ],
      c.confirmed,
    )
  const [limit] = await tx.execute<{ limits: { zone: string; headId: number | null; limitC: number; part: string }[] }>(
    sql`select limits from stack_ceilings where printer_id = (select printer_id from heads where id = ${c.headId})`,
  )
  const ceiling = limit?.limits.find(l => l.zone === 'hotend' && l.headId === c.headId)
  if (ceiling && c.atC > ceiling.limitC) refuseField('atC', `The ${ceiling.part} stops at ${ceiling.limitC} °C`)
  const { confirmed: _, ...values } = c
  const [row] = await tx
    .insert(changeovers)
    .values({ ...values, occurredAt, personId })
    .returning({ id: changeovers.id })
  return { id: row!.id, tag: nozzle.tag }
}

const flowing = (m: MaterialRow) => ({
  name: m.name,
  lowestFlowC: factOf(m, 'lowestFlowC'),
  shortMaxC: factOf(m, 'shortMaxC'),
})
/** What is set first on the way from one filament to the other; null when it is not known or there is none. */
export function purgeC(
  sensor: Correction | null,
  from: MaterialRow,
  to: MaterialRow,
  ceilingC: number | null,
): number | null {
  const way = purgeOn(sensor, ceilingC, flowing(from), flowing(to))
  return way.kind === 'direct' ? way.steps[0]!.atC : null
}

/**
 * Filaments that may still stand in each fitted nozzle: all that went through since it was last purged clean, and what
 * it was purged to. They decide how hot it is swapped, and from what it is purged next.
 */
export const throughFitted = (db: Connection): Promise<Through[]> => throughOf(db, sql`s.kind = 'fit'`)
/** The same of one nozzle, wherever it is. */
export const throughNozzle = async (db: Connection, nozzleId: number): Promise<Through | null> =>
  (await throughOf(db, sql`s.nozzle_id = ${nozzleId}`))[0] ?? null

async function throughOf(db: Connection, which: SQL): Promise<Through[]> {
  return await db.execute<Through & Record<string, unknown>>(sql`
    select s.nozzle_id "nozzleId", s.through_ids "materialIds", s.through_last "lastId" from nozzle_stands s
    where ${which} and s.through_ids is not null order by s.nozzle_id`)
}

/** What may have stood in a nozzle when a run that ended at `before` was begun. */
export async function throughBefore(db: Connection, nozzleId: number, before: string): Promise<Through | null> {
  const [row] = await db.execute<Through & Record<string, unknown>>(sql`
    select ${nozzleId}::int "nozzleId", h.ids "materialIds", h.last_id "lastId"
    from through_of(${nozzleId}, ${before}::timestamptz) h where h.ids is not null`)
  return row ?? null
}

export async function listChangeovers(db: Connection): Promise<ChangeoverLine[]> {
  return await db.execute<ChangeoverLine & Record<string, unknown>>(sql`
    select c.id::int, n.tag nozzle, p.name printer, h.name head, f.name "from", t.name "to", c.at_c "atC",
    c.volume_mm3 "volumeMm3", c.clean, ${iso('c.occurred_at')} at, u.name person, c.note,
      (select s.reason from strikes s where s.target = 'changeover' and s.target_id = c.id) struck
    from changeovers c join nozzles n on n.id = c.nozzle_id join heads h on h.id = c.head_id
    join printers p on p.id = h.printer_id left join materials f on f.id = c.from_material_id
    left join materials t on t.id = c.to_material_id join people u on u.id = c.person_id
    order by c.occurred_at desc, c.id desc limit 100`)
}
