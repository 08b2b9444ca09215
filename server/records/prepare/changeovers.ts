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
export const throughFitted = (db: Connection): Promise<Through[]> =>
  through(
    db,
    sql`heads h join lateral (select kind, nozzle_id from standing_fittings e where e.head_id = h.id
      order by occurred_at desc, id desc limit 1) e on e.kind = 'fit'`,
  )
/** The same of one nozzle, wherever it is. */
export const throughNozzle = async (db: Connection, nozzleId: number): Promise<Through | null> =>
  (await through(db, sql`(select id nozzle_id from nozzles where id = ${nozzleId}) e`))[0] ?? null

/** What may have stood in a nozzle when a run that ended at `before` was begun. */
export const throughBefore = async (db: Connection, nozzleId: number, before: string): Promise<Through | null> =>
  (await through(db, sql`(select id nozzle_id from nozzles where id = ${nozzleId}) e`, before))[0] ?? null

/** Of the nozzles `e`, by what was logged before a time. */
async function through(db: Connection, which: SQL, before: string = 'infinity'): Promise<Through[]> {
  return await db.execute<Through & Record<string, unknown>>(sql`
    select e.nozzle_id "nozzleId", array_agg(distinct x.material_id) "materialIds", (array_agg(x.material_id
    order by x.at desc, x.rank desc))[1] "lastId" from ${which}
    left join lateral (select c.occurred_at from standing_changeovers c where c.nozzle_id = e.nozzle_id
    and c.occurred_at < ${before}::timestamptz and c.clean order by c.occurred_at desc, c.id desc limit 1) clean on true
    join lateral (
      select t.material_id, t.ended_at at, 0 rank from standing_run_tools t where t.nozzle_id = e.nozzle_id
      and t.ended_at > coalesce(clean.occurred_at, '-infinity')
      union all select c.to_material_id, c.occurred_at, 1 from standing_changeovers c
      where c.nozzle_id = e.nozzle_id and c.to_material_id is not null
      and c.occurred_at >= coalesce(clean.occurred_at, '-infinity')
      union all select c.from_material_id, c.occurred_at - interval '1 second', 0 from standing_changeovers c
      where c.nozzle_id = e.nozzle_id and c.from_material_id is not null and not c.clean
      and c.occurred_at >= coalesce(clean.occurred_at, '-infinity')
    ) x on x.at < ${before}::timestamptz
    group by e.nozzle_id`)
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
