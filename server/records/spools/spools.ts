/** Spools: what they are, what is left on each, and what happens to them. */
import type { SpoolRow } from '#shared/answers/spools'
import { eq, sql, type SQL } from 'drizzle-orm'
import type { z } from 'zod'
import type { spoolEventSchema, spoolSchema } from '#shared/entries/spools'
import type { Connection } from '../../db/client'
import { idIn, idNotIn } from '../../db/ids'
import { iso } from '../../db/iso'
import { endings, spoolEvents, spools, materials } from '../../db/schema'
import { dryingWithin } from '../prepare/dryings'
import { airAndFactor } from './factor'
import { massOfSpool, weighed } from './mass'
import { freshStands, type KeptStand } from './stands'
import { spoolMass } from '#core/materials'
import { filamentOfSpool, type MaterialFacts } from '#shared/filament'
import type { Question } from '#shared/problem'
import { ask, notInFuture, refuseField } from '../entry/refusal'
import { unused } from '../entry/unused'

type StoredSpool = Omit<
  SpoolRow,
  'densityGCm3' | 'fillerFraction' | 'inUse' | 'leftG' | 'leftBy' | 'lastUsedAt' | 'place'
> & {
  ofMaterial: MaterialFacts
}

/** Spools by their tags, those asked for or all, with what is left on each. */
export async function listSpools(db: Connection, ids?: readonly number[]): Promise<SpoolRow[]> {
  const every = ids ?? (await db.execute<{ id: number }>(sql`select id from spools`)).map(r => r.id)
  return await linesOf(db, await freshStands(db, await airAndFactor(db), every))
}

async function linesOf(db: Connection, stands: readonly KeptStand[]): Promise<SpoolRow[]> {
  const kept = new Map(stands.map(k => [k.spoolId, k]))
  const rows = await db.execute<StoredSpool & Record<string, unknown>>(sql`
    select s.id, s.tag, s.material_id "materialId", m.name material, s.diameter_mm "diameterMm", s.net_g "netG",
      s.tare_g "tareG", s.hub, s.note, s.version, s.density_g_cm3 "ownDensityGCm3",
      s.filler_fraction "ownFillerFraction",
      json_build_object('densityGCm3', m.density_g_cm3, 'fillerFraction', m.filler_fraction) "ofMaterial"
    from spools s join materials m on m.id = s.material_id where ${idIn('s.id', [...kept.keys()])} order by s.tag`)
  return rows.map(({ ofMaterial, ...r }) => {
    const own = { diameterMm: r.diameterMm, densityGCm3: r.ownDensityGCm3, fillerFraction: r.ownFillerFraction }
    const { leftG, leftBy, lastUsedAt, inUse, stand } = kept.get(r.id)!
    return { ...r, leftG, leftBy, lastUsedAt, ...filamentOfSpool(own, ofMaterial), inUse, place: stand.event }
  })
}

/** Ids of the spools that are loaded on a head: nothing has happened to them since. */
export const loadedOn = (headId: number): SQL => sql`
  select l.spool_id from standing_spool_events l where l.head_id = ${headId} and l.kind = 'loaded'
    and not exists (select from standing_spool_events e where e.spool_id = l.spool_id and e.kind <> 'weighed'
      and (e.occurred_at, e.id) > (l.occurred_at, l.id))`

/** Spools that are used up and that forms still offer in full: the latest. */
const LATEST_USED_UP = 40

/** What the shop is told of: every spool in use, and those used up last. */
export async function spoolsOfShop(db: Connection): Promise<SpoolRow[]> {
  const known = await airAndFactor(db)
  const inUse = await freshStands(db, known)
  const ids = inUse.map(k => k.spoolId)
  const latest = await db.execute<{ id: number }>(sql`
    select s.id from spools s left join spool_stands t on t.spool_id = s.id
    where ${idNotIn('s.id', ids)} order by t.last_used_at desc nulls last, s.id desc limit ${LATEST_USED_UP}`)
  const usedUp = latest.map(r => r.id)
  return await linesOf(db, [...inUse, ...(await freshStands(db, known, usedUp))])
}

export async function spoolRemaining(db: Connection, spoolId: number): Promise<{ tag: string; g: number }> {
  const { tag, mass } = await massOfSpool(db, spoolId)
  return { tag, g: spoolMass(mass).g }
}

export async function saveSpoolEvent(
  tx: Connection,
  e: z.output<typeof spoolEventSchema>,
  personId: number,
): Promise<{ id: number; leftG: number }> {
  const occurredAt = notInFuture('occurredAt', e.occurredAt)
  const [spool] = await tx.select().from(spools).where(eq(spools.id, e.spoolId))
  if (!spool) refuseField('spoolId', 'This spool is not known')
  const questions = await weighed(tx, e.spoolId, e.grossG, occurredAt)
  if (e.kind === 'opened') questions.push(...(await openedBefore(tx, spool, occurredAt)))
  ask(questions, e.confirmed)
  if (e.kind !== 'weighed') await leaveDryer(tx, spool, e.kind, occurredAt, e.hours, personId)
  const { confirmed: _, ...values } = e
  const [saved] = await tx
    .insert(spoolEvents)
    .values({ ...values, occurredAt, personId })
    .returning({ id: spoolEvents.id })
  return { id: saved!.id, leftG: (await spoolRemaining(tx, e.spoolId)).g }
}

/** A spool is opened once: whatever was done with it before, it was open then. */
async function openedBefore(tx: Connection, spool: typeof spools.$inferSelect, at: Date): Promise<Question[]> {
  const [before] = await tx.execute<{ what: string; at: string }>(sql`
    select what, ${iso('at')} at from (
      select kind what, occurred_at at from standing_spool_events where spool_id = ${spool.id} and kind <> 'weighed'
      union all select 'put in a dryer', occurred_at from standing_dryings where spool_id = ${spool.id}
      union all select 'printed from', ended_at from standing_run_tools where spool_id = ${spool.id}) x
    where at <= ${at.toISOString()} order by at limit 1`)
  if (!before) return []
  return [
    {
      code: 'opened-before',
      field: 'kind',
      message:
        `${spool.tag} was ${before.what} ${before.at}, so it was open then. Is it opened only ` +
        `now? Taking it out of the box is “out”.`,
    },
  ]
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
    select kind, ${iso('occurred_at')} at from standing_spool_events
    where spool_id = ${spool.id} and kind <> 'weighed'
    and occurred_at > ${from.toISOString()} and occurred_at < ${at.toISOString()} limit 1`)
  if (moved) refuseField('hours', `${spool.tag} was “${moved.kind}” ${moved.at}, in the middle of these ${hours} h`)
}

export async function addSpool(
  tx: Connection,
  s: Omit<z.output<typeof spoolSchema>, 'howMany'>,
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
