/** Warm-ups, fitted from what a printer reported while it soaked or from a probe's file. */
import type { WarmUpLine } from '#shared/answers/prepare'
import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import type { FittedWarmUp, Reading } from '#core/chamber'
import type { AirPlace, Opening } from '#core/limits'
import { InputError } from '#core/numeric'
import type { warmUpPlaceSchema, warmUpSchema } from '#shared/entries/prepare'
import type { Connection } from '../../db/client'
import { iso } from '../../db/iso'
import { printers, warmUpPlaces, warmUps } from '../../db/schema'
import { notFound, notInFuture, refuseField } from '../entry/refusal'
import { heavy } from '../../threads/pool'
import { refreshCeilings } from '../printers/ceilings'
import { WARM_UP_PLACE } from '../printers/stack-read'

/** Warm-ups of a printer that are shown: the latest. */
const SHOWN = 50

/** Warm-ups of a printer, newest first, each with the readings that are drawn. */
export async function listWarmUps(db: Connection, printerId: number): Promise<WarmUpLine[]> {
  const rows = await db.execute<{
    id: number
    printerId: number
    placeText: string
    place: AirPlace | null
    opening: Opening
    source: WarmUpLine['source']
    bedC: number
    chamberSetC: number | null
    roomC: number
    fit: FittedWarmUp
    readings: Reading[]
    at: string
    person: string
    note: string
    struck: string | null
  }>(sql`
    select u.id::int, u.printer_id "printerId", u.place "placeText", ${WARM_UP_PLACE} place, u.opening, u.source,
      u.bed_c "bedC", u.chamber_set_c "chamberSetC", u.room_c "roomC", u.fit, coalesce(u.drawn, u.readings) readings,
      ${iso('u.occurred_at')} at, who.name person, u.note,
      (select s.reason from strikes s where s.target = 'warm-up' and s.target_id = u.id) struck
    from warm_ups u join people who on who.id = u.person_id where u.printer_id = ${printerId}
    order by u.occurred_at desc, u.id desc limit ${SHOWN}`)
  // short ones from before `drawn` was kept are all there is to draw
  return rows.map(({ fit, readings, ...r }) => ({ ...r, ...fit, readings }))
}

/** A drawing shows no more, and the list of them stays short however long a probe recorded. */
const DRAWN = 120
function drawn(readings: Reading[]): Reading[] {
  const every = Math.max(1, Math.ceil(readings.length / DRAWN))
  return readings.filter((_, i) => i % every === 0 || i === readings.length - 1)
}

async function readingsOfSoak(tx: Connection, soakId: number, printerId: number): Promise<Reading[]> {
  const [soak] = await tx.execute<{ printer_id: number }>(
    sql`select printer_id from standing_soaks where id = ${soakId}`,
  )
  if (!soak || soak.printer_id !== printerId) refuseField('soakId', 'This soak is not known on that printer')
  const rows = await tx.execute<{ s: number; c: number }>(sql`
    select extract(epoch from r.at - k.occurred_at)::float8 s, r.chamber_c c from soaks k
    join readings r on r.printer_id = k.printer_id
    where k.id = ${soakId} and r.chamber_c is not null and r.at >= k.occurred_at - interval '10 seconds'
    and r.at <= coalesce((select e.occurred_at from endings e where e.target = 'soak'
    and e.target_id = k.id), now()) order by r.at`)
  const first = rows[0]?.s ?? 0
  return rows.map(r => ({ s: r.s - first, c: r.c }))
}

export async function saveWarmUp(
  tx: Connection,
  w: z.output<typeof warmUpSchema>,
  personId: number,
): Promise<{ id: number; fit: FittedWarmUp }> {
  const occurredAt = notInFuture('occurredAt', w.occurredAt)
  const [printer] = await tx.select().from(printers).where(eq(printers.id, w.printerId))
  if (!printer) refuseField('printerId', 'This printer is not known')
  const readings = w.readings ?? (await readingsOfSoak(tx, w.soakId!, w.printerId))
  let fit: FittedWarmUp
  try {
    fit = await heavy('warmUp', readings)
  } catch (error) {
    if (error instanceof InputError)
      refuseField(
        w.readings ? 'readings' : 'soakId',
        `No warm-up can be fitted: ${error.given} given, ${error.allowed}`,
      )
    throw error
  }
  if (fit.finalC > 400 || fit.tauS > 1e6)
    refuseField('readings', 'These readings do not bend towards an end yet; record for longer')
  const [row] = await tx
    .insert(warmUps)
    .values({
      printerId: w.printerId,
      place: w.place,
      opening: w.opening,
      source: w.readings ? 'probe file' : 'live readings',
      bedC: w.bedC,
      chamberSetC: w.chamberSetC,
      roomC: w.roomC,
      fit,
      readings,
      drawn: drawn(readings),
      note: w.note,
      occurredAt,
      personId,
    })
    .returning({ id: warmUps.id })
  await refreshCeilings(tx, [w.printerId])
  return { id: row!.id, fit }
}

/** Told afterwards where its probe was: from then on it counts there. */
export async function saveWarmUpPlace(
  tx: Connection,
  q: z.output<typeof warmUpPlaceSchema>,
  personId: number,
): Promise<{ id: number }> {
  const occurredAt = notInFuture('occurredAt', q.occurredAt)
  const [of] = await tx.select({ printerId: warmUps.printerId }).from(warmUps).where(eq(warmUps.id, q.warmUpId))
  if (!of) notFound('This warm-up')
  const [row] = await tx
    .insert(warmUpPlaces)
    .values({ warmUpId: q.warmUpId, place: q.place, occurredAt, personId })
    .returning({ id: warmUpPlaces.id })
  await refreshCeilings(tx, [of.printerId])
  return { id: row!.id }
}
