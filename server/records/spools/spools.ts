/** What is left on a spool: its last weighing less the runs since, or its net mass less all runs. */
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import type { Connection } from '../../db/client'
import { endings, spoolEvents, spools, materials } from '../../db/schema'
import { dryingWithin } from '../prepare/dryings'
import { filamentOfSpool } from '#shared/filament'
import { notFound, notInFuture, refuseField } from '../entry/refusal'
import { unused } from '../entry/unused'

export interface SpoolRow extends Record<string, unknown> {
  id: number
  tag: string
  material_id: number
  material: string
  diameter_mm: number
  net_g: number
  tare_g: number | null
  hub: string
  /** As entered of the spool itself, of its material, and what counts. */
  own_density: number | null
  own_fraction: number | null
  material_density: number | null
  material_fraction: number
  density_g_cm3: number | null
  filler_fraction: number
  note: string
  version: number
  left_g: number
  place: string | null
  last_used_at: string | null
}

const spoolsQuery = (where = sql`true`) => sql`
  select s.id, s.tag, s.material_id, m.name material, s.diameter_mm, s.net_g, s.tare_g, s.hub, s.note, s.version,
    s.density_g_cm3 own_density, s.filler_fraction own_fraction, m.density_g_cm3 material_density,
    m.filler_fraction material_fraction,
    coalesce(w.gross_g - s.tare_g, s.net_g) - coalesce(u.used_g, 0) left_g,
    u.last_used_at,
    (select e.kind from standing_spool_events e where e.spool_id = s.id and e.kind <> 'weighed'
    order by e.occurred_at desc, e.id desc limit 1) place
  from spools s join materials m on m.id = s.material_id
  left join lateral (
    select e.gross_g, e.occurred_at from standing_spool_events e
    where e.spool_id = s.id and e.kind = 'weighed' and s.tare_g is not null
    order by e.occurred_at desc, e.id desc limit 1
  ) w on true
  left join lateral (
    select sum(t.extruded_g) filter (where w.occurred_at is null
    or t.ended_at > w.occurred_at) used_g, max(t.ended_at) last_used_at from standing_run_tools t
    where t.spool_id = s.id
  ) u on true
  where ${where} order by s.tag`

export async function listSpools(db: Connection): Promise<SpoolRow[]> {
  const rows = await db.execute<SpoolRow>(spoolsQuery())
  return rows.map(r => {
    const f = filamentOfSpool(
      { diameterMm: r.diameter_mm, densityGCm3: r.own_density, fillerFraction: r.own_fraction },
      { densityGCm3: r.material_density, fillerFraction: r.material_fraction },
    )
    return { ...r, density_g_cm3: f.densityGCm3, filler_fraction: f.fillerFraction }
  })
}

export async function spoolRemaining(db: Connection, spoolId: number): Promise<{ tag: string; g: number }> {
  const [row] = await db.execute<SpoolRow>(spoolsQuery(sql`s.id = ${spoolId}`))
  if (!row) notFound('This spool')
  return { tag: row.tag, g: row.left_g }
}

export async function saveSpoolEvent(
  tx: Connection,
  e: z.output<typeof spoolEventSchema>,
  personId: number,
): Promise<{ id: number; leftG: number }> {
  const occurredAt = notInFuture('occurredAt', e.occurredAt)
  const [spool] = await tx.select().from(spools).where(eq(spools.id, e.spoolId))
  if (!spool) refuseField('spoolId', 'This spool is not known')
  if (e.grossG !== null && spool.tareG !== null && e.grossG < spool.tareG)
    refuseField('grossG', `Less than the empty spool (${spool.tareG} g)`)
  if (e.kind !== 'weighed') await leaveDryer(tx, spool, e.kind, occurredAt, e.hours, personId)
  const [saved] = await tx
    .insert(spoolEvents)
    .values({ ...e, occurredAt, personId })
    .returning({ id: spoolEvents.id })
  return { id: saved!.id, leftG: (await spoolRemaining(tx, e.spoolId)).g }
}

/**
 * A spool taken out, put in a box or loaded comes out of its dryer by that; it cannot have been elsewhere during one
 * that is over.
 */
async function leaveDryer(
  tx: Connection,
  spool: typeof spools.$inferSelect,
  kind: string,
  at: Date,
  hours: number | null,
  personId: number,
): Promise<void> {
  const from = new Date(at.getTime() - (hours ?? 0) * 3_600_000)
  const during = await dryingWithin(tx, spool.id, from, at)
  if (during && (!during.open || kind === 'dried'))
    refuseField(
      'occurredAt',
      `${spool.tag} was in ${during.dryer} then (since ${during.from}); it cannot have been elsewhere`,
    )
  if (during)
    await tx.insert(endings).values({
      target: 'drying',
      targetId: during.id,
      outcome: 'done',
      occurredAt: at,
      personId,
      note: `by "${kind}"`,
    })
  if (hours === null) return
  const [moved] = await tx.execute<{ kind: string; at: string }>(sql`
    select kind, to_char(occurred_at, 'YYYY-MM-DD HH24:MI') at from standing_spool_events
    where spool_id = ${spool.id} and kind <> 'weighed'
    and occurred_at > ${from.toISOString()} and occurred_at < ${at.toISOString()} limit 1`)
  if (moved) refuseField('hours', `${spool.tag} was "${moved.kind}" at ${moved.at}, in the middle of these ${hours} h`)
}

export async function addSpool(
  tx: Connection,
  s: z.output<typeof spoolSchema>,
  personId: number,
): Promise<{ id: number; tag: string }> {
  await unused(tx, spools, 'tag', s.tag, 'a spool')
  const [material] = await tx.select().from(materials).where(eq(materials.id, s.materialId))
  if (!material) refuseField('materialId', 'This material is not known')
  const [row] = await tx
    .insert(spools)
    .values({ ...s, createdBy: personId })
    .returning({ id: spools.id, tag: spools.tag })
  return row!
}
