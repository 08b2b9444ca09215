/** Set-ups that take pictures, and their scales. */
import { asc, eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { ScaleLine, SetupLine } from '#shared/answers/pictures'
import type { scaleSchema, setupFields } from '#shared/entries/pictures'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { scales, setups } from '../../db/schema'
import { notInFuture, refuseField } from '../entry/refusal'
import { unused } from '../entry/unused'

export async function addSetup(
  tx: Connection,
  s: z.output<typeof setupFields>,
  personId: number,
): Promise<{ id: number }> {
  await unused(tx, setups, 'name', s.name, 'a set-up')
  const [row] = await tx
    .insert(setups)
    .values({ ...s, createdBy: personId })
    .returning({ id: setups.id })
  return row!
}

export async function saveScale(
  tx: Connection,
  s: z.output<typeof scaleSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', s.occurredAt)
  await setupOf(tx, s.setupId, 'setupId')
  const [row] = await tx
    .insert(scales)
    .values({ ...s, occurredAt, personId })
    .returning({ id: scales.id })
  return row!
}

/** A set-up that is in use. */
export async function setupOf(tx: Connection, id: number, field: string): Promise<typeof setups.$inferSelect> {
  const [setup] = await tx.select().from(setups).where(eq(setups.id, id))
  if (!setup || setup.withdrawn) refuseField(field, 'This set-up is not known')
  return setup
}

/** All set-ups with their scales, the latest first. */
export async function listSetups(db: Connection): Promise<SetupLine[]> {
  const rows = await db.select().from(setups).orderBy(asc(setups.id))
  const lines = await db.execute<ScaleLine & Record<string, unknown> & { setup_id: number; id: string }>(sql`
    select s.id, s.setup_id, s.how, s.known_mm "knownMm", s.um_per_px "umPerPx", s.u_um_per_px "uUmPerPx",
      ${iso('s.occurred_at')} "at", p.name person, s.note, k.reason struck
    from scales s join people p on p.id = s.person_id
    left join strikes k on k.target = 'scale' and k.target_id = s.id
    order by s.occurred_at desc, s.id desc`)
  const counts = await db.execute<{ setup_id: number; n: number }>(sql`
    select setup_id, count(*)::int n from standing_gauges where setup_id is not null group by setup_id`)
  return rows.map(({ createdBy: _by, createdAt: _at, ...s }) => ({
    ...s,
    scales: lines.filter(l => l.setup_id === s.id).map(({ setup_id: _setup, ...l }) => ({ ...l, id: Number(l.id) })),
    gauges: counts.find(c => c.setup_id === s.id)?.n ?? 0,
  }))
}
